"""A school on several servers, all of them on the loopback interface: ``bin/widepin tool cluster``.

Three nodes of a Galera cluster, two application servers behind HAProxy as in ``deploy/haproxy.cfg``, Redis and a
worker: what docs/district.md sets up on several machines. Needs Debian's haproxy and redis-server. Ends with Ctrl-C.
"""

from __future__ import annotations

import argparse
import contextlib
import os
import re
import shutil
import signal
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from pathlib import Path
from urllib.error import URLError
from urllib.request import urlopen

from widepin.running.mariadb import end_with_parent, free_port
from widepin.running.migrate import ROOT

from .galera import Node, nodes
from .kill_trial import children

STUDENTS, CLASSES = 30, 1


class Program:
    """A program that runs beside, in a session of its own, until it is stopped."""

    def __init__(self, name: str, folder: Path, command: list[str], environment: dict[str, str] | None = None):
        self.name, self.folder, self.command = name, folder, command
        self.environment = {**os.environ, **(environment or {})}
        self.process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        """Start it."""
        with (self.folder / f"{self.name}.log").open("ab") as log:
            self.process = subprocess.Popen(
                self.command,
                env=self.environment,
                stdout=log,
                stderr=log,
                start_new_session=True,
                preexec_fn=end_with_parent,
            )

    def stop(self) -> None:
        """Ask it to end, and wait until it has."""
        if self.process is not None and self.process.poll() is None:
            self.process.terminate()
            self.process.wait(90)

    def send(self, number: signal.Signals) -> None:
        """Send a signal to it and to all that it has started."""
        assert self.process is not None
        for pid in _family(self.process.pid):
            with contextlib.suppress(ProcessLookupError):
                os.kill(pid, number)

    def kill(self) -> None:
        """End it and all that it has started at once."""
        self.send(signal.SIGKILL)
        assert self.process is not None
        self.process.wait()


def _family(pid: int) -> list[int]:
    return [pid, *(further for child in children(pid) for further in _family(child))]


class Application(Program):
    """An application server, as ``bin/widepin serve`` runs it."""

    def __init__(self, name: str, folder: Path, program: Path = ROOT):
        self.port, self.config = free_port(), folder / f"{name}.toml"
        super().__init__(name, folder, [sys.executable, "-m", "widepin.cli", "serve"])
        self.use(program)

    def use(self, program: Path) -> None:
        """Run another version of the program from the next start on."""
        self.environment |= {"PYTHONPATH": str(program / "src"), "WIDEPIN_CONFIG": str(self.config)}

    def say(self, *arguments: object) -> str:
        """What a command of this server's says. Raises RuntimeError with what was wrong."""
        command = [sys.executable, "-m", "widepin.cli", *map(str, arguments)]
        done = subprocess.run(command, env=self.environment, capture_output=True, text=True)
        if done.returncode:
            raise RuntimeError(done.stdout + done.stderr)
        return done.stdout

    def is_ready(self) -> bool:
        """Whether it says that it can work."""
        with (
            contextlib.suppress(URLError, OSError),
            urlopen(f"http://127.0.0.1:{self.port}/readyz", timeout=5) as answer,
        ):
            return bool(answer.status == 200)
        return False

    def wait_until_ready(self, seconds: float = 120) -> None:
        """Wait until it is. Raises TimeoutError with the end of its log."""
        until = time.monotonic() + seconds
        while not self.is_ready():
            if time.monotonic() > until:
                raise TimeoutError((self.folder / f"{self.name}.log").read_text()[-2000:])
            time.sleep(0.2)


@dataclass
class Cluster:
    """What runs. ``port``: where browsers come."""

    folder: Path
    port: int = field(default_factory=free_port)
    nodes: list[Node] = field(default_factory=list)
    applications: list[Application] = field(default_factory=list)
    programs: dict[str, Program] = field(default_factory=dict)
    url: str = ""
    queue: int = 0  # the port of the Redis

    @property
    def address(self) -> str:
        """Where browsers find it."""
        return f"http://127.0.0.1:{self.port}"

    def start(self, workers: int = 1, servers: int = 2) -> None:
        """Start all of it, one after the other."""
        self.start_databases()
        self.start_queue()
        self.applications = [Application(f"server{number}", self.folder) for number in range(1, servers + 1)]
        one, *others = self.applications
        one.say("setup", "--name", "A district", "--address", self.address, "--port", one.port, *self.shared(one))
        for other in others:
            self.join(one, other)
        for number in range(1, workers + 1):
            command = [sys.executable, "-m", "widepin.cli", "work", "--at-once", "1"]
            self._run(f"worker{number}", command, one.environment)
        for application in self.applications:
            application.start()
        for application in self.applications:
            application.wait_until_ready()
            print(f"{application.name} listens on {application.port}", flush=True)
        self.start_proxy()

    def start_databases(self) -> None:
        """Start the nodes."""
        self.nodes = nodes(self.folder / "databases")
        for node in self.nodes:
            address = node.start()
            self.url = self.url or address
            print(f"{node.name} listens on {node.port}: {node.state()['wsrep_local_state_comment']}", flush=True)
        also = ",".join(f"127.0.0.1:{node.port}" for node in self.nodes[1:])
        self.url += f"&also={also}"

    def start_queue(self) -> None:
        """Start the Redis through which workers are told what to do."""
        self.queue = free_port()
        options = ["--bind", "127.0.0.1", "--save", "", "--appendonly", "no"]
        self._run("redis", ["redis-server", "--port", str(self.queue), *options])

    def shared(self, one: Application) -> tuple[object, ...]:
        """What a server is set up with that serves together with others."""
        queue = f"redis://127.0.0.1:{self.queue}/0"
        data = self.folder / one.name
        return "--database", self.url, "--together", "--queue", queue, "--data", data, "--no-questions"

    def join(self, one: Application, other: Application) -> None:
        """Set another server up like one that is set up."""
        file = self.folder / f"{other.name}.json"
        one.say("another", file)
        other.say("setup", "--like", file, "--data", self.folder / other.name, "--port", other.port, "--no-questions")

    def start_proxy(self) -> None:
        """Start what stands in front, and wait until it answers."""
        (self.folder / "haproxy.cfg").write_text(self._proxy_settings())
        self._run("haproxy", ["haproxy", "-db", "-f", str(self.folder / "haproxy.cfg")])
        until = time.monotonic() + 30
        while time.monotonic() < until:
            with contextlib.suppress(URLError, OSError):
                urlopen(f"{self.address}/sign-in", timeout=5).read()
                return
            time.sleep(0.2)
        raise TimeoutError("the proxy does not answer")

    def _run(self, name: str, command: list[str], environment: dict[str, str] | None = None) -> None:
        self.programs[name] = Program(name, self.folder, command, environment)
        self.programs[name].start()

    def _proxy_settings(self) -> str:
        """``deploy/haproxy.cfg`` with the ports of this cluster, and plain HTTP, since all of it is on this machine."""
        text = (ROOT / "deploy" / "haproxy.cfg").read_text()
        text = re.sub(
            r"    bind :80\n    bind :443.*\n    http-request redirect.*\n", f"    bind 127.0.0.1:{self.port}\n", text
        )
        text = text.replace("X-Forwarded-Proto https", "X-Forwarded-Proto http").replace(
            " httponly secure", " httponly"
        )
        text = re.sub(r"    server .*\n", "", text)
        servers = (f"    server {one.name} 127.0.0.1:{one.port} cookie {one.name}\n" for one in self.applications)
        return text + "".join(servers)

    def stop(self) -> None:
        """Stop all of it, what is in front first."""
        for name in ("haproxy", *(name for name in self.programs if name.startswith("worker"))):
            if name in self.programs:
                self.programs[name].stop()
        for application in self.applications:
            if application.process is not None and application.process.poll() is None:
                application.process.terminate()
        for application in self.applications:
            application.stop()
        if "redis" in self.programs:
            self.programs["redis"].stop()
        for node in self.nodes:
            if node.process is not None and node.process.poll() is None:
                node.thaw()
            node.stop()


@contextmanager
def cluster(workers: int = 1, servers: int = 2) -> Iterator[Cluster]:
    """A cluster in a folder of its own, which goes with it."""
    with in_a_folder() as made:
        made.start(workers, servers)
        yield made


@contextmanager
def in_a_folder() -> Iterator[Cluster]:
    """A cluster of which nothing is started, in a folder of its own; it is stopped in the end."""
    folder = Path(tempfile.mkdtemp(prefix="widepin-cluster-"))
    folder.chmod(0o755)  # MariaDB runs as a user of its own where this is root
    made = Cluster(folder)
    try:
        yield made
    finally:
        made.stop()
        if "WIDEPIN_KEEP" not in os.environ:  # to read its logs
            shutil.rmtree(folder, ignore_errors=True)


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    asked.add_argument("--workers", type=int, default=1)
    asked.add_argument("--servers", type=int, default=2)
    wanted = asked.parse_args()
    from .serving import fill

    with cluster(wanted.workers, wanted.servers) as made:
        _numbers, logins = fill(made.url, STUDENTS, CLASSES)
        print(
            f"\n{made.address}: {logins[0]}, {logins[1]} and others, with the demo's password. Ctrl-C stops all of it."
        )
        print(f"Configurations and logs: {made.folder}", flush=True)
        with contextlib.suppress(KeyboardInterrupt):
            signal.pause()


if __name__ == "__main__":
    main()
