"""Walks over an expression: what stands in it, from left to right, and the same expression with something changed."""

from __future__ import annotations

from collections.abc import Callable

from .tree import (
    Blank,
    Bracket,
    Dec,
    Equation,
    Expr,
    Frac,
    Mixed,
    Neg,
    Number,
    Open,
    OpenFrac,
    OpenMixed,
    OverBar,
    Power,
    Product,
    Sum,
    Whole,
)


def children(expr: Expr) -> tuple[Expr, ...]:
    """The expressions directly inside *expr*; none for a number."""
    if isinstance(expr, (Sum, Product)):  # what is nearly always asked is quickest found without `match`
        return (expr.first, *[inner for _, inner in expr.rest])
    match expr:
        case Neg(inner) | Bracket(inner) | Power(inner, _):
            return (inner,)
        case Equation(sides):
            return sides
        case _:
            return ()


def leaves(expr: Expr) -> list[Number]:
    """The numbers of *expr* from left to right, without signs and exponents."""
    inner = children(expr)
    if not inner:
        return [expr]  # type: ignore[list-item]  # only numbers have no children
    return [number for part in inner for number in leaves(part)]


def denominators(expr: Expr) -> list[int]:
    """Every denominator written in *expr*, from left to right.

    >>> denominators(Sum(Frac(1, 4), (("+", OpenMixed(2, 6)), ("+", OpenFrac(3, None)))))
    [4, 6]
    """
    return [n.den for n in leaves(expr) if isinstance(n, (Frac, Mixed, OpenFrac, OpenMixed, OverBar)) and n.den]


def contains(expr: Expr, *kinds: type[Expr]) -> bool:
    """Whether *expr* is one of these *kinds* of expression, or has one in it.

    >>> contains(Sum(Whole(1), (("+", Power(Whole(2), 2)),)), Power), contains(Whole(1), Power, Bracket)
    (True, False)
    """
    return isinstance(expr, kinds) or any(contains(part, *kinds) for part in children(expr))


def has_sign(expr: Expr) -> bool:
    """Whether a number or bracket of *expr* has a minus sign of its own."""
    return contains(expr, Neg)


def largest_integer(expr: Expr) -> int:
    """The largest whole number written anywhere in *expr*, above or below a bar."""
    match expr:
        case Whole(n):
            return n
        case Frac(num, den):
            return max(num, den)
        case Mixed(whole, num, den):
            return max(whole, num, den)
        case Dec(whole):
            return whole
        case Blank():
            return 0
        case OpenFrac(top, bottom):
            return top or bottom or 0
        case OpenMixed(whole, den):
            return max(whole, den)
        case OverBar(over, den):
            return max(largest_integer(over), den)
        case Sum(first, rest):
            return max(largest_integer(first), *[largest_integer(term) for _, term in rest])
        case _:
            return max([largest_integer(inner) for inner in children(expr)])


def has_blank(expr: Expr) -> bool:
    """Whether something in *expr* is to be found."""
    return any(isinstance(leaf, Open) for leaf in leaves(expr))


def map_numbers(expr: Expr, change: Callable[[Expr], Expr]) -> Expr:
    """*expr* with *change* applied to each of its numbers."""
    match expr:
        case Sum(first, rest):
            return Sum(map_numbers(first, change), tuple([(o, map_numbers(e, change)) for o, e in rest]))
        case Product(first, rest):
            return Product(map_numbers(first, change), tuple([(o, map_numbers(e, change)) for o, e in rest]))
        case Neg(inner):
            return Neg(map_numbers(inner, change))
        case Bracket(inner):
            return Bracket(map_numbers(inner, change))
        case Power(base, exponent):
            changed = map_numbers(base, change)
            # A fraction as a base stands in brackets: 2/3^2 would be read in two ways.
            return Power(Bracket(changed) if isinstance(changed, (Frac, Mixed)) else changed, exponent)
        case _:
            return change(expr)


def agrees(partial: Expr, full: Expr | None) -> bool:
    """Whether *full* is *partial* with its blanks filled.

    >>> agrees(OpenFrac(None, 8), Frac(5, 8)), agrees(OpenFrac(None, 8), Frac(5, 9))
    (True, False)
    """
    if full is None:
        return False
    match partial, full:
        case Blank(), _:
            return isinstance(full.inner if isinstance(full, Neg) else full, (Whole, Frac, Mixed, Dec))
        case OpenFrac(n, d), Frac(m, e):
            return n in (None, m) and d in (None, e)
        case OpenMixed(w, d), Mixed(v, _, e):
            return w == v and d == e
        case (Sum(_, rest), Sum(_, more)) if [o for o, _ in rest] != [o for o, _ in more]:
            return False
    inner, other = children(partial), children(full)
    if not inner:
        return partial == full
    return type(partial) is type(full) and len(inner) == len(other) and all(map(agrees, inner, other))


def fillings(partial: Expr, full: Expr) -> list[Expr]:
    """What stands in *full* where *partial* has a blank, from left to right."""
    if not children(partial):
        return [full] if has_blank(partial) else []
    return [found for a, b in zip(children(partial), children(full), strict=True) for found in fillings(a, b)]
