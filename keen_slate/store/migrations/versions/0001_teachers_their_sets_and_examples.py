"""teachers, their sets and examples"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = '0001'
down_revision = None
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = "all sets"


def upgrade() -> None:
    op.create_table('teacher',
    sa.Column('id', sa.Uuid(), nullable=False),
    sa.Column('name', sa.String(length=120), nullable=False),
    sa.Column('created_at', sa.DateTime(timezone=True), server_default=sa.text('now()'), nullable=False),
    sa.PrimaryKeyConstraint('id', name=op.f('pk_teacher'))
    )
    op.create_table('example_set',
    sa.Column('teacher_id', sa.Uuid(), nullable=False),
    sa.Column('id', sa.Uuid(), nullable=False),
    sa.Column('title', sa.String(length=120), nullable=False),
    sa.Column('version', sa.Integer(), nullable=False),
    sa.Column('created_at', sa.DateTime(timezone=True), server_default=sa.text('now()'), nullable=False),
    sa.Column('changed_at', sa.DateTime(timezone=True), server_default=sa.text('now()'), nullable=False),
    sa.ForeignKeyConstraint(['teacher_id'], ['teacher.id'], name=op.f('fk_example_set_teacher_id_teacher'), ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('teacher_id', 'id', name=op.f('pk_example_set'))
    )
    op.create_table('example',
    sa.Column('teacher_id', sa.Uuid(), nullable=False),
    sa.Column('id', sa.Uuid(), nullable=False),
    sa.Column('set_id', sa.Uuid(), nullable=False),
    sa.Column('position', sa.Integer(), nullable=False),
    sa.Column('source', sa.Text(), nullable=False),
    sa.Column('ways', postgresql.JSONB(astext_type=sa.Text()), server_default='{}', nullable=False),
    sa.Column('words', postgresql.JSONB(astext_type=sa.Text()), server_default='{}', nullable=False),
    sa.ForeignKeyConstraint(['teacher_id', 'set_id'], ['example_set.teacher_id', 'example_set.id'], name=op.f('fk_example_teacher_id_set_id_example_set'), ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('teacher_id', 'id', name=op.f('pk_example'))
    )
    op.create_index(op.f('ix_example_teacher_id_set_id_position'), 'example', ['teacher_id', 'set_id', 'position'], unique=False)


def downgrade() -> None:
    op.drop_index(op.f('ix_example_teacher_id_set_id_position'), table_name='example')
    op.drop_table('example')
    op.drop_table('example_set')
    op.drop_table('teacher')
