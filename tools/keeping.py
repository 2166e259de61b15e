"""The records as one file: written before they are changed by another version, on wish, and brought back.

A file is a dump of PostgreSQL's own (pg_dump's custom format). What stands where it is brought back to is kept under
another name.
"""

from __future__ import annotations

import os
import subprocess
from datetime import datetime
from pathlib import Path

import psycopg
from psycopg import sql
from sqlalchemy import URL, make_url, text

from tools.postgres import DATABASE, USER, LocalPostgres, PostgresError, newest

MOST_KEPT = 3  # files that are written by themselves; those that were asked for are their owner's


def dump(url: str, target: Path) -> Path:
    """Write the database at *url* (SQLAlchemy's) to the file *target*, which only its owner reads.

    Raises `PostgresError`.
    """
    begun = target.with_name(f"{target.name}.new")
    begun.touch(mode=0o600)
    begun.chmod(0o600)
    with begun.open("wb") as file:
        _run("pg_dump", make_url(url), "--format=custom", "--no-owner", "--no-privileges", stdout=file)
        os.fsync(file.fileno())
    begun.rename(target)
    return target


def keep(url: str, folder: Path, revision: str) -> Path:
    """Write the database at *url*, which stands at a *revision*, to a new file in *folder*; the last three are kept."""
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    made = dump(url, folder / f"records-{datetime.now():%Y-%m-%dT%H%M%S}-of-{revision}.dump")
    for old in sorted(folder.glob("records-*.dump"))[:-MOST_KEPT]:
        old.unlink()
    return made


def restore(server: LocalPostgres, file: Path) -> str:
    """Bring the records of a *file* back into a *server* that runs; returns the name under which those that were there
    are kept.

    They are brought in beside, looked at, and only then take the place. Raises `PostgresError` where the file cannot be
    used.
    """
    beside, aside = f"{DATABASE}_brought", f"{DATABASE}_{datetime.now():%Y%m%d_%H%M%S}"
    with psycopg.connect(server.owner_url, autocommit=True) as owner:
        owner.execute(sql.SQL("drop database if exists {}").format(sql.Identifier(beside)))
        owner.execute(sql.SQL("create database {} owner {}").format(sql.Identifier(beside), sql.Identifier(USER)))
        try:
            url = make_url(server.url).set(database=beside)
            _run("pg_restore", url, "--exit-on-error", "--no-owner", "--no-privileges", "--dbname", beside, str(file))
            _look_at(url)
        except PostgresError:
            owner.execute(sql.SQL("drop database {}").format(sql.Identifier(beside)))
            raise
        rename = sql.SQL("alter database {} rename to {}")
        owner.execute(rename.format(sql.Identifier(DATABASE), sql.Identifier(aside)))
        owner.execute(rename.format(sql.Identifier(beside), sql.Identifier(DATABASE)))
    return aside


def _look_at(url: URL) -> None:
    """Raises `PostgresError` where the records at *url* are not those of Keen Slate."""
    from keen_slate.store.database import open_engine

    engine = open_engine(url.render_as_string(hide_password=False))
    try:
        with engine.connect() as connection:
            connection.execute(text("select count(*) from teacher"))
            connection.execute(text("select version_num from alembic_version")).one()
    except Exception as error:
        raise PostgresError("The file does not hold the records of Keen Slate. Nothing was changed.") from error
    finally:
        engine.dispose()


def _run(program: str, url: URL, *arguments: str, stdout: object = subprocess.DEVNULL) -> None:
    """Run one of PostgreSQL's own *program*s on the database at *url*. Raises `PostgresError` with what it says."""
    where = {"PGHOST": url.host, "PGPORT": str(url.port or 5432), "PGUSER": url.username, "PGDATABASE": url.database,
             "PGPASSWORD": str(url.password or "")}  # fmt: skip
    environment = os.environ | {name: value for name, value in where.items() if value}
    done = subprocess.run(
        [str(newest() / program), *arguments], env=environment, stdout=stdout, stderr=subprocess.PIPE, text=True,
        check=False,  # type: ignore[call-overload]
    )  # fmt: skip
    if done.returncode:
        raise PostgresError(
            f"{program} could not do it: "
            f"{done.stderr.strip().splitlines()[-1] if done.stderr.strip() else done.returncode}"
        )
