"""The smallest revealing set: the fewest problems that reveal given misconceptions and tell all of them apart."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import product
from random import Random

from ..expressions.tree import Expr, Frac, Operator, Product, Whole, make
from ..judging.misconceptions.registry import ENTRIES
from ..reading.kinds import Kind
from ..reading.reader import read
from ..searching.cover import fewest
from ..searching.deadline import look, passed
from ..ways.settings import Ways
from . import decimals, fractions, order
from .options import Goals, Option, awkward, copy_key, option, reveals
from .spaces import space_of
from .spec import TermLimits

# Fewer denominators than a ladder has: they hold every relation, and all pairs can be gone through at once.
DENOMINATORS = (2, 3, 4, 6, 8, 9)
_WHOLE: tuple[Kind, ...] = ("add-subtract",)  # kinds whose problems of two terms are all gone through
_DRAWN = 400  # problems of a rung that is too large to go through
_RUNGS: dict[Kind, tuple[str, ...]] = {
    "add-subtract": fractions.RUNGS,
    "decimal": decimals.RUNGS,
    "order": order.RUNGS,
}


@dataclass(frozen=True, slots=True)
class Smallest:
    """The problems, whether no fewer would do (*proven*), and what stays: codes *not_revealed*, pairs *not_separated*.

    *candidates* is how many problems were worked to find them; *ended_early* says that the deadline kept it from more.
    """

    problems: tuple[Option, ...]
    proven: bool
    not_revealed: tuple[str, ...]
    not_separated: tuple[tuple[str, str], ...]
    candidates: int
    ended_early: bool


def smallest(codes: Sequence[str], ways: Ways | None = None, limits: TermLimits | None = None) -> Smallest:
    """The fewest problems that reveal each of *codes* and separate all pairs of them.

    It is proven that no fewer do (of problems of two terms within *limits*) where as many are needed even if one
    problem of each kind that was not gone through whole could show all that shows in its kind.
    """
    ways = ways or Ways()
    goals = Goals(codes, True)
    best: dict[int, Expr] = {}
    worked = 0
    for expr in _candidates(goals.codes, limits or TermLimits(denominators=DENOMINATORS, largest_whole=5)):
        if passed() and best:
            break
        look()
        worked += 1
        seen = reveals(expr, ways, goals.codes)
        if seen is not None and (bits := goals.mask(*seen)):
            best.setdefault(bits, expr)
    masks = sorted(best, key=int.bit_count, reverse=True)
    cover = fewest(masks, goals.all)
    chosen = [option(best[masks[i]], ways) for i in cover.chosen]
    problems = sorted([one for one in chosen if one is not None], key=lambda one: (one.rung, awkward(one)))
    ended = passed()
    done = 0
    for one in problems:
        done |= goals.mask(one.answers, one.right)
    least = fewest([*masks, *_at_best(goals)], goals.all & done)
    return Smallest(
        tuple(problems),
        not ended and least.fewest and len(least.chosen) == len(problems),
        tuple(goals.codes_of(goals.must & ~done)),
        tuple(goals.pairs_of(goals.all & ~done)),
        worked,
        ended,
    )


def _kinds_of(codes: Sequence[str]) -> set[Kind]:
    """The kinds of problem in which *codes* are looked for: a code of several kinds in those that others need
    anyway.
    """
    single: set[Kind] = {ENTRIES[code].kinds[0] for code in codes if len(ENTRIES[code].kinds) == 1}
    return single | {ENTRIES[code].kinds[0] for code in codes if not single & set(ENTRIES[code].kinds)}


def _at_best(goals: Goals) -> list[int]:
    """For each kind that is not gone through whole, what one problem of it shows at best: its codes, told from all
    others.
    """
    kinds = {kind for code in goals.codes for kind in ENTRIES[code].kinds if kind not in _WHOLE}
    return [_best_of(goals, {code for code in goals.codes if kind in ENTRIES[code].kinds}) for kind in sorted(kinds)]


def _best_of(goals: Goals, codes: set[str]) -> int:
    bits = sum(1 << i for i, code in enumerate(goals.codes) if code in codes)
    return bits | sum(1 << i for i, pair in enumerate(goals.pairs, len(goals.codes)) if codes & set(pair))


def _candidates(codes: Sequence[str], limits: TermLimits) -> Iterator[Expr]:
    """Problems that stand for all of their kind, and the catalogue's own examples; no copies."""
    seen: set[object] = set()
    kinds = _kinds_of(codes)
    for expr in (*_examples(codes), *[expr for kind in sorted(kinds) for expr in _of_kind(kind, limits)]):
        key = copy_key(expr)
        if key not in seen:
            seen.add(key)
            yield expr


def _examples(codes: Sequence[str]) -> list[Expr]:
    problems = [read(ENTRIES[code].example) for code in codes]
    return [problem.expr for problem in problems if problem.label is None]


def _of_kind(kind: Kind, limits: TermLimits) -> Iterator[Expr]:
    if kind == "multiply-divide":
        yield from _products(limits)
    for rung in _RUNGS.get(kind, ()):
        space = space_of(rung, limits)
        if kind in _WHOLE:
            yield from space.typical()
        elif space.count:
            dice = Random(rung)
            yield from [space.draw(dice) for _ in range(_DRAWN)]


def _products(limits: TermLimits) -> Iterator[Expr]:
    """Products and quotients of fractions, and of mixed numbers, of few denominators."""
    parts = [(n, d) for d in limits.denominators[:4] for n in range(1, d)]
    operators: tuple[Operator, ...] = ("×", "÷")
    for (n, d), (m, e), o in product(parts, parts, operators):
        yield Product(Frac(n, d), ((o, Frac(m, e)),))
        yield Product(make(2, n, d), ((o, make(1, m, e)),))
        yield Product(Whole(4), ((o, Frac(m, e)),))
