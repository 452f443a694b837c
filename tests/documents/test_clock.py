"""Times on the school's clock."""

from datetime import datetime
from zoneinfo import ZoneInfoNotFoundError

import pytest

from widepin.documents import clock


@pytest.fixture
def berlin():
    before = clock.zone()
    clock.set_zone("Europe/Berlin")
    yield
    clock.set_zone(before)


def test_times_are_said_on_the_schools_clock_in_summer_and_winter(berlin):
    assert clock.in_words(datetime(2031, 7, 1, 22, 30)) == "Wednesday 2 July at 00:30"
    assert clock.in_words(datetime(2031, 1, 1, 12, 0)) == "Wednesday 1 January at 13:00"
    assert clock.zone() == "Europe/Berlin"


@pytest.mark.parametrize(
    ("zone", "typed", "utc"),
    [
        ("Europe/Berlin", "2031-07-01T12:30", "2031-07-01T10:30"),
        ("Europe/Berlin", "2031-01-01T12:30", "2031-01-01T11:30"),
        ("America/St_Johns", "2031-01-01T00:00", "2031-01-01T03:30"),
        pytest.param("Europe/Berlin", "2031-10-26T02:30", "2031-10-26T00:30", id="there-twice"),
        pytest.param("Europe/Berlin", "2031-03-30T02:30", "2031-03-30T01:30", id="skipped"),
    ],
)
def test_a_time_is_typed_on_the_schools_clock(berlin, zone, typed, utc):
    clock.set_zone(zone)
    assert clock.utc(datetime.fromisoformat(typed)) == datetime.fromisoformat(utc)
    if utc != "2031-03-30T01:30":
        assert clock.as_typed(datetime.fromisoformat(utc)) == typed


def test_days_later_is_the_same_hour_on_the_clock_in_winter_too(berlin):
    friday = datetime(2031, 10, 24, 10, 0)  # 12:00 in summer
    assert clock.days_later(friday, 7) == datetime(2031, 10, 31, 11, 0)
    assert clock.days_later(friday, 0) == friday


def test_a_class_elsewhere_has_a_clock_of_its_own_until_the_next_request(berlin):
    clock.use("Europe/Lisbon")
    assert clock.in_words(datetime(2031, 1, 1, 12, 0)) == "Wednesday 1 January at 12:00"
    assert clock.utc(datetime(2031, 7, 1, 12, 30)) == datetime(2031, 7, 1, 11, 30)
    assert (clock.zone(), clock.school_zone()) == ("Europe/Lisbon", "Europe/Berlin")
    clock.use(None)
    assert clock.in_words(datetime(2031, 1, 1, 12, 0)) == "Wednesday 1 January at 13:00"


@pytest.mark.parametrize(
    ("typed", "known"),
    [
        ("Europe/Lisbon", "Europe/Lisbon"),
        ("america/new york", "America/New_York"),
        ("Lisbon", "Europe/Lisbon"),
        ("Europe/Lisboa", "Europe/Lisbon"),
        ("x" * 60, None),
        ("", None),
    ],
)
def test_a_zone_is_known_as_it_is_typed_or_nearly_so(typed, known):
    assert clock.like(typed) == known


def test_an_unknown_zone_changes_nothing(berlin):
    with pytest.raises(ZoneInfoNotFoundError):
        clock.set_zone("Europe/Nowhere")
    assert clock.zone() == "Europe/Berlin"
