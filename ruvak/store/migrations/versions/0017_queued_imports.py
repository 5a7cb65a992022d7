"""Long work that belongs to no rig, and a file that it works on: the import of a whole house"""

import sqlalchemy as sa
from alembic import op

revision = "0017"
down_revision = "0016"


def upgrade() -> None:
    """Work that waits now belongs to rigs and has no file."""
    op.alter_column("long_work", "rig_id", nullable=True)
    op.add_column("long_work", sa.Column("upload", sa.LargeBinary(), nullable=True))


def downgrade() -> None:
    """Work without a rig is asked for again by whoever waits for it."""
    op.execute("DELETE FROM long_work WHERE rig_id IS NULL")
    op.drop_column("long_work", "upload")
    op.alter_column("long_work", "rig_id", nullable=False)
