"""Decimals and wholes: added, subtracted, multiplied and divided in columns, or as fractions by place value."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

from ...arithmetic.columns import (
    add_columns,
    decimal,
    in_last_place,
    partial_products,
    place_name,
    places_of,
    subtract_columns,
)
from ...arithmetic.division import long_division
from ...errors import LimitError
from ...expressions.sentences import Rich
from ...expressions.spoken import parts_name
from ...expressions.terms import join_terms, operands, operator_for, signed_terms
from ...expressions.tree import Dec, Expr, Frac, Mixed, Neg, Product, Sum, Whole, value
from ...expressions.typeset import roles_for
from ...expressions.walks import map_numbers
from ...reading.problem import CURRENCY, Problem
from ...ways.settings import Ways
from ..proof import Working
from ..scribe import Scribe
from ..step_kinds import (
    COLUMN_ADD,
    COLUMN_SUBTRACT,
    DIVIDE,
    FILL_ZEROS,
    JOIN_SIGNS,
    MULTIPLY,
    PUT_SIGN,
    REORDER,
    SHIFT_POINT,
    TO_FRACTION,
)
from . import add_subtract, multiply_divide, order
from .single import drop_zeros, to_decimal, to_fraction

RECURS = "A decimal that recurs cannot be written in columns, so it is worked in fractions."
_Term = tuple[int, int]  # +1 or -1, and the number in units of the last place


def work(problem: Problem, ways: Ways) -> Working:
    """The working of a `decimal` problem. Raises `LimitError`."""
    numbers = operands(problem.expr)
    recurs = any(isinstance(n, Dec) and n.period for _, n in numbers)
    if recurs or ways.decimal == "as-fractions":
        return as_fractions(problem, ways, (RECURS,) if recurs else ())
    if isinstance(problem.expr, Product):
        if len(numbers) > 2:
            return order.work(problem, ways)
        return _pair(problem, ways)
    scribe = Scribe(problem.expr, ways)
    return _done(problem, scribe, _sum(scribe, numbers))


def _done(problem: Problem, scribe: Scribe, number: Expr) -> Working:
    if isinstance(number, Dec) and problem.label not in tuple(CURRENCY):
        number = drop_zeros(scribe, number)
    if scribe.negative and value(number) == 0:
        scribe.negative = False
        scribe.write(PUT_SIGN, number, ("0 has no sign.",), ("Nothing below zero is still nothing.",))
    answer = Neg(number) if scribe.negative else number
    return Working(problem, scribe.ways, tuple(scribe.steps), answer, Whole(0), None, tuple(scribe.notes))


# Sums in columns ---------------------------------------------------------------------------------------------


def _sum(scribe: Scribe, numbers: list[tuple[int, Expr]]) -> Expr:
    places = max([places_of(n) for _, n in numbers])
    roles = roles_for(len(numbers))
    if any(isinstance(term, Neg) for _, term in signed_terms(scribe.now)):
        scribe.write(
            JOIN_SIGNS, join_terms(numbers), ("Put two signs together.",),  # type: ignore[arg-type]
            ("Adding a number below zero takes it away; taking one away adds it.",), roles=roles,
        )  # fmt: skip
    terms = [(sign, in_last_place(n, places)) for sign, n in numbers]
    short = [n for _, n in numbers if places_of(n) < places]
    if short:
        lines: tuple[Rich, ...] = tuple([(n, " = ", decimal(in_last_place(n, places), places)) for n in short])
        scribe.write(
            FILL_ZEROS, _written(terms, places), (f"Write every number to {parts_name(10**places, True)}.",),
            (), lines, roles,
        )  # fmt: skip
    while len(terms) > 1:
        same = all(sign == terms[0][0] for sign, _ in terms)
        now, later = (terms, []) if same else (terms[:2], terms[2:])
        scribe.rest = tuple([(operator_for(sign), decimal(n, places)) for sign, n in later])
        scribe.rest_roles = roles[-len(later) :] if later else ()
        terms = [_column_step(scribe, now, places), *later]
    scribe.rest, scribe.rest_roles = (), ()
    sign, n = terms[0]
    scribe.negative = sign < 0
    return decimal(n, places)


def _written(terms: list[_Term], places: int) -> Expr:
    return join_terms([(sign, decimal(n, places)) for sign, n in terms])  # type: ignore[misc]


def _column_step(scribe: Scribe, terms: list[_Term], places: int) -> _Term:
    """Add or subtract *terms* (all of one sign, or two of different signs); the result with its sign."""
    scribe.negative = False
    first = terms[0][0]
    roles = roles_for(len(terms))
    if all(sign == first for sign, _ in terms):
        if first < 0:
            scribe.negative = True
            scribe.write(
                PUT_SIGN, _written([(1, n) for _, n in terms], places), ("Put the sign before the whole sum.",),
                ("All of them lie below zero.",), roles=roles,
            )  # fmt: skip
        total = sum(n for _, n in terms)
        title: Rich = (f"Add column by column, from the {place_name(0, places)}.",)
        reason: Rich = ()
        scribe.write(COLUMN_ADD, decimal(total, places), title, reason, _adding_lines([n for _, n in terms], places))
        return first, total
    plus, minus = [next(n for sign, n in terms if sign == wanted) for wanted in (1, -1)]
    if first < 0 and plus >= minus:
        scribe.write(
            REORDER, _written([(1, plus), (-1, minus)], places), ("Start with what is added.",),
            ("The order of what is added and taken away does not matter.",), roles=roles,
        )  # fmt: skip
    larger, smaller = max(plus, minus), min(plus, minus)
    if minus > plus:
        scribe.negative = True
        scribe.write(
            PUT_SIGN, _written([(1, larger), (-1, smaller)], places),
            ("More is taken away than is there: take the smaller from the larger and put a minus before it.",),
            ("The difference is the same size, on the other side of zero.",), roles=roles,
        )  # fmt: skip
    title = (f"Subtract column by column, from the {place_name(0, places)}.",)
    reason = ()
    lines = _subtracting_lines(larger, smaller, places, scribe.ways.exchanges_at_once)
    scribe.write(COLUMN_SUBTRACT, decimal(larger - smaller, places), title, reason, lines)
    return (-1 if minus > plus else 1), larger - smaller


def _adding_lines(numbers: list[int], places: int) -> tuple[Rich, ...]:
    lines = []
    columns = add_columns(numbers)
    for i, column in enumerate(columns):
        if len(columns) == i + 1 and not any(column.digits):
            break  # the last carry is written down as it is
        carried = f" + {column.carried}" if column.carried else ""
        total = sum(column.digits) + column.carried
        end = f", write {column.written}, carry {column.carries}" if column.carries else ""
        lines.append((f"{place_name(i, places)}: {' + '.join(map(str, column.digits))}{carried} = {total}{end}",))
    return tuple(lines)


def _subtracting_lines(a: int, b: int, places: int, at_once: bool) -> tuple[Rich, ...]:
    lines: list[Rich] = []
    left = a  # what is still to be subtracted from, in units of the last place
    for i, column in enumerate(subtract_columns(a, b)):
        top = column.above[-1] if column.above else column.top
        before = column.above[-2] if len(column.above) > 1 else column.top
        name = place_name(i, places)
        if column.exchanged:
            one = place_name(i + 1, places).removesuffix("s")
            lent: Rich = (f"1 {one} is 10 {name}",)
            if at_once and not left // 10 ** (i + 1) % 10:
                higher, shown = left // 10 ** (i + 1), max(0, places - i - 1)
                unit = 10 ** max(0, i + 1 - places)
                lent = (decimal(higher * unit, shown), " is ", decimal((higher - 1) * unit, shown), f" and 10 {name}")
            lines.append((f"{name}: {before} is less than {column.bottom}; <regroup>: ", *lent, f", which makes {top}"))
            left -= 10 ** (i + 1)
        lines.append((f"{name}: {top} - {column.bottom} = {column.written}",))
    return tuple(lines)


# Two factors ---------------------------------------------------------------------------------------------------


def _pair(problem: Problem, ways: Ways) -> Working:
    scribe = Scribe(problem.expr, ways)
    multiply_divide.put_sign_before(scribe, problem.expr)
    (_, a), (sign, b) = operands(problem.expr)
    number = _multiplied(scribe, a, b) if sign > 0 else divided(scribe, a, b)
    if isinstance(number, (Frac, Mixed)):
        raise TypeError("columns end in decimals")
    return _done(problem, scribe, number)


def _multiplied(scribe: Scribe, a: Expr, b: Expr) -> Expr:
    p, q = places_of(a), places_of(b)
    m, n = in_last_place(a, p), in_last_place(b, q)
    product = decimal(m * n, p + q)
    partial = partial_products(m, n)
    lines: list[Rich] = [(f"{m} × {n // 10**i % 10 * 10**i} = {part}",) for i, part in _with_places(m, n)]
    if len(partial) > 1:
        lines.append((f"{' + '.join(map(str, partial))} = {m * n}",))
    lines.append((f"digits after the point: {p} + {q} = {p + q}",))
    scribe.write(
        MULTIPLY, product, (f"Multiply {m} by {n}, then set the point.",),
        (f"The product counts {parts_name(10 ** (p + q), True)}." if p + q else "Both are whole numbers.",),
        tuple(lines),
    )  # fmt: skip
    return product


def _with_places(m: int, n: int) -> list[tuple[int, int]]:
    return [(i, m * int(d) * 10**i) for i, d in enumerate(reversed(str(n))) if d != "0"] or [(0, 0)]


def divided(scribe: Scribe, a: Expr, b: Expr) -> Expr:
    """Write the steps of a ÷ b, which may recur. Raises `LimitError`."""
    shift = places_of(b)
    if shift:
        m, n = value(a) * 10**shift, in_last_place(b, shift)
        moved = decimal(in_last_place(a, max(places_of(a), shift)), max(places_of(a) - shift, 0))
        scribe.write(
            SHIFT_POINT, Product(moved, (("÷", Whole(n)),)),
            (f"Multiply both by {10**shift}, so that the divisor is whole.",),
            (), roles=("first", "second"),
        )  # fmt: skip
        if value(moved) != m:
            raise AssertionError("the point was moved wrongly")
        a = moved
    divisor = in_last_place(b, shift)
    quotient = value(a) * Fraction(1, divisor)
    whole, rest = divmod(quotient.numerator, quotient.denominator)
    places, period = long_division(rest, quotient.denominator)
    result: Expr = Dec(whole, places, period) if places or period else Whole(whole)
    reason = "Share out place by place; what is left over is exchanged for ten of the next place."
    if period:
        reason = f"A remainder comes back, so the digits {period} come again and again."
    scribe.write(
        DIVIDE, result, ("Divide place by place.",), (reason,), _dividing_lines(a, divisor, len(places + period))
    )
    return result


_MOST_LINES = 8


def _dividing_lines(a: Expr, divisor: int, places: int) -> tuple[Rich, ...]:
    """Long division, a line a digit, from the first that gives one; cut short where it is long."""
    p = places_of(a)
    digits = [int(d) for d in str(in_last_place(a, p))] + [0] * max(0, places - p)
    lines: list[Rich] = []
    rest, begun = 0, False
    for i, digit in enumerate(digits):
        here = 10 * rest + digit
        answer, rest = divmod(here, divisor)
        begun = begun or answer > 0 or i >= len(digits) - max(places, p) - 1
        if begun:
            lines.append((f"{here} ÷ {divisor} = {answer}" + (f" remainder {rest}" if rest else ""),))
    return tuple(lines) if len(lines) <= _MOST_LINES else (*lines[:_MOST_LINES], ("and so on",))


# As fractions --------------------------------------------------------------------------------------------------


def as_fractions(problem: Problem, ways: Ways, notes: tuple[str, ...] = ()) -> Working:
    """Every decimal by its place value, worked in fractions, and back to a decimal at the end."""
    scribe = Scribe(problem.expr, ways)
    replaced = in_fractions(scribe, problem.expr)
    kind = "add-subtract" if isinstance(problem.expr, Sum) else "multiply-divide"
    family = add_subtract.work if kind == "add-subtract" else multiply_divide.work
    fractions_first = replace(ways, answer_form="simplest-mixed")
    inner = family(Problem(replaced, problem.label, kind), fractions_first)  # type: ignore[arg-type]
    scribe.steps += inner.steps
    scribe.now = inner.answer
    number = inner.answer.inner if isinstance(inner.answer, Neg) else inner.answer
    scribe.negative = isinstance(inner.answer, Neg)
    try:
        if isinstance(number, (Frac, Mixed)):
            number = to_decimal(scribe, number)
    except LimitError:
        notes += ("The answer has too many digits as a decimal, so it stays a fraction.",)
    answer = Neg(number) if scribe.negative else number
    return Working(
        problem,
        ways,
        tuple(scribe.steps),
        answer,
        inner.raw,
        inner.used_denominator,
        notes + inner.notes + tuple(scribe.notes),
    )


def in_fractions(scribe: Scribe, expr: Expr) -> Expr:
    """Write the step that turns every decimal of *expr* into a fraction by place value; returns what it leads to."""
    lines: list[Rich] = []

    def change(number: Expr) -> Expr:
        if not isinstance(number, Dec):
            return number
        own = Scribe(number, scribe.ways)
        fraction = to_fraction(own, number)
        lines.append((number, " = ", fraction))
        return fraction

    replaced = map_numbers(expr, change)
    scribe.write(
        TO_FRACTION, replaced, ("Write each decimal as a fraction by its last place.",),
        (), tuple(lines),
    )  # fmt: skip
    return replaced
