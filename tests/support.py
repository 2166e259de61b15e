"""What the tests of store, web and page stand on: a real PostgreSQL, a real server, a real browser."""

from __future__ import annotations

import atexit
import os
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
import uuid
from functools import cache
from pathlib import Path

import psycopg
from sqlalchemy import Engine
from sqlalchemy.orm import Session

from keen_slate.store.database import migrate, open_engine
from keen_slate.store.shelf import Shelf, teacher_named
from tools.postgres import LocalPostgres, free_port

ROOT = Path(__file__).resolve().parents[1]


@cache
def postgres() -> LocalPostgres:
    """The throw-away server of this run."""
    directory = Path(tempfile.mkdtemp(prefix="keen-slate-test-"))
    directory.chmod(0o755)
    server = LocalPostgres(directory / "postgres", lasting=False)
    server.start(55500)
    atexit.register(server.remove)
    return server


def empty_database() -> str:
    """The address of a new database without tables."""
    name = f"test_{uuid.uuid4().hex[:12]}"
    with psycopg.connect(postgres().url.replace("+psycopg", ""), autocommit=True) as connection:
        connection.execute(f"create database {name}")
    return postgres().url.rsplit("/", 1)[0] + f"/{name}"


@cache
def database_url() -> str:
    """The address of the database that the tests share, with all tables."""
    url = empty_database()
    migrate(url)
    return url


@cache
def engine() -> Engine:
    """The engine of the shared database."""
    made = open_engine(database_url())
    atexit.register(made.dispose)
    return made


def new_teacher(name: str = "A teacher") -> uuid.UUID:
    """A teacher whom no other test knows."""
    with Session(engine()) as session, session.begin():
        return teacher_named(session, f"{name} {uuid.uuid4()}").id


def new_set(teacher: uuid.UUID, title: str, problems: list[str]) -> uuid.UUID:
    """A set of *problems* on the shelf of *teacher*."""
    with Session(engine()) as session, session.begin():
        shelf = Shelf(session, teacher)
        made = shelf.add_set(title)
        for problem in problems:
            made, _ = shelf.add_example(made.id, made.version, problem, None, {}, {})
        return made.id


class LiveServer:
    """The application in its own process, as an installation runs it."""

    def __init__(self, teacher: uuid.UUID, url: str | None = None) -> None:
        self.port = free_port(0)
        self.address = f"http://127.0.0.1:{self.port}"
        self.environment = os.environ | {
            "KEEN_SLATE_DATABASE_URL": url or database_url(),
            "KEEN_SLATE_SECRET_KEY": "only for tests",
            "KEEN_SLATE_TEACHER": str(teacher),
        }
        self.start()

    def start(self) -> None:
        """Start it, and wait until it answers."""
        command = [sys.executable, "-m", "gunicorn", "--bind", f"127.0.0.1:{self.port}", "--workers", "1", "--threads",
                   "4", "--log-level", "critical", "--no-control-socket", "keen_slate.web:create_app()"]  # fmt: skip
        self.process = subprocess.Popen(command, cwd=ROOT, env=self.environment)
        for _ in range(100):
            try:
                with urllib.request.urlopen(f"{self.address}/api/openapi.json", timeout=2):
                    return
            except OSError:
                time.sleep(0.1)
        raise RuntimeError("the server of the tests does not answer")

    def kill(self) -> None:
        """End it as a power cut would."""
        subprocess.run(["pkill", "-KILL", "-P", str(self.process.pid)], check=False)
        self.process.kill()
        self.process.wait()

    def stop(self) -> None:
        """End it."""
        self.process.terminate()
        self.process.wait()
