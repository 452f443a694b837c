"""What is in the file of a class: which columns of which tables, and how rows name each other.

``manifest.json`` says what the file is; ``class.json`` has everything, rows named by numbers of the file's own;
``tasks/N.json`` are the task documents, ``roster.csv`` and ``scores.csv`` are for reading alone.
"""

from __future__ import annotations

FORMAT = "widepin.class/1"

SHEET = (
    *("title", "version", "topic", "policy", "wrong", "fewest", "demonstration"),
    *("series_of", "folder", "library_key", "changed"),
)
ASSIGNMENT = (
    *("position", "opens", "due", "late", "attempts", "scoring", "level", "levels", "feedback", "measuring", "finding"),
    *("loci", "demonstration", "possible", "how_far", "solution", "shortest", "weight", "reasons", "reasons_share"),
    *("hints", "hint_cost", "practice_key"),
)
CLASS_TOOL = ("name", "document", "moves")
WORK = ("started", "touched", "returned")
OPERATION = ("number", "key", "document", "stored")
HINT = ("number", "level", "document", "at", "sent")
HAND_IN = (
    *("attempt", "key", "outcome", "moves", "document", "verdict", "handed_in"),
    *("hints", "score", "score_override", "reason", "reasoned"),
)
COMMENT = ("step", "text", "key", "written")
ENTERED = ("kind", "score", "note", "photo_type", "entered")
MARK_COLUMN = ("title", "weight")

LARGEST_UNPACKED = 150_000_000
"""Bytes of what is in a file."""
