"""Positions: the batch that a verdict is based on, limits that chance misses, branches, orders of steps."""
