"""The one instance of a folder: the lock that it holds as long as it lives, and what it says of itself in
var/running.json.
"""

from __future__ import annotations

import fcntl
import json
import os
import secrets
import signal
import time
import urllib.request
from dataclasses import asdict, dataclass
from pathlib import Path

STOPPING = 90  # seconds that an instance is given to stop


@dataclass(frozen=True, slots=True)
class Running:
    """What a running instance says of itself: a name of its own, its process, its address, and that of its database."""

    instance: str
    pid: int
    address: str
    database: str


class Instance:
    """The instance of the folder *var*.

    The kernel holds the lock for its process, and gives it back however that ends.
    """

    def __init__(self, var: Path) -> None:
        self.file = var / "running.json"
        self.lock = var / "instance.lock"
        self.name = secrets.token_hex(8)
        self._handle: int | None = None

    def take(self) -> bool:
        """Become the one instance; False where there is one already."""
        handle = os.open(self.lock, os.O_RDWR | os.O_CREAT, 0o600)
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            os.close(handle)
            return False
        self._handle = handle
        self.file.unlink(missing_ok=True)
        return True

    def say(self, address: str, database: str) -> None:
        """Write down where this instance can be reached."""
        made = self.file.with_suffix(".new")
        made.touch(mode=0o600)
        made.write_text(json.dumps(asdict(Running(self.name, os.getpid(), address, database))))
        made.rename(self.file)

    def give_back(self) -> None:
        """End being the instance."""
        if self._handle is not None:
            self.file.unlink(missing_ok=True)
            os.close(self._handle)
            self._handle = None

    def leave_to_parent(self) -> None:
        """In a forked child: the lock is its parent's alone, and ends with that."""
        if self._handle is not None:
            os.close(self._handle)
            self._handle = None

    def running(self) -> Running | None:
        """The instance that holds the lock and answers under its own name; None where there is none, or not yet."""
        if not self._held():
            return None
        try:
            found = Running(**json.loads(self.file.read_text()))
            with urllib.request.urlopen(f"{found.address}/healthz", timeout=5) as answer:
                return found if json.load(answer)["instance"] == found.instance else None
        except (OSError, ValueError, TypeError, KeyError):
            return None

    def stop(self) -> bool:
        """Stop the instance of this folder; False where there is none. Raises `TimeoutError` where it does not end."""
        end = time.monotonic() + STOPPING
        asked = False
        while self._held():
            if not asked and (pid := self._process()) is not None:
                os.kill(pid, signal.SIGTERM)
                asked = True
            if time.monotonic() > end:
                raise TimeoutError("Keen Slate did not stop in time.")
            time.sleep(0.1)
        return asked

    def _held(self) -> bool:
        if not self.lock.exists():
            return False
        handle = os.open(self.lock, os.O_RDWR)
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            return True
        finally:
            os.close(handle)
        return False

    def _process(self) -> int | None:
        """The process that holds the lock, as it wrote down itself and as the kernel knows it."""
        try:
            pid = int(json.loads(self.file.read_text())["pid"])
            return pid if b"tools.launch" in Path(f"/proc/{pid}/cmdline").read_bytes() else None
        except (OSError, ValueError, KeyError):
            return None
