"""Killed at random while teachers write: every acknowledged change is looked for afterwards, and each return is timed.

./slate bench kills [KILLS] [LOAD]: so many kills (30), beside so many processes that do nothing but work (0). Ends what
it starts.
"""

from __future__ import annotations

import http.client
import json
import os
import random
import signal
import subprocess
import sys
import tempfile
import threading
import time
import uuid
from collections import Counter
from pathlib import Path
from statistics import median

from tools.application import ROOT
from tools.processes import below

WRITERS = 8
KINDS = ("a worker", "all workers", "heavy work", "the database", "the whole")
PATIENCE = 120  # seconds after which it is said that it did not come back


class Slate:
    """`./slate demo` in a folder of its own, at a port that stays."""

    def __init__(self, var: Path) -> None:
        self.environment = os.environ | {"KEEN_SLATE_VAR": str(var)}
        self.port = 0
        self.start()

    def start(self) -> None:
        """Start it, and wait for its link."""
        command = [sys.executable, "-m", "tools.launch", "demo", "--port", str(self.port)]
        self.process = subprocess.Popen(command, cwd=ROOT, env=self.environment, stdout=subprocess.PIPE, text=True)
        assert self.process.stdout is not None, "it is a pipe"
        for line in self.process.stdout:
            if "/enter/" in line:
                address, _, self.secret = line.strip().partition("/enter/")
                self.port = int(address.rsplit(":", 1)[1])
                return
        raise RuntimeError("it did not start")

    def below(self) -> dict[int, str]:
        """The processes that run below it, each with its command."""
        return {pid: _command(pid) for pid in below([self.process.pid])}

    def kill(self, kind: str) -> None:
        """Kill what is called *kind*; the whole is started again."""
        below = self.below()
        workers = [pid for pid, command in below.items() if "tools.launch" in command]
        chosen = {
            "a worker": workers[:1],
            "all workers": workers,
            "heavy work": [pid for pid, command in below.items() if "forkserver" in command],
            "the database": [pid for pid, command in below.items() if "bin/postgres" in command][:1],
            "the whole": [self.process.pid],
        }[kind]
        for pid in chosen:
            os.kill(pid, signal.SIGKILL)
        if kind == "the whole":
            self.process.wait()
            self.start()

    def end(self) -> None:
        """Stop it."""
        self.process.terminate()
        self.process.wait(60)


def _command(pid: int) -> str:
    try:
        return Path(f"/proc/{pid}/cmdline").read_bytes().replace(b"\0", b" ").decode()
    except OSError:
        return ""


class Writer(threading.Thread):
    """A teacher's page: makes sets, each sent again under its key until it is answered."""

    def __init__(self, slate: Slate, cookie: str, token: str, name: str) -> None:
        super().__init__(daemon=True)
        self.slate, self.cookie, self.token, self.title = slate, cookie, token, name
        self.acknowledged: list[str] = []
        self.stopping = threading.Event()

    def run(self) -> None:
        """Write until it is to stop."""
        n = 0
        while not self.stopping.is_set():
            n += 1
            title, key = f"{self.title} {n}", str(uuid.uuid4())
            while not self.stopping.is_set():
                if self._sent(title, key) == 201:
                    self.acknowledged.append(title)
                    break
                time.sleep(0.2)
            time.sleep(0.02)

    def _sent(self, title: str, key: str) -> int:
        connection = http.client.HTTPConnection("127.0.0.1", self.slate.port, timeout=30)
        headers = {
            "Cookie": self.cookie,
            "X-CSRF-Token": self.token,
            "Idempotency-Key": key,
            "Content-Type": "application/json",
        }
        try:
            connection.request("POST", "/api/sets", json.dumps({"title": title}), headers)
            answer = connection.getresponse()
            answer.read()
            return answer.status
        except (OSError, http.client.HTTPException):
            return 0
        finally:
            connection.close()


def _came_in(slate: Slate) -> tuple[str, str]:
    connection = http.client.HTTPConnection("127.0.0.1", slate.port, timeout=60)
    connection.request("POST", "/api/enter", json.dumps({"link": slate.secret}), {"Content-Type": "application/json"})
    answer = connection.getresponse()
    answer.read()
    cookie = (answer.getheader("Set-Cookie") or "").split(";")[0]
    connection.request("GET", "/api/me", headers={"Cookie": cookie})
    return cookie, str(json.load(connection.getresponse())["csrf_token"])


def _stored(slate: Slate, cookie: str, word: str) -> list[str]:
    titles: list[str] = []
    connection = http.client.HTTPConnection("127.0.0.1", slate.port, timeout=60)
    while True:
        connection.request("GET", f"/api/sets?search={word}&start={len(titles)}", headers={"Cookie": cookie})
        page = json.load(connection.getresponse())["sets"]
        if not page:
            return titles
        titles += [one["title"] for one in page]


def kills(count: int, load: int) -> None:
    """Kill so often under *load*, and say what became of every change."""
    seed = random.randrange(10**6)
    dice = random.Random(seed)
    busy = [subprocess.Popen([sys.executable, "-c", "while True: pass"]) for _ in range(load)]
    back: dict[str, list[float]] = {kind: [] for kind in KINDS}
    with tempfile.TemporaryDirectory(prefix="keen-slate-kills-") as directory:
        Path(directory).chmod(0o755)
        slate = Slate(Path(directory, "var"))
        word = uuid.uuid4().hex[:10]
        writers = [Writer(slate, *_came_in_again(slate), f"{word} {n}") for n in range(WRITERS)]
        try:
            for writer in writers:
                writer.start()
            for number in range(count):
                kind = KINDS[number % len(KINDS)]
                time.sleep(dice.uniform(0.3, 1.5))
                before = sum(len(writer.acknowledged) for writer in writers)
                begun = time.monotonic()
                slate.kill(kind)
                while (
                    sum(len(writer.acknowledged) for writer in writers) < before + WRITERS
                    and time.monotonic() - begun < PATIENCE
                ):
                    time.sleep(0.01)
                back[kind].append(time.monotonic() - begun)
            for writer in writers:
                writer.stopping.set()
            for writer in writers:
                writer.join(60)
            stored = Counter(_stored(slate, writers[0].cookie, word))
            acknowledged = [title for writer in writers for title in writer.acknowledged]
        finally:
            slate.end()
            for process in busy:
                process.kill()
                process.wait()
    lost = [title for title in acknowledged if not stored[title]]
    doubled = [title for title, times in stored.items() if times > 1]
    print(
        f"kills: {count} at load {load}, seed {seed}: {len(acknowledged)} acknowledged changes, {len(lost)} lost, "
        f"{len(doubled)} doubled"
    )
    for kind, times in back.items():
        if times:
            print(
                f"  {kind}: a change is made again after {median(times):.1f} s, at worst {max(times):.1f} "
                f"({len(times)})"
            )


def _came_in_again(slate: Slate) -> tuple[str, str]:
    made = subprocess.run(
        [sys.executable, "-m", "tools.launch", "link"],
        cwd=ROOT,
        env=slate.environment,
        capture_output=True,
        text=True,
        check=True,
    )
    slate.secret = made.stdout.strip().rpartition("/")[2]
    return _came_in(slate)
