"""Processor time of what a teacher does, of whichever version of the application is found first; one JSON object on
standard output.

Run by `bench.against` with a version's folder in front of the path and its address of a database filled with demo data
in DATABASE_URL. Only what every version has is used.
"""

from __future__ import annotations

import json
import os
import random
import sys
import time
import uuid
from collections.abc import Callable
from typing import Any

ROUNDS = 40
PROBLEMS = 400
TWELVE = (
    "add-across", "added-common-bottoms", "top-not-scaled", "scaled-by-adding", "kept-larger-bottom", "carry-lost",
    "whole-lost",
    "smaller-from-larger", "regroup-ten", "regroup-one", "whole-not-reduced", "fraction-brought-down",
)  # fmt: skip
ADDRESS = {"base_url": "http://127.0.0.1:8400"}


def classroom(count: int) -> list[tuple[str, list[tuple[int, int, int, int]]]]:
    """Classroom problems of two to four terms: text, and the terms as (sign, whole, numerator, denominator)."""
    pick = random.Random(7)
    made = []
    for _ in range(count):
        terms = []
        for i in range(pick.choice((2, 2, 2, 3, 4))):
            d = pick.randint(2, 12)
            terms.append(
                (1 if i == 0 else pick.choice((1, -1)), pick.choice((0, 0, 1, 4, 9)), pick.randint(1, d - 1), d)
            )
        text = ""
        for i, (sign, w, n, d) in enumerate(terms):
            text += ("" if i == 0 else " + " if sign > 0 else " - ") + (f"{w} {n}/{d}" if w else f"{n}/{d}")
        made.append((text, terms))
    return made


def of_core() -> dict[str, float]:
    """Milliseconds a problem, and of searches; `anchor` is SymPy's bare sum of the same problems."""
    import sympy

    from keen_slate.core.documents.working import published
    from keen_slate.core.ladders import build, read_spec
    from keen_slate.core.ladders.parallel import parallel
    from keen_slate.core.ladders.smallest import smallest
    from keen_slate.core.worked import work_text

    chosen = classroom(PROBLEMS)

    def everything(text: str) -> None:
        worked = work_text(text)
        _ = worked.working, worked.estimate, worked.likely, worked.features, worked.surprises

    wish = {"from": "M1", "to": "M8", "steps": 8, "denominators": list(range(2, 13)), "largest_whole": 12,
            "avoid": ["negatives"], "targets": ["add-across", "regroup-ten"], "separate": True}  # fmt: skip
    eight = [work_text(text) for text, _ in chosen[:8]]
    return {
        "anchor: SymPy's bare sum": _each(
            lambda one: sum((s * (w + sympy.Rational(n, d)) for s, w, n, d in one[1]), sympy.Integer(0)), chosen
        ),
        "a working": _each(lambda one: work_text(one[0]).working, chosen),
        "with all that is derived": _each(lambda one: everything(one[0]), chosen),
        "as its document": _each(lambda one: published(work_text(one[0])), chosen),
        "a ladder of 8": _once(lambda: build(read_spec(wish))),
        "versions B to D of 8": _once(lambda: [parallel(one, seed) for one in eight for seed in (1, 2, 3)]),
        "the smallest set for 12": _once(lambda: smallest(TWELVE)),
    }


def _each(do: Callable[[Any], object], items: list[Any]) -> float:
    for one in items[:50]:
        do(one)
    return _once(lambda: [do(one) for one in items], 3) / len(items)


def _once(do: Callable[[], object], times: int = 1) -> float:
    took = []
    for _ in range(times):
        began = time.process_time()
        do()
        took.append(1000 * (time.process_time() - began))
    return min(took)


def _owns_tables() -> bool:
    """Whether the application of this version comes to the database as the owner of the tables."""
    from keen_slate.store import database

    return not hasattr(database, "let_in")


def of_requests() -> dict[str, float]:
    """Milliseconds of a request within the process; `anchor` is a route of the same application that only answers."""
    from sqlalchemy import select
    from sqlalchemy.orm import Session

    from keen_slate.store.database import open_engine
    from keen_slate.store.demo import TEACHER
    from keen_slate.store.doors import new_link
    from keen_slate.store.models import Teacher
    from keen_slate.web.app import create_app

    url = os.environ["DATABASE_URL"]
    app = create_app({"SECRET_KEY": "x" * 40, "DATABASE_URL": url if _owns_tables() else os.environ["DESK_URL"]})
    app.get("/echo")(app.doc(hide=True)(lambda: {"said": "nothing"}))
    engine = open_engine(url)
    with Session(engine) as session, session.begin():
        link = new_link(session, session.scalars(select(Teacher.id).where(Teacher.name == TEACHER)).one())
    browser = app.test_client()
    browser.post("/api/enter", json={"link": link}, **ADDRESS)
    token = browser.get("/api/me", **ADDRESS).get_json()["csrf_token"]
    dice = random.Random(3)

    def asked_for(path: str) -> Any:
        return _good(browser.get(path, **ADDRESS))

    def get(path: str) -> Any:
        return asked_for(path).get_json()

    def post(path: str, body: object) -> Any:
        headers = {"X-CSRF-Token": token, "Idempotency-Key": str(uuid.uuid4())}
        return _good(browser.post(path, json=body, headers=headers, **ADDRESS))

    def typed() -> str:
        return f"{dice.randint(2, 9)} {dice.randint(1, 6)}/7 - {dice.randint(1, 2)} {dice.randint(1, 10)}/11"

    made = get("/api/sets")["sets"][0]["id"]
    example = get(f"/api/sets/{made}")["examples"][0]["id"]
    of_class = get("/api/classes")["classes"][0]["id"]
    held = get(f"/api/classes/{of_class}")
    sitting, pupil = held["sittings"][0]["id"], held["pupils"][0]["id"]

    begun = post("/api/sets", {"title": "Measured"}).get_json()
    version = begun["version"]

    def change(path: str, **body: object) -> None:
        nonlocal version
        answer = post(f"/api/sets/{begun['id']}{path}", body | {"version": version}).get_json()
        version = answer.get("set", answer)["version"]

    for text in ("7 1/4 - 3 5/6", "2/3 + 1/6", "12.05 - 8.36", "4 1/2 + 2 2/3"):
        change("/examples", source=text)

    def add_and_undo() -> None:
        change("/examples", source=typed())
        change("/undo")

    asked: dict[str, Callable[[], object]] = {
        "anchor: a route that only answers": lambda: asked_for("/echo"),
        "who is here": lambda: asked_for("/api/me"),
        "Shelf": lambda: asked_for("/api/sets"),
        "open a set": lambda: asked_for(f"/api/sets/{made}"),
        "open an example": lambda: asked_for(f"/api/sets/{made}/examples/{example}"),
        "preview": lambda: post("/api/preview", {"text": typed()}),
        "work": lambda: post("/api/work", {"text": typed()}),
        "a class": lambda: asked_for(f"/api/classes/{of_class}"),
        "answers": lambda: asked_for(f"/api/sittings/{sitting}"),
        "an answer's cell": lambda: asked_for(f"/api/sittings/{sitting}/answers/{pupil}/0"),
        "what happened": lambda: asked_for(f"/api/sittings/{sitting}/happened"),
        "add, then undo": add_and_undo,
    }
    found = {name: _request(do) for name, do in asked.items()}
    engine.dispose()
    return found


def _request(do: Callable[[], object]) -> float:
    for _ in range(3):
        do()
    return _once(lambda: [do() for _ in range(ROUNDS)], 2) / ROUNDS


def _good(answer: Any) -> Any:
    assert answer.status_code < 400, answer.get_data()[:300]
    return answer


if __name__ == "__main__":
    sys.path.insert(0, os.environ["MEASURED"])
    json.dump({"core": of_core(), "requests": of_requests()}, sys.stdout)
