"""The log, and which rig was copied from which"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0015"
down_revision = "0014"


def upgrade() -> None:
    """Entries are added and never changed: what tries is refused by the database."""
    op.add_column("rig", sa.Column("copied_from", sa.String(), nullable=True))
    now = sa.func.clock_timestamp()
    op.add_column("rig", sa.Column("created_at", sa.DateTime(timezone=True), server_default=now, nullable=False))
    op.create_table(
        "log_entry",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("number", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("rig_id", sa.String(), nullable=False),
        sa.Column("occasion_id", sa.String(), nullable=True),
        sa.Column("rig_name", sa.String(), nullable=False),
        sa.Column("venue_name", sa.String(), nullable=False),
        sa.Column("run_name", sa.String(), nullable=False),
        sa.Column("thing_names", postgresql.ARRAY(sa.String()), nullable=False),
        sa.Column("items", postgresql.ARRAY(sa.String()), nullable=False),
        sa.Column("person_id", sa.String(), nullable=False),
        sa.Column("person_name", sa.String(), nullable=False),
        sa.Column("at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("received_at", sa.DateTime(timezone=True), server_default=sa.func.clock_timestamp(), nullable=False),
        sa.Column("body", postgresql.JSONB(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_log_entry"),
        sa.UniqueConstraint("number", name="uq_log_entry_number"),
    )
    op.create_index("ix_log_entry_rig_id_number", "log_entry", ["rig_id", "number"])
    op.create_index("ix_log_entry_occasion_id", "log_entry", ["occasion_id"])
    op.create_index("ix_log_entry_at", "log_entry", ["at"])
    op.execute(
        "CREATE FUNCTION refuse_change_of_log() RETURNS trigger LANGUAGE plpgsql AS "
        "$$ BEGIN RAISE EXCEPTION 'The log is added to and never changed.'; END $$"
    )
    op.execute(
        "CREATE TRIGGER log_entry_is_added_to BEFORE UPDATE OR DELETE ON log_entry "
        "FOR EACH ROW EXECUTE FUNCTION refuse_change_of_log()"
    )


def downgrade() -> None:
    """Everything that was logged goes with it."""
    op.drop_table("log_entry")
    op.execute("DROP FUNCTION refuse_change_of_log()")
    op.drop_column("rig", "created_at")
    op.drop_column("rig", "copied_from")
