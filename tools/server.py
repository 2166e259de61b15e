"""The application in processes of its own, on a free port: for tests, benchmarks and screenshots."""

from __future__ import annotations

import os
import secrets
import signal
import uuid
from collections.abc import Mapping

from sqlalchemy.orm import Session

from keen_slate.store.database import open_engine
from keen_slate.store.doors import new_link
from tools.application import answers, listen, start_worker


class LiveServer:
    """The application in its own processes, as an installation runs it: it comes to its records by *desk_url*, their
    owner by *url*.
    """

    def __init__(self, url: str, desk_url: str, workers: int = 1, more: Mapping[str, str] | None = None) -> None:
        self.url = url
        self.workers = workers
        self.port = 0
        self.environment = os.environ | {
            "KEEN_SLATE_DATABASE_URL": desk_url,
            "KEEN_SLATE_SECRET_KEY": secrets.token_urlsafe(24),
        } | dict(more or {})  # fmt: skip
        self.start()

    def start(self) -> None:
        """Start it, at the port that it had before, and wait until it answers."""
        self.socket = listen(self.port)
        self.port = self.socket.getsockname()[1]
        self.address = f"http://127.0.0.1:{self.port}"
        self.processes = [start_worker(self.socket, self.environment) for _ in range(self.workers)]
        if not answers(self.address, lambda: all(process.poll() is None for process in self.processes)):
            self.stop()
            raise RuntimeError("the application does not answer")

    def start_again(self) -> None:
        """Start it where it does not run."""
        if any(process.poll() is not None for process in self.processes):
            self.start()

    def link(self, teacher: uuid.UUID) -> str:
        """A link by which *teacher* comes in once."""
        engine = open_engine(self.url)
        with Session(engine) as session, session.begin():
            secret = new_link(session, teacher)
        engine.dispose()
        return f"{self.address}/enter/{secret}"

    def kill(self) -> None:
        """End it as a power cut would."""
        for process in self.processes:
            os.killpg(process.pid, signal.SIGKILL)
            process.wait()
        self.socket.close()

    def stop(self) -> None:
        """End it."""
        for process in self.processes:
            process.terminate()
        for process in self.processes:
            process.wait()
        self.socket.close()
