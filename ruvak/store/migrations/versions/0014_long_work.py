"""Long work, and the tables of the library that queues it"""

from pathlib import Path

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0014"
down_revision = "0013"

QUEUE_SCHEMA = Path(__file__).parents[1] / "procrastinate-3.10.0.sql"
"""The queue library's own schema as that version of it ships it."""
QUEUE_TABLES = ("procrastinate_events", "procrastinate_periodic_defers", "procrastinate_jobs", "procrastinate_workers")


def upgrade() -> None:
    """Both together: a job and the work it does are written in one transaction."""
    # The driver's own cursor without parameters sends the whole text as it is; SQLAlchemy's takes one statement.
    cursor = op.get_bind().connection.cursor()
    cursor.execute(QUEUE_SCHEMA.read_text(encoding="utf-8"))
    cursor.close()
    op.create_table(
        "long_work",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("rig_id", sa.String(), nullable=False),
        sa.Column("use_case", sa.String(), nullable=False),
        sa.Column("arguments", postgresql.JSONB(), nullable=False),
        sa.Column("is_json", sa.Boolean(), nullable=False),
        sa.Column("runs", sa.Integer(), nullable=False),
        sa.Column("job_id", sa.BigInteger(), nullable=True),
        sa.Column("share", sa.Float(), nullable=False),
        sa.Column("cancelled", sa.Boolean(), nullable=False),
        sa.Column("answer", sa.LargeBinary(), nullable=True),
        sa.Column("problem", postgresql.JSONB(), nullable=True),
        sa.Column("created_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.Column("finished_at", sa.DateTime(timezone=True), nullable=True),
        sa.PrimaryKeyConstraint("id", name="pk_long_work"),
    )
    op.create_index("ix_long_work_key", "long_work", ["key"])
    op.create_index("ix_long_work_created_at", "long_work", ["created_at"])


def downgrade() -> None:
    """Work that waits is asked for again by whoever waits for it."""
    op.drop_table("long_work")
    for table in QUEUE_TABLES:
        op.execute(f"DROP TABLE {table} CASCADE")
    op.execute(
        "DO $$ DECLARE entry record; BEGIN FOR entry IN SELECT oid::regprocedure AS name FROM pg_proc "
        "WHERE proname LIKE 'procrastinate\\_%' AND pronamespace = current_schema()::regnamespace "
        "LOOP EXECUTE 'DROP FUNCTION ' || entry.name || ' CASCADE'; END LOOP; END $$"
    )
    for kind in ("procrastinate_job_to_defer_v1", "procrastinate_job_status", "procrastinate_job_event_type"):
        op.execute(f"DROP TYPE {kind} CASCADE")
