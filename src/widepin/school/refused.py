"""What the school refuses."""

from __future__ import annotations

from ..plane.errors import CoreError


class Refused(CoreError):
    """What was asked for cannot be done so. The message says what to change."""
