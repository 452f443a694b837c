"""An address with several database servers: one that works is taken."""

import pymysql
import pytest
from sqlalchemy import text
from sqlalchemy.engine import make_url
from sqlalchemy.exc import OperationalError

from widepin.running.mariadb import free_port
from widepin.school import servers
from widepin.school.database import make_engine
from widepin.school.servers import answering, has_several, split


def with_servers(url, first, *also):
    """An address that names these ports of this machine."""
    address = make_url(url).set(port=first)
    if also:
        address = address.update_query_dict({"also": ",".join(f"127.0.0.1:{port}" for port in also)})
    return address.render_as_string(hide_password=False)


@pytest.mark.parametrize(
    ("written", "expected"),
    [
        ("mariadb+pymysql://u:p@one/w", [("one", 3306)]),
        ("mariadb+pymysql://u:p@one:3307/w?charset=utf8mb4&also=two", [("one", 3307), ("two", 3306)]),
        ("mariadb+pymysql://u:p@one/w?also=two:1,three:2,", [("one", 3306), ("two", 1), ("three", 2)]),
    ],
)
def test_an_address_names_servers_in_order(written, expected):
    address, found = split(written)
    assert list(found) == expected and "also" not in address.query


def test_the_first_that_works_is_taken(database_url):
    port = make_url(database_url).port
    engine = make_engine(with_servers(database_url, free_port(), port, free_port()))
    assert has_several(engine)
    with engine.connect() as connection:
        assert connection.info["server"] == ("127.0.0.1", port)
        assert connection.scalar(text("SELECT 1")) == 1
    engine.dispose()


def test_where_none_works_that_is_told(database_url):
    engine = make_engine(with_servers(database_url, free_port(), free_port()))
    with pytest.raises(OperationalError):
        engine.connect()


def test_one_that_did_not_work_is_asked_last_for_a_while(database_url, monkeypatch):
    dead, port = free_port(), make_url(database_url).port
    asked: list[int] = []
    real = pymysql.connect

    def connect(**options):
        asked.append(options["port"])
        return real(**options)

    monkeypatch.setattr(pymysql, "connect", connect)
    engine = make_engine(with_servers(database_url, dead, port))
    for _ in range(2):
        engine.connect().invalidate()
    assert asked == [dead, port, port]
    monkeypatch.setattr(servers, "AVOIDED", 0.0)
    engine.connect().close()
    assert asked[3:] == [dead, port]
    engine.dispose()


def test_a_server_that_has_left_its_cluster_is_as_one_that_is_gone(database_url, monkeypatch):
    states = iter(["", "Donor/Desynced", "", ""])
    monkeypatch.setattr(servers, "_cluster_state", lambda connection: next(states))
    port = make_url(database_url).port
    engine = make_engine(with_servers(database_url, port, port))
    with engine.connect() as connection:
        assert connection.scalar(text("SELECT 1")) == 1, "one that sends its data to another one does"
    engine.dispose()
    with pytest.raises(OperationalError, match="no server of the cluster is ready"):
        engine.connect()


def test_programs_that_know_of_one_server_get_one_that_works(database_url):
    port = make_url(database_url).port
    found = make_url(answering(with_servers(database_url, free_port(), port)))
    assert found.port == port and "also" not in found.query
    assert answering(database_url) == database_url
