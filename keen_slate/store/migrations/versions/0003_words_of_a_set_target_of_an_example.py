"""words of a set, and the form that a lone number is converted to"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = "the words written for a whole set, and the forms that lone numbers are converted to"


def upgrade() -> None:
    op.add_column("example_set", sa.Column("words", postgresql.JSONB(), server_default="{}", nullable=False))
    op.add_column("example", sa.Column("target", sa.String(12), nullable=True))


def downgrade() -> None:
    op.drop_column("example", "target")
    op.drop_column("example_set", "words")
