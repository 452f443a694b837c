"""What every answer passes through: logs, metrics, cookies, limits, and files that stay the same."""
