"""gunicorn's threaded worker, which hangs up beside its main loop: the few seconds that it lingers for a client that
has not sent everything must not keep others from being accepted."""

from concurrent.futures import Future
from typing import Any

from gunicorn.workers.gthread import TConn, ThreadWorker


class Worker(ThreadWorker):  # type: ignore[misc]
    """As gunicorn's, but for closing connections."""

    def finish_request(self, conn: TConn, fs: "Future[Any]") -> None:
        """As gunicorn's."""
        if "close" not in vars(conn):
            close = conn.close

            def close_beside(graceful: bool = False) -> None:
                try:
                    self.tpool.submit(close, graceful)
                except RuntimeError:
                    # The worker is about to end.
                    close(graceful)

            conn.close = close_beside
        super().finish_request(conn, fs)
