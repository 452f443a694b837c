"""What is said in demonstrations: open formats alone, once each, as long as a frame names it."""

from datetime import timedelta

import pytest
from sqlalchemy import select

from widepin.school.lessons import demonstrations
from widepin.school.models import Person, Recording, now
from widepin.school.refused import Refused
from widepin.school.states import Role
from widepin.school.tasks import recordings, sheets
from widepin.school.tasks.library import LIBRARY

SOUND = b"\x1aE\xdf\xa3" + bytes(200)


@pytest.fixture
def sheet(session):
    """A task of a teacher who has said nothing yet, whatever others have in the shared school."""
    teacher = Person(login="ada.thorne", name="Ada Thorne", role=Role.TEACHER, password_hash="")
    session.add(teacher)
    session.flush()
    return sheets.new_sheet(session, teacher, LIBRARY["midpoint"].document())


def say(session, sheet, sound=SOUND):
    made = recordings.keep(session, sheet.owner, sound)
    demonstrations.keep(sheet, [{"shown": 0, "words": "First.", "own": True, "voice": made.digest}])
    return made


def test_a_recording_is_kept_once_and_is_of_the_demonstration_that_names_it(session, sheet):
    made = say(session, sheet)
    assert recordings.keep(session, sheet.owner, SOUND) is made and made.kind == "audio/webm"
    assert recordings.spoken_in(session, sheet, made.digest) is made
    assert recordings.spoken_in(session, sheet, "0" * 64) is None
    other = sheets.new_sheet(session, sheet.owner, LIBRARY["centroid"].document())
    assert recordings.spoken_in(session, other, made.digest) is None


def test_other_formats_and_long_ones_are_refused(session, sheet, monkeypatch):
    for bad in (b"", b"ID3\x03 a tune", b"RIFF....WAVE", b"<html>"):
        with pytest.raises(Refused, match="open format"):
            recordings.keep(session, sheet.owner, bad)
    with pytest.raises(Refused, match="too long"):
        recordings.keep(session, sheet.owner, SOUND + bytes(recordings.LARGEST))
    monkeypatch.setattr(recordings, "MOST", 300)
    recordings.keep(session, sheet.owner, SOUND)
    with pytest.raises(Refused, match="room"):
        recordings.keep(session, sheet.owner, b"OggS" + bytes(200))


def test_a_copy_speaks_as_well(session, sheet):
    made = say(session, sheet)
    other = session.scalars(select(Person).where(Person.login == "oda.finch")).one()
    copied = sheets.copy_of(session, other, sheet)
    session.flush()
    assert recordings.spoken_in(session, copied, made.digest).sound == SOUND


def test_what_nothing_names_any_more_goes_after_a_while(session, sheet):
    made = say(session, sheet)
    idle = recordings.keep(session, sheet.owner, b"OggS" + bytes(100))
    recordings.sweep(session)
    assert len(list(session.scalars(select(Recording).where(Recording.owner_id == sheet.owner_id)))) == 2
    for one in (made, idle):
        one.made = now() - recordings.IDLE - timedelta(days=1)
    session.flush()
    assert recordings.sweep(session) >= 1
    session.flush()
    left = list(session.scalars(select(Recording.digest).where(Recording.owner_id == sheet.owner_id)))
    assert left == [made.digest]
