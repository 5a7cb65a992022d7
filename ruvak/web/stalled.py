"""Bodies of requests whose sender stalls: reading gives up once, not again at every further attempt."""

from collections.abc import Callable, Iterable, Iterator
from typing import Any

from flask import Flask
from werkzeug.exceptions import RequestTimeout

Wsgi = Callable[[dict[str, Any], Any], Iterable[bytes]]


def init_app(app: Flask) -> None:
    """Wraps what the server gives the app to read from."""
    serve: Wsgi = app.wsgi_app

    def serve_with_patience(environ: dict[str, Any], start_response: Any) -> Iterable[bytes]:
        environ["wsgi.input"] = Body(environ["wsgi.input"])
        return serve(environ, start_response)

    app.wsgi_app = serve_with_patience  # type: ignore[method-assign]


class Body:
    """A request's body; where nothing came for the time limit of its connection, it is answered with 408."""

    def __init__(self, body: Any) -> None:
        self._body, self._is_stalled = body, False

    def read(self, *size: int) -> bytes:
        """As a file. Raises RequestTimeout."""
        return self._ask(self._body.read, *size)

    def readline(self, *size: int) -> bytes:
        """As a file. Raises RequestTimeout."""
        return self._ask(self._body.readline, *size)

    def __iter__(self) -> Iterator[bytes]:
        while line := self.readline():
            yield line

    def _ask(self, ask: Callable[..., bytes], *size: int) -> bytes:
        if self._is_stalled:
            raise RequestTimeout
        try:
            return ask(*size)
        except BlockingIOError as stalled:
            self._is_stalled = True
            raise RequestTimeout from stalled
