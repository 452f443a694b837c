"""The bin as a teacher has it: what is removed is listed, comes back, and is erased in the end without anybody waiting."""

import re
from datetime import timedelta
from time import monotonic, sleep

import pytest
from sqlalchemy import select, text

from widepin.school.models import Person, Removal, now
from widepin.school.people import removing
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.sheets import new_sheet


@pytest.fixture
def sheet(app):
    """The number of a task that the first year's teacher has and nobody else uses."""
    with app.extensions["sessions"]() as session:
        owner = session.scalars(select(Person).where(Person.login == "corin.hale")).one()
        made = new_sheet(session, owner, LIBRARY["rhombus"].document() | {"title": "Rhombus of the west window"})
        session.commit()
        return made.id


def is_kept(app, sheet):
    with app.extensions["sessions"]() as session:
        return session.scalar(text("SELECT COUNT(*) FROM task_sheet WHERE id = :id"), {"id": sheet}) == 1


def is_erased(app, sheet):
    """Whether it is gone from the table in the end."""
    until = monotonic() + 60
    while is_kept(app, sheet) and monotonic() < until:
        sleep(0.05)
    return not is_kept(app, sheet)


def remove(client, sheet):
    """Remove a task; the address of what is done with it in the bin."""
    client.post(f"/sheets/{sheet}/remove")
    page = client.get("/bin").text
    assert "Rhombus of the west window" in page
    return max(re.findall(r"/bin/\d+", page), key=lambda address: int(address.rpartition("/")[2]))


def test_what_is_removed_is_restored_or_erased_from_the_bin(app, as_person, sheet):
    teacher = as_person("corin.hale")
    address = remove(teacher, sheet)
    assert teacher.get(f"/sheets/{sheet}").status_code == 404
    assert as_person("oda.finch").post(f"{address}/restore").status_code == 404, "it is somebody else's"
    assert teacher.post(f"{address}/restore").status_code == 302
    assert teacher.get(f"/sheets/{sheet}").status_code == 200
    address = remove(teacher, sheet)
    assert "nobody can restore it then" in teacher.get(f"{address}/erase").text and is_kept(app, sheet)
    teacher.post(f"{address}/erase")
    assert is_erased(app, sheet) and teacher.post(f"{address}/restore").status_code == 404


def test_what_has_lain_there_long_enough_is_erased_when_a_teacher_comes(app, as_person, sheet):
    teacher = as_person("corin.hale")
    address = remove(teacher, sheet)
    with app.extensions["sessions"]() as session:
        session.get_one(Removal, int(address.rpartition("/")[2])).at = now() - removing.KEPT - timedelta(minutes=1)
        session.commit()
    assert "Rhombus of the west window" not in teacher.get("/bin").text
    assert is_kept(app, sheet)
    assert teacher.get("/today").status_code == 200
    assert is_erased(app, sheet)
