"""Every tolerance there is, each with its meaning. Lengths are in sizes of the figure unless it says otherwise.

Doubles propose and balls decide, so most of these only say what is worth a closer look. What a verdict calls exact
hangs on ``DIGITS`` alone, and what it calls right to the eye on ``VISUAL`` (docs/formats.md).
"""

from __future__ import annotations

# -- doubles -------------------------------------------------------------------------------------------

ROUNDING = 1e-12
"""Relative rounding that doubles are allowed before a sign counts as a sign."""

SLACK = 1e-9
"""How far beyond the end of a segment or ray a computed position may lie, as a multiple of its length."""

PLAINLY_POSITIVE = 1e-4
"""Above this a number is positive: that would be rounding only for terms of 10^8, far larger than those of a figure."""

EXACT_IN_FLOATS = 1e-7
"""Below this a gap may be zero; whether it is, balls decide."""

BLURRED = 1e-9
"""Error of an object in doubles from which on they are not to be trusted with exactness."""

# -- balls ---------------------------------------------------------------------------------------------

ZERO_DIGITS = 100
"""A ball about zero within 10^-ZERO_DIGITS of the size of its terms counts as zero."""

DIGITS = 60
"""A residual below 10^-DIGITS cm is exact."""

# -- the eye -------------------------------------------------------------------------------------------

VISUAL = 0.012
"""What the eye cannot tell apart."""

PLAIN_TO_SEE = 5 * VISUAL
"""A failure so large that nobody overlooks it; smaller drags are not worth telling either."""

NEAR_BY_EYE = 2.5 * VISUAL
"""How close to an intersection, or to a curve, a point placed by eye was probably meant to lie there."""

# -- what is the same -----------------------------------------------------------------------------------

DISTINCT = 1e-6
"""Points at least this far apart are different; below, balls decide."""

SAME = 1e-6
"""Below this, two points as drawn are taken for one and the same."""

DRAWN_AS_ONE = 1e-6
"""Distance, in centimetres, below which two points as drawn are one."""

ALWAYS_EQUAL = 1e-8
"""Numbers that differ by less in every sample are proposed as equal; balls decide."""

SAME_IMAGE = 1e-7
"""Below this, mirror images of an answer are one."""

UNCHANGED = 1e-6
"""A gap that differs by less after a point was moved does not hang on that point."""

IN_A_ROW = 1e-6
"""Twice the area of a triangle, in squared sizes, below which it has no circle through its corners."""

# -- limits ---------------------------------------------------------------------------------------------

TIGHT = 0.3
"""Closer than this to where something stops existing, a search looks at what happens on the way there."""

ALWAYS_AT_THE_LIMIT = 1e-9
"""What is never farther from its limit than this is so by construction, and no near miss."""

PARALLEL = 1e-9
"""Sine of an angle that is added where a gap is divided by one, so that parallels have a gap too."""

TOUCHING = 1e-5
"""Intersections closer than this are one point, in which the curves touch."""

DEGENERATE = 1e-6
"""Size of a figure, in centimetres or as a share of its drawn size, below which it has shrunk to a point."""
