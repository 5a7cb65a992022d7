"""The application as gunicorn serves it: what clients that stall may not do."""

import socket
import tempfile
import urllib.request
from pathlib import Path

from ruvak.service.pool import MOST_TOGETHER
from ruvak.web import serving
from script.shared.web_server import WebServer
from tests.support.database import DatabaseTest

HALF_A_HEAD = b"GET /api/health HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: "
HALF_A_BODY = (
    b"POST /api/rigs HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 90000\r\n\r\n{"
)


class Stalled(DatabaseTest):
    def test_more_half_sent_requests_than_threads_are_hung_up_on_and_others_are_answered(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            web = WebServer(self.url, Path(folder) / "web.log")
            web.start()
            self.addCleanup(web.stop)
            stalled = [socket.create_connection(("127.0.0.1", web.port)) for _ in range(serving.threads + 6)]
            for number, each in enumerate(stalled):
                each.sendall(HALF_A_HEAD if number % 2 else HALF_A_BODY)
            with urllib.request.urlopen(f"{web.address}/api/health", timeout=60) as answered:
                self.assertEqual(answered.status, 200)
            for each in stalled[:2]:
                each.settimeout(60)
                # The end of the connection, perhaps after an answer that refuses.
                while each.recv(4096):
                    pass
            for each in stalled:
                each.close()

    def test_what_is_computed_leaves_threads_for_everything_else(self) -> None:
        self.assertGreaterEqual(serving.threads, MOST_TOGETHER + 16)
