"""Run all benchmarks and print their figures. Nothing here is a test: machines differ, ratios say more."""

from __future__ import annotations

import gzip
import http.client
import json
import random
import statistics
import sys
import tempfile
import time
from fractions import Fraction
from math import gcd
from pathlib import Path

import sympy
from sqlalchemy.orm import Session

from keen_slate.core.document import work_text, working_document, working_view
from keen_slate.core.errors import LimitError
from keen_slate.core.ways import CODES, Ways
from keen_slate.store.database import migrate, open_engine
from keen_slate.store.demo import load
from tools.launch import ROOT
from tools.postgres import LocalPostgres
from tools.server import LiveServer

PROBLEMS = 4000
REQUESTS = 1000


def problems(count: int) -> list[tuple[str, list[tuple[int, int, int, int]]]]:
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


def core() -> None:
    """Workings a second with everything derived from them, beside SymPy's evaluation of the same sums."""
    chosen = problems(PROBLEMS)
    for text, _ in chosen[:200]:
        work_text(text)
    began = time.process_time()
    answers = [work_text(text).working for text, _ in chosen]
    worked = time.process_time() - began
    began = time.process_time()
    documents = [working_document(work_text(text)) for text, _ in chosen]
    documented = time.process_time() - began
    began = time.process_time()
    totals = [
        sum((sign * (w + sympy.Rational(n, d)) for sign, w, n, d in terms), sympy.Integer(0)) for _, terms in chosen
    ]
    summed = time.process_time() - began
    for document, total in zip(documents, totals, strict=True):
        assert Fraction(document["answer"]["value"]) == Fraction(int(total.p), int(total.q))
    print(f"core: {len(answers)} problems of 2 to 4 terms, one core")
    print(f"  worked, estimated, misread, graded      {len(answers) / worked:8.0f} a second")
    print(f"  the same, and written as its document   {len(answers) / documented:8.0f} a second")
    print(f"  SymPy Rational, the bare sum            {len(answers) / summed:8.0f} a second")
    print(f"  a working takes {worked / summed:.1f} times the bare sum")


def web() -> None:
    """Milliseconds of one POST /api/work on loopback, and the kilobytes that the page sends."""
    with tempfile.TemporaryDirectory(prefix="keen-slate-bench-") as directory:
        Path(directory).chmod(0o755)
        database = LocalPostgres(Path(directory) / "postgres", lasting=False)
        try:
            url = database.start(55800)
            migrate(url)
            engine = open_engine(url)
            with Session(engine) as session, session.begin():
                teacher = str(load(session))
            engine.dispose()
            server = LiveServer(teacher, url)
            try:
                taken = sorted(_requests(server.port))
            finally:
                server.stop()
        finally:
            database.remove()
    print(f"web: {len(taken)} requests to work one problem, one after the other on loopback")
    print(f"  p50 {statistics.median(taken):.1f} ms   p95 {taken[int(len(taken) * 0.95)]:.1f} ms")


def _requests(port: int) -> list[float]:
    connection = http.client.HTTPConnection("127.0.0.1", port)
    connection.request("GET", "/api/me")
    answer = connection.getresponse()
    token = json.load(answer)["csrf_token"]
    cookie = (answer.getheader("Set-Cookie") or "").split(";")[0]
    headers = {"Content-Type": "application/json", "X-CSRF-Token": token, "Cookie": cookie}
    taken = []
    for text, _ in problems(REQUESTS + 50):
        began = time.perf_counter()
        connection.request("POST", "/api/work", json.dumps({"text": text}), headers)
        answer = connection.getresponse()
        answer.read()
        taken.append(1000 * (time.perf_counter() - began))
        assert answer.status == 200
    return taken[50:]


def page() -> None:
    """Kilobytes of script and style, compressed, as a browser would be sent them."""
    for suffix in ("js", "css"):
        files = list((ROOT / "frontend" / "dist" / "assets").glob(f"*.{suffix}"))
        size = sum(len(gzip.compress(file.read_bytes(), 9)) for file in files)
        print(f"page: {size / 1024:6.1f} kB of {suffix}, compressed with gzip, in {len(files)} file(s)")


def in_form(answer: str, form: str) -> bool:
    """Whether a written answer has the form that is wanted; judged from its text alone."""
    *whole, part = answer.removeprefix("-").split(" ")
    if "/" not in part:
        return not whole
    num, den = map(int, part.split("/"))
    if num % den == 0 or (whole and num > den):
        return False
    if form == "any-equal":
        return True
    return gcd(num, den) == 1 and (num < den if form == "simplest-mixed" else not whole)


def soak(count: int) -> None:
    """Random problems in random ways: every step is proven by the core, every answer compared, every view built."""
    pick = random.Random(11)
    told = dict.fromkeys(("right", "past the limits", "wrong value", "wrong form"), 0)
    for text, terms in problems(count):
        ways = Ways.of({name: pick.choice(codes) for name, codes in CODES.items()})
        try:
            view = working_view(work_text(text, ways))
        except LimitError:
            told["past the limits"] += 1
            continue
        total = sum((sign * (w + Fraction(n, d)) for sign, w, n, d in terms), Fraction(0))
        if Fraction(view["answer"]["value"]) != total:
            told["wrong value"] += 1
        else:
            told["right" if in_form(view["answer"]["text"], ways.answer_form) else "wrong form"] += 1
    print(f"soak: {count} random problems, each in ways drawn at random: {told}")


if __name__ == "__main__" and sys.argv[1:2] == ["soak"]:
    soak(int(sys.argv[2]) if len(sys.argv) > 2 else 100_000)
elif __name__ == "__main__":
    core()
    web()
    page()
