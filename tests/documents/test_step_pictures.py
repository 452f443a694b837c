"""A picture for every step, as what it changed on a base that others share."""

import xml.etree.ElementTree as ElementTree
from io import BytesIO

import pytest
from PIL import Image

from widepin.documents.formats.construction import read_steps
from widepin.documents.pictures.step_pictures import DOTS, ON_ONE_BASE, step_pictures
from widepin.documents.pictures.svg import HEIGHT, WIDTH
from widepin.school.tasks.library.notation import steps as from_lines

GIVEN = read_steps(from_lines("A free_point at=0,0\nB free_point at=6,0\ng line A B"))


def long_work(count):
    """Circles about A through points put by hand."""
    lines = [f"P{n} free_point at={1 + n / 40},{n / 50}\nc{n} circle A P{n}" for n in range(count // 2)]
    return read_steps(from_lines("\n".join(lines)))


def pictures(steps, **what):
    return list(step_pictures(GIVEN, steps, what.pop("told", [step.id for step in steps]), **what))


def parts(picture):
    return list(ElementTree.fromstring(picture.drawing))


def image(picture):
    return Image.open(BytesIO(picture.base))


def dark(picture):
    """How much of a base is painted."""
    return sum(image(picture).histogram()[:200])


def test_every_step_that_is_told_has_a_picture_in_order():
    steps = long_work(10)
    assert [one.id for one in pictures(steps)] == [step.id for step in steps]
    assert [one.id for one in pictures(steps, told=["c2", "c0"])] == ["c0", "c2"]


@pytest.mark.parametrize("count", [40, 200])
def test_a_picture_holds_no_more_however_long_the_construction_is(count):
    assert max(len(parts(one)) for one in pictures(long_work(count))) <= 4 * ON_ONE_BASE


def test_a_dozen_pictures_share_a_base_that_holds_what_was_before():
    made = pictures(long_work(30))
    bases = [one.base for one in made]
    assert len(set(bases)) == 3 and bases[0] == bases[ON_ONE_BASE - 1] != bases[ON_ONE_BASE]
    assert dark(made[0]) == 0 < dark(made[ON_ONE_BASE]) < dark(made[-1])
    assert image(made[0]).size == (WIDTH * DOTS, HEIGHT * DOTS)


def test_the_base_lies_under_the_drawing():
    """Where a circle is lit in one picture, it is faint in a later base."""
    made = pictures(long_work(30))
    circle = next(one for one in parts(made[1]) if one.tag.endswith("circle") and float(one.get("r")) > 5)
    x, y, r = (float(circle.get(name)) for name in ("cx", "cy", "r"))
    later = image(made[-1])
    assert later.getpixel((round((x - r) * DOTS), round(y * DOTS))) < 255
    assert later.getpixel((2, 2)) == 255


def test_what_a_step_is_made_from_is_drawn_and_named_and_nothing_else():
    steps = read_steps(
        from_lines("c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\nm line D E")
    )
    names = {one.text for one in parts(pictures(steps)[-1]) if one.text}
    assert names == {"A", "B", "D", "E"}
    third = parts(pictures(steps)[2])
    assert sum(one.tag.endswith("circle") and float(one.get("r")) > 10 for one in third) >= 2


def test_what_is_hidden_is_drawn_only_where_it_is_told_of():
    steps = long_work(30)
    hidden = {step.id for step in steps if step.id != "c14"}
    made = pictures(steps, hidden=hidden)
    assert dark(made[-1]) == 0
    assert any(one.tag.endswith("circle") and float(one.get("r")) > 5 for one in parts(made[1]))


def test_what_does_not_exist_breaks_no_picture():
    steps = read_steps(from_lines("k circle_radius A B B\nX intersection k g\nh line A X"))
    assert [len(one.drawing) > 50 for one in pictures(steps)] == [True] * 3


def test_arcs_stand_about_what_was_marked():
    steps = read_steps(from_lines("c circle A B\nd circle B A\nD intersection c d pick=1"))
    whole, short = pictures(steps)[2], pictures(steps, arcs=True)[2]
    assert not [one for one in parts(short) if one.tag.endswith("circle") and float(one.get("r")) > 10]
    assert [one for one in parts(whole) if one.tag.endswith("circle") and float(one.get("r")) > 10]
    many = steps + long_work(28)
    assert dark(pictures(many, arcs=True)[-1]) < dark(pictures(many)[-1])
