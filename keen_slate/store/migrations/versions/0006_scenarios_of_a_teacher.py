"""scenarios of a teacher's own, for stories"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = "the scenarios that teachers have made"


def upgrade() -> None:
    op.create_table(
        "own_scenario",
        sa.Column("teacher_id", sa.Uuid(), nullable=False),
        sa.Column("code", sa.String(60), nullable=False),
        sa.Column("document", postgresql.JSONB(), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False),
        sa.ForeignKeyConstraint(["teacher_id"], ["teacher.id"], name=op.f("fk_own_scenario_teacher_id_teacher"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("teacher_id", "code", name=op.f("pk_own_scenario")),
    )


def downgrade() -> None:
    op.drop_table("own_scenario")
