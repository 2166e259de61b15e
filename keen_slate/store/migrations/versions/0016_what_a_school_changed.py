"""what was changed in the ways of a school, so that it can be undone; old sittings go, whether or not anybody looks"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = "what can be undone in the ways of schools"

# Those of classes that say after how many months, with what was said of all sittings of these classes.
FORGET = """
CREATE FUNCTION keen_slate_forget_sittings() RETURNS integer
    LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
DECLARE many integer;
BEGIN
    WITH gone AS (
        DELETE FROM sitting AS s USING school_class AS c
            WHERE s.teacher_id = c.teacher_id AND s.class_id = c.id AND c.forget_months IS NOT NULL
            AND s.day < current_date - make_interval(months => c.forget_months)
            RETURNING s.teacher_id, s.class_id
    ), known AS (
        UPDATE school_class AS c SET known = NULL FROM gone AS g WHERE c.teacher_id = g.teacher_id AND c.id = g.class_id
    )
    SELECT count(*) INTO many FROM gone;
    RETURN many;
END $$
"""


def upgrade() -> None:
    op.execute(FORGET)
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
    op.execute("DROP FUNCTION keen_slate_forget_sittings()")
    op.drop_table("school_change")
    op.drop_column("school", "at_change")
