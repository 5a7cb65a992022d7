"""How gunicorn serves the application: gunicorn --config python:ruvak.web.serving --bind … ruvak.web.wsgi:app."""

import os
import signal
import socket
import struct
import tempfile

from gunicorn.arbiter import Arbiter
from gunicorn.workers.base import Worker

from ruvak.service.processes import end_with_parent
from ruvak.web.settings import METRICS_PORT, SHARED_FIGURES

worker_class = "ruvak.web.worker.Worker"
workers = 1
"""Computation has processes of its own, so one worker's threads answer everything else."""
threads = 64
"""Many more than there are cores: most of them wait for the database, for a computation, or for a slow sender."""
control_socket_disable = True
STALLED_AFTER_S = 4
"""A sender of whom nothing comes for so long is hung up on: a request sent by half must not hold its thread."""


def on_starting(_: Arbiter) -> None:
    """Before the application is imported: the folder through which workers share their figures. What counts looks for
    it when it is imported, so it is imported in functions here. Workers are forked from a process that has done what
    takes seconds."""
    if os.environ.get(METRICS_PORT):
        os.environ[SHARED_FIGURES] = tempfile.mkdtemp(prefix="ruvak-metrics-")
    from ruvak.web.app import warm_up

    warm_up()


def child_exit(_: Arbiter, worker: Worker) -> None:
    """A worker that ended counts no longer among those at work."""
    from ruvak.web import metrics

    metrics.forget(worker.pid)


def on_exit(_: Arbiter) -> None:
    """Leaves nothing of the figures."""
    from ruvak.web import metrics

    metrics.clear()


def when_ready(server: Arbiter) -> None:
    """Sets the time limit on what listens; accepted connections have it from there."""
    from ruvak.web import metrics

    metrics.serve()
    limit = struct.pack("ll", STALLED_AFTER_S, 0)
    for listener in server.LISTENERS:
        listener.sock.setsockopt(socket.SOL_SOCKET, socket.SO_RCVTIMEO, limit)


def post_fork(server: Arbiter, worker: Worker) -> None:
    """A worker does not outlive a killed master: it would keep the port, and its compute processes."""
    end_with_parent(signal.SIGKILL, server.pid)
