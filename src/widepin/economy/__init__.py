"""How few moves a task takes, and what a student who is stuck can do next. Both propose; the judge decides."""
