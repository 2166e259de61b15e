"""Long searches as tasks for another process: plain values in, documents of the API out.

Each keeps the deadline it is run with.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from random import Random

from keen_slate.core import ladders
from keen_slate.core.building.given import read_numbers, read_wanted
from keen_slate.core.building.levels import propose as proposed
from keen_slate.core.building.search import Built
from keen_slate.core.building.search import build as build_number
from keen_slate.core.diagnosing.mend import nearest
from keen_slate.core.diagnosing.revealing import reveal
from keen_slate.core.documents.nearest import NearestView, nearest_view
from keen_slate.core.documents.working import problem_text
from keen_slate.core.errors import CoreError, ReadError
from keen_slate.core.expressions.tree import Expr, mixed
from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.grading.rungs import RUNGS
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.ladders.climb import jump_between
from keen_slate.core.ladders.options import Option
from keen_slate.core.ladders.parallel import Parallel, parallel
from keen_slate.core.ladders.smallest import smallest
from keen_slate.core.ladders.why import why
from keen_slate.core.reading.problem import labelled, problem_of
from keen_slate.core.reading.reader import read
from keen_slate.core.searching.deadline import EndedEarlyError, passed
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import mark_of, voice_of
from keen_slate.core.worked import Worked, work_out, work_text
from keen_slate.export.table import judged

from .given import GivenExample, each_worked
from .schemas.building import BuiltOut, WayOut
from .schemas.explaining import AlikePair, RevealRow, RevealsOut
from .schemas.files import BroughtLine
from .schemas.ladders import CountsOut, ImpossibleOut, LadderOut, LadderProblem, ParallelOut, SmallestOut

Chosen = Mapping[str, str]  # ways, name to code

# Ladders ------------------------------------------------------------------------------------------------------------


def count(wish: object, ways: Chosen) -> CountsOut:
    """How many problems satisfy the limits of a wish."""
    spec = ladders.read_spec(wish, Ways.of(ways))
    try:
        spaces, considered = ladders.counts_of(spec)
    except EndedEarlyError:
        spaces, considered = {}, 0
    return CountsOut(
        rungs=dict(spec.rungs),
        counts={rung: space.count for rung, space in spaces.items()},
        considered=considered,
        exact=all(space.exact for space in spaces.values()),
        sampled=any(space.sampled for space in spaces.values()),
        ended_early=len(spaces) < len(spec.rungs),
    )


def ladder(wish: object, ways: Chosen, kept: Sequence[str | None], shunned: Sequence[str]) -> LadderOut:
    """The ladder that is wished for, or which limit rules it out and the nearest that allows it."""
    spec = ladders.read_spec(wish, Ways.of(ways))
    mark = mark_of(spec.ways)
    in_place = {i: read(problem, mark).expr for i, problem in enumerate(kept) if problem and i < len(spec.slots)}
    made = ladders.build_or_why(spec, in_place, [read(problem, mark).expr for problem in shunned])
    if isinstance(made, ladders.Impossible):
        return _no_ladder(made, spec)
    return LadderOut(
        problems=_problems(made.problems, spec.label, spec.ways, spec.targets),
        reveals=list(made.reveals),
        not_separated=[list(pair) for pair in made.not_separated],
        counts=dict(made.counts),
        considered=made.considered,
        exact=made.exact,
        sampled=made.sampled,
        ended_early=made.ended_early,
        not_revealed=list(made.not_revealed),
        impossible=None,
    )


def problems_for(wishes: Sequence[object], ways: Chosen) -> list[LadderProblem]:
    """The problems of the ladders that are wished for, one behind the other; none where one of them cannot be had."""
    ladders_made = [ladder(wish, ways, (), ()) for wish in wishes]
    return (
        [] if any(made.impossible for made in ladders_made) else [one for made in ladders_made for one in made.problems]
    )


def _no_ladder(why: ladders.Impossible, spec: ladders.Spec) -> LadderOut:
    spaces, considered = ladders.counts_of(spec)
    return LadderOut(
        problems=[],
        reveals=[],
        not_separated=[],
        counts={rung: space.count for rung, space in spaces.items()},
        considered=considered,
        exact=True,
        sampled=False,
        ended_early=why.ended_early,
        not_revealed=[],
        impossible=ImpossibleOut(limit=why.limit, said=why.said, nearest=why.nearest, ended_early=why.ended_early),
    )


def smallest_set(codes: Sequence[str], ways: Chosen) -> SmallestOut:
    """The fewest problems that reveal and separate some misconceptions."""
    for code in codes:
        if code not in ENTRIES:
            raise ReadError(f"There is no misconception {code!r}.", 0, 0, "Take one of the catalogue.")
    found = smallest(tuple(dict.fromkeys(codes)), Ways.of(ways))
    return SmallestOut(
        problems=_problems(found.problems, None, Ways.of(ways), codes),
        proven=found.proven,
        not_revealed=list(found.not_revealed),
        not_separated=[list(pair) for pair in found.not_separated],
        candidates=found.candidates,
        ended_early=found.ended_early,
    )


def _problems(
    found: tuple[Option, ...], label: str | None, ways: Ways, targets: Sequence[str] = ()
) -> list[LadderProblem]:
    voice = voice_of(ways)
    shown = []
    before: Option | None = None
    for one in found:
        rung, last = one.rung, before.rung if before else None
        shown.append(
            LadderProblem(
                text=labelled(voice.text(one.expr), label),
                target=one.target,
                glyphs=voice.glyphs(one.expr),
                rung=rung or "",
                harder=voice.said(RUNGS[rung]) if rung and rung != last else None,
                mark=jump_between(before.footing if before else None, one.footing),
                why=voice.said(why(one, before, targets)),
                reveals=list(one.answers),
            )
        )
        before = one
    return shown


# One like this, versions ----------------------------------------------------------------------------------------------


def one_like_this(example: GivenExample, seed: int, used: frozenset[str]) -> ParallelOut:
    """A problem like an example that is not *used* yet."""
    worked = example.worked()
    return _parallel_out(parallel(worked, seed, used), worked.working.ways)


def _parallel_out(found: Parallel | None, ways: Ways) -> ParallelOut:
    if found is None:
        return ParallelOut(text=None, glyphs=[], different=[])
    voice = voice_of(ways)
    working = found.worked.working
    names = [voice.said(name) for name in found.said]
    told = problem_text(working, voice)
    if working.parts:  # a story is taken with its calculation, and shown as it is told
        return ParallelOut(text=working.problem.text, glyphs=[Glyph("words", told)], different=names)
    return ParallelOut(text=told, glyphs=voice.glyphs(working.problem.expr), different=names)


def versions(examples: Sequence[GivenExample], numbers: Sequence[int], seed: int) -> list[list[str]]:
    """For each version by its number (from 1) a problem like each example; an example's own where none can be made in
    time.
    """
    used = {one.source for one in examples}
    return [[_other(one, f"{seed} {number} {one.position}", used) for one in examples] for number in numbers]


def _other(one: GivenExample, seed: str, used: set[str]) -> str:
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


def reveals(title: str, examples: list[GivenExample], ways: Chosen) -> RevealsOut:
    """What the examples of a set reveal together; those that cannot be worked are left out."""
    worked = [one for _, one in each_worked(examples)]
    voice = voice_of(Ways.of(ways))
    result = reveal(worked)

    def name(code: str) -> str:
        return voice.said(ENTRIES[code].name)

    return RevealsOut(
        title=title,
        problems=[voice.glyphs(one.working.problem.expr) for one in worked],
        rows=[
            RevealRow(code=row.code, name=name(row.code), statuses=list(row.statuses), holders=None)
            for row in result.rows
        ],
        alike=[AlikePair(names=[name(code) for code in pair]) for pair in result.alike],
        add=[nearest_view(one) for one in result.add],
        caught=result.caught,
        wrong=result.wrong,
        teaches_estimation=result.teaches_estimation,
        not_shown=[],
    )


def mend(source: str, ways: Chosen, code: str, apart_from: str | None) -> NearestView:
    """The nearest problem that shows a misconception, or tells two apart."""
    chosen = Ways.of(ways)
    worked = work_text(source, chosen, mark_of(chosen))
    return nearest_view(nearest(worked, code, apart_from), worked.working.problem.label)


def judge(brought: str, examples: list[GivenExample], ways: Chosen) -> list[BroughtLine]:
    """Lines of problems, judged one by one against the *examples* that are there already."""
    known = [worked.working.problem.text for _, worked in each_worked(examples)]
    return [
        BroughtLine(number=line.number, text=line.text, verdict=line.verdict, why=line.why)
        for line in judged(brought, known, Ways.of(ways))
    ]


# Number building ------------------------------------------------------------------------------------------------------


def build(numbers: str, wanted: str, ways: Chosen) -> BuiltOut:
    """All shortest ways from the numbers to the number wanted, or to the nearest that can be built."""
    chosen = Ways.of(ways)
    given, goal = read_numbers(numbers, mark_of(chosen)), read_wanted(wanted, mark_of(chosen))
    return _built(build_number(given, goal), chosen)


def propose(level: str, seed: int, ways: Chosen) -> BuiltOut:
    """Numbers and a number to build, of a level."""
    return _built(proposed(level, seed), Ways.of(ways))


def _built(built: Built, ways: Ways) -> BuiltOut:
    voice = voice_of(ways)
    apart = "; " if voice.mark == "," else ", "
    return BuiltOut(
        numbers=apart.join(voice.text(n) for n in built.numbers),
        wanted=voice.text(built.wanted),
        number_glyphs=[voice.glyphs(n) for n in built.numbers],
        wanted_glyphs=voice.glyphs(built.wanted),
        exact=built.exact,
        nearest_glyphs=voice.glyphs(mixed(built.nearest)),
        ways=[WayOut(text=voice.text(way), glyphs=voice.glyphs(way), lines=_lines(way, ways)) for way in built.ways],
        ended_early=built.ended_early,
    )


def _lines(way: Expr, ways: Ways) -> list[list[Glyph]]:
    """The lines of a way, one operation each, worked and proven as any other problem."""
    problem = problem_of(way)
    if problem.kind == "simplify":
        return []
    return [voice_of(ways).glyphs(step.after) for step in work_out(problem, ways).working.steps]
