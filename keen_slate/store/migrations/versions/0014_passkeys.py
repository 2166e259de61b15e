"""passkeys of teachers, and the challenges that are out"""

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = "passkeys"


def upgrade() -> None:
    op.create_table(
        "challenge",
        sa.Column("said", sa.String(64), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("said", name="pk_challenge"),
    )
    op.create_index("ix_challenge_made_at", "challenge", ["made_at"])
    op.create_table(
        "passkey",
        sa.Column("teacher_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.String(1400), nullable=False),
        sa.Column("public_key", sa.LargeBinary(), nullable=False),
        sa.Column("count", sa.BigInteger(), nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("made_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.ForeignKeyConstraint(
            ["teacher_id"], ["teacher.id"], name="fk_passkey_teacher_id_teacher", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("teacher_id", "id", name="pk_passkey"),
    )
    op.execute("ALTER TABLE passkey ENABLE ROW LEVEL SECURITY")
    op.execute("CREATE POLICY own ON passkey USING (teacher_id = (SELECT keen_slate_me()))")


def downgrade() -> None:
    op.drop_table("passkey")
    op.drop_table("challenge")
