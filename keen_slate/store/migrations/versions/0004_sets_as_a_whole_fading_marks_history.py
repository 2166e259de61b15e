"""notes, objectives, lesson length and place of a set; fading, marks, notes and times of an example; the history of a set"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = "notes, objectives, fading, marks, times, and the history of every set"


def upgrade() -> None:
    op.add_column("example_set", sa.Column("note", sa.Text(), server_default="", nullable=False))
    op.add_column("example_set", sa.Column("objective", sa.Text(), server_default="", nullable=False))
    op.add_column("example_set", sa.Column("standards", postgresql.JSONB(), server_default="[]", nullable=False))
    op.add_column("example_set", sa.Column("lesson_minutes", sa.Integer(), nullable=True))
    op.add_column("example_set", sa.Column("place", sa.String(8), server_default="shelf", nullable=False))
    op.add_column("example_set", sa.Column("show_key", sa.String(43), nullable=True))
    op.add_column("example_set", sa.Column("at_change", sa.Integer(), server_default="0", nullable=False))
    op.add_column("example", sa.Column("note", sa.Text(), server_default="", nullable=False))
    op.add_column("example", sa.Column("fading", postgresql.JSONB(), server_default="{}", nullable=False))
    op.add_column("example", sa.Column("marks", postgresql.JSONB(), server_default="{}", nullable=False))
    op.add_column("example", sa.Column("time_log", postgresql.JSONB(), server_default="[]", nullable=False))
    op.create_table(
        "change",
        sa.Column("teacher_id", sa.Uuid(), nullable=False),
        sa.Column("set_id", sa.Uuid(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("said", sa.Text(), nullable=False),
        sa.Column("after", postgresql.JSONB(), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False),
        sa.ForeignKeyConstraint(
            ["teacher_id", "set_id"],
            ["example_set.teacher_id", "example_set.id"],
            name=op.f("fk_change_teacher_id_example_set"),
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("teacher_id", "set_id", "number", name=op.f("pk_change")),
    )


def downgrade() -> None:
    op.drop_table("change")
    for column in ("time_log", "marks", "fading", "note"):
        op.drop_column("example", column)
    for column in ("at_change", "show_key", "place", "lesson_minutes", "standards", "objective", "note"):
        op.drop_column("example_set", column)
