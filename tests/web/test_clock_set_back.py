"""The clock of the server is set back while a lesson goes on: what was written before lies in the future then."""

from datetime import timedelta

import pytest
from sqlalchemy import select

from widepin.school.database import make_sessions
from widepin.school.lessons.overview import presence_of
from widepin.school.models import Assignment, JudgingAgain, SchoolClass, Work, now
from widepin.school.states import Presence
from widepin.school.works import again

AHEAD = timedelta(hours=2)


@pytest.fixture
def assignment(school):
    with make_sessions(school)() as session:
        wanted = select(Assignment).join(SchoolClass).where(SchoolClass.name == "First year")
        return session.scalars(wanted.order_by(Assignment.position)).first()


def test_the_overview_is_told_all_again(as_person, assignment):
    teacher = as_person("corin.hale")
    page = f"/assignments/{assignment.id}/changes?since="
    since = teacher.get(f"{page}2026-01-01").json["at"]
    assert teacher.get(f"{page}{since}").json["cards"] == {}
    ahead = (now() + AHEAD).isoformat()
    cards = teacher.get(f"{page}{ahead}").json["cards"]
    assert cards and cards == teacher.get(f"{page}2026-01-01").json["cards"]


def test_judging_again_is_taken_up_and_who_has_gone_is_not_there(session, assignment):
    session.merge(JudgingAgain(assignment_id=assignment.id, after=0, alive=now() + AHEAD))
    session.flush()
    assert again.going(session, session.get(Assignment, assignment.id)).is_left
    work = Work(seen=now() + AHEAD, touched=now() + AHEAD)
    assert presence_of(work, now(), True)[0] is Presence.DONE
