"""Whatever a task asks and a work is, it can be said: every relation, every kind, every outcome."""

import random
import re
from dataclasses import replace

import pytest

from tests.amount import chosen, many
from tests.documents import generated_tasks
from widepin.documents.formats.task import read_task
from widepin.documents.wording.explaining import (
    MOST_HELPFUL,
    Feedback,
    explained,
    mend_in_words,
    said_of,
    what_was_asked,
)
from widepin.documents.wording.words import Words
from widepin.judge.judging import judge
from widepin.judge.task import TOOLS, Allowance, Work
from widepin.judge.task_check import slips
from widepin.plane.figure import Figure
from widepin.school.tasks.library import LIBRARY

UNSAID = re.compile(
    r"[A-Za-z0-9]the |\de[+-]?\d|model:|\bNone\b|\bnan\b|  |\.\.|, ,|[{}]|%\(|^[^A-Za-z0-9]|: ?\.| \.|\b1 times\b|\b0\.00 cm"
)
"""What no sentence has: glued names, exponents, gaps, what stands in a template, a length of nothing."""

TASKS = [task for seed in range(many(300, 6000)) if (task := generated_tasks.task(seed)) is not None]


def check(sentences, where):
    for sentence in sentences:
        assert sentence and not UNSAID.search(sentence), (where, sentence)
    assert len(set(sentences)) == len(sentences), where


def test_conditions_of_all_relations_can_be_said():
    for number, task in enumerate(TASKS):
        words = Words(task)
        check(words.conditions(), number)
        # A condition on the answer says what of the answer: its names are among the words.
        for condition in task.conditions:
            clause = words.condition(condition)
            for wanted in {one.name for one in task.wanted} & condition.names:
                assert re.search(rf"(?<![a-z]){re.escape(wanted)}", clause), (number, clause)


def test_sentences_on_any_work_can_be_said_and_name_no_helper():
    for number, task in enumerate(TASKS[: many(60, 3000)]):
        work = generated_tasks.work(task, number)
        verdict = judge(task, work)
        for level in Feedback:
            check(explained(verdict, task, level), number)
        said = said_of(verdict, task)["sentences"]
        assert len(said) <= MOST_HELPFUL
        if verdict.refusal is None:  # what is pointed out and refused is named
            for helper in work.hidden_helpers:
                assert not any(re.search(rf"\b{re.escape(helper)}\b", sentence) for sentence in said), (number, said)
        if verdict.report is not None and verdict.report.conditions:
            assert all(asked.clause for asked in what_was_asked(verdict.report, task))


@pytest.mark.parametrize("key", chosen(LIBRARY, 14))
def test_sentences_on_slips_of_known_constructions_can_be_said(key):
    task = replace(read_task(LIBRARY[key].document()), tools=tuple(map(Allowance, TOOLS)), start=())
    rng = random.Random(key)
    places = Figure((*task.given, *task.model)).drawn()[1]
    for number, step in enumerate(task.model):
        place = places[len(task.given) + number]
        before = (*task.given, *task.model[:number])
        for other in rng.sample(found := list(slips(step, before, place)), min(2, len(found))):
            verdict = judge(task, Work((*task.model[:number], other, *task.model[number + 1 :])))
            mends = [mend_in_words(mend) for mend in verdict.report.mends] if verdict.report else []
            check([*explained(verdict, task), *mends], (key, other))
