"""Tables of people: accounts, how they come in, what was done."""

from __future__ import annotations

from datetime import datetime
from typing import TYPE_CHECKING

from sqlalchemy import JSON, DateTime, ForeignKey, String, UniqueConstraint, false, true
from sqlalchemy.dialects.mysql import DATETIME
from sqlalchemy.orm import Mapped, mapped_column, relationship

from ...documents.reading import JsonObject
from ..states import Action, LinkPurpose, Role, SignInOutcome
from .base import BYTES, Base, members, now

if TYPE_CHECKING:
    from .classes import SchoolClass


class Person(Base):
    """Somebody with an account."""

    __tablename__ = "person"

    id: Mapped[int] = mapped_column(primary_key=True)
    login: Mapped[str] = mapped_column(String(64, BYTES), unique=True)
    name: Mapped[str] = mapped_column(String(120))
    role: Mapped[Role] = mapped_column(members(Role))
    password_hash: Mapped[str] = mapped_column(String(200))  # empty: signs in by codes alone
    code_number: Mapped[int] = mapped_column(default=1, server_default="1")  # counts renewals of the personal code

    stamp: Mapped[int] = mapped_column(default=1, server_default="1")  # of sessions that are valid; others have ended

    administrator: Mapped[bool] = mapped_column(default=False, server_default=false())  # looks after the school too
    left: Mapped[datetime | None] = mapped_column(DateTime)  # has left, and may not sign in any more
    otp_secret: Mapped[str] = mapped_column(String(64), default="", server_default="")  # empty: no second factor
    otp_step: Mapped[int] = mapped_column(default=0, server_default="0")  # the last half minute whose code was used

    visited: Mapped[datetime | None] = mapped_column(DateTime)  # the first page, last
    visited_before: Mapped[datetime | None] = mapped_column(DateTime)  # and the time before
    elements: Mapped[bool] = mapped_column(default=True, server_default=true())  # proofs name places in the Elements
    first_week: Mapped[bool] = mapped_column(default=True, server_default=true())  # shows the path of the first week

    classes: Mapped[list[SchoolClass]] = relationship(secondary="membership", back_populates="students")

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


class SignIn(Base):
    """A try to sign in: by whom (``person``, once known), to which class, or under which unknown name, from where.

    ``unknown``: a digest of a login or class code that there is not.
    """

    __tablename__ = "sign_in"

    id: Mapped[int] = mapped_column(primary_key=True)
    at: Mapped[datetime] = mapped_column(DATETIME(fsp=6), default=now, index=True)  # waits begin at one second
    outcome: Mapped[SignInOutcome] = mapped_column(members(SignInOutcome), default=SignInOutcome.FAILED)
    address: Mapped[str] = mapped_column(String(45), index=True)
    person_id: Mapped[int | None] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    class_id: Mapped[int | None] = mapped_column(ForeignKey("school_class.id", ondelete="CASCADE"), index=True)
    unknown: Mapped[str] = mapped_column(String(16), default="", server_default="", index=True)

    person: Mapped[Person | None] = relationship(viewonly=True)
    school_class: Mapped[SchoolClass | None] = relationship(viewonly=True)
