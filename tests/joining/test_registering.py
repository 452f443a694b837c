"""A platform that registers itself, by a link that an administrator has made, once."""

from __future__ import annotations

import pytest
import requests
from sqlalchemy import select

from tests.joining.conftest import serve
from widepin.joining.http_client import NotReached
from widepin.joining.lti.registering import Addresses, register
from widepin.joining.standins.platform import create_platform
from widepin.running.mariadb import free_port
from widepin.school.joining import handshakes
from widepin.school.models import Person, Platform
from widepin.school.states import Question


@pytest.fixture
def stranger(tool, school):
    """A platform that knows of no tool yet: its address and state."""
    port = free_port()
    app = create_platform(f"http://localhost:{port}")
    server = serve(app, port)
    yield app.extensions["platform"]
    server.shutdown()


@pytest.fixture
def link(tool, school):
    with school() as session:
        oda = session.scalars(select(Person)).first()
        secret = handshakes.ask(session, Question.REGISTERING, {"by": oda.id})
        session.commit()
    return f"{tool.config['ADDRESS']}lti/register/{secret}"


def test_both_know_each_other_afterwards(stranger, link, school, tool):
    page = requests.post(f"{stranger.address}/tools", data={"address": link})
    assert page.ok and "is registered" in page.text
    assert f"frame-ancestors {stranger.address}" in page.headers["Content-Security-Policy"]
    with school() as session:
        made = session.scalars(select(Platform)).one()
        assert (made.issuer, made.client_id, made.deployments) == (stranger.address, "wide-pin", ["school"])
        assert made.keys_address == f"{stranger.address}/keys"
    assert stranger.tool["launch"] == tool.config["ADDRESS"] + "lti/launch"


def test_a_link_registers_one_platform(stranger, link, school):
    requests.post(f"{stranger.address}/tools", data={"address": link})
    again = requests.post(f"{stranger.address}/tools", data={"address": link})
    assert again.status_code == 403 and "used already" in again.text
    with school() as session:
        assert len(session.scalars(select(Platform)).all()) == 1


def test_what_describes_another_platform_is_refused(stranger, link, school):
    there = f"http://127.0.0.1:{stranger.address.rsplit(':', 1)[1]}/.well-known/openid-configuration"
    page = requests.get(link, params={"openid_configuration": there, "registration_token": "one-time"})
    assert page.status_code == 403 and "another platform" in page.text
    with school() as session:
        assert session.scalars(select(Platform)).all() == []


def test_a_platform_that_does_not_answer_is_said(stranger):
    here = Addresses("http://a/", "http://a/login", "http://a/launch", "http://a/keys")
    with pytest.raises(NotReached, match="could not be reached"):
        register("http://localhost:9/x", "", here, "Wide Pin")
    with pytest.raises(NotReached, match="401"):
        register(f"{stranger.address}/.well-known/openid-configuration", "wrong", here, "Wide Pin")
