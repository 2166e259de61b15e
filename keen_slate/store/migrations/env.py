"""How Alembic reaches the database: the address comes from the caller, never from a file."""

from alembic import context
from sqlalchemy import create_engine, pool

from keen_slate.store.models import Base

engine = create_engine(context.config.get_main_option("sqlalchemy.url") or "", poolclass=pool.NullPool)
with engine.connect() as connection:
    context.configure(connection=connection, target_metadata=Base.metadata, compare_server_default=True)
    with context.begin_transaction():
        context.run_migrations()
