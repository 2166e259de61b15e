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
    pause: float = _FIRST_PAUSE
    begun: float = field(default_factory=time.monotonic)
    again_at: float | None = None


class Supervisor:
    """Starts children and keeps them running."""

    def __init__(self) -> None:
        self._children: list[_Child] = []

    def add(self, name: str, start: Start, process: Process | None = None) -> None:
        """Watch a child that *start* starts; *process* is it, where it runs already."""
        self._children.append(_Child(name, start, process or start()))

    def watch(self) -> None:
        """Keep the children running, until an exception (a signal's) ends it."""
        while True:
            self.look()
            time.sleep(_LOOK)

    def look(self) -> None:
        """Start again what has ended."""
        for child in self._children:
            self._look_after(child)

    def _look_after(self, child: _Child) -> None:
        now = time.monotonic()
        if child.process.poll() is None:
            return
        if child.again_at is None:
            if now - child.begun > _STEADY:
                child.pause = _FIRST_PAUSE
            child.again_at = now + child.pause
            child.pause = min(2 * child.pause, _LONGEST_PAUSE)
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
        """End the children, the last one first."""
        for child in reversed(self._children):
            if child.process.poll() is None:
                child.process.terminate()
            try:
                child.process.wait(_PATIENCE)
            except subprocess.TimeoutExpired:
                child.process.kill()
                child.process.wait()
