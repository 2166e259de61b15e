"""Slips: not misconceptions, but a fact off by one group, an addition off by 1 or 10, digits swapped, a number miscopied."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from itertools import pairwise

from ..arithmetic.columns import places_of
from ..errors import CoreError
from ..expressions.sentences import Rich
from ..expressions.text import text
from ..expressions.tree import Dec, Expr, Frac, mixed, value
from ..expressions.walks import leaves
from ..reading.lexing import PRINTED
from ..reading.reader import read
from ..working.proof import Working

_MOST_COPIES = 60  # of a long problem not every digit is tried


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
    if isinstance(number, Frac) and working.problem.kind == "multiply-divide":
        factors = list(leaves(working.steps[-1].before)) if working.steps else []
        tops = [n.num for n in factors if isinstance(n, Frac)]
        for top in tops:
            for sign in (1, -1):
                off = number.num + sign * top
                yield Slip("slip-fact", Fraction(off, number.den), (f"{number.num} taken for {off}",))


def _units(working: Working) -> list[Fraction]:
    """What is counted in the working: the pieces of its denominator or last place, and wholes."""
    numbers: list[Expr] = list(leaves(working.problem.expr))
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
            said = f"{abs(off)} too {'many' if off > 0 else 'few'} of {text(mixed(unit))}"
            yield Slip("slip-addition", working.value + off * unit, (said,))


def _digits_changed(written: str, change: str) -> Iterator[str]:
    """*written* with two digits beside each other swapped, or with one digit changed to another."""
    for i, char in enumerate(written):
        if not char.isdigit():
            continue
        if change == "swap":
            if i + 1 < len(written) and written[i + 1].isdigit() and written[i + 1] != char:
                yield written[:i] + written[i + 1] + char + written[i + 2 :]
        else:
            yield from (written[:i] + digit + written[i + 1 :] for digit in "0123456789" if digit != char)


def _swapped(working: Working) -> Iterator[Slip]:
    """Two digits of the answer, or of a number on the way to it, swapped."""
    for expr in (working.answer, working.raw):
        written = text(expr)
        for changed in _digits_changed(written, "swap"):
            if (number := _value(changed)) is not None:
                yield Slip("slip-swapped", number, (f"{written} written as {changed}",))


def _miscopied(working: Working) -> Iterator[Slip]:
    """One digit of the problem copied wrong, and everything else done rightly."""
    written = text(working.problem.expr)
    for copies, changed in enumerate(_digits_changed(written, "one")):
        if copies > _MOST_COPIES * 3:
            return
        if (number := _value(changed)) is not None:
            yield Slip("slip-miscopied", number, (f"{written} copied as {changed}",))
    for (a, b), i in zip(pairwise(written), range(len(written)), strict=False):
        if (
            a.isdigit()
            and b.isdigit()
            and a != b
            and (number := _value(written[:i] + b + a + written[i + 2 :])) is not None
        ):
            yield Slip("slip-miscopied", number, (f"{written} copied as {written[:i] + b + a + written[i + 2 :]}",))


def _value(written: str) -> Fraction | None:
    try:
        return value(read(written, limits=PRINTED).expr)
    except (CoreError, ValueError, ZeroDivisionError):
        return None
