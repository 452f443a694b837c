"""A pretend store of activity (xAPI): takes statements, and shows the last of them."""

from __future__ import annotations

import json
from typing import Any

from flask import Flask, Response, render_template, request
from flask.typing import ResponseReturnValue

KEY, SECRET = "wide-pin-store", "known to both"


def create_store(address: str) -> Flask:
    """The pretend store at an address."""
    app = Flask(__name__)
    statements: dict[str, dict[str, Any]] = {}
    app.extensions["statements"] = statements
    app.extensions["away"] = False

    def is_known() -> bool:
        given = request.authorization
        return given is not None and (given.username, given.password) == (KEY, SECRET)

    @app.get("/")
    def home() -> str:
        return render_template(
            "store.html", statements=[json.dumps(one, indent=1) for one in statements.values()][-20:]
        )

    @app.get("/xapi/about")
    def about() -> ResponseReturnValue:
        return {"version": ["1.0.3"]} if is_known() else ("", 401)

    @app.post("/xapi/statements")
    def take() -> ResponseReturnValue:
        if app.extensions["away"]:
            return "", 503
        if not is_known():
            return "", 401
        if request.headers.get("X-Experience-API-Version") != "1.0.3":
            return "", 400
        for one in request.get_json():
            if one["id"] in statements and statements[one["id"]] != one:
                return "", 409
            statements[one["id"]] = one
        return Response(json.dumps([one["id"] for one in request.get_json()]), mimetype="application/json")

    return app
