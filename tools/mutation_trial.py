"""Requests that nobody meant: ``bin/widepin tool mutation_trial --requests 100000``.

Every address of the app is asked by everybody, with numbers, fields, bodies and headers that are changed at random from
what pages and scripts send: other types, huge and tiny values, half characters, deep nests, missing and foreign fields,
bytes that are no JSON at all. Printed: what was answered, and every request that broke something (500 or more) or took
more than five seconds, so that it can be sent again.
"""

from __future__ import annotations

import argparse
import json
import random
import threading
from collections import Counter
from copy import deepcopy
from time import perf_counter
from typing import Any
from urllib.parse import quote, urlencode

from werkzeug.routing import Rule

from widepin.web.app import create_app

from .serving import Browser, Served, served

THREADS, SLOW = 8, 5.0

WEIRD: list[Any] = [
    None, True, False, 0, -1, 1, 2**31, 2**63, 10**400, -0.0, 1e308, 1e-320, "", " ", "x", "\x00", "é" * 300, "9" * 5000,
    "-1", "1e999", "NaN", "2026-01-01T00:00+99:99", "0001-01-01T00:00+14:00", "2031-02-03T04:05", "\ud800", "\U0001f600",
    "<script>alert(1)</script>", "'; DROP TABLE person; --", "../../etc/passwd", "a\r\nSet-Cookie: x=1", "//elsewhere/",
    [], {}, [[]], {"": {}}, ["A", "B"], [0, 0], "A", "circle", "add", "free_point", "undo", "yes", "break", "model", "given",
]  # fmt: skip

BODIES: dict[str, Any] = {
    "tasks.store": {"key": "a-key-of-a-test", "after": 0, "operation": {"op": "add", "step": {"id": "z1", "make": "circle", "from": ["A", "B"], "label": "rim", "hidden": False}}},
    "tasks.import_steps": {"after": 0, "work": {"steps": [{"id": "y1", "make": "circle", "from": ["A", "B"]}, {"id": "y2", "make": "point_on", "from": ["y1"], "at": [1, 2]}]}},
    "tasks.here": {},
    "sheets.save": {
        "document": {
            "title": "T", "text": "Do it.", "budget": {"moves": 3}, "tools": ["points", {"tool": "circle", "most": 2}],
            "given": [{"id": "A", "make": "free_point", "at": [0, 0]}, {"id": "B", "make": "free_point", "at": [4, 1]}],
            "model": [{"id": "c", "make": "circle", "from": ["A", "B"]}], "wanted": [{"name": "c", "kind": "circle"}],
            "conditions": [{"rel": "on", "of": ["B", "c"]}],
        },
        "policy": {"feedback": "break", "attempts": 3, "scoring": {"sound": 100}}, "topic": "Circles",
    },
    "sheets.propose": {"wanted": ["M"]},
    "sheets.try_out": {},
}  # fmt: skip

OPERATIONS: list[dict[str, Any]] = [
    {"op": "move", "points": {"A": [1, 2]}}, {"op": "remove", "id": ["z1"]}, {"op": "dress", "id": "A", "dress": {"hue": "blue", "ticks": 2, "name_at": [3, 4]}},
    {"op": "measure", "of": ["A", "B"]}, {"op": "note", "note": "n1", "text": "words", "at": [1, 1]}, {"op": "undo"}, {"op": "redo"},
    {"op": "remake", "step": {"id": "z1", "make": "circle", "from": ["B", "A"]}}, {"op": "use", "class_tool": "Midpoint", "from": ["A", "B"], "steps": [], "gives": ["m"], "moves": 1},
]  # fmt: skip

FIELDS = [
    "login",
    "password",
    "next",
    "class_code",
    "code",
    "text",
    "step",
    "score",
    "reason",
    "place",
    "name",
    "list",
    "take",
    "to",
    "figure",
    "file",
    "steps",
    "answer",
    "class",
    "opens",
    "due",
    "late",
    "attempts",
    "feedback",
    "after",
    "student",
    "class_tool",
    "passed",
    "series",
    "way",
    "may",
    "price",
    "topic",
    "words",
    "by",
    "since",
    "judge",
    "arcs",
    "assign",
    "students",
]

FORBIDDEN = {"signin.leave", "signin.enter", "signin.enter_by_code"}
"""Would end the sessions of the others, or make them wait; they have tests of their own."""

RARE = {
    "roster.remove_class",
    "roster.remove",
    "roster.erase",
    "removed.erase",
    "classes.remove",
    "roster.archive",
    "roster.renew_all",
    "roster.renew",
}
"""Would empty the school before it was tried out."""

COSTLY = {"sheets.try_out", "sheets.propose", "classes.judge_again", "sheets.judge_trial"}


class Chance:
    """Requests at random, from one seed."""

    def __init__(self, seed: int, rules: list[tuple[Rule, str]], ids: dict[str, list[Any]]):
        self.rng, self.rules, self.ids = random.Random(seed), rules, ids

    def request(self) -> tuple[str, str, str, bytes | None, dict[str, str]]:
        """Endpoint, method, path, body and headers."""
        rng = self.rng
        while True:
            rule, method = rng.choice(self.rules)
            end = rule.endpoint
            rare = 0.01 if end in RARE and method == "POST" else 0.1 if end in COSTLY or "pdf" in rule.rule else 1.0
            if end not in FORBIDDEN and rng.random() < rare:
                break
        path = self.path(rule)
        if rng.random() < 0.3:
            path += "?" + urlencode(
                {rng.choice(FIELDS): self.text() for _ in range(rng.randint(1, 3))}, errors="replace"
            )
        headers = {"Accept": rng.choice(["application/json", "text/html", "*/*", "", "x/y;q=z"])}
        body: bytes | None = None
        if method == "POST":
            body, kind = self.body(end)
            headers["Content-Type"] = kind
        return end, method, path, body, headers

    def path(self, rule: Rule) -> str:
        parts = []
        for is_variable, part in ((trace[0], trace[1]) for trace in rule._trace):
            if not is_variable:
                parts.append(part.lstrip("|"))
            elif self.rng.random() < 0.9:
                parts.append(quote(str(self.rng.choice(self.ids.get(part, [1]))), safe=""))
            else:
                parts.append(quote(self.text(), safe="", errors="replace"))
        return "".join(parts) or "/"

    def text(self) -> str:
        value = self.rng.choice(WEIRD)
        return value if isinstance(value, str) else str(self.rng.choice([value, 1, 2, 3]))

    def body(self, endpoint: str) -> tuple[bytes, str]:
        rng = self.rng
        if endpoint in BODIES and rng.random() < 0.9:
            value = json.loads(json.dumps(BODIES[endpoint]))
            if endpoint == "tasks.store":
                value |= {
                    "key": f"{rng.getrandbits(60):x}" if rng.random() < 0.9 else "a-key-of-a-test",
                    "after": rng.randint(0, 5),
                }
                if rng.random() < 0.7:
                    value["operation"] = json.loads(json.dumps(rng.choice(OPERATIONS)))
            for _ in range(rng.choice([0, 1, 1, 2, 5])):
                value = self.changed(value)
            if rng.random() < 0.05:
                value = self.deep(value)
            return json.dumps(value).encode(), "application/json"
        if rng.random() < 0.1:
            return rng.choice([b"", b"{", b"\xff\xfe", b"[" * 100_000, rng.randbytes(200)]), "application/json"
        if rng.random() < 0.1:
            mark = b'--b\r\nContent-Disposition: form-data; name="file"; filename="a.json"\r\n\r\n'
            content = rng.choice(
                [
                    json.dumps(self.changed(BODIES["sheets.save"]["document"])).encode(),
                    rng.randbytes(100),
                    b"name;x\n\xff",
                ]
            )
            return mark + content + b"\r\n--b--\r\n", "multipart/form-data; boundary=b"
        fields = [(rng.choice(FIELDS), self.text()) for _ in range(rng.randint(0, 8))]
        return urlencode(fields, errors="replace").encode(), "application/x-www-form-urlencoded"

    def changed(self, value: Any) -> Any:
        """A value with one place of it changed."""
        rng = self.rng
        if isinstance(value, dict) and value and rng.random() < 0.85:
            name = rng.choice(list(value))
            match rng.randrange(6):
                case 0:
                    value.pop(name)
                case 1:
                    value[rng.choice(["x", "", "\ud800", "__proto__", name.upper()])] = value[name]
                case _:
                    value[name] = self.changed(value[name])
            return value
        if isinstance(value, list) and value and rng.random() < 0.85:
            place = rng.randrange(len(value))
            match rng.randrange(6):
                case 0:
                    value.pop(place)
                case 1:
                    value += value * rng.choice([1, 5, 20])
                case _:
                    value[place] = self.changed(value[place])
            return value
        return deepcopy(rng.choice(WEIRD))

    def deep(self, value: Any) -> Any:
        for _ in range(self.rng.choice([20, 30, 200, 600])):
            value = [value] if self.rng.random() < 0.5 else {"a": value}
        return value


def rules_of() -> list[tuple[Rule, str]]:
    """Every address with every method."""
    app = create_app({"DATABASE_URL": "mariadb+pymysql://nobody@127.0.0.1:9/none", "SECRET_KEY": "k"})
    return [(rule, method) for rule in app.url_map.iter_rules() for method in (rule.methods or set()) & {"GET", "POST"}]


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    asked.add_argument("--requests", type=int, default=100_000)
    asked.add_argument("--seed", type=int, default=1)
    wanted = asked.parse_args()
    rules = rules_of()
    ids: dict[str, list[Any]] = {
        name: list(range(1, 12))
        for name in ("class_id", "assignment_id", "hand_in_id", "work_id", "person_id", "sheet_id", "class_tool_id")
    }
    ids |= {
        "key": ["midpoint", "parallel", "x"],
        "part": ["model", "given", "trial", "x"],
        "version": ["x"],
        "filename": ["look/look.css", "../app.py"],
    }
    answers, broken, lock = Counter[int](), list[str](), threading.Lock()
    with served(6, demo=True) as on:
        threads = [
            threading.Thread(
                target=go,
                args=(
                    on,
                    Chance(wanted.seed * 1000 + n, rules, ids),
                    n,
                    wanted.requests // THREADS,
                    answers,
                    broken,
                    lock,
                ),
            )
            for n in range(THREADS)
        ]
        begun = perf_counter()
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        print(f"{answers.total()} requests in {perf_counter() - begun:.0f} s: {dict(sorted(answers.items()))}")
        print(f"{len(broken)} broke something or took more than {SLOW:.0f} s")
        for one in broken[:20]:
            print(" ", one)


def go(
    on: Served, chance: Chance, number: int, count: int, answers: Counter[int], broken: list[str], lock: Any
) -> None:
    """Ask so many times, as one of the people of the school, or as nobody."""
    login = ["", *on.logins][number % (len(on.logins) + 1)]
    browser = Browser(on.web.port, timeout=60)
    if login:
        browser.sign_in(login)
    browser.page("/sign-in" if not login else "/")
    browser.page("/library")
    for done in range(count):
        endpoint, method, path, body, headers = chance.request()
        if chance.rng.random() < 0.98:
            headers["X-CSRFToken"] = browser.token
        begun = perf_counter()
        try:
            status, text = browser.ask(method, path, body, headers)
        except OSError as error:
            status, text = 0, repr(error).encode()
        took = perf_counter() - begun
        with lock:
            answers[status] += 1
            if status >= 500 or status == 0 or took > SLOW:
                broken.append(
                    f"{status} {took:.1f} s {login or 'nobody'} {method} {path[:200]} {headers} {(body or b'')[:600]!r} {text[:200]!r}"
                )
            if answers.total() % 10_000 == 0:
                print(f"{answers.total()} requests", flush=True)
        if done % 500 == 0 and "session" not in browser.cookies and login:
            browser.sign_in(login)


if __name__ == "__main__":
    main()
