"""The building's earth, bonds, and what a device or lead says about its surroundings"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0003"
down_revision = "0002"

COLUMNS = (
    ("venue", "mains_v", JSONB()),
    ("venue", "programme_db_spl", sa.Float()),
    ("venue", "noise_dba", sa.Float()),
    ("gear", "outlet", sa.String()),
    ("gear", "touch_a", JSONB()),
    ("gear", "supply_fault_v", JSONB()),
    ("kit_item", "beside", JSONB()),
    ("kit_item", "loop_width_m", JSONB()),
)


def upgrade() -> None:
    """What was saved before has no earth and says nothing of its surroundings."""
    for table, name, kind in COLUMNS:
        op.add_column(table, sa.Column(name, kind, nullable=True))
    op.create_table(
        "earth_point",
        *_of_rig("earth_point"),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("parent", sa.String(), nullable=True),
        sa.Column("ohm", JSONB(), nullable=True),
        sa.Column("henry", JSONB(), nullable=True),
        sa.Column("emf_v", JSONB(), nullable=True),
        sa.Column("voltage", JSONB(), nullable=True),
        sa.PrimaryKeyConstraint("id", "rig_id", name="pk_earth_point"),
    )
    op.create_table(
        "bond",
        *_of_rig("bond"),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("a_end", sa.String(), nullable=False),
        sa.Column("b_end", sa.String(), nullable=False),
        sa.Column("ohm", JSONB(), nullable=True),
        sa.Column("henry", JSONB(), nullable=True),
        sa.PrimaryKeyConstraint("id", "rig_id", name="pk_bond"),
    )


def downgrade() -> None:
    """Takes it away again."""
    op.drop_table("bond")
    op.drop_table("earth_point")
    for table, name, _ in reversed(COLUMNS):
        op.drop_column(table, name)


def _of_rig(table: str) -> tuple[sa.Column[str] | sa.Column[int] | sa.ForeignKeyConstraint, ...]:
    return (
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("rig_id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["rig_id"], ["rig.id"], name=f"fk_{table}_rig_id_rig", ondelete="CASCADE"),
    )
