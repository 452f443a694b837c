"""A pretend school office: its lists by OneRoster 1.2, as a ZIP of CSV files and by REST."""

from __future__ import annotations

import csv
import io
import secrets
import zipfile
from collections.abc import Iterable, Mapping
from typing import Any

from flask import Flask, Response, abort, redirect, render_template, request
from flask.typing import ResponseReturnValue

from .world import PEOPLE, Course, courses

CLIENT_ID, CLIENT_SECRET = "wide-pin-office", "known to both"


def create_office(address: str) -> Flask:
    """The pretend office at an address."""
    app = Flask(__name__)
    state = app.extensions["office"] = {"courses": courses(), "tokens": set()}
    there: dict[str, Course] = state["courses"]

    @app.get("/")
    def home() -> str:
        return render_template("office.html", courses=there, people=PEOPLE)

    @app.post("/classes/<id_>")
    def change(id_: str) -> ResponseReturnValue:
        students, who = there[id_].students, request.form["person"]
        (students.remove if who in students else students.append)(who)
        return redirect("/")

    @app.get("/lists.zip")
    def lists() -> Response:
        return Response(zipped(there), mimetype="application/zip")

    @app.post("/token")
    def token() -> ResponseReturnValue:
        given = request.authorization
        if given is None or (given.username, given.password) != (CLIENT_ID, CLIENT_SECRET):
            return {"error": "invalid_client"}, 401
        made = secrets.token_urlsafe(12)
        state["tokens"].add(made)
        return {"access_token": made, "token_type": "Bearer", "expires_in": 3600}

    @app.get("/ims/oneroster/rostering/v1p2/<kind>")
    def rest(kind: str) -> ResponseReturnValue:
        if request.headers.get("Authorization", "").removeprefix("Bearer ") not in state["tokens"]:
            abort(401)
        rows = {"users": users_json, "classes": classes_json, "enrollments": enrolments_json}.get(kind)
        if rows is None:
            abort(404)
        first, limit = int(request.args.get("offset", 0)), int(request.args.get("limit", 100))
        return {kind: list(rows(there))[first : first + limit]}

    return app


def users_json(_there: Mapping[str, Course]) -> Iterable[dict[str, Any]]:
    """Everybody, as REST says it."""
    for one in PEOPLE.values():
        role = "teacher" if one.id.startswith("t") else "student"
        yield {
            "sourcedId": one.id,
            "status": "active",
            "enabledUser": True,
            "givenName": one.given,
            "familyName": one.family,
            "username": f"{one.given}.{one.family}".lower(),
            "roles": [{"roleType": "primary", "role": role, "org": {"sourcedId": "o-1"}}],
        }


def classes_json(there: Mapping[str, Course]) -> Iterable[dict[str, Any]]:
    """The classes, as REST says them."""
    return ({"sourcedId": one.id, "status": "active", "title": one.title} for one in there.values())


def enrolments_json(there: Mapping[str, Course]) -> Iterable[dict[str, Any]]:
    """Who is in which class, as REST says it."""
    for course in there.values():
        for role, listed in (("teacher", course.teachers), ("student", course.students)):
            for place, who in enumerate(listed):
                yield {
                    "sourcedId": f"e-{course.id}-{who}",
                    "status": "active",
                    "role": role,
                    "primary": role == "teacher" and place == 0,
                    "class": {"sourcedId": course.id},
                    "user": {"sourcedId": who},
                }


def zipped(there: Mapping[str, Course]) -> bytes:
    """The lists as a ZIP of CSV files."""
    files: dict[str, list[dict[str, Any]]] = {
        "manifest": [
            {"propertyName": name, "value": value}
            for name, value in (
                ("manifest.version", "1.0"),
                ("oneroster.version", "1.2"),
                *((f"file.{name}", "bulk") for name in ("users", "roles", "classes", "enrollments")),
            )
        ],
        "users": [],
        "roles": [],
        "classes": [dict(one) for one in classes_json(there)],
        "enrollments": [],
    }
    for one in users_json(there):
        (role,) = one.pop("roles")
        files["users"].append(one | {"enabledUser": "true"})
        files["roles"].append(
            {"sourcedId": f"r-{one['sourcedId']}", "userSourcedId": one["sourcedId"], "role": role["role"]}
        )
    for one in enrolments_json(there):
        pair = {"classSourcedId": one.pop("class")["sourcedId"], "userSourcedId": one.pop("user")["sourcedId"]}
        files["enrollments"].append(one | {"primary": str(one["primary"]).lower()} | pair)
    content = io.BytesIO()
    with zipfile.ZipFile(content, "w") as archive:
        for name, rows in files.items():
            archive.writestr(f"{name}.csv", written(rows))
    return content.getvalue()


def written(rows: Iterable[Mapping[str, Any]]) -> str:
    """Rows as CSV, with a head."""
    rows = list(rows)
    text = io.StringIO(newline="")
    writer = csv.DictWriter(text, list(rows[0]) if rows else [])
    writer.writeheader()
    writer.writerows(rows)
    return text.getvalue()
