"""A school as whoever runs it has it: set up and served by the command line, in a folder of its own."""

import contextlib
import os
import pty
import re
import signal
import subprocess
import sys
from pathlib import Path

from widepin.running.mariadb import free_port

ROOT = Path(__file__).parents[2]


class School:
    """A school with its own configuration and data."""

    def __init__(self, folder, address=None):
        self.folder = folder
        self.port = free_port()
        self.address = address or f"http://127.0.0.1:{self.port}"
        self.config, self.data = folder / "widepin.toml", folder / "data"
        self.process = None
        self.first_said = ""
        self.log = folder / "served.log"

    def environment(self):
        kept = {name: value for name, value in os.environ.items() if not name.startswith("WIDEPIN_")}
        return {**kept, "PYTHONPATH": str(ROOT / "src"), "WIDEPIN_CONFIG": str(self.config)}

    def run(self, *arguments):
        """A command, to its end."""
        command = [sys.executable, "-m", "widepin.cli", *map(str, arguments)]
        return subprocess.run(command, env=self.environment(), capture_output=True, text=True, timeout=120)

    def must(self, *arguments):
        """What a command says that has to succeed."""
        done = self.run(*arguments)
        assert done.returncode == 0, done.stdout + done.stderr
        return done.stdout

    def setup(self, *more):
        """Set up; what it says."""
        named = ("--name", "The tracery school", "--address", self.address, "--data", self.data)
        self.first_said = self.must("setup", *named, "--port", self.port, "--time-zone", "Europe/Berlin", *more)
        return self.first_said

    def answer(self, answers):
        """Set up in a terminal, with answers to what is asked; what is shown."""
        child, terminal = pty.fork()
        if child == 0:
            command = [sys.executable, "-m", "widepin.cli", "setup", "--data", str(self.data)]
            os.execve(sys.executable, command, self.environment())
        os.write(terminal, "".join(f"{answer}\n" for answer in answers).encode())
        shown = b""
        with contextlib.suppress(OSError):  # the terminal is gone when the command has ended
            while more := os.read(terminal, 4096):
                shown += more
        os.waitpid(child, 0)
        return shown.decode()

    def start(self):
        """Serve it; what it says until it is served."""
        self.process = subprocess.Popen(
            [sys.executable, "-m", "widepin.cli", "serve"],
            env=self.environment(),
            stdout=subprocess.PIPE,
            stderr=self.log.open("a"),
            text=True,
        )
        said = []
        for line in self.process.stdout:
            said.append(line)
            if "is served on" in line:
                return "".join(said)
        raise AssertionError("".join(said) + self.log.read_text())

    def stop(self):
        """Stop serving; what it says."""
        if self.process is None or self.process.poll() is not None:
            return ""
        self.process.send_signal(signal.SIGTERM)
        said, _ = self.process.communicate(timeout=60)
        return said


def link_in(said):
    """The path of the link that works once in what a command says."""
    return re.search(r"/welcome/[\w-]+", said)[0]
