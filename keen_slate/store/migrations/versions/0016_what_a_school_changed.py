"""what was changed in the ways of a school, so that it can be undone"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = "what can be undone in the ways of schools"


def upgrade() -> None:
    op.add_column("school", sa.Column("at_change", sa.Integer(), server_default="0", nullable=False))
    op.create_table(
        "school_change",
        sa.Column("school_id", sa.Uuid(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("said", sa.Text(), nullable=False),
        sa.Column("after", JSONB(), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.ForeignKeyConstraint(
            ["school_id"], ["school.id"], name="fk_school_change_school_id_school", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("school_id", "number", name="pk_school_change"),
    )
    op.execute("ALTER TABLE school_change ENABLE ROW LEVEL SECURITY")
    op.execute("CREATE POLICY head ON school_change USING (school_id = (SELECT keen_slate_headed()))")


def downgrade() -> None:
    op.drop_table("school_change")
    op.drop_column("school", "at_change")
