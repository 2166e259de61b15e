"""The memory of the application's processes while teachers work: whether it stays what it was.

./slate bench memory [MINUTES]: so many minutes (30), 40 teachers and one who asks for heavy things all the time. What
processes share is counted once, in equal parts (PSS).
"""

from __future__ import annotations

import asyncio
import statistics
import threading
import time
from pathlib import Path

from bench.load import EXAMPLES, LARGE, stage, teachers, two_workers
from tools.server import LiveServer

TEACHERS = 40
_EVERY = 15  # seconds


def report(minutes: float) -> None:
    """Print megabytes by the kind of process over time, and what became of them from the second third to the last."""
    print(f"memory: {TEACHERS} teachers and heavy requests, {minutes:g} minutes")
    seen: list[tuple[float, dict[str, float]]] = []
    over = threading.Event()
    with two_workers() as server:
        light, heavy = teachers(server.url, TEACHERS, EXAMPLES), teachers(server.url, 1, LARGE)
        watching = threading.Thread(target=_watch, args=(server, seen, over))
        watching.start()
        try:
            print(f"  {asyncio.run(stage(server, light, heavy, minutes * 60))}")
        finally:
            over.set()
            watching.join()
    third = len(seen) // 3
    for kind in sorted({kind for _, sizes in seen for kind in sizes}):
        curve = [sizes.get(kind, 0.0) for _, sizes in seen]
        parts = [statistics.median(curve[at : at + third]) for at in (0, third, 2 * third)]
        print(
            f"  {kind:8} MB, median of each third: {', '.join([f'{one:.0f}' for one in parts])}; at most "
            f"{max(curve):.0f}; the last third is {parts[2] / parts[1]:.3f} of the one before"
        )


def _watch(server: LiveServer, seen: list[tuple[float, dict[str, float]]], over: threading.Event) -> None:
    begun = time.monotonic()
    while not over.wait(_EVERY):
        seen.append((time.monotonic() - begun, _sizes({process.pid for process in server.processes})))


def _sizes(workers: set[int]) -> dict[str, float]:
    """Megabytes of the *workers*, and of the processes of heavy work that they have."""
    parents = {}
    for path in Path("/proc").glob("[0-9]*/stat"):
        try:
            parents[int(path.parent.name)] = int(path.read_text().rsplit(")", 1)[1].split()[1])
        except OSError:
            continue
    family = set(workers)
    while more := {pid for pid, parent in parents.items() if parent in family} - family:
        family |= more
    return {"workers": sum(map(_pss, workers)), "heavy": sum(map(_pss, family - workers))}


def _pss(pid: int) -> float:
    try:
        said = Path(f"/proc/{pid}/smaps_rollup").read_text()
    except OSError:
        return 0.0
    return next((int(line.split()[1]) / 1024 for line in said.splitlines() if line.startswith("Pss:")), 0.0)
