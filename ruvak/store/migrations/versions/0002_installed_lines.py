"""Installed lines, notes of runs, and what an uncertain socket was seen to meet"""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    """What was saved before is not installed, has no note, and nobody has looked."""
    op.add_column("kit_item", sa.Column("installed", sa.Boolean(), server_default=sa.false(), nullable=False))
    op.alter_column("kit_item", "installed", server_default=None)
    op.add_column("run", sa.Column("note", sa.String(), server_default="", nullable=False))
    op.alter_column("run", "note", server_default=None)
    op.add_column("join_of_run", sa.Column("sleeve", sa.String(), nullable=True))


def downgrade() -> None:
    """Takes the columns away again."""
    op.drop_column("join_of_run", "sleeve")
    op.drop_column("run", "note")
    op.drop_column("kit_item", "installed")
