"""Rosters: lists of students as CSV or as pasted lines, read in whatever form they come, and written."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass

from .reading import Unreadable

MAX_LINES, LONGEST_NAME = 400, 120

NAME = {"name", "fullname", "student", "studentname", "pupil", "learner", "displayname"}
GIVEN = {"givenname", "firstname", "forename", "given", "first"}
FAMILY = {"familyname", "lastname", "surname", "family", "last"}
ROLE = {"role"}


@dataclass(frozen=True)
class Entry:
    """A line of a roster: its number in the text, the name read from it, and what is wrong with it, if anything."""

    line: int
    name: str
    problem: str | None = None


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
        raise Unreadable("", "this is no text file; save the list as CSV and choose that")
    return text


def read_roster(text: str, there: Collection[str] = ()) -> list[Entry]:
    """One entry per line that is not blank; ``there``: names that are in the class already.

    Columns may be separated by commas, semicolons or tabs. With a heading line, a column for the name or two for its
    parts are looked for, and rows of another role than student are left out. Without one, a line is a name, and a line
    of two columns a family name and a given name. Raises Unreadable where the text is too long or empty.

    >>> read_roster("Surname;First name\\nMarran;Ilse")
    [Entry(line=2, name='Ilse Marran', problem=None)]
    """
    rows = [
        (number, [" ".join(cell.split()) for cell in row]) for number, row in _rows(text) if any(map(str.strip, row))
    ]
    if not rows:
        raise Unreadable("", "there is no name in it; write one student per line")
    if len(rows) > MAX_LINES:
        raise Unreadable("", f"{len(rows)} lines are too many; at most {MAX_LINES} are read at once")
    columns = _columns(rows[0][1])
    if columns is not None:
        rows = rows[1:]
        if "role" in columns:
            rows = [
                row for row in rows if _cell(row[1], columns["role"]).lower() in ("student", "pupil", "learner", "")
            ]
    entries: list[Entry] = []
    seen = {name.casefold(): "is in this class already" for name in there}
    for number, row in rows:
        name = _name(row, columns)
        entries.append(Entry(number, name, _problem(name) or seen.get(name.casefold())))
        seen.setdefault(name.casefold(), f"repeats line {number}")
    return entries


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


def _rows(text: str) -> Iterable[tuple[int, list[str]]]:
    lines = text.splitlines()
    head = next((line for line in lines if line.strip()), "")
    delimiter = max("\t;,", key=head.count)
    reader = csv.reader(lines, delimiter=delimiter)
    try:
        for row in reader:
            yield reader.line_num, row
    except csv.Error:
        raise Unreadable(f"line {reader.line_num}", "cannot be read; is a quotation mark missing?") from None


def _columns(row: Sequence[str]) -> dict[str, int] | None:
    """Which column holds what, if this row is a heading."""
    words = [re.sub("[^a-z]", "", cell.lower()) for cell in row]
    kinds = {"name": NAME, "given": GIVEN, "family": FAMILY, "role": ROLE}
    found: dict[str, int] = {}
    for index, word in enumerate(words):
        for kind, known in kinds.items():
            if word in known:
                found.setdefault(kind, index)
    return found if found.keys() & {"name", "given", "family"} else None


def _cell(row: Sequence[str], place: int) -> str:
    return row[place] if place < len(row) else ""


def _name(row: Sequence[str], columns: dict[str, int] | None) -> str:
    if columns is None:
        cells = [cell for cell in row if cell]
        return " ".join([*cells[1:], cells[0]]) if len(cells) == 2 else " ".join(cells)
    if "name" in columns:
        return _cell(row, columns["name"])
    return " ".join(_cell(row, columns[part]) for part in ("given", "family") if part in columns).strip()


def _problem(name: str) -> str | None:
    if not name:
        return "has no name"
    if len(name) > LONGEST_NAME:
        return f"is longer than {LONGEST_NAME} characters"
    if not any(letter.isalpha() for letter in name):
        return "has no letter in it"
    return None
