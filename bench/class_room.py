"""A class's answers in the running application: typed into the real page by keys, a large table, a year of sittings
opened.
"""

from __future__ import annotations

import json
import time
import urllib.request
import uuid
from datetime import date, timedelta
from http.cookiejar import CookieJar
from statistics import median

from playwright.sync_api import Page
from sqlalchemy.orm import Session

from bench.answers import make_pupils, revealing_set, written_by
from keen_slate.core.expressions.text import text
from keen_slate.core.ladders import build_or_why, read_spec
from keen_slate.store.classes import Classes
from keen_slate.store.shelf import teacher_named
from keen_slate.store.sittings import Entered, Sittings
from tools.browser import chromium, come_in
from tools.throw_away import Running, application

KEY = 0.2  # seconds between two keys: five keys a second, a practised typist with digits
PAPER = 1.5  # seconds to take the next pupil's paper
_YEAR = 40


def report() -> None:
    """Print how long 26 x 8 answers take to type, how soon keys and judgements show, and how soon a year opens."""
    with application(lambda session: teacher_named(session, "bench").id) as room:
        with chromium() as browser:
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            come_in(page.request, room.server.link(room.teacher))
            page.goto(room.server.address)
            _typed(room, page)
            _large(room, page)
        _year(room)


def _sitting(
    room: Running, aliases: list[str], problems: list[str], day: date, class_id: uuid.UUID | None = None
) -> tuple[uuid.UUID, uuid.UUID]:
    """A class (a new one, if none is named) and a sitting of it."""
    with Session(room.engine) as session, session.begin():
        classes = Classes(session, room.teacher)
        made = class_id or classes.add(f"Class {uuid.uuid4().hex[:6]}", aliases).id
        questions = [
            {"source": problem, "target": None, "ways": {}, "points": {}, "labels": False} for problem in problems
        ]
        return made, Sittings(session, room.teacher).bring(made, "Bench", questions, day, "quiz").id


def _typed(room: Running, page: Page) -> None:
    """A teacher types what a stand-in class wrote: `r` for a right answer, the rest key by key; one reload in the
    middle.
    """
    problems, pupils = revealing_set(8, 99), make_pupils(99)
    wrote = written_by(pupils, problems, 99)
    _, sitting = _sitting(room, [one.alias for one in pupils], problems, date(2026, 11, 12))
    page.goto(f"{room.server.address}/answers/{sitting}")
    page.wait_for_selector("td.hand")
    right = page.evaluate(
        f"fetch('/api/sittings/{sitting}').then(r => r.json()).then(s => s.questions.map(q => q.answer))"
    )
    aliases = page.locator("tbody th").all_inner_texts()
    start, keys = time.perf_counter(), 0
    for i, alias in enumerate(aliases):
        for j, answer in enumerate(wrote[alias]):
            strokes = ["r"] if answer == right[j] else [*answer, "Tab"]
            for stroke in strokes:
                page.keyboard.press("Space" if stroke == " " else stroke)
                time.sleep(KEY)
            keys += len(strokes)
        time.sleep(PAPER)
        if i == len(aliases) // 2:
            page.reload()
            page.wait_for_selector("td.hand")
            page.keyboard.press("Control+Home")
            for _ in range(i + 1):
                page.keyboard.press("ArrowDown")
    took = time.perf_counter() - start
    page.wait_for_timeout(1500)
    with Session(room.engine) as session:
        kept = len(Sittings(session, room.teacher).answers([sitting]))
    print(f"  {len(aliases)} x {len(problems)} answers typed with {keys} keys, {KEY} s each: {took:.0f} s, {kept} kept")


def _large(room: Running, page: Page) -> None:
    """How soon a key shows in a table of 36 by 20, and how soon its judgement does."""
    made = build_or_why(read_spec({"rungs": {"M4": 5, "M8": 5, "F6": 5, "M9": 5}, "seed": 1}))
    problems = [text(one.expr) for one in made.problems]
    _, sitting = _sitting(room, [f"p{i}" for i in range(36)], problems, date(2026, 11, 12))
    page.goto(f"{room.server.address}/answers/{sitting}")
    page.wait_for_selector("td.hand")
    for _ in range(36):
        page.keyboard.press("R")
    page.wait_for_timeout(3000)
    page.evaluate(_WATCH)
    page.keyboard.press("Control+Home")
    page.wait_for_timeout(500)
    for i in range(40):
        page.keyboard.type(f"{i} 1/97")
        page.keyboard.press("Tab" if i % 2 else "Enter")
        page.wait_for_timeout(350)
    shown = page.evaluate("window.shown")
    judged = page.evaluate("window.judged")
    for name, times in (("a key shows after", shown), ("its judgement after", judged)):
        ordered = sorted(times)
        print(
            f"  36 x 20: {name} {median(ordered):.0f} ms, p95 {ordered[int(0.95 * len(ordered))]:.0f} ms "
            f"({len(ordered)})"
        )


# From a key to the frame in which it is painted; from the key that ends an answer to the frame in which it is judged.
_WATCH = """() => {
  window.shown = []; window.judged = []
  document.addEventListener('keydown', event => {
    const start = performance.now()
    requestAnimationFrame(() => setTimeout(() => window.shown.push(performance.now() - start)))
    if (event.key !== 'Tab' && event.key !== 'Enter') return
    const cell = document.querySelector('td.hand').id
    const look = () => {
      const now = document.getElementById(cell)
      if (['unexplained', 'explained'].includes(now.dataset.said)) window.judged.push(performance.now() - start)
      else if (performance.now() - start < 3000) requestAnimationFrame(look)
    }
    requestAnimationFrame(look)
  }, true)
}"""


def _year(room: Running) -> None:
    """A class of 26 with forty sittings of eight problems: its page after the server was started anew, and again."""
    pupils = make_pupils(1)
    class_id = None
    for week in range(_YEAR):
        problems = revealing_set(8, week)
        wrote = written_by(pupils, problems, week)
        class_id, sitting = _sitting(
            room, [one.alias for one in pupils], problems, date(2026, 1, 5) + timedelta(days=7 * week), class_id
        )
        with Session(room.engine) as session, session.begin():
            ids = {one.alias: one.id for one in Classes(session, room.teacher).pupils(class_id)}
            entered = [Entered(ids[alias], i, one) for alias, row in wrote.items() for i, one in enumerate(row)]
            Sittings(session, room.teacher).enter(sitting, entered)
    times = [_opened(room, class_id) for _ in range(4)]
    room.server.stop()
    room.server.start()
    cold = _opened(room, class_id)
    print(f"  a year ({_YEAR} sittings of 8, 26 pupils) opens in {times[0]:.2f} s the first time, then "
          f"{median(times[1:]):.2f} s; "
          f"{cold:.2f} s after a restart")  # fmt: skip


def _opened(room: Running, class_id: uuid.UUID | None) -> float:
    opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(CookieJar()))
    link = room.server.link(room.teacher).partition("/enter/")[2]
    headers = {"Content-Type": "application/json"}
    opener.open(
        urllib.request.Request(f"{room.server.address}/api/enter", json.dumps({"link": link}).encode(), headers)
    )
    start = time.perf_counter()
    opener.open(f"{room.server.address}/api/classes/{class_id}/over-time", timeout=60).read()
    return time.perf_counter() - start
