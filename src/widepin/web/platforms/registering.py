"""A platform that registers tools by itself: by a link that an administrator of this school has made for it."""

from __future__ import annotations

from flask import current_app, render_template, request
from flask.typing import ResponseReturnValue

from ...documents.language import gettext as _
from ...joining.http_client import NotReached
from ...joining.lti import registering
from ...school.joining import handshakes, platforms
from ...school.models import Person
from ...school.refused import Refused
from ...school.states import Question
from ..addresses import address_of
from ..database import session, sessions
from ..serving.content_policy import allow
from .views import refuse


def register(secret: str) -> ResponseReturnValue:
    """Exchange descriptions with the platform that opened this, in a frame or window of its own."""
    configuration = request.args.get("openid_configuration", "")
    kept = handshakes.answer_for_good(sessions(), Question.REGISTERING, secret)
    if kept is None:
        return refuse(_("This link for registering was used already, or ran out. Make a new one."))
    try:
        found = registering.register(configuration, request.args.get("registration_token", ""), here(), "Wide Pin")
        fields = {
            "name": found.name,
            "issuer": found.issuer,
            "client_id": found.client_id,
            "login_address": found.login_address,
            "token_address": found.token_address,
            "keys_address": found.keys_address,
            "audience": found.audience,
            "deployments": found.deployment,
        }
        described = platforms.read(fields, unsafe=not current_app.config["HTTPS"])
        made = platforms.store(session(), session().get(Person, kept["by"]), described)
    except NotReached as wrong:
        return refuse(_("The platform could not be registered: %(why)s. Make a new link and try again.", why=wrong))
    except Refused as wrong:
        return refuse(_("The platform could not be registered. %(why)s", why=wrong))
    allow("frame-ancestors", found.issuer, configuration)
    return render_template("platforms/registered.html", platform=made)


def here() -> registering.Addresses:
    """Where platforms find this program."""
    return registering.Addresses(
        address_of("home"),
        address_of("platforms.login"),
        address_of("platforms.launch"),
        address_of("platforms.keys"),
    )
