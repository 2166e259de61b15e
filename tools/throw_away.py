"""The application over a database of its own that is thrown away afterwards: for benchmarks and screenshots."""

from __future__ import annotations

import tempfile
import uuid
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

from sqlalchemy import Engine
from sqlalchemy.orm import Session

from keen_slate.store.database import let_in, migrate, open_engine
from tools.postgres import DESK, LocalPostgres
from tools.server import LiveServer


@dataclass(frozen=True, slots=True)
class Running:
    """What runs: the way to its database, its server, and the teacher whose records are in it."""

    engine: Engine
    server: LiveServer
    teacher: uuid.UUID


@contextmanager
def database(port: int = 0, lasting: bool = False) -> Iterator[LocalPostgres]:
    """A server with a database without tables, which listens on *port* (0: a free one); where it is *lasting*, each
    change is on the disk before it is acknowledged.
    """
    with tempfile.TemporaryDirectory(prefix="keen-slate-throw-away-") as directory:
        Path(directory).chmod(0o755)
        server = LocalPostgres(Path(directory) / "postgres", lasting=lasting)
        try:
            server.start(port)
            yield server
        finally:
            server.remove()


@contextmanager
def application(fill: Callable[[Session], uuid.UUID], port: int = 0) -> Iterator[Running]:
    """The application with the records that *fill* makes (it returns the teacher); its database listens on *port*, 0
    for a free one.
    """
    with database(port) as records:
        migrate(records.url)
        let_in(records.url, DESK)
        engine = open_engine(records.url)
        with Session(engine) as session, session.begin():
            teacher = fill(session)
        server = LiveServer(records.url, records.desk_url())
        try:
            yield Running(engine, server, teacher)
        finally:
            server.stop()
            engine.dispose()
