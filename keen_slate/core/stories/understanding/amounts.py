"""Amounts of a story: those that are told, and those that follow from them, each with the calculation that finds it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from ...expressions.text import text as write
from ...expressions.tree import mixed
from ...limits import MOST_CALCULATIONS
from ...reading.measures import Unit, ratio_of
from ...reading.units import singular
from ..numbers import Quantity

Sign = Literal["+", "-"]


@dataclass(frozen=True, slots=True)
class Amount:
    """An amount: *number* in its *unit* (or of *noun*, where things are counted), and how it is found.

    It is told (*index* of the quantity), a number that no text tells (*literal*), or *made* of others: "+" with a sign
    for each, "×" or "÷". *name* is what it is called where another calculation uses it.
    """

    number: Fraction
    unit: Unit | None = None
    noun: str = ""
    index: int | None = None
    literal: bool = False
    operator: Literal["", "+", "×", "÷"] = ""
    made: tuple[tuple[Sign, Amount], ...] = ()
    name: str = ""

    @property
    def size(self) -> Fraction:
        """How much it is in the first unit of its measure."""
        return self.number * (self.unit.size if self.unit else 1)

    @property
    def measure(self) -> str:
        """What it measures, with the family of its unit; or the things that it counts; "" of a plain number."""
        return f"{self.unit.measure} {self.unit.family}" if self.unit else stem(self.noun)

    @property
    def indices(self) -> frozenset[int]:
        """The quantities of the text that it is made of."""
        own = frozenset() if self.index is None else frozenset([self.index])
        return own.union(*[part.indices for _, part in self.made])

    def called(self, name: str) -> Amount:
        """The same amount with a *name*."""
        return Amount(
            self.number, self.unit, self.noun, self.index, self.literal, self.operator, self.made, self.name or name
        )


def stem(noun: str) -> str:
    """A noun without the ending of its plural, so that one and many of a thing are alike.

    >>> stem("boxes") == stem("box"), stem("shelves") == stem("shelf"), stem("children") == stem("child")
    (True, True, True)
    """
    word = noun.lower().removesuffix("'s").removesuffix("’s")
    word = _ODD.get(word, singular(word))
    for ending in ("ves", "fe", "f"):
        if word.endswith(ending) and len(word) > 4:
            return word.removesuffix(ending)
    if word.endswith("ies") and len(word) > 4:
        return word[:-3] + "y"
    if word.endswith(("sses", "xes", "ches", "shes", "zzes")):
        return word[:-2]
    bare = word if word.endswith(("ss", "us")) else word.removesuffix("s")
    return bare.removesuffix("e") if len(bare) > 3 else bare


_ODD = {"children": "child", "people": "person", "men": "man", "women": "woman", "mice": "mouse", "geese": "goose",
    "sheep": "sheep",
        "feet": "foot", "teeth": "tooth", "persons": "person", "inches": "inch"}  # fmt: skip


def told(index: int, one: Quantity) -> Amount:
    """The amount of a quantity of the text."""
    return Amount(one.size / (one.unit.size if one.unit else 1), one.unit, "" if one.unit else one.label or "", index)


def plain(number: Fraction | int, name: str = "") -> Amount:
    """A number that no text tells."""
    return Amount(Fraction(number), literal=True, name=name)


def times(count: Amount, size: Amount, name: str = "all groups") -> Amount:
    """So many of a size."""
    return Amount(
        count.number * size.number,
        size.unit,
        size.noun,
        operator="×",
        made=(("+", count), ("+", size)),
        name=name,
    )


def over(amount: Amount, count: Amount, name: str = "the size of one") -> Amount:
    """An amount shared by so many. Raises `ZeroDivisionError`."""
    return Amount(
        amount.number / count.number,
        amount.unit,
        amount.noun,
        operator="÷",
        made=(("+", amount), ("+", count)),
        name=name,
    )


def in_unit(amount: Amount, unit: Unit) -> Amount:
    """The same amount in another unit of its measure."""
    if amount.unit is None:
        return amount
    each = ratio_of(amount.unit, unit)
    if each is None or each == 1:
        return amount
    up = each.denominator == 1
    factor = plain(each if up else 1 / each, f"{unit.many} of a unit")
    return Amount(
        amount.number * each,
        unit,
        operator="×" if up else "÷",
        made=(("+", amount), ("+", factor)),
        name=f"the {unit.many}",
    )


def ratio(amount: Amount, size: Amount, noun: str = "", name: str = "how many there are") -> Amount:
    """How many of a size an amount is, both in the same unit. Raises `ZeroDivisionError`."""
    first, second = in_one((amount, size), None)
    return Amount(first.number / second.number, None, noun, operator="÷", made=(("+", first), ("+", second)), name=name)


def in_one(amounts: Sequence[Amount], asked: Unit | None) -> list[Amount]:
    """Amounts in one unit: their own where it is the same, else the one that is *asked* where it is among them, else
    the smallest.
    """
    units = [one.unit for one in amounts if one.unit]
    if len(units) < 2 or all(ratio_of(units[0], unit) == 1 for unit in units):
        return list(amounts)
    target = asked if asked in units and asked else min(units, key=lambda unit: unit.size)
    return [in_unit(one, target) for one in amounts]


def combined(terms: Sequence[tuple[Sign, Amount]], asked: Unit | None = None, name: str = "all together") -> Amount:
    """A sum of amounts with their signs, in one unit."""
    if len(terms) == 1:
        return terms[0][1]
    parts = in_one([one for _, one in terms], asked)
    signs = [sign for sign, _ in terms]
    number = sum((one.number * (1 if sign == "+" else -1) for sign, one in zip(signs, parts, strict=True)), Fraction(0))
    first = parts[0]
    made = tuple(zip(signs, parts, strict=True))
    nouns = {stem(one.noun) for one in parts}
    return Amount(number, first.unit, first.noun if len(nouns) == 1 else "", operator="+", made=made, name=name)


# From an amount to calculations ---------------------------------------------------------------------------------------


def calculations(amount: Amount) -> tuple[str, ...]:
    """The calculations that find an *amount*, as they stand in braces, `#1#` for the quantity with that index."""
    steps = list(_steps(amount))
    while len(steps) > MOST_CALCULATIONS:  # the first ones are written into the one that uses them
        (name, first), *rest = steps
        steps = [(other, written.replace(name, f"({first})")) for other, written in rest]
    return tuple([f"{name} = {written}" for name, written in steps[:-1]] + [steps[-1][1]])


def _steps(amount: Amount) -> Iterator[tuple[str, str]]:
    """Each calculation with the name of what it finds, the last one last; names are made distinct."""
    names: dict[Amount, str] = {}
    taken: set[str] = set()
    for one in _inner(amount):
        if one in names:
            continue
        name = one.name or "the first result"
        if name in taken:
            bare = name.removeprefix("the ")
            name = next(f"the {word} {bare}" for word in _NEXT if f"the {word} {bare}" not in taken)
        taken.add(name)
        names[one] = name
        yield name, _written(one, names)
    yield "", _written(amount, names)


_NEXT = ("second", "third", "fourth", "fifth", "sixth", "next", "other", "last")


def _inner(amount: Amount) -> Iterator[Amount]:
    """The amounts that are found on the way, those first that others need."""
    for _, part in amount.made:
        yield from _inner(part)
        if part.operator:
            yield part


def _written(amount: Amount, names: dict[Amount, str]) -> str:
    if not amount.operator:
        return _leaf(amount)
    said = [(sign, names[part] if part.operator else _leaf(part)) for sign, part in amount.made]
    if amount.operator != "+":
        return f" {amount.operator} ".join([one for _, one in said])
    if said[0][0] == "-":
        said.sort(key=lambda one: one[0] == "-")
    return "".join([f" {sign} {one}" for sign, one in said]).removeprefix(" + ")


def _leaf(amount: Amount) -> str:
    return f"#{amount.index}#" if amount.index is not None else write(mixed(amount.number))
