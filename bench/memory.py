"""The memory of the application's processes while teachers work: whether it stays what it was.

./slate bench memory [MINUTES]: so many minutes (30), 40 teachers and one who asks for heavy things all the time. What
processes share is counted once, in equal parts (PSS).
"""

from __future__ import annotations

import asyncio
import statistics
import threading
from pathlib import Path

from bench.load import EXAMPLES, LARGE, stage, teachers, two_workers
from tools.processes import below
from tools.server import LiveServer

TEACHERS = 40
_EVERY = 15  # seconds


def report(minutes: float) -> None:
    """Print megabytes by the kind of process over time, and what became of them from the second third to the last."""
    print(f"memory: {TEACHERS} teachers and heavy requests, {minutes:g} minutes")
    seen: list[dict[str, float]] = []
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
    for kind in seen[0]:
        curve = [sizes[kind] for sizes in seen]
        parts = [statistics.median(curve[at : at + third]) for at in (0, third, 2 * third)]
        print(
            f"  {kind:8} MB, median of each third: {', '.join([f'{one:.0f}' for one in parts])}; at most "
            f"{max(curve):.0f}; the last third is {parts[2] / parts[1]:.3f} of the one before"
        )


def _watch(server: LiveServer, seen: list[dict[str, float]], over: threading.Event) -> None:
    while not over.wait(_EVERY):
        seen.append(_sizes([process.pid for process in server.processes]))


def _sizes(workers: list[int]) -> dict[str, float]:
    """Megabytes of the *workers*, and of the processes of heavy work that they have."""
    return {"workers": sum(map(_pss, workers)), "heavy": sum(map(_pss, below(workers)))}


def _pss(pid: int) -> float:
    try:
        said = Path(f"/proc/{pid}/smaps_rollup").read_text()
    except OSError:
        return 0.0
    return next((int(line.split()[1]) / 1024 for line in said.splitlines() if line.startswith("Pss:")), 0.0)
