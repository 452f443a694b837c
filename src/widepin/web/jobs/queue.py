"""Long work handed to other machines: Celery brings it there, through the Redis that the configuration names.

What is done, its limits, and what comes of it are the same as on one machine (``apart.py``): a worker does it as this
process would. While the queue is away, or no worker is there, this machine does it itself, so that nobody waits longer
than for a moment. What is sent is signed with the school's key, since it is run.

Sources: Celery's documentation, "Configuration and defaults"; Redis', "Distributed locks" and ``BLPOP``.
"""

from __future__ import annotations

import pickle
import secrets
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from time import monotonic
from typing import Any, TypeVar

from celery import Celery  # type: ignore[import-untyped]
from flask import Flask
from itsdangerous import BadData, URLSafeTimedSerializer
from kombu.exceptions import OperationalError
from redis import Redis
from redis.exceptions import LockError, RedisError

from ... import program_digest
from ...documents.language import gettext as _
from .apart import Begun, Busy, Failed, JobQueue, Limits

Result = TypeVar("Result")

JUDGING = {"seconds": 20, "megabytes": 500, "waiting_each": 3}
"""What judging may take, and how much may wait for it for one person."""

WAITING, WAITING_FOR_WORKERS = 12, 60
"""How much may wait for judging in a process of the server, where that does it, and where workers do."""

PATIENCE = 2.0
"""Seconds after which a Redis that does not answer is given up."""

AWAY = 10.0
"""Seconds for which a queue that did not answer is not asked again."""

OURS = f"widepin:{program_digest()}"
"""How the queue of this version of the program is called, and all in Redis that only its processes understand: while an
upgrade goes from server to server, no worker is given what another version has sent."""

ALIVE = f"{OURS}:workers"
"""What any worker keeps in Redis as long as it is there."""

SILENCE = 5
"""Seconds after which a worker that says nothing has died."""

LOOK = 2
"""Seconds between two looks at whether a worker is still at a job."""

UNTAKEN = 4.0
"""Seconds after which a job that no worker has taken is done here: all are busy, or have lost the queue."""

LONGEST_ON_THE_WAY = 3600
"""Seconds after which what was sent is not done any more."""


def job_queue(app: Flask, scratch: Path) -> JobQueue:
    """Where an application has its long work done."""
    folder = scratch / "judging"
    folder.mkdir(mode=0o700, exist_ok=True)
    if app.config["QUEUE_URL"]:
        return SharedQueue(folder, app.config["QUEUE_URL"], app.config["SECRET_KEY"])
    return JobQueue(folder, waiting=WAITING, **JUDGING)


def celery_app(url: str) -> Celery:
    """Celery as both sides use it: it carries messages, and keeps no results."""
    made = Celery("widepin", broker=url, set_as_current=False)
    made.conf.update(
        task_default_queue=OURS,
        task_ignore_result=True,
        task_serializer="json",
        accept_content=["json"],
        task_acks_late=True,  # what a worker was at when it died is done by another one
        task_reject_on_worker_lost=True,
        worker_prefetch_multiplier=1,
        broker_connection_retry_on_startup=True,
        broker_transport_options={
            "visibility_timeout": 300,
            "socket_timeout": 2 * PATIENCE,
            "socket_connect_timeout": PATIENCE,
        },
        worker_hijack_root_logger=False,
    )
    return made


class Signed:
    """What is sent from one process of a school to another, as text that nobody else can have written."""

    def __init__(self, secret: str):
        self._signer = URLSafeTimedSerializer(secret, salt="jobs", serializer=pickle)

    def write(self, value: object) -> str:
        """As text."""
        made = self._signer.dumps(value)
        return made.decode() if isinstance(made, bytes) else made

    def read(self, text: str | bytes) -> Any:
        """What was written. Raises BadData for what this school has not written, or long ago."""
        return self._signer.loads(text, max_age=LONGEST_ON_THE_WAY)


class SharedQueue(JobQueue):
    """As a JobQueue, with the jobs done by workers; one at a time for a person whichever server takes them."""

    def __init__(self, folder: Path, url: str, secret: str):
        super().__init__(folder, waiting=WAITING_FOR_WORKERS, **JUDGING)
        self.redis = Redis.from_url(url, socket_timeout=LOOK + 2 * PATIENCE, socket_connect_timeout=PATIENCE)
        self.celery, self.signed = celery_app(url), Signed(secret)
        self._not_before = -AWAY
        self._there: tuple[float, bool] = (-AWAY, False)

    def do(self, whose: int, function: Callable[..., Result], *arguments: Any) -> Result:
        """As JobQueue's, from a worker."""
        if not self.has_workers():
            return super().do(whose, function, *arguments)
        until = monotonic() + self.seconds
        try:
            with self._in_line(whose), self._alone(whose, until):
                answer = self._from_worker(until, function, arguments)
        except (RedisError, OperationalError, OSError):
            self._is_away()
            return super().do(whose, function, *arguments)
        worked, result = answer
        if not worked:
            raise result
        return result  # type: ignore[no-any-return]

    def start(self, function: Callable[..., None], arguments: tuple[Any, ...], limits: Limits, failed: Failed) -> Begun:
        """As JobQueue's, by a worker; what is waited for then is for whoever asks to find out."""
        if self.send("start", (function, arguments, limits, failed)):
            return lambda seconds: None
        return super().start(function, arguments, limits, failed)

    def send(self, task: str, message: object, expires: float | None = None) -> bool:
        """Hand something to the workers; whether that could be done."""
        if not self.has_workers():
            return False
        try:
            self.celery.send_task(f"widepin.{task}", (self.signed.write(message),), expires=expires, retry=False)
        except (RedisError, OperationalError, OSError):
            self._is_away()
            return False
        return True

    def has_workers(self) -> bool:
        """Whether the queue answers and somebody works from it, as far as is known from a moment ago."""
        at = monotonic()
        if at < self._not_before:
            return False
        looked, there = self._there
        if at - looked > PATIENCE:
            try:
                there = bool(self.redis.exists(ALIVE))
            except (RedisError, OSError):
                self._is_away()
                return False
            self._there = at, there
        return there

    def _is_away(self) -> None:
        self._not_before = monotonic() + AWAY

    def _from_worker(self, until: float, function: Callable[..., Any], arguments: tuple[Any, ...]) -> tuple[bool, Any]:
        """What came of a job. Raises ConnectionError where no worker takes it, or one died at it; Busy where none is
        done in time.
        """
        left = max(1.0, until - monotonic())
        address = f"{OURS}:answer:{secrets.token_hex(12)}"
        message = self.signed.write((address, function, arguments))
        self.celery.send_task("widepin.answer", (message,), expires=left, retry=False)
        untaken = monotonic() + UNTAKEN
        while monotonic() < until + 1:
            came: Any = self.redis.blpop([address], timeout=LOOK)
            if came is not None:
                try:
                    return self.signed.read(came[1])  # type: ignore[no-any-return]
                except BadData:
                    raise ConnectionError("somebody else answers") from None
            taken_by: Any = self.redis.get(taken(address))
            if taken_by and not self.redis.exists(there(taken_by.decode())):
                raise ConnectionError("the worker has died")
            if monotonic() > untaken and take(self.redis, address, "a server"):
                raise ConnectionError("no worker takes it")
        raise Busy(_("Many works are being checked at the moment. Wait some seconds, then try again."))

    @contextmanager
    def _alone(self, whose: int, until: float) -> Iterator[None]:
        """Be the only job of a person, of all servers."""
        lock = self.redis.lock(f"widepin:person:{whose}", timeout=self.seconds + 10, sleep=0.05)
        if not lock.acquire(blocking_timeout=max(0.0, until - monotonic())):
            raise Busy(_("What you asked for before is still being worked on. Wait for it, then try again."))
        try:
            yield
        finally:
            with suppress(LockError, RedisError):  # it runs out by itself
                lock.release()


def there(worker: str) -> str:
    """What a worker keeps in Redis as long as it is there."""
    return f"{ALIVE}:{worker}"


def taken(address: str) -> str:
    """Where whoever has taken a job says so."""
    return f"{address}:taken"


def take(redis: Redis, address: str, who: str) -> bool:
    """Whether a job could be had, which is then nobody else's."""
    return bool(redis.set(taken(address), who, nx=True, ex=LONGEST_ON_THE_WAY))


class Here(threading.Thread):
    """Says in Redis that a worker is there, as long as it is."""

    def __init__(self, redis: Redis, worker: str):
        super().__init__(name="here", daemon=True)
        self.redis, self.worker, self.is_over = redis, worker, threading.Event()

    def run(self) -> None:
        """Until it is over."""
        while not self.is_over.is_set():
            with suppress(RedisError, OSError):  # the next time
                for name in (ALIVE, there(self.worker)):
                    self.redis.set(name, "1", ex=SILENCE)
            self.is_over.wait(SILENCE / 5)
