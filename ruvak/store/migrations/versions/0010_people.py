"""People, their sign-ins, links and trusted computers; edits that record what was built"""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"

DEMO_TECHNICIAN = "demo-technician"


def upgrade() -> None:
    """Whoever worked with a former version did so at the computer it ran on, without an account: what they did is the
    demo technician's, who is signed in there now, and stays theirs to undo."""
    moment = sa.DateTime(timezone=True)
    op.create_table(
        "person",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("role", sa.String(), nullable=False),
        sa.Column("passphrase", sa.String()),
        sa.Column("code_secret", sa.String()),
        sa.Column("code_step", sa.BigInteger()),
        sa.Column("made_at", moment, server_default=sa.func.now(), nullable=False),
        sa.CheckConstraint("role IN ('owner', 'technician', 'helper', 'viewer')", name="ck_person_role"),
        sa.PrimaryKeyConstraint("id", name="pk_person"),
    )
    op.create_index("uq_person_name", "person", [sa.text("lower(name)")], unique=True)
    op.create_table(
        "trusted_computer",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("token_hash", sa.LargeBinary(), nullable=False),
        sa.Column("trusted_by", sa.String(), nullable=False),
        sa.Column("made_at", moment, server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_trusted_computer"),
        sa.UniqueConstraint("token_hash", name="uq_trusted_computer_token_hash"),
    )
    op.create_table(
        "link",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("token_hash", sa.LargeBinary(), nullable=False),
        sa.Column("gives", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("rig_id", sa.String()),
        sa.Column("person_id", sa.String()),
        sa.Column("made_by", sa.String(), nullable=False),
        sa.Column("made_at", moment, server_default=sa.func.now(), nullable=False),
        sa.Column("ends_at", moment, nullable=False),
        sa.CheckConstraint("gives IN ('read', 'record', 'passphrase')", name="ck_link_gives"),
        sa.CheckConstraint("(gives = 'passphrase') = (person_id IS NOT NULL)", name="ck_link_person"),
        sa.CheckConstraint("(gives <> 'passphrase') = (rig_id IS NOT NULL)", name="ck_link_rig"),
        sa.ForeignKeyConstraint(["rig_id"], ["holder.id"], name="fk_link_rig_id_holder", ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"], name="fk_link_person_id_person", ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name="pk_link"),
        sa.UniqueConstraint("token_hash", name="uq_link_token_hash"),
    )
    op.create_index("ix_link_rig_id", "link", ["rig_id"])
    op.create_index("ix_link_person_id", "link", ["person_id"])
    op.create_table(
        "sign_in",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("token_hash", sa.LargeBinary(), nullable=False),
        sa.Column("person_id", sa.String()),
        sa.Column("link_id", sa.String()),
        sa.Column("computer_id", sa.String()),
        sa.Column("browser", sa.String(), nullable=False),
        sa.Column("address", sa.String(), nullable=False),
        sa.Column("made_at", moment, server_default=sa.func.now(), nullable=False),
        sa.Column("seen_at", moment, server_default=sa.func.now(), nullable=False),
        sa.Column("ends_at", moment, nullable=False),
        sa.CheckConstraint("num_nonnulls(person_id, link_id) = 1", name="ck_sign_in_who"),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"], name="fk_sign_in_person_id_person", ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["link_id"], ["link.id"], name="fk_sign_in_link_id_link", ondelete="CASCADE"),
        sa.ForeignKeyConstraint(
            ["computer_id"], ["trusted_computer.id"], name="fk_sign_in_computer_id_trusted_computer", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name="pk_sign_in"),
        sa.UniqueConstraint("token_hash", name="uq_sign_in_token_hash"),
    )
    for column in ("person_id", "link_id", "computer_id"):
        op.create_index(f"ix_sign_in_{column}", "sign_in", [column])
    op.create_table(
        "sign_in_attempt",
        sa.Column("id", sa.BigInteger(), nullable=False),
        sa.Column("subject", sa.String(), nullable=False),
        sa.Column("at", moment, server_default=sa.func.clock_timestamp(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_sign_in_attempt"),
    )
    op.create_index("ix_sign_in_attempt_subject", "sign_in_attempt", ["subject", "at"])
    op.add_column("edit", sa.Column("as_built", sa.String()))
    op.create_check_constraint("ck_edit_as_built", "edit", "as_built IN ('open', 'kept', 'restored')")
    edit = sa.table("edit", sa.column("person", sa.String()))
    nobodys = edit.c.person.not_in(("setup", "command-line"))
    op.execute(edit.update().where(nobodys).values(person=DEMO_TECHNICIAN))


def downgrade() -> None:
    """Accounts and links are lost; who made an edit stays as a name."""
    op.drop_constraint("ck_edit_as_built", "edit", type_="check")
    op.drop_column("edit", "as_built")
    for table in ("sign_in_attempt", "sign_in", "link", "trusted_computer", "person"):
        op.drop_table(table)
