"""From one machine to three without losing a step of a running lesson: ``bin/widepin tool moving_trial``.

A school with a database of its own, and students who save steps and hand in without pause. It is moved as
docs/district.md says: stopped, backed up, restored into a cluster, started again, and a second server added. Printed:
how long each part took, how long a student has waited at most, and what became of everything that was acknowledged.
"""

from __future__ import annotations

import argparse
from collections.abc import Callable
from time import monotonic

from widepin.running.school import opened
from widepin.running.settings import read

from .cluster import Application, Cluster, in_a_folder
from .district import SETTLED, WRITERS, Watched, at_work, show_what_is_stored
from .kill_trial import Teacher, Writer
from .serving import Address, Lesson, fill


def timed(what: str, deed: Callable[[], object]) -> None:
    """Do it, and print how long it took."""
    begun = monotonic()
    deed()
    print(f"{what:32} {monotonic() - begun:5.1f} s", flush=True)


def move(on: Cluster, one: Application, two: Application) -> None:
    """From the server's own database into the cluster."""
    backup = on.folder / "moving.widepin"
    timed("stopped", one.stop)
    timed("backed up", lambda: one.say("backup", backup))
    timed("set up for the cluster", lambda: one.say("setup", *on.shared(one)))
    timed("restored into the cluster", lambda: one.say("restore", backup))
    one.start()
    timed("served again", one.wait_until_ready)
    on.join(one, two)
    two.start()
    timed("served by another server too", two.wait_until_ready)


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    asked.add_argument("--students", type=int, default=300, help="in the school; a few of them are at work")
    wanted = asked.parse_args()
    with in_a_folder() as on:
        on.start_databases()
        on.start_queue()
        one, two = on.applications = [Application(f"server{number}", on.folder) for number in (1, 2)]
        named = ("--name", "A district", "--address", on.address, "--port", one.port, "--no-questions")
        one.say("setup", *named, "--data", on.folder / one.name)
        with opened(read(one.config)) as url:
            (assignments, sheet), logins = fill(url, wanted.students, 1)
        one.start()
        one.wait_until_ready()
        on.start_proxy()
        district = Lesson(Address(on.port), on.url, assignments, sheet, logins)
        writers = [Writer(district, login) for login in logins[1 : 1 + WRITERS]]
        teacher = Teacher(district, logins[0], writers)
        watched = Watched(writers, [])
        with at_work([*(one.write for one in writers), teacher.write, watched.look_on]):
            watched.until_everybody_got_on(SETTLED)
            before = watched.begin()
            move(on, one, two)
            watched.until_everybody_got_on(SETTLED)
            print(watched.told(before))
        show_what_is_stored(district, writers, teacher)


if __name__ == "__main__":
    main()
