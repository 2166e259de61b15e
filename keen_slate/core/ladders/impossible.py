"""Where no ladder fulfils a wish: which of its limits rules it out, and the nearest that allows one."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass, replace
from fractions import Fraction
from itertools import combinations
from math import lcm
from random import Random
from typing import Any, Literal

from ..expressions.tree import Expr
from ..searching.deadline import EndedEarlyError, look, passed
from .build import Ladder, NoLadderError, build
from .options import reveals
from .spaces import space_of
from .spec import LARGEST_DENOMINATOR, MOST_PLACES, MOST_WHOLE, OPERATIONS, Spec, TermLimits

_MOST_TRIED = 24  # steps of one limit
_DRAWN = 400


@dataclass(frozen=True, slots=True)
class Impossible:
    """The *limit* (a key of the wish) and the *nearest* value of it, all others staying, that allows a ladder.

    *nearest* is None where no change of one limit alone allows one, or where the deadline came before it was found.
    *of* says what was wished for.
    """

    limit: str
    nearest: Any
    ended_early: bool = False
    of: Literal["problems", "stories"] = "problems"

    @property
    def said(self) -> str:
        """What the limit rules out, in a sentence."""
        return _SAID[self.of][self.limit]


_OF_PROBLEMS = {
    "rungs": "There are not so many different problems on these rungs.",
    "answer_below": "Every answer on these rungs is too large.",
    "denominators": "These denominators make no such problem.",
    "largest_common_denominator": "Every common denominator is larger than allowed.",
    "largest_whole": "The wholes allowed are too small.",
    "only": "There are not so many problems of this shape on these rungs.",
    "lowest_terms": "The problems of these rungs need terms that can be simplified.",
    "operations": "The problems of these rungs ask for other operations.",
    "places": "There are not so many different decimals with these places.",
    "avoid": "What is to be avoided comes with these rungs.",
    "targets": "Not all of these wrong answers can show on these rungs.",
}
_OF_STORIES = _OF_PROBLEMS | {
    "scenario": "Nothing in this scenario has such sizes.",
    "situations": "These situations are not told on these rungs.",
    "rungs": "There are not so many different stories on these rungs.",
}
_SAID = {"problems": _OF_PROBLEMS, "stories": _OF_STORIES}


def build_or_why(
    spec: Spec, kept: Mapping[int, Expr] | None = None, shunned: Collection[Expr] = ()
) -> Ladder | Impossible:
    """The ladder that *spec* wishes for (see `build`), or why there is none."""
    try:
        return build(spec, kept, shunned)
    except NoLadderError as error:
        return why_impossible(spec, error)


def why_impossible(spec: Spec, error: NoLadderError) -> Impossible:
    """Which limit rules the ladder out: the first whose change alone allows one, the limits on numbers before the wish
    itself.
    """
    if not error.missing or _ever(spec, error.missing):
        for limit, nearest, changed in _relaxed(spec):
            if passed():
                return Impossible(blamed(error), None, ended_early=True)
            if _allows(changed):
                return Impossible(limit, nearest)
    try:
        return _less_wished(spec, error)
    except EndedEarlyError:
        return Impossible(blamed(error), None, ended_early=True)


def blamed(error: NoLadderError) -> str:
    """The part of the wish that cannot be had as it stands, before it is known which limit would have to give way."""
    return "targets" if error.missing else "rungs"


def _ever(spec: Spec, missing: tuple[str, ...]) -> bool:
    """Whether problems of these rungs, drawn without limits, ever reveal all that is *missing*; if not, no limit is to
    blame.
    """
    left = set(missing)
    for rung in spec.rungs:
        dice = Random(rung)
        space = space_of(rung, TermLimits(denominators=tuple(range(2, 13))))
        for _ in range(_DRAWN):
            if passed():
                return False
            seen = reveals(space.draw(dice), spec.ways, left, rung) if space.count else None
            left -= set(seen[0]) if seen else set()
    return not left


def _relaxed(spec: Spec) -> Iterator[tuple[str, Any, Spec]]:
    """The wish with one limit wider, the smallest changes of each limit first."""
    limits = spec.limits
    if limits.only is not None:
        yield "only", None, spec.within(only=None)
    if limits.below is not None:
        for n in range(int(limits.below) + 1, int(limits.below) + 1 + _MOST_TRIED):
            yield "answer_below", n, spec.within(below=Fraction(n))
    if limits.largest_common is not None:
        for common in _common_denominators(limits):
            yield "largest_common_denominator", common, spec.within(largest_common=common)
    for whole in range(limits.largest_whole + 1, min(MOST_WHOLE, limits.largest_whole + _MOST_TRIED) + 1):
        yield "largest_whole", whole, spec.within(largest_whole=whole)
    if limits.lowest_terms:
        yield "lowest_terms", False, spec.within(lowest_terms=False)
    for more in _more_operations(limits):
        yield "operations", more, spec.within(operations=frozenset(more))
    for count in range(1, MOST_PLACES + 1):
        if count not in limits.places:
            wider_places = tuple(sorted((*limits.places, count)))
            yield "places", list(wider_places), spec.within(places=wider_places)
    for name in sorted(limits.avoid):
        yield "avoid", sorted(limits.avoid - {name}), spec.within(avoid=limits.avoid - {name})
    for added in _more_denominators(limits):
        wider = tuple(sorted((*limits.denominators, *added)))
        yield "denominators", list(wider), spec.within(denominators=wider)


def _common_denominators(limits: TermLimits) -> list[int]:
    met = {lcm(*chosen) for size in (1, 2, 3) for chosen in combinations(limits.denominators, size)}
    return sorted([common for common in met if common > (limits.largest_common or 0)])[:_MOST_TRIED]


def _more_denominators(limits: TermLimits) -> Iterator[tuple[int, ...]]:
    others = [d for d in range(2, LARGEST_DENOMINATOR + 1) if d not in limits.denominators][:_MOST_TRIED]
    yield from [(d,) for d in others]
    yield from combinations(others[:8], 2)


def _more_operations(limits: TermLimits) -> Iterator[list[str]]:
    left = [operation for operation in OPERATIONS if operation not in limits.operations]
    for size in range(1, len(left) + 1):
        for added in combinations(left, size):
            yield [operation for operation in OPERATIONS if operation in limits.operations or operation in added]


def _allows(spec: Spec) -> bool:
    try:
        return not build(spec).ended_early
    except (NoLadderError, EndedEarlyError):
        return False


def _less_wished(spec: Spec, error: NoLadderError) -> Impossible:
    """No wider limit helps: fewer targets, or fewer problems."""
    if error.missing:
        left = tuple([code for code in spec.targets if code not in error.missing])
        while left and not _allows(replace(spec, targets=left)):
            look()
            left = left[:-1]
        if left or _allows(replace(spec, targets=())):
            return Impossible("targets", list(left))
    rungs = dict(spec.rungs)
    while rungs:
        look()
        try:
            build(replace(spec, rungs=rungs, targets=()))
        except NoLadderError as found:
            rung = found.rung or next(iter(rungs))
            rungs[rung] -= 1
            if not rungs[rung]:
                del rungs[rung]
            continue
        return Impossible("rungs", rungs)
    return Impossible("rungs", None)
