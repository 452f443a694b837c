"""The one entry on a machine where nothing is installed yet."""

import os
import subprocess
from pathlib import Path

ROOT = Path(__file__).parents[2]


def stub(folder, name, script):
    path = folder / name
    path.write_text(f"#!/bin/sh\n{script}\n")
    path.chmod(0o755)


def test_what_debian_has_never_heard_of_is_installed(tmp_path):
    stub(tmp_path, "dpkg-query", "exit 1")
    stub(tmp_path, "apt-get", f'echo "$*" >> {tmp_path}/asked')
    stub(tmp_path, "sudo", 'exec "$@"')
    done = subprocess.run(
        [ROOT / "bin" / "widepin", "test", "--version"],
        env={**os.environ, "PATH": f"{tmp_path}:{os.environ['PATH']}"},
        capture_output=True,
        text=True,
    )
    assert done.returncode == 0, done.stderr
    update, install = (tmp_path / "asked").read_text().splitlines()
    assert update.startswith("update") and "mariadb-server chromium-headless-shell" in install
    assert "installing from Debian" in done.stderr


def test_what_is_there_is_not_installed_again(tmp_path):
    stub(tmp_path, "dpkg-query", 'shift 2; for name; do echo "$name install ok installed"; done')
    stub(tmp_path, "apt-get", f"touch {tmp_path}/asked")
    done = subprocess.run(
        [ROOT / "bin" / "widepin", "test", "--version"],
        env={**os.environ, "PATH": f"{tmp_path}:{os.environ['PATH']}"},
        capture_output=True,
        text=True,
    )
    assert done.returncode == 0 and not (tmp_path / "asked").exists()
