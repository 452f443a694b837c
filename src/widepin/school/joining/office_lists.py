"""The lists of the school's office against what is here: what is new, changed, gone or doubtful, and taking it over."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from sqlalchemy import delete, insert, or_, select
from sqlalchemy.orm import Session, joinedload, selectinload

from ...documents.language import gettext as _
from ...documents.reading import JsonObject
from ...joining.oneroster import ClassList, LineItem, Lists, Result, Somebody
from ..models import (
    Assignment,
    Choice,
    EnteredResult,
    HandIn,
    Identity,
    ListedClass,
    PendingList,
    PendingListPart,
    Person,
    SchoolClass,
    Work,
    now,
)
from ..parts import parts_of
from ..people import audit
from ..people.accounts import free_name
from ..people.passwords import as_login
from ..people.roster import free_logins
from ..people.teaching import teaches
from ..refused import Refused
from ..states import Action, Entered, Role

SOURCE = "office"
"""What identities from the lists are told by."""

CHOICE = "office"
"""The choice of from where lists are taken over nightly: the address, and by what it is asked."""

LARGEST = 15_000_000
"""Bytes of a file of lists."""


@dataclass(frozen=True)
class Doubtful:
    """Somebody on the lists who may be one of these, who are here already."""

    listed: Somebody
    candidates: tuple[Person, ...]

    @property
    def likely(self) -> Person | None:
        """Who it most likely is: the only one of the same name and the same login."""
        login = as_login(self.listed.login)
        fits = [one for one in self.candidates if one.name == self.listed.name and one.login == login]
        return fits[0] if len(fits) == len(self.candidates) == 1 else None


@dataclass
class Plan:
    """What taking lists over would do. ``came``, ``went``: places in classes that are taken and left."""

    new: list[Somebody] = field(default_factory=list)
    changed: list[tuple[Person, Somebody]] = field(default_factory=list)
    gone: list[Person] = field(default_factory=list)
    doubtful: list[Doubtful] = field(default_factory=list)
    new_classes: list[ClassList] = field(default_factory=list)
    came: int = 0
    went: int = 0

    @property
    def is_empty(self) -> bool:
        """Whether nothing would change."""
        parts = (self.new, self.changed, self.doubtful, self.new_classes)
        return not any(parts) and not self.came and not self.went


def role_of(listed: Somebody) -> Role:
    """Which kind of account somebody needs."""
    return Role.TEACHER if listed.teaches else Role.STUDENT


def _known(session: Session) -> dict[tuple[str, Role], Person]:
    wanted = select(Identity).join(Identity.person).where(Identity.source == SOURCE)
    found = session.scalars(wanted.options(joinedload(Identity.person).selectinload(Person.classes)))
    return {(one.subject, one.role): one.person for one in found}


def _classes(session: Session) -> dict[str, SchoolClass]:
    wanted = select(ListedClass).join(ListedClass.school_class)
    there = joinedload(ListedClass.school_class)
    found = session.scalars(
        wanted.options(there.selectinload(SchoolClass.students), there.selectinload(SchoolClass.colleagues))
    )
    return {one.listed: one.school_class for one in found}


def plan(session: Session, lists: Lists) -> Plan:
    """What taking lists over would do."""
    known, classes, found = _known(session), _classes(session), Plan()
    strangers = [one for one in lists.people.values() if (one.id, role_of(one)) not in known]
    alike = _alike(session, strangers)
    for one in strangers:
        candidates = alike.get(one.id, ())
        if candidates:
            found.doubtful.append(Doubtful(one, tuple(candidates)))
        else:
            found.new.append(one)
    for (id_, _role), person in known.items():
        listed = lists.people.get(id_)
        if listed is None:
            if person.left is None:
                found.gone.append(person)
        elif person.name != listed.name and not person.password_hash:
            found.changed.append((person, listed))
    by_number = {person.id: id_ for (id_, _role), person in known.items()}
    for one_class in lists.classes.values():
        here = classes.get(one_class.id)
        if here is None:
            found.new_classes.append(one_class)
            found.came += len(one_class.students)
            continue
        inside = {by_number[student.id] for student in here.students if student.id in by_number}
        found.came += len(set(one_class.students) - inside)
        found.went += len(inside - set(one_class.students))
    return found


def _alike(session: Session, strangers: list[Somebody]) -> dict[str, list[Person]]:
    """For each of these who is here under the same login or name, and on no list yet."""
    logins = {as_login(one.login): one for one in strangers if one.login}
    names = {one.name for one in strangers}
    if not strangers:
        return {}
    listed = select(Identity.person_id).where(Identity.source == SOURCE)
    wanted = select(Person).where(
        or_(Person.login.in_(list(logins)), Person.name.in_(list(names))),
        Person.id.not_in(listed),
        Person.left.is_(None),
    )
    there = list(session.scalars(wanted.options(selectinload(Person.classes))))
    found: dict[str, list[Person]] = {}
    for one in strangers:
        fits = [
            person
            for person in there
            if person.role is role_of(one) and (person.name == one.name or person.login == as_login(one.login))
        ]
        if fits:
            found[one.id] = fits
    return found


def take_over(session: Session, by: Person | None, lists: Lists, same: Mapping[str, int]) -> Plan:
    """Make accounts and classes what lists say; what was done. Nobody and nothing is erased.

    ``same``: whom of those who are here a doubtful one is, by the number; 0 for nobody. Who is doubtful and not
    decided is left out. Classes whose teacher is not listed are the administrator's (``by``), or left out.
    """
    done = plan(session, lists)
    doubtful = {one.listed.id: one for one in done.doubtful}
    for id_, one in doubtful.items():
        chosen = next((person for person in one.candidates if person.id == same.get(id_)), None)
        if chosen is not None:
            session.add(Identity(person=chosen, source=SOURCE, subject=id_, role=chosen.role))
        elif same.get(id_) == 0:
            done.new.append(one.listed)
    _make_people(session, done.new)
    for person, listed in done.changed:
        person.name = listed.name
        if listed.family_name:
            person.family_name = listed.family_name
    session.flush()
    known = _known(session)
    people = {id_: person for (id_, role), person in known.items() if id_ in lists.people}
    classes = _classes(session)
    for one_class in lists.classes.values():
        here = classes.get(one_class.id) or _make_class(session, by, one_class, people)
        if here is not None:
            _fill(here, one_class, people, known)
    session.flush()
    audit.record(session, by, Action.LISTS_TAKEN, new=len(done.new), gone=len(done.gone))
    return done


def _make_people(session: Session, strangers: list[Somebody]) -> None:
    """Accounts of people who are new: under the login of the office where that is free."""
    wanted = [as_login(one.login) for one in strangers]
    taken = set(
        session.scalars(select(Person.login).where(Person.login.in_(wanted)).execution_options(with_removed=True))
    )
    logins: list[str] = []
    for login in wanted:
        is_free = login and login not in taken and len(login.split()) == 1 and login.isprintable()
        logins.append(login if is_free else "")
        taken.add(login)
    without = [one for one, login in zip(strangers, logins, strict=True) if not login]
    made_up = iter(free_logins(session, [one.name for one in without]))
    for one, login in zip(strangers, logins, strict=True):
        person = Person(login=login or next(made_up), name=one.name, role=role_of(one), password_hash="")
        if one.family_name:
            person.family_name = one.family_name
        session.add(Identity(person=person, source=SOURCE, subject=one.id, role=role_of(one)))
    session.flush()


def _make_class(
    session: Session, by: Person | None, listed: ClassList, people: Mapping[str, Person]
) -> SchoolClass | None:
    teacher = next((people[one] for one in listed.teachers if one in people and people[one].left is None), by)
    if teacher is None:
        return None
    taken = {name for (name,) in session.execute(select(SchoolClass.name).where(SchoolClass.teacher_id == teacher.id))}
    made = SchoolClass(name=free_name(listed.title, taken), teacher=teacher)
    session.add(ListedClass(listed=listed.id, school_class=made))
    session.flush()
    return made


def _fill(
    here: SchoolClass, listed: ClassList, people: Mapping[str, Person], known: Mapping[tuple[str, Role], Person]
) -> None:
    """Who is in a class, and who teaches it besides; whoever was put there by hand stays."""
    wanted = [people[one] for one in listed.students if one in people]
    from_lists = {person.id for person in known.values()}
    staying = [one for one in here.students if one.id not in from_lists or one in wanted]
    here.students = [*staying, *(one for one in wanted if one not in staying)]
    for one in listed.teachers:
        if one in people and not teaches(people[one], here):
            here.colleagues.append(people[one])


# -- lists that wait to be looked through --------------------------------------------------------------------


def keep(session: Session, by: Person, content: bytes) -> None:
    """Keep a file of lists until they are taken over. Raises Refused."""
    if len(content) > LARGEST:
        raise Refused(_("The file is larger than %(most)s MB.", most=LARGEST // 1_000_000))
    forget(session, by)
    session.execute(insert(PendingList).values(person_id=by.id, made=now()))
    for number, part in enumerate(parts_of(content)):
        session.execute(insert(PendingListPart).values(person_id=by.id, number=number, content=part))


def kept(session: Session, by: Person) -> bytes | None:
    """The file that somebody looks through."""
    wanted = select(PendingListPart.content).where(PendingListPart.person_id == by.id)
    parts = session.scalars(wanted.order_by(PendingListPart.number)).all()
    return b"".join(parts) if parts else None


def forget(session: Session, by: Person) -> None:
    """Throw the file away that somebody looks through."""
    session.execute(delete(PendingList).where(PendingList.person_id == by.id))


# -- lists that are asked for nightly -------------------------------------------------------------------------


def source(session: Session) -> JsonObject | None:
    """Where lists are taken over from nightly, and what came of the last time; None for nowhere."""
    found = session.get(Choice, CHOICE)
    return found.value if found is not None else None


def set_source(
    session: Session,
    by: Person | None,
    address: str,
    client_id: str,
    secret: str,
    unsafe: bool = False,
    token_address: str = "",
) -> None:
    """Take lists over nightly from an address; from nowhere for none. Raises Refused. An empty secret leaves it.

    ``token_address``: where access is asked for, if not beside the lists.
    """
    address, before = address.strip().rstrip("/"), source(session) or {}
    token_address = token_address.strip() or f"{address}/token"
    if not address:
        session.execute(delete(Choice).where(Choice.name == CHOICE))
    else:
        schemes = ("https://", "http://") if unsafe else ("https://",)
        if not all(one.startswith(schemes) and len(one) <= 500 for one in (address, token_address)):
            raise Refused(_("Write the address of the office’s service: it begins with https://."))
        if not client_id.strip() or not (secret or before.get("secret")):
            raise Refused(_("Write the client ID and the client secret, as the office’s program shows them."))
        value = {
            "address": address,
            "token_address": token_address,
            "client_id": client_id.strip(),
            "secret": secret or before.get("secret"),
        }
        session.merge(Choice(name=CHOICE, value=value))
    audit.record(session, by, Action.LISTS_TAKEN)
    session.flush()


def note(session: Session, words: str, is_done: bool) -> None:
    """Keep what came of taking lists over from the address."""
    found = session.get(Choice, CHOICE)
    if found is not None:
        found.value = found.value | {"said": words[:300], "at": now().isoformat(), "done": is_done}


# -- results for the office ---------------------------------------------------------------------------------------


def results(session: Session) -> tuple[list[LineItem], list[Result]]:
    """The tasks of listed classes, and what listed students have reached; what was entered by hand comes first."""
    class_of = {here.id: listed for listed, here in _classes(session).items()}
    student_of = {person.id: id_ for (id_, role), person in _known(session).items() if role is Role.STUDENT}
    wanted = select(Assignment).where(Assignment.class_id.in_(list(class_of)), Assignment.practice_key.is_(None))
    tasks = list(
        session.scalars(wanted.options(joinedload(Assignment.sheet)).order_by(Assignment.class_id, Assignment.position))
    )
    items = [LineItem(f"task-{one.id}", class_of[one.class_id], one.sheet.title, one.opens, one.due) for one in tasks]
    numbers = [one.id for one in tasks]
    found: dict[tuple[int, int], Result] = {}
    rows = session.execute(
        select(
            Work.assignment_id, Work.student_id, HandIn.score, HandIn.score_override, HandIn.handed_in, HandIn.reason
        )
        .join(HandIn, HandIn.work_id == Work.id)
        .where(Work.assignment_id.in_(numbers), Work.student_id.in_(list(student_of)))
        .order_by(HandIn.outcome, HandIn.moves, HandIn.attempt)  # outcomes sort as they stand in their enumeration
    )
    for task, student, score, override, at, reason in rows:
        percent = score if override is None else override
        result = Result(f"task-{task}", student_of[student], "fully graded", percent, at, reason)
        found.setdefault((task, student), result)  # the best comes first
    for one in session.scalars(select(EnteredResult).where(EnteredResult.assignment_id.in_(numbers))):
        if one.student_id in student_of:
            status = {Entered.PAPER: "fully graded", Entered.ABSENT: "not submitted", Entered.EXCUSED: "exempt"}
            found[one.assignment_id, one.student_id] = Result(
                f"task-{one.assignment_id}",
                student_of[one.student_id],
                status[one.kind],
                one.score,
                one.entered,
                one.note,
            )
    return items, list(found.values())
