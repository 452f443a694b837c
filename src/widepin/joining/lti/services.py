"""What a platform is asked for and told between launches: who is in a course, and scores."""

from __future__ import annotations

import json
import secrets
import time
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from email.utils import parsedate_to_datetime

from ...documents.language import gettext as _
from ..http_client import Answer, NotReached, ask
from ..tokens import KeySet, signed
from . import words
from .launches import BadLaunch, Member, clock_off, read_member

MOST_PAGES = 400
"""Pages of a list of members; what goes on for longer goes in a circle."""


@dataclass(frozen=True)
class Credentials:
    """By which this program asks a platform. ``audience``: whom its requests are for; ``kid``, ``pem``: its key."""

    client_id: str
    token_address: str
    audience: str
    kid: str
    pem: str


def access_token(by: Credentials, scopes: Sequence[str]) -> str:
    """A token by which the services of a platform may be asked. Raises NotReached.

    Source: Security Framework 1.0, section 4.1 (RFC 7523).
    """
    at = int(time.time())
    assertion = {
        "iss": by.client_id,
        "sub": by.client_id,
        "aud": by.audience or by.token_address,
        "iat": at,
        "exp": at + 60,
        "jti": secrets.token_urlsafe(16),
    }
    answer = ask(
        "POST",
        by.token_address,
        form={
            "grant_type": "client_credentials",
            "client_assertion_type": "urn:ietf:params:oauth:client-assertion-type:jwt-bearer",
            "client_assertion": signed(assertion, by.kid, by.pem),
            "scope": " ".join(scopes),
        },
    )
    token = answer.json.get("access_token") if isinstance(answer.json, dict) else None
    if not isinstance(token, str):
        raise NotReached(_("the platform gave no access token"))
    return token


def published_keys(address: str) -> tuple[KeySet, Answer]:
    """The public keys of a platform, and the whole answer. Raises NotReached."""
    answer = ask("GET", address)
    if not isinstance(answer.json, dict) or not isinstance(answer.json.get("keys"), list):
        raise NotReached(_("the address of the platform’s keys has none"))
    return answer.json, answer


def members(address: str, token: str) -> Iterator[Member]:
    """Everybody in a course who teaches or learns there, page by page. Raises NotReached.

    Who is inactive or deleted is left out, and so is who cannot be read.
    """
    for _page in range(MOST_PAGES):
        answer = ask("GET", address, token=token, accept=words.MEMBERS_TYPE)
        listed = answer.json.get("members") if isinstance(answer.json, dict) else None
        if not isinstance(listed, list):
            raise NotReached(_("the platform sent no list of members"))
        for one in listed:
            if isinstance(one, dict) and one.get("status", "Active") == "Active":
                try:
                    yield read_member(one, "user_id", one.get("roles"))
                except BadLaunch:
                    continue
        if not answer.next:
            return
        address = answer.next
    raise NotReached(_("the platform’s list of members has no end"))


@dataclass(frozen=True)
class Score:
    """What a student has reached. ``percent``: None for nothing yet; ``is_final``: whether it is not to be revised."""

    subject: str
    percent: int | None
    is_final: bool
    comment: str
    at: datetime

    def as_json(self) -> str:
        """As AGS 2.0, section 3.4.2, wants it."""
        said: dict[str, object] = {
            "userId": self.subject,
            "timestamp": self.at.replace(tzinfo=UTC).isoformat(timespec="milliseconds").replace("+00:00", "Z"),
            "activityProgress": "Completed" if self.is_final else "InProgress",
            "gradingProgress": "FullyGraded" if self.is_final else "Pending",
            "comment": self.comment,
        }
        if self.percent is not None:
            said |= {"scoreGiven": self.percent, "scoreMaximum": 100}
        return json.dumps(said)


def send_score(line_item: str, token: str, score: Score) -> None:
    """Send a score. Raises NotReached."""
    place, question, rest = line_item.partition("?")
    ask(
        "POST",
        f"{place.rstrip('/')}/scores{question}{rest}",
        token=token,
        body=score.as_json(),
        content_type=words.SCORE_TYPE,
    )


def clock_difference(answer: Answer, at: float) -> str:
    """By how much the clock of who answered differs, in words; "" for less than a minute, or where it does not say."""
    try:
        theirs = parsedate_to_datetime(answer.date).timestamp()
    except (TypeError, ValueError):
        return ""
    if abs(theirs - at) < 60:
        return ""
    off = clock_off(abs(theirs - at))
    return _("%(time)s ahead", time=off) if theirs > at else _("%(time)s behind", time=off)
