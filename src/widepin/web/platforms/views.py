"""Whoever comes from a learning platform: who that is, and on to the task that the link leads to."""

from __future__ import annotations

import hmac
import secrets
from dataclasses import asdict
from functools import partial
from time import time
from typing import Any
from urllib.parse import urlencode

from flask import current_app, make_response, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from flask_login import current_user
from werkzeug.wrappers import Response

from ...documents.language import gettext as _
from ...documents.reading import JsonObject
from ...joining.http_client import NotReached
from ...joining.lti import launches, services
from ...joining.tokens import BadToken, KeySet, UnknownKey
from ...school.joining import courses, handshakes, people, platforms
from ...school.joining import keys as own_keys
from ...school.models import Identity, Platform
from ...school.people.accounts import digest
from ...school.refused import Refused
from ...school.states import Question, Role
from ..access import begin_session, end_session, me
from ..addresses import address_of
from ..database import session, sessions
from ..jobs import background, joining
from ..serving import logs
from ..serving.content_policy import allow

LONGEST_WAY = 3600
"""Seconds for which a browser is known between asking a platform and being let in."""

LOGIN_FIELDS = ("iss", "login_hint", "target_link_uri", "lti_message_hint", "lti_deployment_id", "client_id")


def keys() -> Response:
    """The public keys of this program, for platforms to read."""
    response = make_response(own_keys.published(session()))
    response.cache_control.public = True
    response.cache_control.max_age = 600
    return response


def about() -> ResponseReturnValue:
    """Somebody who opens the address of launches without coming from a platform."""
    return refuse(_("This address is for learning platforms. Open the task inside your course there."), 404)


# -- asking the platform who comes --------------------------------------------------------------------------


def login() -> ResponseReturnValue:
    """A platform says that somebody is about to come; ask it who, by way of their browser.

    A page in a frame of the platform cannot keep a cookie, since it is a third party's there: it opens a window.
    """
    asked = {name: value for name in LOGIN_FIELDS if (value := request.values.get(name, ""))}
    platform = platforms.named(session(), asked.get("iss", ""), asked.get("client_id", ""))
    if platform is None:
        return refuse(
            _("This learning platform is not registered here. Whoever looks after the school can do that."), 400
        )
    if not asked.get("login_hint"):
        return refuse(_("The learning platform did not say who comes. Open the link there again."), 400)
    if request.headers.get("Sec-Fetch-Dest") in ("iframe", "frame"):
        allow("frame-ancestors", platform.issuer, platform.login_address)
        address = f"{url_for('platforms.login')}?{urlencode(asked)}"
        return render_template("platforms/new_window.html", address=address)
    nonce, browser = secrets.token_urlsafe(24), secrets.token_urlsafe(24)
    kept = {"platform": platform.id, "nonce": nonce, "browser": digest(browser)}
    state = handshakes.ask(session(), Question.LAUNCH, kept)
    address = launches.login_address(platforms.tool_of(platform), asked, address_of("platforms.launch"), state, nonce)
    response = redirect(address)
    response.set_cookie(
        cookie_of(state),
        browser,
        max_age=LONGEST_WAY,
        path="/lti",
        httponly=True,
        samesite="Lax",
        secure=current_app.config["HTTPS"],
    )
    return response


def cookie_of(state: str) -> str:
    """The cookie by which a browser is known as the one that a question began in: one for each, since the forms of
    other sites come without any, and two windows may be on their way at once.
    """
    return f"launch-{digest(state)[:12]}"


def launch() -> ResponseReturnValue:
    """A platform's answer. Forms of other sites come without cookies, so that the browser sends it once more."""
    state = request.form.get("state", "")
    if "again" not in request.form and cookie_of(state) not in request.cookies:
        fields = {name: request.form.get(name, "") for name in ("state", "id_token", "error", "error_description")}
        return render_template("platforms/again.html", fields=fields)
    kept = handshakes.answer_for_good(sessions(), Question.LAUNCH, state)
    if kept is None:
        return refuse(_("This way in was used already, or took too long. Open the link in your course again."))
    kept["cookie"] = cookie_of(state)
    if not is_browser_of(kept):
        return refuse(
            _("This did not begin in this browser, or it keeps no cookies. Open the link in your course again.")
        )
    platform = session().get(Platform, kept["platform"])
    if platform is None:
        return refuse(_("This learning platform is not registered here any more."))
    if request.form.get("error"):
        said = request.form.get("error_description") or request.form["error"]
        return refuse(_("The learning platform did not let you through: %(words)s", words=said[:200]))
    try:
        found = read(platform, request.form.get("id_token", ""), kept["nonce"])
    except (launches.BadLaunch, BadToken) as wrong:
        return refuse(_("What the learning platform sent is refused: %(why)s. Tell whoever looks after it.", why=wrong))
    except NotReached as wrong:
        return refuse(
            _("The keys of the learning platform could not be read: %(why)s. Try again in a minute.", why=wrong), 503
        )
    return arrive(platform, found, {"browser": kept["browser"], "cookie": kept["cookie"]})


def is_browser_of(kept: JsonObject) -> bool:
    """Whether this browser is the one that a question began in."""
    return hmac.compare_digest(str(kept.get("browser", "")), digest(request.cookies.get(str(kept["cookie"]), "")))


def read(platform: Platform, token: str, nonce: str) -> launches.Launch:
    """The launch that a token is; where it is signed with a key that is not known, the platform's keys are read anew.

    Raises BadLaunch, BadToken and NotReached.
    """
    tool, address, known = platforms.tool_of(platform), platform.keys_address, platform.keys
    if known:
        try:
            return launches.read_launch(token, tool, known, nonce, time())
        except UnknownKey:
            pass
    session().rollback()  # nothing is held while another system is waited for
    fresh: KeySet = services.published_keys(address)[0]
    found = launches.read_launch(token, tool, fresh, nonce, time())
    platform.keys = dict(fresh)
    return found


def refuse(words: str, status: int = 403) -> ResponseReturnValue:
    """A page that says why nobody came in; what it was is in the log."""
    logs.security("launch", outcome="refused", words=words)
    return render_template("platforms/refused.html", words=words), status


# -- who it is -----------------------------------------------------------------------------------------------


def arrive(platform: Platform, found: launches.Launch, browser: JsonObject) -> ResponseReturnValue:
    """Somebody whom a platform vouches for: known here, or for the first time. ``browser``: by what it is known."""
    role = people.role_of(found.member)
    if role is None:
        return refuse(_("Your role in this course is neither that of a teacher nor that of a student."))
    if found.choosing is not None and role is not Role.TEACHER:
        return refuse(_("Only teachers choose tasks for a course."))
    source, subject = platforms.source_of(platform), found.member.subject
    identity = people.known(session(), source, [subject], role).get(subject)
    if identity is None or identity.seen is None:
        kept = {"platform": platform.id, "launch": asdict(found), **browser}
        secret = handshakes.ask(session(), Question.FIRST_VISIT, kept)
        return redirect(url_for("platforms.first_visit", secret=secret))
    people.keep_name(identity.person, found.member)
    return enter(platform, found, identity)


def first_visit(secret: str) -> ResponseReturnValue:
    """Whether somebody who comes for the first time has an account here already."""
    kept = handshakes.look(session(), Question.FIRST_VISIT, secret)
    if kept is None or not is_browser_of(kept):
        return refuse(_("This took too long. Open the link in your course again."))
    platform, found = session().get_one(Platform, kept["platform"]), launch_in(kept)
    role = people.role_of(found.member)
    return render_template(
        "platforms/first_visit.html",
        platform=platform,
        name=people.name_of(found.member),
        secret=secret,
        mine=current_user.is_authenticated and me().role is role,
        teaches=role is Role.TEACHER,
    )


def sign_in_first(secret: str) -> ResponseReturnValue:
    """Sign in with an account that is here already, and come back; whoever is signed in so far is another."""
    end_session()
    return redirect(url_for("signin.form", next=url_for("platforms.first_visit", secret=secret)))


def launch_in(kept: JsonObject) -> launches.Launch:
    """A launch as it was kept."""
    said: dict[str, Any] = dict(kept["launch"])
    return launches.Launch(**(said | {"member": launches.Member(**said["member"])}))


def go_on(secret: str) -> ResponseReturnValue:
    """As somebody new, or as who is signed in here."""
    kept = handshakes.look(session(), Question.FIRST_VISIT, secret)
    if kept is None or not is_browser_of(kept):
        return refuse(_("This took too long. Open the link in your course again."))
    platform, found = session().get_one(Platform, kept["platform"]), launch_in(kept)
    role = people.role_of(found.member)
    assert role is not None
    try:
        identity = people.account(session(), platforms.source_of(platform), found.member, role)
        if request.form.get("as") == "mine" and current_user.is_authenticated:
            people.join(session(), identity, me())
    except Refused as wrong:
        return refuse(str(wrong))
    answered = enter(platform, found, identity)
    if make_response(answered).status_code < 400:
        handshakes.answer(session(), Question.FIRST_VISIT, secret)
    return answered


def enter(platform: Platform, found: launches.Launch, identity: Identity) -> ResponseReturnValue:
    """Sign somebody in, and on to the task, the class, or the choice of tasks."""
    person = identity.person
    if person.left is not None:
        return refuse(_("Your account here is not in use any more. Ask whoever looks after the school."))
    try:
        with session().begin_nested():
            course = courses.course_of(session(), platform, found, person)
            task = courses.assignment_of(session(), course, found) if found.choosing is None else None
    except Refused as wrong:
        return refuse(str(wrong))
    people.came(identity)
    begin_session(person)
    logs.security("launch", outcome="succeeded")
    if person.is_teacher:
        background.after_this(partial(joining.take_over_soon, course.id))
    if found.choosing is not None:
        kept = {
            "platform": platform.id,
            "deployment": found.deployment,
            "settings": dict(found.choosing),
            "class": course.class_id,
        }
        return redirect(url_for("platforms.choose", secret=handshakes.ask(session(), Question.CHOOSING, kept)))
    if task is not None:
        endpoint = "classes.assignment" if person.is_teacher else "tasks.board"
        return redirect(url_for(endpoint, assignment_id=task.id))
    if person.is_teacher:
        return redirect(url_for("classes.school_class", class_id=course.class_id))
    return redirect(url_for("tasks.index"))
