"""Signed cookies that survive a clock that is set back."""

from __future__ import annotations

from typing import Any

from flask import Flask
from flask.sessions import SecureCookieSessionInterface
from itsdangerous import SignatureExpired, TimestampSigner, URLSafeTimedSerializer


class PatientSigner(TimestampSigner):
    """Signs with the time, and takes what was signed at a time that is yet to come.

    The clock was set back since; else everybody would be signed out by it.
    """

    def unsign(self, signed_value: str | bytes, max_age: int | None = None, return_timestamp: bool = False) -> Any:
        """As the signer it comes from does."""
        try:
            return super().unsign(signed_value, max_age, return_timestamp)  # type: ignore[call-overload]
        except SignatureExpired as refused:
            signed = refused.date_signed
            if signed is None or signed.timestamp() <= self.get_timestamp():
                raise
            return super().unsign(signed_value, None, return_timestamp)  # type: ignore[call-overload]


class Cookies(SecureCookieSessionInterface):
    """Flask's own cookies for sessions, signed so."""

    def get_signing_serializer(self, app: Flask) -> URLSafeTimedSerializer | None:
        """What writes and reads them."""
        made = super().get_signing_serializer(app)
        if made is not None:
            made.signer = PatientSigner
        return made
