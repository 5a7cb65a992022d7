"""A database of its own for every test class, on the server that script/test started."""

import os
import unittest
import uuid

import psycopg
from psycopg import sql

from ruvak.service.rigs import Rigs
from ruvak.service.upkeep import migrate, rigs_at


def new_database() -> str:
    """Creates an empty database; its SQLAlchemy address."""
    server = os.environ.get("RUVAK_TEST_SERVER")
    if server is None:
        raise unittest.SkipTest("needs the PostgreSQL that script/test starts")
    name = f"test_{uuid.uuid4().hex[:12]}"
    with psycopg.connect(server.replace("+psycopg", ""), autocommit=True) as connection:
        connection.execute(sql.SQL("CREATE DATABASE {}").format(sql.Identifier(name)))
    return server.rsplit("/", 1)[0] + f"/{name}"


class DatabaseTest(unittest.TestCase):
    """`url` and `rigs` of a migrated, empty database."""

    url: str
    rigs: Rigs

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.url = new_database()
        migrate(cls.url)
        cls.rigs = rigs_at(cls.url)
