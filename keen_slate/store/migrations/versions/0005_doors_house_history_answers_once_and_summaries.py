"""who is signed in, a history of the house's ways, changes that are sent twice, what the Shelf shows of an example"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = "the history of the ways for all sets, and who is signed in"


def upgrade() -> None:
    op.add_column("teacher", sa.Column("version", sa.Integer(), server_default="1", nullable=False))
    op.add_column("teacher", sa.Column("at_change", sa.Integer(), server_default="0", nullable=False))
    op.add_column("example", sa.Column("summary", postgresql.JSONB(), nullable=True))
    op.add_column("example", sa.Column("summary_key", sa.String(32), nullable=True))
    op.create_index(op.f("ix_example_set_teacher_id_place_changed_at"), "example_set", ["teacher_id", "place", "changed_at"])
    _create("house_change", sa.Column("number", sa.Integer(), nullable=False), sa.Column("said", sa.Text(), nullable=False),
            sa.Column("after", postgresql.JSONB(), nullable=False), key="number")
    _create("sign_in", sa.Column("secret", sa.String(64), nullable=False),
            sa.Column("seen_at", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False), key="secret")
    _create("entry_link", sa.Column("secret", sa.String(64), nullable=False), key="secret")
    _create("answered", sa.Column("key", sa.Uuid(), nullable=False), sa.Column("status", sa.Integer(), nullable=False),
            sa.Column("body", sa.LargeBinary(), nullable=False), key="key")


def _create(table: str, *columns: sa.Column, key: str) -> None:
    """A table of a teacher's, with the moment in which each row was made."""
    op.create_table(
        table,
        sa.Column("teacher_id", sa.Uuid(), nullable=False),
        *columns,
        sa.Column("made_at", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False),
        sa.ForeignKeyConstraint(["teacher_id"], ["teacher.id"], name=op.f(f"fk_{table}_teacher_id_teacher"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("teacher_id", key, name=op.f(f"pk_{table}")),
    )


def downgrade() -> None:
    for table in ("answered", "entry_link", "sign_in", "house_change"):
        op.drop_table(table)
    op.drop_index(op.f("ix_example_set_teacher_id_place_changed_at"), table_name="example_set")
    op.drop_column("example", "summary_key")
    op.drop_column("example", "summary")
    op.drop_column("teacher", "at_change")
    op.drop_column("teacher", "version")
