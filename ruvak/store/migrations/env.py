"""Alembic's entry: runs migrations on the URL that ruvak.store.database.migrations() was given."""

from alembic import context
from sqlalchemy import create_engine

from ruvak.store import house, log, people, photos  # noqa: F401
from ruvak.store.tables import Base

url = context.config.get_main_option("sqlalchemy.url")
if url is None:
    raise SystemExit("No database URL: run migrations through ruvak.store.database.upgrade().")
engine = create_engine(url)
with engine.connect() as connection:
    context.configure(connection=connection, target_metadata=Base.metadata)
    with context.begin_transaction():
        context.run_migrations()
engine.dispose()
