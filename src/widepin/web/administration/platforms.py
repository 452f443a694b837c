"""Learning platforms, as an administrator registers and looks after them."""

from __future__ import annotations

from time import time

from flask import abort, current_app, flash, redirect, render_template, request, url_for
from flask import session as browser_session
from flask.typing import ResponseReturnValue
from werkzeug.wrappers import Response

from ...documents.language import gettext as _
from ...joining.http_client import NotReached
from ...joining.lti import services, words
from ...school.joining import handshakes, keys, platforms, scores
from ...school.models import Platform
from ...school.refused import Refused
from ...school.states import Question
from ..access import administrators_only, me
from ..addresses import address_of
from ..database import session
from ..platforms.registering import here

LINK = "registering_link"
"""In the session of the browser: a link for registering that was just made."""


@administrators_only
def index() -> str:
    """The platforms that are registered, and what they need to know of this program."""
    secret = browser_session.pop(LINK, None)
    return render_template(
        "administration/platforms.html",
        platforms=platforms.every(session()),
        scores=platforms.scores_of(session()),
        troubles={one.id: platforms.troubles_of(session(), one) for one in platforms.every(session())},
        here=here(),
        link=address_of("platforms.register", secret=secret) if secret else None,
    )


@administrators_only
def ask_new() -> str:
    """The form for a platform that is not registered yet."""
    return show({})


def show(typed: dict[str, str], platform: Platform | None = None, trouble: str | None = None) -> str:
    """The form for a platform."""
    return render_template("administration/platform.html", typed=typed, platform=platform, trouble=trouble, here=here())


def fields() -> dict[str, str]:
    """What was filled in."""
    return {name: request.form.get(name, "") for name in platforms.Described.__dataclass_fields__}


@administrators_only
def register() -> ResponseReturnValue:
    """Register a platform."""
    return _store(None)


@administrators_only
def ask_change(platform_id: int) -> str:
    """The form for a platform that is registered."""
    platform = any_platform(platform_id)
    return show(platforms.as_typed(platform), platform)


@administrators_only
def change(platform_id: int) -> ResponseReturnValue:
    """Change what is known of a platform."""
    return _store(any_platform(platform_id))


def _store(platform: Platform | None) -> ResponseReturnValue:
    try:
        described = platforms.read(fields(), unsafe=not current_app.config["HTTPS"])
        stored = platforms.store(session(), me(), described, platform)
    except Refused as wrong:
        return show(fields(), platform, str(wrong)), 422
    flash(_("%(name)s is registered. Check it now, then open a link from a course.", name=stored.name))
    return redirect(url_for("administration.platforms"))


def any_platform(platform_id: int) -> Platform:
    """A platform; 404 for one that there is not."""
    found = session().get(Platform, platform_id)
    if found is None:
        abort(404)
    return found


@administrators_only
def check(platform_id: int) -> Response:
    """Read the keys of a platform, ask it for access, and look at its clock; say what is wrong."""
    platform = any_platform(platform_id)
    by, address, name = (
        platforms.credentials_of(platform, keys.current(session())),
        platform.keys_address,
        platform.name,
    )
    deployments = list(platform.deployments)
    session().commit()  # nothing is held while another system is waited for
    try:
        found, answer = services.published_keys(address)
        off = services.clock_difference(answer, time())
        services.access_token(by, words.SCOPES)
    except NotReached as wrong:
        flash(
            _(
                "%(name)s: %(why)s. Compare the addresses and the client ID with those in the platform.",
                name=name,
                why=wrong,
            )
        )
        return redirect(url_for("administration.platforms"))
    any_platform(platform_id).keys = dict(found)
    if off:
        flash(_("The clock of %(name)s is %(time)s. More than five minutes let nobody in.", name=name, time=off))
    elif not deployments:
        flash(_("%(name)s answers, but no deployment ID is known: nobody can come from there yet.", name=name))
    else:
        flash(_("%(name)s answers: its keys can be read, and it gives access to lists and scores.", name=name))
    return redirect(url_for("administration.platforms"))


@administrators_only
def try_again(platform_id: int) -> Response:
    """Send at once what waits for a platform."""
    scores.try_again_now(session(), any_platform(platform_id).id)
    flash(_("What waits is sent within half a minute."))
    return redirect(url_for("administration.platforms"))


@administrators_only
def ask_remove(platform_id: int) -> str:
    """Say what removing a platform means."""
    platform = any_platform(platform_id)
    return render_template(
        "confirm.html",
        title=_("Remove %(name)s?", name=platform.name),
        consequence=_("Nobody comes from this platform any more, and no scores go there."),
        lost=[one.title for one in platform.courses],
        keep=_("Classes, accounts and works stay. Who has no other way in needs a card with codes, or a link."),
        action=url_for("administration.remove_platform", platform_id=platform.id),
        back=url_for("administration.platforms"),
        deed=_("Remove"),
    )


@administrators_only
def remove(platform_id: int) -> Response:
    """Forget a platform."""
    platform = any_platform(platform_id)
    name = platform.name
    platforms.remove(session(), me(), platform)
    flash(_("%(name)s is removed.", name=name))
    return redirect(url_for("administration.platforms"))


@administrators_only
def make_link() -> Response:
    """A link by which a platform registers itself, once."""
    browser_session[LINK] = handshakes.ask(session(), Question.REGISTERING, {"by": me().id})
    return redirect(url_for("administration.platforms"))


@administrators_only
def renew_key() -> Response:
    """Sign with a new key from now on."""
    keys.renew(session(), me())
    flash(_("From now on a new key signs. Platforms read it by themselves; the old one is published for two days yet."))
    return redirect(url_for("administration.platforms"))
