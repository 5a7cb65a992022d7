"""What a circuit's breaker is rated at"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0011"
down_revision = "0010"


def upgrade() -> None:
    """Not known of any yet."""
    op.add_column("earth_point", sa.Column("breaker_a", JSONB(none_as_null=True), nullable=True))


def downgrade() -> None:
    """The ratings are lost."""
    op.drop_column("earth_point", "breaker_a")
