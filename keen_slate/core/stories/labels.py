"""What a calculation's result is counted in, from what its numbers are counted in; units that do not agree are
refused.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Protocol

from ..arithmetic.division import as_decimal
from ..expressions.text import text
from ..expressions.tree import Bracket, Expr, Neg, Product, Sum, mixed, value
from ..expressions.walks import children, leaves
from ..reading.measures import UNITS, Unit, ratio_of, unit_named
from ..reading.units import singular
from .numbers import Quantity
from .question import Sentence, asked_noun, asked_unit, asked_word
from .story import StoryStep, Use


class Telling(Protocol):
    """What labels are read from: the quantities of a text, and its question."""

    @property
    def quantities(self) -> tuple[Quantity, ...]:
        """The numbers of the text."""
        ...

    @property
    def question(self) -> Sentence:
        """The sentence that asks."""
        ...


class UnitsError(ValueError):
    """The units of a calculation do not agree; *step* says in which one."""

    def __init__(self, message: str, hint: str, step: int) -> None:
        super().__init__(message)
        self.hint, self.step = hint, step


@dataclass(frozen=True, slots=True)
class _Kind:
    """What a number counts: a *label* (None for a plain number), *measured* where it is no count; how many *units* make
    another.
    """

    label: str | None
    unit: Unit | None = None
    units: bool = False


def label_of(told: Telling, expr: Expr, uses: Sequence[Use], earlier: Sequence[StoryStep], last: bool) -> str | None:
    """The label of what *expr* makes. Raises `UnitsError` where its numbers cannot be combined."""
    kinds = iter([_kind_of_use(told, use, earlier) for use in uses])
    try:
        found = _of(told, expr, kinds)
    except UnitsError as error:
        raise UnitsError(str(error), error.hint, len(earlier)) from None
    return _as_asked(told.question.text, found) if last else found.label


def _as_asked(question: str, found: _Kind) -> str | None:
    """The label of the answer in the question's own word; a fraction of a whole has none."""
    if re.search(r"\b(?:what|which) (?:fraction|part|share)\b", question, re.I):
        return None
    if found.unit is None and (noun := asked_noun(question)):
        return noun
    unit = asked_unit(question)
    if found.label is None and unit is not None:
        return asked_word(question) or unit.many
    if found.unit is not None and unit == found.unit and found.unit.measure not in ("money", "temperature"):
        return asked_word(question) or found.label
    return found.label


def _kind_of_use(told: Telling, use: Use, earlier: Sequence[StoryStep]) -> _Kind:
    if use.kind == "untold":
        return _Kind(None)
    if use.kind == "units":
        return _Kind(None, None, units=True)
    if use.kind == "found":
        label = earlier[use.index].label
        return _Kind(label, unit_named(label) if label else None)
    one = told.quantities[use.index]
    return _Kind(one.label, one.unit)


def _of(told: Telling, expr: Expr, kinds: object) -> _Kind:
    if isinstance(expr, (Bracket, Neg)):
        return _of(told, expr.inner, kinds)
    inner = children(expr)
    if not inner:
        return next(kinds)  # type: ignore[call-overload, no-any-return]
    found = [_of(told, part, kinds) for part in inner]
    if isinstance(expr, Sum):
        return _of_sum(found)
    if isinstance(expr, Product):
        done = found[0]
        for (operator, factor), kind in zip(expr.rest, found[1:], strict=True):
            done = _times(told, done, kind, expr, factor) if operator == "×" else _by(told, done, kind, factor)
        return done
    return found[0]


def _of_sum(found: list[_Kind]) -> _Kind:
    named = [kind for kind in found if kind.label is not None]
    if not named:
        return found[0]
    first = named[0]
    for other in named[1:]:
        if not _alike(first, other):
            raise _disagreement(first, other)
    return first


def _alike(one: _Kind, other: _Kind) -> bool:
    if one.unit and other.unit:
        return ratio_of(one.unit, other.unit) == 1
    # Things of two names may be counted together, what is measured and what is counted may not.
    return one.unit is other.unit


def _disagreement(one: _Kind, other: _Kind) -> UnitsError:
    if one.unit and other.unit and ratio_of(one.unit, other.unit) is not None:
        return UnitsError(
            f"{one.label} and {other.label} are combined as they stand.",
            f"Change one first: {_in_each_other(one.unit, other.unit)}.", 0,
        )  # fmt: skip
    return UnitsError(
        f"{one.label} and {other.label} cannot be added or subtracted.",
        "Combine only what is counted in the same unit.",
        0,
    )


def _in_each_other(one: Unit, other: Unit) -> str:
    """How many of a smaller unit a larger one is; of units of two systems, whichever way ends as a decimal.

    >>> _in_each_other(unit_named("cm"), unit_named("m")), _in_each_other(unit_named("m"), unit_named("ft"))
    ('1 metre is 100 centimetres', '1 foot is 0.3048 metres')
    """
    larger, smaller = (one, other) if one.size > other.size else (other, one)
    for unit, counted in ((larger, smaller), (smaller, larger)):
        number = as_decimal(unit.size / counted.size)
        if number is not None:
            return f"1 {unit.one} is {text(number)} {counted.many}"
    return f"1 {larger.one} is {text(mixed(larger.size / smaller.size))} {smaller.many}"


def _times(told: Telling, one: _Kind, other: _Kind, expr: Expr, factor: Expr) -> _Kind:
    if one.units or other.units:
        by = factor if other.units else leaves(expr)[0]
        return _turned(told, other if one.units else one, by, up=True)
    if one.unit and other.unit:
        if one.unit.measure == other.unit.measure == "length" and _alike(one, other):
            return _Kind(f"square {one.unit.many}", unit_named(f"square {one.unit.many}"))
        if one.unit.measure != other.unit.measure and (rated := _of_rate(told, one, other)) is not None:
            return rated
        raise UnitsError(
            f"{one.label} times {other.label} has no unit that is known here.", "Multiply by how many there are.", 0
        )
    if one.unit or other.unit:
        return one if one.unit else other
    # Of two counts the second is what is in each group: 4 boxes of 6 nails are nails.
    return other if other.label else one


def _of_rate(told: Telling, one: _Kind, other: _Kind) -> _Kind | None:
    """What an amount for each unit of another makes: the one that is asked for, or the one that is no time; money
    before the others.
    """
    asked = asked_unit(told.question.text)
    for kind in (one, other):
        if asked is not None and kind.unit is not None and kind.unit.measure == asked.measure:
            return kind
    for wanted in ("money", "time"):
        for kind, against in ((one, other), (other, one)):
            if kind.unit and kind.unit.measure == wanted:
                return kind if wanted == "money" else against
    return None


def _by(told: Telling, one: _Kind, other: _Kind, divisor: Expr) -> _Kind:
    if other.units:
        return _turned(told, one, divisor, up=False)
    if one.unit and other.unit:
        if one.unit.many == f"square {other.unit.many}":
            return other
        if not _alike(one, other):
            raise _disagreement(one, other)
        return _Kind(None)
    if other.unit and not one.unit:
        raise UnitsError(
            f"{one.label or 'a number'} is divided by {other.label}.",
            "Divide the amount, by how many or by the size of each.",
            0,
        )
    noun = asked_noun(told.question.text)
    if (
        one.unit is None
        and one.label
        and other.label
        and noun
        and singular(noun) not in (singular(one.label), singular(other.label))
    ):
        return _Kind(None)
    if one.unit is None and one.label and other.label and singular(one.label) == singular(other.label):
        return _Kind(None)
    return one


def _turned(told: Telling, kind: _Kind, factor: Expr, up: bool) -> _Kind:
    """The unit that a number changes to: the one that is asked for or told, so many to one of the other."""
    if kind.unit is None:
        raise UnitsError("A number without a unit is changed to another unit.", "Change only what is measured.", 0)
    told_units = [unit for unit in [asked_unit(told.question.text), *[one.unit for one in told.quantities]] if unit]
    for unit in [*told_units, *UNITS]:
        each = ratio_of(kind.unit, unit) if up else ratio_of(unit, kind.unit)
        if each is not None and each == value(factor) and each != 1:
            usual = next((one.label for one in told.quantities if one.unit == unit and one.label), None)
            return _Kind(usual or unit.label, unit)
    raise UnitsError(
        f"{kind.label} has no such change of unit.", "Multiply by how many of the smaller unit make one.", 0
    )
