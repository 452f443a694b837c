"""Counts and times of requests by endpoint, and of sign-ins, for Prometheus. No person can be told from them."""

from __future__ import annotations

import os
from time import perf_counter

from flask import Flask, Response, g, request
from prometheus_client import REGISTRY, CollectorRegistry, Counter, Histogram, generate_latest, multiprocess

from .static_files import ENDPOINTS as STATIC

SECONDS = Histogram(
    "widepin_request_seconds",
    "Time of requests",
    ("endpoint", "method"),
    buckets=(0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10),
)
ANSWERS = Counter("widepin_answers", "Answers by status", ("endpoint", "status"))
SIGN_INS = Counter("widepin_sign_ins", "Tries to sign in by how they ended", ("outcome",))


def measure(app: Flask) -> None:
    """Time every request, and count how it was answered."""
    app.before_request(_begin)
    app.after_request(_end)


def _begin() -> None:
    g.begun = perf_counter()


def _end(response: Response) -> Response:
    endpoint = request.endpoint or "none"
    if endpoint not in STATIC:
        SECONDS.labels(endpoint, request.method).observe(seconds())
        ANSWERS.labels(endpoint, str(response.status_code)).inc()
    return response


def seconds() -> float:
    """How long this request has taken so far."""
    return perf_counter() - g.begun if "begun" in g else 0.0


def collected() -> bytes:
    """What all processes of the server have counted together, in Prometheus' text format."""
    if "PROMETHEUS_MULTIPROC_DIR" not in os.environ:
        return generate_latest(REGISTRY)
    registry = CollectorRegistry()
    multiprocess.MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
    return generate_latest(registry)
