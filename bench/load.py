"""Teachers at work, all at once, over HTTP on loopback: how long their light requests take, alone and beside heavy
ones.

Bounded in number and time, and ends everything that it starts.
"""

from __future__ import annotations

import asyncio
import random
import statistics
import tempfile
import time
import uuid
from collections import Counter
from collections.abc import Awaitable, Callable, Iterator
from contextlib import contextmanager, suppress
from datetime import UTC, datetime, timedelta
from typing import Any

import aiohttp
from sqlalchemy import insert
from sqlalchemy.orm import Session

from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.store.database import let_in, migrate, open_engine
from keen_slate.store.models import Example, ExampleSet, Teacher
from keen_slate.store.shelf import Shelf
from tools.postgres import DESK
from tools.server import LiveServer
from tools.throw_away import database

SECONDS = 25  # each stage
PAUSE = (1, 3)  # seconds between two actions of a teacher
EXAMPLES = 8
LARGE = 30  # examples of the set whose paper is made
SHELF = 10_000  # sets of the teacher with the long shelf


class Desk:
    """A teacher at work in a browser: a session, a set, and what she does."""

    def __init__(self, http: aiohttp.ClientSession, address: str, link: str, set_id: str, dice: random.Random) -> None:
        self.http, self.address, self.link, self.set_id, self.dice = http, address, link, set_id, dice
        self.token = ""
        self.version = 0
        self.examples: list[str] = []

    async def come_in(self) -> None:
        async with self.http.post(f"{self.address}/api/enter", json={"link": self.link}) as answer:
            await answer.read()
        self.token = (await self.ask("GET", "/api/me"))["csrf_token"]
        self.take(await self.ask("GET", f"/api/sets/{self.set_id}"))

    async def ask(self, method: str, path: str, body: object = None) -> Any:
        headers = {} if method == "GET" else {"X-CSRF-Token": self.token, "Idempotency-Key": str(uuid.uuid4())}
        async with self.http.request(method, self.address + path, json=body, headers=headers) as answer:
            found = await answer.json() if "json" in answer.content_type else await answer.read()
            if answer.status >= 400:
                raise RuntimeError(f"{answer.status} {path.split('/')[-1]} {str(found)[:80]}")
            return found

    def take(self, found: dict[str, Any]) -> None:
        self.version = found["version"]
        self.examples = [one["id"] for one in found["examples"]]

    # What a teacher does ---------------------------------------------------------------------------------------------

    async def preview(self) -> None:
        await self.ask("POST", "/api/preview", {"text": problem(self.dice)})

    async def shelf(self) -> None:
        await self.ask("GET", "/api/sets")

    async def open_set(self) -> None:
        self.take(await self.ask("GET", f"/api/sets/{self.set_id}"))

    async def open_example(self) -> None:
        await self.ask("GET", f"/api/sets/{self.set_id}/examples/{self.dice.choice(self.examples)}")

    async def add(self) -> None:
        if len(self.examples) > EXAMPLES + 6:
            return await self.remove()
        body = {"version": self.version, "source": problem(self.dice)}
        self.take((await self.ask("POST", f"/api/sets/{self.set_id}/examples", body))["set"])

    async def remove(self) -> None:
        self.take(
            await self.ask("DELETE", f"/api/sets/{self.set_id}/examples/{self.examples[-1]}?version={self.version}")
        )

    async def change(self) -> None:
        body = {"version": self.version, "ways": {"layout": self.dice.choice(("line", "stacked", "checklist"))}}
        path = f"/api/sets/{self.set_id}/examples/{self.dice.choice(self.examples)}"
        self.take((await self.ask("PATCH", path, body))["set"])

    async def undo(self) -> None:
        with suppress(RuntimeError):  # nothing to undo
            self.take(await self.ask("POST", f"/api/sets/{self.set_id}/undo", {"version": self.version}))


# How often a teacher does what.
ACTIONS: tuple[tuple[int, Callable[[Desk], Awaitable[None]]], ...] = (
    (8, Desk.preview), (1, Desk.shelf), (2, Desk.open_set), (4, Desk.open_example), (3, Desk.add), (1, Desk.change),
    (1, Desk.undo),
)  # fmt: skip


def problem(dice: random.Random) -> str:
    """A problem as a class has it."""
    d, e = dice.randint(2, 12), dice.randint(2, 12)
    a, b = dice.randint(5, 12), dice.randint(1, 4)
    return f"{a} {dice.randint(1, d)}/{d} {dice.choice('+-')} {b} {dice.randint(1, e)}/{e}"


# Heavy requests -------------------------------------------------------------------------------------------------------


async def keep_busy(desk: Desk, number: int, done: Counter[str], until: float) -> None:
    """Ask for one heavy thing after the other; who has to wait asks again, as the page does."""
    codes = list(ENTRIES)[:12]
    asked = (
        ("ladder", "POST", "/api/ladders", lambda n: {"spec": {"rungs": {"M7": 2, "M8": 3, "F5": 2, "D4": 2},
            "targets": codes[:4], "seed": n}}),
        ("paper of 30", "GET", f"/api/sets/{desk.set_id}/handout.pdf?pictures=true&form=full", lambda n: None),
        ("smallest set", "POST", "/api/ladders/smallest", lambda n: {"codes": codes}),
        ("building", "POST", "/api/building", lambda n: {"numbers": f"9, 11, 4/5, 1/6, {n + 3}/7, {n + 2}",
            "wanted": "4 11/12"}),
    )  # fmt: skip
    n = number
    while time.monotonic() < until:
        name, method, path, body = asked[n % len(asked)]
        try:
            await desk.ask(method, path, body(n))
            done[name] += 1
            n += 1
        except RuntimeError as error:
            if str(error).startswith("422"):  # it took longer than it may, and was ended
                done["ended"] += 1
                n += 1
            elif str(error).startswith("503"):
                done["told to wait"] += 1
                await asyncio.sleep(1)
            else:
                raise


# A stage --------------------------------------------------------------------------------------------------------------


async def _work(desk: Desk, until: float, times: list[float], errors: Counter[str]) -> None:
    weights = [weight for weight, _ in ACTIONS]
    await asyncio.sleep(desk.dice.uniform(0, PAUSE[1]))
    while time.monotonic() < until:
        action = desk.dice.choices([act for _, act in ACTIONS], weights)[0]
        begun = time.perf_counter()
        try:
            await action(desk)
        except (RuntimeError, aiohttp.ClientError) as error:
            errors[str(error)[:60] or type(error).__name__] += 1
        times.append(time.perf_counter() - begun)
        await asyncio.sleep(desk.dice.uniform(*PAUSE))


async def stage(
    server: LiveServer, desks: list[tuple[uuid.UUID, str]], heavy: list[tuple[uuid.UUID, str]], seconds: float = SECONDS
) -> str:
    """Teachers at their *desks* for so many *seconds*, beside *heavy* ones: what it came to, in a line."""
    async with _Browsers() as browsers:
        light = [
            Desk(browsers.new(), server.address, _link(server, t), s, random.Random(i))
            for i, (t, s) in enumerate(desks)
        ]
        busy = [
            Desk(browsers.new(), server.address, _link(server, t), s, random.Random(i))
            for i, (t, s) in enumerate(heavy)
        ]
        for desk in (*light, *busy):
            await desk.come_in()
        until = time.monotonic() + seconds
        times: list[float] = []
        errors: Counter[str] = Counter()
        done: Counter[str] = Counter()
        tasks = [_work(desk, until, times, errors) for desk in light]
        tasks += [keep_busy(desk, n, done, until) for n, desk in enumerate(busy)]
        await asyncio.gather(*tasks)
    ordered = sorted(times)
    p = [1000 * ordered[min(len(ordered) - 1, int(len(ordered) * q))] for q in (0.5, 0.95, 0.99)]
    beside = f"   heavy: {dict(done)}" if heavy else ""
    return (
        f"{len(ordered) / seconds:5.1f} requests/s   p50 {p[0]:6.1f}  p95 {p[1]:6.1f}  p99 {p[2]:6.1f} ms   "
        f"errors {sum(errors.values())} {dict(errors) if errors else ''}{beside}"
    )


class _Browsers:
    """Sessions with cookies of their own, closed at the end."""

    async def __aenter__(self) -> _Browsers:
        self.made: list[aiohttp.ClientSession] = []
        return self

    def new(self) -> aiohttp.ClientSession:
        jar = aiohttp.CookieJar(unsafe=True)  # addresses without names keep their cookies too
        self.made.append(aiohttp.ClientSession(cookie_jar=jar, timeout=aiohttp.ClientTimeout(120)))
        return self.made[-1]

    async def __aexit__(self, *error: object) -> None:
        for session in self.made:
            await session.close()


def _link(server: LiveServer, teacher: uuid.UUID) -> str:
    return server.link(teacher).rsplit("/", 1)[1]


def teachers(url: str, count: int, examples: int) -> list[tuple[uuid.UUID, str]]:
    """So many teachers, each with a set of so many examples."""
    dice = random.Random(count)
    made = []
    engine = open_engine(url)
    with Session(engine) as session, session.begin():
        for i in range(count):
            teacher = Teacher(id=uuid.uuid4(), name=f"Teacher {i}")
            session.add(teacher)
            session.flush()
            found = Shelf(session, teacher.id).add_set("At work", [{"source": problem(dice)} for _ in range(examples)])
            made.append((teacher.id, str(found.id)))
    engine.dispose()
    return made


async def _long_shelf(server: LiveServer, url: str) -> str:
    """The first page of a shelf of `SHELF` sets, when what it shows has been worked once."""
    ((teacher, set_id),) = teachers(url, 1, EXAMPLES)
    engine = open_engine(url)
    with Session(engine) as session, session.begin():
        like = Shelf(session, teacher).one_set(uuid.UUID(set_id))
        now = datetime.now(UTC)
        sets = [uuid.uuid4() for _ in range(SHELF)]
        like_it = "\n".join([example.source for example in like.examples])
        session.execute(insert(ExampleSet), [
            {"teacher_id": teacher, "id": one, "title": f"Set {i}", "version": 1,
                "changed_at": now - timedelta(minutes=i), "searched": f"set {i}\n{like_it}"}
            for i, one in enumerate(sets)
        ])  # fmt: skip
        session.execute(insert(Example), [
            {"teacher_id": teacher, "id": uuid.uuid4(), "set_id": one, "position": n, "source": example.source}
            for one in sets for n, example in enumerate(like.examples)
        ])  # fmt: skip
    engine.dispose()
    async with _Browsers() as browsers:
        desk = Desk(browsers.new(), server.address, _link(server, teacher), set_id, random.Random(1))
        await desk.come_in()
        took = []
        size = 0
        for path in ("/api/sets",) * 12 + ("/api/sets?search=set+77",) * 5:
            begun = time.perf_counter()
            found = await desk.ask("GET", path)
            took.append(1000 * (time.perf_counter() - begun))
            size = size or len(str(found))
    first, again, searched = took[0], statistics.median(took[1:12]), statistics.median(took[12:])
    return f"first time {first:.0f} ms, then {again:.0f} ms, {size / 1000:.0f} kB; a search {searched:.0f} ms"


@contextmanager
def two_workers() -> Iterator[LiveServer]:
    """The application with two workers, as an installation runs it, over records that are thrown away."""
    with tempfile.TemporaryDirectory(prefix="keen-slate-load-") as run, database(lasting=True) as records:
        migrate(records.url)
        let_in(records.url, DESK)
        server = LiveServer(records.url, records.desk_url(), workers=2, more={"KEEN_SLATE_RUN": run})
        try:
            yield server
        finally:
            server.stop()


def main() -> None:
    """Print the tables."""
    with two_workers() as server:
        desks = teachers(server.url, 200, EXAMPLES)
        heavy = teachers(server.url, 8, LARGE)
        print("Teachers at once, 1 to 3 s between actions, two workers; the client runs on the same cores")
        for count in (10, 50, 200):
            print(f"  {count:4} teachers: {asyncio.run(stage(server, desks[:count], []))}", flush=True)
        print("50 teachers beside heavy requests (ladders, papers of 30 with pictures, smallest sets, building)")
        for count in (0, 1, 4, 8):
            print(f"  {count} heavy: {asyncio.run(stage(server, desks[:50], heavy[:count]))}", flush=True)
        print(f"A shelf of {SHELF} sets: {asyncio.run(_long_shelf(server, server.url))}")
