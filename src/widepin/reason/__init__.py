"""Proofs in the words of a classroom: found by an engine, and believed only once a checker of its own has passed them.

``facts``: what can be said of points and lines. ``drawn``: the figure in sampled positions, and what its making says.
``rules``: one row per theorem. ``engine``: everything that follows. ``extraction``: a short way to what is wanted.
``goals``: what the conditions of a task come to. ``checker``: trusted, small, and independent of the engine.
"""
