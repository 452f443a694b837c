"""A second sampler, dense and plain, looks at what the judge has said; balls have the last word on what it sees.

It shares the geometry with the judge but not its batches: every group of positions is drawn here, anew and many more.
"""

import math

import numpy as np
import pytest

from tests.amount import many
from tests.judge.generated import some
from tests.judge.test_cases import CASES
from tests.judge.test_faults import FAULTS
from widepin.documents.formats.bundle import read_bundle
from widepin.documents.formats.task import read_work
from widepin.judge.judging import judge
from widepin.judge.positions.ordering import sources_first
from widepin.judge.task import Work
from widepin.judge.trials.certifying import Certifier
from widepin.judge.trials.examination import Examination
from widepin.judge.trials.findings import Ruling
from widepin.judge.verdict import Outcome
from widepin.plane.figure import Evaluation
from widepin.plane.shapes import Circle, Kind

DENSE = 12_000
ASKED = 8
"""Failures that are put to balls, the clearest ones."""


def positions(examined, only_given, near=False, seed=0):
    """Places drawn at random as docs/formats.md says, for all points or for the given ones alone."""
    rng = np.random.default_rng(seed)
    found = np.repeat(examined.drawn[:, None], DENSE, axis=1)
    size = float(examined.size)
    for handle in examined.handles:
        if only_given and not handle.given:
            continue
        node = examined.figure.nodes[handle.number]
        if node.step.make == "free_point":
            at_home = handle.given or near
            middle = examined.drawn[handle.inputs] if at_home else np.array(examined.region.middle)
            radius = (0.02 if near else 1.5) * size if at_home else examined.region.radius
            angle, way = rng.uniform(0, 2 * math.pi, DENSE), radius * np.sqrt(rng.uniform(0, 1, DENSE))
            found[handle.inputs] = middle[:, None] + way * np.array([np.cos(angle), np.sin(angle)])
            continue
        curve, kind = examined.shapes[node.sources[0]], examined.figure.nodes[node.sources[0]].kind
        low, high = (-math.pi, math.pi) if isinstance(curve, Circle) else (-1.0, 2.0)
        if near:
            step = 0.02 * size / examined.unit(handle)
            low, high = (float(examined.drawn[handle.inputs][0]) + way for way in (-step, step))
        if kind in (Kind.RAY, Kind.SEGMENT):
            low, high = max(low, 1e-3), min(high, 1 - 1e-3) if kind is Kind.SEGMENT else high
        found[handle.inputs] = rng.uniform(low, high, DENSE)
    return found


def dense_outcome(examined, answer):
    """What dense sampling makes of an answer that is right as drawn: sound, fragile or switching."""
    undefined = wrong = False
    for only_given, near in ((False, False), (True, False), (False, True)):
        batch = positions(examined, only_given, near)
        look = examined.evaluate(Evaluation(examined.figure, batch).shapes(examined.needs(answer)), answer)
        for mask, claim in ((look.undefined, Ruling.UNDEFINED), (look.wrong, Ruling.WRONG)):
            columns = np.flatnonzero(mask)
            columns = columns[np.argsort(-np.nan_to_num(look.gap[columns]))][:ASKED]
            found = any(examined.certify(batch[:, n].tolist(), answer)[0] is claim for n in columns)
            undefined |= found and claim is Ruling.UNDEFINED
            wrong |= found and claim is Ruling.WRONG
    return Outcome.SWITCHING if wrong else Outcome.FRAGILE if undefined else Outcome.SOUND


BUNDLED = [
    (path.stem, number)
    for path in (*CASES, *FAULTS.values())
    for number in range(len(read_bundle(path).works))
    if not path.stem.startswith("hair-off")  # what doubles cannot see is not for a sampler in doubles
]


@pytest.mark.parametrize(("name", "number"), BUNDLED, ids=[f"{name}-{number}" for name, number in BUNDLED])
def test_it_finds_no_failure_that_a_verdict_on_a_sample_missed(name, number):
    path = FAULTS.get(name) or next(path for path in CASES if path.stem == name)
    bundle = read_bundle(path)
    work = read_work(bundle.works[number][1])
    agrees(bundle.task, work)


def test_it_finds_no_failure_that_a_verdict_on_a_generated_work_missed():
    for case in some(many(90, 1500), seed=21):
        agrees(case.task, case.work, case.name)


def agrees(task, work, name=""):
    found = judge(task, work, report=False)
    if found.outcome.is_right_as_drawn:
        examined = Examination(task, work.steps)
        answer = {wanted: examined.figure.index[id_] for wanted, id_ in found.answer.items()}
        assert dense_outcome(examined, answer) is found.outcome, name


def test_every_claim_of_a_report_holds_in_fresh_positions():
    """Truths, repeated objects and breaks of generated works, looked at by balls where the judge did not look."""
    looked_at = 0
    for case in some(many(60, 1000), seed=8):
        found = judge(case.task, case.work)
        if found.report is None or not (found.report.truths or found.report.repeated):
            continue
        examined = Examination(case.task, case.work.steps)
        certifier = Certifier(examined)
        for column, position in enumerate(positions(examined, only_given=False, seed=5)[:, :4].T, start=10**6):
            certifier.in_balls[column] = examined.in_balls(position.tolist())
            if certifier.in_balls[column] is None:
                continue
            for truth in found.report.truths:
                looked_at += 1
                assert certifier.holds_in_balls(truth, [column]), f"{case.name}: {truth}"
    assert looked_at > 200


def test_every_break_can_be_seen_and_every_mend_is_sound():
    breaks = mends = 0
    for case in some(many(90, 1000), seed=31):
        found = judge(case.task, case.work)
        if found.breaks is not None:
            breaks += 1
            examined = Examination(case.task, case.work.steps)
            answer = {wanted: examined.figure.index[id_] for wanted, id_ in found.answer.items()}
            ruling, gap = examined.certify(found.breaks.position, answer)
            assert ruling.value == found.breaks.happens, case.name
            assert ruling is Ruling.UNDEFINED or gap > 0.012, case.name
        for mend in found.report.mends if found.report else ():
            mends += 1
            instead = {step.id: step for step in mend.steps}
            steps = sources_first(instead.get(step.id, step) for step in case.work.steps)
            assert judge(case.task, Work(tuple(steps), found.answer), report=False).outcome is Outcome.SOUND, case.name
    assert breaks > 5 and mends > 1
