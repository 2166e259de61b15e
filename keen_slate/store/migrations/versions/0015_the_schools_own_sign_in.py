"""who a teacher is to the school's own sign-in, and the ways there that have begun"""

import sqlalchemy as sa
from alembic import op

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = "who comes in by the school's own sign-in"


def upgrade() -> None:
    op.create_table(
        "begun",
        sa.Column("state", sa.String(64), nullable=False),
        sa.Column("meant", sa.String(64), nullable=False),
        sa.Column("nonce", sa.String(64), nullable=False),
        sa.Column("verifier", sa.String(64), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("state", name="pk_begun"),
    )
    op.create_index("ix_begun_made_at", "begun", ["made_at"])
    op.create_table(
        "identity",
        sa.Column("hashed", sa.String(64), nullable=False),
        sa.Column("teacher_id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("made_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.ForeignKeyConstraint(
            ["teacher_id"], ["teacher.id"], name="fk_identity_teacher_id_teacher", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("hashed", name="pk_identity"),
    )
    op.create_index("ix_identity_teacher_id", "identity", ["teacher_id"])
    op.execute("ALTER TABLE identity ENABLE ROW LEVEL SECURITY")
    op.execute("CREATE POLICY own ON identity USING (teacher_id = (SELECT keen_slate_me()))")
    op.execute("CREATE POLICY look ON identity FOR SELECT USING (hashed = (SELECT keen_slate_said('identity')))")


def downgrade() -> None:
    op.drop_table("identity")
    op.drop_table("begun")
