"""Figures for whoever runs the server, in Prometheus' format on a port of their own that is never the application's."""

import os
import shutil
import time

from flask import Flask, Response, g, request
from prometheus_client import CollectorRegistry, Counter, Histogram, multiprocess, start_http_server

from ruvak.web.settings import METRICS_PORT, SHARED_FIGURES

REQUESTS = Counter("ruvak_requests_total", "Requests answered", ["endpoint", "method", "status"])
SECONDS = Histogram(
    "ruvak_request_seconds",
    "Time until a request was answered",
    ["endpoint"],
    buckets=(0.005, 0.02, 0.05, 0.1, 0.25, 0.5, 1.0, 2.0, 5.0, 10.0, 30.0),
)


def init_app(app: Flask) -> None:
    """Counts every request by its endpoint; addresses are not among the figures, since they name rigs."""

    def end(response: Response) -> Response:
        endpoint = request.endpoint or "none"
        REQUESTS.labels(endpoint, request.method, response.status_code).inc()
        # As the log has it: both count from the request's beginning.
        SECONDS.labels(endpoint).observe(time.perf_counter() - g.started)
        return response

    app.after_request(end)


def serve() -> None:
    """From the master process, for all workers; on loopback only."""
    if port := os.environ.get(METRICS_PORT):
        registry = CollectorRegistry()
        multiprocess.MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
        start_http_server(int(port), addr="127.0.0.1", registry=registry)


def forget(pid: int) -> None:
    """Of a worker that has ended."""
    if os.environ.get(SHARED_FIGURES):
        multiprocess.mark_process_dead(pid)  # type: ignore[no-untyped-call]


def clear() -> None:
    """When the server ends."""
    if folder := os.environ.get(SHARED_FIGURES):
        shutil.rmtree(folder, ignore_errors=True)
