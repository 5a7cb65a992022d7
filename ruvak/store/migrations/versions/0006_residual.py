"""Residual-current devices of the building's circuits"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0006"
down_revision = "0005"


def upgrade() -> None:
    """Nobody has said yet where there are any."""
    op.add_column("earth_point", sa.Column("residual_a", JSONB(), nullable=True))


def downgrade() -> None:
    """Takes them away again."""
    op.drop_column("earth_point", "residual_a")
