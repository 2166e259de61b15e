"""Slips: not misconceptions, but a fact off by one group, an addition off by 1 or 10, digits swapped, a number
miscopied.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import chain, islice

from ..arithmetic.columns import places_of
from ..errors import CoreError
from ..expressions.digits import one_changed, swapped, with_digits_changed
from ..expressions.sentences import Rich
from ..expressions.tree import BlankValueError, Dec, Expr, Frac, mixed, value
from ..expressions.walks import leaves
from ..reading.problem import problem_of
from ..working.proof import Working

_MOST_COPIES = 180  # of a long problem not every digit is tried


@dataclass(frozen=True, slots=True)
class Slip:
    """A code that begins with slip-, the value it leads to, and what happened."""

    code: str
    value: Fraction
    line: Rich


def slips(working: Working) -> Iterator[Slip]:
    """The slips that may happen in *working*, each with the value that comes of it."""
    yield from _facts(working)
    yield from _additions(working)
    yield from _swapped(working)
    yield from _miscopied(working)


def _facts(working: Working) -> Iterator[Slip]:
    """A product of the working off by one group: each multiplication fact off by one of its factors."""
    for step in working.steps:
        bottom = working.used_denominator or 1
        for a, b in step.facts:
            for group in {a, b}:
                for sign in (1, -1):
                    line: Rich = (f"{a} × {b} taken for {a * b + sign * group}",)
                    yield Slip("slip-fact", working.value + Fraction(sign * group, bottom), line)
    number = working.raw
    if isinstance(number, Frac) and working.ending.problem.kind == "multiply-divide":
        factors = leaves(working.steps[-1].before) if working.steps else []
        tops = [n.num for n in factors if isinstance(n, Frac)]
        for top in tops:
            for sign in (1, -1):
                off = number.num + sign * top
                yield Slip("slip-fact", Fraction(off, number.den), (f"{number.num} taken for {off}",))


def _units(working: Working) -> list[Fraction]:
    """What is counted in the working: the pieces of its denominator or last place, and wholes."""
    numbers: Sequence[Expr] = leaves(working.problem.expr)
    places = max([places_of(n) for n in numbers], default=0)
    units = [Fraction(1)]
    if any(isinstance(n, Dec) for n in numbers):
        units += [Fraction(1, 10**p) for p in range(1, places + 1)]
    elif working.used_denominator:
        units.append(Fraction(1, working.used_denominator))
    return units


def _additions(working: Working) -> Iterator[Slip]:
    for unit in _units(working):
        for off in (1, -1, 10, -10):
            line: Rich = (f"{abs(off)} too {'many' if off > 0 else 'few'} of ", mixed(unit))
            yield Slip("slip-addition", working.value + off * unit, line)


def _swapped(working: Working) -> Iterator[Slip]:
    """Two digits of the answer, or of a number on the way to it, swapped."""
    for expr in (working.answer, working.raw):
        for changed in with_digits_changed(expr, swapped):
            if (number := _value(changed)) is not None:
                yield Slip("slip-swapped", number, (expr, " written as ", changed))


def _miscopied(working: Working) -> Iterator[Slip]:
    """One digit of the problem copied wrong, or two of them swapped, and everything else done rightly."""
    expr = working.problem.expr
    one_wrong = islice(with_digits_changed(expr, one_changed), _MOST_COPIES)
    for changed in chain(one_wrong, with_digits_changed(expr, swapped)):
        if (number := _value(changed)) is not None:
            yield Slip("slip-miscopied", number, (expr, " copied as ", changed))


def _value(changed: Expr) -> Fraction | None:
    """The value of a miswritten *changed*; None where it is no problem any more."""
    try:
        return value(problem_of(changed).expr)
    except (CoreError, BlankValueError):
        return None
