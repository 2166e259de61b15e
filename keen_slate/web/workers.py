"""Processes that work on one task at a time and can be ended at any moment.

They are forked from a process that has all modules loaded (Python's fork server), so that a new one is there at once.
One that dies takes nothing with it but its own task; one that has grown is ended after its task.
"""

from __future__ import annotations

import ctypes
import resource
import signal
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from dataclasses import dataclass
from multiprocessing import get_context
from multiprocessing.connection import Connection
from multiprocessing.process import BaseProcess
from typing import Any

from keen_slate.core.searching.deadline import until

LARGEST = 350 * 1024 * 1024  # bytes in memory after a task; a larger process is ended
EACH = 10  # seconds of work for one of many things that are alike
IDLE = 1  # processes that are kept for the next task, in each process of the application
_GRACE = 5  # seconds of work: a search looks at its deadline, what does not look is ended so much later
_TRIES = 3
_PR_SET_PDEATHSIG = 1
_context = get_context("forkserver")


class DiedError(Exception):
    """The process of a task ended without a result."""

    def __init__(self, worked_too_long: bool) -> None:
        super().__init__("the process ended")
        self.worked_too_long = worked_too_long


@dataclass(slots=True)
class _Worker:
    process: BaseProcess
    pipe: Connection
    size: int = 0

    def end(self) -> None:
        self.process.kill()
        self.process.join()
        self.pipe.close()


@dataclass(slots=True)
class UnderWay:
    """A task that a process is at work on."""

    worker: _Worker

    def done(self, seconds: float) -> bool:
        """Whether there is an answer within so many *seconds*."""
        return self.worker.pipe.poll(seconds)

    def result(self) -> Any:
        """What the task made. Raises what it raised, and `DiedError`."""
        try:
            good, made, self.worker.size = self.worker.pipe.recv()
        except (EOFError, OSError):
            self.worker.process.join()
            raise DiedError(self.worker.process.exitcode == -signal.SIGXCPU) from None
        if good:
            return made
        raise made


class Workers:
    """The processes of this process of the application."""

    def __init__(self) -> None:
        self._idle: list[_Worker] = []
        self._lock = threading.Lock()

    @contextmanager
    def at_work(self, seconds: int, task: Callable[..., Any], arguments: tuple[Any, ...]) -> Iterator[UnderWay]:
        """A task on its way, with so many *seconds* of work; it is ended with the block where it is not done by
        then.
        """
        worker = self._taken()
        whole = False
        try:
            with suppress(BrokenPipeError):  # it has died; asking for its result says so
                worker.pipe.send((seconds, task, arguments))
            yield UnderWay(worker)
            whole = bool(worker.size)
        except Exception:
            whole = bool(worker.size)  # what a task raises is an answer, too
            raise
        finally:
            self._given_back(worker, whole)

    def warm_up(self) -> None:
        """Have a process ready before it is needed. It is not waited for."""
        threading.Thread(target=self._warm_up, daemon=True).start()

    def _warm_up(self) -> None:
        with suppress(DiedError):  # the next task starts one
            self._given_back(_start(), True)

    def stop(self) -> None:
        """End the processes."""
        with self._lock:
            ended, self._idle = self._idle, []
        for worker in ended:
            worker.end()

    def _taken(self) -> _Worker:
        with self._lock:
            while self._idle:
                worker = self._idle.pop()
                # An idle one says nothing: what can be read there is the end of its pipe, known before its death is.
                if worker.process.is_alive() and not worker.pipe.poll():
                    return worker
                worker.end()
        return _start()

    def _given_back(self, worker: _Worker, whole: bool) -> None:
        if whole and worker.size < LARGEST:
            worker.size = 0
            with self._lock:
                if len(self._idle) < IDLE:
                    self._idle.append(worker)
                    return
        worker.end()


def _start() -> _Worker:
    """A new process. Raises `DiedError` where none can be had now: the server that forks them is started anew, too."""
    _context.set_forkserver_preload(["keen_slate.gently", "keen_slate.web.tasks"])
    for _ in range(_TRIES):
        ours, theirs = _context.Pipe()
        process = _context.Process(target=_work, args=(theirs,), daemon=True)
        try:
            process.start()
            return _Worker(process, ours)
        except (OSError, EOFError):  # it was killed at this moment
            ours.close()
        finally:
            theirs.close()
    raise DiedError(False)


# In the process -------------------------------------------------------------------------------------------------------


def _work(pipe: Connection) -> None:
    """Take tasks until nobody sends any more."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    with suppress(OSError, AttributeError):
        ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGKILL)
    with suppress(EOFError, OSError):
        while True:
            seconds, task, arguments = pipe.recv()
            _bound(seconds)
            pipe.send(_answer(seconds, task, arguments))


def _answer(seconds: int, task: Callable[..., Any], arguments: tuple[Any, ...]) -> tuple[bool, Any, int]:
    try:
        with until(_deadline(seconds), lambda: _deadline(EACH)):
            return True, task(*arguments), size()
    except Exception as error:
        return False, error, size()


def _deadline(seconds: int) -> Callable[[], bool]:
    """Whether this process has worked so many *seconds* from now."""
    end = time.process_time() + seconds
    return lambda: time.process_time() > end


def _bound(seconds: int) -> None:
    """Have the kernel end this process where it works on long after its deadline."""
    most = int(time.process_time()) + seconds + _GRACE
    resource.setrlimit(resource.RLIMIT_CPU, (most, resource.RLIM_INFINITY))


def size() -> int:
    """Bytes of this process in memory."""
    with open("/proc/self/statm") as file:
        return int(file.read().split()[1]) * resource.getpagesize()
