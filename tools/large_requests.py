"""What a megabyte costs: ``bin/widepin tool large_requests``.

Every address that takes something is sent bodies as large as are taken, of kinds that make readers slow: one long word,
a long list, thousands of fields, deep nests, long numbers, rosters of one line or of thousands, files that are no
pictures. Printed: the processor time of each kind, and every request over the aim, with what was answered.
"""

from __future__ import annotations

import argparse
import json
import tempfile
from collections import defaultdict
from collections.abc import Iterator
from pathlib import Path
from time import thread_time
from typing import Any
from urllib.parse import urlencode

from flask.testing import FlaskClient

from widepin.running.mariadb import THROWAWAY, MariaDB
from widepin.running.migrate import migrate
from widepin.school.database import make_engine, make_sessions
from widepin.school.demo.accounts import DEMO_PASSWORD, SHOWN_ACCOUNTS
from widepin.school.demo.loading import load_demo
from widepin.school.people.passwords import Passwords
from widepin.web.app import create_app

from .mutation_trial import BODIES, FIELDS, FORBIDDEN

SIZE = 980_000
AIM = 0.2
"""Bytes of a body, and seconds of a processor that it may cost."""

MORE_FIELDS = (
    "list",
    "made_from",
    "reason",
    "answer",
    "key",
    "work",
    "order",
    "colleague",
    "column",
    "weight",
    "scale",
)

NUMBERS = {"filename": "look/look.css", "key": "midpoint", "part": "model", "token": "no-such-link"}


def many(size: int) -> range:
    """So many that they fill a body, where each takes so many bytes."""
    return range(SIZE // size)


def jsons(endpoint: str) -> Iterator[tuple[str, bytes]]:
    """Bodies of JSON, by kind."""
    word = "a" * SIZE
    key = "k" * 20
    circle = {"make": "circle", "from": ["A", "B"]}
    condition = {"rel": "on", "of": ["A", "B"]}
    kinds: dict[str, Any] = {
        "one word": word,
        "a word in an object": {"text": word, "title": word, "key": word, "operation": word, "document": word},
        "many small numbers": list(range(SIZE // 8)),
        "many keys": {f"k{n}": n for n in range(SIZE // 16)},
        "many operations": {"after": 0, "key": key, "work": {"steps": [circle | {"id": f"c{n}"} for n in many(55)]}},
        "one long id": {"key": key, "after": 0, "operation": {"op": "add", "step": circle | {"id": word}}},
        "many sources": {
            "key": key,
            "after": 0,
            "operation": {"op": "add", "step": circle | {"from": ["A"] * (SIZE // 5)}},
        },
        "many conditions": {"document": {"conditions": [condition] * (SIZE // 40)}},
        "many wanted": {"document": {"wanted": [{"name": f"c{n}", "kind": "circle"} for n in many(40)]}},
        "a long condition": {"document": {"conditions": [{"rel": "on", "of": ["A B " * (SIZE // 4), "B"]}]}},
        "many frames": {"frames": [{"shown": n, "text": "x"} for n in many(26)]},
        "many claims": {"claims": [{"rel": "equal_length", "of": [["A", "B"], ["A", "B"]]}] * (SIZE // 60)},
    }
    for name, value in kinds.items():
        yield name, json.dumps(value).encode()[:1_000_000]
    yield "a deep nest", b"[" * (SIZE // 2) + b"]" * (SIZE // 2)
    yield "a deep object", b'{"a":' * (SIZE // 6) + b"1" + b"}" * (SIZE // 6)
    yield "a long number", b'{"after":' + b"9" * SIZE + b"}"
    yield "many long numbers", b"[" + b",".join([b"9" * 4000] * (SIZE // 4001)) + b"]"
    if endpoint in BODIES:
        yield "the right one with a long text", json.dumps(BODIES[endpoint] | {"more": word}).encode()


def texts() -> dict[str, str]:
    """What may be typed into a field, by kind."""
    return {
        "one long word": "a" * SIZE,
        "one long line": "Ilse Marran, " * (SIZE // 13),
        "many lines": "Marran, Ilse\n" * (SIZE // 13),
        "many different lines": "\n".join(f"Name{n} Of{n}" for n in range(SIZE // 16)),
        "many columns": ";".join(["x"] * (SIZE // 2)),
        "quotes": '"' * SIZE,
        "spaces": " " * SIZE + "x",
        "digits": "1" * SIZE,
        "brackets": "([{" * (SIZE // 3),
        "new lines": "\n" * SIZE,
        "accents": "é́" * (SIZE // 5),
        "json": json.dumps({"steps": [{"id": "c", "make": "circle", "from": ["A", "B"]}] * (SIZE // 60)}),
        "a deep nest": "[" * SIZE,
    }


def forms() -> Iterator[tuple[str, dict[str, Any]]]:
    """Forms, by kind."""
    for kind, text in texts().items():
        for names in (FIELDS, MORE_FIELDS):
            share = max(1, len(names))
            yield f"every field: {kind}", dict.fromkeys(names, text[: SIZE // share // (2 if kind == "accents" else 1)])
        for name in (*FIELDS, *MORE_FIELDS):
            if name in ("list", "text", "name", "steps", "answer", "made_from", "scale", "words"):
                yield f"{name}: {kind}", {name: text}
    yield "many fields", {f"f{n}": "1" for n in range(900)}
    yield "one field many times", {"answer": ["A"] * 900, "step": ["c"] * 900}


def files() -> Iterator[tuple[str, bytes]]:
    """Uploads, by kind."""
    for kind, text in texts().items():
        yield kind, text.encode()[:SIZE]
    yield "no text", bytes(range(256)) * (SIZE // 256)
    yield "a picture's beginning", b"\xff\xd8\xff\xe0" + bytes(SIZE)
    yield "a packed file's beginning", b"PK\x03\x04" + bytes(SIZE)


def addresses(client: FlaskClient) -> list[tuple[str, str]]:
    """Every address that takes something, with 1 for each number."""
    found = []
    for rule in client.application.url_map.iter_rules():
        if "POST" in (rule.methods or ()) and rule.endpoint not in FORBIDDEN:
            path = rule.rule
            for name in rule.arguments:
                for converter in ("int:", "path:", ""):
                    path = path.replace(f"<{converter}{name}>", str(NUMBERS.get(name, 1)))
            found.append((rule.endpoint, path))
    return sorted(found)


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    asked.add_argument("--only", default="", help="addresses whose name holds this")
    wanted = asked.parse_args()
    with tempfile.TemporaryDirectory() as folder:
        server = MariaDB(Path(folder) / "db", THROWAWAY)
        try:
            url = server.start()
            migrate(url)
            engine = make_engine(url)
            with make_sessions(engine)() as session:
                load_demo(session, passwords=Passwords(1, 64), most_per_class=6)
                session.commit()
            app = create_app({"DATABASE_URL": url, "SECRET_KEY": "k", "DEMO": True, "PASSWORDS": Passwords(1, 64),
                              "WTF_CSRF_ENABLED": False})  # fmt: skip
            try_out(app, wanted.only)
        finally:
            server.stop()


def try_out(app: Any, only: str) -> None:
    """Send everything everywhere, as somebody whom the address is for."""
    clients = []
    for login, _name in SHOWN_ACCOUNTS:
        client = app.test_client()
        client.post("/sign-in", data={"login": login, "password": DEMO_PASSWORD})
        clients.append(client)
    slowest: dict[str, float] = defaultdict(float)
    over: list[tuple[float, str, str, int]] = []
    count = 0

    def ask(endpoint: str, path: str, kind: str, **sent: Any) -> None:
        nonlocal count
        begun = thread_time()
        status = asking.post(path, **sent).status_code
        took, count = thread_time() - begun, count + 1
        slowest[kind] = max(slowest[kind], took)
        if took > AIM:
            over.append((took, endpoint, kind, status))

    for endpoint, path in addresses(clients[0]):
        if only not in endpoint:
            continue
        # Somebody whom the address is for; whoever is sent away costs nothing.
        asking = next((one for one in clients if one.post(path).status_code not in (302, 404)), clients[-1])
        for kind, body in jsons(endpoint):
            ask(endpoint, path, f"JSON, {kind}", data=body, content_type="application/json")
        for kind, form in forms():
            body = urlencode(form, doseq=True).encode()
            if len(body) < 1_000_000:
                ask(endpoint, path, f"form, {kind}", data=body, content_type="application/x-www-form-urlencoded")
        for kind, content in files():
            for name in ("file", "photo"):
                head = f'--b\r\nContent-Disposition: form-data; name="{name}"; filename="a.csv"\r\n\r\n'.encode()
                ask(endpoint, path, f"file, {kind}", data=head + content + b"\r\n--b--\r\n",
                    content_type="multipart/form-data; boundary=b")  # fmt: skip
        print(f"{endpoint}: {count} requests so far", flush=True)
    for kind, took in sorted(slowest.items(), key=lambda one: -one[1])[:20]:
        print(f"{took:7.3f} s  {kind}")
    print(f"{len(over)} of {count} over {AIM} s")
    for took, endpoint, kind, status in sorted(over, reverse=True)[:60]:
        print(f"{took:7.3f} s  {status}  {endpoint}  {kind}")


if __name__ == "__main__":
    main()
