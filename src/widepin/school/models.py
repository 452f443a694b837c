"""The tables: people, classes, tasks, works, in one place, since they refer to each other.

What must always be true of the data is a constraint here.
"""

from __future__ import annotations

import json
import secrets
import zlib
from datetime import UTC, datetime, timedelta
from enum import StrEnum
from typing import Any

from sqlalchemy import (
    JSON,
    CheckConstraint,
    DateTime,
    Enum,
    ForeignKey,
    MetaData,
    SQLColumnExpression,
    String,
    Text,
    UniqueConstraint,
    case,
    false,
    func,
    select,
    true,
)
from sqlalchemy.dialects.mysql import DATETIME, MEDIUMBLOB
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, object_session, relationship, selectinload, validates

from ..documents.formats.roster import family_of, without
from ..documents.reading import JsonObject
from ..documents.wording.explaining import Feedback
from ..judge.verdict import Outcome
from .states import (
    Action,
    Entered,
    HowFar,
    JobState,
    Late,
    LinkPurpose,
    Question,
    Reasons,
    Release,
    Removed,
    Role,
    Showing,
    SignInOutcome,
)


def members(enumeration: type[StrEnum]) -> Enum:
    """The column type of an enumeration, which stores the values of its members."""
    name = "".join(f"_{letter.lower()}" if letter.isupper() else letter for letter in enumeration.__name__).lstrip("_")
    return Enum(enumeration, values_callable=lambda kinds: [kind.value for kind in kinds], name=name)


def now() -> datetime:
    """The present, in UTC, as the database keeps it."""
    return datetime.now(UTC).replace(tzinfo=None)


def is_within(moment: datetime, span: timedelta) -> bool:
    """Whether a moment (UTC) was so lately. One that is yet to come is none: the clock was set back since."""
    return timedelta(0) <= now() - moment <= span


BYTES = "utf8mb4_bin"
"""The collation of what people and programs are known by: byte by byte, so that nothing passes for another."""


class Base(DeclarativeBase):
    """All tables. Constraints get predictable names, so that migrations can name them."""

    metadata = MetaData(
        naming_convention={
            "ix": "ix_%(column_0_label)s",
            "uq": "uq_%(table_name)s_%(column_0_name)s",
            "ck": "ck_%(table_name)s_%(constraint_name)s",
            "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
            "pk": "pk_%(table_name)s",
        }
    )


class Removable:
    """What a teacher can remove and have back: rows with a ``removal`` other than 0 lie in the bin under its number.

    ``database.make_sessions`` leaves them out of every query that does not ask for them.
    """

    removal: Mapped[int] = mapped_column(default=0, server_default="0", index=True)


# People: accounts, how they come in, what was done.


class Person(Removable, Base):
    """Somebody with an account."""

    __tablename__ = "person"

    id: Mapped[int] = mapped_column(primary_key=True)
    login: Mapped[str] = mapped_column(String(64, BYTES), unique=True)
    name: Mapped[str] = mapped_column(String(120))
    family_name: Mapped[str] = mapped_column(String(120), default="", server_default="")  # the part that lists go by
    role: Mapped[Role] = mapped_column(members(Role))
    password_hash: Mapped[str] = mapped_column(String(200))  # empty: signs in by codes alone
    code_number: Mapped[int] = mapped_column(default=1, server_default="1")  # counts renewals of the personal code

    stamp: Mapped[int] = mapped_column(default=1, server_default="1")  # of sessions that are valid; others have ended
    calendar_number: Mapped[int] = mapped_column(default=0, server_default="0")  # of the calendar's address; 0: none

    administrator: Mapped[bool] = mapped_column(default=False, server_default=false())  # looks after the school too
    left: Mapped[datetime | None] = mapped_column(DateTime)  # has left, and may not sign in any more
    otp_secret: Mapped[str] = mapped_column(String(64), default="", server_default="")  # empty: no second factor
    otp_step: Mapped[int] = mapped_column(default=0, server_default="0")  # the last half minute whose code was used

    visited: Mapped[datetime | None] = mapped_column(DateTime)  # the first page, last
    visited_before: Mapped[datetime | None] = mapped_column(DateTime)  # and the time before
    elements: Mapped[bool] = mapped_column(default=True, server_default=true())  # proofs name places in the Elements
    first_week: Mapped[bool] = mapped_column(default=True, server_default=true())  # shows the path of the first week

    classes: Mapped[list[SchoolClass]] = relationship(secondary="membership", back_populates="students")

    @validates("name")
    def _take_family_name(self, _attribute: str, name: str) -> str:
        """With a new name comes the family name that it seems to have; whoever knows better sets it afterwards."""
        self.family_name = family_of(name)
        return name

    @property
    def given_name(self) -> str:
        """The name without the family name."""
        return without(self.name, self.family_name)

    def end_sessions(self) -> None:
        """Whoever is signed in as this person, wherever, has to sign in again."""
        self.stamp += 1

    def renew_code(self) -> None:
        """A new personal code; the old one, and every session that began with it, is void."""
        self.code_number += 1
        self.end_sessions()

    @property
    def is_teacher(self) -> bool:
        """Whether this person teaches."""
        return self.role is Role.TEACHER

    @property
    def has_second_factor(self) -> bool:
        """Whether signing in asks for a code besides the password."""
        return bool(self.otp_secret)


class RecoveryCode(Base):
    """A code that stands in once for a second factor that is lost. ``digest``: of the code, which nobody keeps."""

    __tablename__ = "recovery_code"
    __table_args__ = (UniqueConstraint("person_id", "digest"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"))
    digest: Mapped[str] = mapped_column(String(64, BYTES))


class OneTimeLink(Base):
    """A link that works once: it makes an account, or lets somebody choose a new password.

    ``digest``: of its secret part, which nobody keeps. ``person``: for whom a new password is; nobody for an account
    that is still to be made.
    """

    __tablename__ = "one_time_link"

    id: Mapped[int] = mapped_column(primary_key=True)
    digest: Mapped[str] = mapped_column(String(64, BYTES), unique=True)
    purpose: Mapped[LinkPurpose] = mapped_column(members(LinkPurpose))
    name: Mapped[str] = mapped_column(String(120), default="", server_default="")
    administrator: Mapped[bool] = mapped_column(default=False, server_default=false())
    person_id: Mapped[int | None] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    made: Mapped[datetime] = mapped_column(DateTime, default=now)
    expires: Mapped[datetime] = mapped_column(DateTime)

    person: Mapped[Person | None] = relationship()


class BrowserSession(Base):
    """Somebody signed in with a browser. ``browser``: what kind it is, as far as it says; ``digest``: of its key."""

    __tablename__ = "browser_session"

    id: Mapped[int] = mapped_column(primary_key=True)
    digest: Mapped[str] = mapped_column(String(64, BYTES), unique=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    began: Mapped[datetime] = mapped_column(DateTime, default=now)
    seen: Mapped[datetime] = mapped_column(DateTime, default=now, index=True)
    address: Mapped[str] = mapped_column(String(45))
    browser: Mapped[str] = mapped_column(String(80), default="", server_default="")
    otp_secret: Mapped[str] = mapped_column(String(64), default="", server_default="")  # while one is being set up
    provider_session: Mapped[str] = mapped_column(String(255, BYTES), default="", server_default="", index=True)
    id_token: Mapped[str | None] = mapped_column(Text)  # of who came by the school's account, to sign out there too

    person: Mapped[Person] = relationship()


class AccessToken(Base):
    """A token by which a program acts for a teacher. ``digest``: of the token, which nobody keeps; ``scopes``: what it
    may do; ``used``: when it was used last, to the minute.
    """

    __tablename__ = "access_token"

    id: Mapped[int] = mapped_column(primary_key=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    digest: Mapped[str] = mapped_column(String(64, BYTES), unique=True)
    name: Mapped[str] = mapped_column(String(60))
    scopes: Mapped[list[str]] = mapped_column(JSON)
    made: Mapped[datetime] = mapped_column(DateTime, default=now)
    expires: Mapped[datetime] = mapped_column(DateTime)
    used: Mapped[datetime | None] = mapped_column(DateTime)

    person: Mapped[Person] = relationship()


class AuditEntry(Base):
    """What somebody did that others may ask about later. Names are not kept here, only numbers.

    ``actor_id``: who did it; nobody for the command line. ``about``: the number of what it was done to.
    """

    __tablename__ = "audit_entry"

    id: Mapped[int] = mapped_column(primary_key=True)
    at: Mapped[datetime] = mapped_column(DateTime, default=now, index=True)
    action: Mapped[Action] = mapped_column(members(Action))
    actor_id: Mapped[int | None] = mapped_column(ForeignKey("person.id", ondelete="SET NULL"), index=True)
    about: Mapped[int | None]
    details: Mapped[JsonObject] = mapped_column(JSON, default=dict, server_default="{}")

    actor: Mapped[Person | None] = relationship()


class Choice(Base):
    """Something that the administrators have chosen for the whole school, by its name."""

    __tablename__ = "choice"

    name: Mapped[str] = mapped_column(String(40, BYTES), primary_key=True)
    value: Mapped[JsonObject] = mapped_column(JSON)


NAMES = "names"
"""The choice of by which name lists go: {"order": "family" or "given"}."""


def in_name_order() -> tuple[SQLColumnExpression[Any], ...]:
    """The order of people in lists: by family name, or by given name where the school has chosen so."""
    order = select(func.json_value(Choice.value, "$.order")).where(Choice.name == NAMES).scalar_subquery()
    family = func.coalesce(func.nullif(Person.family_name, ""), Person.name)
    return case((order == "given", Person.name), else_=family), Person.name, Person.id


class SignIn(Base):
    """A try to sign in: by whom (``person``, once known), to which class, or under which unknown name, from where.

    ``unknown``: a digest of a login or class code that there is not. ``device``: a digest of what the browser is known
    by, "" where it keeps no cookie.
    """

    __tablename__ = "sign_in"

    id: Mapped[int] = mapped_column(primary_key=True)
    at: Mapped[datetime] = mapped_column(DATETIME(fsp=6), default=now, index=True)  # waits begin at one second
    outcome: Mapped[SignInOutcome] = mapped_column(members(SignInOutcome), default=SignInOutcome.FAILED)
    address: Mapped[str] = mapped_column(String(45), index=True)
    device: Mapped[str] = mapped_column(String(16, BYTES), default="", server_default="")
    person_id: Mapped[int | None] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    class_id: Mapped[int | None] = mapped_column(ForeignKey("school_class.id", ondelete="CASCADE"), index=True)
    unknown: Mapped[str] = mapped_column(String(16), default="", server_default="", index=True)

    person: Mapped[Person | None] = relationship(viewonly=True)
    school_class: Mapped[SchoolClass | None] = relationship(viewonly=True)


# Classes, who is in them and who teaches them.


LETTERS = "23456789ABCDEFGHJKMNPQRSTUVWXYZ"
"""Of which codes are made: no two of them look alike."""


def class_code() -> str:
    """A new code for a class."""
    return "".join(secrets.choice(LETTERS) for _ in range(5))


class SchoolClass(Removable, Base):
    """A class of students with its teacher."""

    __tablename__ = "school_class"
    __table_args__ = (UniqueConstraint("teacher_id", "name", "removal", name="uq_school_class_name"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    teacher_id: Mapped[int] = mapped_column(ForeignKey("person.id"))
    code: Mapped[str] = mapped_column(String(8, BYTES), unique=True, default=class_code)
    archived: Mapped[datetime | None] = mapped_column(DateTime)
    scoring: Mapped[JsonObject] = mapped_column(JSON, default=dict, server_default="{}")
    time_zone: Mapped[str | None] = mapped_column(String(64))  # None: the school's

    teacher: Mapped[Person] = relationship()
    colleagues: Mapped[list[Person]] = relationship(
        secondary="colleague", order_by=lambda: in_name_order(), passive_deletes=True
    )
    students: Mapped[list[Person]] = relationship(
        secondary="membership", back_populates="classes", order_by=lambda: in_name_order(), passive_deletes=True
    )
    assignments: Mapped[list[Assignment]] = relationship(
        back_populates="school_class",
        order_by="Assignment.position",
        passive_deletes="all",
        primaryjoin="and_(SchoolClass.id == Assignment.class_id, Assignment.practice_key.is_(None))",
    )  # what is set; tasks for practice are not among them
    mark_columns: Mapped[list[MarkColumn]] = relationship(
        back_populates="school_class", order_by="MarkColumn.id", passive_deletes="all"
    )
    class_tools: Mapped[list[ClassTool]] = relationship(
        back_populates="school_class", order_by="ClassTool.name", passive_deletes="all"
    )


class Colleague(Base):
    """A teacher who teaches a class together with the one whose it is."""

    __tablename__ = "colleague"

    class_id: Mapped[int] = mapped_column(ForeignKey("school_class.id", ondelete="CASCADE"), primary_key=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), primary_key=True, index=True)


class Membership(Base):
    """A student in a class."""

    __tablename__ = "membership"

    class_id: Mapped[int] = mapped_column(ForeignKey("school_class.id", ondelete="CASCADE"), primary_key=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), primary_key=True, index=True)


# Tasks: sheets in versions, assignments, class tools, practice.


class TaskSheet(Removable, Base):
    """A version of a task: a document, whose it is, and how it is to be set. Versions of a task are one family."""

    __tablename__ = "task_sheet"
    __table_args__ = (UniqueConstraint("family", "version"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    owner_id: Mapped[int] = mapped_column(ForeignKey("person.id"))
    title: Mapped[str] = mapped_column(String(200))
    document: Mapped[JsonObject] = mapped_column(JSON)
    family: Mapped[int]
    version: Mapped[int] = mapped_column(default=1, server_default="1")
    topic: Mapped[str] = mapped_column(String(60), default="", server_default="")
    policy: Mapped[JsonObject] = mapped_column(JSON, default=dict, server_default="{}")
    shared: Mapped[bool] = mapped_column(default=False, server_default=false())  # in the school's own library
    wrong: Mapped[list[list[JsonObject]]] = mapped_column(
        JSON, default=list, server_default="[]"
    )  # solutions that must be rejected: the steps of each
    fewest: Mapped[JsonObject | None] = mapped_column(JSON)  # moves that a search found, and up to which it excluded
    demonstration: Mapped[JsonObject | None] = mapped_column(
        JSON(none_as_null=True)
    )  # None: as it is made from the task
    series_of: Mapped[int | None]  # of a level of a graded series: the family of its task; not listed by itself
    folder: Mapped[str] = mapped_column(String(60), default="", server_default="")
    archived: Mapped[datetime | None] = mapped_column(DateTime)
    library_key: Mapped[str | None] = mapped_column(String(60, BYTES))  # of the task of the library that it began as
    practice: Mapped[bool] = mapped_column(default=False, server_default=false())  # for practice only; not listed
    changed: Mapped[datetime | None] = mapped_column(DateTime, default=now)
    copied_from: Mapped[int | None]  # the number of a colleague's sheet, and when its owner looked there last
    copied: Mapped[datetime | None] = mapped_column(DateTime)

    owner: Mapped[Person] = relationship()


class Assignment(Removable, Base):
    """A task that a class has to do."""

    __tablename__ = "assignment"
    __table_args__ = (
        UniqueConstraint("class_id", "sheet_id", "removal", name="uq_assignment_sheet"),
        UniqueConstraint("class_id", "practice_key", name="uq_assignment_practice"),
        CheckConstraint("weight >= 0", name="weight"),
        CheckConstraint("reasons_share >= 0 and reasons_share <= 100", name="reasons_share"),
        CheckConstraint("hint_cost >= 0 and hint_cost <= 100", name="hint_cost"),
    )

    id: Mapped[int] = mapped_column(primary_key=True)
    class_id: Mapped[int] = mapped_column(ForeignKey("school_class.id", ondelete="CASCADE"))
    sheet_id: Mapped[int] = mapped_column(ForeignKey("task_sheet.id"))
    position: Mapped[int] = mapped_column(default=0)  # in the order of the class
    opens: Mapped[datetime | None] = mapped_column(DateTime)
    due: Mapped[datetime | None] = mapped_column(DateTime)
    late: Mapped[Late] = mapped_column(members(Late), default=Late.TAKEN, server_default="taken")
    attempts: Mapped[int | None]
    scoring: Mapped[JsonObject] = mapped_column(JSON, default=dict, server_default="{}")
    after_id: Mapped[int | None] = mapped_column(ForeignKey("assignment.id", ondelete="SET NULL"))
    level: Mapped[int | None]  # of a series, from 1; None where it is none
    levels: Mapped[int | None]
    feedback: Mapped[Feedback] = mapped_column(members(Feedback), default=Feedback.BREAK, server_default="break")
    measuring: Mapped[bool] = mapped_column(default=True, server_default=true())
    finding: Mapped[bool] = mapped_column(default=True, server_default=true())
    loci: Mapped[bool] = mapped_column(default=True, server_default=true())
    demonstration: Mapped[Showing] = mapped_column(members(Showing), default=Showing.NEVER, server_default="never")
    possible: Mapped[Showing] = mapped_column(members(Showing), default=Showing.NEVER, server_default="never")
    how_far: Mapped[HowFar] = mapped_column(members(HowFar), default=HowFar.NO, server_default="no")
    solution: Mapped[Release] = mapped_column(members(Release), default=Release.NEVER, server_default="never")
    shortest: Mapped[Release] = mapped_column(members(Release), default=Release.NEVER, server_default="never")
    weight: Mapped[int] = mapped_column(default=1, server_default="1")  # of its score in the mean
    reasons: Mapped[Reasons] = mapped_column(members(Reasons), default=Reasons.NONE, server_default="none")
    reasons_share: Mapped[int] = mapped_column(default=0, server_default="0")  # percent of the score
    hints: Mapped[int] = mapped_column(default=0, server_default="0")  # that a student may take
    hint_cost: Mapped[int] = mapped_column(default=0, server_default="0")  # percent that each takes off the score
    practice_key: Mapped[str | None] = mapped_column(String(60, BYTES))  # of the library's task that it practises

    school_class: Mapped[SchoolClass] = relationship(back_populates="assignments", overlaps="assignments")
    after: Mapped[Assignment | None] = relationship(remote_side="Assignment.id")
    chosen: Mapped[list[Person]] = relationship(secondary="chosen_student", passive_deletes=True)
    class_tools: Mapped[list[ClassTool]] = relationship(
        secondary="allowed_tool",
        back_populates="assignments",
        order_by="ClassTool.name",
        passive_deletes=True,
    )
    sheet: Mapped[TaskSheet] = relationship()
    works: Mapped[list[Work]] = relationship(back_populates="assignment", passive_deletes="all")


class ClassTool(Base):
    """A constructions that a class was given as a class tool: all its steps are made at once.

    ``document``: given, steps and gives, of which the class tool is made. ``moves``: what one use counts.
    """

    __tablename__ = "class_tool"
    __table_args__ = (UniqueConstraint("class_id", "name"), CheckConstraint("moves >= 0", name="moves"))

    id: Mapped[int] = mapped_column(primary_key=True)
    class_id: Mapped[int] = mapped_column(ForeignKey("school_class.id", ondelete="CASCADE"))
    name: Mapped[str] = mapped_column(String(40))
    document: Mapped[JsonObject] = mapped_column(JSON)
    moves: Mapped[int]

    school_class: Mapped[SchoolClass] = relationship(back_populates="class_tools")
    assignments: Mapped[list[Assignment]] = relationship(
        secondary="allowed_tool", back_populates="class_tools", order_by="Assignment.position", passive_deletes=True
    )


class AllowedTool(Base):
    """A class tool of a class that may be used for one of its tasks."""

    __tablename__ = "allowed_tool"

    assignment_id: Mapped[int] = mapped_column(ForeignKey("assignment.id", ondelete="CASCADE"), primary_key=True)
    tool_id: Mapped[int] = mapped_column(ForeignKey("class_tool.id", ondelete="CASCADE"), primary_key=True, index=True)


class ChosenStudent(Base):
    """A student for whom an assignment is. Where there is none, it is for the whole class."""

    __tablename__ = "chosen_student"

    assignment_id: Mapped[int] = mapped_column(ForeignKey("assignment.id", ondelete="CASCADE"), primary_key=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), primary_key=True, index=True)


class PracticeTopic(Base):
    """A topic of the library that a class may practise."""

    __tablename__ = "practice_topic"

    class_id: Mapped[int] = mapped_column(ForeignKey("school_class.id", ondelete="CASCADE"), primary_key=True)
    topic: Mapped[str] = mapped_column(String(60, BYTES), primary_key=True)


# Works: operations, attempts, comments, and what a teacher enters by hand.


class Work(Removable, Base):
    """What one student makes for one assignment: a log of operations that only grows."""

    __tablename__ = "work"
    __table_args__ = (UniqueConstraint("assignment_id", "student_id"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    assignment_id: Mapped[int] = mapped_column(ForeignKey("assignment.id", ondelete="CASCADE"))
    student_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    started: Mapped[datetime] = mapped_column(DateTime, default=now)
    touched: Mapped[datetime] = mapped_column(DateTime, default=now)
    returned: Mapped[datetime | None] = mapped_column(DateTime)
    seen: Mapped[datetime | None] = mapped_column(DateTime)  # its board was open last
    opened: Mapped[datetime | None] = mapped_column(DateTime)  # since when it has been open without a break
    looked: Mapped[JsonObject | None] = mapped_column(JSON(none_as_null=True), default=dict)  # what was seen of it
    packed_operations: Mapped[int] = mapped_column(default=0, server_default="0")  # how many, where its log is packed

    assignment: Mapped[Assignment] = relationship(back_populates="works")
    student: Mapped[Person] = relationship()
    operation_rows: Mapped[list[Operation]] = relationship(
        back_populates="work", order_by="Operation.number", passive_deletes="all"
    )
    packed: Mapped[PackedLog | None] = relationship(passive_deletes="all")
    hand_ins: Mapped[list[HandIn]] = relationship(
        back_populates="work", order_by="HandIn.attempt", passive_deletes="all"
    )
    hints: Mapped[list[HintTaken]] = relationship(
        back_populates="work", order_by="HintTaken.number", passive_deletes="all"
    )

    @property
    def operations(self) -> list[Operation]:
        """Its log, in order, packed or not; ``WITH_LOG`` loads it for several works."""
        if not self.operation_rows and self.packed:  # it may have been packed since the work was read
            return self.packed.operations
        if not self.operation_rows and self.packed_operations and (session := object_session(self)):
            session.refresh(self, ["operation_rows"])  # or unpacked, between these two
        return self.operation_rows


class Operation(Base):
    """One operation of a student. Numbers run 1, 2, 3 ...; the key makes sending it twice harmless."""

    __tablename__ = "operation"
    __table_args__ = (
        UniqueConstraint("work_id", "key", name="uq_operation_key"),
        CheckConstraint("number >= 1", name="number"),
    )

    work_id: Mapped[int] = mapped_column(ForeignKey("work.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True, autoincrement=False)
    key: Mapped[str] = mapped_column(String(40, BYTES))
    document: Mapped[JsonObject] = mapped_column(JSON)
    stored: Mapped[datetime] = mapped_column(DateTime, default=now)

    work: Mapped[Work] = relationship(back_populates="operation_rows")


class PackedLog(Base):
    """The log of a work that nobody has touched for long, in place of its rows (``works/packing.py``).

    ``content``: compressed JSON, a list with [key, document, when it was stored] for each operation, in order.
    """

    __tablename__ = "packed_log"

    work_id: Mapped[int] = mapped_column(
        ForeignKey("work.id", ondelete="CASCADE"), primary_key=True, autoincrement=False
    )
    content: Mapped[bytes] = mapped_column(MEDIUMBLOB)

    @property
    def operations(self) -> list[Operation]:
        """The operations, read anew; they belong to no session."""
        return [
            Operation(
                work_id=self.work_id,
                number=number,
                key=key,
                document=document,
                stored=datetime.fromisoformat(stored),
            )
            for number, (key, document, stored) in enumerate(json.loads(zlib.decompress(self.content)), 1)
        ]


class HintTaken(Base):
    """A hint that a student took, or was sent, for the board as it stood after operation ``number``.

    ``document``: its three levels, the step that it is about, and the moves that were left. ``level``: how many of the
    levels were shown.
    """

    __tablename__ = "hint_taken"

    work_id: Mapped[int] = mapped_column(ForeignKey("work.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True, autoincrement=False)
    level: Mapped[int] = mapped_column(default=1)
    document: Mapped[JsonObject] = mapped_column(JSON)
    at: Mapped[datetime] = mapped_column(DateTime, default=now)
    sent: Mapped[bool] = mapped_column(default=False, server_default=false())  # by the teacher: it costs nothing

    work: Mapped[Work] = relationship(back_populates="hints")


class HandIn(Base):
    """An attempt: the work as it stood, which never changes, the verdict on it, and what the teacher said of it.

    ``sheet``: the version of the task that the verdict is about. ``key``: makes sending it twice harmless.
    """

    __tablename__ = "hand_in"
    __table_args__ = (
        UniqueConstraint("work_id", "attempt"),
        UniqueConstraint("work_id", "key", name="uq_hand_in_key"),
        CheckConstraint("attempt >= 1", name="attempt"),
        CheckConstraint("moves >= 0", name="moves"),
    )

    id: Mapped[int] = mapped_column(primary_key=True)
    work_id: Mapped[int] = mapped_column(ForeignKey("work.id", ondelete="CASCADE"))
    attempt: Mapped[int]
    key: Mapped[str | None] = mapped_column(String(40, BYTES))
    sheet_id: Mapped[int | None] = mapped_column(ForeignKey("task_sheet.id", ondelete="SET NULL"), index=True)
    outcome: Mapped[Outcome] = mapped_column(members(Outcome))
    moves: Mapped[int]
    document: Mapped[JsonObject] = mapped_column(JSON)
    verdict: Mapped[JsonObject] = mapped_column(JSON)
    handed_in: Mapped[datetime] = mapped_column(DateTime, default=now)
    hints: Mapped[int] = mapped_column(default=0, server_default="0")  # taken before it
    score: Mapped[int] = mapped_column(default=0, server_default="0")
    score_override: Mapped[int | None]
    reason: Mapped[str] = mapped_column(String(300), default="", server_default="")
    reasoned: Mapped[int | None]  # percent of the lines that were right, at best; None where nothing is asked

    work: Mapped[Work] = relationship(back_populates="hand_ins")
    sheet: Mapped[TaskSheet | None] = relationship()
    comments: Mapped[list[Comment]] = relationship(
        back_populates="attempt", order_by="Comment.id", passive_deletes="all"
    )

    @property
    def sheet_judged(self) -> TaskSheet:
        """The version of the task by which it was judged; that of the class where it is not known or removed."""
        return self.sheet or self.work.assignment.sheet

    @property
    def score_that_counts(self) -> int:
        """The score that the teacher gave by hand, else that of the assignment's table."""
        return self.score if self.score_override is None else self.score_override


class Comment(Removable, Base):
    """Words on an attempt, or on one of its steps. ``key``: makes sending them twice harmless."""

    __tablename__ = "comment"
    __table_args__ = (UniqueConstraint("hand_in_id", "key", name="uq_comment_key"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    hand_in_id: Mapped[int] = mapped_column(ForeignKey("hand_in.id", ondelete="CASCADE"), index=True)
    author_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"))
    step: Mapped[str] = mapped_column(String(24), default="", server_default="")
    text: Mapped[str] = mapped_column(String(1000))
    key: Mapped[str | None] = mapped_column(String(40, BYTES))
    written: Mapped[datetime] = mapped_column(DateTime, default=now)

    attempt: Mapped[HandIn] = relationship(back_populates="comments")
    author: Mapped[Person] = relationship()


class EnteredResult(Base):
    """What a teacher entered for a student's task: a score for work on paper, or that the student was not there.

    ``photo``: of the work on paper, as JPEG or PNG, with ``photo_type``.
    """

    __tablename__ = "entered_result"
    __table_args__ = (CheckConstraint("score >= 0 and score <= 100", name="score"),)

    assignment_id: Mapped[int] = mapped_column(ForeignKey("assignment.id", ondelete="CASCADE"), primary_key=True)
    student_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), primary_key=True, index=True)
    kind: Mapped[Entered] = mapped_column(members(Entered))
    score: Mapped[int | None]
    note: Mapped[str] = mapped_column(String(300), default="", server_default="")
    photo: Mapped[bytes | None] = mapped_column(MEDIUMBLOB, deferred=True)
    photo_type: Mapped[str] = mapped_column(String(20), default="", server_default="")
    entered: Mapped[datetime] = mapped_column(DateTime, default=now)


class MarkColumn(Base):
    """A column of other marks of a class: an oral examination, a model in stone."""

    __tablename__ = "mark_column"
    __table_args__ = (UniqueConstraint("class_id", "title"), CheckConstraint("weight >= 0", name="weight"))

    id: Mapped[int] = mapped_column(primary_key=True)
    class_id: Mapped[int] = mapped_column(ForeignKey("school_class.id", ondelete="CASCADE"))
    title: Mapped[str] = mapped_column(String(60))
    weight: Mapped[int] = mapped_column(default=1, server_default="1")

    school_class: Mapped[SchoolClass] = relationship(back_populates="mark_columns")
    marks: Mapped[list[OtherMark]] = relationship(back_populates="column", passive_deletes="all")


class OtherMark(Base):
    """A student's score in a column of other marks, in percent."""

    __tablename__ = "other_mark"
    __table_args__ = (CheckConstraint("score >= 0 and score <= 100", name="score"),)

    column_id: Mapped[int] = mapped_column(ForeignKey("mark_column.id", ondelete="CASCADE"), primary_key=True)
    student_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), primary_key=True, index=True)
    score: Mapped[int]

    column: Mapped[MarkColumn] = relationship(back_populates="marks")


class Recording(Base):
    """What a teacher says to a frame of a demonstration.

    ``digest``: of the sound, by which frames name it; ``kind``: its format, as ``audio/webm``.
    """

    __tablename__ = "recording"

    owner_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), primary_key=True)
    digest: Mapped[str] = mapped_column(String(64, BYTES), primary_key=True)
    kind: Mapped[str] = mapped_column(String(20))
    sound: Mapped[bytes] = mapped_column(MEDIUMBLOB, deferred=True)
    made: Mapped[datetime] = mapped_column(DateTime, default=now)


class Phrase(Base):
    """A comment that a teacher keeps, to be used again."""

    __tablename__ = "phrase"

    id: Mapped[int] = mapped_column(primary_key=True)
    owner_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    text: Mapped[str] = mapped_column(String(1000))


# Other systems of the school: how they are known, whom they know, and what they are still to be told.


class SigningKey(Base):
    """A key by which this program signs what it says to other systems. ``retired``: it signs no more since."""

    __tablename__ = "signing_key"

    id: Mapped[int] = mapped_column(primary_key=True)
    kid: Mapped[str] = mapped_column(String(64, BYTES), unique=True)  # the name by which others know it
    pem: Mapped[str] = mapped_column(Text)
    made: Mapped[datetime] = mapped_column(DateTime, default=now)
    retired: Mapped[datetime | None] = mapped_column(DateTime)


class Platform(Base):
    """A learning platform (LTI 1.3). ``deployments``: in which of its parts this program may be used; ``keys``: its
    public keys, as they were read last.
    """

    __tablename__ = "platform"
    __table_args__ = (UniqueConstraint("issuer", "client_id"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    issuer: Mapped[str] = mapped_column(String(255, BYTES))
    client_id: Mapped[str] = mapped_column(String(255, BYTES))
    login_address: Mapped[str] = mapped_column(String(500))
    token_address: Mapped[str] = mapped_column(String(500))
    keys_address: Mapped[str] = mapped_column(String(500))
    audience: Mapped[str] = mapped_column(String(500), default="", server_default="")  # empty: the token address
    deployments: Mapped[list[str]] = mapped_column(JSON)
    keys: Mapped[JsonObject | None] = mapped_column(JSON(none_as_null=True))
    made: Mapped[datetime] = mapped_column(DateTime, default=now)

    courses: Mapped[list[PlatformCourse]] = relationship(
        back_populates="platform", order_by="PlatformCourse.title", passive_deletes="all"
    )


class Handshake(Base):
    """A question to another system that is answered by way of a browser, and only once. ``digest``: of its secret."""

    __tablename__ = "handshake"

    id: Mapped[int] = mapped_column(primary_key=True)
    digest: Mapped[str] = mapped_column(String(64, BYTES), unique=True)
    question: Mapped[Question] = mapped_column(members(Question))
    kept: Mapped[JsonObject] = mapped_column(JSON)
    expires: Mapped[datetime] = mapped_column(DateTime, index=True)


class Identity(Base):
    """As whom another system knows a person. ``source``: that system; ``subject``: what it calls the person.

    Whoever teaches in one course and learns in another has two accounts, as ``role`` says. ``seen``: when they last
    came from there; nobody yet who was only listed.
    """

    __tablename__ = "identity"
    __table_args__ = (UniqueConstraint("source", "subject", "role"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    source: Mapped[str] = mapped_column(String(40, BYTES))
    subject: Mapped[str] = mapped_column(String(255, BYTES))
    role: Mapped[Role] = mapped_column(members(Role))
    seen: Mapped[datetime | None] = mapped_column(DateTime)

    person: Mapped[Person] = relationship()


class IdentityProvider(Base):
    """Where the school's accounts are (OpenID Connect); the one row says how people sign in with them.

    ``claim``: what of an account is the login of an account here; ``matches``: whether accounts that are here are found
    by it; ``groups_claim``: what says in which groups somebody is, of which some teach and some learn. Who is in none
    of them gets no account. ``described``: what the provider says of itself, with its keys.
    """

    __tablename__ = "identity_provider"

    only: Mapped[int] = mapped_column(primary_key=True, autoincrement=False)
    name: Mapped[str] = mapped_column(String(60))
    issuer: Mapped[str] = mapped_column(String(255, BYTES))
    client_id: Mapped[str] = mapped_column(String(255, BYTES))
    client_secret: Mapped[str] = mapped_column(String(255, BYTES))
    claim: Mapped[str] = mapped_column(String(60, BYTES))
    matches: Mapped[bool] = mapped_column(default=False, server_default=false())
    groups_claim: Mapped[str] = mapped_column(String(60, BYTES), default="", server_default="")
    teacher_groups: Mapped[list[str]] = mapped_column(JSON)
    student_groups: Mapped[list[str]] = mapped_column(JSON)
    described: Mapped[JsonObject | None] = mapped_column(JSON(none_as_null=True))


class ListedClass(Base):
    """A class on the lists of the school's office, and the class here. ``listed``: what the office calls it."""

    __tablename__ = "listed_class"

    listed: Mapped[str] = mapped_column(String(255, BYTES), primary_key=True)
    class_id: Mapped[int] = mapped_column(ForeignKey("school_class.id", ondelete="CASCADE"), index=True)

    school_class: Mapped[SchoolClass] = relationship()


class PendingList(Base):
    """Lists of the school's office that somebody looks through before they are taken over."""

    __tablename__ = "pending_list"

    person_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), primary_key=True)
    made: Mapped[datetime] = mapped_column(DateTime, default=now)


class PendingListPart(Base):
    """A part of the file with such lists, as it was sent."""

    __tablename__ = "pending_list_part"

    person_id: Mapped[int] = mapped_column(ForeignKey("pending_list.person_id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True, autoincrement=False)
    content: Mapped[bytes] = mapped_column(MEDIUMBLOB)


class PlatformCourse(Base):
    """A course of a learning platform, and the class that it is here. ``taken``: when its list was taken over last."""

    __tablename__ = "platform_course"
    __table_args__ = (UniqueConstraint("platform_id", "course"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    platform_id: Mapped[int] = mapped_column(ForeignKey("platform.id", ondelete="CASCADE"))
    course: Mapped[str] = mapped_column(String(255, BYTES))  # what the platform calls it
    title: Mapped[str] = mapped_column(String(200))
    class_id: Mapped[int] = mapped_column(ForeignKey("school_class.id", ondelete="CASCADE"), index=True)
    members_address: Mapped[str] = mapped_column(String(500), default="", server_default="")
    taken: Mapped[datetime | None] = mapped_column(DateTime)
    trouble: Mapped[str] = mapped_column(String(300), default="", server_default="")  # of the last try to take it over

    platform: Mapped[Platform] = relationship(back_populates="courses")
    school_class: Mapped[SchoolClass] = relationship()
    links: Mapped[list[PlatformLink]] = relationship(back_populates="course", passive_deletes="all")


class PlatformLink(Base):
    """A link in a course of a platform, and the task that it leads to. ``line_item``: where its scores go; ``due``: as
    the platform said last; ``changed``: since when scores may be others than were sent.
    """

    __tablename__ = "platform_link"
    __table_args__ = (UniqueConstraint("course_id", "link"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    course_id: Mapped[int] = mapped_column(ForeignKey("platform_course.id", ondelete="CASCADE"))
    link: Mapped[str] = mapped_column(String(255, BYTES))
    assignment_id: Mapped[int] = mapped_column(ForeignKey("assignment.id", ondelete="CASCADE"), index=True)
    line_item: Mapped[str] = mapped_column(String(500), default="", server_default="")
    due: Mapped[datetime | None] = mapped_column(DateTime)
    changed: Mapped[datetime | None] = mapped_column(DateTime, index=True)

    course: Mapped[PlatformCourse] = relationship(back_populates="links")
    assignment: Mapped[Assignment] = relationship()


class SentScore(Base):
    """A student's score for a link of a platform: as it was ``sent`` last, and as it waits to be.

    ``tries``: how many have failed since; ``trouble``: of the last of them.
    """

    __tablename__ = "sent_score"

    link_id: Mapped[int] = mapped_column(ForeignKey("platform_link.id", ondelete="CASCADE"), primary_key=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), primary_key=True, index=True)
    sent: Mapped[JsonObject | None] = mapped_column(JSON(none_as_null=True))
    waiting: Mapped[JsonObject | None] = mapped_column(JSON(none_as_null=True))
    since: Mapped[datetime | None] = mapped_column(DateTime)  # what waits was reached then
    next_try: Mapped[datetime | None] = mapped_column(DateTime, index=True)
    tries: Mapped[int] = mapped_column(default=0, server_default="0")
    trouble: Mapped[str] = mapped_column(String(300), default="", server_default="")

    link: Mapped[PlatformLink] = relationship()
    person: Mapped[Person] = relationship()


# What is removed, and work that takes long.


class Removal(Base):
    """Something that was removed and can be had back for a while, with all that hangs on it.

    ``about``: its number; ``class_id``: of the class that it concerns, whose teachers may restore it; ``kept``: what is
    needed besides to restore it, or to say what it was.
    """

    __tablename__ = "removal"

    id: Mapped[int] = mapped_column(primary_key=True)
    at: Mapped[datetime] = mapped_column(DateTime, default=now, index=True)
    kind: Mapped[Removed] = mapped_column(members(Removed))
    about: Mapped[int]
    name: Mapped[str] = mapped_column(String(240))
    actor_id: Mapped[int | None] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    class_id: Mapped[int | None] = mapped_column(index=True)
    kept: Mapped[JsonObject] = mapped_column(JSON, default=dict, server_default="{}")


class Installation(Base):
    """Whose the database is: the one row says which installation, by the id in its data folder, and where that is."""

    __tablename__ = "installation"

    only: Mapped[int] = mapped_column(primary_key=True, autoincrement=False)
    id: Mapped[str] = mapped_column(String(40, BYTES))
    host: Mapped[str] = mapped_column(String(120))
    folder: Mapped[str] = mapped_column(String(400))
    since: Mapped[datetime] = mapped_column(DateTime)


class JudgingAgain(Base):
    """That the attempts at an assignment are judged again. ``after``: the last one that is done; ``alive``: when
    somebody was last at it.
    """

    __tablename__ = "judging_again"

    assignment_id: Mapped[int] = mapped_column(
        ForeignKey("assignment.id", ondelete="CASCADE"), primary_key=True, autoincrement=False
    )
    after: Mapped[int] = mapped_column(default=0, server_default="0")
    alive: Mapped[datetime] = mapped_column(DateTime, default=now)


# What several servers keep together: who does what, and long work with what came of it.


class Lease(Base):
    """That something is one holder's alone until a moment, by the clock of the database."""

    __tablename__ = "lease"

    name: Mapped[str] = mapped_column(String(64, BYTES), primary_key=True)
    holder: Mapped[str] = mapped_column(String(200, BYTES))
    until: Mapped[datetime] = mapped_column(DATETIME(fsp=6))


class Turn(Base):
    """Whose turn it is with a row, in a cluster (``turns.py``): written and taken away by one and the same transaction,
    so that nobody ever sees one.
    """

    __tablename__ = "turn"

    name: Mapped[str] = mapped_column(String(64, BYTES), primary_key=True)


class Job(Base):
    """Long work that somebody waits for, and how far it is. ``told``: what is going on, how much of it is done, and how
    much there is. ``alive``: when it last said so; ``tries``: how often it was begun.
    """

    __tablename__ = "job"

    key: Mapped[str] = mapped_column(String(32, BYTES), primary_key=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    state: Mapped[JobState] = mapped_column(members(JobState), default=JobState.WAITING)
    told: Mapped[JsonObject | None] = mapped_column(JSON(none_as_null=True))
    alive: Mapped[datetime] = mapped_column(DATETIME(fsp=6), default=now, index=True)
    tries: Mapped[int] = mapped_column(default=0, server_default="0")

    parts: Mapped[list[JobPart]] = relationship(order_by="JobPart.number", passive_deletes="all")


class JobPart(Base):
    """A part of what came of long work: parts are small, since no transaction is to be large in a cluster."""

    __tablename__ = "job_part"

    job_key: Mapped[str] = mapped_column(ForeignKey("job.key", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True, autoincrement=False)
    content: Mapped[bytes] = mapped_column(MEDIUMBLOB)


WITH_LOG = (selectinload(Work.operation_rows), selectinload(Work.packed))
"""Loads the logs of several works along with them."""
