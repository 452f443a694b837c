"""People's names as they stand in the lists of this school."""

from __future__ import annotations

from flask import g

from ..school.models import Person
from ..school.people import naming
from .database import session


def in_list(person: Person) -> str:
    """A person's name as it stands in a list; how that is, is asked once a request."""
    if "name_order" not in g:
        g.name_order = naming.name_order(session())
    return naming.in_list(person, g.name_order)
