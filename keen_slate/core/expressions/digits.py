"""An expression with one of its whole numbers written otherwise: a digit changed, two swapped, a number a little
larger.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from ..limits import MAX_EXPONENT
from .tree import (
    Bracket,
    Dec,
    Equation,
    Expr,
    Frac,
    Mixed,
    Neg,
    OpenFrac,
    OpenMixed,
    OverBar,
    Power,
    Product,
    Sum,
    Whole,
)

Change = Callable[
    [str, bool], Iterator[str]
]  # digits, and whether they stand after the point -> the digits that they become


def swapped(digits: str, after_point: bool = False) -> Iterator[str]:
    """*digits* with two different ones beside each other swapped.

    >>> list(swapped("122"))
    ['212']
    """
    for i in range(len(digits) - 1):
        if digits[i] != digits[i + 1]:
            yield digits[:i] + digits[i + 1] + digits[i] + digits[i + 2 :]


def one_changed(digits: str, after_point: bool = False) -> Iterator[str]:
    """*digits* with one of them another digit.

    >>> list(one_changed("7"))
    ['0', '1', '2', '3', '4', '5', '6', '8', '9']
    """
    for i, old in enumerate(digits):
        yield from (digits[:i] + digit + digits[i + 1 :] for digit in "0123456789" if digit != old)


def with_digits_changed(expr: Expr, change: Change) -> Iterator[Expr]:
    """*expr* with the digits of one whole number in it changed, from left to right; a blank stays.

    >>> from .text import text
    >>> [text(e) for e in with_digits_changed(Sum(Frac(1, 12), (("+", Mixed(21, 1, 3)),)), swapped)]
    ['1/21 + 21 1/3', '1/12 + 12 1/3']
    """
    match expr:
        case Whole(n):
            yield from (Whole(m) for m in _numbers(n, change))
        case Frac(num, den):
            yield from (Frac(m, den) for m in _numbers(num, change))
            yield from (Frac(num, m) for m in _numbers(den, change) if m)
        case Mixed(whole, num, den):
            yield from (Mixed(m, num, den) for m in _numbers(whole, change))
            yield from (Mixed(whole, m, den) for m in _numbers(num, change))
            yield from (Mixed(whole, num, m) for m in _numbers(den, change) if m)
        case Dec(whole, places, period):
            yield from (Dec(m, places, period) for m in _numbers(whole, change))
            yield from (Dec(whole, digits, period) for digits in change(places, True))
            yield from (Dec(whole, places, digits) for digits in change(period, True))
        case OpenFrac(num, den):
            if num is not None:
                yield from (OpenFrac(m, den) for m in _numbers(num, change))
            if den is not None:
                yield from (OpenFrac(num, m) for m in _numbers(den, change) if m)
        case OpenMixed(whole, den):
            yield from (OpenMixed(m, den) for m in _numbers(whole, change))
            yield from (OpenMixed(whole, m) for m in _numbers(den, change) if m)
        case OverBar(top, den):
            yield from (
                OverBar(changed, den) for changed in with_digits_changed(top, change) if isinstance(changed, Sum)
            )
            yield from (OverBar(top, m) for m in _numbers(den, change) if m)
        case Neg(inner):
            yield from (Neg(changed) for changed in with_digits_changed(inner, change))
        case Bracket(inner):
            yield from (Bracket(changed) for changed in with_digits_changed(inner, change))
        case Power(base, exponent):
            yield from (Power(changed, exponent) for changed in with_digits_changed(base, change))
            yield from (Power(base, m) for m in _numbers(exponent, change) if m <= MAX_EXPONENT)
        case Sum(first, rest) | Product(first, rest):
            same = type(expr)
            yield from (same(changed, rest) for changed in with_digits_changed(first, change))
            for i, (operator, inner) in enumerate(rest):
                for changed in with_digits_changed(inner, change):
                    yield same(first, (*rest[:i], (operator, changed), *rest[i + 1 :]))
        case Equation(sides):
            for i, side in enumerate(sides):
                for changed in with_digits_changed(side, change):
                    yield Equation((*sides[:i], changed, *sides[i + 1 :]))


def _numbers(n: int, change: Change) -> Iterator[int]:
    return (int(digits) for digits in change(str(n), False))
