"""The app with a clock that is wrong by as many seconds as a file says: for the trial of the clock."""

from __future__ import annotations

import datetime
import os
import time
from pathlib import Path

right_time = time.time


def wrong_time() -> float:
    """The time in seconds, as a machine would have it whose clock is set wrong."""
    return right_time() + float(Path(os.environ["WIDEPIN_CLOCK_OFFSET"]).read_text())


class WrongDatetime(datetime.datetime):
    """Dates by that clock."""

    @classmethod
    def now(cls, tz: datetime.tzinfo | None = None) -> WrongDatetime:
        """The present."""
        return cls.fromtimestamp(wrong_time(), tz)


time.time = wrong_time  # before anything else takes it

from widepin.school import models  # noqa: E402
from widepin.web.app import from_environment  # noqa: E402

models.datetime = WrongDatetime  # type: ignore[misc, attr-defined]

__all__ = ["from_environment"]
