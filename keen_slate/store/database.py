"""The way to PostgreSQL: an engine from an address, and migrations to the newest tables."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path
from typing import TYPE_CHECKING

from psycopg.errors import DiskFull
from sqlalchemy import Connection, Engine, create_engine, event, inspect, text
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session

if TYPE_CHECKING:  # loaded where there is something to migrate: a start is quicker without it
    from alembic.config import Config


class SchemaError(RuntimeError):
    """The tables of the database are not those of this version, and cannot be made so; the sentence says why."""


MIGRATIONS = Path(__file__).parent / "migrations"
_DIGITS = 4  # of a revision, at the beginning of the name of its file
_REVISION = "alembic_version"  # Alembic's own table


# Nothing that is asked of the database may hold up a lesson.
_TIMEOUTS = {"statement_timeout": "10s", "lock_timeout": "5s", "idle_in_transaction_session_timeout": "30s"}


def open_engine(url: str, pooled: bool = False) -> Engine:
    """An engine for *url*; a connection that has died is noticed before it is used, and waiting has an end.

    What is said of a failed statement never holds the texts that were in it. *pooled* says that a connection may be
    another one in each transaction (PgBouncer, pooling transactions): nothing is said to it, or prepared in it, for
    longer.
    """
    options = {"options": " ".join([f"-c {name}={value}" for name, value in _TIMEOUTS.items()])}
    engine = create_engine(
        url, pool_pre_ping=True, pool_timeout=5, pool_size=10, max_overflow=6, hide_parameters=True,
        connect_args={"connect_timeout": 5, "application_name": "keen-slate",
            **({"prepare_threshold": None} if pooled else options)},
    )  # fmt: skip
    if pooled:
        event.listen(engine, "begin", _bound)
    return engine


def _bound(connection: Connection) -> None:
    connection.exec_driver_sql(_BOUNDS)


_BOUNDS = "SELECT " + ", ".join([f"set_config('{name}', '{value}', true)" for name, value in _TIMEOUTS.items()])


@contextmanager
def where_there_is_room(session: Session) -> Iterator[None]:
    """What the block writes is only for the next look: on a full disk it is left, and whoever reads goes on."""
    try:
        with session.begin_nested():
            yield
    except DBAPIError as error:
        if not isinstance(error.orig, DiskFull):
            raise


def migration_config(url: str) -> Config:
    """The settings of Alembic for the database at *url*."""
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.set_main_option("sqlalchemy.url", url.replace("%", "%%"))
    return config


def migrate(url: str, revision: str = "head") -> None:
    """Bring the tables of the database at *url* up to *revision*."""
    from alembic import command

    command.upgrade(migration_config(url), revision)


# What the application may change of rows whose other columns decide who reaches what.
_COLUMNS = {"teacher": "name, ways, version, at_change, leaves_at", "school": "ways, version, at_change"}


def let_in(url: str, role: str) -> None:
    """Let the application's *role* read and change the rows of the database at *url*, whose tables belong to who asks.

    Raises `SchemaError` where row-level security would not hold for it (a superuser, or who owns the tables).
    """
    engine = create_engine(url)
    name = engine.dialect.identifier_preparer.quote(role)
    try:
        with engine.begin() as connection:
            if not connection.execute(_HELD_BACK, {"role": role}).scalar():
                raise SchemaError(
                    f"The application would come to the database as {role}, who may do everything there. Make a role "
                    "that "
                    "owns nothing (create role keen_slate_desk login password '...'), name it in "
                    "KEEN_SLATE_DATABASE_URL, "
                    "and the one that owns the tables in KEEN_SLATE_OWNER_URL."
                )
            connection.exec_driver_sql(f"GRANT USAGE ON SCHEMA public TO {name}")
            connection.exec_driver_sql(f"GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO {name}")
            connection.exec_driver_sql(f"REVOKE INSERT, UPDATE, DELETE ON {_REVISION} FROM {name}")
            for table, columns in _COLUMNS.items():
                connection.exec_driver_sql(f"REVOKE UPDATE ON {table} FROM {name}")
                connection.exec_driver_sql(f"GRANT UPDATE ({columns}) ON {table} TO {name}")
    finally:
        engine.dispose()


_HELD_BACK = text("""
    SELECT NOT (rolsuper OR rolbypassrls OR EXISTS (
        SELECT FROM pg_tables WHERE schemaname = 'public' AND pg_has_role(pg_roles.oid, tableowner, 'MEMBER')))
    FROM pg_roles WHERE rolname = :role
""")


def bring_up_to_date(url: str, first: Callable[[str], object] = lambda revision: None) -> str:
    """Bring the tables up to this version's; says what was done, "" where nothing was to do. Raises `SchemaError`.

    *first* is called with the revision at which the records stand, before anything is done to them.
    """
    known, found = revisions(), _revision(url)
    newest = known[-1]
    if found is not None and found not in known:
        raise SchemaError(
            f"The records were made by a newer version of Keen Slate ({found}; this one knows {newest}). Start the "
            "newer one; "
            f"there, ./slate downgrade {newest} brings the records back to this one."
        )
    if found == newest:
        return ""
    if found is not None:
        first(found)
    migrate(url)
    return "" if found is None else f"The records were brought from {found} to {newest}.\n"


def reads_with(connection: Connection, known: Sequence[str]) -> bool:
    """Whether a version that *known* revisions belong to can work with the tables as they stand.

    Those are its own, or of a newer one, which keep what it needs.
    """
    found = connection.execute(text(f"select version_num from {_REVISION}")).scalar()
    return found is not None and found not in known[:-1]


def revisions() -> list[str]:
    """The revisions of the tables that this version knows, the oldest first."""
    return sorted(path.name[:_DIGITS] for path in (MIGRATIONS / "versions").glob("[0-9]*.py"))


def downgrade_to(
    url: str, revision: str, lose_data: bool = False, first: Callable[[str], object] = lambda revision: None
) -> None:
    """Bring the tables back to *revision*. Raises `SchemaError`, also where something would be lost and *lose_data* is
    not said.

    *first* is called as by `bring_up_to_date`.
    """
    from alembic import command
    from alembic.script import ScriptDirectory

    scripts = ScriptDirectory.from_config(migration_config(url))
    known = revisions()[::-1]  # the newest first
    found = _revision(url)
    if revision not in known or found not in known or known.index(revision) < known.index(found):
        raise SchemaError(
            f"The records stand at {found}; they can be brought back to {', '.join(reversed(known))}, none newer."
        )
    undone = known[known.index(found) : known.index(revision)]
    lost = [loses for name in undone if (loses := scripts.get_revision(name).module.loses)]
    if lost and not lose_data:
        raise SchemaError(f"Going back to {revision} takes away {'; '.join(lost)}. Say --lose-data if it may.")
    first(str(found))
    command.downgrade(migration_config(url), revision)


def _revision(url: str) -> str | None:
    engine = create_engine(url)
    try:
        with engine.connect() as connection:
            if not inspect(connection).has_table(_REVISION):
                return None
            return connection.execute(text(f"select version_num from {_REVISION}")).scalar()
    finally:
        engine.dispose()
