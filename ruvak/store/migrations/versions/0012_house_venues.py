"""Venues of the house, with revisions; each rig may say which it was taken from"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0012"
down_revision = "0011"


def upgrade() -> None:
    """Rigs keep the venues they have, and belong to none of the house until somebody says so."""
    op.create_table(
        "house_venue",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_house_venue"),
    )
    op.create_index("uq_house_venue_name", "house_venue", [sa.text("lower(name)")], unique=True)
    op.create_table(
        "venue_revision",
        sa.Column("venue_id", sa.String(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("document", JSONB(none_as_null=True), nullable=False),
        sa.Column("words", sa.String(), nullable=False),
        sa.Column("made_by", sa.String(), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.ForeignKeyConstraint(
            ["venue_id"], ["house_venue.id"], name="fk_venue_revision_venue_id_house_venue", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("venue_id", "number", name="pk_venue_revision"),
    )
    op.add_column("rig", sa.Column("house_venue_id", sa.String()))
    op.create_index("ix_rig_house_venue_id", "rig", ["house_venue_id"])
    op.create_foreign_key(
        "fk_rig_house_venue_id_house_venue", "rig", "house_venue", ["house_venue_id"], ["id"], ondelete="SET NULL"
    )


def downgrade() -> None:
    """The house's venues are lost; each rig keeps its own."""
    op.drop_constraint("fk_rig_house_venue_id_house_venue", "rig", type_="foreignkey")
    op.drop_index("ix_rig_house_venue_id", "rig")
    op.drop_column("rig", "house_venue_id")
    op.drop_table("venue_revision")
    op.drop_table("house_venue")
