"""Costs: moves, allowed tools, elementary moves and strokes, how a construction is built, class tools."""
