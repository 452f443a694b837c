"""Rules that a task, a work or a class tool can break, as data; ``documents/wording/rule_words.py`` has their words."""

from __future__ import annotations

from enum import StrEnum


class TaskRule(StrEnum):
    """What makes a task well formed."""

    STEPS_IN_ALL = "steps in all"  # most
    NO_TOOL = "no tool"  # tool, tools
    TOOL_TWICE = "tool twice"  # tool
    NEGATIVE = "negative"  # most
    NO_FIXED_RADIUS = "no fixed radius"  # tool
    NOT_A_GIVEN_POINT = "not a given point"  # name
    POINT_TWICE = "point twice"  # name
    NOTHING_WANTED = "nothing wanted"
    TOO_MUCH_WANTED = "too much wanted"  # most
    NO_KIND = "no kind"  # kind, kinds
    WANTED_TWICE = "wanted twice"  # name
    WANTED_IS_GIVEN = "wanted is given"  # name
    TOO_MANY_CONDITIONS = "too many conditions"  # most
    NO_RELATION = "no relation"  # rel, relations
    TOO_MANY_TERMS = "too many terms"  # most
    AT_LEAST_TERMS = "at least terms"  # rel, least, role, count
    HOW_MANY_TERMS = "how many terms"  # rel, exactly, count
    RATIO_ALONE = "ratio alone"
    RATIO_BELOW_ONE = "ratio below one"
    NO_CIRCLE_TO_TOUCH = "no circle to touch"
    NOT_COMPARABLE = "not comparable"
    NAME_UNKNOWN = "name unknown"  # name
    LIST_OF_POINTS = "list of points"  # size
    NO_LIST = "no list"  # role
    KIND_OF_TERM = "kind of term"  # name, kind, role


class WorkRule(StrEnum):
    """What a work must keep to be judged."""

    TOOL_NOT_ALLOWED = "tool not allowed"  # tool
    TOOL_USED_UP = "tool used up"  # tool, most, time
    FIXED_COMPASS = "fixed compass"  # ends
    NOT_ASKED_FOR = "not asked for"  # name
    NOT_ON_THE_BOARD = "not on the board"  # name, id
    KIND_OF_ANSWER = "kind of answer"  # name, wanted, id, kind
    ANSWER_IS_GIVEN = "answer is given"  # id, name
    ANSWER_IS_HELPER = "answer is helper"  # id, name, class_tool
    ANSWER_LACKS = "answer lacks"  # name
    AS_WORDED = "as worded"  # words: of a work that could not be read, or a verdict that was


class ClassToolRule(StrEnum):
    """What makes a construction fit to be a class tool."""

    NOTHING_TO_BUILD = "nothing to build"
    PLACED_BY_HAND = "placed by hand"  # id
    SLIDES = "slides"  # id, on
