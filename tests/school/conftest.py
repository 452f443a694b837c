"""The classes of the demo school."""

import pytest
from sqlalchemy import select

from widepin.school.models import SchoolClass


@pytest.fixture
def first_year(session):
    return session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()


@pytest.fixture
def second_year(session):
    return session.scalars(select(SchoolClass).where(SchoolClass.name == "Second year")).one()
