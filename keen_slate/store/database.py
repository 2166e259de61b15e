"""The way to PostgreSQL: an engine from an address, and migrations to the newest tables."""

from __future__ import annotations

from pathlib import Path

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine, create_engine

MIGRATIONS = Path(__file__).parent / "migrations"


def open_engine(url: str) -> Engine:
    """An engine for *url*; a connection that has died is noticed before it is used, and waiting has an end."""
    return create_engine(
        url, pool_pre_ping=True, pool_timeout=5, connect_args={"connect_timeout": 5, "application_name": "keen-slate"}
    )


def migration_config(url: str) -> Config:
    """The settings of Alembic for the database at *url*."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.set_main_option("sqlalchemy.url", url.replace("%", "%%"))
    return config


def migrate(url: str, revision: str = "head") -> None:
    """Bring the tables of the database at *url* up to *revision*."""
    command.upgrade(migration_config(url), revision)
