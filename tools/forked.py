"""A child that is forked from this process, with all that is loaded here: it is at work at once, however busy the
machine is.
"""

from __future__ import annotations

import ctypes
import os
import signal
import subprocess
import sys
import time
import traceback
from collections.abc import Callable

_PR_SET_PDEATHSIG, _PR_SET_NAME = 1, 15
_LOOK = 0.02


class Forked:
    """A child that does *run* and ends; it ends with its parent, too. To be watched like a `subprocess.Popen`.

    The system lists it by its *name*.
    """

    def __init__(self, name: str, run: Callable[[], None]) -> None:
        sys.stdout.flush()
        sys.stderr.flush()
        parent = os.getpid()
        self.returncode: int | None = None
        self.pid = os.fork()
        if self.pid == 0:
            _live(name, run, parent)

    def poll(self) -> int | None:
        """The exit status, negative for a signal's; None while it runs."""
        if self.returncode is None:
            pid, status = os.waitpid(self.pid, os.WNOHANG)
            if pid:
                self.returncode = os.waitstatus_to_exitcode(status)
        return self.returncode

    def wait(self, timeout: float | None = None) -> int:
        """Wait until it has ended. Raises `subprocess.TimeoutExpired`."""
        end = None if timeout is None else time.monotonic() + timeout
        while (ended := self.poll()) is None:
            if end is not None and time.monotonic() > end:
                raise subprocess.TimeoutExpired("a forked child", timeout or 0)
            time.sleep(_LOOK)
        return ended

    def terminate(self) -> None:
        """Ask it to end."""
        self._send(signal.SIGTERM)

    def kill(self) -> None:
        """End it as a power cut would."""
        self._send(signal.SIGKILL)

    def _send(self, number: int) -> None:
        if self.poll() is None:
            os.kill(self.pid, number)


def _live(name: str, run: Callable[[], None], parent: int) -> None:
    """The whole life of the child; it never returns."""
    status = 1
    try:
        os.setsid()
        for ending in (signal.SIGTERM, signal.SIGHUP):
            signal.signal(ending, signal.SIG_DFL)  # what its parent does then is not its own to do
        signal.signal(signal.SIGINT, signal.SIG_IGN)  # who started it ends it
        ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGTERM)
        ctypes.CDLL(None).prctl(_PR_SET_NAME, name.encode())
        if os.getppid() == parent:
            run()
        status = 0
    except SystemExit:
        status = 0
    except BaseException:
        traceback.print_exc()
    finally:
        sys.stdout.flush()
        sys.stderr.flush()
        os._exit(status)
