"""House rules of a venue; devices whose protective earth was found open"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    """Venues saved before follow the default rules; nobody's earth is open."""
    op.add_column("venue", sa.Column("house", JSONB(), nullable=False, server_default="{}"))
    op.alter_column("venue", "house", server_default=None)
    op.add_column("gear", sa.Column("earth_open", sa.Boolean(), nullable=False, server_default=sa.false()))
    op.alter_column("gear", "earth_open", server_default=None)


def downgrade() -> None:
    """Takes them away again."""
    op.drop_column("gear", "earth_open")
    op.drop_column("venue", "house")
