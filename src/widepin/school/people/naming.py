"""How people stand in lists, as the administrators have chosen for the whole school."""

from __future__ import annotations

from enum import StrEnum

from sqlalchemy.orm import Session

from ...documents.language import gettext as _
from ...documents.language import marked
from ..models import NAMES, Choice, Person
from ..refused import Refused
from ..states import Action
from . import audit


class NameOrder(StrEnum):
    """By which name lists go."""

    FAMILY = "family"
    GIVEN = "given"


ORDER_WORDS = {
    NameOrder.FAMILY: marked("by family name: Marran, Ilse"),
    NameOrder.GIVEN: marked("by given name: Ilse Marran"),
}


def name_order(session: Session) -> NameOrder:
    """By which name the lists of a school go; by family name where nobody has chosen."""
    chosen = session.get(Choice, NAMES)
    return NameOrder(chosen.value["order"]) if chosen else NameOrder.FAMILY


def set_name_order(session: Session, by: Person, text: str) -> None:
    """Choose by which name lists go. Raises Refused."""
    if text not in list(NameOrder):
        raise Refused(_("Choose by which name lists go."))
    session.merge(Choice(name=NAMES, value={"order": text}))
    audit.record(session, by, Action.NAME_ORDER_SET, order=text)


def in_list(person: Person, order: NameOrder) -> str:
    """A person's name as it stands in lists."""
    if order is NameOrder.GIVEN or not person.family_name or not person.given_name:
        return person.name
    return f"{person.family_name}, {person.given_name}"
