"""Faults that tests showed, on leads; tests of things of the cupboard in the log, which belong to no rig; how long a
run's way is"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0016"
down_revision = "0015"


def upgrade() -> None:
    """No lead has a known fault so far."""
    empty = sa.text("'[]'::jsonb")
    op.add_column("kit_item", sa.Column("faults", postgresql.JSONB(), server_default=empty, nullable=False))
    op.alter_column("kit_item", "faults", server_default=None)
    op.add_column("run", sa.Column("way_m", sa.Float(), nullable=True))
    op.alter_column("log_entry", "rig_id", nullable=True)
    op.create_index("ix_log_entry_items", "log_entry", ["items"], postgresql_using="gin")


def downgrade() -> None:
    """Entries that belong to no rig go; the log refuses that otherwise."""
    op.execute("ALTER TABLE log_entry DISABLE TRIGGER log_entry_is_added_to")
    op.execute("DELETE FROM log_entry WHERE rig_id IS NULL")
    op.execute("ALTER TABLE log_entry ENABLE TRIGGER log_entry_is_added_to")
    op.drop_index("ix_log_entry_items", "log_entry")
    op.alter_column("log_entry", "rig_id", nullable=False)
    op.drop_column("run", "way_m")
    op.drop_column("kit_item", "faults")
