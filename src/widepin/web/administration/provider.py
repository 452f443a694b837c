"""Signing in with the school's accounts, as an administrator sets it up."""

from __future__ import annotations

from flask import current_app, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from werkzeug.wrappers import Response

from ...documents.language import gettext as _
from ...joining import openid
from ...joining.http_client import NotReached
from ...school.joining import provider
from ...school.refused import Refused
from ..access import administrators_only, me
from ..addresses import address_of
from ..database import session

FIELDS = (
    *("name", "issuer", "client_id", "client_secret", "claim", "matches"),
    *("groups_claim", "teacher_groups", "student_groups"),
)


@administrators_only
def form() -> str:
    """The provider, if one is set, and what it needs to know of this program."""
    return show(provider.as_typed(provider.present(session())))


def show(typed: dict[str, str], trouble: str | None = None) -> str:
    """The form for the provider."""
    return render_template(
        "administration/provider.html",
        typed=typed,
        present=provider.present(session()),
        back=address_of("single_sign_on.back"),
        signed_out=address_of("single_sign_on.signed_out"),
        home=address_of("signin.form"),
        trouble=trouble,
    )


@administrators_only
def store() -> ResponseReturnValue:
    """Set the provider, once it has described itself."""
    fields = {name: request.form.get(name, "")[:2000] for name in FIELDS}
    unsafe = not current_app.config["HTTPS"]
    try:
        provider.check({name: value.strip() for name, value in fields.items()}, unsafe)
        session().commit()  # nothing is held while the provider is waited for
        described = openid.describe(fields["issuer"].strip())
        stored = provider.store(session(), me(), fields, described, unsafe)
    except Refused as wrong:
        return show(fields, str(wrong)), 422
    except NotReached as wrong:
        return show(fields, _("The provider did not answer as one: %(why)s.", why=wrong)), 422
    flash(
        _(
            "The sign-in page has a button “%(name)s” now. Try it in another browser before you tell anybody.",
            name=stored.name,
        )
    )
    return redirect(url_for("administration.provider"))


@administrators_only
def remove() -> Response:
    """Let people sign in with the school's accounts no more."""
    provider.remove(session(), me())
    flash(_("Nobody signs in with the school’s accounts any more. Who has no password or codes needs some."))
    return redirect(url_for("administration.provider"))
