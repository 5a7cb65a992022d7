"""Serves the app on a private database until Ctrl-C; stops everything it started and keeps the data."""

import argparse
import contextlib
import os
import secrets
import signal
import socket
import ssl
import sys
import time
import urllib.request
from collections.abc import Callable, Iterator
from datetime import datetime
from functools import partial
from http.server import ThreadingHTTPServer
from importlib import import_module
from multiprocessing import get_context
from multiprocessing.context import ForkProcess
from pathlib import Path
from types import FrameType

import psycopg
from psycopg import sql

from ruvak.core.errors import RuvakError
from ruvak.service.processes import end_with_parent
from ruvak.standins import lead_tester
from script.shared import postgres
from script.shared.lan import Lan, lan_of

CHECKOUT = Path(__file__).resolve().parents[2]
STATE = CHECKOUT / ".ruvak"
DATABASE = "ruvak"
DEFAULT_PORT = 8140
LOOKED_AFTER_S, REVIVED_WITHIN_S = 1.0, 10
"""How often the database is looked after, and for how long it is started again."""
SIGNED_IN = "A browser on this computer is signed in there as the demo technician; nobody else is."
MOST_IN_VAIN = 4
"""A web server that so often in a row stops before it has answered is not started again."""


class Stop(Exception):
    """Something a person has to put right; the message says what and how."""


def main() -> int:
    """0 after an orderly stop, 1 with a sentence otherwise."""
    options = _options()
    # Both by name: a shell that starts this in the background has SIGINT ignored.
    signal.signal(signal.SIGINT, _interrupt)
    signal.signal(signal.SIGTERM, _interrupt)
    try:
        with _only_one(options.port):
            _port_is_free(options.port)
            _serve(options.port, options.fresh, options.lan)
    except KeyboardInterrupt:
        print("\nStopped; everything is kept.")
    except (Stop, postgres.ServerProblem, RuvakError) as problem:
        print(f"ruvak: {problem}", file=sys.stderr)
        return 1
    except OSError as problem:
        print(f"ruvak: {problem.filename or STATE}: {problem.strerror}.", file=sys.stderr)
        return 1
    return 0


def _options() -> argparse.Namespace:
    parser = argparse.ArgumentParser(prog="script/demo", description=__doc__)
    parser.add_argument("--port", type=int, default=DEFAULT_PORT, help=f"where to serve ({DEFAULT_PORT})")
    parser.add_argument(
        "--lan", action="store_true", help="serve to phones of this network too, by HTTPS with a certificate made here"
    )
    parser.add_argument("--fresh", action="store_true", help="back everything up, then start over with the demo rig")
    return parser.parse_args()


def _interrupt(_number: int, _frame: FrameType | None) -> None:
    raise KeyboardInterrupt


@contextlib.contextmanager
def _only_one(port: int) -> Iterator[None]:
    """Refuses to start twice on one checkout; clears away what a killed server left running."""
    note = STATE / "demo.pid"
    if note.exists():
        words = note.read_text(encoding="utf-8").split()
        if len(words) >= 2 and _is_demo(words[0]):
            raise Stop(
                f"Ruvak already runs from this checkout at http://127.0.0.1:{words[1]} (process {words[0]}). "
                f"Use it there, or stop it with Ctrl-C in its window or with: kill {words[0]}"
            )
        print("The last server here did not stop properly; clearing up after it. Nothing saved is lost.", flush=True)
        for orphan in filter(_is_demo, words[2:]):
            os.kill(int(orphan), signal.SIGTERM)
            _until(partial(_is_gone, orphan), 10)
    _note(port)
    try:
        yield
    finally:
        note.unlink(missing_ok=True)


def _note(port: int, *children: int) -> None:
    """Who runs here and where, for the next start to find."""
    words = " ".join(str(word) for word in (os.getpid(), port, *children))
    (STATE / "demo.pid").write_text(f"{words}\n", encoding="utf-8")


def _is_demo(process: str) -> bool:
    with contextlib.suppress(OSError):
        return b"script.shared.demo" in Path(f"/proc/{process}/cmdline").read_bytes()
    return False


def _is_gone(process: str) -> bool:
    return not _is_demo(process)


def _until(reached: Callable[[], bool], seconds: float) -> bool:
    """Waits for something to become true; tells whether it did."""
    for _ in range(int(seconds * 20)):
        if reached():
            return True
        time.sleep(0.05)
    return False


def _port_is_free(port: int) -> None:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError as problem:
            sentence = f"Something else already listens on port {port}. Start with: script/demo --port {port + 1}"
            raise Stop(sentence) from problem
        except OverflowError as problem:
            raise Stop(f"{port} is no port number; choose one from 1024 to 65535.") from problem


def _serve(port: int, fresh: bool, lan: bool) -> None:
    folder = postgres.folder_for(CHECKOUT, "database")
    server = postgres.start(folder)
    try:
        environment = {
            "RUVAK_DATABASE_URL": server.url(DATABASE),
            "RUVAK_SECRET_FILE": str(_secret()),
            "RUVAK_DEMO": "1",
        }
        environment |= _simulated_tester()
        network = lan_of(STATE / "certificates", port) if lan else None
        if network is not None:
            environment |= network.environment()
        _write_private(STATE / "environment", "".join(f"{name}='{value}'\n" for name, value in environment.items()))
        _prepare(server, fresh)
        _keep_up(server, port, environment, network)
    finally:
        # A second Ctrl-C must not leave the database running.
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        (STATE / "environment").unlink(missing_ok=True)
        postgres.stop(folder)


def _simulated_tester() -> dict[str, str]:
    """A simulated lead tester on a free port of loopback, for as long as this process runs, and where it is."""
    tester = lead_tester.listen()
    get_context("fork").Process(target=_test_leads, args=(tester, os.getpid()), daemon=True).start()
    tester.server_close()
    return {"RUVAK_TESTER": f"http://127.0.0.1:{tester.server_port}"}


def _test_leads(tester: ThreadingHTTPServer, parent: int) -> None:
    end_with_parent(signal.SIGKILL, parent)
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    tester.serve_forever()


def _keep_up(server: postgres.Server, port: int, environment: dict[str, str], network: Lan | None = None) -> None:
    """Serves until somebody stops it; a web server or a database that stops by itself is started again, and said so.
    Raises Stop where the web server never answers."""
    here = f"{'https' if network else 'http'}://127.0.0.1:{port}"
    words, in_vain = f"Ruvak is at {here}   (Ctrl-C stops it and keeps everything)\n{SIGNED_IN}", 0
    if network is not None:
        words += f"\n{network.words()}"
    while in_vain < MOST_IN_VAIN:
        with _web(port, environment, network) as web:
            _note(port, web.pid or 0)
            if not _until(partial(_is_up, server, web, here, network), 30):
                raise Stop("The web server did not answer within 30 seconds; see .ruvak/web.log.")
            in_vain += 1
            if web.is_alive():
                print(words, flush=True)
                in_vain = 0
            while web.is_alive():
                revive(server)
                web.join(timeout=LOOKED_AFTER_S)
        print("The web server stopped by itself; starting it again. What was saved is safe.", flush=True)
        words = f"Ruvak is back at {here}"
    raise Stop("The web server stops as soon as it is started; see .ruvak/web.log.")


def _is_up(server: postgres.Server, web: ForkProcess, here: str, network: Lan | None) -> bool:
    """Whether the web server answers, or has stopped again: it answers only with a database."""
    revive(server)
    return not web.is_alive() or _answers(here, network)


def revive(server: postgres.Server) -> None:
    """Starts a database again that no longer answers, on its data and its port. Raises ServerProblem."""
    if postgres.answers(server):
        return
    print("The database stopped by itself; starting it again. What was saved is safe.", flush=True)
    for tries_left in range(REVIVED_WITHIN_S, -1, -1):
        # What a killed server leaves in memory may need a moment to go.
        try:
            postgres.start(server.folder, server.port)
            break
        except postgres.ServerProblem:
            if not tries_left:
                raise
            time.sleep(1.0)
    print("The database is back.", flush=True)


def _prepare(server: postgres.Server, fresh: bool) -> None:
    """The database, its schema and the demo rig; with `fresh`, a backup of the old one first."""
    # Imported here because it takes seconds; a taken port or a broken database should be told at once.
    from ruvak.service.demo_data import add_demo
    from ruvak.service.upkeep import back_up, migrate

    address = server.url("postgres").replace("+psycopg", "")
    with psycopg.connect(address, autocommit=True) as connection:
        exists = connection.execute("SELECT 1 FROM pg_database WHERE datname = %s", (DATABASE,)).fetchone()
        if exists and fresh:
            file = STATE / "backups" / f"{datetime.now().astimezone():%Y-%m-%d-%H%M%S}.backup"
            file.parent.mkdir(exist_ok=True)
            back_up(server.url(DATABASE), file)
            print(f"Backed everything up to {file.relative_to(CHECKOUT)}; script/ruvak restore brings it back.")
            connection.execute(sql.SQL("DROP DATABASE {}").format(sql.Identifier(DATABASE)))
            exists = None
        if not exists:
            connection.execute(sql.SQL("CREATE DATABASE {}").format(sql.Identifier(DATABASE)))
    migrate(server.url(DATABASE))
    add_demo(server.url(DATABASE))
    # The web server is forked from here, whenever it has to be started again.
    import_module("ruvak.web.app").warm_up()


def _secret() -> Path:
    """The key that signs cookies; made once, so that a restart keeps everybody's undo."""
    file = STATE / "secret"
    if not file.exists():
        _write_private(file, secrets.token_urlsafe(48))
    return file


def _write_private(file: Path, text: str) -> None:
    file.touch(mode=0o600)
    file.chmod(0o600)
    file.write_text(text, encoding="utf-8")


@contextlib.contextmanager
def _web(port: int, environment: dict[str, str], network: Lan | None) -> "Iterator[ForkProcess]":
    """The web server, ended with the block. Forked, because everything it needs is imported already."""
    web = get_context("fork").Process(target=_gunicorn, args=(port, environment, network))
    web.start()
    try:
        yield web
    finally:
        web.terminate()
        web.join(timeout=10)


def _gunicorn(port: int, environment: dict[str, str], network: Lan | None) -> None:
    from gunicorn.app.wsgiapp import run

    os.setsid()  # Ctrl-C reaches the parent alone, which then stops this in order.
    signal.signal(signal.SIGTERM, signal.SIG_DFL)
    os.environ.update(environment)
    with (STATE / "web.log").open("ab") as log:
        os.dup2(log.fileno(), 1)
        os.dup2(log.fileno(), 2)
    sys.argv = [
        "gunicorn",
        "--config=python:ruvak.web.serving",
        *(network.arguments() if network else ("--bind", f"127.0.0.1:{port}")),
        "ruvak.web.wsgi:app",
    ]
    run()


def _answers(here: str, network: Lan | None = None) -> bool:
    context = ssl.create_default_context(cafile=network.certificate.authority) if network else None
    # Refused while it starts, or slow at first; both only mean: not yet.
    with contextlib.suppress(OSError), urllib.request.urlopen(f"{here}/api/ready", timeout=2, context=context) as got:
        return bool(got.status == 200)
    return False


if __name__ == "__main__":
    sys.exit(main())
