"""Large requests that are refused are counted by their sender, and only those."""

import pytest

from widepin.web.serving.refused_requests import LARGE, MOST

RUBBISH = "[" * LARGE


@pytest.fixture
def counted(app):
    """Nothing is counted before, and nothing afterwards."""
    storage = app.extensions["refused requests"]
    storage.reset()
    yield
    storage.reset()


def test_who_sends_much_that_is_refused_is_put_off_and_nobody_else(as_person, counted):
    sender, other = as_person("bram.idris"), as_person("corin.hale")
    send = {"data": RUBBISH, "content_type": "application/json"}
    for _ in range(MOST.amount):
        assert sender.post("/tasks/1/operations", **send).status_code == 400
    answer = sender.post("/tasks/1/operations", **send)
    assert answer.status_code == 429 and "Wait a minute" in answer.text
    assert sender.get("/tasks").status_code == 200
    assert sender.post("/tasks/1/operations", json={}).status_code == 422
    assert other.post("/sheets/read", **send).status_code != 429
