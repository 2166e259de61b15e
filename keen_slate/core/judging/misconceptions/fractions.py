"""Misconceptions about the numerators and denominators of fractions that are added or subtracted."""

from __future__ import annotations

from ...expressions.sentences import Rich
from ...expressions.terms import join_terms
from ...expressions.tree import Expr, Frac, Mixed, Whole, make
from .registry import Case, Wrong, misconception


def chain(numbers: list[tuple[int, int]]) -> str:
    """The written sum of signed whole numbers, like 5 - 3; those below zero stand in brackets after a sign.

    >>> chain([(-1, -1), (1, 0), (-1, 2)])
    '-(-1) + 0 - 2'
    """
    (sign, first), *rest = numbers
    start = f"-{_after_sign(first)}" if sign < 0 else str(first)
    return start + "".join([f" {'+' if s > 0 else '-'} {_after_sign(n)}" for s, n in rest])


def _after_sign(n: int) -> str:
    return f"({n})" if n < 0 else str(n)


def _left(case: Case, top: int, bottom: int) -> Whole | Frac | Mixed | None:
    """The wholes combined beside top/bottom, as it is left; None where one of them falls below zero."""
    if case.wholes < 0 or top < 0:
        return None
    if not case.wholes:
        return Frac(top, bottom)
    return make(case.wholes, top, bottom)


def _whole_line(case: Case) -> list[Rich]:
    wholes = [(s, w) for s, (w, _, _) in zip(case.signs, case.parts, strict=True) if w]
    return [(f"<wholes>: {chain(wholes)} = {case.wholes}",)] if wholes else []


def _answer(
    case: Case, tops: list[tuple[int, int]], bottom: int, said: str, via: tuple[Expr, ...] | None = None
) -> Wrong | None:
    """The tops combined over *bottom*; *said* tells where the bottom comes from.

    The line before has each top over *bottom*, unless another is written on the way.
    """
    top = sum(sign * n for sign, n in tops)
    left = _left(case, top, bottom)
    if left is None:
        return None
    written = (_over_each(case, tops, bottom),) if via is None else via
    return Wrong(left, (*_whole_line(case), (f"tops: {chain(tops)} = {top}",), (f"bottom: {said}",)), via=written)


def _over_each(case: Case, tops: list[tuple[int, int]], bottom: int) -> Expr:
    """The problem with each of the *tops* over *bottom*, its wholes as they are."""
    over = iter([n for _, n in tops])
    terms = [
        (sign, term if isinstance(term, Whole) else make(w, next(over), bottom))
        for (sign, term), (w, _, _) in zip(case.terms, case.parts, strict=True)
    ]
    return join_terms(terms)


@misconception(
    "add-across",
    name="combined tops and combined bottoms",
    reason="Sees separate whole numbers above and below the bars, not sizes of pieces.",
    question="Do two halves make two <fourths>? What happens to the size of the pieces?",
    kinds=("add-subtract",),
    example="2/5 + 1/2",
    often=3,
)
def add_across(case: Case) -> Wrong | None:
    if not case.fraction_sum():
        return None
    bottom = sum(s * d for s, _, d in case.fractions)
    if bottom <= 0:
        return None
    return _answer(
        case,
        [(s, n) for s, n, _ in case.fractions],
        bottom,
        f"{chain([(s, d) for s, _, d in case.fractions])} = {bottom}",
        via=(),
    )


@misconception(
    "added-common-bottoms",
    name="added the common <denominators> too",
    reason="Makes the pieces the same size, then adds their names as if they were counted too.",
    question="Three twelfths and two twelfths: five what?",
    kinds=("add-subtract",),
    example="1/4 + 1/6",
)
def added_common_bottoms(case: Case) -> Wrong | None:
    if not case.fraction_sum() or not case.unlike or min(case.signs) < 0:
        return None
    d = case.common
    tops = [(s, n * d // e) for s, n, e in case.fractions]
    bottom = len(tops) * d
    scaled = (_over_each(case, tops, d),)  # so far it is right
    return _answer(case, tops, bottom, f"{' + '.join([str(d)] * len(tops))} = {bottom}", scaled)


@misconception(
    "top-not-scaled",
    name="changed the bottoms, kept the tops",
    reason="Gives the fractions a common <denominator>, but leaves the <numerators> as they were.",
    question="Is one <fourth> as much as one twelfth?",
    kinds=("add-subtract",),
    example="1/4 + 2/3",
    often=3,
)
def top_not_scaled(case: Case) -> Wrong | None:
    if not case.fraction_sum() or not case.unlike:
        return None
    return _answer(case, [(s, n) for s, n, _ in case.fractions], case.common, f"{case.common} for all")


@misconception(
    "scaled-by-adding",
    name="scaled by adding the same to top and bottom",
    reason="What was added to the bottom is added to the top; but it has to be multiplied.",
    question="Is 1/2 the same as 2/3? What was done to both?",
    kinds=("add-subtract",),
    example="1/2 + 1/3",
    often=1,
)
def scaled_by_adding(case: Case) -> Wrong | None:
    if not case.fraction_sum() or not case.unlike:
        return None
    d = case.common
    return _answer(case, [(s, n + d - e) for s, n, e in case.fractions], d, f"{d}, with as much added to each top")


@misconception(
    "kept-larger-bottom",
    name="kept the larger bottom",
    reason="Takes the larger <denominator> for both and leaves the tops as they are.",
    question="Can thirds be counted in <fourths>?",
    kinds=("add-subtract",),
    example="1/3 + 1/4",
    often=1,
)
def kept_larger_bottom(case: Case) -> Wrong | None:
    dens = [d for _, _, d in case.fractions]
    if not case.fraction_sum() or not case.unlike or case.common in dens:
        return None
    return _answer(case, [(s, n) for s, n, _ in case.fractions], max(dens), f"the larger one, {max(dens)}")


@misconception(
    "scaled-by-target",
    name="multiplied every top by the new bottom",
    reason="Knows that the tops have to be multiplied, and takes the new <denominator> itself for the factor.",
    question="3/4 in twelfths: into how many twelfths is each <fourth> cut?",
    kinds=("add-subtract",),
    example="3/4 + 1/6",
    often=1,
)
def scaled_by_target(case: Case) -> Wrong | None:
    if not case.fraction_sum() or not case.unlike:
        return None
    d = case.common
    return _answer(case, [(s, n * d) for s, n, _ in case.fractions], d, f"{d}, each top times {d}")


@misconception(
    "not-a-multiple",
    name="took a bottom that is no common multiple",
    reason="Takes a multiple of one <denominator> without asking whether the other goes into it.",
    question="Does each <denominator> go into the new one without a remainder?",
    kinds=("add-subtract",),
    example="1/4 + 1/6",
    often=1,
)
def not_a_multiple(case: Case) -> Wrong | None:
    if not case.fraction_sum() or not case.unlike or len(case.fractions) > 2:
        return None
    (_, _, d), (_, _, e) = case.fractions
    common = _near_miss(d, e, case.common)
    if common is None:
        return None
    tops = [(s, n * (common // own)) for s, n, own in case.fractions]
    return _answer(case, tops, common, f"{common} for both")


def _near_miss(d: int, e: int, common: int) -> int | None:
    """The multiple of one of two denominators nearest to *common* (of two as near, the smaller) that the other does not
    divide.
    """
    near = [m for of, other in ((d, e), (e, d)) for m in (common - of, common + of) if m > max(d, e) and m % other]
    return min(near, key=lambda m: (abs(m - common), m), default=None)


@misconception(
    "across-turned-round",
    name="took smaller from larger, above and below",
    reason="Sees separate whole numbers above and below the bars, and takes the smaller from the larger in each.",
    question="What is taken away from what? Can the pieces change their size while you do it?",
    kinds=("add-subtract",),
    example="3/4 - 1/6",
    often=1,
)
def across_turned_round(case: Case) -> Wrong | None:
    if not case.fraction_sum() or [s for s, _, _ in case.fractions] != [1, -1] or len(case.terms) > 2:
        return None
    (_, n, d), (_, m, e) = case.fractions
    if d == e or (n >= m and d > e):  # nothing is turned round
        return None
    top, bottom = abs(n - m), abs(d - e)
    left = _left(case, top, bottom)
    if left is None:
        return None
    lines = (f"tops: {max(n, m)} - {min(n, m)} = {top}",), (f"bottoms: {max(d, e)} - {min(d, e)} = {bottom}",)
    return Wrong(left, (*_whole_line(case), *lines))
