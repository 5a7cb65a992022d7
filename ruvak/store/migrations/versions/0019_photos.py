"""Photos of the log"""

import sqlalchemy as sa
from alembic import op

revision = "0019"
down_revision = "0018"


def upgrade() -> None:
    """Nobody has taken any so far."""
    op.create_table(
        "photo",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("rig_id", sa.String(), nullable=False),
        sa.Column("person_id", sa.String(), nullable=False),
        sa.Column("received_at", sa.DateTime(timezone=True), server_default=sa.func.clock_timestamp(), nullable=False),
        sa.Column("jpeg", sa.LargeBinary(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_photo"),
    )
    op.create_index("ix_photo_rig_id", "photo", ["rig_id"])


def downgrade() -> None:
    """They are gone."""
    op.drop_table("photo")
