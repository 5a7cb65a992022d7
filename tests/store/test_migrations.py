"""Migrations on data: up to date with the tables, and repeatable without loss."""

import json
import unittest

from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Connection, create_engine, inspect, text

from ruvak.core.rig.edits import Edit, PutThing, SetField
from ruvak.core.rig.rig import Rig
from ruvak.service.states import Person
from ruvak.service.upkeep import migrate, rigs_at
from ruvak.store.database import migrations
from ruvak.store.tables import Base
from tests.support.database import new_database, process_at
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
        saved = rigs_at(url).import_rig(demo_rig(), Person(id="a", name="A")).rig
        migrate(url)
        self.assertEqual(rigs_at(url).export(saved.id), saved)

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
                "INSERT INTO leg (rig_id, run_id, position, item_id) VALUES ('r', 'one', 0, 'k')",
                "INSERT INTO join_of_run (rig_id, run_id, position, a_end, b_end) VALUES ('r', 'one', 0, 'a.b', 'c.d')",
            ):
                connection.execute(text(statement))
        command.upgrade(migrations(url), "head")
        with create_engine(url).connect() as connection:
            kit = connection.execute(text("SELECT tag, installed FROM kit_item")).one()
            run = connection.execute(text("SELECT name, note, pieces, joins FROM run")).one()
        self.assertEqual(tuple(kit), ("M1", False))
        self.assertEqual(tuple(run), ("One", "", ["k"], [{"a": "a.b", "b": "c.d", "sleeve": None}]))

    def test_what_was_saved_before_holders_is_the_same_rig_after_and_can_still_be_undone(self) -> None:
        url = new_database()
        rig, person = demo_rig("lantern-evening"), Person(id="a", name="A")
        command.upgrade(migrations(url), "0006")
        with create_engine(url).begin() as connection:
            _insert_as_of_0006(connection, rig)
        migrate(url)
        rigs, edits = process_at(url)
        self.assertEqual(rigs.export(rig.id), rig)
        self.assertEqual(rigs.version(rig.id).version, "2.2")
        edits.undo(rig.id, person)
        undone = rigs.export(rig.id)
        self.assertEqual((undone.venue.house.passive_y, rig.venue.house.passive_y), ("never", "with-resistors"))
        edits.undo(rig.id, person)
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
        edits.undo(state.rig.id, person)
        self.assertEqual(rigs.export(state.rig.id).runs[0].name, run.name)
        edits.undo(state.rig.id, person)
        self.assertEqual(rigs.export(state.rig.id).runs[0], run)

    def test_each_revision_goes_up_from_the_one_before_and_down_again(self) -> None:
        url = new_database()
        for revision in reversed(list(ScriptDirectory.from_config(migrations(url)).walk_revisions())):
            command.upgrade(migrations(url), revision.revision)
        command.downgrade(migrations(url), "base")
        with create_engine(url).connect() as connection:
            self.assertEqual(inspect(connection).get_table_names(), ["alembic_version"])


LATER = ("host", "contacts", "mains_f", "earth_f", "sends")
"""Columns of gear and kit that came with version 2 of the file format."""


def _insert_as_of_0006(connection: Connection, rig: Rig) -> None:
    """A rig as the program of that revision saved it, after two edits."""
    whole = rig.model_dump(mode="json")
    venue = {name: value for name, value in whole["venue"].items() if name not in ("revision", "induced_phase_deg")}

    def add(table: str, **columns: object) -> None:
        names = ", ".join(f'"{name}"' for name in columns)
        marks = ", ".join(f":{name}" for name in columns)
        values = {
            name: json.dumps(value) if isinstance(value, dict | list) else value for name, value in columns.items()
        }
        connection.execute(text(f"INSERT INTO {table} ({names}) VALUES ({marks})"), values)

    add("venue", id="v", **{name: value for name, value in venue.items() if name != "earth"})
    own = {name: whole[name] for name in ("name", "occasion", "length_unit", "alignment", "assumptions")}
    add("rig", id=rig.id, venue_id="v", version=2, **own)
    of_rig = {"rig_id": rig.id}
    for place, part in enumerate(whole["parts"]):
        add("part", **of_rig, id=part["id"], position=place, revision=part["revision"], body=part)
    for table, things in (("gear", whole["gear"]), ("kit_item", whole["kit"])):
        for place, thing in enumerate(things):
            columns = {"part_id" if name == "part" else name: thing[name] for name in thing if name not in LATER}
            add(table, **of_rig, position=place, **columns)
    for place, point in enumerate(venue["earth"]):
        add("earth_point", **of_rig, position=place, **point)
    for place, run in enumerate(whole["runs"]):
        add("run", **of_rig, position=place, **{n: v for n, v in run.items() if n not in ("pieces", "joins")})
        for leg_place, leg in enumerate(run["pieces"]):
            add("leg", **of_rig, run_id=run["id"], position=leg_place, item_id=leg)
        for join_place, join in enumerate(run["joins"]):
            ends = {"a_end": join["a"], "b_end": join["b"], "sleeve": join["sleeve"]}
            add("join_of_run", **of_rig, run_id=run["id"], position=join_place, **ends)
    length = {"op": "set_length", "item": "lead-31"}
    rule = {"op": "set_house", "field": "passive_y"}
    for base, label, forward, inverse in (
        (0, "15 m", {**length, "length_m": 15.0}, {**length, "length_m": 3.0}),
        (1, "rule", {**rule, "value": "with-resistors"}, {**rule, "value": "never"}),
    ):
        made = {name: {"label": label, "ops": [one]} for name, one in (("forward", forward), ("inverse", inverse))}
        who = {"person": "a", "person_name": "A", "kind": "edit", "label": label, "undone": False}
        add("edit", rig_id=rig.id, base_version=base, **who, **made)
