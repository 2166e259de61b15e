"""The drill: a whole installation at work while its parts are killed, and every acknowledged change looked for
afterwards.

./slate drill [KILLS [TEACHERS [KIND]]]: so many kills (24), of one kind alone or of each in turn, while so many
teachers (200) work. Ends everything that it starts.
"""

from __future__ import annotations

import asyncio
import os
import random
import signal
import tempfile
import time
import uuid
from collections import Counter
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, field
from pathlib import Path
from statistics import median, quantiles

import aiohttp
from sqlalchemy import text
from sqlalchemy.orm import Session

from bench.cluster import Cluster
from keen_slate.store.database import open_engine
from keen_slate.store.doors import new_link
from keen_slate.store.models import Teacher

PAUSE = (2.0, 6.0)  # seconds between two actions of a teacher
CALM = 2.0  # seconds after writes went on, in which a request may still feel a kill
PATIENCE = 90  # seconds after which it is said that writes did not go on
_WRITES = 3  # acknowledged changes of requests that began after a kill: then writes go on again
_CUT_OFF = 25  # seconds that a node is cut off


@dataclass
class Told:
    """What came of it all: each acknowledged change, each answer with when it began and how long it took, each
    error.
    """

    acknowledged: list[str] = field(default_factory=list)
    began: list[float] = field(default_factory=list)  # of the acknowledged ones
    took: list[tuple[float, float]] = field(default_factory=list)
    errors: list[tuple[float, str]] = field(default_factory=list)


class Desk:
    """A teacher's page: it reads, tries problems, and makes sets; a change is sent again under its key until it is
    answered.
    """

    def __init__(self, http: aiohttp.ClientSession, address: str, link: str, word: str, told: Told) -> None:
        self.http, self.address, self.link, self.word, self.told = http, address, link, word, told
        self.token, self.made = "", 0

    async def work(self, stop: asyncio.Event, dice: random.Random) -> None:
        """Come in, and work until it is to stop."""
        while not await self.ask("POST", "/api/enter", {"link": self.link}):
            await asyncio.sleep(1)
        while not self.token:
            self.token = ((await self.ask("GET", "/api/me")) or {}).get("csrf_token", "")
        while not stop.is_set():
            await asyncio.sleep(dice.uniform(*PAUSE))
            what = dice.random()
            if what < 0.35:
                await self.ask("GET", "/api/sets")
            elif what < 0.65:
                await self.ask(
                    "POST",
                    "/api/preview",
                    {"text": f"{dice.randint(2, 9)} 1/{dice.randint(2, 9)} - 5/{dice.randint(6, 12)}"},
                )
            else:
                await self.change(stop)

    async def change(self, stop: asyncio.Event) -> None:
        """Make a set."""
        self.made += 1
        title, key = f"{self.word} {self.made}", str(uuid.uuid4())
        while not stop.is_set():
            began = time.monotonic()
            if await self.ask("POST", "/api/sets", {"title": title}, key):
                self.told.acknowledged.append(title)
                self.told.began.append(began)
                return
            await asyncio.sleep(0.3)

    async def ask(self, method: str, path: str, body: object = None, key: str = "") -> dict[str, str] | None:
        """What is answered; None where nothing is, or a refusal, which is noted with whether it was told in words."""
        began = time.monotonic()
        headers = {"X-CSRF-Token": self.token} | ({"Idempotency-Key": key} if key else {})
        try:
            async with self.http.request(method, self.address + path, json=body, headers=headers) as answer:
                found = await answer.json(content_type=None) if answer.status != 204 else {"": ""}
                if answer.status < 400:
                    self.told.took.append((began, time.monotonic() - began))
                    return dict(found)
                words = isinstance(found, dict) and "error" in found
                self.told.errors.append((began, f"{answer.status}{' in words' if words else ''}"))
        except (aiohttp.ClientError, TimeoutError, ValueError) as error:
            self.told.errors.append((began, type(error).__name__))
        return None


class Killer:
    """Kills a part of a *cluster*, and brings it back, as somebody who looks after it would."""

    def __init__(self, cluster: Cluster, dice: random.Random) -> None:
        self.cluster, self.dice = cluster, dice
        self.kinds: dict[str, Callable[[], None]] = {
            "a process of the application": self._process, "a node of the application": self._application,
            "the primary's server": self._server, "the primary's machine": self._primary,
            "a replica's machine": self._replica,
            "PgBouncer": lambda: self._again("pgbouncer", 0.5), "etcd's leader": self._etcd,
            "the primary cut off": self._cut_off,
        }  # fmt: skip

    def _again(self, name: str, after: float) -> None:
        part = self.cluster.parts[name]
        part.kill()
        time.sleep(after)
        part.begin()

    def _node(self, i: int | None) -> str:
        return f"node{i if i is not None else 0}"

    def _process(self) -> None:
        part = self.cluster.parts[f"slate{self.dice.randrange(len(self.cluster.applications))}"]
        workers = []
        for pid in part.below():
            with suppress(OSError):
                if Path(f"/proc/{pid}/comm").read_text().strip() == "slate-worker":
                    workers.append(pid)
        os.kill(self.dice.choice(workers), signal.SIGKILL)

    def _application(self) -> None:
        self._again(f"slate{self.dice.randrange(len(self.cluster.applications))}", 1)

    def _server(self) -> None:
        for pid in self.cluster.parts[self._node(self.cluster.primary())].let_go():
            os.kill(pid, signal.SIGKILL)

    def _primary(self) -> None:
        self._again(self._node(self.cluster.primary()), 3)

    def _replica(self) -> None:
        self._again(self._node(self.dice.choice(self.cluster.replicas() or [0])), 3)

    def _etcd(self) -> None:
        self._again(self.cluster.etcd_leader() or "etcd0", 2)

    def _cut_off(self) -> None:
        part = self.cluster.parts[self._node(self.cluster.primary())]
        part.send(signal.SIGSTOP)
        time.sleep(_CUT_OFF)
        part.send(signal.SIGCONT)


def _links(cluster: Cluster, count: int) -> list[str]:
    engine = open_engine(cluster.owner_url)
    with Session(engine) as session, session.begin():
        ids = [uuid.uuid4() for _ in range(count)]
        session.add_all([Teacher(id=one, name=f"Teacher {i}") for i, one in enumerate(ids)])
        session.flush()
        links = [new_link(session, one) for one in ids]
    engine.dispose()
    return links


def _stored(cluster: Cluster, word: str) -> Counter[str]:
    engine = open_engine(cluster.owner_url)
    with engine.connect() as connection:
        found = connection.execute(text("select title from example_set where title like :word"), {"word": f"{word}%"})
        titles = Counter(title for (title,) in found)
    engine.dispose()
    return titles


async def _until(there: Callable[[], bool], seconds: float) -> bool:
    end = time.monotonic() + seconds
    while not there():
        if time.monotonic() > end:
            return False
        await asyncio.sleep(0.02)
    return True


async def _drill(cluster: Cluster, kills: int, teachers: int, seed: int, only: str | None) -> bool:
    dice, told, stop = random.Random(seed), Told(), asyncio.Event()
    word = uuid.uuid4().hex[:10]
    killer = Killer(cluster, dice)
    windows: list[tuple[float, float]] = []
    back: dict[str, list[float]] = {kind: [] for kind in killer.kinds}
    timeout = aiohttp.ClientTimeout(total=30)
    sessions = [
        aiohttp.ClientSession(timeout=timeout, cookie_jar=aiohttp.CookieJar(unsafe=True)) for _ in range(teachers)
    ]
    desks = [
        asyncio.create_task(Desk(http, cluster.address, link, f"{word} {i}", told).work(stop, random.Random(seed + i)))
        for i, (http, link) in enumerate(zip(sessions, _links(cluster, teachers), strict=True))
    ]
    await _until(lambda: len(told.acknowledged) >= teachers // 4, PATIENCE)
    calm = time.monotonic()
    await asyncio.sleep(min(20, 5 + kills))  # how it is while nothing is killed
    windows.append((0, calm))
    for number in range(kills):
        kind = only or list(killer.kinds)[number % len(killer.kinds)]
        await asyncio.sleep(dice.uniform(0.5, 3))
        begun = time.monotonic()
        killing = asyncio.create_task(asyncio.to_thread(killer.kinds[kind]))
        await asyncio.sleep(0.2)  # what was on its way when it was killed tells nothing
        went_on = await _until(lambda begun=begun: sum(one > begun + 0.2 for one in told.began) >= _WRITES, PATIENCE)  # type: ignore[misc]
        back[kind].append(time.monotonic() - begun)
        await killing
        whole = await _until_whole(cluster)
        windows.append((begun, max(time.monotonic(), begun) + CALM))
        print(
            f"{number + 1}: {kind}: {back[kind][-1]:.1f} "
            f"s{'' if went_on else ', not back'}{'' if whole else f', not whole again: {cluster.said()}'}",
            flush=True,
        )
    stop.set()
    await asyncio.gather(*desks, return_exceptions=True)
    for http in sessions:
        await http.close()
    return _say(told, _stored(cluster, word), windows, back, seed)


async def _until_whole(cluster: Cluster) -> bool:
    end = time.monotonic() + PATIENCE
    while not await asyncio.to_thread(cluster.whole):
        if time.monotonic() > end:
            return False
        await asyncio.sleep(0.5)
    return True


def _say(
    told: Told, stored: Counter[str], windows: list[tuple[float, float]], back: dict[str, list[float]], seed: int
) -> bool:
    """Print what came of it; whether nothing was lost or doubled, and writes went on each time."""
    lost = [title for title in told.acknowledged if not stored[title]]
    doubled = [title for title, times in stored.items() if times > 1]
    kills = sum(map(len, back.values()))
    print(
        f"\nkills: {kills} (seed {seed}); acknowledged changes: {len(told.acknowledged)}, lost: {len(lost)}, doubled: "
        f"{len(doubled)}"
    )
    for kind, times in back.items():
        if times:
            print(f"  {kind}: writes went on after {median(times):.1f} s, at worst {max(times):.1f} ({len(times)})")

    def calm(began: float) -> bool:
        return not any(start <= began <= end for start, end in windows)

    for said, which in (("outside of the kills", calm), ("in all", lambda began: True)):
        took = [seconds for began, seconds in told.took if which(began)]
        if len(took) > 20:
            parts = quantiles(took, n=100)
            print(
                f"  requests {said}: {len(took)}; p50 {parts[49] * 1000:.0f} ms, p95 {parts[94] * 1000:.0f} ms, p99 "
                f"{parts[98] * 1000:.0f} ms"
            )
        errors = Counter(kind for began, kind in told.errors if which(began))
        print(f"  errors {said}: {dict(errors) or 'none'}")
    return not lost and not doubled and all(seconds < PATIENCE for times in back.values() for seconds in times)


def drill(kills: int = 24, teachers: int = 200, only: str | None = None) -> bool:
    """Bring it up, kill so often (or *only* one kind), and say what became of every change; whether all were there
    once, and it went on.
    """
    seed = random.randrange(10**6)
    with (
        tempfile.TemporaryDirectory(prefix="keen-slate-drill-", ignore_cleanup_errors=True) as folder,
        Cluster(Path(folder)) as cluster,
    ):
        return asyncio.run(_drill(cluster, kills, teachers, seed, only))
