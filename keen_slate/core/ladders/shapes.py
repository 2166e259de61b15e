"""What problems may be kept to, beyond the limits on their numbers: one shape of problem, told from how it is
written.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from ..expressions.terms import signed_terms
from ..expressions.tree import Expr, Frac, Mixed, Power, Product, Sum, Whole, value
from ..expressions.walks import contains, leaves
from ..working.methods.common_denominator import relation


@dataclass(frozen=True, slots=True)
class NamedShape:
    """How a shape is called, and whether a problem has it."""

    title: str
    has: Callable[[Expr], bool]


def _relation(expr: Expr) -> str | None:
    return relation(tuple([n.den for n in leaves(expr) if isinstance(n, (Frac, Mixed))]))


def _is_by_a_whole(expr: Expr) -> bool:
    """Whether a fraction or a mixed number is multiplied by a whole number, or divided by one."""
    if not isinstance(expr, Product) or sum(isinstance(n, Whole) for n in leaves(expr)) != 1:
        return False
    return expr.rest[0][0] == "×" or isinstance(expr.rest[0][1], Whole)


def _is_of_unit_fractions(expr: Expr) -> bool:
    numbers = leaves(expr)
    units = [n for n in numbers if isinstance(n, Frac) and n.num == 1]
    wholes = [n for n in numbers if isinstance(n, Whole)]
    return bool(units) and bool(wholes) and len(units) + len(wholes) == len(numbers)


def _begins(expr: Expr, kind: type[Expr]) -> bool:
    return isinstance(leaves(expr)[0], kind)


def _is_below_zero(expr: Expr) -> bool:
    return isinstance(expr, Sum) and len(signed_terms(expr)) == 2 and value(expr) < 0


SHAPES: dict[str, NamedShape] = {
    "same-denominator": NamedShape("one <denominator> in all terms", lambda e: _relation(e) in (None, "like")),
    "one-fits": NamedShape(
        "a <denominator> that fits the other, or is the same", lambda e: _relation(e) in (None, "like", "one-fits")
    ),
    "unit-first": NamedShape(
        "a unit fraction before a <whole>", lambda e: _is_of_unit_fractions(e) and _begins(e, Frac)
    ),
    "whole-first": NamedShape(
        "a <whole> before a unit fraction", lambda e: _is_of_unit_fractions(e) and _begins(e, Whole)
    ),
    "by-a-whole": NamedShape("a fraction or <mixed number> by a <whole>", _is_by_a_whole),
    "proper-fractions": NamedShape(
        "proper fractions alone", lambda e: all(isinstance(n, Frac) and n.num < n.den for n in leaves(e))
    ),
    "mixed-first": NamedShape(
        "a <mixed number> and a proper fraction",
        lambda e: _begins(e, Mixed) and any(isinstance(n, Frac) for n in leaves(e)),
    ),
    "brackets": NamedShape("brackets, no power", lambda e: not contains(e, Power)),
    "powers": NamedShape("a power", lambda e: contains(e, Power)),
    "to-decimal": NamedShape("fractions to be written as decimals", lambda e: isinstance(e, Frac)),
    "below-zero": NamedShape("answers below zero", _is_below_zero),
}
