"""A worker: does the long work that servers of the school hand to the queue (``queue.py``).

It is the application without pages. Whatever it does runs in a process of its own with limits, as on a server.
"""

from __future__ import annotations

import os
import socket
from pathlib import Path
from typing import Any

from flask import Flask
from itsdangerous import BadData
from redis import Redis

from ..app import create_app
from . import background
from .apart import JobQueue, travels, warm_up
from .queue import JUDGING, PATIENCE, Here, Signed, celery_app, take

ANSWER_KEPT = 60
"""Seconds for which an answer waits for whoever asked."""


def work(settings: dict[str, Any], at_once: int) -> None:
    """Work until somebody says stop. ``settings``: of the application, with QUEUE_URL; ``at_once``: how many jobs."""
    url = settings["QUEUE_URL"]
    app = create_app({**settings, "QUEUE_URL": ""})
    scratch = Path(settings["SCRATCH"]) / "work"
    scratch.mkdir(mode=0o700, exist_ok=True)
    app.extensions["jobs"] = JobQueue(
        scratch, JUDGING["seconds"], JUDGING["megabytes"], waiting=1000, waiting_each=1000, at_once=at_once
    )
    warm_up()
    redis = Redis.from_url(url, socket_timeout=2 * PATIENCE, socket_connect_timeout=PATIENCE)
    name = f"{socket.gethostname()}-{os.getpid()}"
    here = Here(redis, name)
    here.start()
    made = celery_app(url)
    signed = Signed(app.config["SECRET_KEY"])

    @made.task(name="widepin.answer")  # type: ignore[untyped-decorator]
    def answer(message: str) -> None:
        address, function, arguments = _read(app, signed, message)
        jobs: JobQueue = app.extensions["jobs"]
        if not take(redis, address, name):
            return  # whoever asked has not waited
        try:
            found = True, jobs.do(id(message), function, *arguments)
        except Exception as error:
            found = False, error if travels(error) else RuntimeError(repr(error))
        with redis.pipeline() as told:
            told.rpush(address, signed.write(found))
            told.expire(address, ANSWER_KEPT)
            told.execute()

    @made.task(name="widepin.start")  # type: ignore[untyped-decorator]
    def start(message: str) -> None:
        function, arguments, limits, failed = _read(app, signed, message)
        app.extensions["jobs"].start(function, arguments, limits, failed)(limits.seconds + 10)

    @made.task(name="widepin.background")  # type: ignore[untyped-decorator]
    def go_on(message: str) -> None:
        name, function, arguments = _read(app, signed, message)
        background.run(app, name, function, arguments)

    options = ("--without-gossip", "--without-mingle", "--without-heartbeat")
    several = ("--pool=threads", f"--concurrency={at_once + 2}")  # what goes on for long is not to stop what is short
    made.worker_main(["worker", *several, "--loglevel=WARNING", f"--hostname={name}", *options])
    here.is_over.set()


def _read(app: Flask, signed: Signed, message: str) -> Any:
    try:
        return signed.read(message)
    except BadData:
        app.logger.error("somebody else writes to the queue: what was not signed with the school's key is not done")
        raise
