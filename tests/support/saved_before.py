"""What earlier revisions of the program saved, put into a database of their schema."""

import json

from sqlalchemy import Connection, create_engine, text

from ruvak.core.rig.rig import Rig

AS_OF_0001 = (
    "INSERT INTO venue VALUES ('v', 'Hall', 50)",
    "INSERT INTO rig (id, venue_id, name, occasion, length_unit, alignment, assumptions, version)"
    " VALUES ('r', 'v', 'Old', '', 'm', '{}', '{}', 3)",
    "INSERT INTO part (rig_id, id, position, revision, body) VALUES ('r', 'p', 0, 1, '{}')",
    "INSERT INTO kit_item (rig_id, id, position, tag, part_id, length_m, owned)"
    " VALUES ('r', 'k', 0, 'M1', 'p', 5, true)",
    "INSERT INTO run (rig_id, id, position, number, name) VALUES ('r', 'one', 0, 1, 'One')",
    "INSERT INTO leg (rig_id, run_id, position, item_id) VALUES ('r', 'one', 0, 'k')",
    "INSERT INTO join_of_run (rig_id, run_id, position, a_end, b_end) VALUES ('r', 'one', 0, 'a.b', 'c.d')",
)


def fill_0001(url: str) -> None:
    """A rig with one run, as the first schema had it."""
    with create_engine(url).begin() as connection:
        for statement in AS_OF_0001:
            connection.execute(text(statement))


LATER = (
    "faults",
    "radio_mhz",
    "host",
    "contacts",
    "mains_f",
    "earth_f",
    "sends",
    "breaker_a",
    "condition",
    "remark",
    "drawn",
)
"""Columns of gear, kit and earth points that came with version 2 of the file format, or after it."""


def insert_as_of_0006(url: str, rig: Rig) -> None:
    """A rig as the program of that revision saved it, after two edits."""
    with create_engine(url).begin() as connection:
        _insert(connection, rig)


def _insert(connection: Connection, rig: Rig) -> None:
    whole = rig.model_dump(mode="json")
    since = ("revision", "induced_phase_deg", "weather", "taken_mhz")
    venue = {name: value for name, value in whole["venue"].items() if name not in since}

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
        add("earth_point", **of_rig, position=place, **{n: v for n, v in point.items() if n not in LATER})
    for place, run in enumerate(whole["runs"]):
        add("run", **of_rig, position=place, **{n: v for n, v in run.items() if n not in ("pieces", "joins", "way_m")})
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
