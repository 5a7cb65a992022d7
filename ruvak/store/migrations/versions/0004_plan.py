"""Where things stand on the plan, how leads bend on it, and the mains cables across it"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0004"
down_revision = "0003"

PLACES = (("venue", "bar_at"), ("gear", "at"), ("earth_point", "at"))
LISTS = (("venue", "mains"), ("run", "route"))


def upgrade() -> None:
    """What was saved before has no plan."""
    for table, name in PLACES:
        op.add_column(table, sa.Column(name, JSONB(), nullable=True))
    for table, name in LISTS:
        op.add_column(table, sa.Column(name, JSONB(), nullable=False, server_default="[]"))
        op.alter_column(table, name, server_default=None)


def downgrade() -> None:
    """Takes it away again."""
    for table, name in (*LISTS, *PLACES):
        op.drop_column(table, name)
