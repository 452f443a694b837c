"""Trials: a board examined in many positions, the answer found and tried, the simplest break."""
