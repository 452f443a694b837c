"""The clock is set while a school is served: ``bin/widepin tool clock_trial`` (Debian's package faketime).

Students save steps and hand in; the clock of all servers is set a day forward, two days back and right again. Printed:
what was answered after each change, how long nothing was saved, and whether anything acknowledged was lost.
"""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
import threading
from collections import Counter
from glob import glob
from pathlib import Path
from time import monotonic, sleep

from widepin.running.watching import Watch

from .kill_trial import Writer, check
from .serving import served

STUDENTS, SECONDS = 6, 20.0
CHANGES = ("+0", "+1d", "-1d", "+15m", "-15m", "+0")
"""What the clock shows, against the right time."""

SET_BY = "WIDEPIN_TRIAL_CLOCK"
"""The file that says what the clock shows, in the environment of the trial itself."""


def begin() -> None:
    """Run this trial again with a clock that can be set."""
    found = glob("/usr/lib/*/faketime/libfaketimeMT.so.1")
    if not found:
        raise SystemExit("This trial needs Debian's package faketime: apt-get install faketime")
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "clock"
        file.write_text(CHANGES[0])
        settings = {
            "LD_PRELOAD": found[0],
            "FAKETIME_TIMESTAMP_FILE": str(file),
            "FAKETIME_CACHE_DURATION": "1",
            "FAKETIME_DONT_FAKE_MONOTONIC": "1",
            SET_BY: str(file),
        }
        sys.exit(subprocess.run([sys.executable, "-m", "tools.clock_trial"], env=os.environ | settings).returncode)


def main() -> None:
    if SET_BY not in os.environ:
        begin()
    clock = Path(os.environ[SET_BY])
    with served(STUDENTS) as on:
        said: list[str] = []
        writers = [Writer(on, login) for login in on.logins[1:]]
        stop = threading.Event()
        threads = [threading.Thread(target=one.write, args=(stop,)) for one in writers]
        for thread in threads:
            thread.start()
        watched = Watch(on.database, on.web, said.append)
        for change in CHANGES:
            clock.write_text(change)
            before = sum((one.answers for one in writers), Counter())
            until, longest, last, known = monotonic() + SECONDS, 0.0, monotonic(), 0
            while monotonic() < until:
                watched.look()
                sleep(0.05)
                if (now := sum(len(one.acknowledged) for one in writers)) > known:
                    longest, last, known = max(longest, monotonic() - last), monotonic(), now
            answers = sum((one.answers for one in writers), Counter()) - before
            print(f"clock {change:5} answers {dict(answers)}, longest pause {longest:.1f} s", flush=True)
        stop.set()
        for thread in threads:
            thread.join()
        print(f"{dict(check(on, writers))}; supervisor: {said or 'nothing'}")


if __name__ == "__main__":
    main()
