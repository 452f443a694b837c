"""Figures as SVG for print."""

import re
import xml.etree.ElementTree as ElementTree
from math import hypot

import pytest

from widepin.documents.formats.construction import read_steps
from widepin.documents.pictures.svg import HEIGHT, WIDTH, picture
from widepin.documents.wording.words import instruction
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.library.notation import steps as from_lines

SVG = "{http://www.w3.org/2000/svg}"
GIVEN = read_steps(from_lines("A free_point at=0,0\nB free_point at=6,0\ng line A B"))
OWN = read_steps(
    from_lines("c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\nm line D E")
)


def drawn(**what):
    return ElementTree.fromstring(picture(GIVEN, OWN, **what))


def numbers(element, *names):
    return [float(element.get(name)) for name in names]


def test_every_object_is_drawn_within_the_frame():
    tree = drawn()
    assert len(tree.findall(f"{SVG}circle")) == 4 and len(tree.findall(f"{SVG}line")) == 2
    for line in tree.findall(f"{SVG}line"):
        assert all(-0.1 <= x <= WIDTH + 0.1 for x in numbers(line, "x1", "x2"))
        assert all(-0.1 <= y <= HEIGHT + 0.1 for y in numbers(line, "y1", "y2"))


def test_what_meets_in_the_figure_meets_in_the_drawing():
    tree = drawn()
    circle = next(one for one in tree.findall(f"{SVG}circle") if float(one.get("r")) > 10)
    x, y, r = numbers(circle, "cx", "cy", "r")
    dot = [one for one in tree.findall(f"{SVG}circle") if float(one.get("r")) < 2][1]
    bx, by = numbers(dot, "cx", "cy")
    assert ((bx - x) ** 2 + (by - y) ** 2) ** 0.5 == pytest.approx(r, abs=0.02)


def test_what_is_hidden_is_drawn_only_where_it_is_told_of():
    def circles(**what):
        return [one for one in drawn(hidden={"c", "D"}, **what).findall(f"{SVG}circle") if float(one.get("r")) > 10]

    assert len(circles()) == 1 and len(circles(lit="c")) == 3  # the second and its underlay
    assert "D" not in [one.text for one in drawn(hidden={"c", "D"}).findall(f"{SVG}text")]


def test_arcs_stand_where_something_was_marked():
    tree = drawn(arcs=True)
    arcs = [one.get("d") for one in tree.findall(f"{SVG}path") if "A" in one.get("d")]
    assert [path.count("M") for path in arcs] == [3, 3]
    assert not [one for one in tree.findall(f"{SVG}circle") if float(one.get("r")) > 10]


def test_the_answer_and_the_latest_step_are_underlaid():
    assert len(drawn(answer=["m"]).findall(f"{SVG}line")) == 3
    assert len(drawn(lit="c").findall(f"{SVG}circle")) == 5


def test_what_does_not_exist_is_left_out():
    apart = read_steps(from_lines("k circle_radius A B B\nX intersection k g"))
    tree = ElementTree.fromstring(picture(GIVEN, apart))
    assert len(tree.findall(f"{SVG}line")) == 1 and tree.findall(f"{SVG}path") == []


@pytest.mark.parametrize("key", LIBRARY)
def test_every_model_of_the_library_is_drawn_and_told(key):
    document = LIBRARY[key].document()
    given, model = read_steps(document["given"]), read_steps(document["model"])
    for count in range(len(model) + 1):
        ElementTree.fromstring(picture(given, model[:count], frame=model))
    sentences = [instruction(step) for step in model]
    assert len(set(sentences)) >= len(sentences) - 1
    assert all(sentence.startswith(f"{step.id}: ") for step, sentence in zip(model, sentences, strict=True))


def test_short_arcs_pass_through_what_was_marked_and_keep_to_their_circle():
    circle = next(one for one in drawn().findall(f"{SVG}circle") if float(one.get("r")) > 10)
    (cx, cy), radius = numbers(circle, "cx", "cy"), float(circle.get("r"))
    path = next(one.get("d") for one in drawn(arcs=True).findall(f"{SVG}path") if "A" in one.get("d"))
    for x1, y1, r, other, x2, y2 in re.findall(r"M(\S+) ([^A]+)A(\S+) (\S+) 0 0 0 (\S+) ([^MZ]+)", path):
        assert float(r) == float(other) == pytest.approx(radius, abs=0.02)
        for x, y in ((x1, y1), (x2, y2)):
            assert hypot(float(x) - cx, float(y) - cy) == pytest.approx(radius, abs=0.03)


def test_of_points_that_do_not_exist_there_are_no_arcs():
    apart = read_steps(from_lines("k circle_radius A B B\nc circle B A\nX intersection k c"))
    tree = ElementTree.fromstring(picture(GIVEN, apart, arcs=True))
    assert all("nan" not in (one.get("d") or "") for one in tree.iter())


def test_names_stand_clear_of_their_points():
    tree = drawn()
    dots = [numbers(one, "cx", "cy") for one in tree.findall(f"{SVG}circle") if float(one.get("r")) < 2]
    for text in tree.findall(f"{SVG}text"):
        if text.text in "AB":
            x, y = numbers(text, "x", "y")
            assert 4 < min(hypot(x - px, y - 2.4 - py) for px, py in dots) < 9
