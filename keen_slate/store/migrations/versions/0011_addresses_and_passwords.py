"""an address and a password to sign in by, wrong tries counted, and by what a sign-in was made"""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = "the addresses and passwords that teachers sign in by"


def upgrade() -> None:
    op.create_table(
        "account",
        sa.Column("address", sa.String(254), nullable=False),
        sa.Column("teacher_id", sa.Uuid(), nullable=False),
        sa.Column("password", sa.Text(), nullable=False),
        sa.Column("changed_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.ForeignKeyConstraint(
            ["teacher_id"], ["teacher.id"], name="fk_account_teacher_id_teacher", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("address", name="pk_account"),
    )
    op.create_index("ix_account_teacher_id", "account", ["teacher_id"], unique=True)
    op.create_table(
        "tries",
        sa.Column("subject", sa.String(64), nullable=False),
        sa.Column("count", sa.Integer(), nullable=False),
        sa.Column("since", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("subject", name="pk_tries"),
    )
    op.add_column("sign_in", sa.Column("by_link", sa.Boolean(), server_default="true", nullable=False))


def downgrade() -> None:
    op.drop_column("sign_in", "by_link")
    op.drop_table("tries")
    op.drop_table("account")
