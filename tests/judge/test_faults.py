"""Works that were once judged or explained wrongly: each gets what its note says it must get."""

import json
import re
import subprocess
import sys
from pathlib import Path

import pytest

from tests.judge.generated import drawn
from widepin.documents.formats.bundle import read_bundle
from widepin.documents.formats.task import read_work
from widepin.documents.formats.verdict import judge_document
from widepin.documents.wording.explaining import explained
from widepin.judge.trials.examination import Examination
from widepin.plane.steps import Step

FAULTS = {path.stem: path for path in sorted((Path(__file__).parents[1] / "cases" / "faults").glob("*.json"))}
WORKS = [(name, number) for name, path in FAULTS.items() for number in range(len(read_bundle(path).works))]


def judged(name, number=0):
    bundle = read_bundle(FAULTS[name])
    return bundle.task, judge_document(bundle.task, bundle.works[number][1])


@pytest.mark.parametrize(("name", "number"), WORKS, ids=[f"{name}-{number}" for name, number in WORKS])
def test_it_gets_the_verdict_that_it_must_get(name, number):
    expected = read_bundle(FAULTS[name]).works[number][1]["expect"]
    _, found = judged(name, number)
    assert (found.outcome.value, found.counts.moves) == (expected["outcome"], expected["moves"])
    assert found.counts.needed == expected.get("needed", found.counts.needed)


def test_an_exact_answer_among_many_by_eye_is_found_without_reaching_a_bound():
    assert not any(judged("answer-after-48-by-eye", number)[1].stopped for number in (0, 1))


def test_the_object_that_is_off_is_blamed_not_one_that_only_follows():
    assert judged("blames-the-wrong-object")[1].breaks.object == "Q"


def test_a_break_can_be_seen():
    task, found = judged("break-that-nobody-sees")
    bundle = read_bundle(FAULTS["break-that-nobody-sees"])
    examined = Examination(task, read_work(bundle.works[0][1]).steps)
    ruling, gap = examined.certify(found.breaks.position, {"m": examined.figure.index["m"]})
    assert len(found.breaks.drags) == 1 and gap > 0.05


def test_by_eye_is_not_said_where_no_point_was_put():
    task, found = judged("by-eye-without-a-point")
    assert "by eye" not in explained(found, task)[0] and "does not give k" in explained(found, task)[0]


def test_clauses_name_nothing_that_the_student_cannot_see():
    task, found = judged("by-eye-without-a-point")
    said = " ".join(explained(found, task))
    assert "the circle asked for" in said and not {"D", "E", "F"} & set(re.findall(r"\b[A-Z]\b", said))


@pytest.mark.parametrize("name", ["method-holds-right-angle", "hair-off-in-some-positions", "rare-switch"])
def test_a_method_holds_where_another_intersection_is_right_in_every_failing_position(name):
    assert judged(name)[1].method_holds is True


def test_a_miss_that_nobody_can_see_has_no_break_and_is_said_so():
    task, found = judged("hair-off-in-some-positions")
    assert found.breaks is None and "less than the eye can see" in explained(found, task)[0]
    assert "Q" not in found.report.repeated, "it is not T everywhere"


def test_of_several_right_answers_the_cheapest_counts():
    assert judged("needed-not-the-least")[1].counts.needed == 2


def test_one_method_has_one_verdict_wherever_its_helper_lies():
    said = [explained(found, task)[0] for task, found in (judged("helper-far-away", number) for number in range(4))]
    assert all(one.startswith("It is right as long as H is farther from A than half of AB.") for one in said)


def test_few_points_are_dragged_to_a_rare_failure():
    for name in ("rare-switch", "rare-vanish"):
        assert {drag.id for drag in judged(name)[1].breaks.drags} == {"A", "B", "C", "D"}


@pytest.mark.parametrize(
    ("name", "wrong"),
    [
        ("truth-off-the-segment", ("on", ("S", "z"))),
        ("truth-off-the-side", ("on", ("F", "c"))),
        ("truth-only-where-all-exists", ("perpendicular", ("h", ("A", "B")))),
    ],
)
def test_what_is_not_true_everywhere_is_not_told(name, wrong):
    _, found = judged(name)
    assert wrong not in {(truth.rel, truth.of) for truth in found.report.truths}


def test_the_command_line_judges_a_bundle_with_nothing_given():
    done = subprocess.run(
        [sys.executable, "-m", "widepin.cli", "check", str(FAULTS["nothing-given"])],
        capture_output=True,
        text=True,
        env={"PYTHONPATH": "src"},
        cwd=Path(__file__).parents[2],
    )
    assert (done.returncode, json.loads(done.stdout)["outcome"]) == (0, "sound")


def test_drawn_places_are_told_of_points_that_exist():
    places = drawn(
        [Step("A", "free_point", at=(1, 2)), Step("M", "midpoint", ("A", "A")), Step("l", "line", ("A", "M"))]
    )
    assert places == {"A": (1, 2), "M": (1, 2)}


def sentences(name, number=0):
    task, found = judged(name, number)
    return " ".join(explained(found, task))


def test_a_helper_within_a_class_tool_answers_nothing_and_is_not_named():
    _, found = judged("class-tool-helper-found-as-answer")
    assert found.answer is None and found.report.closest == {"C": "C"}
    assert "u_" not in sentences("repeats-a-hidden-helper")


def test_objects_are_the_same_only_if_they_are_so_everywhere():
    assert "W" not in judged("repeated-though-it-jumps", 1)[1].report.repeated
    assert judged("hair-off-in-0.45-percent")[1].report.repeated == {}


@pytest.mark.parametrize(
    ("name", "said", "not_said"),
    [
        ("words-crash-pair-with-model", "W is as far from the intersection of the perpendicular bisectors as A", "AO"),
        ("words-exponent", "cm beyond the end of the ray AC", "e+"),
        (
            "words-glued-names",
            "the distance from W to the intersection of the perpendicular bisectors is twice AW",
            "Wthe",
        ),
        ("words-mark-the-marked", "Mark the other intersection of c and d, not W", "of the circles"),
        ("words-segment-called-line", "W lies on the segment AB: W lies 5.1 cm beyond the end", "line AB"),
        ("words-tangent-beyond-segment", "they would touch 2 cm beyond the end of s", "2.12"),
        (
            "words-undefined-answer",
            "U does not exist as drawn: both intersections of t and k are equally far from P",
            "lies",
        ),
    ],
)
def test_sentences_say_what_the_figure_shows(name, said, not_said):
    assert said in sentences(name) and not_said not in sentences(name)


def test_the_command_line_says_what_the_screens_say():
    command = [sys.executable, "-m", "widepin.cli", "check", "--words", str(FAULTS["words-mark-the-marked"])]
    done = subprocess.run(
        command, capture_output=True, text=True, env={"PYTHONPATH": "src"}, cwd=Path(__file__).parents[2]
    )
    words = json.loads(done.stdout)["words"]
    assert words["conditions"] == ["W is the point asked for"]
    assert words["sentences"][0] == "Mark the other intersection of c and d, not W: that would be right."
