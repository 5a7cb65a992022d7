"""Holders with versions of their own, one shape for all listed things, edits by field"""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import ARRAY, JSONB

revision = "0007"
down_revision = "0006"

THINGS = ("part", "gear", "kit_item", "run", "bond", "earth_point")
HOUSE_RULES = ("unbalanced_limit_m", "screens", "passive_y")
KINDS = {
    "put_gear": "gear",
    "put_kit": "kit",
    "put_run": "runs",
    "put_part": "parts",
    "put_earth": "earth",
    "put_bond": "bonds",
}


def upgrade() -> None:
    """Everything saved stays: what a rig held belongs to its holder, what its venue held to the venue's."""
    _holders()
    _runs_as_documents()
    _things_by_holder()
    _mains_cables()
    _edits_by_field()
    op.drop_column("rig", "version")
    op.drop_column("rig", "saved_at")


def _holders() -> None:
    op.create_table(
        "holder",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("born", sa.DateTime(timezone=True), server_default=sa.func.clock_timestamp(), nullable=False),
        sa.Column("saved_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_holder"),
        sa.CheckConstraint("kind IN ('rig', 'venue', 'cupboard', 'house')", name="kind"),
    )
    op.execute(
        "INSERT INTO holder (id, kind, version) SELECT venue.id, 'venue', coalesce(max(rig.version), 0)"
        " FROM venue LEFT JOIN rig ON rig.venue_id = venue.id GROUP BY venue.id"
    )
    op.execute("INSERT INTO holder (id, kind, version, saved_at) SELECT id, 'rig', version, saved_at FROM rig")
    op.create_foreign_key("fk_venue_id_holder", "venue", "holder", ["id"], ["id"], ondelete="CASCADE")
    op.create_foreign_key("fk_rig_id_holder", "rig", "holder", ["id"], ["id"], ondelete="CASCADE")


def _runs_as_documents() -> None:
    op.add_column("run", sa.Column("legs", ARRAY(sa.String()), nullable=False, server_default="{}"))
    op.add_column("run", sa.Column("joins", JSONB(), nullable=False, server_default="[]"))
    op.execute(
        "UPDATE run SET legs = found.legs FROM (SELECT rig_id, run_id, array_agg(item_id ORDER BY position) AS legs"
        " FROM leg GROUP BY rig_id, run_id) AS found WHERE run.rig_id = found.rig_id AND run.id = found.run_id"
    )
    op.execute(
        "UPDATE run SET joins = found.joins FROM (SELECT rig_id, run_id,"
        " jsonb_agg(jsonb_build_object('a', a_end, 'b', b_end, 'sleeve', sleeve) ORDER BY position) AS joins"
        " FROM join_of_run GROUP BY rig_id, run_id) AS found"
        " WHERE run.rig_id = found.rig_id AND run.id = found.run_id"
    )
    op.drop_table("leg")
    op.drop_table("join_of_run")
    op.alter_column("run", "legs", server_default=None)
    op.alter_column("run", "joins", server_default=None)
    op.create_index("ix_run_legs", "run", ["legs"], postgresql_using="gin")


def _things_by_holder() -> None:
    op.drop_constraint("fk_gear_part", "gear", type_="foreignkey")
    op.drop_constraint("fk_kit_part", "kit_item", type_="foreignkey")
    for table in THINGS:
        op.drop_constraint(f"fk_{table}_rig_id_rig", table, type_="foreignkey")
        op.alter_column(table, "rig_id", new_column_name="holder_id")
        op.alter_column(table, "position", type_=sa.Float())
    op.execute("UPDATE earth_point SET holder_id = rig.venue_id FROM rig WHERE rig.id = earth_point.holder_id")
    for table in THINGS:
        name = f"fk_{table}_holder_id_holder"
        op.create_foreign_key(name, table, "holder", ["holder_id"], ["id"], ondelete="CASCADE")
        # By holder first, since that is how they are read.
        op.drop_constraint(f"pk_{table}", table, type_="primary")
        op.create_primary_key(f"pk_{table}", table, ["holder_id", "id"])
    for table in ("gear", "kit_item"):
        op.alter_column(table, "part_id", new_column_name="part")
    op.create_foreign_key("fk_gear_part", "gear", "part", ["holder_id", "part"], ["holder_id", "id"])
    op.create_foreign_key("fk_kit_part", "kit_item", "part", ["holder_id", "part"], ["holder_id", "id"])
    op.alter_column("bond", "a_end", new_column_name="a")
    op.alter_column("bond", "b_end", new_column_name="b")


def _mains_cables() -> None:
    op.create_table(
        "mains_cable",
        sa.Column("holder_id", sa.String(), nullable=False),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Float(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("points", JSONB(), nullable=False),
        sa.Column("current_a", JSONB(), nullable=False),
        sa.Column("spacing_m", JSONB(), nullable=True),
        sa.Column("residual_a", JSONB(), nullable=True),
        sa.Column("twist_db", JSONB(), nullable=True),
        sa.Column("spectrum", sa.String(), nullable=True),
        sa.PrimaryKeyConstraint("holder_id", "id", name="pk_mains_cable"),
        sa.ForeignKeyConstraint(
            ["holder_id"], ["holder.id"], name="fk_mains_cable_holder_id_holder", ondelete="CASCADE"
        ),
    )
    op.execute(
        "INSERT INTO mains_cable SELECT venue.id, cable->>'id', place, cable->>'name', cable->'points',"
        " cable->'current_a', nullif(cable->'spacing_m', 'null'), nullif(cable->'residual_a', 'null'),"
        " nullif(cable->'twist_db', 'null'), cable->>'spectrum'"
        " FROM venue, jsonb_array_elements(venue.mains) WITH ORDINALITY AS listed (cable, place)"
    )
    op.drop_column("venue", "mains")


def _edits_by_field() -> None:
    op.drop_constraint("fk_edit_rig_id_rig", "edit", type_="foreignkey")
    op.create_foreign_key("fk_edit_rig_id_holder", "edit", "holder", ["rig_id"], ["id"], ondelete="CASCADE")
    op.add_column("edit", sa.Column("uid", sa.String(), nullable=True))
    op.create_unique_constraint("uq_edit_uid", "edit", ["uid"])
    op.create_table(
        "edit_of_holder",
        sa.Column("edit_id", sa.BigInteger(), nullable=False),
        sa.Column("holder_id", sa.String(), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("touches", ARRAY(sa.String()), nullable=False),
        sa.PrimaryKeyConstraint("edit_id", "holder_id", name="pk_edit_of_holder"),
        sa.ForeignKeyConstraint(["edit_id"], ["edit.id"], name="fk_edit_of_holder_edit_id_edit", ondelete="CASCADE"),
        sa.ForeignKeyConstraint(
            ["holder_id"], ["holder.id"], name="fk_edit_of_holder_holder_id_holder", ondelete="CASCADE"
        ),
    )
    op.create_index("ix_edit_of_holder_version", "edit_of_holder", ["holder_id", "version"], unique=True)
    connection = op.get_bind()
    rows = connection.execute(
        sa.text(
            "SELECT edit.id, edit.rig_id, rig.venue_id, edit.base_version, edit.forward, edit.inverse"
            " FROM edit JOIN rig ON rig.id = edit.rig_id ORDER BY edit.id"
        )
    ).all()
    for row in rows:
        forward, inverse = (
            {"label": one["label"], "ops": [_by_field(operation) for operation in one["ops"]]}
            for one in (row.forward, row.inverse)
        )
        connection.execute(
            sa.text(
                "UPDATE edit SET forward = CAST(:forward AS jsonb), inverse = CAST(:inverse AS jsonb) WHERE id = :id"
            ),
            {"forward": json.dumps(forward), "inverse": json.dumps(inverse), "id": row.id},
        )
        for holder, kinds in ((row.rig_id, None), (row.venue_id, ("venue", "earth", "mains"))):
            touches = sorted({text for one in forward["ops"] for text in _touches(one, kinds)})
            connection.execute(
                sa.text("INSERT INTO edit_of_holder VALUES (:edit, :holder, :version, :touches)"),
                {"edit": row.id, "holder": holder, "version": row.base_version + 1, "touches": touches},
            )
    op.drop_column("edit", "base_version")


def _by_field(old: dict[str, Any]) -> dict[str, Any]:
    """An operation of before as one of today."""
    name, at = old["op"], {"id": None, "key": None}
    if name in KINDS:
        return {"op": "put", "kind": KINDS[name], "thing": old["thing"], "at": old.get("at")}
    if name == "set_setting":
        field = {"field": "settings", "key": old["setting"]}
        return {"op": "set", "kind": "gear", "id": old["gear"], **field, "value": old["value"]}
    if name == "set_length":
        return {"op": "set", "kind": "kit", **at, "id": old["item"], "field": "length_m", "value": old["length_m"]}
    if name == "set_house":
        rule = old["field"] in HOUSE_RULES
        where = {"field": "house", "key": old["field"]} if rule else {"field": old["field"]}
        return {"op": "set", "kind": "venue", **at, **where, "value": old["value"]}
    if name == "set_rig":
        venue = old["field"] in ("venue_name", "mains_hz")
        field = old["field"].removeprefix("venue_") if venue else old["field"]
        return {"op": "set", "kind": "venue" if venue else "rig", **at, "field": field, "value": old["value"]}
    return old


def _touches(operation: dict[str, Any], kinds: tuple[str, ...] | None) -> list[str]:
    """As store/touches.py writes them; `kinds`: of the venue alone."""
    kind = operation["kind"]
    if (kinds is None) == (kind in ("venue", "earth", "mains")):
        return []
    names = [kind, (operation["thing"]["id"] if operation["op"] == "put" else operation.get("id")) or ""]
    steps = ["/".join(names)]
    for step in (operation.get("field"), operation.get("key")):
        if step is not None:
            names.append(step)
            steps.append("/".join(names))
    return [f"={steps[-1]}", *(f"~{path}" for path in steps[:-1])]


def downgrade() -> None:
    """Back to rows by rig; edits made by field since cannot be undone there and are left out."""
    op.add_column("rig", sa.Column("version", sa.Integer(), nullable=False, server_default="0"))
    op.add_column(
        "rig", sa.Column("saved_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False)
    )
    op.execute(
        "UPDATE rig SET version = holder.version, saved_at = holder.saved_at FROM holder WHERE holder.id = rig.id"
    )
    op.alter_column("rig", "version", server_default=None)
    op.drop_table("edit_of_holder")
    op.execute("DELETE FROM edit")
    op.drop_constraint("uq_edit_uid", "edit", type_="unique")
    op.drop_column("edit", "uid")
    op.add_column("edit", sa.Column("base_version", sa.Integer(), nullable=False))
    op.drop_constraint("fk_edit_rig_id_holder", "edit", type_="foreignkey")
    op.create_foreign_key("fk_edit_rig_id_rig", "edit", "rig", ["rig_id"], ["id"], ondelete="CASCADE")
    op.add_column("venue", sa.Column("mains", JSONB(), nullable=False, server_default="[]"))
    op.execute(
        "UPDATE venue SET mains = found.mains FROM (SELECT holder_id, jsonb_agg(to_jsonb(mains_cable)"
        " - 'holder_id' - 'position' ORDER BY position) AS mains FROM mains_cable GROUP BY holder_id) AS found"
        " WHERE venue.id = found.holder_id"
    )
    op.drop_table("mains_cable")
    _things_by_rig()
    _runs_as_rows()
    op.drop_constraint("fk_rig_id_holder", "rig", type_="foreignkey")
    op.drop_constraint("fk_venue_id_holder", "venue", type_="foreignkey")
    op.drop_table("holder")


def _things_by_rig() -> None:
    op.alter_column("bond", "a", new_column_name="a_end")
    op.alter_column("bond", "b", new_column_name="b_end")
    op.drop_constraint("fk_gear_part", "gear", type_="foreignkey")
    op.drop_constraint("fk_kit_part", "kit_item", type_="foreignkey")
    for table in ("gear", "kit_item"):
        op.alter_column(table, "part", new_column_name="part_id")
    for table in THINGS:
        op.drop_constraint(f"fk_{table}_holder_id_holder", table, type_="foreignkey")
    op.execute("UPDATE earth_point SET holder_id = rig.id FROM rig WHERE rig.venue_id = earth_point.holder_id")
    for table in THINGS:
        op.execute(
            f"UPDATE {table} SET position = found.place FROM (SELECT holder_id, id, row_number() OVER"  # noqa: S608
            f" (PARTITION BY holder_id ORDER BY position) - 1 AS place FROM {table}) AS found"
            f" WHERE {table}.holder_id = found.holder_id AND {table}.id = found.id"
        )
        op.alter_column(table, "position", type_=sa.Integer())
        op.alter_column(table, "holder_id", new_column_name="rig_id")
        op.create_foreign_key(f"fk_{table}_rig_id_rig", table, "rig", ["rig_id"], ["id"], ondelete="CASCADE")
        op.drop_constraint(f"pk_{table}", table, type_="primary")
        op.create_primary_key(f"pk_{table}", table, ["id", "rig_id"])
    op.create_foreign_key("fk_gear_part", "gear", "part", ["rig_id", "part_id"], ["rig_id", "id"])
    op.create_foreign_key("fk_kit_part", "kit_item", "part", ["rig_id", "part_id"], ["rig_id", "id"])


def _runs_as_rows() -> None:
    for table, columns in (
        ("leg", [sa.Column("item_id", sa.String(), nullable=False)]),
        (
            "join_of_run",
            [
                sa.Column("a_end", sa.String(), nullable=False),
                sa.Column("b_end", sa.String(), nullable=False),
                sa.Column("sleeve", sa.String(), nullable=True),
            ],
        ),
    ):
        op.create_table(
            table,
            sa.Column("rig_id", sa.String(), nullable=False),
            sa.Column("run_id", sa.String(), nullable=False),
            sa.Column("position", sa.Integer(), nullable=False),
            *columns,
            sa.PrimaryKeyConstraint("rig_id", "run_id", "position", name=f"pk_{table}"),
        )
    op.execute(
        "INSERT INTO leg SELECT rig_id, id, place - 1, item FROM run,"
        " unnest(legs) WITH ORDINALITY AS listed (item, place)"
    )
    op.execute(
        "INSERT INTO join_of_run SELECT rig_id, id, place - 1, one->>'a', one->>'b', one->>'sleeve' FROM run,"
        " jsonb_array_elements(joins) WITH ORDINALITY AS listed (one, place)"
    )
    op.create_foreign_key("fk_leg_run", "leg", "run", ["rig_id", "run_id"], ["rig_id", "id"], ondelete="CASCADE")
    op.create_foreign_key("fk_leg_kit_item", "leg", "kit_item", ["rig_id", "item_id"], ["rig_id", "id"])
    op.create_foreign_key(
        "fk_join_run", "join_of_run", "run", ["rig_id", "run_id"], ["rig_id", "id"], ondelete="CASCADE"
    )
    op.drop_index("ix_run_legs", "run")
    op.drop_column("run", "legs")
    op.drop_column("run", "joins")
