"""Figures as SVG for print: attributes only, since the printing library knows neither variables nor outer styles."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Sequence
from html import escape
from math import atan2, cos, hypot, pi, sin, sqrt

from ...plane.figure import Figure, is_defined
from ...plane.makes import MAKES, MakeName
from ...plane.shapes import Circle, Kind, Line, Point, Shape
from ...plane.steps import Step
from .colours import COLOURS

INK, GRAPHITE, HIGHLIGHT, WHITE = (COLOURS[name] for name in ("ink", "graphite", "highlight", "white"))
WIDTH, HEIGHT = 120.0, 92.0
"""Units of every drawing, whatever the size of its figure, so that pens and letters are the same on a page."""

MARGIN, WIDER = 0.9, 0.1
"""Around what is drawn: centimetres at least, and as a part of its extent, so that names have room in large figures."""

HALF_ARC = 5.0  # units of an arc drawn by hand on either side of its point, however large the circle
WIDEST_ARC = 26 * pi / 180  # half its angle at most, so that a small circle keeps its gaps


class Box:
    """The part of the paper that is drawn, in centimetres."""

    def __init__(self, shapes: Iterable[Shape[float]]):
        places = [place for shape in shapes if is_defined(shape) for place in extent_of(shape)]
        xs, ys = [x for x, _ in places] or [0.0], [y for _, y in places] or [0.0]
        across, up = max(xs) - min(xs), max(ys) - min(ys)
        margin = max(MARGIN, WIDER * max(across, up))
        across, up = across + 2 * margin, up + 2 * margin
        self.scale = min(WIDTH / across, HEIGHT / up)  # units per centimetre
        wide, tall = WIDTH / self.scale, HEIGHT / self.scale
        self.left, self.low = (min(xs) + max(xs) - wide) / 2, (min(ys) + max(ys) - tall) / 2
        self.right, self.high = self.left + wide, self.low + tall

    def at(self, x: float, y: float) -> tuple[float, float]:
        """A place of the figure in the units of the drawing, y downward."""
        return (x - self.left) * self.scale, (self.high - y) * self.scale

    def clip(self, kind: Kind, line: Line[float]) -> tuple[tuple[float, float], tuple[float, float]] | None:
        """The part of a line that lies in the box, or None."""
        first = -1e9 if kind is Kind.LINE else 0.0
        last = 1.0 if kind is Kind.SEGMENT else 1e9
        for start, step, low, high in (
            (line.x, line.dx, self.left, self.right),
            (line.y, line.dy, self.low, self.high),
        ):
            if abs(step) < 1e-12:
                if not low <= start <= high:
                    return None
                continue
            a, b = sorted(((low - start) / step, (high - start) / step))
            first, last = max(first, a), min(last, b)
        if first >= last:
            return None
        x, y, dx, dy = line
        return (x + first * dx, y + first * dy), (x + last * dx, y + last * dy)


def picture(
    given: Sequence[Step],
    steps: Sequence[Step],
    answer: Collection[str] = (),
    lit: str | None = None,
    arcs: bool = False,
    frame: Sequence[Step] | None = None,
    hidden: Collection[str] = (),
) -> str:
    """An SVG element of a construction as it is drawn.

    ``lit``: a step to bring out. ``arcs``: the student's circles as short arcs where something lies on them.
    ``frame``: steps whose extent the drawing has, so that a series of drawings keeps one; all of its own if None.
    ``hidden``: ids of what is not drawn, but for the step that is brought out.
    """
    whole = Figure([*given, *(steps if frame is None else frame)])
    _, extents = whole.drawn()
    extent = [one for node, one in zip(whole.nodes, extents, strict=True) if node.step.id not in hidden]
    figure = Figure([*given, *steps])
    _, shapes = figure.drawn()
    box = Box(extent)
    own = {step.id for step in steps}
    under, lines, marks = [], [], []
    shown = [
        (node, shape)
        for node, shape in zip(figure.nodes, shapes, strict=True)
        if is_defined(shape) and (node.step.id not in hidden or node.step.id == lit)
    ]
    for node, shape in shown:
        id_ = node.step.id
        if isinstance(shape, Point):
            marks += mark(box, node.step, shape, id_ in own, id_ in answer or id_ == lit)
            continue
        short = arcs and id_ in own and id_ != lit and isinstance(shape, Circle)
        drawn = short_arcs(box, shape, points_on(figure, shapes, id_)) if short else curve(box, node.kind, shape)  # type: ignore[arg-type]
        if id_ in answer or id_ == lit:
            under.append(stroke(drawn, COLOURS["answer"] if id_ in answer else COLOURS["highlight"], 3.2))
        lines.append(stroke(drawn, GRAPHITE if id_ in own else INK, 0.6 if id_ in own else 1.2))
    texts = names(box, [(node.step.id, shape) for node, shape in shown if isinstance(shape, Point)])
    return sheet([*under, *lines, *marks, *texts])


def sheet(parts: Iterable[str]) -> str:
    """An SVG element with these in it, the first undermost."""
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDTH:.0f} {HEIGHT:.0f}">' + "".join(parts) + "</svg>"
    )


def extent_of(shape: Shape[float]) -> list[tuple[float, float]]:
    """Places between which a shape lies, in centimetres; none for a line, which has no end or has points there."""
    if isinstance(shape, Point):
        return [(float(shape.x), float(shape.y))]
    if isinstance(shape, Circle):
        r = sqrt(shape.rr)
        return [(shape.x - r, shape.y - r), (shape.x + r, shape.y + r)]
    return []


def curve(box: Box, kind: Kind, shape: Shape[float]) -> str:
    """A line or a circle as an SVG element that is not closed yet; empty where nothing of it is in the box."""
    if isinstance(shape, Circle):
        x, y = box.at(shape.x, shape.y)
        return f'<circle cx="{x:.2f}" cy="{y:.2f}" r="{sqrt(shape.rr) * box.scale:.2f}"'
    ends = box.clip(kind, shape)  # type: ignore[arg-type]
    if ends is None:
        return ""
    (x1, y1), (x2, y2) = box.at(*ends[0]), box.at(*ends[1])
    return f'<line x1="{x1:.2f}" y1="{y1:.2f}" x2="{x2:.2f}" y2="{y2:.2f}"'


def short_arcs(box: Box, circle: Circle[float], points: Sequence[Point[float]]) -> str:
    """Short arcs of a circle about the points on it; all of it where there is none."""
    if not points:
        return curve(box, Kind.CIRCLE, circle)
    r = sqrt(circle.rr)
    parts = []
    half = half_arc(r * box.scale)
    for point in points:
        turn = atan2(point.y - circle.y, point.x - circle.x)
        ends = [box.at(circle.x + r * cos(turn + side), circle.y + r * sin(turn + side)) for side in (-half, half)]
        (x1, y1), (x2, y2) = ends
        parts.append(f"M{x1:.2f} {y1:.2f}A{r * box.scale:.2f} {r * box.scale:.2f} 0 0 0 {x2:.2f} {y2:.2f}")
    return f'<path d="{"".join(parts)}"'


def half_arc(radius: float) -> float:
    """Half the angle, in radians, of a short arc of a circle whose radius is given in units of the drawing."""
    return min(WIDEST_ARC, HALF_ARC / radius) if radius > 0 else WIDEST_ARC


def points_on(figure: Figure, shapes: Sequence[Shape[float]], id_: str) -> list[Point[float]]:
    """The points that lie on a curve by the making of one of them."""
    number = figure.index[id_]
    node = figure.nodes[number]
    points = {node.sources[entry] for entry in MAKES[node.step.make].through}
    points |= {
        other
        for other, node in enumerate(figure.nodes)
        if number in node.sources and node.step.make in (MakeName.INTERSECTION, MakeName.POINT_ON)
    }
    return [shape for n in sorted(points) if isinstance(shape := shapes[n], Point) and is_defined(shape)]


def stroke(drawn: str, colour: str, width: float) -> str:
    """A curve with its pen, closed; nothing for nothing."""
    return f'{drawn} fill="none" stroke="{colour}" stroke-width="{width}"/>' if drawn else ""


def mark(box: Box, step: Step, point: Point[float], own: bool, out: bool) -> list[str]:
    """The mark of a point: a dot for a given one, a ring for one put by hand, a cross for one constructed.

    ``own``: whether the student made it. ``out``: whether it is brought out.
    """
    x, y = box.at(point.x, point.y)
    halo = [f'<circle cx="{x:.2f}" cy="{y:.2f}" r="4.4" fill="{HIGHLIGHT}"/>'] if out else []
    if not own:
        return [*halo, f'<circle cx="{x:.2f}" cy="{y:.2f}" r="1.7" fill="{INK}"/>']
    if step.make in ("free_point", "point_on"):
        return [*halo, f'<circle cx="{x:.2f}" cy="{y:.2f}" r="2" fill="{WHITE}" stroke="{INK}" stroke-width="0.7"/>']
    cross = f"M{x - 2:.2f} {y - 2:.2f}l4 4M{x - 2:.2f} {y + 2:.2f}l4 -4"
    return [*halo, f'<path d="{cross}" stroke="{INK}" stroke-width="0.8" fill="none"/>']


def names(box: Box, points: Sequence[tuple[str, Point[float]]]) -> list[str]:
    """The names of the points, away from the middle; twice each, since in print a halo would cover its own text."""
    if not points:
        return []
    mx, my = (sum(float(part[axis]) for _, part in points) / len(points) for axis in (0, 1))
    texts = []
    for id_, point in points:
        # Rather above than beside, where lines through the middle run.
        dx, dy = float(point.x) - mx, float(point.y) - my
        far = hypot(dx, dy) or 1.0
        dx, dy = dx / far, dy / far + (0.8 if dy >= -0.3 * far else -0.8)
        far = hypot(dx, dy)
        x, y = box.at(point.x, point.y)
        place = f'x="{x + 6.5 * dx / far:.2f}" y="{y - 6.5 * dy / far + 2.4:.2f}" text-anchor="middle"'
        font = 'font-family="Alegreya, DejaVu Serif" font-style="italic" font-size="7"'
        name = escape(id_)
        texts.append(f'<text {place} {font} fill="none" stroke="{WHITE}" stroke-width="2">{name}</text>')
        texts.append(f'<text {place} {font} fill="{INK}">{name}</text>')
    return texts
