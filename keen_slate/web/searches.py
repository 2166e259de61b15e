"""Long searches as tasks for another process: plain values in, documents of the API out. Each keeps the deadline it is run with."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import asdict
from random import Random
from typing import Any

from keen_slate.core import ladders
from keen_slate.core.building.given import read_numbers, read_wanted
from keen_slate.core.building.levels import propose as proposed
from keen_slate.core.building.search import Built
from keen_slate.core.building.search import build as build_number
from keen_slate.core.diagnosing.mend import nearest
from keen_slate.core.diagnosing.revealing import reveal
from keen_slate.core.documents.ladder import problem_document
from keen_slate.core.errors import CoreError, ReadError
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import Expr, mixed
from keen_slate.core.expressions.typeset import glyphs
from keen_slate.core.grading.rungs import RUNGS
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.ladders.climb import mark_between
from keen_slate.core.ladders.options import Option
from keen_slate.core.ladders.parallel import Parallel, parallel
from keen_slate.core.ladders.smallest import smallest
from keen_slate.core.reading.problem import labelled
from keen_slate.core.reading.reader import read
from keen_slate.core.searching.deadline import EndedEarlyError, passed
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.vocabulary import mark_of, saying
from keen_slate.core.worked import Worked, work_text
from keen_slate.export.table import judged

from .given import Given, each_worked

Chosen = Mapping[str, str]  # ways, name to code
Document = dict[str, Any]

_LIMITS = {
    "rungs": "There are not so many different problems on these rungs.",
    "answer_below": "Every answer on these rungs is too large.",
    "denominators": "These denominators make no such problem.",
    "largest_common_denominator": "Every common denominator is larger than allowed.",
    "largest_whole": "The wholes allowed are too small.",
    "avoid": "What is to be avoided comes with these rungs.",
    "targets": "Not all of these wrong answers can show on these rungs.",
}
_FEATURES = {
    "rung": "its rung",
    "denominators": "how the denominators stand to each other",
    "steps": "the number of steps",
    "carries": "the carries",
    "regroups": "the regrouping",
    "across_zeros": "an exchange across a zero",
    "simplify_by": "whether it is simplified",
    "sum_above_one": "whether the answer is above 1",
    "whole_answer": "whether the answer is a whole number",
    "large_facts": "facts beyond 12 × 12",
    "negatives": "numbers below zero",
}


# Ladders ------------------------------------------------------------------------------------------------------------


def count(wish: object, ways: Chosen) -> Document:
    """How many problems satisfy the limits of a wish."""
    spec = ladders.read_spec(wish, Ways.of(ways))
    try:
        spaces, considered = ladders.counts_of(spec)
    except EndedEarlyError:
        spaces, considered = {}, 0
    return {
        "rungs": dict(spec.rungs),
        "counts": {rung: space.count for rung, space in spaces.items()},
        "considered": considered,
        "exact": all(space.exact for space in spaces.values()),
        "sampled": any(space.sampled for space in spaces.values()),
        "ended_early": len(spaces) < len(spec.rungs),
    }


def ladder(wish: object, ways: Chosen, kept: Sequence[str | None], shunned: Sequence[str]) -> Document:
    """The ladder that is wished for, or which limit rules it out and the nearest that allows it."""
    spec = ladders.read_spec(wish, Ways.of(ways))
    in_place = {i: read(problem).expr for i, problem in enumerate(kept) if problem and i < len(spec.slots)}
    made = ladders.build_or_why(spec, in_place, [read(problem).expr for problem in shunned])
    if isinstance(made, ladders.Impossible):
        spaces, considered = ladders.counts_of(spec)
        empty: Document = {
            "problems": [], "reveals": [], "not_separated": [], "exact": True, "sampled": False,
            "ended_early": made.ended_early, "not_revealed": [],
        }  # fmt: skip
        why = {
            "limit": made.limit, "said": _LIMITS[made.limit], "nearest": made.nearest, "ended_early": made.ended_early,
        }  # fmt: skip
        counts = {rung: space.count for rung, space in spaces.items()}
        return empty | {"counts": counts, "considered": considered, "impossible": why}
    document = ladders.ladder_document(made, spec)
    return document | {"problems": _problems(made.problems, spec.label, spec.ways), "impossible": None}


def smallest_set(codes: Sequence[str], ways: Chosen) -> Document:
    """The fewest problems that reveal and separate some misconceptions."""
    for code in codes:
        if code not in ENTRIES:
            raise ReadError(f"There is no misconception {code!r}.", 0, 0, "Take one of the catalogue.")
    found = smallest(tuple(dict.fromkeys(codes)), Ways.of(ways))
    return {
        "problems": _problems(found.problems, None, Ways.of(ways)),
        "proven": found.proven,
        "not_revealed": list(found.not_revealed),
        "not_separated": [list(pair) for pair in found.not_separated],
        "candidates": found.candidates,
        "ended_early": found.ended_early,
    }


def _problems(found: tuple[Option, ...], label: str | None, ways: Ways) -> list[Document]:
    say = saying(ways)
    shown = []
    before: str | None = None
    for one in found:
        document = problem_document(one, label)
        rung = one.features.rung
        shown.append({
            "text": document["text"], "glyphs": glyphs(one.expr), "rung": rung or "", "reveals": document["reveals"],
            "harder": say(RUNGS[rung]) if rung and rung != before else None, "mark": mark_between(before, rung),
        })  # fmt: skip
        before = rung
    return shown


# One like this, versions ----------------------------------------------------------------------------------------------


def one_like_this(example: Given, seed: int, used: frozenset[str]) -> Document:
    """A problem like an example that is not *used* yet."""
    worked = example.worked()
    return _parallel_out(parallel(worked, seed, used), saying(worked.working.ways))


def _parallel_out(found: Parallel | None, say: Any) -> Document:
    if found is None:
        return {"text": None, "glyphs": [], "different": []}
    problem = found.worked.working.problem
    names = [say(ENTRIES[name].name) if name in ENTRIES else _FEATURES[name] for name in found.different]
    return {
        "text": say(labelled(text(problem.expr), problem.label)),
        "glyphs": glyphs(problem.expr),
        "different": names,
    }


def versions(examples: Sequence[Given], numbers: Sequence[int], seed: int) -> list[list[str]]:
    """For each version by its number (from 1) a problem like each example; an example's own where none can be made in time."""
    used = {one.source for one in examples}
    return [[_other(one, f"{seed} {number} {one.position}", used) for one in examples] for number in numbers]


def _other(one: Given, seed: str, used: set[str]) -> str:
    if passed():
        return one.source
    try:
        other = other_problem(one.worked(), seed, used)
    except CoreError:
        return one.source
    used.add(other)
    return other


def other_problem(worked: Worked, seed: str, used: Collection[str]) -> str:
    """The text of a problem like the one *worked* that is not *used* yet, or its own where none can be made."""
    found = parallel(worked, Random(seed).randrange(2**30), frozenset(used))
    return (found.worked if found else worked).working.problem.text


# What is revealed -----------------------------------------------------------------------------------------------------


def reveals(title: str, examples: list[Given], ways: Chosen) -> Document:
    """What the examples of a set reveal together; those that cannot be worked are left out."""
    worked = [one for _, one in each_worked(examples)]
    say = saying(Ways.of(ways))
    result = reveal(worked)
    return {
        "title": title,
        "problems": [glyphs(one.working.problem.expr) for one in worked],
        "rows": [
            {"code": row.code, "name": say(ENTRIES[row.code].name), "statuses": list(row.statuses)}
            for row in result.rows
        ],
        "alike": [{"names": [say(ENTRIES[code].name) for code in pair]} for pair in result.alike],
        "add": [_problem(one, None) for one in result.add],
        "caught": result.caught,
        "wrong": result.wrong,
        "teaches_estimation": result.teaches_estimation,
    }


def mend(source: str, ways: Chosen, code: str, apart_from: str | None) -> Document:
    """The nearest problem that shows a misconception, or tells two apart."""
    chosen = Ways.of(ways)
    worked = work_text(source, chosen, mark_of(chosen))
    return _problem(nearest(worked, code, apart_from), worked.working.problem.label)


def _problem(worked: Worked | None, label: str | None) -> Document:
    if worked is None:
        return {"text": None, "glyphs": []}
    expr = worked.working.problem.expr
    return {"text": labelled(text(expr), label), "glyphs": glyphs(expr)}


def judge(brought: str, examples: list[Given], ways: Chosen) -> list[Document]:
    """Lines of problems, judged one by one against the *examples* that are there already."""
    known = [worked.working.problem.text for _, worked in each_worked(examples)]
    return [asdict(line) for line in judged(brought, known, Ways.of(ways))]


# Number building ------------------------------------------------------------------------------------------------------


def build(numbers: str, wanted: str, ways: Chosen) -> Document:
    """All shortest ways from the numbers to the number wanted, or to the nearest that can be built."""
    chosen = Ways.of(ways)
    given, goal = read_numbers(numbers, mark_of(chosen)), read_wanted(wanted, mark_of(chosen))
    return _built(build_number(given, goal), chosen)


def propose(level: str, seed: int, ways: Chosen) -> Document:
    """Numbers and a number to build, of a level."""
    return _built(proposed(level, seed), Ways.of(ways))


def _built(built: Built, ways: Ways) -> Document:
    say = saying(ways)
    apart = "; " if ways.decimal_mark == "comma" else ", "
    return {
        "numbers": say(apart.join(text(n) for n in built.numbers)),
        "wanted": say(text(built.wanted)),
        "number_glyphs": [glyphs(n) for n in built.numbers],
        "wanted_glyphs": glyphs(built.wanted),
        "exact": built.exact,
        "nearest_glyphs": glyphs(mixed(built.nearest)),
        "ways": [{"text": say(text(way)), "glyphs": glyphs(way), "lines": _lines(way, ways)} for way in built.ways],
        "ended_early": built.ended_early,
    }


def _lines(way: Expr, ways: Ways) -> list[Any]:
    """The lines of a way, one operation each, worked and proven as any other problem."""
    if read(text(way)).kind == "simplify":
        return []
    return [glyphs(step.after) for step in work_text(text(way), ways, mark=".").working.steps]
