"""What the tests of store, web and page stand on: a real PostgreSQL and a real server."""

from __future__ import annotations

import os
import shutil
import tempfile
import uuid
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from functools import cache
from multiprocessing.util import Finalize
from pathlib import Path

import psycopg
from playwright.sync_api import Browser
from sqlalchemy import Engine
from sqlalchemy.orm import Session

from keen_slate.store.database import let_in, migrate, open_engine
from keen_slate.store.shelf import Shelf, teacher_named
from keen_slate.web import heavy
from tools.browser import chromium
from tools.postgres import DESK, USER, LocalPostgres
from tools.server import LiveServer

# Turns at heavy work of this process alone: tests do not wait for those of others.
_run = os.environ["KEEN_SLATE_RUN"] = tempfile.mkdtemp(prefix="keen-slate-run-")
Finalize(None, shutil.rmtree, (_run, True), exitpriority=1)


@cache
def postgres() -> LocalPostgres:
    """The throw-away server of this run."""
    directory = Path(tempfile.mkdtemp(prefix="keen-slate-test-"))
    directory.chmod(0o755)
    server = LocalPostgres(directory / "postgres", lasting=False)
    server.start(0)
    Finalize(None, server.remove, exitpriority=1)
    return server


def empty_database() -> str:
    """The address of a new database without tables."""
    name = f"test_{uuid.uuid4().hex[:12]}"
    with psycopg.connect(postgres().owner_url, autocommit=True) as connection:
        connection.execute(f"create database {name} owner {USER}")
    return postgres().url.rsplit("/", 1)[0] + f"/{name}"


@cache
def database_url() -> str:
    """The address of the database that the tests share, with all tables."""
    url = empty_database()
    migrate(url)
    let_in(url, DESK)
    return url


def desk_url() -> str:
    """The address by which the application comes to that database."""
    return postgres().desk_url(database_url().rsplit("/", 1)[1])


@cache
def engine() -> Engine:
    """The engine of the shared database."""
    made = open_engine(database_url())
    Finalize(None, made.dispose, exitpriority=2)
    return made


def new_teacher(name: str = "A teacher") -> uuid.UUID:
    """A teacher whom no other test knows."""
    with Session(engine()) as session, session.begin():
        return teacher_named(session, f"{name} {uuid.uuid4()}").id


def new_set(teacher: uuid.UUID, title: str, problems: list[str]) -> uuid.UUID:
    """A set of *problems* on the shelf of *teacher*."""
    with Session(engine()) as session, session.begin():
        return Shelf(session, teacher).add_set(title, [{"source": problem} for problem in problems]).id


@cache
def _server() -> LiveServer:
    # Both cores are at work when the tests run: what gives way to everything would never have its turn.
    made = LiveServer(database_url(), desk_url(), more={"KEEN_SLATE_NICE": "0"})
    Finalize(None, made.stop, exitpriority=3)
    return made


def live_server() -> LiveServer:
    """The application over the shared database: one for all tests of a process, started anew where a test has
    ended it.
    """
    made = _server()
    made.start_again()
    return made


@contextmanager
def turns_held(server: LiveServer, *turns: tuple[str, int]) -> Iterator[None]:
    """While others have these turns at heavy work, as the kernel keeps them."""
    with ExitStack() as stack:
        for turn in turns:
            assert stack.enter_context(turn_tried(server, *turn))
        yield


@contextmanager
def turn_tried(server: LiveServer, name: str, number: int) -> Iterator[bool]:
    """Whether this turn was free; it is held meanwhile, if so."""
    with Path(server.environment["KEEN_SLATE_RUN"], name).open("a+") as handle:
        yield heavy._locked(handle.fileno(), number)


@cache
def browser() -> Browser:
    """Chromium: one for all tests of a process. All pages of the application share a process of it, which has compiled
    the scripts already: a page opens in less than half the time.
    """
    left = ExitStack()
    Finalize(None, left.close, exitpriority=4)
    return left.enter_context(chromium("--process-per-site", "--force-prefers-reduced-motion"))
