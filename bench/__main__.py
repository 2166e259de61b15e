"""Run all benchmarks and print their figures. Nothing here is a test: machines differ, ratios say more."""

from __future__ import annotations

import gzip
import http.client
import json
import random
import statistics
import sys
import time
import uuid
from collections.abc import Callable, Iterator
from fractions import Fraction
from math import gcd
from typing import Any

import sympy

from bench.against import main as against
from bench.answers import report as report_answers
from bench.class_room import report as report_class
from bench.desk import report as report_desk
from bench.kills import kills
from bench.load import main as load_teachers
from bench.measures import TWELVE
from bench.measures import classroom as problems
from bench.nasty import report
from bench.stories import report as report_stories
from bench.walls import report as report_walls
from keen_slate.core.diagnosing.answers import diagnose
from keen_slate.core.documents.view import working_view
from keen_slate.core.documents.working import published
from keen_slate.core.errors import CoreError, LimitError, ReadError
from keen_slate.core.expressions.text import text as written
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.ladders import build, counts_of, read_spec
from keen_slate.core.ladders.smallest import smallest
from keen_slate.core.sittings.stand_in import answers, make_class
from keen_slate.core.ways.settings import SETTINGS, Ways
from keen_slate.core.worked import work_text
from keen_slate.export.paper.options import Options
from keen_slate.export.typesetting import FOLDER
from keen_slate.store.demo import load
from keen_slate.web.given import GivenExample
from keen_slate.web.papers import Wish, handout_pages, handout_pdf
from keen_slate.web.schemas.papers import MOST_PAGES
from tools.application import ROOT
from tools.server import LiveServer
from tools.throw_away import application

CHOICES = {name: tuple(one.codes) for name, one in SETTINGS.items()}
PROBLEMS = 4000
REQUESTS = 300


def core() -> None:
    """Workings a second with everything derived from them, beside SymPy's evaluation of the same sums."""
    chosen = problems(PROBLEMS)
    for text, _ in chosen[:200]:
        work_text(text)
    began = time.process_time()
    answers = [work_text(text).working for text, _ in chosen]
    worked = time.process_time() - began
    began = time.process_time()
    documents = [published(work_text(text)) for text, _ in chosen]
    documented = time.process_time() - began
    began = time.process_time()
    totals = [
        sum((sign * (w + sympy.Rational(n, d)) for sign, w, n, d in terms), sympy.Integer(0)) for _, terms in chosen
    ]
    summed = time.process_time() - began
    for document, total in zip(documents, totals, strict=True):
        assert Fraction(document["answer"]["value"]) == Fraction(int(total.p), int(total.q))
    print(f"core: {len(answers)} problems of 2 to 4 terms, one core")
    print(f"  worked                                  {len(answers) / worked:8.0f} a second")
    print(f"  with all that is derived, as a document {len(answers) / documented:8.0f} a second")
    print(f"  SymPy Rational, the bare sum            {len(answers) / summed:8.0f} a second")
    print(f"  a working takes {worked / summed:.1f} times the bare sum, its document {documented / summed:.1f} times")


def web() -> None:
    """Milliseconds of what is asked for oftenest, one after the other on loopback, beside a route that only answers."""
    with application(load) as running:
        ask = _browser(running.server, running.teacher)
        made = ask("GET", "/api/sets")["sets"][0]["id"]
        example = ask("GET", f"/api/sets/{made}")["examples"][0]["id"]
        of_class = ask("GET", "/api/classes")["classes"][0]["id"]
        sitting = ask("GET", f"/api/classes/{of_class}")["sittings"][0]["id"]
        typed = iter(problems(3 * REQUESTS))
        asked: dict[str, Callable[[], object]] = {
            "a route that only answers": lambda: ask("GET", "/healthz"),
            "who is here": lambda: ask("GET", "/api/me"),
            "the Shelf": lambda: ask("GET", "/api/sets"),
            "a set": lambda: ask("GET", f"/api/sets/{made}"),
            "an example": lambda: ask("GET", f"/api/sets/{made}/examples/{example}"),
            "answers of a class": lambda: ask("GET", f"/api/sittings/{sitting}"),
            "a preview": lambda: ask("POST", "/api/preview", {"text": next(typed)[0]}),
            "a problem worked": lambda: ask("POST", "/api/work", {"text": next(typed)[0]}),
        }
        print(
            f"web: {REQUESTS} requests of each, one after the other on loopback; p50, p95, and p50 as often as the "
            "first"
        )
        first = 0.0
        for name, do in asked.items():
            p50, p95 = _percentiles(do)
            first = first or p50
            print(f"  {name:28} {p50:7.1f} ms {p95:7.1f} ms {p50 / first:6.1f}")


def _percentiles(do: Callable[[], object]) -> tuple[float, float]:
    taken = []
    for _ in range(REQUESTS):
        began = time.perf_counter()
        do()
        taken.append(1000 * (time.perf_counter() - began))
    taken.sort()
    return statistics.median(taken), taken[int(len(taken) * 0.95)]


def _browser(server: LiveServer, teacher: uuid.UUID) -> Callable[..., Any]:
    """What asks for a path as somebody who is signed in, over one connection."""
    connection = http.client.HTTPConnection("127.0.0.1", server.port)
    headers = {"Content-Type": "application/json"}

    def ask(method: str, path: str, body: object = None) -> Any:
        connection.request(method, path, None if body is None else json.dumps(body), headers)
        answer = connection.getresponse()
        assert answer.status < 400, (path, answer.status)
        if cookie := answer.getheader("Set-Cookie"):
            headers["Cookie"] = cookie.split(";")[0]
        read = answer.read()
        return json.loads(read) if read else None

    ask("POST", "/api/enter", {"link": server.link(teacher).partition("/enter/")[2]})
    headers["X-CSRF-Token"] = ask("GET", "/api/me")["csrf_token"]
    return ask


def page() -> None:
    """Kilobytes of script and style, compressed, as a browser would be sent them."""
    for suffix in ("js", "css"):
        files = list((ROOT / "frontend" / "dist" / "assets").glob(f"*.{suffix}"))
        size = sum(len(gzip.compress(file.read_bytes(), 9)) for file in files)
        print(f"page: {size / 1024:6.1f} kB of {suffix}, compressed with gzip, in {len(files)} file(s)")


def ladders() -> None:
    """Ladders built to order, beside plain enumeration of the same candidates with `fractions.Fraction`."""
    wish = {"from": "M1", "to": "M8", "steps": 8, "denominators": list(range(2, 13)), "largest_whole": 12,
            "avoid": ["negatives"], "targets": ["add-across", "regroup-ten"], "separate": True}  # fmt: skip
    read_wishes = [read_spec(wish | {"seed": seed}) for seed in range(20)]
    began = time.perf_counter()
    first = build(read_wishes[0])
    cold = time.perf_counter() - began
    began = time.perf_counter()
    for spec in read_wishes:
        build(spec)
    warm = (time.perf_counter() - began) / len(read_wishes)
    counting = []
    for most in range(30, 130):
        spec = read_spec(wish | {"largest_common_denominator": most})
        began = time.perf_counter()
        spaces, _ = counts_of(spec)
        counted = {rung: space.count for rung, space in spaces.items()}
        counting.append(time.perf_counter() - began)
    counting.sort()
    began = time.perf_counter()
    enumerated = _enumerated()
    plain = time.perf_counter() - began
    began = time.perf_counter()
    few = smallest(TWELVE)
    smallest_took = time.perf_counter() - began
    print(f"ladders: eight problems from M1 to M8 among {first.considered} candidates")
    print(f"  built, nothing known before             {1000 * cold:8.1f} ms")
    print(f"  built again with another seed           {1000 * warm:8.1f} ms")
    print(
        f"  counted after a limit changed           {1000 * statistics.median(counting):8.1f} ms (p95 "
        f"{1000 * counting[95]:.1f}), {len(counted)} rungs"
    )
    print(f"  fractions.Fraction, every value once    {1000 * plain:8.1f} ms for {enumerated} sums and differences")
    print(f"  a smallest set for {len(TWELVE)} misconceptions    {1000 * smallest_took:8.1f} ms: {len(few.problems)} "
          "problems, "
          f"{'proven' if few.proven else 'not proven'}, {few.candidates} candidates worked")  # fmt: skip


def paper() -> None:
    """Seconds for the PDF of thirty examples with their key, without and with pictures of the steps; and for four
    versions of them.
    """
    wish = read_spec({"from": "M1", "to": "M9", "steps": 30, "avoid": ["negatives"]})
    sources = [written(one.expr) for one in build(wish).problems]
    examples = [GivenExample(source, None, {}, i, {}, {}, {}, {}) for i, source in enumerate(sources)]
    typefaces = ROOT / "frontend" / "dist" / FOLDER
    for said, pictures, versions in (
        ("without pictures", False, 1),
        ("with pictures", True, 1),
        ("in four versions", True, 4),
    ):
        wanted = Wish(Options(form="full", pictures=pictures), versions)
        for times in ("the first time", "again"):
            began = time.perf_counter()
            document = handout_pdf("Thirty", examples, wanted, typefaces)
            took = time.perf_counter() - began
            print(f"paper: 30 examples and their key {said}, {times}: {took:.2f} s, {len(document) // 1024} kB")
    began = time.perf_counter()
    seen = handout_pages("Thirty", examples, Wish(Options(form="full", pictures=True)), typefaces, MOST_PAGES)
    took = time.perf_counter() - began
    print(f"paper: their {seen.count} pages as pictures: {took:.2f} s, {sum(map(len, seen.pages)) // 1024} kB")


def _enumerated() -> int:
    numbers = [Fraction(n, d) + w for d in range(2, 13) for n in range(1, d) for w in range(13)]
    numbers += [Fraction(w) for w in range(1, 13)]
    return sum(1 for a in numbers for b in numbers for value in (a + b, a - b) if value is not None)


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
        ways = Ways.of({name: pick.choice(codes) for name, codes in CHOICES.items()})
        try:
            view = working_view(work_text(text, ways))
        except LimitError:
            told["past the limits"] += 1
            continue
        total = sum((sign * (w + Fraction(n, d)) for sign, w, n, d in terms), Fraction(0))
        if Fraction(view.answer.value) != total:
            told["wrong value"] += 1
        else:
            told["right" if in_form(view.answer.text, ways.answer_form) else "wrong form"] += 1
    print(f"soak: {count} random problems, each in ways drawn at random: {told}")


def other_kinds(count: int) -> Iterator[tuple[str, Fraction | None]]:
    """Random problems of the other kinds with their values, by Python's own fractions; None where it divides by
    zero.
    """
    dice = random.Random(12)

    def number() -> tuple[str, Fraction]:
        form = dice.randrange(4)
        if form == 0:
            n = dice.randint(0, 99)
            return str(n), Fraction(n)
        if form == 1:
            text = f"{dice.randint(0, 99)}.{dice.randint(0, 999)}"
            return text, Fraction(text)
        d = dice.randint(2, 24)
        n = dice.randint(1, 2 * d if form == 2 else d - 1)
        whole = 0 if form == 2 else dice.randint(1, 20)
        return f"{whole} {n}/{d}" if whole else f"{n}/{d}", whole + Fraction(n, d)

    for _ in range(count):
        numbers = [number() for _ in range(dice.choice([2, 2, 3, 4]))]
        operators = [dice.choice("+-×÷") for _ in numbers[1:]]
        text = numbers[0][0] + "".join(f" {o} {t}" for o, (t, _) in zip(operators, numbers[1:], strict=True))
        terms = [numbers[0][1]]
        by_zero = any(o == "÷" and v == 0 for o, (_, v) in zip(operators, numbers[1:], strict=True))
        for operator, (_, v) in zip(operators, numbers[1:], strict=True):
            if operator in "+-":
                terms.append(v if operator == "+" else -v)
            elif not by_zero:
                terms[-1] = terms[-1] * v if operator == "×" else terms[-1] / v
        yield text, None if by_zero else sum(terms, Fraction(0))


def soak_others(count: int) -> None:
    """As `soak`, for decimals, products, quotients and the order of operations."""
    pick = random.Random(13)
    told = dict.fromkeys(("right", "past the limits", "refused", "wrong value"), 0)
    for text, expected in other_kinds(count):
        ways = Ways.of({name: pick.choice(codes) for name, codes in CHOICES.items() if name != "decimal_mark"})
        try:
            view = working_view(work_text(text, ways))
        except LimitError:
            told["past the limits"] += 1
        except ReadError:
            told["refused" if expected is None else "wrong value"] += 1
        else:
            told["right" if Fraction(view.answer.value) == expected else "wrong value"] += 1
    print(f"soak: {count} random problems of the other kinds: {told}")


def explained(count: int) -> None:
    """A stand-in class answers problems of every kind: how often its true code is ranked first or tied."""
    dice = random.Random(14)
    problems: list[str] = [entry.example for entry in ENTRIES.values()]
    while len(problems) < 250:
        text = next(t for t, expected in other_kinds(dice.randint(1, 50)) if expected is not None and expected >= 0)
        problems.append(text)
        problems += [_mixed_problem(dice) for _ in range(3)]
    usable = [p for p in dict.fromkeys(problems) if _works(p)]
    pupils = make_class([f"pupil {i}" for i in range(count // len(usable) + 1)], 14)
    table: dict[str, list[int]] = {}
    began = time.perf_counter()
    asked = 0
    for answered in answers(pupils, usable, 14):
        verdict = diagnose(answered.problem, answered.answer)
        asked += 1
        if answered.code is None:
            assert verdict.verdict == "right", (answered, verdict)
            continue
        if verdict.verdict == "right":
            continue  # hidden here: it cannot be told at all
        best = {code for one in verdict.explanations if one.rank == 1 for code in one.codes}
        row = table.setdefault(answered.code, [0, 0])
        row[0] += answered.code in best
        row[1] += 1
    took = time.perf_counter() - began
    for code, (hits, all_of) in sorted(table.items()):
        print(f"  {code:28} {hits:6} of {all_of:6}  {100 * hits / all_of:5.1f} %")
    codes = [row for code, row in table.items() if not code.startswith("slip-")]
    for name, rows in (("misconceptions", codes), ("with slips", list(table.values()))):
        hits, total = sum(r[0] for r in rows), sum(r[1] for r in rows)
        print(f"explain: {name}: {hits} of {total} ranked first or tied, {100 * hits / total:.1f} %")
    print(
        f"explain: {asked} answers of {len(pupils)} pupils to {len(usable)} problems in {took:.1f} s, answering "
        "included"
    )


def _mixed_problem(dice: random.Random) -> str:
    def term() -> str:
        d = dice.randint(2, 12)
        return (
            f"{dice.randint(1, 9)} {dice.randint(1, d - 1)}/{d}"
            if dice.random() < 0.6
            else f"{dice.randint(1, d - 1)}/{d}"
        )

    return f"{term()} {dice.choice('+-')} {term()}"


def _works(problem: str) -> bool:
    try:
        return work_text(problem).working.value >= 0
    except CoreError:
        return False


if __name__ == "__main__" and sys.argv[1:2] == ["soak"]:
    wanted = int(sys.argv[2]) if len(sys.argv) > 2 else 100_000
    soak(wanted)
    soak_others(wanted // 2)
elif __name__ == "__main__" and sys.argv[1:2] == ["explain"]:
    explained(20_000)
elif __name__ == "__main__" and sys.argv[1:2] == ["answers"]:
    report_answers(int(sys.argv[2]) if len(sys.argv) > 2 else 20)
    report_class()
elif __name__ == "__main__" and sys.argv[1:2] == ["nasty"]:
    seed = int(time.time())
    count = int(sys.argv[2]) if len(sys.argv) > 2 else 20_000
    print(f"nasty: {count} texts, seed {seed}")
    report(count, seed)
elif __name__ == "__main__" and sys.argv[1:2] == ["kills"]:
    given = [int(one) for one in sys.argv[2:4]]
    kills(*given, *(30, 0)[len(given) :])
elif __name__ == "__main__" and sys.argv[1:2] == ["drill"]:
    from bench.drill import drill

    kinds = sys.argv[4] if len(sys.argv) > 4 else None
    counts = [int(one) for one in sys.argv[2:4]]
    many, teachers = [*counts, *(24, 200)[len(counts) :]]
    sys.exit(not drill(many, teachers, kinds))
elif __name__ == "__main__" and sys.argv[1:2] == ["stories"]:
    report_stories()
elif __name__ == "__main__" and sys.argv[1:2] == ["desk"]:
    report_desk()
elif __name__ == "__main__" and sys.argv[1:2] == ["year"]:
    from bench.year import report as report_year

    report_year(int(sys.argv[2]) if len(sys.argv) > 2 else 3)
elif __name__ == "__main__" and sys.argv[1:2] == ["restoring"]:
    from bench.restoring import report as report_restoring

    report_restoring(float(sys.argv[2]) if len(sys.argv) > 2 else 1)
elif __name__ == "__main__" and sys.argv[1:2] == ["memory"]:
    from bench.memory import report as report_memory

    report_memory(float(sys.argv[2]) if len(sys.argv) > 2 else 30)
elif __name__ == "__main__" and sys.argv[1:2] == ["walls"]:
    report_walls()
elif __name__ == "__main__" and sys.argv[1:2] == ["--against"] and sys.argv[2:]:
    sys.exit(against(sys.argv[2]))
elif __name__ == "__main__" and sys.argv[1:2] == ["load"]:
    load_teachers()
elif __name__ == "__main__":
    core()
    ladders()
    paper()
    web()
    page()
