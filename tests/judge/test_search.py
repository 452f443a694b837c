"""Which objects are meant as the answer: found quickly, each answer once."""

import pytest

from tests import zoo
from tests.judge.test_judging import AB, ALL, TASKS_BY_NAME, task, verdict
from widepin.judge.task import Condition
from widepin.judge.trials import search as searching
from widepin.judge.trials.examination import Examination
from widepin.judge.trials.search import binding_order, search, split, twins
from widepin.school.demo.tasks import TASKS
from widepin.school.tasks.library.notation import rel


def test_corners_of_an_equilateral_triangle_may_trade_places():
    names = ("X", "Y", "Z")
    triangle = task(
        AB, [f"point {name}" for name in names], [rel("distinct", *names), rel("equal_length", "X-Y", "Y-Z", "Z-X")]
    )
    assert twins(triangle) == {"X": {"Y", "Z"}, "Y": {"X", "Z"}, "Z": {"X", "Y"}}


def test_corners_in_order_may_not():
    rose = TASKS_BY_NAME["Six-petal rose"]
    assert not any(twins(rose).values())


def test_a_triangle_is_found_once_not_six_times():
    names = ("X", "Y", "Z")
    triangle = task(
        AB, [f"point {name}" for name in names], [rel("distinct", *names), rel("equal_length", "X-Y", "Y-Z", "Z-X")]
    )
    made = zoo.steps(
        "M midpoint A B\nc circle M A\nd circle A M\nC intersection c d pick=1\nD intersection c d pick=2\n"
        "E midpoint C D\nF midpoint A M\nl line A B\nG intersection l d other_than=M"
    )
    found = search(Examination(triangle, made))
    assert not found.stopped
    assert len({frozenset(answer.values()) for answer in found.answers}) == len(found.answers)


def test_conditions_on_many_terms_are_split_so_that_they_prune_early():
    chain = Condition("equal_length", (("A", "B"), ("B", "C"), ("C", "D")))
    assert len(split(chain)) == 3 and all(len(part.of) == 2 for part in split(chain))
    assert split(Condition("on", ("P", "k"))) == [Condition("on", ("P", "k"))]


def test_names_tied_to_bound_ones_are_bound_next():
    chain = task(
        AB,
        ["point P", "point Q", "point R"],
        [rel("equal_length", "A-B", "B-P"), rel("equal_length", "B-P", "P-Q"), rel("equal_length", "P-Q", "Q-R")],
    )
    assert binding_order(chain, {"P": 9, "Q": 9, "R": 9}) == ["P", "Q", "R"]


def test_an_object_may_serve_for_two_names_unless_they_are_to_be_distinct():
    conditions = [rel("equal_length", "A-P", "B-P"), rel("equal_length", "A-Q", "B-Q")]
    two = task(AB, ["point P", "point Q"], conditions)
    assert verdict(two, "M midpoint A B").outcome == "sound"
    apart = task(AB, ["point P", "point Q"], [*conditions, rel("distinct", "P", "Q")])
    assert verdict(apart, "M midpoint A B").outcome == "wrong"
    assert verdict(apart, "M midpoint A B\nc circle A B\nd circle B A\nC intersection c d").outcome == "sound"


def test_of_several_right_answers_that_of_the_fewest_moves_counts():
    dear = "M midpoint A B\ns segment A B\nn perpendicular s M"
    cheap = "c circle A B\nd circle B A\nD intersection c d\nE intersection c d pick=2\nm line D E"
    one = task(
        AB,
        ["straight m"],
        [rel("same", "m", "model:m")],
        "m perpendicular_bisector A B",
        [*ALL, "perpendicular_bisector"],
    )
    found = verdict(one, f"{dear}\n{cheap}")
    assert found.counts.needed == 3
    assert verdict(one, f"{cheap}\n{dear}\no perpendicular_bisector A B").counts.needed == 1


def test_an_exact_answer_is_found_among_many_that_only_look_right():
    clutter = "\n".join(f"P{n} free_point at={4 + n / 4000:.5f},1.5" for n in range(120))
    middle = task(AB, ["point M"], [rel("midpoint", "M", "A", "B")])
    found = verdict(middle, f"{clutter}\nN midpoint A B")
    assert found.outcome == "sound" and found.answer == {"M": "N"} and not found.stopped


def test_the_best_answer_is_found_among_works_full_of_others():
    one = TASKS_BY_NAME["Crown of a pointed arch"]
    clutter = "\n".join(f"P{n} point_on c at={4.4 + n / 400:.4f},7.51" for n in range(20))
    found = verdict(one, f"c circle A B\nd circle B A\n{clutter}\nC intersection c d pick=1")
    assert found.outcome == "sound" and found.answer == {"C": "C"}


def test_the_effort_is_bounded_and_the_verdict_says_so(monkeypatch):
    monkeypatch.setattr(searching, "MAX_LOOKS", 40)
    names = [f"P{n}" for n in range(6)]
    hopeless = task(AB, [f"point {name}" for name in names], [rel("equal_length", *(f"A-{name}" for name in names))])
    made = "\n".join(f"Q{n} free_point at={n % 7},{n // 7 + 3}" for n in range(40))
    found = verdict(hopeless, made)
    assert found.outcome in ("wrong", "eyeballed") and found.stopped


@pytest.mark.parametrize("one", TASKS, ids=[one.title for one in TASKS])
def test_every_right_answer_of_the_demo_is_found_without_reaching_the_bound(one):
    for _, made in one.solutions:
        assert not verdict(TASKS_BY_NAME[one.title], made).stopped
