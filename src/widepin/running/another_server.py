"""What another server of a school needs to serve it too: the configuration, the keys, and whose the database is."""

from __future__ import annotations

import json
from dataclasses import asdict
from pathlib import Path

from . import ownership
from .settings import BadSettings, Settings, keys, write_keys
from .supervisor import CannotStart

FORMAT = "widepin.server/1"


def write_for_another(settings: Settings, file: Path) -> None:
    """Write the file that another server is set up from. Raises CannotStart."""
    if not settings.together:
        raise CannotStart(
            "This school is served by one machine. Say together = true in its configuration, and start it again, first."
        )
    about = {
        "format": FORMAT,
        "installation": ownership.id_of(settings.folder),
        "keys": keys(settings.folder),
        "settings": {name: value for name, value in asdict(settings).items() if name != "data"},
    }
    try:
        file.touch(mode=0o600, exist_ok=False)
        file.write_text(json.dumps(about, indent=1), encoding="utf-8")
    except FileExistsError:
        raise CannotStart(f"{file} is there already; choose another name.") from None
    except OSError as wrong:
        raise CannotStart(f"{file} could not be written: {wrong}") from None


def settings_like(file: Path, data: str) -> Settings:
    """The settings for a server as in such a file; its keys and its id are put into the data folder.

    ``data``: the data folder here. Raises BadSettings, and CannotStart where another school's keys are there.
    """
    try:
        about = json.loads(file.read_text(encoding="utf-8"))
        if about["format"] != FORMAT:
            raise ValueError(about["format"])
        settings = Settings(**{**about["settings"], "data": data}).checked()
        found = {str(name): str(value) for name, value in about["keys"].items()}
        id_ = str(about["installation"])
    except (OSError, ValueError, KeyError, TypeError, AttributeError) as wrong:
        raise BadSettings(f"{file} is not what bin/widepin another writes ({wrong}).") from None
    there = keys(settings.folder, make=False)
    if there and there != found:
        raise CannotStart(f"{settings.folder} has the keys of another school. Name another folder with --data.")
    write_keys(settings.folder, found)
    ownership.set_id(settings.folder, id_)
    return settings
