"""JSON logs, one line an event, each with its request's id."""

import logging
import sys
import time
import uuid

from flask import Flask, Response, g, has_request_context, request
from pythonjsonlogger.json import JsonFormatter

log = logging.getLogger("ruvak.request")


class _RequestId(logging.Filter):
    def filter(self, record: logging.LogRecord) -> bool:
        record.request_id = getattr(g, "request_id", None) if has_request_context() else None
        return True


def configure() -> None:
    """Sends everything of ours to standard error as JSON."""
    handler = logging.StreamHandler(sys.stderr)
    handler.setFormatter(JsonFormatter("%(asctime)s %(levelname)s %(name)s %(message)s %(request_id)s"))
    handler.addFilter(_RequestId())
    root = logging.getLogger("ruvak")
    root.handlers[:] = [handler]
    root.setLevel(logging.INFO)
    root.propagate = False


def init_app(app: Flask) -> None:
    """Gives each request an id, logs it when answered, and returns the id to the caller."""

    def begin() -> None:
        g.request_id = uuid.uuid4().hex[:16]
        g.started = time.perf_counter()

    def end(response: Response) -> Response:
        response.headers["X-Request-Id"] = g.request_id
        milliseconds = round(1000 * (time.perf_counter() - g.started), 1)
        details = {"method": request.method, "path": request.path, "status": response.status_code, "ms": milliseconds}
        log.info("request", extra=details)
        return response

    app.before_request(begin)
    app.after_request(end)
