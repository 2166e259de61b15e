"""Heavy requests run beside the light ones: in a few processes that can be ended, two at a time for the machine, one for a teacher.

Who has to wait is told so and asks again; work whose client has gone is ended. A search has a deadline and hands back what it has
by then; a process that outlives it is ended too.
"""

from __future__ import annotations

import ctypes
import fcntl
import os
import signal
import tempfile
import time
from collections.abc import Callable, Iterator
from concurrent.futures import CancelledError
from concurrent.futures import TimeoutError as NotYetError
from contextlib import contextmanager, suppress
from multiprocessing import get_context
from pathlib import Path
from typing import Any, TypeVar

from apiflask import APIFlask
from flask import Response, current_app, jsonify, request
from pebble import ProcessExpired, ProcessPool

from keen_slate.core.searching.deadline import EndedEarlyError, until
from keen_slate.export.page import waiting_page

from . import session
from .door import teacher

AT_ONCE = 2  # for the machine
BUTTON, COUNT = 10, 3  # seconds that a search may take: asked for by a button, or by choosing limits
PAPER = 120  # seconds for a paper: it has no half that could be handed back
_GRACE = 5  # a search looks at its deadline; what does not look is ended so much later
_WAIT = 0.05  # seconds for which a turn is waited for before it is said
_LOOK = 0.02  # how often it is looked whether a task is done, or its client gone
_TASKS = 60  # after so many a process is replaced, and its memory freed
_NICE = int(os.environ.get("KEEN_SLATE_NICE", "15"))  # light requests go first
_TEACHERS = 256

T = TypeVar("T")


class WaitingError(Exception):
    """It is not this request's turn yet; *said* tells whom it waits for."""

    def __init__(self, said: str) -> None:
        super().__init__(said)
        self.said = said


class GoneError(Exception):
    """Whoever asked has gone; nobody reads an answer any more."""


def init_app(app: APIFlask) -> None:
    """Make ready for heavy requests; the processes begin with the first."""
    app.extensions["keen_slate_heavy"] = _Pool()
    app.register_error_handler(WaitingError, _waiting)
    app.register_error_handler(GoneError, lambda error: ("", 499))


def _waiting(error: WaitingError) -> tuple[Response, int]:
    answer: Response
    if (
        request.method == "GET" and request.accept_mimetypes.best == "text/html"
    ):  # a file that a browser opens by itself
        answer = Response(waiting_page(error.said), mimetype="text/html")
    else:
        body = {"message": error.said, "position": 0, "length": 0, "hint": "It begins by itself."}
        answer = jsonify({"error": body, "waiting": True})
    answer.headers["Retry-After"] = "1"
    return answer, 503


def run(task: Callable[..., T], *arguments: Any, seconds: int = BUTTON) -> T:
    """What *task* makes of *arguments*, in a process of its own, with a deadline of so many *seconds*.

    Raises what the task raises, `WaitingError`, `GoneError`, and `EndedEarlyError` where even the grace after the deadline ran out.
    """
    teacher_id = teacher().id
    session.release()  # no connection is held while others work
    with _turn(
        f"teacher-{teacher_id.int % _TEACHERS}", 1, "Your last search is still at work; this one begins when it ends."
    ):
        said = "This machine is at work on two long searches; yours begins when one of them ends."
        with _turn("heavy", AT_ONCE, said):
            pool: _Pool = current_app.extensions["keen_slate_heavy"]
            made: T = pool.result(_within, seconds, task, arguments)
            session.begin_anew()
            return made


def warm_up(app: APIFlask) -> None:
    """Start the processes now, so that the first heavy request need not wait for them."""
    for _ in range(AT_ONCE):
        app.extensions["keen_slate_heavy"].pool().schedule(_nothing)


class _Pool:
    def __init__(self) -> None:
        self._made: ProcessPool | None = None

    def pool(self) -> ProcessPool:
        if self._made is None or not self._made.active:
            self._made = ProcessPool(AT_ONCE, _TASKS, _begin, [os.getpid()], get_context("spawn"))
        return self._made

    def stop(self) -> None:
        """End the processes."""
        if self._made is not None:
            self._made.stop()  # type: ignore[no-untyped-call]
            self._made.join()
            self._made = None

    def result(self, function: Callable[..., T], seconds: int, *arguments: Any) -> T:
        future = self.pool().schedule(function, [seconds, *arguments], timeout=seconds + _GRACE)
        gone: Callable[[], bool] = request.environ.get("waitress.client_disconnected", lambda: False)
        try:
            while True:
                with suppress(NotYetError):
                    if future.done():
                        return future.result()
                    return future.result(timeout=_LOOK)
                if future.done():
                    return future.result()
                if gone():
                    raise GoneError
        except (NotYetError, CancelledError, ProcessExpired):
            raise EndedEarlyError from None
        finally:
            future.cancel()  # type: ignore[no-untyped-call]


def _within(seconds: int, task: Callable[..., T], arguments: tuple[Any, ...]) -> T:
    end = time.monotonic() + seconds
    with until(lambda: time.monotonic() > end):
        return task(*arguments)


def _begin(parent: int) -> None:
    """Settle a new process: it comes after the light ones, and does not outlive the application."""
    os.nice(_NICE)
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    with suppress(OSError, AttributeError):
        ctypes.CDLL(None).prctl(1, signal.SIGKILL)  # PR_SET_PDEATHSIG
    if os.getppid() != parent:
        os._exit(1)


def _nothing() -> None:
    """Only have the modules loaded."""
    from . import papers, searches, sittings_tasks, story_searches

    _ = papers, searches, sittings_tasks, story_searches


@contextmanager
def _turn(name: str, at_once: int, said: str) -> Iterator[None]:
    """One of so many turns, for all processes of this machine: the kernel gives it back when its holder ends, however it ends."""
    end = time.monotonic() + _WAIT
    while True:
        for number in range(at_once):
            handle = os.open(_directory() / f"{name}-{number}", os.O_RDWR | os.O_CREAT | os.O_CLOEXEC, 0o600)
            try:
                fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
            except BlockingIOError:
                os.close(handle)
                continue
            try:
                yield
            finally:
                os.close(handle)
            return
        if time.monotonic() > end:
            raise WaitingError(said)
        time.sleep(_LOOK)


def _directory() -> Path:
    kept = os.environ.get("KEEN_SLATE_RUN") or f"{tempfile.gettempdir()}/keen-slate-{os.getuid()}"
    directory = Path(kept)
    directory.mkdir(mode=0o700, exist_ok=True)
    return directory
