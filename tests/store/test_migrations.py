"""Migrations on data: up to date with the tables, and repeatable without loss."""

import unittest

from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import create_engine, inspect, text

from ruvak.service.states import Person
from ruvak.service.upkeep import migrate, rigs_at
from ruvak.store.database import migrations
from ruvak.store.tables import Base
from tests.support.database import new_database
from tests.support.rigs import demo_rig


class Migrations(unittest.TestCase):
    def test_the_migrated_schema_is_the_tables(self) -> None:
        url = new_database()
        migrate(url)
        with create_engine(url).connect() as connection:
            self.assertEqual(compare_metadata(MigrationContext.configure(connection), Base.metadata), [])

    def test_there_is_one_line_of_revisions(self) -> None:
        self.assertEqual(len(ScriptDirectory.from_config(migrations("postgresql://")).get_heads()), 1)

    def test_migrating_again_keeps_the_data(self) -> None:
        url = new_database()
        migrate(url)
        saved = rigs_at(url).imported(demo_rig(), Person(id="a", name="A")).rig
        migrate(url)
        self.assertEqual(rigs_at(url).exported(saved.id), saved)

    def test_what_was_saved_before_installed_lines_is_still_there_after(self) -> None:
        url = new_database()
        command.upgrade(migrations(url), "0001")
        with create_engine(url).begin() as connection:
            for statement in (
                "INSERT INTO venue VALUES ('v', 'Hall', 50)",
                "INSERT INTO rig (id, venue_id, name, occasion, length_unit, alignment, assumptions, version)"
                " VALUES ('r', 'v', 'Old', '', 'm', '{}', '{}', 3)",
                "INSERT INTO part (rig_id, id, position, revision, body) VALUES ('r', 'p', 0, 1, '{}')",
                "INSERT INTO kit_item (rig_id, id, position, tag, part_id, length_m, owned)"
                " VALUES ('r', 'k', 0, 'M1', 'p', 5, true)",
                "INSERT INTO run (rig_id, id, position, number, name) VALUES ('r', 'one', 0, 1, 'One')",
                "INSERT INTO join_of_run (rig_id, run_id, position, a_end, b_end) VALUES ('r', 'one', 0, 'a.b', 'c.d')",
            ):
                connection.execute(text(statement))
        command.upgrade(migrations(url), "head")
        with create_engine(url).connect() as connection:
            kit = connection.execute(text("SELECT tag, installed FROM kit_item")).one()
            run = connection.execute(text("SELECT name, note FROM run")).one()
            join = connection.execute(text("SELECT a_end, sleeve FROM join_of_run")).one()
        self.assertEqual([tuple(kit), tuple(run), tuple(join)], [("M1", False), ("One", ""), ("a.b", None)])

    def test_each_revision_goes_up_from_the_one_before_and_down_again(self) -> None:
        url = new_database()
        for revision in reversed(list(ScriptDirectory.from_config(migrations(url)).walk_revisions())):
            command.upgrade(migrations(url), revision.revision)
        command.downgrade(migrations(url), "base")
        with create_engine(url).connect() as connection:
            self.assertEqual(inspect(connection).get_table_names(), ["alembic_version"])
