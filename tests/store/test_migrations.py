"""Migrations on data: up to date with the tables, and repeatable without loss."""

import json
import unittest
from typing import Any

from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import create_engine, inspect, text

from ruvak.core.rig.edits import Edit, PutThing, SetField
from ruvak.service.access import DEMO_TECHNICIAN
from ruvak.service.states import Person
from ruvak.service.upkeep import migrate, rigs_at
from ruvak.store.database import migrations
from ruvak.store.tables import Base
from tests.support.database import new_database, process_at
from tests.support.rigs import demo_rig
from tests.support.saved_before import fill_0001, insert_as_of_0006


def is_our_own(name: str | None, kind: str, _: Any) -> bool:
    """Not the queue library's tables, which come as it ships them."""
    return kind != "table" or not (name or "").startswith("procrastinate_")


class Migrations(unittest.TestCase):
    def test_the_migrated_schema_is_the_tables(self) -> None:
        url = new_database()
        migrate(url)
        with create_engine(url).connect() as connection:
            context = MigrationContext.configure(connection, opts={"include_name": is_our_own})
            self.assertEqual(compare_metadata(context, Base.metadata), [])

    def test_there_is_one_line_of_revisions(self) -> None:
        self.assertEqual(len(ScriptDirectory.from_config(migrations("postgresql://")).get_heads()), 1)

    def test_migrating_again_keeps_the_data(self) -> None:
        url = new_database()
        migrate(url)
        saved = rigs_at(url).import_rig(demo_rig(), Person(id="a", name="A")).rig
        migrate(url)
        self.assertEqual(rigs_at(url).export(saved.id), saved)

    def test_what_was_saved_before_installed_lines_is_still_there_after(self) -> None:
        url = new_database()
        command.upgrade(migrations(url), "0001")
        fill_0001(url)
        command.upgrade(migrations(url), "head")
        with create_engine(url).connect() as connection:
            kit = connection.execute(text("SELECT tag, installed FROM kit_item")).one()
            run = connection.execute(text("SELECT name, note, pieces, joins FROM run")).one()
        self.assertEqual(tuple(kit), ("M1", False))
        self.assertEqual(tuple(run), ("One", "", ["k"], [{"a": "a.b", "b": "c.d", "sleeve": None}]))

    def test_what_was_saved_before_holders_is_the_same_rig_after_and_can_still_be_undone(self) -> None:
        url = new_database()
        rig = demo_rig("lantern-evening")
        command.upgrade(migrations(url), "0006")
        insert_as_of_0006(url, rig)
        migrate(url)
        rigs, edits = process_at(url)
        self.assertEqual(rigs.export(rig.id), rig)
        self.assertEqual(rigs.version(rig.id).version, "2.2")
        edits.undo(rig.id, DEMO_TECHNICIAN)
        undone = rigs.export(rig.id)
        self.assertEqual((undone.venue.house.passive_y, rig.venue.house.passive_y), ("never", "with-resistors"))
        edits.undo(rig.id, DEMO_TECHNICIAN)
        self.assertEqual(next(one for one in rigs.export(rig.id).kit if one.id == "lead-31").length_m, 3.0)

    def test_what_was_saved_before_version_2_of_the_format_can_still_be_undone(self) -> None:
        url = new_database()
        migrate(url)
        rigs, edits = process_at(url)
        person = Person(id="a", name="A")
        state = rigs.import_rig(demo_rig(), person)
        run = state.rig.runs[0]
        without = SetField(kind="runs", id=run.id, field="joins", value=[])
        without_pieces = SetField(kind="runs", id=run.id, field="pieces", value=[])
        edits.make(state.rig.id, state.version, Edit(label="Unplugged", ops=(without, without_pieces)), person)
        gone = PutThing(kind="runs", thing=run.model_copy(update={"pieces": (), "joins": (), "name": "Again"}))
        edits.make(state.rig.id, rigs.version(state.rig.id).version, Edit(label="Again", ops=(gone,)), person)
        command.downgrade(migrations(url), "0008")
        with create_engine(url).connect() as connection:
            self.assertEqual(connection.execute(text("SELECT legs FROM run")).scalar_one(), [])
            kept = connection.execute(text("SELECT forward, inverse FROM edit ORDER BY id")).all()
            touches = connection.execute(text("SELECT array_agg(DISTINCT t) FROM edit_of_holder, unnest(touches) t"))
            self.assertIn(f"=runs/{run.id}/legs", touches.scalar_one())
        self.assertNotIn("pieces", json.dumps([list(row) for row in kept]))
        migrate(url)
        rigs, edits = process_at(url)
        edits.undo(state.rig.id, DEMO_TECHNICIAN)
        self.assertEqual(rigs.export(state.rig.id).runs[0].name, run.name)
        edits.undo(state.rig.id, DEMO_TECHNICIAN)
        self.assertEqual(rigs.export(state.rig.id).runs[0], run)

    def test_each_revision_goes_up_from_the_one_before_and_down_again(self) -> None:
        url = new_database()
        for revision in reversed(list(ScriptDirectory.from_config(migrations(url)).walk_revisions())):
            command.upgrade(migrations(url), revision.revision)
        command.downgrade(migrations(url), "base")
        with create_engine(url).connect() as connection:
            self.assertEqual(inspect(connection).get_table_names(), ["alembic_version"])
