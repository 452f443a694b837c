"""Rosters as people have them: with headings or without, in any encoding, with slips in them."""

import csv
import io

import pytest

from widepin.documents.formats.roster import Column, decoded, read_roster, write_roster
from widepin.documents.reading import Unreadable


def names(text):
    return [str(entry.name) for entry in read_roster(text).entries]


@pytest.mark.parametrize(
    "text",
    [
        "Nell Farrow\nJory Pask",
        "name\nNell Farrow\nJory Pask\n",
        "Name,Class\nNell Farrow,1\nJory Pask,1",
        "First name;Surname\nNell;Farrow\nJory;Pask",
        "familyName\tgivenName\nFarrow\tNell\nPask\tJory",
        'No.,"Full name"\n1,"Nell Farrow"\n2,"Jory Pask"',
        "role,name\nstudent,Nell Farrow\nteacher,Corin Hale\nstudent,Jory Pask",
        "Farrow, Nell\nPask, Jory",
        "  Nell   Farrow \r\n\r\n Jory Pask",
        "Nr;Nachname;Vorname;E-Mail\n1;Farrow;Nell;n@post.example\n2;Pask;Jory;j@post.example",
        "Name;Vorname;Klasse\nFarrow;Nell;8b\nPask;Jory;8b",
        "Nom\tPrénom\nFarrow\tNell\nPask\tJory",
        "Apellidos,Nombre\nFarrow,Nell\nPask,Jory",
        "Imię;Nazwisko\nNell;Farrow\nJory;Pask",
        "Фамилия;Имя\nFarrow;Nell\nPask;Jory",
        "Επώνυμο;Όνομα\nFarrow;Nell\nPask;Jory",
        "1. Farrow, Nell\n2. Pask, Jory",
        "1) Nell Farrow\n2) Jory Pask",
        "1\tFarrow\tNell\tnell@post.example\n2\tPask\tJory\tjory@post.example",
        "nell@post.example;Nell Farrow\njory@post.example;Jory Pask",
        'Lp.;Uczeń\n1;"Farrow, Nell"\n2;"Pask, Jory"',
        "sourcedId,status,enabledUser,role,username,givenName,familyName,email\n"
        "u1,active,true,student,nell.f,Nell,Farrow,n@post.example\nu2,tobedeleted,true,student,x,Gone,Away,\n"
        "u3,active,true,teacher,c.hale,Corin,Hale,\nu4,active,true,student,jory.p,Jory,Pask,",
        "nell.farrow1;Farrow;Nell\njory.pask2;Pask;Jory",
    ],
)
def test_however_it_is_written_the_same_names_are_read(text):
    assert names(text) == ["Nell Farrow", "Jory Pask"]


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "cp1252"])
def test_encodings_are_told_apart(encoding):
    assert decoded("Zoë Müller".encode(encoding)) == "Zoë Müller"


def test_what_is_no_text_is_refused():
    with pytest.raises(Unreadable, match="no text file"):
        decoded(b"PK\x03\x04\0\0\0")


def test_what_was_understood_is_said_and_can_be_said_otherwise():
    text = "Lea;Weber\nKit;Sand"  # given names first, which nothing tells
    read = read_roster(text)
    assert read.columns == (Column.FAMILY, Column.GIVEN) and read.examples == (("Lea", "Kit"), ("Weber", "Sand"))
    turned = read_roster(text, columns=(Column.GIVEN, Column.FAMILY))
    assert [str(entry.name) for entry in turned.entries] == ["Lea Weber", "Kit Sand"]
    assert read_roster("Nr.;Name\n1;Lea Weber").headings == ("Nr.", "Name")


def test_slips_are_told_with_their_line_and_the_good_lines_kept():
    entries = read_roster(
        "name,group\nNell Farrow,a\n,a\nnell farrow,b\n123,b\nJory Pask,b", there={"Jory Pask"}
    ).entries
    assert [(entry.line, entry.problem) for entry in entries] == [
        (2, None),
        (3, "has no name"),
        (4, "repeats line 2"),
        (5, "has no letter in it"),
        (6, "is in this class already"),
    ]


@pytest.mark.parametrize(("text", "words"), [("", "no name"), ("  \n", "no name"), ("A\n" * 401, "too many")])
def test_nothing_and_too_much_are_refused(text, words):
    with pytest.raises(Unreadable, match=words):
        read_roster(text)


@pytest.mark.parametrize("typed", ["=1+1", "+1", "-1", "@A1", "\t=1", "\r=1", "\n=1"])
def test_no_cell_that_somebody_typed_is_a_formula_headings_too(typed):
    text = write_roster(("name", typed), [(typed, "x")])
    assert not any(cell.startswith(("=", "+", "-", "@", "\t", "\r", "\n")) for row in rows_of(text) for cell in row)


def rows_of(text):
    return list(csv.reader(io.StringIO(text.removeprefix("\ufeff"), newline="")))


def test_what_is_written_can_be_read_back_and_holds_no_formula():
    text = write_roster(("name", "login"), [("Nell the second", "nell"), ("=1+1", "x")])
    assert names(decoded(text.encode())) == ["Nell the second", "'=1+1"]
    assert next(iter(csv.reader(io.StringIO(text)))) == ["\ufeffname", "login"]


@pytest.mark.parametrize(
    "cell",
    ["x" * 700_000, "a-" * 300_000, "1" * 600_000 + "@", "@" * 500_000, " ." * 300_000, "\u00e9" * 300_000],
    ids=["letters", "dashes", "digits", "signs", "dots", "accents"],
)
def test_a_column_of_pictures_is_left_out_and_costs_nothing(cell):
    """A school program writes a whole picture into one cell. What is read of it has a bound, so no word is too long."""
    read = read_roster(f"Ilse Marran;{cell}\nBram Idris;{cell[:280]}")
    assert [str(one.name) for one in read.entries] == ["Ilse Marran", "Bram Idris"]
    assert str(read.columns[0]) == "name" and max(len(example) for row in read.examples for example in row) <= 300


def test_more_columns_and_lines_than_a_list_has_are_refused():
    with pytest.raises(Unreadable, match="line 1: has more than 60 columns"):
        read_roster(";" * 400_000)
    with pytest.raises(Unreadable, match="3000 lines are too many"):
        read_roster("Nell Farrow\n" * 3000)
