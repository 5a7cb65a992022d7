"""Parts of analyses, kept by what they were computed from"""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    """Unlogged: after a crash of the server it is empty, and everything is computed again."""
    op.create_table(
        "solved_part",
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("etag", sa.String(), nullable=False),
        sa.Column("body", sa.LargeBinary(), nullable=False),
        sa.Column("size", sa.Integer(), nullable=False),
        sa.Column("used_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("key", name="pk_solved_part"),
        prefixes=["UNLOGGED"],
    )
    op.create_index("ix_solved_part_used_at", "solved_part", ["used_at"])


def downgrade() -> None:
    """Nothing is lost with it."""
    op.drop_table("solved_part")
