"""What a page shows of a proof: its lines with what they come after, and one sentence on the whole."""

import pytest

from widepin.documents.formats.task import read_task
from widepin.documents.reasons.shown_proofs import for_reader, nothing_to_prove_yet, shown
from widepin.documents.wording.words import Words
from widepin.reason.proof import Case
from widepin.reason.proving import follows_by, prove
from widepin.reason.rules import RuleName
from widepin.school.tasks import proofs
from widepin.school.tasks.library import LIBRARY

ANSWER = {"m": "m"}


@pytest.fixture(scope="module")
def bisector():
    task = read_task(LIBRARY["perpendicular-bisector"].document())
    answer = {one.name: one.name for one in task.wanted}
    return task, answer, prove(task, task.model, answer)


def test_each_line_comes_when_all_that_it_is_about_is_drawn(bisector):
    task, _, proof = bisector
    page = shown(proof, task, task.model, {})
    assert page["said"] == f"{len(page['lines'])} lines, which hold in every position."
    after = [line["after"] for line in page["lines"]]
    assert len(after) == len(proof.lines) and max(after) == len(task.model) and min(after) > 0


def test_objects_are_called_by_their_labels(bisector):
    task, _, proof = bisector
    named = shown(proof, task, task.model, {"A": "Apex"})
    assert "Apex" in str(named["lines"]) and "Apex" not in str(shown(proof, task, task.model, {})["lines"])


def test_what_is_open_is_said(bisector):
    from dataclasses import replace

    task, _, proof = bisector
    page = shown(replace(proof, open=(0,)), task, task.model, {})
    assert len(page["lines"]) == len(proof.lines) and page["said"].startswith("This is a proof in part.")
    assert Words(task).condition(task.conditions[0]) in page["said"]
    nothing = shown(replace(proof, open=(0,), lines=()), task, task.model, {})
    assert nothing["lines"] == [] and "was not found" in nothing["said"]
    part = shown(
        replace(proof, open=(0,), open_case=Case("same_side", ("A", "B", "D", "E"), False)), task, task.model, {}
    )
    assert part["lines"] and "where A and B lie on different sides of DE" in part["said"]
    assert "nothing to prove" in shown(replace(proof, trivial=True), task, task.model, {})["said"]
    assert nothing_to_prove_yet()["lines"] == []


def test_lines_of_a_work_with_nothing_to_prove_are_numbered_from_one(bisector):
    from dataclasses import replace

    task, _, proof = bisector
    first, *others = proof.lines
    hidden = replace(first, rule=RuleName.THERE_IS_ONE)
    page = shown(replace(proof, trivial=True, lines=(hidden, *others)), task, task.model, {})
    assert [line["n"] for line in page["lines"]] == list(range(1, len(page["lines"]) + 1))


def test_places_in_the_elements_can_be_left_out(bisector):
    task, _, proof = bisector
    page = shown(proof, task, task.model, {})
    assert any(line["elements"] for line in page["lines"])
    assert for_reader(page, elements=True) is page
    assert not any(line["elements"] for line in for_reader(page, elements=False)["lines"])


def test_a_line_follows_by_its_rule_and_by_few_others(bisector):
    task, answer, proof = bisector
    for number, line in enumerate(proof.lines, 1):
        assert follows_by(task, task.model, answer, number, line.rule)
        assert not follows_by(task, task.model, answer, number, RuleName.THALES)


def test_the_same_question_is_known_again():
    known = LIBRARY["perpendicular-bisector"]
    one, other = proofs.of_known(known), proofs.of_known(known)
    assert one == other and hash(one) == hash(other)
    labelled = proofs.question(known.document(), [{**known.document()["model"][0], "label": "k"}], {})
    assert labelled.names == {known.document()["model"][0]["id"]: "k"} and labelled != one
