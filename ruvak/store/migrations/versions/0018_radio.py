"""Frequencies of radio microphones, on devices"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0018"
down_revision = "0017"


def upgrade() -> None:
    """Nobody has said them so far."""
    empty = sa.text("'[]'::jsonb")
    op.add_column("gear", sa.Column("radio_mhz", postgresql.JSONB(), server_default=empty, nullable=False))
    op.alter_column("gear", "radio_mhz", server_default=None)


def downgrade() -> None:
    """They are forgotten."""
    op.drop_column("gear", "radio_mhz")
