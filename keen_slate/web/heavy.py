"""Heavy requests run beside the light ones: in a few processes that can be ended, two at a time for the machine, one
for a teacher.

A bound counts the processor time of the work, not what it waits for: a search hands back what it has by then, a process
that outlives it is ended. Waiting has a bound of its own; who has to wait is told so and asks again. Work whose client
has gone is ended.
"""

from __future__ import annotations

import fcntl
import os
import struct
import tempfile
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any, TypeVar

from apiflask import APIFlask, HTTPError
from flask import Response, current_app, request

from keen_slate.core.searching.deadline import EndedEarlyError

from . import session
from .door import teacher
from .errors import refusal
from .workers import DiedError, Workers

AT_ONCE = 2  # for the machine
BUTTON, COUNT = 10, 3  # seconds of work that a search may take: asked for by a button, or by choosing limits
PAPER = 120  # seconds of work for a paper: it has no half that could be handed back
FILE = 600  # seconds of work for a file that is brought in: each of its problems has its own bound
_WAITED = 20  # times its bound a task may take by the clock before its turn is given to another
_WAIT = 0.05  # seconds for which a turn is waited for before it is said
_LOOK = 0.02  # how often it is looked whether a task is done, or its client gone

T = TypeVar("T")


class WaitingError(Exception):
    """It is not this request's turn yet; *said* tells whom it waits for."""

    def __init__(self, said: str) -> None:
        super().__init__(said)
        self.said = said


class GoneError(Exception):
    """Whoever asked has gone; nobody reads an answer any more."""


def init_app(app: APIFlask) -> None:
    """Make ready for heavy requests; the processes begin with the first, or with `warm_up`."""
    app.extensions["keen_slate_heavy"] = Workers()
    app.register_error_handler(WaitingError, lambda error: waiting(error.said))
    app.register_error_handler(session.BusyError, lambda error: waiting(str(error)))
    app.register_error_handler(GoneError, lambda error: ("", 499))


def waiting(said: str) -> tuple[Response, int]:
    """The answer to whoever has to wait: *said* tells for whom; the page asks again by itself."""
    answer, status = refusal(503, said, "It begins by itself.", waiting=True)
    answer.headers["Retry-After"] = "1"
    return answer, status


def run(task: Callable[..., T], *arguments: Any, seconds: int = BUTTON) -> T:
    """What *task* makes of *arguments*, in a process of its own, with so many *seconds* of work.

    Raises what the task raises, `WaitingError`, `GoneError`, and `EndedEarlyError` where it was ended without anything
    in hand.
    """
    teacher_id = teacher().id
    with session.released():  # no connection is held while others work, but for the key of a change
        with (
            _turn(
                "teachers", teacher_id.int >> 66, 1, "Your last search is still at work; this one begins when it ends."
            ),
            _turn(
                "heavy", 0, AT_ONCE, "This machine is at work on two long searches; yours begins when one of them ends."
            ),
        ):
            made: T = _result(seconds, task, arguments)
        session.begin_anew()
        return made


def warm_up(app: APIFlask) -> None:
    """Start a process now, so that the first heavy request need not wait for it."""
    app.extensions["keen_slate_heavy"].warm_up()


def _result(seconds: int, task: Callable[..., T], arguments: tuple[Any, ...]) -> T:
    workers: Workers = current_app.extensions["keen_slate_heavy"]
    gone: Callable[[], bool] = request.environ.get("waitress.client_disconnected", lambda: False)
    end = time.monotonic() + _WAITED * seconds
    try:
        with workers.at_work(seconds, task, arguments) as under_way:
            while not under_way.done(_LOOK):
                if gone():
                    raise GoneError
                if time.monotonic() > end:
                    raise WaitingError("This machine is very busy; what you asked for is tried again.")
            made: T = under_way.result()
            return made
    except DiedError as error:
        if error.worked_too_long:
            raise EndedEarlyError from None
        raise HTTPError(503, "What worked on this has ended before it was done. Nothing was saved.") from None


# Turns ----------------------------------------------------------------------------------------------------------------


@contextmanager
def _turn(name: str, first: int, at_once: int, said: str) -> Iterator[None]:
    """One of so many turns, those from the number *first*, for all processes of this machine.

    The kernel keeps them as locks on the bytes of a file, and gives one back when its holder ends, however it ends.
    """
    end = time.monotonic() + _WAIT
    handle = os.open(_directory() / name, os.O_RDWR | os.O_CREAT | os.O_CLOEXEC, 0o600)
    try:
        while not any(_locked(handle, first + number) for number in range(at_once)):
            if time.monotonic() > end:
                raise WaitingError(said)
            time.sleep(_LOOK)
        yield
    finally:
        os.close(handle)


def _locked(handle: int, number: int) -> bool:
    """Whether the lock on the byte of this *number* could be taken.

    It belongs to the open file, so threads exclude each other too.
    """
    wanted = struct.pack("hhqqi", fcntl.F_WRLCK, os.SEEK_SET, number, 1, 0)
    try:
        fcntl.fcntl(handle, fcntl.F_OFD_SETLK, wanted)
    except BlockingIOError:
        return False
    return True


def _directory() -> Path:
    kept = os.environ.get("KEEN_SLATE_RUN") or f"{tempfile.gettempdir()}/keen-slate-{os.getuid()}"
    directory = Path(kept)
    directory.mkdir(mode=0o700, exist_ok=True)
    return directory
