"""Forms as people fill them in."""

from datetime import datetime
from typing import Literal
from zoneinfo import ZoneInfo

import pytest
from pydantic import Field, TypeAdapter, ValidationError
from werkzeug.datastructures import MultiDict

from widepin.documents import clock
from widepin.documents.forms import ClockTime, Form, Line, Moment
from widepin.documents.reading import Unreadable, check_plain


class Tried(Form):
    name: Line = Field(default="", max_length=5, title="Name")
    count: int | None = Field(default=None, ge=1, le=99, title="Attempts")
    at: Moment | None = Field(default=None, title="Due")
    late: Literal["taken", "refused"] = Field(default="taken", title="Late works")
    chosen: list[int] = Field(default=[], title="Students")


def read(**sent):
    return Tried.read(MultiDict(sent))


def test_what_is_empty_or_missing_has_its_default():
    assert read(count="", at="  ", other="x") == Tried()


def test_values_are_read():
    found = read(name="  a \n b ", count=" 7", at="2026-11-25T08:30", late="refused", chosen=["1", "2"])
    assert found == Tried(name="a b", count=7, at=datetime(2026, 11, 25, 8, 30), late="refused", chosen=[1, 2])


def test_a_time_of_a_field_is_one_on_the_schools_clock(monkeypatch):
    monkeypatch.setattr(clock, "_zone", ZoneInfo("Europe/Berlin"))
    field = TypeAdapter(ClockTime)
    assert field.validate_python("2026-11-25T08:30") == datetime(2026, 11, 25, 7, 30)
    assert field.validate_python("2026-11-25T08:30+03:00") == datetime(2026, 11, 25, 5, 30)
    with pytest.raises(ValidationError, match="is no date and time"):
        field.validate_python("0001-01-01T00:00")


def test_a_time_with_a_zone_is_turned_into_utc():
    assert read(at="2026-11-25T08:30+02:00").at == datetime(2026, 11, 25, 6, 30)


@pytest.mark.parametrize(
    ("sent", "words"),
    [
        ({"count": "9" * 5000}, "Attempts: must be a whole number"),
        ({"count": "x"}, "Attempts: must be a whole number"),
        ({"count": "1.5"}, "Attempts: must be a whole number"),
        ({"count": "0"}, "Attempts: must be 1 or more"),
        ({"count": "100"}, "Attempts: must be 99 or less"),
        ({"at": "soon"}, "Due: is no date and time"),
        ({"at": "0001-01-01T00:00+14:00"}, "Due: is no date and time"),
        ({"at": "9999-01-01"}, "Due: must lie between the years"),
        ({"late": "never"}, "Late works: must be 'taken' or 'refused'"),
        ({"name": "longer"}, "Name: has 5 characters at most"),
        ({"chosen": ["1", "x"]}, "Students: must be a whole number"),
    ],
)
def test_what_is_wrong_is_said_by_the_name_of_the_field(sent, words):
    with pytest.raises(Unreadable) as wrong:
        read(**sent)
    assert str(wrong.value).startswith(words)


def nested(depth):
    value: list = []
    for _ in range(depth):
        value = [value]
    return value


@pytest.mark.parametrize(
    ("value", "place"),
    [
        (nested(30), "[0][0]"),
        ({"a": [1.0, float("nan")]}, "a[1]"),
        ({"a": float("inf")}, "a"),
        ({"a": 10**400}, "a"),
        ({"a": {"b": "half \ud800"}}, "a.b"),
        ({"half \udfff": 1}, ""),
    ],
)
def test_what_cannot_be_kept_is_found_with_its_place(value, place):
    with pytest.raises(Unreadable) as wrong:
        check_plain(value)
    assert wrong.value.place.startswith(place)
    str(wrong.value).encode()


def test_plain_documents_pass():
    check_plain({"a": [1, 2.5, None, True, "whole \U0001f600"], "b": nested(10)})
