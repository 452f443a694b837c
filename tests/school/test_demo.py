"""The demo school's histories."""

import pytest

from widepin.documents.formats.construction import read_steps
from widepin.documents.formats.task import read_task
from widepin.judge.judging import judge
from widepin.judge.task import Work
from widepin.school.demo.loading import SET_TASKS, by_this_hand, who_does_what
from widepin.school.demo.tasks import PEOPLE, TASKS
from widepin.school.models import now
from widepin.school.tasks.library.notation import steps


@pytest.mark.parametrize("number", range(len(TASKS)))
def test_what_students_hand_in_comes_out_as_meant_by_every_hand(number):
    task = read_task(TASKS[number].document())
    for names, set_tasks in zip(PEOPLE.values(), SET_TASKS, strict=True):
        if number not in set_tasks:
            continue
        doing = who_does_what(names, TASKS[number], set_tasks.index(number), len(set_tasks))
        for hand, attempts, half in doing:
            for outcome, lines in attempts if not half else ():
                work = Work(read_steps(by_this_hand(steps(lines), outcome, hand)))
                assert judge(task, work, report=False).outcome.value == outcome, (hand, lines)


def test_no_two_students_put_their_points_alike():
    made = steps("P free_point at=3,4")
    places = [tuple(by_this_hand(made, "sound", hand)[0]["at"]) for hand in range(16)]
    assert len(set(places)) == 16 and all(abs(x - 3) < 0.25 and abs(y - 4) < 0.25 for x, y in places)


def test_nothing_is_handed_in_in_the_future(session):
    from sqlalchemy import select

    from widepin.school.models import HandIn

    attempts = session.scalars(select(HandIn)).all()
    assert attempts and all(one.handed_in <= now() for one in attempts)
    assert len({one.handed_in.date() for one in attempts}) > 2
