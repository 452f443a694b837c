"""Lessons: a class at work: the overview, who needs help, demonstrations, the first page."""
