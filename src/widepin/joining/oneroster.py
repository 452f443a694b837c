"""Lists of a school's office: people, classes, and who is in which, by OneRoster 1.2, as CSV in a ZIP or by REST.

Source: 1EdTech, OneRoster 1.2 CSV Binding and Rostering REST Binding.
"""

from __future__ import annotations

import csv
import io
import zipfile
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any

from ..documents.language import gettext as _
from ..documents.reading import Unreadable
from .http_client import NotReached, ask

LARGEST_FILE, MOST_ROWS = 60_000_000, 200_000
"""Bytes of a file once it is unpacked, and rows of one."""

LONGEST_ID, LONGEST_NAME = 255, 120
TEACHES = ("teacher", "aide", "proctor")
PAGE, MOST_PAGES = 500, 2000


@dataclass(frozen=True)
class Somebody:
    """A person on the lists. ``id``: what the office calls the person; ``login``: the user name there."""

    id: str
    given_name: str
    family_name: str
    login: str
    teaches: bool

    @property
    def name(self) -> str:
        """The whole name."""
        return f"{self.given_name} {self.family_name}".strip()


@dataclass
class ClassList:
    """A class with who is in it. ``teachers``: the first is the one whose it is."""

    id: str
    title: str
    teachers: list[str] = field(default_factory=list)
    students: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class Fault:
    """What is wrong with a row, which is left out. ``row``: its number in the file, or in the list."""

    file: str
    row: int
    words: str


@dataclass
class Lists:
    """All that is listed and holds at present, by what the office calls it."""

    people: dict[str, Somebody] = field(default_factory=dict)
    classes: dict[str, ClassList] = field(default_factory=dict)
    faults: list[Fault] = field(default_factory=list)


Row = Mapping[str, str]


def read_zip(content: bytes) -> Lists:
    """The lists in a ZIP of CSV files. Raises Unreadable for what is none; rows that are wrong become faults."""
    try:
        archive = zipfile.ZipFile(io.BytesIO(content))
    except zipfile.BadZipFile:
        raise Unreadable("file", _("is no ZIP file; export the lists as OneRoster CSV")) from None
    names = {name.rsplit("/", 1)[-1].lower(): name for name in archive.namelist()}
    said = {row.get("propertyName", ""): row.get("value", "") for row in _rows(archive, names, "manifest.csv", [])}
    if not said.get("oneroster.version", "").startswith("1."):
        raise Unreadable("manifest.csv", _("does not say that these are OneRoster lists"))
    for name in ("users", "classes", "enrollments"):
        if said.get(f"file.{name}") == "delta":
            raise Unreadable(f"{name}.csv", _("has changes only; export the whole lists (bulk)"))
        if f"{name}.csv" not in names:
            raise Unreadable(f"{name}.csv", _("is missing from the ZIP file"))
    faults: list[Fault] = []
    roles: dict[str, set[str]] = {}
    if "roles.csv" in names:
        for row in _rows(archive, names, "roles.csv", faults):
            if _holds(row):
                roles.setdefault(row.get("userSourcedId", ""), set()).add(row.get("role", "").lower())
    users, classes, enrolments = (
        list(_rows(archive, names, f"{name}.csv", faults)) for name in ("users", "classes", "enrollments")
    )
    return put_together(users, roles, classes, enrolments, faults)


def _rows(archive: zipfile.ZipFile, names: Mapping[str, str], name: str, faults: list[Fault]) -> Iterator[Row]:
    if name not in names:
        raise Unreadable(name, _("is missing from the ZIP file"))
    if archive.getinfo(names[name]).file_size > LARGEST_FILE:
        raise Unreadable(name, _("is too large"))
    try:
        text = archive.read(names[name]).decode("utf-8-sig")
    except (UnicodeDecodeError, zipfile.BadZipFile, RuntimeError, NotImplementedError):
        raise Unreadable(name, _("cannot be read; it has to be text in UTF-8")) from None
    reader = csv.reader(io.StringIO(text, newline=""))
    heads = [head.strip() for head in next(reader, [])]
    try:
        for number, cells in enumerate(reader, 2):
            if number > MOST_ROWS:
                raise Unreadable(name, _("has more than %(most)s rows", most=MOST_ROWS))
            if not any(cell.strip() for cell in cells):
                continue
            if len(cells) != len(heads):
                faults.append(Fault(name, number, _("it has %(n)s fields of %(all)s", n=len(cells), all=len(heads))))
                continue
            yield dict(zip(heads, (cell.strip() for cell in cells), strict=True))
    except csv.Error:
        raise Unreadable(name, _("is no CSV that can be read")) from None


def _holds(row: Row) -> bool:
    """Whether a row is of now; an empty status, as in whole lists, is."""
    return row.get("status", "").lower() in ("", "active")


def put_together(
    users: Sequence[Row],
    roles: Mapping[str, set[str]],
    classes: Sequence[Row],
    enrolments: Sequence[Row],
    faults: list[Fault],
) -> Lists:
    """Lists of rows as in the CSV files. ``roles``: of people, where their own row does not say it."""
    found = Lists(faults=faults)
    _people(found, users, roles)
    for number, row in enumerate(classes, 2):
        wrong = _wrong_id(row, found.classes)
        title = " ".join(row.get("title", "").split())[:LONGEST_NAME]
        if not _holds(row):
            continue
        if wrong or not title:
            faults.append(Fault("classes.csv", number, wrong or _("it has no title")))
            continue
        found.classes[row["sourcedId"]] = ClassList(row["sourcedId"], title)
    _enrolments(found, enrolments)
    return found


def _people(found: Lists, users: Iterable[Row], roles: Mapping[str, set[str]]) -> None:
    for number, row in enumerate(users, 2):
        if not _holds(row) or row.get("enabledUser", "").lower() == "false":
            continue
        wrong = _wrong_id(row, found.people)
        given, family = (" ".join(row.get(name, "").split()) for name in ("givenName", "familyName"))
        name = f"{given} {family}".strip()
        if not wrong and not name:
            wrong = _("it has no name")
        if not wrong and len(name) > LONGEST_NAME:
            wrong = _("its name has more than %(most)s characters", most=LONGEST_NAME)
        said = roles.get(row.get("sourcedId", ""), set()) or {row.get("role", "").lower()} - {""}
        if not wrong and not said:
            wrong = _("it has no role")
        if wrong:
            found.faults.append(Fault("users.csv", number, wrong))
            continue
        teaches = bool(said & set(TEACHES))
        if teaches or "student" in said:  # guardians and others have no part here
            id_ = row["sourcedId"]
            found.people[id_] = Somebody(id_, given, family, row.get("username", "")[:64], teaches)


def _wrong_id(row: Row, there: Mapping[str, object]) -> str:
    id_ = row.get("sourcedId", "")
    if not id_ or len(id_) > LONGEST_ID:
        return _("it has no sourcedId")
    return _("its sourcedId stands there twice: %(id)s", id=id_) if id_ in there else ""


def _enrolments(found: Lists, rows: Iterable[Row]) -> None:
    for number, row in enumerate(rows, 2):
        if not _holds(row):
            continue
        where, who = found.classes.get(row.get("classSourcedId", "")), row.get("userSourcedId", "")
        role = row.get("role", "").lower()
        wrong = ""
        if where is None:
            wrong = _("it is of a class that is not listed: %(id)s", id=row.get("classSourcedId", ""))
        elif who not in found.people:
            wrong = _("it is of somebody who is not listed: %(id)s", id=who)
        elif role not in (*TEACHES, "student", "administrator"):
            wrong = _("it has a role that is not known: %(role)s", role=role)
        elif found.people[who].teaches is not (role in TEACHES) and role != "administrator":
            wrong = _("it is of a student who teaches, or of a teacher who learns: %(id)s", id=who)
        if wrong or where is None:
            found.faults.append(Fault("enrollments.csv", number, wrong))
            continue
        into = where.teachers if role in TEACHES else where.students
        if role == "administrator" or who in into:
            continue
        if role in TEACHES and row.get("primary", "").lower() == "true":
            into.insert(0, who)
        else:
            into.append(who)


def read_address(address: str, token_address: str, client_id: str, secret: str) -> Lists:
    """The lists that a service has at an address (Rostering REST). Raises NotReached."""
    answer = ask(
        "POST", token_address, form={"grant_type": "client_credentials", "scope": SCOPE}, auth=(client_id, secret)
    ).json
    token = answer.get("access_token") if isinstance(answer, dict) else None
    if not isinstance(token, str):
        raise NotReached(_("the office gave no access token"))
    base = address.rstrip("/") + "/ims/oneroster/rostering/v1p2"
    users, roles = [], {}
    for one in _all(f"{base}/users", token, "users"):
        users.append(_flat(one))
        roles[str(one.get("sourcedId"))] = {str(role.get("role", "")).lower() for role in one.get("roles", ())}
    classes = [_flat(one) for one in _all(f"{base}/classes", token, "classes")]
    enrolments = [
        _flat(one)
        | {
            "classSourcedId": str(one.get("class", {}).get("sourcedId", "")),
            "userSourcedId": str(one.get("user", {}).get("sourcedId", "")),
        }
        for one in _all(f"{base}/enrollments", token, "enrollments")
    ]
    return put_together(users, roles, classes, enrolments, [])


SCOPE = "https://purl.imsglobal.org/spec/or/v1p2/scope/roster-core.readonly"


def _all(address: str, token: str, name: str) -> Iterator[Mapping[str, Any]]:
    """Everything of a kind, page by page."""
    for page in range(MOST_PAGES):
        answer = ask("GET", f"{address}?limit={PAGE}&offset={page * PAGE}", token=token)
        listed = answer.json.get(name) if isinstance(answer.json, dict) else None
        if not isinstance(listed, list):
            raise NotReached(_("the office sent no list of %(what)s", what=name))
        yield from (one for one in listed if isinstance(one, dict))
        if len(listed) < PAGE:
            return
    raise NotReached(_("the office’s list of %(what)s has no end", what=name))


def _flat(one: Mapping[str, Any]) -> dict[str, str]:
    """The fields of an object that are texts, as in a row; true and false as CSV says them."""
    return {
        str(name): str(value).lower() if isinstance(value, bool) else str(value)
        for name, value in one.items()
        if isinstance(value, str | bool | int)
    }


# -- results, the same way back ---------------------------------------------------------------------------------


@dataclass(frozen=True)
class LineItem:
    """A task of a listed class. ``id``: of our own; times in UTC."""

    id: str
    class_id: str
    title: str
    assigned: datetime | None
    due: datetime | None


@dataclass(frozen=True)
class Result:
    """What a listed student has reached. ``status``: in the standard's words; ``percent``: None for nothing."""

    line_item: str
    student: str
    status: str
    percent: int | None
    at: datetime | None
    comment: str


CATEGORY = "wide-pin"
"""The one category of all line items."""

LINE_ITEM_HEADS = (
    *("sourcedId", "status", "dateLastModified", "title", "description", "assignDate", "dueDate", "classSourcedId"),
    *("categorySourcedId", "gradingPeriodSourcedId", "resultValueMin", "resultValueMax", "schoolSourcedId"),
)
RESULT_HEADS = (
    *("sourcedId", "status", "dateLastModified", "lineItemSourcedId", "studentSourcedId", "scoreStatus", "score"),
    *("textScore", "classSourcedId", "inProgress", "incomplete", "late", "missing", "scoreDate", "comment"),
)


def results_zip(items: Sequence[LineItem], results: Sequence[Result]) -> bytes:
    """Tasks and results as a ZIP of CSV files (gradebook, bulk)."""
    class_of = {one.id: one.class_id for one in items}
    manifest = {"manifest.version": "1.0", "oneroster.version": "1.2"}
    manifest |= {f"file.{name}": "bulk" for name in ("categories", "lineItems", "results")}
    files: dict[str, Sequence[Sequence[str]]] = {
        "manifest": [["propertyName", "value"], *manifest.items()],
        "categories": [
            ["sourcedId", "status", "dateLastModified", "title", "weight"],
            [CATEGORY, "", "", "Wide Pin", ""],
        ],
        "lineItems": [
            LINE_ITEM_HEADS,
            *(
                (one.id, "", "", one.title, "", _day(one.assigned), _day(one.due), one.class_id)
                + (CATEGORY, "", "0.0", "100.0", "")
                for one in items
            ),
        ],
        "results": [
            RESULT_HEADS,
            *(
                (f"{one.line_item}-{one.student}", "", "", one.line_item, one.student, one.status)
                + ("" if one.percent is None else f"{one.percent}.0", "", class_of[one.line_item])
                + ("", "", "", "", _day(one.at), one.comment)
                for one in results
            ),
        ],
    }
    content = io.BytesIO()
    with zipfile.ZipFile(content, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, rows in files.items():
            text = io.StringIO(newline="")
            csv.writer(text).writerows(rows)
            archive.writestr(f"{name}.csv", text.getvalue())
    return content.getvalue()


def _day(at: datetime | None) -> str:
    return at.date().isoformat() if at is not None else ""
