"""How gunicorn serves the app; the address and the settings of the app come from whoever starts it.

Source: gunicorn's documentation, "Settings".
"""

from __future__ import annotations

import gc
import os
import subprocess
import sys
from typing import Any

from ..economy.kept_kernel import is_compiled
from .mariadb import end_with_parent

wsgi_app = "widepin.web.app:from_environment()"
preload_app = True
workers = int(os.environ.get("WIDEPIN_WORKERS", "2"))
# Threads that wait for the database or for the judge cost nothing; pages go on being served beside them.
threads = 16
keepalive = 15
graceful_timeout = 5
forwarded_allow_ips = "127.0.0.1,::1"  # who asks is told by the proxies that the app is set to trust, and nobody else
loglevel = "warning"


def when_ready(server: Any) -> None:
    """Before workers are forked: what all of them would compute for their first board is there, and shared."""
    from ..web.drawing.views import book

    book()
    gc.freeze()  # what is loaded stays, and need not be looked through again and again
    if not is_compiled():
        subprocess.Popen(
            [sys.executable, "-c", "from widepin.economy import kernel; kernel.compile_all()"],
            preexec_fn=_beside_the_rest,
        )


def _beside_the_rest() -> None:
    end_with_parent()
    os.nice(19)


def post_fork(server: Any, worker: Any) -> None:
    """A worker ends with the main process, however that ends, so that the port is free again at once."""
    end_with_parent()
    if os.getppid() != server.pid:  # it ended before the kernel was asked
        os._exit(1)


def child_exit(server: Any, worker: Any) -> None:
    """What a worker that has ended had counted is kept; what it had open is not."""
    from prometheus_client import multiprocess

    multiprocess.mark_process_dead(worker.pid)  # type: ignore[no-untyped-call]


def post_worker_init(worker: Any) -> None:
    """The first work that is judged waits for nothing to be loaded; what comes again and again begins."""
    from ..web.jobs.apart import warm_up
    from ..web.jobs.recurring import keep_going

    warm_up()
    keep_going(worker.wsgi)
