"""A pretend learning platform (LTI 1.3 with Advantage): two courses, their people, a column of scores for each link.

It can go wrong on purpose, as a real one does: ``Platform.faults``.
"""

from __future__ import annotations

import json
import secrets
import time
from collections.abc import Callable
from dataclasses import asdict, dataclass, field
from pathlib import Path
from typing import Any
from urllib.parse import urlencode

from flask import Flask, Response, abort, redirect, render_template, request, session, url_for
from flask.typing import ResponseReturnValue

from ..http_client import NotReached, ask
from ..lti import words
from ..lti.registering import PLATFORM, TOOL
from ..tokens import BadToken, new_key, public_keys, signed, verified
from .world import PEOPLE, Course, Link, courses

CLIENT_ID, DEPLOYMENT = "wide-pin", "school"

FAULTS = {
    "signature": "sign with a key that nobody has published",
    "expired": "send tokens that ran out an hour ago",
    "clock": "have a clock that is nine minutes ahead",
    "deployment": "name a deployment that is unknown",
    "audience": "address another tool",
    "nonce": "answer with an old nonce",
    "away": "answer every service with status 500",
    "gone": "have forgotten the first course",
}
"""What can go wrong on purpose."""

PAGE = 3
"""Members on a page of a list."""


@dataclass
class Platform:
    """What the platform knows. ``clock``: seconds of Unix time; ``tool``: the addresses of the tool, once registered;
    ``file``: where its courses are kept from one start to the next, if they are.
    """

    address: str
    clock: Callable[[], float] = time.time
    tool: dict[str, str] = field(default_factory=dict)
    key: tuple[str, str] = field(default_factory=new_key)
    courses: dict[str, Course] = field(default_factory=courses)
    faults: set[str] = field(default_factory=set)
    tokens: dict[str, set[str]] = field(default_factory=dict)
    requests: list[str] = field(default_factory=list)
    last: dict[str, str] = field(default_factory=dict)
    file: Path | None = None

    def now(self) -> int:
        """The time on its clock."""
        return int(self.clock()) + (540 if "clock" in self.faults else 0)

    def link(self, number: int) -> tuple[Course, Link]:
        """A link and its course; 404 for one that there is not."""
        found = next((course for course in self.courses.values() if number in course.links), None)
        if found is None:
            abort(404)
        return found, found.links[number]

    def save(self) -> None:
        """Keep the courses."""
        if self.file is not None:
            self.file.write_text(json.dumps({one.id: asdict(one) for one in self.courses.values()}))

    def load(self) -> None:
        """Take up the courses that were kept."""
        if self.file is not None and self.file.exists():
            for id_, kept in json.loads(self.file.read_text()).items():
                links = {int(number): Link(**link) for number, link in kept.pop("links").items()}
                self.courses[id_] = Course(**kept, links=links)


def create_platform(
    address: str, tool_address: str = "", clock: Callable[[], float] = time.time, file: Path | None = None
) -> Flask:
    """The pretend platform at an address. ``tool_address``: of the tool, where it is registered already."""
    app = Flask(__name__)
    app.secret_key = secrets.token_hex(16)
    app.config["SESSION_COOKIE_NAME"] = "platform"
    state = Platform(address.rstrip("/"), clock, file=file)
    state.load()
    if tool_address:
        base = tool_address.rstrip("/")
        state.tool = {"login": f"{base}/lti/login", "launch": f"{base}/lti/launch", "keys": f"{base}/lti/keys"}
    app.extensions["platform"] = state
    _pages(app, state)
    _launches(app, state)
    _services(app, state)
    _registering(app, state)

    @app.after_request
    def keep(response: Response) -> Response:
        if request.method == "POST":
            state.save()
        return response

    return app


def _pages(app: Flask, state: Platform) -> None:
    """What its people see."""

    @app.get("/")
    def home() -> str:
        return render_template("platform.html", state=state, people=PEOPLE, faults=FAULTS, me=session.get("me"))

    @app.post("/sign-in")
    def sign_in() -> ResponseReturnValue:
        session["me"] = request.form["person"]
        return redirect(request.form.get("next") or "/")

    @app.get("/courses/<id_>")
    def course(id_: str) -> str:
        found, me = state.courses[id_], session.get("me", "")
        return render_template(
            "course.html",
            course=found,
            people=PEOPLE,
            me=me,
            teaches=me in found.teachers,
            framed="framed" in request.args,
        )

    @app.post("/faults")
    def set_faults() -> ResponseReturnValue:
        state.faults = set(request.form.getlist("fault"))
        if "new_key" in request.form:
            state.key = new_key()
        if "gone" in state.faults:
            state.courses.pop("c-1", None)
        return redirect("/")

    @app.post("/courses/<id_>/members")
    def leave_or_join(id_: str) -> ResponseReturnValue:
        found, who = state.courses[id_], request.form["person"]
        (found.students.remove if who in found.students else found.students.append)(who)
        return redirect(url_for("course", id_=id_))


def _launches(app: Flask, state: Platform) -> None:
    """Sending somebody to the tool. Source: Security Framework 1.0, section 5.1.1."""

    @app.get("/courses/<id_>/open/<int:number>")
    def open_link(id_: str, number: int) -> ResponseReturnValue:
        return redirect(_begin(state, f"link {id_} {number}"))

    @app.get("/courses/<id_>/choose")
    def choose(id_: str) -> ResponseReturnValue:
        return redirect(_begin(state, f"choose {id_} 0"))

    @app.route("/auth", methods=["GET", "POST"])
    def auth() -> ResponseReturnValue:
        said, me = request.values, session.get("me", "")
        wrong = _wrong_question(state, said)
        if wrong:
            return wrong, 400
        fields = {"state": said["state"]}
        if said["login_hint"] != me:
            fields |= {"error": "login_required", "error_description": "You are not signed in to the platform."}
        else:
            fields["id_token"] = _id_token(state, me, said["lti_message_hint"], said["nonce"])
        state.last = dict(fields)
        return render_template("send.html", address=said["redirect_uri"], fields=fields)

    @app.post("/chosen/<id_>")
    def chosen(id_: str) -> ResponseReturnValue:
        keys = ask("GET", state.tool["keys"]).json
        claims = verified(request.form["JWT"], keys)
        if claims.get("iss") != CLIENT_ID or state.address not in claims.get("aud", []):
            abort(400)
        if claims.get(words.DATA) != f"data of {id_}" or claims.get(words.DEPLOYMENT) != DEPLOYMENT:
            abort(400)
        for item in claims[words.ITEMS]:
            number = 1 + max((n for one in state.courses.values() for n in one.links), default=0)
            due = item.get("submission", {}).get("endDateTime", "")
            state.courses[id_].links[number] = Link(number, item["title"], item.get("custom", {}), due)
        return redirect(url_for("course", id_=id_))


def _begin(state: Platform, hint: str) -> str:
    said = {
        "iss": state.address,
        "client_id": CLIENT_ID,
        "login_hint": session.get("me", ""),
        "lti_message_hint": hint,
        "target_link_uri": state.tool["launch"],
        "lti_deployment_id": DEPLOYMENT,
    }
    return f"{state.tool['login']}?{urlencode(said)}"


def _wrong_question(state: Platform, said: Any) -> str:
    """What is wrong with the question who somebody is; "" for nothing."""
    wanted = {
        "scope": "openid",
        "response_type": "id_token",
        "response_mode": "form_post",
        "prompt": "none",
        "client_id": CLIENT_ID,
        "redirect_uri": state.tool.get("launch", ""),
    }
    wrong = [name for name, value in wanted.items() if said.get(name) != value]
    wrong += [name for name in ("state", "nonce", "login_hint", "lti_message_hint") if not said.get(name)]
    return ", ".join(wrong)


def _id_token(state: Platform, me: str, hint: str, nonce: str) -> str:
    kind, course_id, number = hint.split()
    course, who, at = state.courses[course_id], PEOPLE[me], state.now()
    base = f"{state.address}/courses/{course.id}"
    role = "Instructor" if me in course.teachers else "Learner"
    claims: dict[str, Any] = {
        "iss": state.address,
        "sub": who.id,
        "aud": ["another-tool"] if "audience" in state.faults else [CLIENT_ID],
        "iat": at - 4000 if "expired" in state.faults else at,
        "exp": at - 3600 if "expired" in state.faults else at + 300,
        "nonce": "an-old-one" if "nonce" in state.faults else nonce,
        "name": who.name,
        "given_name": who.given,
        "family_name": who.family,
        words.VERSION: "1.3.0",
        words.DEPLOYMENT: "elsewhere" if "deployment" in state.faults else DEPLOYMENT,
        words.ROLES: [f"{words.MEMBERSHIP}#{role}"],
        words.CONTEXT: {"id": course.id, "title": course.title, "label": course.id},
        words.TARGET: state.tool["launch"],
        words.MEMBERS: {"context_memberships_url": f"{base}/memberships", "service_versions": ["2.0"]},
    }
    grades: dict[str, Any] = {"scope": [words.LINE_ITEMS, words.SCORES], "lineitems": f"{base}/lineitems"}
    if kind == "choose":
        claims |= {
            words.MESSAGE_TYPE: words.CHOOSING,
            words.SETTINGS: {
                "deep_link_return_url": f"{state.address}/chosen/{course.id}",
                "accept_types": ["ltiResourceLink"],
                "accept_presentation_document_targets": ["window"],
                "accept_multiple": True,
                "data": f"data of {course.id}",
            },
        }
    else:
        link = course.links[int(number)]
        custom = {
            name: value.replace("$ResourceLink.submission.endDateTime", link.due) for name, value in link.custom.items()
        }
        grades["lineitem"] = f"{base}/lineitems/{link.number}?v=1"
        claims |= {
            words.MESSAGE_TYPE: words.LAUNCH,
            words.LINK: {"id": f"link-{link.number}", "title": link.title},
            words.CUSTOM: custom,
        }
    claims[words.GRADES] = grades
    kid, pem = state.key
    return signed(claims, kid, new_key()[1] if "signature" in state.faults else pem)


def _services(app: Flask, state: Platform) -> None:
    """What the tool asks between launches, with tokens of its own."""

    @app.before_request
    def note() -> ResponseReturnValue | None:
        state.requests.append(f"{request.method} {request.path}")
        is_service = request.path == "/token" or "/memberships" in request.path or "/lineitems" in request.path
        return ("", 500) if "away" in state.faults and is_service else None

    @app.get("/keys")
    def keys() -> ResponseReturnValue:
        return public_keys([state.key]), {"Date": _http_date(state.now())}

    @app.post("/token")
    def token() -> ResponseReturnValue:
        said = request.form
        try:
            claims = verified(said.get("client_assertion", ""), ask("GET", state.tool["keys"]).json)
        except (BadToken, NotReached) as wrong:
            return {"error": "invalid_client", "error_description": str(wrong)}, 401
        is_right = claims.get("iss") == claims.get("sub") == CLIENT_ID and claims.get("aud") == f"{state.address}/token"
        is_now = claims.get("exp", 0) > state.now() - 60 and claims.get("jti")
        if not is_right or not is_now or said.get("grant_type") != "client_credentials":
            return {"error": "invalid_client"}, 401
        made = secrets.token_urlsafe(16)
        state.tokens[made] = set(said["scope"].split())
        return {"access_token": made, "token_type": "Bearer", "expires_in": 3600, "scope": said["scope"]}

    def may(scope: str) -> None:
        given = request.headers.get("Authorization", "").removeprefix("Bearer ")
        if scope not in state.tokens.get(given, ()):
            abort(401)

    @app.get("/courses/<id_>/memberships")
    def memberships(id_: str) -> ResponseReturnValue:
        may(words.READ_MEMBERS)
        course = state.courses.get(id_) or abort(404)
        everybody = [(one, "Instructor") for one in course.teachers] + [(one, "Learner") for one in course.students]
        first = int(request.args.get("from", 0))
        listed = [
            {
                "status": "Active",
                "user_id": one,
                "name": PEOPLE[one].name,
                "given_name": PEOPLE[one].given,
                "family_name": PEOPLE[one].family,
                "roles": [role],
            }
            for one, role in everybody[first : first + PAGE]
        ]
        headers = {"Content-Type": words.MEMBERS_TYPE}
        if first + PAGE < len(everybody):
            headers["Link"] = f'<{state.address}/courses/{id_}/memberships?from={first + PAGE}>; rel="next"'
        body = {"id": request.url, "context": {"id": id_, "title": course.title}, "members": listed}
        return json.dumps(body), 200, headers

    @app.post("/courses/<id_>/lineitems/<int:number>/scores")
    def scores(id_: str, number: int) -> ResponseReturnValue:
        may(words.SCORES)
        if id_ not in state.courses:
            abort(404)
        _course, link = state.link(number)
        if request.content_type != words.SCORE_TYPE:
            abort(415)
        said = json.loads(request.get_data())
        before = link.results.get(said["userId"])
        if before is not None and str(before["timestamp"]) > said["timestamp"]:
            return "", 409  # a newer one has come already
        if said["userId"] not in state.courses[id_].students:
            abort(404)
        link.results[said["userId"]] = said
        return "", 204


def _http_date(at: int) -> str:
    return time.strftime("%a, %d %b %Y %H:%M:%S GMT", time.gmtime(at))


def _registering(app: Flask, state: Platform) -> None:
    """Registering tools by itself. Source: Dynamic Registration 1.0."""

    @app.get("/.well-known/openid-configuration")
    def configuration() -> dict[str, Any]:
        return {
            "issuer": state.address,
            "authorization_endpoint": f"{state.address}/auth",
            "token_endpoint": f"{state.address}/token",
            "jwks_uri": f"{state.address}/keys",
            "registration_endpoint": f"{state.address}/register",
            PLATFORM: {"product_family_code": "The pretend platform", "version": "1"},
        }

    @app.post("/register")
    def register() -> ResponseReturnValue:
        said = request.get_json()
        if request.headers.get("Authorization") != "Bearer one-time":
            abort(401)
        state.tool = {
            "login": said["initiate_login_uri"],
            "launch": said["redirect_uris"][0],
            "keys": said["jwks_uri"],
        }
        return {"client_id": CLIENT_ID, TOOL: said[TOOL] | {"deployment_id": DEPLOYMENT}}

    @app.post("/tools")
    def add_tool() -> ResponseReturnValue:
        here = f"{state.address}/.well-known/openid-configuration"
        question = urlencode({"openid_configuration": here, "registration_token": "one-time"})
        return redirect(f"{request.form['address']}?{question}")
