"""Everything that is said of tasks, steps and verdicts, in plain English."""
