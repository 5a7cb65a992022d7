"""Where things stand on the plan, how leads bend on it, the mains cables across it; faders of a mix"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0004"
down_revision = "0003"

PLACES = (("venue", "bar_at"), ("gear", "at"), ("earth_point", "at"))
COLLECTIONS = (("venue", "mains", "[]"), ("run", "route", "[]"), ("gear", "faders_db", "{}"))


def upgrade() -> None:
    """What was saved before has no plan."""
    for table, name in PLACES:
        op.add_column(table, sa.Column(name, JSONB(), nullable=True))
    for table, name, empty in COLLECTIONS:
        op.add_column(table, sa.Column(name, JSONB(), nullable=False, server_default=empty))
        op.alter_column(table, name, server_default=None)


def downgrade() -> None:
    """Takes it away again."""
    for table, name, *_ in (*COLLECTIONS, *PLACES):
        op.drop_column(table, name)
