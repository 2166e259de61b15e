"""What row-level security costs: the same requests as the role it holds for, and as the tables' owner, in turns."""

from __future__ import annotations

import statistics
import time

from sqlalchemy.orm import Session

from keen_slate.store.database import let_in, migrate, open_engine
from keen_slate.store.demo import TEACHER, load
from keen_slate.store.doors import new_link
from keen_slate.store.shelf import teacher_named
from keen_slate.web.app import create_app
from tools.postgres import DESK
from tools.throw_away import database

FIRST, TIMES = 30, 300  # requests that warm up, and that are measured


def report() -> None:
    """Print p50 and p95 of reading requests without and with the second wall, in ms, and the ratio."""
    with database() as records:
        migrate(records.url)
        let_in(records.url, DESK)
        engine = open_engine(records.url)
        with Session(engine) as session, session.begin():
            load(session)
        clients = []
        for url in (records.url, records.desk_url()):
            with Session(engine) as session, session.begin():
                link = new_link(session, teacher_named(session, TEACHER).id)
            client = create_app({"SECRET_KEY": "x" * 40, "DATABASE_URL": url}).test_client()
            client.post("/api/enter", json={"link": link})
            clients.append(client)
        engine.dispose()
        ask = clients[0].get
        of_set = f"/api/sets/{ask('/api/sets').get_json()['sets'][0]['id']}"
        example = f"{of_set}/examples/{ask(of_set).get_json()['examples'][0]['id']}"
        of_class = f"/api/classes/{ask('/api/classes').get_json()['classes'][0]['id']}"
        sitting = f"/api/sittings/{ask(of_class).get_json()['sittings'][0]['id']}"
        for name, path in {
            "who is here": "/api/me", "Shelf": "/api/sets", "a set": of_set, "an example": example, "a class": of_class,
            "answers": sitting, "from colleagues": "/api/colleagues/sets",
        }.items():  # fmt: skip
            took: tuple[list[float], list[float]] = [], []
            for i in range(FIRST + TIMES):
                for client, times in zip(clients, took, strict=True):
                    begun = time.perf_counter()
                    answer = client.get(path)
                    if i >= FIRST:
                        times.append(1000 * (time.perf_counter() - begun))
                    if answer.status_code != 200:
                        raise RuntimeError(f"{path}: {answer.status_code}")
            (without, without_95), (with_, with_95) = (
                (statistics.median(times), sorted(times)[int(0.95 * TIMES)]) for times in took
            )
            print(
                f"walls: {name:16} p50 {without:6.2f} {with_:6.2f} ({with_ / without:.2f})   "
                f"p95 {without_95:6.2f} {with_95:6.2f} ({with_95 / without_95:.2f})",
                flush=True,
            )
