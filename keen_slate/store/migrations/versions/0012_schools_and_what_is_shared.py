"""schools, who teaches where, and the sets that are shared with colleagues"""

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = "the schools, who teaches where, and which sets are shared"


def upgrade() -> None:
    op.create_table(
        "school",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_school"),
    )
    op.create_index("ix_school_name", "school", ["name"], unique=True)
    op.add_column("teacher", sa.Column("school_id", sa.Uuid(), nullable=True))
    op.create_foreign_key(
        "fk_teacher_school_id_school", "teacher", "school", ["school_id"], ["id"], ondelete="SET NULL"
    )
    op.create_index("ix_teacher_school_id", "teacher", ["school_id"])
    op.create_table(
        "share",
        sa.Column("teacher_id", sa.Uuid(), nullable=False),
        sa.Column("set_id", sa.Uuid(), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.ForeignKeyConstraint(
            ["teacher_id", "set_id"], ["example_set.teacher_id", "example_set.id"],
            name="fk_share_teacher_id_set_id_example_set", ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("teacher_id", "set_id", name="pk_share"),
    )  # fmt: skip


def downgrade() -> None:
    op.drop_table("share")
    op.drop_index("ix_teacher_school_id", "teacher")
    op.drop_constraint("fk_teacher_school_id_school", "teacher", type_="foreignkey")
    op.drop_column("teacher", "school_id")
    op.drop_table("school")
