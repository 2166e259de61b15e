"""classes, their pupils, sittings, what was written in them, and a log of it"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = "the classes, and what their pupils have written"

NOW = sa.text("now()")
OF_CLASS = (["teacher_id", "class_id"], ["school_class.teacher_id", "school_class.id"])


def upgrade() -> None:
    op.create_table(
        "school_class",
        sa.Column("teacher_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("returns", postgresql.JSONB(), nullable=False),
        sa.Column("forget_months", sa.Integer(), nullable=True),
        sa.Column("created_at", sa.DateTime(timezone=True), server_default=NOW, nullable=False),
        sa.ForeignKeyConstraint(["teacher_id"], ["teacher.id"], name=op.f("fk_school_class_teacher_id_teacher"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("teacher_id", "id", name=op.f("pk_school_class")),
    )
    _of_class(
        "pupil",
        sa.Column("alias", sa.String(40), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("here", sa.Boolean(), server_default=sa.text("true"), nullable=False),
    )
    op.create_index(op.f("ix_pupil_teacher_id_class_id_position"), "pupil", ["teacher_id", "class_id", "position"])
    _of_class(
        "sitting",
        sa.Column("set_id", sa.Uuid(), nullable=True),
        sa.Column("title", sa.String(120), nullable=False),
        sa.Column("day", sa.Date(), nullable=False),
        sa.Column("kind", sa.String(12), nullable=False),
        sa.Column("questions", postgresql.JSONB(), nullable=False),
        sa.Column("moves", postgresql.JSONB(), server_default="{}", nullable=False),
        sa.Column("counter", sa.Integer(), server_default="0", nullable=False),
        sa.Column("known", postgresql.JSONB(), nullable=True),
        sa.Column("known_key", sa.String(64), nullable=True),
        sa.Column("created_at", sa.DateTime(timezone=True), server_default=NOW, nullable=False),
    )
    op.create_index(op.f("ix_sitting_teacher_id_class_id_day"), "sitting", ["teacher_id", "class_id", "day"])
    _of_sitting(
        "answer",
        sa.Column("pupil_id", sa.Uuid(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("written", sa.Text(), nullable=True),
        sa.Column("word", postgresql.JSONB(), server_default="{}", nullable=False),
        sa.Column("counter", sa.Integer(), nullable=False),
        key=("pupil_id", "number"),
    )
    op.create_index(op.f("ix_answer_teacher_id_sitting_id_counter"), "answer", ["teacher_id", "sitting_id", "counter"])
    _of_sitting(
        "entry",
        sa.Column("counter", sa.Integer(), nullable=False),
        sa.Column("pupil_id", sa.Uuid(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("written", sa.Text(), nullable=True),
        sa.Column("word", postgresql.JSONB(), server_default="{}", nullable=False),
        sa.Column("gone", sa.Boolean(), nullable=False),
        sa.Column("made_by", sa.String(8), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), server_default=NOW, nullable=False),
        key=("counter",),
    )
    op.create_index(op.f("ix_entry_teacher_id_pupil_id"), "entry", ["teacher_id", "pupil_id"])
    op.add_column("answered", sa.Column("class_id", sa.Uuid(), nullable=True))
    op.create_foreign_key(op.f("fk_answered_teacher_id_school_class"), "answered", "school_class",
                          ["teacher_id", "class_id"], ["teacher_id", "id"], ondelete="CASCADE")
    op.create_index(op.f("ix_answered_teacher_id_class_id"), "answered", ["teacher_id", "class_id"])


def _of_class(table: str, *columns: sa.Column) -> None:
    """A table whose rows belong to a class."""
    op.create_table(
        table,
        sa.Column("teacher_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("class_id", sa.Uuid(), nullable=False),
        *columns,
        sa.ForeignKeyConstraint(["teacher_id"], ["teacher.id"], name=op.f(f"fk_{table}_teacher_id_teacher"), ondelete="CASCADE"),
        sa.ForeignKeyConstraint(*OF_CLASS, name=op.f(f"fk_{table}_teacher_id_school_class"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("teacher_id", "id", name=op.f(f"pk_{table}")),
    )


def _of_sitting(table: str, *columns: sa.Column, key: tuple[str, ...]) -> None:
    """A table whose rows belong to a sitting and a pupil."""
    op.create_table(
        table,
        sa.Column("teacher_id", sa.Uuid(), nullable=False),
        sa.Column("sitting_id", sa.Uuid(), nullable=False),
        *columns,
        sa.ForeignKeyConstraint(["teacher_id"], ["teacher.id"], name=op.f(f"fk_{table}_teacher_id_teacher"), ondelete="CASCADE"),
        sa.ForeignKeyConstraint(
            ["teacher_id", "sitting_id"], ["sitting.teacher_id", "sitting.id"], name=op.f(f"fk_{table}_teacher_id_sitting"), ondelete="CASCADE"
        ),
        sa.ForeignKeyConstraint(
            ["teacher_id", "pupil_id"], ["pupil.teacher_id", "pupil.id"], name=op.f(f"fk_{table}_teacher_id_pupil"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("teacher_id", "sitting_id", *key, name=op.f(f"pk_{table}")),
    )


def downgrade() -> None:
    op.drop_index(op.f("ix_answered_teacher_id_class_id"), table_name="answered")
    op.drop_constraint(op.f("fk_answered_teacher_id_school_class"), "answered")
    op.drop_column("answered", "class_id")
    for table in ("entry", "answer", "sitting", "pupil", "school_class"):
        op.drop_table(table)
