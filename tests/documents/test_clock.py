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


def test_an_unknown_zone_changes_nothing(berlin):
    with pytest.raises(ZoneInfoNotFoundError):
        clock.set_zone("Europe/Nowhere")
    assert clock.zone() == "Europe/Berlin"
