"""The pretend systems beside the demo: each starts by its name, and all are known to the demo school."""

from __future__ import annotations

import subprocess
import sys
import time

import pytest
import requests
from sqlalchemy import func, select

from widepin.running import demo
from widepin.running.mariadb import free_port
from widepin.school.joining import activity, office_lists, provider
from widepin.school.models import Platform

TITLES = {
    "platform": "Who are you?",
    "provider": "Nobody is signed in here",
    "office": "The lists of the office",
    "store": "0 statements",
}


@pytest.mark.parametrize("name", demo.STANDINS)
def test_each_starts_by_its_name(name, tmp_path):
    port = free_port()
    command = [sys.executable, "-m", "widepin.joining.standins", name, str(port), "http://127.0.0.1:1/", str(tmp_path)]
    served = subprocess.Popen(command, stderr=subprocess.DEVNULL)
    try:
        for _ in range(600):
            try:
                page = requests.get(f"http://localhost:{port}/")
                break
            except requests.ConnectionError:
                assert served.poll() is None, "it has ended"
                time.sleep(0.1)
        assert page.ok and TITLES[name] in page.text
    finally:
        served.terminate()
        served.wait()


def test_the_demo_school_knows_them_once(own_database, school):
    for _start in range(2):
        demo.register_standins(own_database, 8317)
    with school() as session:
        assert session.scalar(select(func.count()).select_from(Platform)) == 1
        assert provider.present(session).issuer == demo.standin_address("provider", 8317) == "http://localhost:8319"
        assert office_lists.source(session)["address"] == "http://localhost:8320"
        assert activity.store(session)["address"] == "http://localhost:8321/xapi"
