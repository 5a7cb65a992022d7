"""The application under gunicorn, and the Chromium that looks at it: for browser tests and screenshots."""

import contextlib
import os
import signal
import subprocess
import time
import urllib.request
from pathlib import Path

from script.shared.postgres import free_port

SHELL, WHOLE = "/usr/bin/chromium-headless-shell", "/usr/bin/chromium"
CHROMIUM = SHELL if Path(SHELL).exists() else WHOLE
"""Debian's Chromium: the shell without windows takes a fifth less processor time than the whole browser."""
ARGUMENTS = [
    "--disable-gpu",
    "--disable-dev-shm-usage",
    "--disable-background-networking",
    "--disable-component-update",
    "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1",
]


LONGEST_START_S = 300


class WebServer:
    """gunicorn on a fixed port; can be stopped and started again, as after a power cut. `settings`: of the environment,
    by name."""

    def __init__(self, url: str, log: Path, demo: bool = True, **settings: str) -> None:
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self._environment = {**os.environ, "RUVAK_DATABASE_URL": url, "RUVAK_SECRET_KEY": "test-secret"}
        self._environment["RUVAK_DEMO"] = "1" if demo else ""
        self._environment |= settings
        # One is enough for one browser, and starts sooner than one a core.
        self._environment.setdefault("RUVAK_COMPUTE_PROCESSES", "1")
        self._log = log
        self._process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        """Starts and waits until it answers."""
        command = [
            ".venv/bin/gunicorn",
            "--config=python:ruvak.web.serving",
            "--bind",
            f"127.0.0.1:{self.port}",
            "ruvak.web.wsgi:app",
        ]
        # A file, because a pipe nobody reads fills up and stops the server.
        with self._log.open("ab") as log:
            self._process = subprocess.Popen(
                command, env=self._environment, stdout=log, stderr=log, start_new_session=True
            )
        wait_until_ready(self.address, self._log, self._process)

    def stop(self) -> None:
        """Stops it; the database stays."""
        if self._process is not None:
            self._process.terminate()
            self._process.wait(timeout=120)
            self._process = None

    def kill(self) -> None:
        """Takes it away with all its processes, without a word."""
        if self._process is not None:
            os.killpg(self._process.pid, signal.SIGKILL)
            self._process.wait(timeout=30)
            self._process = None


def wait_until_ready(address: str, log: Path, process: "subprocess.Popen[bytes] | None" = None) -> None:
    """Until a server answers with its database. Raises RuntimeError with its log where its process has ended, or not
    even a busy machine takes so long."""
    end = time.monotonic() + LONGEST_START_S
    while time.monotonic() < end and (process is None or process.poll() is None):
        with contextlib.suppress(OSError), urllib.request.urlopen(f"{address}/api/ready", timeout=30):
            return
        time.sleep(0.1)
    raise RuntimeError(f"The web server did not start:\n{log.read_text()}")
