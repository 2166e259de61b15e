"""Ladders built to order, smallest revealing sets, climbs, one like this, versions; sets as a whole."""

from __future__ import annotations

from random import Random
from typing import Any
from uuid import UUID

from apiflask import APIBlueprint

from keen_slate.core import ladders
from keen_slate.core.catalogue import catalogue
from keen_slate.core.document import Worked
from keen_slate.core.errors import CoreError, ReadError
from keen_slate.core.ladders.climb import climb, mark_between
from keen_slate.core.ladders.document import problem_document
from keen_slate.core.ladders.options import Option
from keen_slate.core.ladders.parallel import Parallel, parallel
from keen_slate.core.ladders.smallest import smallest
from keen_slate.core.ladders.spec import AVOIDED, DENOMINATORS
from keen_slate.core.misconceptions.registry import ENTRIES
from keen_slate.core.numbers import Expr
from keen_slate.core.reading import labelled, read
from keen_slate.core.rungs import RUNGS
from keen_slate.core.standards import serving
from keen_slate.core.vocabulary import saying
from keen_slate.core.ways import Ways
from keen_slate.core.wording import glyphs, text
from keen_slate.store.models import Example, ExampleSet
from keen_slate.store.shelf import Shelf, fields_of

from . import views
from .ladder_schemas import (
    ChoicesOut,
    ClimbOut,
    CopyIn,
    CountsOut,
    EmptiedOut,
    LadderIn,
    LadderOut,
    ParallelIn,
    ParallelOut,
    PlaceIn,
    SmallestIn,
    SmallestOut,
    StandardsOut,
    VersionsIn,
    VersionsOut,
    WishIn,
)
from .schemas import SetOut, SetSummary
from .session import shelf
from .sets import set_view

blueprint = APIBlueprint("ladders", __name__, url_prefix="/api")
_LIMITS = {
    "rungs": "There are not so many different problems on these rungs.",
    "answer_below": "Every answer on these rungs is too large.",
    "denominators": "These denominators make no such problem.",
    "largest_common_denominator": "Every common denominator is larger than allowed.",
    "largest_whole": "The wholes allowed are too small.",
    "avoid": "What is to be avoided comes with these rungs.",
    "targets": "Not all of these wrong answers can show on these rungs.",
}


# Built to order -----------------------------------------------------------------------------------------------------


@blueprint.get("/ladders")
@blueprint.output(ChoicesOut)
def choices() -> dict[str, Any]:
    """What a ladder can be made of: rungs, things to avoid, misconceptions to reveal."""
    with shelf() as mine:
        say = saying(Ways.of(mine.house_ways()))
    shown = [one for one in catalogue() if not one.entry.on_form]
    return {
        "rungs": [{"code": rung, "name": say(name)} for rung, name in RUNGS.items()],
        "avoid": [{"code": code, "name": say(name)} for code, name in AVOIDED.items()],
        "targets": [{"code": one.entry.code, "name": say(one.entry.name), "family": say(one.family)} for one in shown],
        "denominators": list(DENOMINATORS),
    }


@blueprint.post("/ladders/count")
@blueprint.input(WishIn)
@blueprint.output(CountsOut)
def count(json_data: WishIn) -> dict[str, Any]:
    """How many problems satisfy the limits of a wish."""
    spec = ladders.read_spec(json_data.spec, _ways(json_data.set_id))
    spaces, considered = ladders.counts_of(spec)
    return {
        "rungs": dict(spec.rungs),
        "counts": {rung: space.count for rung, space in spaces.items()},
        "considered": considered,
        "exact": all(space.exact for space in spaces.values()),
        "sampled": any(space.sampled for space in spaces.values()),
    }


@blueprint.post("/ladders")
@blueprint.input(LadderIn)
@blueprint.output(LadderOut)
def build(json_data: LadderIn) -> dict[str, Any]:
    """The ladder that is wished for, or which limit rules it out and the nearest that allows it."""
    spec = ladders.read_spec(json_data.spec, _ways(json_data.set_id))
    kept = {i: _expr(problem) for i, problem in enumerate(json_data.kept) if problem and i < len(spec.slots)}
    shunned = [_expr(problem) for problem in json_data.shunned]
    made = ladders.build_or_why(spec, kept, shunned)
    if isinstance(made, ladders.Impossible):
        spaces, considered = ladders.counts_of(spec)
        empty: dict[str, Any] = {"problems": [], "reveals": [], "not_separated": [], "exact": True, "sampled": False}
        why = {"limit": made.limit, "said": _LIMITS[made.limit], "nearest": made.nearest}
        counts = {rung: space.count for rung, space in spaces.items()}
        return empty | {"counts": counts, "considered": considered, "impossible": why}
    document = ladders.ladder_document(made, spec)
    return document | {"problems": _problems(made.problems, spec.label, spec.ways), "impossible": None}


@blueprint.post("/ladders/smallest")
@blueprint.input(SmallestIn)
@blueprint.output(SmallestOut)
def smallest_set(json_data: SmallestIn) -> dict[str, Any]:
    """The fewest problems that reveal and separate some misconceptions."""
    for code in json_data.codes:
        if code not in ENTRIES:
            raise ReadError(f"There is no misconception {code!r}.", 0, 0, "Take one of the catalogue.")
    ways = _ways(json_data.set_id)
    found = smallest(tuple(dict.fromkeys(json_data.codes)), ways)
    return {
        "problems": _problems(found.problems, None, ways),
        "proven": found.proven,
        "not_revealed": list(found.not_revealed),
        "not_separated": [list(pair) for pair in found.not_separated],
        "candidates": found.candidates,
    }


def _ways(set_id: UUID | None) -> Ways:
    with shelf() as mine:
        return Ways.of({**mine.house_ways(), **(mine.one_set(set_id).ways if set_id else {})})


def _expr(problem: str) -> Expr:
    return read(problem).expr


def _problems(found: tuple[Option, ...], label: str | None, ways: Ways) -> list[dict[str, Any]]:
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


# Sets as a whole ----------------------------------------------------------------------------------------------------


@blueprint.get("/sets/<uuid:set_id>/climb")
@blueprint.output(ClimbOut)
def get_climb(set_id: UUID) -> dict[str, Any]:
    """The order of a set that climbs with the fewest changes; nothing is changed by asking."""
    with shelf() as mine:
        found = mine.one_set(set_id)
        summaries = views.summaries_of(found, mine.house_ways())
        proposed = climb([summary["rung"] for summary in summaries])
        ids = [example.id for example in found.examples]
        return {"order": [ids[at] for at in proposed.order], "moves": [ids[at] for at in proposed.moves]}


@blueprint.post("/sets/<uuid:set_id>/examples/<uuid:example_id>/parallel")
@blueprint.input(ParallelIn)
@blueprint.output(ParallelOut)
def one_like_this(set_id: UUID, example_id: UUID, json_data: ParallelIn) -> dict[str, Any]:
    """A problem like an example; nothing is changed by asking."""
    with shelf() as mine:
        example = mine.example(set_id, example_id)
        used = frozenset(other.source for other in example.example_set.examples)
        worked = views.worked(example, mine.house_ways())
        found = parallel(worked, json_data.seed, used)
        return _parallel_out(found, saying(worked.working.ways))


def _parallel_out(found: Parallel | None, say: Any) -> dict[str, Any]:
    if found is None:
        return {"text": None, "glyphs": [], "different": []}
    problem = found.worked.working.problem
    names = [say(ENTRIES[name].name) if name in ENTRIES else _FEATURES[name] for name in found.different]
    return {
        "text": say(labelled(text(problem.expr), problem.label)),
        "glyphs": glyphs(problem.expr),
        "different": names,
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


@blueprint.post("/sets/<uuid:set_id>/versions")
@blueprint.input(VersionsIn)
@blueprint.output(VersionsOut, status_code=201)
def add_versions(set_id: UUID, json_data: VersionsIn) -> dict[str, Any]:
    """Further versions of a set (B, C, ...): new sets with a problem like each of its examples."""
    with shelf() as mine:
        found = mine.one_set(set_id)
        house = mine.house_ways()
        used = {example.source for example in found.examples}
        made = [_version(mine, found, used, number, json_data.seed) for number in range(1, json_data.count + 1)]
        return {"sets": [views.set_summary(one, house) for one in made]}


def _version(mine: Shelf, found: ExampleSet, used: set[str], number: int, seed: int) -> ExampleSet:
    fields = []
    for example in found.examples:
        other = _other(example, mine.house_ways(), f"{seed} {number} {example.position}", used)
        used.add(other)
        fields.append(fields_of(example) | {"source": other, "words": {}})
    title = f"{found.title[:114]} ({chr(ord('A') + number)})"
    return mine.add_set(title, fields, found)


def _other(example: Example, house: dict[str, str], seed: str, used: set[str]) -> str:
    try:
        return other_problem(views.worked(example, house), seed, used)
    except CoreError:
        return example.source


def other_problem(worked: Worked, seed: str, used: set[str]) -> str:
    """The text of a problem like the one *worked* that is not *used* yet, or its own where none can be made."""
    found = parallel(worked, Random(seed).randrange(2**30), frozenset(used))
    return (found.worked if found else worked).working.problem.text


@blueprint.post("/sets/<uuid:set_id>/copies")
@blueprint.input(CopyIn)
@blueprint.output(SetOut, status_code=201)
def copy_set(set_id: UUID, json_data: CopyIn) -> dict[str, Any]:
    """A copy of a set with all that it has."""
    with shelf() as mine:
        found = mine.one_set(set_id)
        return set_view(mine, mine.add_set(json_data.title, map(fields_of, found.examples), found))


@blueprint.put("/sets/<uuid:set_id>/place")
@blueprint.input(PlaceIn)
@blueprint.output(SetSummary)
def put_place(set_id: UUID, json_data: PlaceIn) -> dict[str, Any]:
    """Lay a set on the shelf, in the archive or in the bin."""
    with shelf() as mine:
        return views.set_summary(mine.put(set_id, json_data.place), mine.house_ways())


@blueprint.delete("/sets/bin")
@blueprint.output(EmptiedOut)
def empty_bin() -> dict[str, Any]:
    """Take every set in the bin away for good."""
    with shelf() as mine:
        return {"gone": mine.empty_bin()}


@blueprint.get("/sets/<uuid:set_id>/standards")
@blueprint.output(StandardsOut)
def standards(set_id: UUID) -> dict[str, Any]:
    """Published standards, those first that the rungs of the set serve."""
    with shelf() as mine:
        summaries = views.summaries_of(mine.one_set(set_id), mine.house_ways())
    rungs = {summary["rung"] for summary in summaries if summary["rung"]}
    return {
        "standards": [
            {"code": one.code, "words": one.words, "serves": bool(rungs & set(one.rungs))} for one in serving(rungs)
        ]
    }
