"""what is written in a set in one place, so that a search reads a line a set and not all examples"""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = ""

_AT_ONCE = 1000
_WRITTEN = sa.text("""
    SELECT s.teacher_id, s.id, concat_ws(E'\\n',
        s.title, nullif(s.note, ''), nullif(s.objective, ''),
        (SELECT string_agg(code, E'\\n') FROM jsonb_array_elements_text(s.standards) AS code),
        (SELECT string_agg(concat_ws(E'\\n', e.source, nullif(e.note, '')), E'\\n' ORDER BY e.position)
           FROM example AS e WHERE e.teacher_id = s.teacher_id AND e.set_id = s.id)) AS written
    FROM example_set AS s
""")
_KEEP = sa.text("UPDATE example_set SET searched = :searched WHERE teacher_id = :teacher AND id = :set")


def upgrade() -> None:
    op.add_column("example_set", sa.Column("searched", sa.Text(), server_default="", nullable=False))
    # Small letters are made here: what the database takes for them depends on how it was set up.
    rows = op.get_bind().execute(_WRITTEN).partitions(_AT_ONCE)
    for some in rows:
        kept = [{"teacher": one.teacher_id, "set": one.id, "searched": one.written.lower()} for one in some]
        op.get_bind().execute(_KEEP, kept)


def downgrade() -> None:
    op.drop_column("example_set", "searched")
