"""The figure of a rule: what its row is about, with the marks of what is equal; what follows is told by colour."""

from __future__ import annotations

import json
from collections.abc import Iterator, Sequence
from functools import cache
from itertools import combinations
from math import atan2, cos, hypot, pi, sin
from pathlib import Path

from ...reason.rules import PARTS, Rule

FIGURES = Path(__file__).parent / "reason_figures.json"
"""Where the objects of each row lie, by the rule's name and the letters of the row; made by tools/ship_reasons.py."""

WIDTH, HEIGHT, MARGIN = 200.0, 140.0, 22.0
TICK, ARC, SQUARE = 5.0, 13.0, 8.0  # units of the drawing

KINDS = ("point", "line", "circle")
OF_LENGTHS = ("equal_length", "parallel", "perpendicular", "ratio", *PARTS)
"""Conclusions about lengths or lines, which are drawn as what follows."""

Place = tuple[float, float]


@cache
def shipped() -> dict[str, dict[str, list[float | str]]]:
    """All figures."""
    found: dict[str, dict[str, list[float | str]]] = json.loads(FIGURES.read_text())
    return found


def picture_of(rule: Rule) -> str:
    """The figure of a rule as an SVG element; empty for a rule without one."""
    objects = shipped().get(str(rule.name))
    return _Picture(rule, objects).svg() if objects else ""


class _Picture:
    """A row drawn. ``given``: patterns of its premises; ``follows``: of its conclusion."""

    def __init__(self, rule: Rule, objects: dict[str, list[float | str]]):
        self.rule, self.objects = rule, objects
        self.given, self.follows = rule.premise_patterns, (rule.conclusion_pattern,)
        numbers = {name: [float(value) for value in row[1:]] for name, row in objects.items()}
        of = {kind: {name: numbers[name] for name in objects if objects[name][0] == kind} for kind in KINDS}
        self.points = {name: (row[0], row[1]) for name, row in of["point"].items()}
        self.lines = {name: (row[0], row[1]) for name, row in of["line"].items()}
        self.circles = {name: (row[0], row[1], abs(row[2])) for name, row in of["circle"].items()}
        self._fit()

    def _fit(self) -> None:
        """The scale and the middle by which all lies on the paper, y downward."""
        places = list(self.points.values())
        for x, y, radius in self.circles.values():
            places += [(x - radius, y - radius), (x + radius, y + radius)]
        xs, ys = [x for x, _ in places], [y for _, y in places]
        across, up = max(max(xs) - min(xs), 1e-9), max(max(ys) - min(ys), 1e-9)
        self.scale = min((WIDTH - 2 * MARGIN) / across, (HEIGHT - 2 * MARGIN) / up)
        self.middle = ((max(xs) + min(xs)) / 2, (max(ys) + min(ys)) / 2)

    def at(self, place: Place) -> Place:
        """A place of the figure on the paper."""
        x, y = place
        return WIDTH / 2 + (x - self.middle[0]) * self.scale, HEIGHT / 2 - (y - self.middle[1]) * self.scale

    def svg(self) -> str:
        """The whole."""
        parts = [
            *self._areas(),
            *(self._circle(name) for name in self.circles),
            *(self._line(name) for name in self.lines),
            *self._segments(),
            *self._marks(),
            *self._points(),
        ]
        return (
            f'<svg class="reason-figure" viewBox="0 0 {WIDTH:g} {HEIGHT:g}" aria-hidden="true">{"".join(parts)}</svg>'
        )

    # -- curves -------------------------------------------------------------------------------------

    def _areas(self) -> Iterator[str]:
        """Triangles of which it follows that they are equally large, filled."""
        word, terms = self.follows[0]
        for corners in terms if word == "equal_area" else ():
            places = " ".join(f"{x:.1f} {y:.1f}" for x, y in (self.at(self.points[name]) for name in corners))
            yield f'<path class="area" d="M{places}Z"/>'

    def _circle(self, name: str) -> str:
        x, y, radius = self.circles[name]
        cx, cy = self.at((x, y))
        return f'<circle class="line" cx="{cx:.1f}" cy="{cy:.1f}" r="{radius * self.scale:.1f}"/>'

    def _line(self, name: str) -> str:
        turn, far = self.lines[name]
        x, y = -sin(turn) * far, cos(turn) * far
        # As near the middle as the line comes, and on to both edges.
        mx, my = self.middle
        along = (mx - x) * cos(turn) + (my - y) * sin(turn)
        reach = 0.42 * WIDTH / self.scale
        ends = [self.at((x + (along + d) * cos(turn), y + (along + d) * sin(turn))) for d in (-reach, reach)]
        return _stroke("line", *ends)

    def _segments(self) -> Iterator[str]:
        """What is spoken of: sides, legs of angles, and the whole of points in a row."""
        drawn = {frozenset(pair) for word, terms in self.given for pair in self._pairs(word, terms)}
        following = {frozenset(pair) for word, terms in self.follows for pair in self._pairs(word, terms)}
        is_length = self.follows[0][0] in OF_LENGTHS
        for pair in sorted(drawn | following, key=sorted):
            first, last = (self.at(self.points[name]) for name in sorted(pair))
            yield _stroke("follows" if is_length and pair in following else "side", first, last)

    def _pairs(self, word: str, terms: Sequence[str]) -> Iterator[tuple[str, str]]:
        match word:
            case "congruent" | "similar" | "equal_area":
                for corners in terms:
                    yield from combinations(corners, 2)
            case "collinear" | "midpoint":
                names = [name for name in terms if name in self.points]
                yield max(combinations(names, 2), key=lambda pair: self._apart(*pair))
            case "concyclic" | "on":
                return
            case _:
                for term in terms:
                    if len(term) == 2:
                        yield term[0], term[1]
                    elif len(term) == 3:
                        yield term[1], term[0]
                        yield term[1], term[2]

    def _apart(self, p: str, q: str) -> float:
        (x, y), (u, v) = self.points[p], self.points[q]
        return hypot(u - x, v - y)

    # -- marks --------------------------------------------------------------------------------------

    def _marks(self) -> Iterator[str]:
        """What is equal or right, each by marks of its own; what follows in its colour."""
        lengths = angles = 0
        for patterns, kind in ((self.given, "mark"), (self.follows, "mark follows")):
            for word, terms in patterns:
                match word:
                    case "equal_length":
                        lengths += 1
                        for pair in terms:
                            yield from self._ticks(pair[0], pair[1], lengths, kind)
                    case "midpoint":
                        lengths += 1
                        for end in terms[1:]:
                            yield from self._ticks(terms[0], end, lengths, kind)
                    case "equal_angle" | "angle":
                        angles += 1
                        for triple in terms:
                            yield from (self._arc(triple, ARC + 3 * n, kind) for n in range(angles))
                    case "right_angle":
                        yield self._square(terms[0], kind)
                    case "perpendicular":
                        yield from self._upright(terms, kind)

    def _ticks(self, p: str, q: str, count: int, kind: str) -> Iterator[str]:
        (x, y), (u, v) = self.at(self.points[p]), self.at(self.points[q])
        far = hypot(u - x, v - y) or 1.0
        dx, dy = (u - x) / far, (v - y) / far
        for number in range(count):
            along = 3 * (number - (count - 1) / 2)
            mx, my = (x + u) / 2 + along * dx, (y + v) / 2 + along * dy
            yield _stroke(kind, (mx - TICK * dy, my + TICK * dx), (mx + TICK * dy, my - TICK * dx))

    def _legs(self, triple: str) -> tuple[Place, float, float]:
        """A vertex on the paper, and the directions of both legs, the second by the shorter way from the first."""
        x, y = self.at(self.points[triple[1]])
        first, last = (
            atan2(self.at(self.points[end])[1] - y, self.at(self.points[end])[0] - x) for end in (triple[0], triple[2])
        )
        way = (last - first + pi) % (2 * pi) - pi
        return (x, y), first, first + way

    def _arc(self, triple: str, radius: float, kind: str) -> str:
        (x, y), first, last = self._legs(triple)
        (a, b), (c, d) = ((x + radius * cos(turn), y + radius * sin(turn)) for turn in (first, last))
        return (
            f'<path class="{kind}" d="M{a:.1f} {b:.1f}A{radius:g} {radius:g} 0 0 {int(last > first)} {c:.1f} {d:.1f}"/>'
        )

    def _square(self, triple: str, kind: str) -> str:
        (x, y), first, last = self._legs(triple)
        (a, b), (c, d) = ((SQUARE * cos(turn), SQUARE * sin(turn)) for turn in (first, last))
        return f'<path class="{kind}" d="M{x + a:.1f} {y + b:.1f}l{c:.1f} {d:.1f}l{-a:.1f} {-b:.1f}"/>'

    def _upright(self, terms: Sequence[str], kind: str) -> Iterator[str]:
        """A right angle where two lines cross, if that lies on the paper."""
        (p, u), (q, v) = (self._ray(term) for term in terms)
        cross = u[0] * v[1] - u[1] * v[0]
        if abs(cross) < 1e-6:
            return
        t = ((q[0] - p[0]) * v[1] - (q[1] - p[1]) * v[0]) / cross
        x, y = self.at((p[0] + t * u[0], p[1] + t * u[1]))
        if 0 < x < WIDTH and 0 < y < HEIGHT:
            (a, b), (c, d) = ((SQUARE * u[0], -SQUARE * u[1]), (SQUARE * v[0], -SQUARE * v[1]))
            yield f'<path class="{kind}" d="M{x + a:.1f} {y + b:.1f}l{c:.1f} {d:.1f}l{-a:.1f} {-b:.1f}"/>'

    def _ray(self, term: str) -> tuple[Place, Place]:
        """A place on a line and its direction."""
        if len(term) == 1:
            turn, far = self.lines[term]
            return (-sin(turn) * far, cos(turn) * far), (cos(turn), sin(turn))
        (x, y), (u, v) = self.points[term[0]], self.points[term[1]]
        far = hypot(u - x, v - y) or 1.0
        return (x, y), ((u - x) / far, (v - y) / far)

    # -- points -------------------------------------------------------------------------------------

    def _points(self) -> Iterator[str]:
        mx = sum(x for x, _ in self.points.values()) / len(self.points)
        my = sum(y for _, y in self.points.values()) / len(self.points)
        for name, (x, y) in self.points.items():
            cx, cy = self.at((x, y))
            far = hypot(x - mx, y - my) or 1.0
            tx, ty = cx + 12 * (x - mx) / far, cy - 12 * (y - my) / far + 4
            yield f'<circle class="point" cx="{cx:.1f}" cy="{cy:.1f}" r="2.6"/>'
            yield f'<text x="{tx:.1f}" y="{ty:.1f}">{name}</text>'


def _stroke(kind: str, start: Place, end: Place) -> str:
    return f'<path class="{kind}" d="M{start[0]:.1f} {start[1]:.1f}L{end[0]:.1f} {end[1]:.1f}"/>'
