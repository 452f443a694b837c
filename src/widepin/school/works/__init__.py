"""Works: boards and their logs, hand-ins with their verdicts, and what is said of them."""
