"""One operation on two numbers of a longer calculation, at least one of them a fraction, as teachers write it: line by
line.

Everything becomes one fraction; then over one denominator, or turned over and cancelled; then it is worked.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import gcd, lcm

from ...expressions.sentences import Rich, Scaled
from ...expressions.spoken import parts_name
from ...expressions.terms import improper
from ...expressions.tree import Expr, Frac, Mixed, Neg, Operator, OverBar, Product, Sum, Whole, value
from ...expressions.walks import leaves, map_numbers
from ..scribe import Scribe
from ..step_kinds import (
    ADD,
    CANCEL,
    COMMON_DENOMINATOR,
    MULTIPLY,
    OVER_ONE_BAR,
    SIMPLIFY,
    SUBTRACT,
    TO_IMPROPER,
    TURN_OVER,
    StepKind,
)
from .cancelling import cancelled
from .forms import improper_line


@dataclass(frozen=True, slots=True)
class OrderLine:
    """A line: two numbers written otherwise (*after* is a sum or product), or what they make (*after* is a number).

    *says* ends the sentence that the rule of the line begins.
    """

    after: Expr
    kind: StepKind
    says: Rich
    reason: str
    lines: tuple[Rich, ...] = ()


def next_line(scribe: Scribe, first: Expr, operator: Operator, second: Expr) -> OrderLine | None:
    """The next line of *first* *operator* *second*; None where neither is a fraction or a mixed number."""
    a, b = _size(first), _size(second)
    if not isinstance(a, (Frac, Mixed)) and not isinstance(b, (Frac, Mixed)):
        return None
    others = [n for n in (a, b) if isinstance(n, (Whole, Mixed))]
    if others:
        return OrderLine(
            _two(map_numbers(first, _improper), operator, map_numbers(second, _improper)),
            TO_IMPROPER,
            ("write ", others[0], " as one fraction." if len(others) == 1 else " and ", *_named(others[1:])),
            "Two fractions are worked by their tops and bottoms.",
            tuple([improper_line(scribe, n) for n in others]),
        )
    if not isinstance(a, Frac) or not isinstance(b, Frac):
        return None
    if operator in "+-":
        return _adding(scribe, first, operator, second, a, b)
    return _multiplying(scribe, first, operator, second, a, b)


def _named(others: list[Whole | Mixed]) -> Rich:
    return (others[0], " as fractions.") if others else ()


def _two(first: Expr, operator: Operator, second: Expr) -> Expr:
    same = Sum if operator in "+-" else Product
    return same(first, ((operator, second),))


def _size(operand: Expr) -> Expr:
    (number,) = leaves(operand)
    return number


def _improper(number: Expr) -> Expr:
    return improper(number) if isinstance(number, (Whole, Mixed)) else number


# Adding and subtracting -----------------------------------------------------------------------------------------------


def _adding(scribe: Scribe, first: Expr, operator: Operator, second: Expr, a: Frac, b: Frac) -> OrderLine:
    den = lcm(a.den, b.den)
    if a.den != b.den:
        changing = [f for f in (a, b) if f.den != den]
        lines: list[Rich] = [
            (f, " = ", Scaled(f.num, f.den, "×", den // f.den), " = ", _over(f, den)) for f in changing
        ]
        return OrderLine(
            _two(map_numbers(first, lambda n: _over(n, den)), operator, map_numbers(second, lambda n: _over(n, den))),
            COMMON_DENOMINATOR,
            (f"write both in {parts_name(den, True)}.",),
            "Only pieces of one size can be added or taken away.",
            tuple(lines),
        )
    if scribe.ways.one_bar == "yes" and a is first and b is second:
        over = OverBar(Sum(Whole(a.num), ((operator, Whole(b.num)),)), den)
        return OrderLine(
            over, OVER_ONE_BAR, (f"both are {parts_name(den, True)}: write one bar.",), OVER_ONE_BAR.reason
        )
    x, y = [f.num if value(operand) >= 0 else -f.num for f, operand in ((a, first), (b, second))]
    total = x + y if operator == "+" else x - y
    return OrderLine(
        _signed(Frac(abs(total), den), total < 0),
        ADD if operator == "+" else SUBTRACT,
        (_two(first, operator, second), "."),
        "The pieces are the same size, so only the <numerators> are worked.",
        ((f"{x} {operator} {f'({y})' if y < 0 else y} = {total}",),),
    )


def _over(number: Expr, den: int) -> Expr:
    return Frac(number.num * den // number.den, den) if isinstance(number, Frac) else number


def _signed(size: Frac, below: bool) -> Expr:
    plain: Expr = size if size.num and size.den > 1 else Whole(size.num)
    return Neg(plain) if below else plain


# Multiplying and dividing ---------------------------------------------------------------------------------------------


def _multiplying(scribe: Scribe, first: Expr, operator: Operator, second: Expr, a: Frac, b: Frac) -> OrderLine:
    if operator == "÷":
        return OrderLine(
            _two(first, "×", map_numbers(second, _turned)),
            TURN_OVER,
            ("turn ", b, " over, and multiply."),
            "How often a piece fits is found by multiplying by how many of it make a <whole>.",
        )
    if scribe.ways.cancel == "before":
        (new_a, new_b), lines = cancelled([a, b])
        if lines:
            return OrderLine(
                _two(map_numbers(first, lambda _: new_a), "×", map_numbers(second, lambda _: new_b)),
                CANCEL,
                ("cancel what tops and bottoms share.",),
                CANCEL.reason,
                lines,
            )
    below = (value(first) < 0) != (value(second) < 0)
    top, bottom = a.num * b.num, a.den * b.den
    return OrderLine(
        _signed(Frac(top, bottom), below and top > 0),
        MULTIPLY,
        (_two(first, "×", second), "."),
        "Parts of parts: each piece is cut again, and so many of them are taken.",
        ((f"{a.num} × {b.num} = {top}",), (f"{a.den} × {b.den} = {bottom}",)),
    )


def _turned(number: Expr) -> Expr:
    return Frac(number.den, number.num) if isinstance(number, Frac) else number


def simpler(expr: Expr, made: Expr) -> OrderLine | None:
    """*expr* with the number *made* in it simplified, before it is worked on; None where it is simple."""
    size = made.inner if isinstance(made, Neg) else made
    if not isinstance(size, Frac) or (by := gcd(size.num, size.den)) == 1:
        return None
    num, den = size.num // by, size.den // by
    plain: Expr = Frac(num, den) if den > 1 else Whole(num)
    return OrderLine(
        map_numbers(expr, lambda one: plain if one is size else one),
        SIMPLIFY,
        (f"divide top and bottom by {by}.",),
        "A smaller number is easier to go on with.",
        ((size, " = ", Scaled(size.num, size.den, "÷", by), " = ", plain),),
    )
