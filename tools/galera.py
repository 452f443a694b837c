"""A MariaDB Galera cluster on the loopback interface, for trials: nodes that are started, killed, stopped and cut off.

Source: MariaDB's documentation, "Galera Cluster system variables", and Galera's, "Galera parameters".
"""

from __future__ import annotations

import contextlib
import getpass
import os
import re
import signal
import socket
import subprocess
import time
from dataclasses import dataclass, field
from pathlib import Path

import pymysql

from widepin.running.mariadb import COMMON, DURABLE, DatabaseTrouble, MariaDB, free_port, server_program

PROVIDER = "/usr/lib/galera/libgalera_smm.so"

CONNECTIONS = 200

LONGEST_START = 120
"""Seconds until a node has what the others have."""

PARTS = 3
"""Ports that a node has besides that of its clients: for the group, and for what it is sent when it comes back."""


@dataclass
class Node(MariaDB):
    """A node of a cluster. ``own``: the first of its ports for other nodes; ``peers``: those of all nodes."""

    name: str = "node"
    own: int = 0
    peers: tuple[int, ...] = ()
    begins: bool = False  # the cluster: nobody is there yet
    user: str = field(default_factory=lambda: "mysql" if os.geteuid() == 0 else getpass.getuser())

    def start(self) -> str:
        """Start the node, and wait until it has what the others have."""
        self.options = (*DURABLE, *self._galera(), *self._come_so_far())
        url = super().start()
        self.begins = False
        return url

    def _galera(self) -> tuple[str, ...]:
        together = ",".join(f"127.0.0.1:{port}" for port in self.peers)
        told = {
            "base_host": "127.0.0.1",
            "base_port": self.own,
            "gmcast.listen_addr": f"tcp://127.0.0.1:{self.own}",
            "ist.recv_addr": f"127.0.0.1:{self.own + 1}",
            "gcache.size": "64M",
            # A node that does not answer is left out after some seconds; until then nothing is stored.
            "evs.keepalive_period": "PT0.5S",
            "evs.suspect_timeout": "PT3S",
            "evs.inactive_timeout": "PT6S",
        }
        return (
            "--binlog-format=ROW",
            "--innodb-autoinc-lock-mode=2",
            f"--max-connections={CONNECTIONS}",
            "--wsrep-on=ON",
            f"--wsrep-provider={PROVIDER}",
            "--wsrep-cluster-name=widepin",
            f"--wsrep-cluster-address=gcomm://{together}",
            f"--wsrep-node-name={self.name}",
            f"--wsrep-node-address=127.0.0.1:{self.own}",
            f"--wsrep-sst-receive-address=127.0.0.1:{self.own + 2}",
            "--wsrep-sst-method=rsync",
            "--wsrep-slave-threads=2",
            f"--wsrep-provider-options={';'.join(f'{name}={value}' for name, value in told.items())}",
            *(("--wsrep-new-cluster",) if self.begins else ()),
        )

    def _come_so_far(self) -> tuple[str, ...]:
        """How far a node has come that was killed, so that it is sent only what is missing; as Debian's unit does."""
        if not (self.folder / "made").exists():
            return ()
        log = self.folder / "recovered.log"
        log.unlink(missing_ok=True)
        command = [
            server_program(),
            "--no-defaults",
            f"--user={self.user}",
            f"--datadir={self.data}",
            *COMMON,
            *self._galera(),
            "--wsrep-recover",
            f"--log-error={log}",
        ]
        subprocess.run(command, check=False, capture_output=True)
        found = re.findall(r"Recovered position:\s*(\S+)", log.read_text(errors="replace"))
        return (f"--wsrep-start-position={found[-1]}",) if found else ()

    def _launch(self) -> None:
        super()._launch()
        until = time.monotonic() + LONGEST_START
        while not self.is_synced():
            if self.ended or time.monotonic() > until:
                raise DatabaseTrouble(f"{self.name} does not come into the cluster; its log is {self.log}")
            time.sleep(0.1)

    def is_synced(self) -> bool:
        """Whether the node has what the others have."""
        with contextlib.suppress(pymysql.err.Error, OSError):
            return self.state().get("wsrep_local_state_comment") == "Synced"
        return False

    def _make_account(self, password: str) -> None:
        if self.begins:  # the others have it from the first
            super()._make_account(password)

    def _scratch(self) -> Path:
        folder = super()._scratch()
        if os.geteuid() == 0:  # what another node sends is written as the user that the server runs as
            subprocess.run(["chown", "-R", self.user, str(self.folder)], check=True)
        return folder

    def freeze(self) -> None:
        """Cut the node off: it neither answers nor hears, as where its network is gone."""
        self._signal(signal.SIGSTOP)

    def thaw(self) -> None:
        """Let it go on."""
        self._signal(signal.SIGCONT)

    def _signal(self, number: signal.Signals) -> None:
        assert self.process is not None
        os.kill(self.process.pid, number)

    def state(self) -> dict[str, str]:
        """What the node says of itself, as ``wsrep_cluster_size``."""
        with self._admin(3) as connection, connection.cursor() as cursor:
            cursor.execute("SHOW STATUS LIKE 'wsrep%'")
            return {str(name): str(value) for name, value in cursor.fetchall()}


def nodes(folder: Path, count: int = 3) -> list[Node]:
    """The nodes of a cluster that is still to be started, the one that begins it first."""
    ports: list[int] = []
    while len(ports) < count:
        first = _free_ports()
        if all(abs(first - port) >= PARTS for port in ports):
            ports.append(first)
    made = [
        Node(folder / f"node{number}", name=f"node{number}", own=own, peers=tuple(ports))
        for number, own in enumerate(ports, 1)
    ]
    made[0].begins = True
    return made


def _free_ports() -> int:
    """The first of some ports after another that nobody listens on."""
    while True:
        first = free_port()
        with contextlib.suppress(OSError, OverflowError), contextlib.ExitStack() as held:
            for port in range(first, first + PARTS):
                probe = held.enter_context(socket.socket())
                probe.bind(("127.0.0.1", port))
            return first
