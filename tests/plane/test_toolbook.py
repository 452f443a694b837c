"""The tool book: complete, and small enough to send."""

import json
from collections import Counter

from tests import zoo
from widepin.plane.shapes import Kind
from widepin.plane.toolbook import tool_book
from widepin.plane.variants import Variant, tapes, variants


def test_every_step_of_random_constructions_has_a_tape():
    for seed in range(40):
        figure = zoo.linked(zoo.random_construction(seed))
        for node in figure.nodes:
            kinds = tuple(figure.nodes[source].kind for source in node.sources)
            assert Variant(node.step.make, kinds, node.step.choice, node.step.pick).key in tapes()


def test_instructions_only_refer_to_registers_before_them():
    for tape in tapes().values():
        for place, (op, *operands) in enumerate(tape.code, start=tape.inputs):
            assert op == "const" or all(0 <= int(operand) < place for operand in operands)
        assert all(0 <= out < tape.inputs + len(tape.code) for out in tape.out)


def test_the_book_is_plain_json():
    assert json.loads(json.dumps(tool_book()))["format"] == "widepin.toolbook/1"
    assert len(json.dumps(tool_book())) < 60_000


def test_two_curves_of_whatever_kinds_have_the_tapes_of_all_their_choices():
    per_pair = {
        (a, b): sum(key.startswith(f"intersection {a} {b}") for key in tapes())
        for a in ("line", "ray", "segment", "circle")
        for b in ("line", "ray", "segment", "circle")
    }
    with_circle = 2 + 3  # the first, the second; another than a point, nearest to it, farthest from it
    assert per_pair == {pair: with_circle if "circle" in pair else 1 for pair in per_pair}


def test_there_is_a_variant_for_each_way_to_choose_where_there_are_two_points():
    of = Counter(variant.kinds for variant in variants() if variant.make == "intersection")
    line, circle = Kind.LINE, Kind.CIRCLE
    assert of[line, line] == of[line, Kind.SEGMENT] == 1
    # Two picks, and nearest to, farthest from, other than a point.
    assert of[line, circle] == of[circle, line] == of[circle, circle] == 5
