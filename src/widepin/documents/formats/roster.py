"""Rosters: lists of students as CSV or as pasted lines, read in whatever form they come, and written."""

from __future__ import annotations

import csv
import io
import re
import unicodedata
from collections import Counter
from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass
from enum import StrEnum

from ..language import gettext as _
from ..language import marked
from ..reading import Unreadable

MAX_LINES, MAX_COLUMNS, LONGEST_NAME = 400, 60, 120

LONGEST_CELL = 300
"""Characters that are read of a cell: more than any name has. School programs put whole pictures into one."""

csv.field_size_limit(10_000_000)  # more than a request may be long; what is too long is told by its line, not by chance


class Column(StrEnum):
    """What a column of a list holds."""

    NAME = "name"
    GIVEN = "given"
    FAMILY = "family"
    ROLE = "role"
    STATUS = "status"
    OTHER = "other"


COLUMN_WORDS = {
    Column.NAME: marked("name"),
    Column.GIVEN: marked("given name"),
    Column.FAMILY: marked("family name"),
    Column.ROLE: marked("role"),
    Column.STATUS: marked("status"),
    Column.OTHER: marked("leave out"),
}

HEADINGS = {
    Column.NAME: "name fullname student studentname pupil learner displayname schuler schulerin schulername namen"
    " nomcomplet nometprenom eleve nombrecompleto alumno nomecompleto alunno aluno leerling elev oppilas uczen zak"
    " ученик имя фио учень",
    Column.GIVEN: "givenname firstname forename given first vorname rufname prenom prenoms nombre nombres nome"
    " nomeproprio voornaam roepnaam fornavn fornamn etunimi imie jmeno meno ime prenume keresztnev utonev adi"
    " имя ім'я όνομα",
    Column.FAMILY: "familyname lastname surname family last nachname familienname zuname nom nomdefamille apellido"
    " apellidos cognome apelido sobrenome achternaam efternavn etternavn efternamn sukunimi nazwisko prijmeni"
    " priezvisko prezime numedefamilie vezeteknev csaladnev soyadi фамилия прізвище επώνυμο",
    Column.ROLE: "role rolle rol ruolo",
    Column.STATUS: "status",
}
"""Headings as school programs of several languages write them, without accents and blanks. ``givenName``,
``familyName``, ``role`` and ``status`` are those of OneRoster's users.csv, an open standard for rosters."""

STUDENTS = {"student", "pupil", "learner", "schuler", "schulerin", "eleve", "alumno", "alunno", ""}
GONE = {"tobedeleted", "inactive"}

NUMBERED = re.compile(r"^\s*\d+\s*[.):]?\s+(?=\S)")
"""A running number before a name."""

MARKS = frozenset("._-")
"""What is in sign-in names besides letters and digits."""


@dataclass(frozen=True)
class Name:
    """A name in its two parts, either of which may be empty."""

    given: str
    family: str = ""

    def __str__(self) -> str:
        return f"{self.given} {self.family}".strip()

    @classmethod
    def read(cls, text: str) -> Name:
        """A name as it is written: "Marran, Ilse", or with the family name last.

        >>> [Name.read(text) for text in ("Marran, Ilse", "Noor de la Cruz", "Pele")]
        [Name(given='Ilse', family='Marran'), Name(given='Noor', family='de la Cruz'), Name(given='Pele', family='')]
        """
        text = " ".join(text.split())
        before, comma, after = text.partition(",")
        if comma and after.strip() and "," not in after:
            return cls(after.strip(), before.strip())
        family = family_of(text)
        return cls(without(text, family), family)


def family_of(name: str) -> str:
    """The part of a name that seems to be the family name: the last word, with the small words before it; "" for a
    single word.

    >>> [family_of(name) for name in ("Ilse Marran", "Ludo van der Meer", "Pele")]
    ['Marran', 'van der Meer', '']
    """
    words = name.split()
    first = next((place for place, word in enumerate(words) if place and word[0].islower()), len(words) - 1)
    return " ".join(words[first:]) if first > 0 else ""


def without(name: str, family: str) -> str:
    """A name without its family name, which stands last or first in it.

    >>> without("Ilse Marran", "Marran"), without("Nagy Anna", "Nagy"), without("Pele", "")
    ('Ilse', 'Anna', 'Pele')
    """
    if family and name.endswith(f" {family}"):
        return name.removesuffix(f" {family}")
    return name.removeprefix(f"{family} ") if family else name


@dataclass(frozen=True)
class Entry:
    """A line of a roster: its number in the text, the name read from it, and what is wrong with it, if anything."""

    line: int
    name: Name
    problem: str | None = None


@dataclass(frozen=True)
class Roster:
    """A list as it was understood: what each column holds, its heading (or its first cell where it has none) with
    examples of its cells, and an entry for each student.
    """

    columns: tuple[Column, ...]
    headings: tuple[str, ...]
    examples: tuple[tuple[str, ...], ...]
    entries: tuple[Entry, ...]


def decoded(content: bytes) -> str:
    """The text of a file in UTF-8, UTF-16 or the Western one-byte encoding. Raises Unreadable for what is no text."""
    if content.startswith((b"\xff\xfe", b"\xfe\xff")):
        text = content.decode("utf-16", errors="replace")
    else:
        try:
            text = content.decode("utf-8-sig")
        except UnicodeDecodeError:
            text = content.decode("cp1252", errors="replace")
    if "\0" in text:
        raise Unreadable("", _("this is no text file; save the list as CSV and choose that"))
    return text


def read_roster(text: str, there: Collection[str] = (), columns: Sequence[Column] = ()) -> Roster:
    """A list of students; ``there``: names that are in the class already; ``columns``: what each holds, where somebody
    says so.

    Columns may be separated by commas, semicolons or tabs. With a heading line, in any of several languages, columns go
    by their headings, and rows of another role than student are left out. Without one they go by what is in them:
    addresses, numbers, accounts and what is the same in most rows are no names; of what is left, one column is a name,
    and two are a family name and a given name. Raises Unreadable where the text is too long or empty.

    >>> read_roster("Nachname;Vorname\\nMarran;Ilse").entries
    (Entry(line=2, name=Name(given='Ilse', family='Marran'), problem=None),)
    """
    rows = [
        (number, [" ".join(cell[:LONGEST_CELL].split()) for cell in row])
        for number, row in _rows(text)
        if any(map(str.strip, row))
    ]
    if not rows:
        raise Unreadable("", _("there is no name in it; write one student per line"))
    wide = max(len(row) for _number, row in rows)
    first = rows[0][1]
    headed = by_heading(first, wide)
    body = rows[1:] if headed else rows
    known = tuple(columns) if len(columns) == wide else headed or by_content([row for _number, row in body], wide)
    cells = [[_cell(row, place) for _number, row in body] for place in range(wide)]
    return Roster(
        known,
        tuple(_cell(first, place) if headed else "" for place in range(wide)),
        tuple(tuple(dict.fromkeys(cell for cell in column if cell))[:3] for column in cells),
        tuple(_entries(body, known, there)),
    )


def by_heading(row: Sequence[str], wide: int) -> tuple[Column, ...] | None:
    """What the columns hold by their headings; None where this row is none.

    >>> [str(column) for column in by_heading(["Nr.", "Prénom", "Nom", "E-mail"], 4)]
    ['other', 'given', 'family', 'other']
    """
    found = [KINDS.get(_plain(_cell(row, place)), Column.OTHER) for place in range(wide)]
    if _plain(" ".join(row)) in KINDS and len(row) > 1:
        return None
    if Column.GIVEN in found and Column.FAMILY not in found and Column.NAME in found:
        found = [Column.FAMILY if one is Column.NAME else one for one in found]  # "Name, Vorname"
    for column in (Column.NAME, Column.GIVEN, Column.FAMILY):  # the first of each counts
        for place in [place for place, one in enumerate(found) if one is column][1:]:
            found[place] = Column.OTHER
    if Column.GIVEN in found and Column.FAMILY in found:
        found = [Column.OTHER if one is Column.NAME else one for one in found]
    return tuple(found) if {Column.NAME, Column.GIVEN, Column.FAMILY} & set(found) else None


def by_content(rows: Sequence[Sequence[str]], wide: int) -> tuple[Column, ...]:
    """What the columns hold by what is in them.

    >>> [str(column) for column in by_content([["1", "Weber", "Lea", "lea@post.example"]], 4)]
    ['other', 'family', 'given', 'other']
    """
    names = [place for place in range(wide) if _are_names([_cell(row, place) for row in rows])][:2]
    parts = [Column.NAME] if len(names) == 1 else [Column.FAMILY, Column.GIVEN]
    found = [Column.OTHER] * wide
    for place, column in zip(names or [0], parts, strict=False):
        found[place] = column
    return tuple(found)


def _are_names(cells: Sequence[str]) -> bool:
    """Whether the cells of a column may be names."""
    filled = [cell for cell in cells if cell]
    if not filled:
        return False

    def most(holds: Iterable[bool]) -> bool:
        return sum(holds) * 2 > len(filled)

    if most(is_address_or_account(cell) or len(cell) > LONGEST_NAME for cell in filled):
        return False
    if not most(any(letter.isalpha() for letter in cell) for cell in filled):
        return False
    return len(filled) < 4 or Counter(filled).most_common(1)[0][1] * 2 <= len(filled)


def is_address_or_account(cell: str) -> bool:
    """Whether a cell holds an address, or a sign-in name: one word with digits, dots or underscores in it.

    >>> [is_address_or_account(cell) for cell in ("ilse@post.example", "i.marran", "Ilse Marran", "Ilse", "7")]
    [True, True, False, False, True]
    """
    if "@" in cell:
        return True
    digits_or_marks = [letter for letter in cell if letter.isdigit() or letter in MARKS]
    return bool(digits_or_marks) and all(letter.isalnum() or letter in MARKS for letter in cell)


def _entries(
    rows: Iterable[tuple[int, Sequence[str]]], columns: Sequence[Column], there: Collection[str]
) -> Iterable[Entry]:
    seen = {name.casefold(): _("is in this class already") for name in there}
    for number, row in rows:
        parts: dict[Column, str] = {column: _cell(row, place) for place, column in enumerate(columns)}
        if _plain(parts.get(Column.ROLE, "")) not in STUDENTS or _plain(parts.get(Column.STATUS, "")) in GONE:
            continue
        name = _name(parts)
        whole = str(name)
        yield Entry(number, name, _problem(whole) or seen.get(whole.casefold()))
        seen.setdefault(whole.casefold(), _("repeats line %(n)s", n=number))


def _name(parts: dict[Column, str]) -> Name:
    """A name from its parts, without a running number."""
    family, given = (NUMBERED.sub("", parts.get(one, "")) for one in (Column.FAMILY, Column.GIVEN))
    if family or given:
        return Name(given, family)
    return Name.read(NUMBERED.sub("", parts.get(Column.NAME, "")))


def _plain(text: str) -> str:
    """A heading without accents, blanks and marks, in small letters.

    >>> _plain("Prénom(s) :"), _plain("Given_Name")
    ('prenoms', 'givenname')
    """
    apart = unicodedata.normalize("NFKD", text.lower())
    return "".join(letter for letter in apart if letter.isalpha() and not unicodedata.combining(letter))


KINDS = {_plain(word): column for column, words in HEADINGS.items() for word in words.split()}


def _cell(row: Sequence[str], place: int) -> str:
    return row[place] if place < len(row) else ""


def _rows(text: str) -> Iterable[tuple[int, list[str]]]:
    """The rows with the numbers of their lines. Raises Unreadable for more rows or columns than are read at once."""
    lines = text.splitlines()
    written = sum(not line.isspace() and line != "" for line in lines)
    if written > MAX_LINES:
        raise Unreadable(
            "", _("%(n)s lines are too many; at most %(most)s are read at once", n=written, most=MAX_LINES)
        )
    head = next((line for line in lines if line.strip()), "")
    delimiter = max("\t;,", key=head.count)
    reader = csv.reader(lines, delimiter=delimiter)
    try:
        for row in reader:
            if len(row) > MAX_COLUMNS:
                place = _("line %(n)s", n=reader.line_num)
                raise Unreadable(place, _("has more than %(most)s columns", most=MAX_COLUMNS))
            yield reader.line_num, row
    except csv.Error:
        place = _("line %(n)s", n=reader.line_num)
        raise Unreadable(place, _("cannot be read; is a quotation mark missing?")) from None


def write_roster(headings: Sequence[str], rows: Iterable[Sequence[str]]) -> str:
    """CSV as every spreadsheet reads it: commas, quotes where needed, and a mark that it is UTF-8."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(map(_harmless, headings))
    writer.writerows([_harmless(cell) for cell in row] for row in rows)
    return "\ufeff" + out.getvalue()


def _harmless(cell: str) -> str:
    """A cell that no spreadsheet takes for a formula."""
    return "'" + cell if cell.startswith(("=", "+", "-", "@", "\t", "\r", "\n")) else cell


def _problem(name: str) -> str | None:
    if not name:
        return _("has no name")
    if len(name) > LONGEST_NAME:
        return _("is longer than %(most)s characters", most=LONGEST_NAME)
    if not any(letter.isalpha() for letter in name):
        return _("has no letter in it")
    return None
