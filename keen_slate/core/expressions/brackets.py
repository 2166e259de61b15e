"""An expression as it would be read if its brackets were not there."""

from __future__ import annotations

from .tree import Bracket, Dec, Expr, Neg, Operator, Power, Product, Sum, Whole

_Flat = list[tuple[Operator, Expr]]  # the operands as they stand, each with what stands before it; + before the first


def without_brackets(expr: Expr) -> Expr | None:
    """*expr* without its brackets, read by the usual order; None where that could not be read (two signs in a row,
    2/3^2).

    >>> from .text import text
    >>> text(without_brackets(Product(Whole(5), (("×", Bracket(Sum(Whole(2), (("+", Whole(3)),)))),))))
    '5 × 2 + 3'
    """
    flat = _flat(expr)
    if flat is None:
        return None
    terms: list[tuple[Operator, list[tuple[Operator, Expr]]]] = []
    for operator, operand in flat:
        if operator in ("×", "÷"):
            terms[-1][1].append((operator, operand))
        else:
            terms.append((operator, [("×", operand)]))
    products = [(operator, _product(factors)) for operator, factors in terms]
    (_, first), *rest = products
    return Sum(first, tuple(rest)) if rest else first


def _product(factors: list[tuple[Operator, Expr]]) -> Expr:
    (_, first), *rest = factors
    return Product(first, tuple(rest)) if rest else first


def _flat(expr: Expr) -> _Flat | None:
    match expr:
        case Bracket(inner):
            return _flat(inner)
        case Sum(first, rest) | Product(first, rest):
            return _joined([("+", first), *rest])
        case Neg(inner):
            return _with_sign(_flat(inner))
        case Power(base, exponent):
            return _raised(_flat(base), exponent)
        case _:
            return [("+", expr)]


def _joined(operands: list[tuple[Operator, Expr]]) -> _Flat | None:
    done: _Flat = []
    for operator, operand in operands:
        flat = _flat(operand)
        if flat is None:
            return None
        done += [(operator, flat[0][1]), *flat[1:]]
    return done


def _with_sign(flat: _Flat | None) -> _Flat | None:
    if flat is None or isinstance(flat[0][1], Neg):
        return None
    return [("+", Neg(flat[0][1])), *flat[1:]]


def _raised(flat: _Flat | None, exponent: int) -> _Flat | None:
    """The exponent belongs to the last number alone."""
    if flat is None:
        return None
    operator, last = flat[-1]
    inner = last.inner if isinstance(last, Neg) else last
    if not isinstance(inner, (Whole, Dec)):
        return None
    raised = Power(inner, exponent)
    return [*flat[:-1], (operator, Neg(raised) if isinstance(last, Neg) else raised)]
