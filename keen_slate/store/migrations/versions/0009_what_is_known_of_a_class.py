"""what a class's sittings say together, kept until something that it rests on changes"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = ""


def upgrade() -> None:
    op.add_column("school_class", sa.Column("known", postgresql.JSONB(), nullable=True))


def downgrade() -> None:
    op.drop_column("school_class", "known")
