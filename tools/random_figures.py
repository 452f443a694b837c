"""Random figures in which the premises of a rule hold: objects put at random, then moved until they do.

What is asked are equations between coordinates; the method of Gauss and Newton finds places nearby that fulfil them.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from widepin.reason.drawn import Drawn
from widepin.reason.facts import Fact, Rel
from widepin.reason.rules import PARTS, Rule, bound

Numbers = NDArray[np.float64]

SIZE = 5.0
NUMBERS = {"point": 2, "line": 2, "circle": 3}
"""Of points both coordinates; of lines a direction and the distance from the origin; of circles centre and radius."""


def kinds_in(rule: Rule) -> dict[str, str]:
    """What each letter of a row stands for."""
    every = [*rule.premise_patterns, rule.conclusion_pattern, *rule.figure_patterns]
    letters = sorted({letter for _word, terms in every for term in terms for letter in term})
    found = {letter: "point" if letter.isupper() else "line" for letter in letters}
    for word, terms in every:
        if word == "centre":
            found[terms[1]] = "circle"
    for word, terms in every:  # a line and a circle touch; of two small letters that are k, m or i, both are circles
        found |= {term: "circle" for term in terms if word in ("on", "tangent") and term in "kmi"}
    return found


class Figure:
    """The objects of a row at some numbers, all in one array."""

    def __init__(self, kinds: dict[str, str], numbers: Numbers):
        self.kinds: dict[str, str] = kinds
        self.at: dict[str, Numbers] = {}
        place = 0
        for letter, kind in kinds.items():
            self.at[letter] = numbers[place : place + NUMBERS[kind]]
            place += NUMBERS[kind]

    def is_plain(self) -> bool:
        """Whether no two points are one, and no circle is a point."""
        points = [self.point(letter) for letter, kind in self.kinds.items() if kind == "point"]
        apart = all(abs(p - q) > 0.05 for p, q in combinations(points, 2))
        return apart and all(self.circle(one)[1] > 0.05 for one, kind in self.kinds.items() if kind == "circle")

    def point(self, letter: str) -> complex:
        """Where a point lies."""
        x, y = self.at[letter]
        return complex(x, y)

    def line(self, term: str) -> tuple[complex, complex]:
        """A place on a line, and its direction of length one."""
        if len(term) == 1:
            turn, far = self.at[term]
            way = complex(np.exp(1j * turn))
            return 1j * way * far, way
        p, q = map(self.point, term)
        return p, (q - p) / max(abs(q - p), 1e-9)

    def circle(self, letter: str) -> tuple[complex, float]:
        """The centre and the radius of a circle."""
        x, y, radius = self.at[letter]
        return complex(x, y), abs(float(radius))

    def length(self, pair: str) -> float:
        """How far two points are apart."""
        p, q = map(self.point, pair)
        return abs(p - q)

    def angle(self, triple: str) -> float:
        """An angle in radians; 0 where it is none."""
        p, v, q = map(self.point, triple)
        return float(abs(np.angle((p - v).conjugate() * (q - v)))) if p != v != q else 0.0

    def off(self, point: str, term: str) -> float:
        """How far a point lies from a line, to its left."""
        place, way = self.line(term)
        return (way.conjugate() * (self.point(point) - place)).imag

    def drawn(self) -> Drawn:
        """The figure as proofs have it, in one position."""
        found = Drawn({}, {}, {}, SIZE)
        for letter, kind in self.kinds.items():
            if kind == "point":
                found.points[letter] = np.array([self.point(letter)])
            elif kind == "line":
                place, way = self.line(letter)
                found.lines[letter] = (np.array([place]), np.array([way]))
            else:
                centre, radius = self.circle(letter)
                found.circles[letter] = (np.array([centre]), np.array([radius]))
        return found


def gaps(figure: Figure, rule: Rule) -> Iterator[float]:
    """What is missing for the premises to hold, and for what is said of lines and circles in the figure."""
    for word, terms in rule.premise_patterns:
        match word:
            case "equal_length":
                yield from (figure.length(other) - figure.length(terms[0]) for other in terms[1:])
            case "equal_angle":
                yield figure.angle(terms[0]) - figure.angle(terms[1])
            case "right_angle":
                yield figure.angle(terms[0]) - np.pi / 2
            case "parallel" | "perpendicular":
                product = figure.line(terms[0])[1].conjugate() * figure.line(terms[1])[1]
                yield product.imag if word == "parallel" else product.real
            case "collinear":
                yield from (figure.off(other, terms[0] + terms[1]) for other in terms[2:])
            case "midpoint":
                middle, p, q = map(figure.point, terms)
                yield from ((2 * middle - p - q).real, (2 * middle - p - q).imag)
            case "on" if figure.kinds.get(terms[1]) == "circle":
                centre, radius = figure.circle(terms[1])
                yield abs(figure.point(terms[0]) - centre) - radius
            case "on":
                yield figure.off(terms[0], terms[1])
            case "tangent":
                circle, other = terms
                centre, radius = figure.circle(circle)
                place, way = figure.line(other)
                on_circle = [t[0] for w, t in rule.premise_patterns if w == "on" and t[1] == circle]
                on_line = [*other, *(t[0] for w, t in rule.premise_patterns if w == "on" and t[1] == other)]
                touching = [point for point in on_circle if point in on_line]
                if touching:  # a double root would be found to half the digits only
                    yield (way.conjugate() * (centre - figure.point(touching[0]))).real
                else:
                    yield abs((way.conjugate() * (centre - place)).imag) - radius
            case "concyclic":
                a, b, c, d = map(figure.point, terms)
                yield np.angle((a - c) * (b - d) / ((b - c) * (a - d))) if 0 not in (b - c, a - d) else 1.0
            case "congruent" | "similar":
                sides = [[figure.length(t[n] + t[(n + 1) % 3]) for n in range(3)] for t in terms]
                scale = sides[1][0] / max(sides[0][0], 1e-9) if word == "similar" else 1.0
                yield from (b - scale * a for a, b in zip(*sides, strict=True))
            case _ if word in PARTS:
                n, d = PARTS[word]
                yield figure.length(terms[0]) * d - figure.length(terms[1]) * n
            case "ratio" | "angle":
                pass  # whatever it is
            case _:
                raise LookupError(word)
    for word, terms in rule.figure_patterns:
        match word:
            case "centre":
                apart = figure.point(terms[0]) - figure.circle(terms[1])[0]
                yield from (apart.real, apart.imag)
            case "radius":
                yield figure.circle(terms[0])[1] - figure.length(terms[1] + terms[2])
            case "bisector":
                line, one, other = terms
                place, way = figure.line(line)
                first, last = figure.point(one), figure.point(other)
                yield (way.conjugate() * ((first + last) / 2 - place)).imag
                yield (way.conjugate() * (first - last)).real
            case "bisects":
                line, one, vertex, other = terms
                yield figure.off(vertex, line)
                legs = [figure.point(end) - figure.point(vertex) for end in (one, other)]
                half = sum(leg / max(abs(leg), 1e-9) for leg in legs)
                yield (figure.line(line)[1].conjugate() * half).imag
    if rule.makes is not None:
        yield size_by_degrees(figure, rule) - rule.makes


def size_by_degrees(figure: Figure, rule: Rule) -> float:
    """What a row concludes from the sizes of its angles, in degrees."""
    sizes = [np.degrees(figure.angle(terms[0])) for word, terms in rule.premise_patterns if word == "angle"]
    constant, *factors = rule.degrees
    return float(constant + sum(factor * size for factor, size in zip(factors, sizes, strict=True)))


def figures(rule: Rule, rng: np.random.Generator, count: int) -> Iterator[Figure]:
    """So many tries at figures in which the premises hold; those that come out."""
    kinds = kinds_in(rule)
    free = sum(NUMBERS[kind] for kind in kinds.values())

    def missing(numbers: Numbers) -> Numbers:
        return np.array([float(gap) for gap in gaps(Figure(kinds, numbers), rule)])

    for _ in range(count):
        at = rng.uniform(-SIZE, SIZE, free)
        found = missing(at)
        for _round in range(40):
            if not len(found) or np.abs(found).max() < 1e-12:
                break
            steps = np.array([(missing(at + 1e-7 * unit) - found) / 1e-7 for unit in np.eye(free)]).T
            at = at - np.linalg.lstsq(steps, found, rcond=1e-9)[0]
            found = missing(at)
        figure = Figure(kinds, at)
        is_there = np.isfinite(at).all() and (not len(found) or np.abs(found).max() < 1e-11)
        if is_there and np.abs(at).max() < 20 * SIZE and figure.is_plain():
            yield figure


def ratio_by_parts(figure: Figure, rule: Rule) -> float:
    """What a row concludes from the ratios of its premises."""
    ratios = [figure.length(t[0]) / figure.length(t[1]) for word, t in rule.premise_patterns if word == "ratio"]
    match rule.parts:
        case "product":
            return float(np.prod(ratios))
        case "sum":
            return 1 / (1 / ratios[0] + 1 / ratios[1])
        case "rest":
            return 1 / abs(1 / ratios[0] - 1 / ratios[1])
        case "quotient":
            return ratios[1] / ratios[0]


READ_OFF = ("centre", "radius", "bisector", "bisects")
"""What is asked for above; all else is only looked at."""

CLEAR = 1e-3
"""Twice the area of what counts as a triangle here: beside a double root premises hold to half the digits only."""


def concludes(figure: Figure, rule: Rule) -> bool | None:
    """Whether what a row concludes is so in a figure; None where the figure is not as the row reads it off."""
    drawn = figure.drawn()
    with np.errstate(all="ignore"):
        if not all(drawn.seen(word, terms) for word, terms in rule.figure_patterns if word not in READ_OFF):
            return None
        if any(abs(drawn.cross(*terms)[0]) < CLEAR for word, terms in rule.figure_patterns if word == "apart"):
            return None
        word, terms = rule.conclusion_pattern
        if word == "ratio":
            said = ratio_by_parts(figure, rule)
            return abs(figure.length(terms[0]) / figure.length(terms[1]) - said) < 1e-6 * said
        if word == "angle":
            said = size_by_degrees(figure, rule)
            return abs(np.degrees(figure.angle(terms[0])) - said) < 1e-5 if 0 < said < 180 else None
        if word == "similar":
            first, second = terms
            return all(
                abs(figure.angle(first[n:] + first[:n]) - figure.angle(second[n:] + second[:n])) < 1e-6
                for n in range(3)
            )
        names = {letter: letter for letter in figure.kinds}
        return drawn.holds(
            bound((word, terms), names) if word in PARTS else Fact(Rel(word), bound((word, terms), names).of)
        )
