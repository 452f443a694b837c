"""The web server: gunicorn on the loopback interface."""

from __future__ import annotations

import contextlib
import json
import os
import shutil
import socket
import subprocess
import sys
import time
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from .mariadb import end_with_parent


class WebTrouble(Exception):
    """The web server does not start; the message says so."""


@dataclass
class WebServer:
    """Gunicorn with the app. ``settings``: of the app, kept in a file of this folder that nobody else can read."""

    folder: Path
    port: int
    settings: dict[str, Any]
    app: str | None = None  # another application than the one served to schools, for benchmarks
    host: str = "127.0.0.1"
    workers: int = 2
    process: subprocess.Popen[bytes] | None = field(default=None, init=False)

    @property
    def address(self) -> str:
        """Where the app is served."""
        return address(self.port)

    @property
    def ended(self) -> bool:
        """Whether the server is not running, or not any more."""
        return self.process is None or self.process.poll() is not None

    def start(self) -> None:
        """Start it, and wait until it answers. Raises WebTrouble where it ends instead."""
        settings = self.folder / "settings.json"
        settings.touch(mode=0o600)
        scratch = self.folder / "scratch"
        shutil.rmtree(scratch, ignore_errors=True)
        scratch.mkdir(mode=0o700)
        counts = scratch / "counts"  # of all workers together
        counts.mkdir()
        settings.write_text(json.dumps({"SCRATCH": str(scratch), **self.settings}))
        command = [sys.executable, "-m", "gunicorn", "--config", "python:widepin.running.gunicorn_settings"]
        self.process = subprocess.Popen(
            [*command, "--bind", f"{self.host}:{self.port}", *([self.app] if self.app else [])],
            env={
                **os.environ,
                "WIDEPIN_SETTINGS": str(settings),
                "WIDEPIN_WORKERS": str(self.workers),
                "PROMETHEUS_MULTIPROC_DIR": str(counts),
            },
            preexec_fn=end_with_parent,
            start_new_session=True,
        )
        for _ in range(600):
            if self.ended:
                break
            with contextlib.suppress(OSError), socket.create_connection((self.host, self.port), 0.5):
                return
            time.sleep(0.05)
        self.stop()
        raise WebTrouble("The web server did not start; its messages are above.")

    def stop(self) -> None:
        """Ask it to end, and make it after a while."""
        if self.process is not None and self.process.poll() is None:
            self.process.terminate()
            try:
                self.process.wait(15)
            except subprocess.TimeoutExpired:
                self.process.kill()
                self.process.wait()


def address(port: int) -> str:
    """Where the app is served on a port of the loopback interface."""
    return f"http://127.0.0.1:{port}/"
