"""Two application servers on one database behind nginx, one of which may be killed at any time."""

import contextlib
import os
import shutil
import subprocess
import threading
import time
from pathlib import Path

from script.shared.postgres import free_port
from script.shared.web_server import WebServer, wait_until_ready

UNPACKED = Path(".ruvak/nginx/usr/sbin/nginx")
KILL_EVERY_S, DOWN_FOR_S = 12.0, 3.0
_CONFIGURATION = """\
daemon off;
pid {folder}/nginx.pid;
error_log {folder}/error.log;
worker_processes 1;
events {{ worker_connections 256; }}
http {{
    access_log off;
    client_body_temp_path {folder}/body;
    proxy_temp_path {folder}/proxy;
    fastcgi_temp_path {folder}/fastcgi;
    uwsgi_temp_path {folder}/uwsgi;
    scgi_temp_path {folder}/scgi;
    upstream ruvak {{
        server 127.0.0.1:{first} max_fails=1 fail_timeout=1s;
        server 127.0.0.1:{second} max_fails=1 fail_timeout=1s;
    }}
    server {{
        listen 127.0.0.1:{port};
        client_max_body_size 4m;
        # Held in memory: started by root, its workers may not write into the folder.
        client_body_buffer_size 4m;
        proxy_max_temp_file_size 0;
        location / {{
            proxy_pass http://ruvak;
            proxy_set_header Host $http_host;
            proxy_http_version 1.1;
            # An edit carries its own id, so it may be sent to the other server too.
            proxy_next_upstream error timeout non_idempotent;
            proxy_connect_timeout 2s;
        }}
    }}
}}
"""


class TwoServers:
    """As a WebServer: one address, which can be stopped and started. `kill(0)` and `kill(1)` take one server away."""

    def __init__(self, url: str, log: Path, demo: bool = True) -> None:
        self.servers = tuple(WebServer(url, log.with_name(f"{log.name}.{number}"), demo) for number in (0, 1))
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self._folder = log.with_name(f"{log.name}.nginx")
        self._nginx: subprocess.Popen[bytes] | None = None
        self._ending, self._kills = threading.Event(), False
        self._killer: threading.Thread | None = None

    def start(self) -> None:
        """Starts all three and waits until they answer."""
        for server in self.servers:
            server.start()
        self._folder.mkdir(exist_ok=True)
        first, second = (server.port for server in self.servers)
        file = self._folder / "nginx.conf"
        file.write_text(_CONFIGURATION.format(folder=self._folder, first=first, second=second, port=self.port))
        command = [nginx(), "-c", str(file), "-p", str(self._folder), "-e", str(self._folder / "error.log")]
        self._nginx = subprocess.Popen(command)
        wait_until_ready(self.address, self._folder / "error.log")
        if self._kills:
            self.keep_killing()

    def stop(self) -> None:
        """Stops all three; the database stays."""
        self._ending.set()
        if self._killer is not None:
            self._killer.join()
        if self._nginx is not None:
            self._nginx.terminate()
            self._nginx.wait(timeout=30)
            self._nginx = None
        for server in self.servers:
            server.stop()

    def kill(self, number: int) -> None:
        """Takes one server away, with all its processes, without a word."""
        self.servers[number].kill()

    def revive(self, number: int) -> None:
        """Starts a killed one again."""
        self.servers[number].start()

    def keep_killing(self) -> None:
        """From now on one of them after the other is killed every few seconds, and started again."""
        self._kills = True
        self._ending.clear()
        self._killer = threading.Thread(target=self._kill_in_turn, daemon=True)
        self._killer.start()

    def _kill_in_turn(self) -> None:
        number = 0
        while not self._ending.wait(KILL_EVERY_S):
            with contextlib.suppress(RuntimeError):
                self.kill(number)
                time.sleep(DOWN_FOR_S)
                self.revive(number)
            number = 1 - number


def nginx() -> str:
    """Debian's nginx: unpacked by the set-up, or the machine's own."""
    found = str(UNPACKED) if UNPACKED.exists() else shutil.which("nginx", path=f"{os.environ['PATH']}:/usr/sbin")
    if found is None:
        raise RuntimeError("nginx is missing; script/test unpacks it.")
    return found
