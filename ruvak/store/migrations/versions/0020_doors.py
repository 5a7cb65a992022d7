"""When the doors open, by occasion"""

import sqlalchemy as sa
from alembic import op

revision = "0020"
down_revision = "0019"


def upgrade() -> None:
    """Nobody has said it so far."""
    op.add_column("occasion", sa.Column("doors_at", sa.DateTime(timezone=True), nullable=True))


def downgrade() -> None:
    """It is forgotten."""
    op.drop_column("occasion", "doors_at")
