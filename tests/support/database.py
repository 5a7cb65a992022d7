"""A database of its own for every test class, on the server that script/test started."""

import os
import unittest
import uuid

import psycopg
from psycopg import sql
from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.rig.edits import Edit, SetField
from ruvak.service.edits import Edits
from ruvak.service.kept import KeptRigs
from ruvak.service.rigs import Rigs
from ruvak.service.upkeep import migrate
from ruvak.store.database import engine_for, sessions_for


def new_database() -> str:
    """Creates an empty database; its SQLAlchemy address."""
    server = os.environ.get("RUVAK_TEST_SERVER")
    if server is None:
        raise unittest.SkipTest("needs the PostgreSQL that script/test starts")
    name = f"test_{uuid.uuid4().hex[:12]}"
    with psycopg.connect(server.replace("+psycopg", ""), autocommit=True) as connection:
        connection.execute(sql.SQL("CREATE DATABASE {}").format(sql.Identifier(name)))
    return server.rsplit("/", 1)[0] + f"/{name}"


def process_at(url: str) -> tuple[Rigs, Edits]:
    """The use cases as another process has them: with nothing kept yet."""
    sessions, kept = sessions_for(engine_for(url)), KeptRigs()
    return Rigs(sessions, kept), Edits(sessions, kept)


def length(metres: float) -> Edit:
    """Of the demo rig's long lead."""
    return Edit(label=f"{metres} m", ops=(SetField(kind="kit", id="lead-31", field="length_m", value=metres),))


class DatabaseTest(unittest.TestCase):
    """`url`, `rigs` and `edits` of a migrated, empty database."""

    url: str
    rigs: Rigs
    edits: Edits
    sessions: sessionmaker[Session]

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.url = new_database()
        migrate(cls.url)
        cls.rigs, cls.edits = process_at(cls.url)
        cls.sessions = sessions_for(engine_for(cls.url))
