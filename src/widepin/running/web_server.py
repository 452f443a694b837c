"""The web server: gunicorn on the loopback interface."""

from __future__ import annotations

import contextlib
import json
import os
import shutil
import signal
import subprocess
import sys
import time
from dataclasses import dataclass, field
from http.client import HTTPConnection, HTTPException
from pathlib import Path
from typing import Any

from .mariadb import end_with_parent

PROGRAM = Path(__file__).parents[1]
"""Where numba keeps what it compiles, if the user who serves may write there."""

LONGEST_START, LONGEST_ANSWER = 120, 30
"""Seconds: until the server answers for the first time, and for one answer."""


LEAVING = "leaving"
"""The file in the scratch folder that says that the server is about to end."""

LONGEST_END = 15
"""Seconds that workers whose main process has ended may take for what they have begun."""


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
    seconds_to_leave: int = 0  # in which it says that it is about to end, and answers all the same
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
        self._wait_for_old_workers()
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
                **({} if os.access(PROGRAM, os.W_OK) else {"NUMBA_CACHE_DIR": str(self.folder / "compiled")}),
            },
            preexec_fn=end_with_parent,
            start_new_session=True,
        )
        until = time.monotonic() + LONGEST_START
        while not self.ended and time.monotonic() < until:
            if self._answers():
                return
            time.sleep(0.05)
        self.stop()
        raise WebTrouble("The web server did not start; its messages are above.")

    def _wait_for_old_workers(self) -> None:
        """Workers whose main process was killed answer what they have begun: their port and their scratch folder are
        theirs until they have ended.
        """
        if self.process is None:
            return
        until = time.monotonic() + LONGEST_END
        with contextlib.suppress(ProcessLookupError, PermissionError):
            while True:
                os.killpg(self.process.pid, signal.SIGKILL if time.monotonic() > until else 0)
                time.sleep(0.05)

    @property
    def process_id(self) -> int | None:
        """Of the main process, None where it was not started."""
        return None if self.process is None else self.process.pid

    def _answers(self) -> bool:
        """Whether a request is answered. That somebody listens is not enough: a worker has to be there as well."""
        with contextlib.suppress(OSError, HTTPException):
            asked = HTTPConnection(self.host, self.port, timeout=LONGEST_ANSWER)
            try:
                asked.request("GET", "/healthz")
                asked.getresponse().read()
                return True
            finally:
                asked.close()
        return False

    def stop(self) -> None:
        """Ask it to end, and make it after a while."""
        if self.process is not None and self.process.poll() is None:
            if self.seconds_to_leave:
                (self.folder / "scratch" / LEAVING).touch()
                with contextlib.suppress(subprocess.TimeoutExpired):
                    self.process.wait(self.seconds_to_leave)
            self.process.terminate()
            try:
                self.process.wait(15)
            except subprocess.TimeoutExpired:
                self.process.kill()
                self.process.wait()


def address(port: int) -> str:
    """Where the app is served on a port of the loopback interface."""
    return f"http://127.0.0.1:{port}/"
