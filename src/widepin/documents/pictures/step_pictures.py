"""A picture for every step of a construction, each as what the step changed on a faint base.

Were all objects drawn in every picture, the work would grow with the square of the steps. Instead the earlier objects
are painted once, into an image that grows along; a copy of it serves as the base of a dozen pictures. A picture itself
holds the given figure, what was made since its base, what the step is made from, and what it makes.
"""

from __future__ import annotations

from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass
from io import BytesIO
from math import atan2, degrees, sqrt

from PIL import Image, ImageDraw

from ...plane.figure import Figure, Node, is_defined
from ...plane.shapes import Circle, Point, Shape
from ...plane.steps import Step
from .colours import COLOURS
from .svg import (
    GRAPHITE,
    HEIGHT,
    HIGHLIGHT,
    INK,
    WIDTH,
    Box,
    curve,
    half_arc,
    mark,
    names,
    points_on,
    sheet,
    short_arcs,
    stroke,
)

FAINT, FAINT_WIDTH = COLOURS["faint"], 0.5

ON_ONE_BASE = 12
"""Pictures that share a base: about a page of them."""

DOTS, FINER = 8, 2
"""Dots of a base for a unit of the drawing; it is painted so many times finer, so that its edges are soft."""

Drawn = tuple[Node, Shape[float]]


@dataclass(frozen=True)
class StepPicture:
    """The picture of a step in two layers: ``base``, a PNG image that others share, under ``drawing``, in SVG."""

    id: str
    base: bytes
    drawing: str


def step_pictures(
    given: Sequence[Step],
    steps: Sequence[Step],
    told: Collection[str],
    hidden: Collection[str] = (),
    arcs: bool = False,
) -> Iterator[StepPicture]:
    """Pictures of those of the steps that are ``told``, in their order.

    ``hidden``: ids of what is drawn only where it is told of. ``arcs``: the circles of the steps as short arcs about
    the points that are marked on them. What does not exist in the figure as it lies is not drawn.
    """
    figure = Figure([*given, *steps])
    _, shapes = figure.drawn()
    every = zip(figure.nodes, shapes, strict=True)
    there: dict[str, Drawn] = {node.step.id: (node, shape) for node, shape in every if is_defined(shape)}
    shown = {id_: one for id_, one in there.items() if id_ not in hidden}
    box = Box(shape for _, shape in shown.values())
    own = {step.id for step in steps}
    marked = {id_: points_on(figure, shapes, id_) if arcs else [] for id_ in own}
    base, image, count, since = Base(box), b"", 0, list[Drawn]()
    for step in steps:
        if step.id in told:
            if count % ON_ONE_BASE == 0:
                for node, shape in since:
                    base.paint(node, shape, marked[node.step.id])
                image, since = base.as_png(), []
            count += 1
            sources = [shown[id_] for id_ in step.sources if id_ in shown and id_ in own]
            made = [there[step.id]] if step.id in there else []
            beneath = [shown[one.id] for one in given if one.id in shown]
            yield StepPicture(step.id, image, drawing(box, beneath, since, sources, made, marked))
        if step.id in shown:
            since.append(shown[step.id])


def drawing(
    box: Box,
    given: Sequence[Drawn],
    since: Sequence[Drawn],
    sources: Sequence[Drawn],
    made: Sequence[Drawn],
    marked: dict[str, list[Point[float]]],
) -> str:
    """What one picture adds to its base, as an SVG element; ``marked``: points of each circle of short arcs."""
    under, lines, marks = [], [], []
    for layer, colour, width in (
        (since, FAINT, FAINT_WIDTH),
        (given, INK, 1.2),
        (sources, GRAPHITE, 0.7),
        (made, INK, 0.9),
    ):
        for node, shape in layer:
            if isinstance(shape, Point):
                marks += mark(box, node.step, shape, layer is not given, layer is made)
                continue
            points = marked.get(node.step.id, []) if layer is not made else []
            drawn = short_arcs(box, shape, points) if isinstance(shape, Circle) else curve(box, node.kind, shape)
            if layer is made:
                under.append(stroke(drawn, HIGHLIGHT, 3.2))
            lines.append(stroke(drawn, colour, width))
    named = {node.step.id: shape for node, shape in [*given, *sources, *made] if isinstance(shape, Point)}
    return sheet([*under, *lines, *marks, *names(box, list(named.items()))])


class Base:
    """The earlier objects, painted faintly into an image."""

    def __init__(self, box: Box):
        self.box, self.scale = box, DOTS * FINER
        self.image = Image.new("L", (int(WIDTH * self.scale), int(HEIGHT * self.scale)), 255)
        self.pen = ImageDraw.Draw(self.image)

    def paint(self, node: Node, shape: Shape[float], marked: Sequence[Point[float]]) -> None:
        """Add an object; a circle as arcs about the points marked on it, whole where there are none."""
        width = int(FAINT_WIDTH * self.scale)
        if isinstance(shape, Point):
            x, y = self._at(shape.x, shape.y)
            r = 1.5 * self.scale
            self.pen.line((x - r, y - r, x + r, y + r), FAINT, width)
            self.pen.line((x - r, y + r, x + r, y - r), FAINT, width)
        elif isinstance(shape, Circle):
            (x, y), r = self._at(shape.x, shape.y), sqrt(shape.rr) * self.box.scale * self.scale
            around = (x - r, y - r, x + r, y + r)
            half = degrees(half_arc(r / self.scale))
            for point in marked:
                turn = -degrees(atan2(point.y - shape.y, point.x - shape.x))
                self.pen.arc(around, turn - half, turn + half, FAINT, width)
            if not marked:
                self.pen.ellipse(around, outline=FAINT, width=width)
        elif (ends := self.box.clip(node.kind, shape)) is not None:
            self.pen.line([self._at(*end) for end in ends], FAINT, width)

    def _at(self, x: float, y: float) -> tuple[float, float]:
        across, down = self.box.at(x, y)
        return across * self.scale, down * self.scale

    def as_png(self) -> bytes:
        """The image as it stands."""
        file = BytesIO()
        self.image.reduce(FINER).save(file, "PNG", compress_level=4)
        return file.getvalue()
