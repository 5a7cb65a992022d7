"""The application served on a database that is made for the moment and removed again: for pictures and speed."""

import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

import psycopg

from ruvak.service.upkeep import migrate
from script.shared import postgres
from script.shared.web_server import WebServer

CHECKOUT = Path(__file__).resolve().parents[2]


@dataclass(frozen=True)
class Throwaway:
    """A migrated, empty database, and how to serve it."""

    url: str

    @contextmanager
    def served(self, demo: bool = True) -> Iterator[str]:
        """The application's address, for as long as the block lasts; `demo`: its technician is signed in."""
        with tempfile.TemporaryDirectory() as logs:
            web = WebServer(self.url, Path(logs) / "web.log", demo)
            web.start()
            try:
                yield web.address
            finally:
                web.stop()


@contextmanager
def throwaway(name: str) -> Iterator[Throwaway]:
    """A database server of its own under the checkout; nothing is left of it. Raises ServerProblem."""
    folder = postgres.folder_for(CHECKOUT, f"{name}-database")
    postgres.remove(folder)
    server = postgres.start(folder)
    try:
        with psycopg.connect(server.url("postgres").replace("+psycopg", ""), autocommit=True) as connection:
            connection.execute("CREATE DATABASE throwaway")
        url = server.url("throwaway")
        migrate(url)
        yield Throwaway(url)
    finally:
        postgres.remove(folder)
