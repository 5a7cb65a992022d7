"""First tables"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0001"
down_revision = None


def upgrade() -> None:
    """Venue, rig and everything a rig is made of; edits."""
    op.create_table(
        "venue",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("mains_hz", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_venue")),
    )
    op.create_table(
        "rig",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("venue_id", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("occasion", sa.String(), nullable=False),
        sa.Column("length_unit", sa.String(), nullable=False),
        sa.Column("alignment", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("assumptions", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("saved_at", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False),
        sa.ForeignKeyConstraint(["venue_id"], ["venue.id"], name=op.f("fk_rig_venue_id_venue")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_rig")),
    )
    op.create_table(
        "edit",
        sa.Column("id", sa.BigInteger(), nullable=False),
        sa.Column("rig_id", sa.String(), nullable=False),
        sa.Column("base_version", sa.Integer(), nullable=False),
        sa.Column("person", sa.String(), nullable=False),
        sa.Column("person_name", sa.String(), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("label", sa.String(), nullable=False),
        sa.Column("of_edit", sa.BigInteger(), nullable=True),
        sa.Column("undone", sa.Boolean(), nullable=False),
        sa.Column("forward", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("inverse", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.CheckConstraint("kind IN ('edit', 'undo', 'redo')", name=op.f("ck_edit_kind")),
        sa.ForeignKeyConstraint(["of_edit"], ["edit.id"], name=op.f("fk_edit_of_edit_edit"), ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["rig_id"], ["rig.id"], name=op.f("fk_edit_rig_id_rig"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_edit")),
    )
    op.create_index(op.f("ix_edit_rig_id"), "edit", ["rig_id"], unique=False)
    op.create_table(
        "part",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("body", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("rig_id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["rig_id"], ["rig.id"], name=op.f("fk_part_rig_id_rig"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", "rig_id", name=op.f("pk_part")),
    )
    op.create_table(
        "run",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("rig_id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["rig_id"], ["rig.id"], name=op.f("fk_run_rig_id_rig"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", "rig_id", name=op.f("pk_run")),
    )
    op.create_table(
        "gear",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("part_id", sa.String(), nullable=False),
        sa.Column("settings", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("rig_id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["rig_id", "part_id"], ["part.rig_id", "part.id"], name="fk_gear_part"),
        sa.ForeignKeyConstraint(["rig_id"], ["rig.id"], name=op.f("fk_gear_rig_id_rig"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", "rig_id", name=op.f("pk_gear")),
    )
    op.create_table(
        "join_of_run",
        sa.Column("a_end", sa.String(), nullable=False),
        sa.Column("b_end", sa.String(), nullable=False),
        sa.Column("rig_id", sa.String(), nullable=False),
        sa.Column("run_id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["rig_id", "run_id"], ["run.rig_id", "run.id"], name="fk_join_run", ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("rig_id", "run_id", "position", name=op.f("pk_join_of_run")),
    )
    op.create_table(
        "kit_item",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("tag", sa.String(), nullable=False),
        sa.Column("part_id", sa.String(), nullable=False),
        sa.Column("length_m", sa.Double(), nullable=True),
        sa.Column("owned", sa.Boolean(), nullable=False),
        sa.Column("rig_id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["rig_id", "part_id"], ["part.rig_id", "part.id"], name="fk_kit_part"),
        sa.ForeignKeyConstraint(["rig_id"], ["rig.id"], name=op.f("fk_kit_item_rig_id_rig"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", "rig_id", name=op.f("pk_kit_item")),
    )
    op.create_table(
        "leg",
        sa.Column("item_id", sa.String(), nullable=False),
        sa.Column("rig_id", sa.String(), nullable=False),
        sa.Column("run_id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["rig_id", "item_id"], ["kit_item.rig_id", "kit_item.id"], name="fk_leg_kit_item"),
        sa.ForeignKeyConstraint(["rig_id", "run_id"], ["run.rig_id", "run.id"], name="fk_leg_run", ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("rig_id", "run_id", "position", name=op.f("pk_leg")),
    )


def downgrade() -> None:
    """Back to an empty database."""
    op.drop_table("leg")
    op.drop_table("kit_item")
    op.drop_table("join_of_run")
    op.drop_table("gear")
    op.drop_table("run")
    op.drop_table("part")
    op.drop_index(op.f("ix_edit_rig_id"), table_name="edit")
    op.drop_table("edit")
    op.drop_table("rig")
    op.drop_table("venue")
