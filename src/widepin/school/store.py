"""The engine and its sessions."""

from __future__ import annotations

from sqlalchemy import Engine, create_engine
from sqlalchemy.orm import Session, sessionmaker

POOL = 5
"""Connections a process keeps; processes times pool stay well under the server's limit."""


def make_engine(url: str) -> Engine:
    """An engine for a database address, ``mariadb+pymysql://...``."""
    return create_engine(url, pool_size=POOL, max_overflow=3, pool_pre_ping=True, pool_recycle=1800)


def make_sessions(engine: Engine) -> sessionmaker[Session]:
    """A factory of sessions."""
    return sessionmaker(engine, expire_on_commit=False)
