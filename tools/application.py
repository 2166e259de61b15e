"""The application's processes: the socket that they share, one that is started anew, and whether it answers."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Callable, Mapping
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
_BACKLOG = 1024
_PATIENCE = 4  # seconds after which it is said what is waited for


class LaunchError(RuntimeError):
    """It cannot be started; the sentence says why."""


def listen(port: int, where: str = "127.0.0.1") -> socket.socket:
    """A socket that listens at *port*, 0 for any that is free, on loopback alone or *where* else.

    Raises `LaunchError` where it cannot.
    """
    listening = socket.socket()
    listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listening.bind((where, port))
    except OSError as error:
        listening.close()
        raise LaunchError(
            f"{where}:{port} cannot be listened at ({error.strerror}): another program has it, or another folder of "
            "Keen Slate. "
            "Stop that, or take another port and stay with it (a browser keeps what is unsent by address): --port "
            f"{port + 1}"
        ) from None
    listening.listen(_BACKLOG)
    return listening


def start_worker(
    listening: socket.socket, environment: Mapping[str, str], ready: int | None = None
) -> subprocess.Popen[bytes]:
    """A process of the application that answers at *listening*; it ends with this one.

    At the pipe *ready* it says when it can.
    """
    handed = [listening.fileno(), *([] if ready is None else [ready])]
    return subprocess.Popen(
        ["setpriv", "--pdeathsig", "TERM", sys.executable, "-m", "keen_slate.web.serving", *map(str, handed)],
        cwd=ROOT, env=environment, pass_fds=handed, start_new_session=True, stdin=subprocess.DEVNULL,
    )  # fmt: skip


def start_ready(
    listening: socket.socket, environment: Mapping[str, str], count: int
) -> list[subprocess.Popen[bytes]] | None:
    """So many of such processes, when they can answer; None, and none left, where one ended before."""
    begun = []
    for _ in range(count):
        ours, theirs = os.pipe()
        begun.append((start_worker(listening, environment, theirs), os.fdopen(ours, "rb")))
        os.close(theirs)
    ready = []
    for _, said in begun:
        with said:
            ready.append(bool(said.read()))
    if all(ready):
        return [process for process, _ in begun]
    for process, _ in begun:
        process.terminate()
        process.wait()
    return None


def answers(address: str, alive: Callable[[], bool]) -> bool:
    """Wait until the application answers at *address*, as long as what is to answer is *alive*; says so where it takes
    long.
    """
    said_at = time.monotonic() + _PATIENCE
    while alive():
        try:
            with urllib.request.urlopen(f"{address}/healthz", timeout=2):
                return True
        except OSError:
            time.sleep(0.05)
        if time.monotonic() > said_at:
            print("slate: waiting for the application to answer; this machine is busy", file=sys.stderr, flush=True)
            said_at += 5 * _PATIENCE
    return False
