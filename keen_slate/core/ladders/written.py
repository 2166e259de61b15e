"""Limits that can be told from a problem as it is written: its operations, its terms, its places, its shape."""

from __future__ import annotations

from math import gcd

from ..expressions.tree import Dec, Expr, Frac, Mixed, Operator, Product, Sum
from ..expressions.walks import children, leaves
from .shapes import SHAPES
from .spec import TermLimits


def is_written_within(expr: Expr, limits: TermLimits) -> bool:
    """Whether the operations, terms and places of *expr* are those that the *limits* allow; a lone number is no
    term.
    """
    if not operations_of(expr) <= limits.operations:
        return False
    if limits.only is not None and not SHAPES[limits.only].has(expr):
        return False
    numbers = leaves(expr)
    if any(isinstance(n, Dec) and len(n.places) not in limits.places for n in numbers):
        return False
    if not limits.lowest_terms or len(numbers) == 1:
        return True
    return all(gcd(n.num, n.den) == 1 for n in numbers if isinstance(n, (Frac, Mixed)))


def operations_of(expr: Expr) -> frozenset[Operator]:
    """The operations that *expr* asks for."""
    own = [operator for operator, _ in expr.rest] if isinstance(expr, (Sum, Product)) else []
    return frozenset(own).union(*[operations_of(part) for part in children(expr)])
