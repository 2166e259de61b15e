"""A line with gaps for what pupils fill in, for texts whose lines are formulas."""

from __future__ import annotations

from keen_slate.core.expressions.tree import Blank, Expr, Frac, Mixed, OpenFrac, OpenMixed, Power
from keen_slate.core.expressions.typeset import glyphs
from keen_slate.core.expressions.walks import contains, leaves, map_numbers
from keen_slate.core.teaching.fading import Fading


class _NoGapError(ValueError):
    """A blank that no number with a gap in it can show."""


def with_blanks(expr: Expr, key: str, fading: Fading) -> Expr | None:
    """The line *key* with gaps for its blanks; None where pupils write all of it, or where a gap cannot be written.

    >>> with_blanks(Frac(3, 12), "add 0", Fading(blanks=frozenset({"add 0 0"})))
    OpenFrac(num=None, den=12)
    """
    blanks = {int(at) for one, _, at in (name.rpartition(" ") for name in fading.blanks) if one == key and at.isdigit()}
    if fading.hides_row(key):
        return None
    if not blanks:
        return expr
    if contains(expr, Power):
        return None  # its exponents are counted among its numbers
    gaps, at = [], 0
    for number in leaves(expr):
        count = _numbers_of(number)
        gaps.append(frozenset([i for i in range(count) if at + i in blanks]))
        at += count
    left = iter(gaps)
    try:
        return map_numbers(expr, lambda number: _with_gaps(number, next(left)))
    except _NoGapError:
        return None


def _numbers_of(number: Expr) -> int:
    """How many numbers of a line a number is counted as."""
    return sum(piece.numbers for piece in glyphs(number))


def _with_gaps(number: Expr, gaps: frozenset[int]) -> Expr:
    if not gaps:
        return number
    if len(gaps) == _numbers_of(number):
        return Blank()
    match number:
        case Frac(num, den):
            return OpenFrac(None, den) if 0 in gaps else OpenFrac(num, None)
        case Mixed(whole, _, den) if gaps == {1}:
            return OpenMixed(whole, den)
    raise _NoGapError
