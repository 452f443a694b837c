"""The figures of the cards of reasons, found once and shipped: ``bin/widepin tool ship_reasons``.

For each row of rules random figures are found in which its premises hold, and that are as the row reads them. The one
is taken in which points lie farthest from each other, and from being in a row where they need not be; two triangles
without a corner in common lie beside each other.
"""

from __future__ import annotations

import json
from itertools import combinations

import numpy as np
from tools.random_figures import Figure, concludes, figures

from widepin.documents.reasons.reason_pictures import FIGURES
from widepin.reason.rules import RULES, Rule

TRIES, TRIES_OF_TWO = 240, 1600
"""How many figures are looked at, and of rows about two triangles that lie apart, which are seldom clear."""

HIGHEST = 0.7
"""Height by width up to which a figure is the better the higher it is: beyond, a rectangle would look like a square."""


def clearness(figure: Figure) -> float:
    """How well a figure can be read: the least distance of two points, and of a point from a line of two others, as a
    share of the whole.
    """
    points = [figure.point(letter) for letter, kind in figure.kinds.items() if kind == "point"]
    extent = [*points]
    for letter, kind in figure.kinds.items():
        if kind == "circle":
            centre, radius = figure.circle(letter)
            extent += [centre + radius * way for way in (1, -1, 1j, -1j)]
    wide = max(max(z.real for z in extent) - min(z.real for z in extent), 1e-9)
    high = max(max(z.imag for z in extent) - min(z.imag for z in extent), 1e-9)
    size = max(wide, 1.4 * high)
    apart = min(abs(p - q) for p, q in combinations(points, 2)) / size
    off = 1.0
    for p, q, r in combinations(points, 3):
        longest = max(abs(p - q), abs(q - r), abs(r - p))
        height = abs(((q - p).conjugate() * (r - p)).imag) / longest / size
        if height > 1e-6:
            off = min(off, height)
    return min(apart, 1.5 * off) + 0.02 * min(high / wide, HIGHEST)


def two_triangles(rule: Rule) -> tuple[str, ...]:
    """Two triangles of the row without a corner in common; none where there are not."""
    for word, terms in (*rule.premise_patterns, rule.conclusion_pattern):
        if word in ("congruent", "similar", "equal_area") and not {*terms[0]} & {*terms[1]}:
            return terms
    return ()


def are_crossed(figure: Figure, triangles: tuple[str, ...]) -> bool:
    """Whether sides of two triangles cross."""
    sides = [list(combinations(map(figure.point, corners), 2)) for corners in triangles]
    return any(_cross(one, other) for one in sides[0] for other in sides[1]) if sides else False


def _cross(one: tuple[complex, complex], other: tuple[complex, complex]) -> bool:
    def sides(line: tuple[complex, complex], ends: tuple[complex, complex]) -> float:
        way = (line[1] - line[0]).conjugate()
        return float((way * (ends[0] - line[0])).imag * (way * (ends[1] - line[0])).imag)

    return sides(one, other) < 0 and sides(other, one) < 0


def level(figure: Figure, rule: Rule) -> Figure:
    """A figure turned so that the first length or line of the row lies level, or the first leg of a right angle."""
    patterns = (*rule.premise_patterns, rule.conclusion_pattern)
    pairs = (term[:2] if word == "right_angle" else term for word, terms in patterns for term in terms)
    pair = next((term for term in pairs if len(term) in (2, 3) and term.isupper()), None)
    if pair is None:
        points = [letter for letter, kind in figure.kinds.items() if kind == "point"]
        pair = "".join(points[:2])
    p, q = figure.point(pair[0]), figure.point(pair[-1])
    turn = abs(q - p) / (q - p)
    numbers = []
    for letter, kind in figure.kinds.items():
        if kind == "line":
            direction, far = figure.at[letter]
            numbers += [direction + float(np.angle(turn)), far]
        else:
            x, y = figure.at[letter][:2]
            at = complex(x, y) * turn
            numbers += [at.real, at.imag, *figure.at[letter][2:]]
    return Figure(figure.kinds, np.array(numbers))


def best_figure(rule: Rule) -> Figure:
    """The clearest of many."""
    rng = np.random.default_rng(len(rule.premises))
    triangles = two_triangles(rule)
    every = figures(rule, rng, TRIES_OF_TWO if triangles else TRIES)
    found = [level(one, rule) for one in every if concludes(one, rule)]
    return max(found, key=lambda one: (not are_crossed(one, triangles), clearness(one)))


def main() -> None:
    """Find all and write them."""
    shipped = {}
    for name, rule in RULES.items():
        if rule.premises:
            figure = best_figure(rule)
            numbers = {letter: [round(float(n), 4) for n in figure.at[letter]] for letter in figure.kinds}
            shipped[str(name)] = {letter: [figure.kinds[letter], *row] for letter, row in numbers.items()}
            print(name, round(clearness(figure), 3))
    FIGURES.write_text(json.dumps(shipped, indent=0) + "\n")


if __name__ == "__main__":
    main()
