"""The log: JSON, a line per request and per event of security, with the request's number, which error pages show too.

Neither names nor documents nor passwords stand in it: people are numbers, pages the rules of their addresses.
"""

from __future__ import annotations

import logging
import re
import secrets
from logging.config import dictConfig
from typing import Any

from flask import Flask, Response, g, request
from flask import session as browser_session
from pythonjsonlogger.json import JsonFormatter

from . import metrics
from .static_files import ENDPOINTS as STATIC

REQUESTS = logging.getLogger("widepin.requests")
SECURITY = logging.getLogger("widepin.security")

LEVELS = {True: logging.WARNING, False: logging.INFO}


def use_logs(app: Flask) -> None:
    """Give every request a number, and a line in the log."""
    if app.config["JSON_LOGS"]:
        dictConfig(json_lines())
    app.before_request(_begin)
    app.after_request(_end)


def json_lines() -> dict[str, Any]:
    """What the standard library's logging has to know: JSON lines on standard error."""
    return {
        "version": 1,
        "disable_existing_loggers": False,
        "formatters": {
            "json": {
                "()": "widepin.web.serving.logs.JsonLines",
                "fmt": "%(asctime)s %(levelname)s %(name)s %(message)s",
                "rename_fields": {"asctime": "at", "levelname": "level", "name": "from", "message": "what"},
                "datefmt": "%Y-%m-%dT%H:%M:%S%z",
            }
        },
        "filters": {"request": {"()": "widepin.web.serving.logs.WithRequest"}},
        "handlers": {"out": {"class": "logging.StreamHandler", "formatter": "json", "filters": ["request"]}},
        "root": {"level": "INFO", "handlers": ["out"]},
    }


VALUES = re.compile(r"(Duplicate entry|value:) '.*?'(?= for )", re.S)
"""Where MariaDB repeats in a message what somebody has typed."""


def without_values(message: str) -> str:
    """A message of the database without what somebody has typed.

    >>> without_values("Duplicate entry 'ada.o'hara' for key 'login'")
    "Duplicate entry … for key 'login'"
    """
    return VALUES.sub(r"\1 …", message)


class JsonLines(JsonFormatter):
    """A JSON line per record; tracebacks repeat nothing that somebody has typed either."""

    def formatException(self, exc_info: Any) -> str:  # noqa: N802
        """A traceback as text."""
        return without_values(str(super().formatException(exc_info)))


class WithRequest(logging.Filter):
    """Puts the number of the request, if there is one, into what is logged during it."""

    def filter(self, record: logging.LogRecord) -> bool:
        """Let everything pass, with the number."""
        number = request_number()
        if number:
            record.request = number
        return True


def request_number() -> str | None:
    """The number of this request, by which its lines in the log can be found."""
    return g.get("request_number") if g else None


def _begin() -> None:
    g.request_number = secrets.token_hex(4)


def _end(response: Response) -> Response:
    number = request_number()
    if number:
        response.headers["X-Request-ID"] = number
    if request.endpoint not in (*STATIC, "health.alive", "health.ready"):
        level = LEVELS[response.status_code >= 500]
        REQUESTS.log(level, "request", extra=about(response.status_code))
    return response


def about(status: int) -> dict[str, object]:
    """What the log says of this request."""
    return {
        "method": request.method,
        "rule": request.url_rule.rule if request.url_rule else None,
        "status": status,
        "ms": round(metrics.seconds() * 1000, 1),
        "person": person_number(),
    }


def person_number() -> str | None:
    """The number of whoever is signed in, or None."""
    return browser_session.get("_user_id", "").partition(".")[0] or None


def security(event: str, **details: object) -> None:
    """Write down an event of security."""
    SECURITY.warning(event, extra={"person": person_number(), "address": request.remote_addr, **details})
