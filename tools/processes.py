"""The processes of this machine, as the kernel lists them: who runs below whom."""

from __future__ import annotations

from collections.abc import Iterable
from contextlib import suppress
from pathlib import Path


def parents() -> dict[int, int]:
    """Of each process that runs, the one that it is a child of."""
    found = {}
    for path in Path("/proc").glob("[0-9]*/stat"):
        with suppress(OSError, IndexError):  # it has ended meanwhile
            found[int(path.parent.name)] = int(path.read_text().rsplit(")", 1)[1].split()[1])
    return found


def below(processes: Iterable[int]) -> list[int]:
    """All that run below some *processes*, those nearest to them first."""
    known = parents()
    found: list[int] = []
    level = set(processes)
    while level:
        level = {pid for pid, parent in known.items() if parent in level}
        found += sorted(level)
    return found
