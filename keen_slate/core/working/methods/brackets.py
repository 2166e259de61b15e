"""Brackets of a calculation that do not depend on each other, and can share a line."""

from __future__ import annotations

from ...expressions.tree import Bracket, Dec, Expr, Frac, Mixed, Neg, Product, Sum, Whole
from ...expressions.walks import children

_NUMBERS = (Whole, Frac, Mixed, Dec)


def brackets_apart(expr: Expr) -> list[Bracket]:
    """The outermost brackets among the terms and factors of *expr* in which something is still to be worked.

    >>> from ...reading.reader import read
    >>> from ...expressions.text import text
    >>> [text(one) for one in brackets_apart(read("(2 + 3) × (7 - (4 - 1)) - (-2)").expr)]
    ['(2 + 3)', '(7 - (4 - 1))']
    """
    match expr:
        case Bracket(inner):
            number = inner.inner if isinstance(inner, Neg) else inner
            return [] if isinstance(number, _NUMBERS) else [expr]
        case Sum(first, rest) | Product(first, rest):
            return [one for part in (first, *[e for _, e in rest]) for one in brackets_apart(part)]
    return []


def waiting_decimals(expr: Expr) -> list[Dec]:
    """The decimals of *expr* outside brackets, where one of them is multiplied by a bracket in which something is still
    to be worked.
    """
    return _outside(expr) if _has_decimal_beside_bracket(expr) else []


def _has_decimal_beside_bracket(expr: Expr) -> bool:
    if isinstance(expr, Product) and brackets_apart(expr) and any(isinstance(n, Dec) for n in _outside(expr)):
        return True
    return any(_has_decimal_beside_bracket(part) for part in children(expr))


def _outside(expr: Expr) -> list[Dec]:
    if isinstance(expr, Dec):
        return [expr]
    return [] if isinstance(expr, Bracket) else [one for part in children(expr) for one in _outside(part)]


def replaced(expr: Expr, old: Expr, new: Expr) -> Expr:
    """*expr* with *new* in the place of the very bracket *old* among its terms and factors."""
    if expr is old:
        return new
    if not isinstance(expr, (Sum, Product)):
        return expr
    rest = tuple([(operator, replaced(part, old, new)) for operator, part in expr.rest])
    return type(expr)(replaced(expr.first, old, new), rest)
