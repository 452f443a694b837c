"""Constructions as class_tools: what they ask for, what they make, and what their uses count."""

from dataclasses import replace

import pytest

from tests.zoo import steps
from widepin.documents.formats.task import read_task
from widepin.documents.wording.rule_words import worded
from widepin.judge.costs.class_tools import ClassToolGeometry, NotATool, class_tool_geometry
from widepin.judge.judging import judge
from widepin.judge.rules import ClassToolRule
from widepin.judge.task import Allowance, Use, Work
from widepin.judge.verdict import Outcome
from widepin.plane.steps import Step
from widepin.school.tasks.library import LIBRARY

GABLE = steps(
    "A free_point at=1,1\nB free_point at=9,1\nC free_point at=4,7\nc segment A B\na segment B C\nT point_on c at=3,1"
)
MIDDLE = steps("e circle A B\nf circle B A\nP intersection e f\nQ intersection e f pick=2\nm line P Q")


def asks(given: tuple[Step, ...], made: str, gives: str) -> list[tuple[str, str]]:
    return [(blank.name, blank.kind) for blank in class_tool_geometry(given, steps(made), [gives]).takes]


def test_a_class_tool_asks_for_what_the_construction_uses():
    assert asks(GABLE, "k circle A C", "k") == [("A", "point"), ("C", "point")]
    assert asks(GABLE, "p parallel c C", "p") == [("C", "point"), ("c", "straight")]
    assert asks(steps("A free_point at=0,0\nB free_point at=1,0\nk circle A B"), "X midpoint A B", "X")[0][0] == "A"


def test_a_given_line_between_what_is_asked_for_is_drawn_along():
    height = class_tool_geometry(GABLE, steps("h perpendicular c A"), ["h"])
    assert [blank.name for blank in height.takes] == ["A", "B"]
    assert [step.id for step in height.steps] == ["c", "h"] and height.moves == 1


def test_steps_that_the_results_do_not_need_are_left_out():
    found = class_tool_geometry(GABLE, (*MIDDLE, *steps("z circle C A")), ["m"])
    assert [step.id for step in found.steps] == ["e", "f", "P", "Q", "m"] and found.moves == 3


@pytest.mark.parametrize(
    ("made", "gives", "said"),
    [
        ("F free_point at=2,2\nx line A F", "x", "F was placed by hand"),
        ("S point_on c at=2,1\nx line C S", "x", "S was placed by hand"),
        ("x perpendicular c T", "x", "T slides on c"),
        ("x line A B", "c", "given already"),
    ],
)
def test_what_cannot_be_a_class_tool_is_said(made, gives, said):
    with pytest.raises(NotATool) as caught:
        class_tool_geometry(GABLE, steps(made), [gives])
    assert said in worded(caught.value.broken)


@pytest.mark.parametrize("key", [key for key in LIBRARY if key not in ("third-of-a-segment",)])
def test_models_of_the_library_are_right_from_other_points_too(key):
    """The class tool of a model, used in the place of the model on objects of other names, solves the same task."""
    task = read_task(LIBRARY[key].document())
    try:
        class_tool = class_tool_geometry(task.given, task.model, [one.name for one in task.wanted])
    except NotATool as wrong:
        assert wrong.broken.rule in (ClassToolRule.SLIDES, ClassToolRule.PLACED_BY_HAND)
        return
    made, use = used(class_tool, [blank.name for blank in class_tool.takes], "u", 1)
    verdict = judge(replace(task, tools=()), Work(made, dict(zip(names(task), use.gives, strict=True)), (use,)))
    assert verdict.outcome is Outcome.SOUND
    assert (verdict.counts.moves, verdict.counts.needed, verdict.counts.idle) == (1, 1, ())


def names(task):
    return [step.id for step in task.model if step.id in {one.name for one in task.wanted}]


def used(class_tool: ClassToolGeometry, sources: list[str], prefix: str, moves: int) -> tuple[tuple[Step, ...], Use]:
    ids = [f"{prefix}{number}" for number in range(len(class_tool.steps))]
    return class_tool.made(sources, ids), Use("it", tuple(ids), class_tool.given_by(ids), moves)


@pytest.fixture
def round_a_gable():
    task = read_task(LIBRARY["circumcircle"].document())
    return replace(task, tools=(Allowance("circle", 1),))


@pytest.mark.parametrize(("price", "moves"), [(1, 3), (3, 7)])
def test_a_use_counts_its_price_and_needs_no_tools_of_the_task(round_a_gable, price, moves):
    centre_line = class_tool_geometry(GABLE, MIDDLE, ["m"])
    first, use = used(centre_line, ["A", "B"], "u", price)
    second, other = used(centre_line, ["B", "C"], "v", price)
    last = (
        Step("M", "intersection", (*use.gives, *other.gives)),
        Step("k", "circle", ("M", "A")),
    )
    work = Work((*first, *second, *last), None, (use, other))
    verdict = judge(round_a_gable, work)
    assert (verdict.outcome, verdict.counts.moves, verdict.counts.needed) == (Outcome.SOUND, moves, moves)
    assert verdict.report.costs.moves == moves and verdict.report.costs.elementary == 7
    by_hand = judge(round_a_gable, Work(work.steps))
    assert by_hand.outcome is Outcome.REFUSED and by_hand.refusal.step == "u1"


def test_a_use_that_the_answer_does_not_need_is_named_by_its_results(round_a_gable):
    centre_line = class_tool_geometry(GABLE, MIDDLE, ["m"])
    made, use = used(centre_line, ["A", "C"], "u", 2)
    verdict = judge(
        replace(round_a_gable, tools=(Allowance("circle_through"),)),
        Work((*made, Step("k", "circle_through", ("A", "B", "C"))), None, (use,)),
    )
    assert (verdict.counts.moves, verdict.counts.needed, verdict.counts.idle) == (3, 1, use.gives)


def test_what_is_said_of_a_work_does_not_name_helpers(round_a_gable):
    """The same centre line twice repeats helpers too, and vanishes with them where two corners coincide."""
    centre_line = class_tool_geometry(GABLE, MIDDLE, ["m"])
    first, use = used(centre_line, ["A", "B"], "u", 1)
    second, again = used(centre_line, ["A", "B"], "v", 1)
    verdict = judge(round_a_gable, Work((*first, *second), None, (use, again)))
    assert verdict.report.repeated == {again.gives[0]: use.gives[0]}
    helpers = {*use.helpers, *again.helpers}
    assert not any(one.names & helpers for one in verdict.report.truths)
