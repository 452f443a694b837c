"""Results: where everybody stands, marks, practice, and what is released when a task is solved."""
