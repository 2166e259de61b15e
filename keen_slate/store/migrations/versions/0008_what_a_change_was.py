"""what a change was that is answered once"""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = ""


def upgrade() -> None:
    op.add_column("answered", sa.Column("digest", sa.String(64), server_default="", nullable=False))


def downgrade() -> None:
    op.drop_column("answered", "digest")
