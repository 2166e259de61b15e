"""ways of the house and of a set"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = "the ways that were chosen for all sets and for each"


def upgrade() -> None:
    for table in ("teacher", "example_set"):
        op.add_column(table, sa.Column("ways", postgresql.JSONB(), server_default="{}", nullable=False))


def downgrade() -> None:
    for table in ("teacher", "example_set"):
        op.drop_column(table, "ways")
