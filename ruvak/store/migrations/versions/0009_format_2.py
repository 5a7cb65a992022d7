"""A run's legs are called its pieces; what version 2 of the rig format can say besides"""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0009"
down_revision = "0008"

NEW_LISTS = (("gear", "contacts"), ("gear", "sends"), ("kit_item", "contacts"))


def upgrade() -> None:
    """Rows and the edits kept for undo alike."""
    _rename("legs", "pieces")
    for table, column in NEW_LISTS:
        op.add_column(table, sa.Column(column, JSONB(), nullable=False, server_default="[]"))
        op.alter_column(table, column, server_default=None)
    op.add_column("gear", sa.Column("host", sa.String(), nullable=True))
    for column in ("mains_f", "earth_f"):
        op.add_column("gear", sa.Column(column, JSONB(none_as_null=True), nullable=True))
    op.add_column("venue", sa.Column("revision", sa.Integer(), nullable=False, server_default="1"))
    op.alter_column("venue", "revision", server_default=None)
    op.add_column("venue", sa.Column("induced_phase_deg", JSONB(none_as_null=True), nullable=True))


def downgrade() -> None:
    """What only version 2 can say is lost."""
    op.drop_column("venue", "induced_phase_deg")
    op.drop_column("venue", "revision")
    for column in ("earth_f", "mains_f", "host", "sends", "contacts"):
        op.drop_column("gear", column)
    op.drop_column("kit_item", "contacts")
    _rename("pieces", "legs")


def _rename(old: str, new: str) -> None:
    """The column, its index, and what edits say of it: an operation sets that field of a run, or puts a whole run."""
    op.alter_column("run", old, new_column_name=new)
    op.execute(f"ALTER INDEX ix_run_{old} RENAME TO ix_run_{new}")
    connection = op.get_bind()
    for row in connection.execute(sa.text("SELECT id, forward, inverse FROM edit")).all():
        sides = {"forward": _renamed(row.forward, old, new), "inverse": _renamed(row.inverse, old, new)}
        if sides != {"forward": row.forward, "inverse": row.inverse}:
            connection.execute(
                sa.text(
                    "UPDATE edit SET forward = CAST(:forward AS jsonb), inverse = CAST(:inverse AS jsonb)"
                    " WHERE id = :id"
                ),
                {"id": row.id, **{side: json.dumps(edit) for side, edit in sides.items()}},
            )
    connection.execute(
        sa.text(
            "UPDATE edit_of_holder SET touches = ARRAY("
            " SELECT regexp_replace(touched, :pattern, :replacement)"
            " FROM unnest(touches) WITH ORDINALITY AS listed (touched, place) ORDER BY place)"
        ),
        {"pattern": f"^([=~]runs/[^/]+/){old}(/|$)", "replacement": f"\\1{new}\\2"},
    )


def _renamed(edit: dict[str, Any], old: str, new: str) -> dict[str, Any]:
    return {**edit, "ops": [_renamed_in(operation, old, new) for operation in edit["ops"]]}


def _renamed_in(operation: dict[str, Any], old: str, new: str) -> dict[str, Any]:
    if operation.get("kind") != "runs":
        return operation
    if operation.get("field") == old:
        return {**operation, "field": new}
    thing = operation.get("thing")
    if isinstance(thing, dict) and old in thing:
        return {**operation, "thing": {new if name == old else name: value for name, value in thing.items()}}
    return operation
