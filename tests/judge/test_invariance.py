"""What must not change a verdict: for whole works of every kind, models, slips of them and the demo's."""

import random
from dataclasses import fields, replace

import pytest

from tests.amount import many
from tests.judge.generated import (
    Case,
    cases,
    is_well_formed,
    renamed,
    reordered,
    some,
    transformed,
    with_idle_steps,
    with_sources_swapped,
)
from tests.judge.test_judging import TASKS_BY_NAME, verdict
from widepin.judge.judging import judge
from widepin.judge.verdict import Outcome

COUNT = many(36, 600)
"""Works for each change."""

CHANGES = {
    "moved, turned and scaled": transformed,
    "mirrored": lambda case, rng: transformed(case, rng, mirror=True),
    "renamed": renamed,
    "steps reordered": reordered,
    "sources swapped": with_sources_swapped,
    "idle and repeated objects added": with_idle_steps,
}


def judged(case, report=False):
    return judge(case.task, case.work, report=report)


@pytest.mark.parametrize("change", CHANGES)
def test_a_verdict_stays_the_same(change):
    rng = random.Random(change)
    for case in some(COUNT, seed=len(change)):
        before = judged(case)
        if before.outcome is Outcome.WRONG and change == "idle and repeated objects added":
            continue  # what is added may happen to look right
        other = CHANGES[change](case, rng)
        after = judged(other)
        assert after.outcome is before.outcome, f"{case.name} {change}"
        assert after.method_holds == before.method_holds, f"{case.name} {change}"
        if before.outcome.is_right_as_drawn:
            assert after.counts.needed == before.counts.needed, f"{case.name} {change}"
        if change != "idle and repeated objects added":
            assert after.counts.moves == before.counts.moves


@pytest.mark.parametrize("change", ["renamed", "steps reordered"])
def test_breaks_and_mends_do_not_hang_on_names_or_the_order_of_independent_steps(change):
    rng = random.Random(3)
    of_interest = (case for case in some(len(cases()), seed=9) if judged(case).breaks)
    for case, _ in zip(of_interest, range(many(14, 200)), strict=False):
        before, after = judged(case, report=True), judged(CHANGES[change](case, rng), report=True)
        assert [drag.end for drag in after.breaks.drags] == [drag.end for drag in before.breaks.drags], case.name
        assert after.breaks.happens == before.breaks.happens
        kinds = [sorted((step.make, step.choice) for step in mend.steps) for mend in before.report.mends]
        assert sorted(kinds) == sorted(
            sorted((step.make, step.choice) for step in mend.steps) for mend in after.report.mends
        ), case.name


@pytest.mark.parametrize("at", ["7,1", "6,5", "30,20", "-40,3", "9.5,4.2"])
def test_a_helper_that_is_put_elsewhere_changes_nothing(at):
    """A method is judged, not where its helper lies."""
    made = f"H free_point at={at}\nc circle A H\nd circle_radius B A H\nD intersection c d pick=1\nE intersection c d pick=2\nm line D E"
    assert verdict(TASKS_BY_NAME["Centre line of a sill"], made).outcome is Outcome.FRAGILE


def test_generated_works_are_of_every_kind():
    outcomes = {judged(case).outcome for case in some(120, seed=5)}
    assert outcomes >= {Outcome.SOUND, Outcome.FRAGILE, Outcome.EYEBALLED, Outcome.WRONG, Outcome.SWITCHING}
    assert len(cases()) > 2000 and all(map(is_well_formed, some(100)))


@pytest.mark.parametrize("scale", [64.0, 1 / 64])
def test_all_that_is_said_stays_the_same_where_all_is_larger_or_smaller(scale):
    """By a power of two, so that not even rounding differs: no bound is one of centimetres."""
    for case in some(many(30, 300), seed=8):
        before, after = judged(case, report=True), judged(scaled(case, scale), report=True)
        assert (after.outcome, after.answer, after.method_holds) == (before.outcome, before.answer, before.method_holds)
        if before.report is None:
            continue
        for row in fields(before.report):
            if row.name not in ("conditions", "mends", "ties"):
                assert getattr(after.report, row.name) == getattr(before.report, row.name), f"{case.name} {row.name}"
        for one, other in zip(before.report.conditions, after.report.conditions, strict=True):
            assert other.gap_as_drawn == pytest.approx(one.gap_as_drawn * scale, nan_ok=True)
            assert (other.holds_as_drawn, other.holds_at_break) == (one.holds_as_drawn, one.holds_at_break)


def scaled(case, scale):
    """The whole figure larger or smaller, about the origin."""

    def changed(steps):
        return tuple(
            replace(step, at=tuple(scale * number for number in step.at)) if step.at is not None else step
            for step in steps
        )

    task = case.task
    larger = replace(task, given=changed(task.given), model=changed(task.model), start=changed(task.start))
    return Case(case.name, larger, replace(case.work, steps=changed(case.work.steps)))
