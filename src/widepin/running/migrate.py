"""Bringing a database to the newest tables."""

from __future__ import annotations

from pathlib import Path

from alembic import command
from alembic.config import Config

ROOT = Path(__file__).resolve().parents[3]


def migrate(url: str) -> None:
    """Run the migrations that the database has not seen yet."""
    command.upgrade(config_for(url), "head")


def config_for(url: str) -> Config:
    """What Alembic has to know to work on a database."""
    config = Config()
    config.set_main_option("script_location", str(ROOT / "migrations"))
    config.attributes["url"] = url
    return config
