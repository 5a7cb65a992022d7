"""The engine and its sessions, from one URL; migrations are applied with upgrade()."""

from functools import lru_cache
from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Engine, create_engine
from sqlalchemy.orm import Session, sessionmaker

MIGRATIONS = Path(__file__).parent / "migrations"


def engine_for(url: str) -> Engine:
    """A pooled engine that notices a restarted server before it hands out a connection."""
    return create_engine(url, pool_pre_ping=True, pool_size=5, max_overflow=5, connect_args={"connect_timeout": 5})


def sessions_for(engine: Engine) -> sessionmaker[Session]:
    """Sessions that keep their objects readable after commit."""
    return sessionmaker(engine, expire_on_commit=False)


def migrations(url: str) -> Config:
    """Alembic's configuration for a database, without any file of its own."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.set_main_option("sqlalchemy.url", url.replace("%", "%%"))
    return config


def upgrade(url: str, revision: str = "head") -> None:
    """Brings the schema to a revision, keeping the data."""
    command.upgrade(migrations(url), revision)


def is_current(engine: Engine) -> bool:
    """Whether the database has the schema of this version. Raises OperationalError where it does not answer."""
    with engine.connect() as connection:
        return MigrationContext.configure(connection).get_current_heads() == _newest()


@lru_cache(maxsize=1)
def _newest() -> tuple[str, ...]:
    """The newest revision of this version's migrations: readiness is asked for often, and they do not change."""
    return tuple(ScriptDirectory.from_config(migrations("")).get_heads())
