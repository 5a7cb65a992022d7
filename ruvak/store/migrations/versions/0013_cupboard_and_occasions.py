"""The house's cupboard and its occasions; condition of what is owned, templates and archived rigs"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0013"
down_revision = "0012"
_TIME = sa.DateTime(timezone=True)


def upgrade() -> None:
    """Rigs keep the kit they have; all of it counts as good, and nothing is drawn from the cupboard yet."""
    for table in ("gear", "kit_item"):
        op.add_column(table, sa.Column("condition", sa.String(), server_default="good", nullable=False))
        op.add_column(table, sa.Column("remark", sa.String(), server_default="", nullable=False))
        op.add_column(table, sa.Column("drawn", JSONB(none_as_null=True)))
        op.create_index(f"ix_{table}_drawn", table, [sa.text("(drawn ->> 'item')")])
    op.create_table(
        "cupboard_item",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("count", sa.Integer(), nullable=False),
        sa.Column("store", sa.String(), nullable=False),
        sa.Column("condition", sa.String(), nullable=False),
        sa.Column("body", JSONB(none_as_null=True), nullable=False),
        sa.CheckConstraint("condition IN ('good', 'suspect', 'faulty', 'away')", name="ck_cupboard_item_condition"),
        sa.CheckConstraint("count > 0", name="ck_cupboard_item_count"),
        sa.PrimaryKeyConstraint("id", name="pk_cupboard_item"),
    )
    tagged = sa.text("count = 1")
    op.create_index(
        "uq_cupboard_item_tag", "cupboard_item", [sa.text("lower(name)")], unique=True, postgresql_where=tagged
    )
    op.create_table(
        "cupboard_change",
        sa.Column("id", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("item_id", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("words", sa.String(), nullable=False),
        sa.Column("person_name", sa.String(), nullable=False),
        sa.Column("made_at", _TIME, server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_cupboard_change"),
    )
    op.create_index("ix_cupboard_change_item_id", "cupboard_change", ["item_id"])
    _occasions()


def _occasions() -> None:
    op.create_table(
        "occasion",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("starts_at", _TIME, nullable=False),
        sa.Column("ends_at", _TIME, nullable=False),
        sa.Column("after_id", sa.String()),
        sa.CheckConstraint("ends_at > starts_at", name="ck_occasion_hours"),
        sa.ForeignKeyConstraint(
            ["after_id"], ["occasion.id"], name="fk_occasion_after_id_occasion", ondelete="SET NULL"
        ),
        sa.PrimaryKeyConstraint("id", name="pk_occasion"),
    )
    op.create_index("ix_occasion_starts_at", "occasion", ["starts_at"])
    op.create_table(
        "occasion_note",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("occasion_id", sa.String(), nullable=False),
        sa.Column("item_id", sa.String()),
        sa.Column("words", sa.String(), nullable=False),
        sa.Column("person_name", sa.String(), nullable=False),
        sa.Column("made_at", _TIME, server_default=sa.func.clock_timestamp(), nullable=False),
        sa.Column("done_by", sa.String()),
        sa.ForeignKeyConstraint(
            ["occasion_id"], ["occasion.id"], name="fk_occasion_note_occasion_id_occasion", ondelete="CASCADE"
        ),
        sa.ForeignKeyConstraint(
            ["item_id"], ["cupboard_item.id"], name="fk_occasion_note_item_id_cupboard_item", ondelete="SET NULL"
        ),
        sa.PrimaryKeyConstraint("id", name="pk_occasion_note"),
    )
    op.create_index("ix_occasion_note_occasion_id", "occasion_note", ["occasion_id"])
    op.create_index("ix_occasion_note_item_id", "occasion_note", ["item_id"])
    op.create_table(
        "taken",
        sa.Column("item_id", sa.String(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("rig_id", sa.String(), nullable=False),
        sa.Column("starts_at", _TIME, nullable=False),
        sa.Column("ends_at", _TIME, nullable=False),
        sa.ForeignKeyConstraint(
            ["item_id"], ["cupboard_item.id"], name="fk_taken_item_id_cupboard_item", ondelete="CASCADE"
        ),
        sa.ForeignKeyConstraint(["rig_id"], ["holder.id"], name="fk_taken_rig_id_holder", ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("item_id", "number", "rig_id", name="pk_taken"),
    )
    op.create_index("ix_taken_rig_id", "taken", ["rig_id"])
    op.add_column("rig", sa.Column("occasion_id", sa.String()))
    op.create_index("ix_rig_occasion_id", "rig", ["occasion_id"])
    op.create_foreign_key(
        "fk_rig_occasion_id_occasion", "rig", "occasion", ["occasion_id"], ["id"], ondelete="SET NULL"
    )
    op.add_column("link", sa.Column("with_occasion", sa.Boolean(), server_default=sa.false(), nullable=False))
    op.add_column("rig", sa.Column("shelf", sa.String(), server_default="plans", nullable=False))
    op.create_check_constraint("ck_rig_shelf", "rig", "shelf IN ('plans', 'templates', 'archive')")


def downgrade() -> None:
    """Cupboard, occasions and notes are lost; rigs keep what they have drawn as their own."""
    op.drop_column("link", "with_occasion")
    op.drop_constraint("ck_rig_shelf", "rig", type_="check")
    op.drop_column("rig", "shelf")
    op.drop_constraint("fk_rig_occasion_id_occasion", "rig", type_="foreignkey")
    op.drop_index("ix_rig_occasion_id", "rig")
    op.drop_column("rig", "occasion_id")
    for table in ("taken", "occasion_note", "occasion", "cupboard_change", "cupboard_item"):
        op.drop_table(table)
    for table in ("gear", "kit_item"):
        op.drop_index(f"ix_{table}_drawn", table)
        for column in ("condition", "remark", "drawn"):
            op.drop_column(table, column)
