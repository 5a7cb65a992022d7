"""Whether a venue is in the open air, and which frequencies are taken there"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0021"
down_revision = "0020"


def upgrade() -> None:
    """Every venue so far is under a roof, and nobody has said what is taken."""
    op.add_column("venue", sa.Column("weather", sa.String(), server_default="under-roof", nullable=False))
    op.alter_column("venue", "weather", server_default=None)
    op.create_check_constraint(op.f("ck_venue_weather"), "venue", "weather IN ('under-roof', 'open-air')")
    empty = sa.text("'[]'::jsonb")
    op.add_column("venue", sa.Column("taken_mhz", postgresql.JSONB(), server_default=empty, nullable=False))
    op.alter_column("venue", "taken_mhz", server_default=None)


def downgrade() -> None:
    """They are forgotten."""
    op.drop_column("venue", "taken_mhz")
    op.drop_column("venue", "weather")
