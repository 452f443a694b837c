"""Tasks: sheets in versions, the library, class tools, and giving a task to a class."""
