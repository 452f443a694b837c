"""The description of the interface for programs, as other programs read it.

Source: OpenAPI Specification 3.1.0, whose schemas are JSON Schema (draft 2020-12).
"""

from __future__ import annotations

import re
from functools import cache
from typing import Any

from pydantic import TypeAdapter

from ...documents.reading import JsonObject
from ...school.states import Scope
from .answers import ErrorAnswer
from .endpoints import ENDPOINTS, Endpoint

TEMPLATE = "#/components/schemas/{model}"

REFUSALS = {
    "401": "no token that holds",
    "403": "the token may not do that",
    "404": "not there, or not yours",
    "409": "something else was changed at the same moment",
    "422": "something of what was sent is wrong",
    "429": "too many requests, or the one before is still worked on",
}


@cache
def openapi(address: str) -> JsonObject:
    """The description of all endpoints. ``address``: of the server, with a slash at its end."""
    schemas: dict[str, Any] = {}

    def content(kind: Any, mode: Any) -> JsonObject:
        schema = TypeAdapter(kind).json_schema(ref_template=TEMPLATE, mode=mode)
        schemas.update(schema.pop("$defs", {}))
        if "title" in schema and "properties" in schema:
            schemas[schema["title"]] = schema
            schema = {"$ref": TEMPLATE.format(model=schema["title"])}
        return {"application/json": {"schema": schema}}

    paths: dict[str, Any] = {}
    refusal = content(ErrorAnswer, "serialization")
    for one in ENDPOINTS:
        operation: JsonObject = {
            "operationId": one.name,
            "summary": one.summary,
            "security": [{"token": [one.scope.value]}],
            "parameters": _parameters(one),
            "responses": {str(one.status): {"description": one.summary, "content": content(one.gives, "serialization")}}
            | {code: {"description": words, "content": refusal} for code, words in REFUSALS.items()},
        }
        if one.takes is not None:
            operation["requestBody"] = {"required": True, "content": content(one.takes, "validation")}
        paths.setdefault(re.sub(r"<int:(\w+)>", r"{\1}", one.path), {})[one.method.lower()] = operation
    return {
        "openapi": "3.1.0",
        "info": {
            "title": "Wide Pin",
            "version": "1",
            "description": "Tasks, assignments, works, verdicts and proofs, with tokens that teachers make."
            f" Scopes: {', '.join(Scope)}.",
        },
        "servers": [{"url": f"{address.rstrip('/')}/api/v1"}],
        "paths": paths,
        "components": {
            "schemas": schemas,
            "securitySchemes": {"token": {"type": "http", "scheme": "bearer"}},
        },
    }


def _parameters(one: Endpoint) -> list[JsonObject]:
    return [
        {"name": name, "in": "path", "required": True, "schema": {"type": "integer", "minimum": 0}}
        for name in re.findall(r"<int:(\w+)>", one.path)
    ]
