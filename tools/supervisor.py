"""Children are watched and started again, with a pause that grows; they end with the process that started them."""

from __future__ import annotations

import subprocess
import sys
import time
from collections.abc import Callable
from dataclasses import dataclass, field

from tools.forked import Forked

_LOOK = 0.1  # seconds between two looks at the children
_FIRST_PAUSE, _LONGEST_PAUSE = 0.1, 5.0
_STEADY = 20  # after so many seconds a child is in good health, and the pause is short again
_PATIENCE = 8  # seconds that a child is given to end

Process = subprocess.Popen[bytes] | Forked
Start = Callable[[], Process]


@dataclass
class _Child:
    name: str
    start: Start
    process: Process
    needed: bool = False
    pause: float = _FIRST_PAUSE
    begun: float = field(default_factory=time.monotonic)
    again_at: float | None = None


class Supervisor:
    """Starts children and keeps them running; gives them so many seconds of *patience* to end.

    *ended* is told the number of each process that has.
    """

    def __init__(self, patience: float = _PATIENCE, ended: Callable[[int], object] = lambda pid: None) -> None:
        self._children: list[_Child] = []
        self._leaving: list[Process] = []
        self._patience = patience
        self._ended = ended

    def add(self, name: str, start: Start, process: Process | None = None, needed: bool = False) -> None:
        """Watch a child that *start* starts; *process* is it, where it runs already.

        The others end before one that is *needed*.
        """
        self._children.append(_Child(name, start, process or start(), needed))

    def watch(self, between: Callable[[], object] = lambda: None) -> None:
        """Keep the children running, until an exception (a signal's) ends it; *between* two looks something else is
        done.
        """
        while True:
            self.look()
            between()
            time.sleep(_LOOK)

    def look(self) -> None:
        """Start again what has ended."""
        for child in self._children:
            self._look_after(child)
        for process in [one for one in self._leaving if one.poll() is not None]:
            self._leaving.remove(process)
            self._ended(process.pid)

    def names(self) -> list[str]:
        """What the children are called."""
        return [child.name for child in self._children]

    def replace(self, name: str, start: Start, process: Process) -> None:
        """Watch *process*, which *start* would start again, in the place of a child, which is asked to end in its own
        time.
        """
        child = next(child for child in self._children if child.name == name)
        if child.process.poll() is None:
            child.process.terminate()
        self._leaving.append(child.process)
        child.start, child.process = start, process
        child.pause, child.begun, child.again_at = _FIRST_PAUSE, time.monotonic(), None

    def _look_after(self, child: _Child) -> None:
        now = time.monotonic()
        if child.process.poll() is None:
            return
        if child.again_at is None:
            if now - child.begun > _STEADY:
                child.pause = _FIRST_PAUSE
            child.again_at = now + child.pause
            child.pause = min(2 * child.pause, _LONGEST_PAUSE)
            self._ended(child.process.pid)
            print(
                f"slate: {child.name} ended ({child.process.returncode}); it is started again",
                file=sys.stderr,
                flush=True,
            )
        elif now >= child.again_at:
            child.process, child.begun, child.again_at = child.start(), now, None

    def all_alive(self) -> bool:
        """Whether every child runs."""
        return all(child.process.poll() is None for child in self._children)

    def stop(self) -> None:
        """End the children; those that others need end last."""
        for needed in (False, True):
            self._end([child.process for child in self._children if child.needed is needed] + self._leaving)

    def _end(self, processes: list[Process]) -> None:
        latest = time.monotonic() + self._patience
        for process in processes:
            if process.poll() is None:
                process.terminate()
        for process in processes:
            try:
                process.wait(max(0.1, latest - time.monotonic()))
            except subprocess.TimeoutExpired:
                process.kill()
                process.wait()
