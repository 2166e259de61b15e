"""A backup and a restore of many records, rehearsed: how long each takes.

./slate bench restoring [GB]: a teacher's year made through the store, then copied by the database under other names
until the records take so much room (1 GB, with indexes).
"""

from __future__ import annotations

import random
import tempfile
import time
import uuid
from pathlib import Path

from sqlalchemy import Engine, inspect, text

from bench.year import a_year
from keen_slate.store.database import migrate, open_engine
from tools import keeping
from tools.throw_away import database

_SIZE = "select pg_database_size(current_database())"
# Parents first: what belongs to something comes after it.
_COPIED = ("example_set", "example", "change", "school_class", "pupil", "sitting", "answer", "entry")


def report(gigabytes: float) -> None:
    """Print the room that the records take, and the seconds of the backup and of the restore."""
    with database() as records, tempfile.TemporaryDirectory(prefix="keen-slate-kept-") as directory:
        migrate(records.url)
        engine = open_engine(records.url)
        a_year(engine, random.Random(1))
        size = _fill(engine, gigabytes * 1024**3)
        rows = _rows(engine)
        engine.dispose()
        file = Path(directory) / "records.dump"
        begun = time.monotonic()
        keeping.dump(records.url, file)
        saved = time.monotonic()
        keeping.restore(records, file)
        back = time.monotonic()
        engine = open_engine(records.url)
        assert _rows(engine) == rows, "not all rows are back"
        engine.dispose()
        print(
            f"restoring: {size / 1024**3:.2f} GB, {sum(rows.values()):,} rows of {rows['teacher']} teachers; a backup "
            f"takes {saved - begun:.0f} s ({file.stat().st_size / 1024**2:.0f} MB), a restore {back - saved:.0f} s"
        )


def _fill(engine: Engine, wanted: float) -> float:
    """Copy the one teacher who is there until the records take *wanted* bytes; returns how many they take."""
    columns = {
        table: ", ".join([one["name"] for one in inspect(engine).get_columns(table) if one["name"] != "teacher_id"])
        for table in _COPIED
    }
    with engine.connect() as connection:
        first = connection.execute(text("select id from teacher")).scalar_one()
    while True:
        with engine.begin() as connection:
            size = float(connection.execute(text(_SIZE)).scalar_one())
            if size >= wanted:
                return size
            asked = {"first": first, "new": uuid.uuid4()}
            connection.execute(text("insert into teacher (id, name) values (:new, 'A copy')"), asked)
            for table, others in columns.items():
                copied = f"select :new, {others} from {table} where teacher_id = :first"
                connection.execute(text(f"insert into {table} (teacher_id, {others}) {copied}"), asked)


def _rows(engine: Engine) -> dict[str, int]:
    with engine.connect() as connection:
        return {
            table: connection.execute(text(f"select count(*) from {table}")).scalar_one()
            for table in ("teacher", *_COPIED)
        }
