"""Numbers drawn by lot for a story whose numbers no rung gives: equal groups, parts, changes of unit, and what there is
at the start.
"""

from __future__ import annotations

from fractions import Fraction
from math import ceil
from random import Random

from ..expressions.tree import Expr, Whole, mixed, value
from ..stories.patterns import Pattern
from ..stories.scenarios import Thing
from ..stories.telling import smaller_unit
from .spec import TermLimits


class Lot:
    """Numbers drawn by lot within limits, of sizes that a thing can have."""

    def __init__(self, limits: TermLimits, thing: Thing, dice: Random) -> None:
        self.limits, self.thing, self.dice = limits, thing, dice

    def size(self, most: Fraction) -> Expr:
        """A fraction or mixed number of at most about *most*."""
        den = self.dice.choice(self.limits.denominators)
        whole = self.dice.randint(0, max(0, min(self.limits.largest_whole, int(most) - 1)))
        number = whole + Fraction(self.dice.randint(1, den - 1), den)
        return mixed(number)

    def numbers(self, pattern: Pattern) -> list[Expr] | None:
        """The numbers of a pattern with equal groups, a part, or a change of unit."""
        count = self.dice.randint(2, 6)
        each = self.size(self.thing.high / count)
        total = mixed(value(each) * count)
        match pattern.situation, pattern.unknown, pattern.slots:
            case "equal-groups", "product", _:
                return [Whole(count), each]
            case "equal-groups", "size", "qc":
                return [total, Whole(count)]
            case "equal-groups", "size", _:
                return [Whole(count), total]
            case "equal-groups", "number", _:
                return [total, each]
            case "part-of", _, _:
                den = self.dice.choice([d for d in self.limits.denominators if d > 2] or [3])
                return [each, mixed(Fraction(self.dice.randint(1, den - 1), den))]
            case _, _, "qcqq":
                return self.with_start(pattern, [Whole(count), each, self.size(self.thing.high / 4)])
        return self._in_two_units()

    def _in_two_units(self) -> list[Expr] | None:
        unit = smaller_unit(self.thing.unit)
        if unit is None:
            return None
        dens = [d for d in self.limits.denominators if unit[1] % d == 0] or [2]
        den = self.dice.choice(dens)
        amount = self.dice.randint(1, max(1, min(self.limits.largest_whole, 6))) + Fraction(
            self.dice.randint(0, den - 1), den
        )
        step = 5 if unit[1] % 100 == 0 else 1
        less = step * self.dice.randint(1, max(1, int(amount * unit[1]) // step - 1))
        return [mixed(amount), Whole(min(less, unit[1] - step))]

    def with_start(self, pattern: Pattern, used: list[Expr]) -> list[Expr] | None:
        """*used* amounts with what there is at the start before them, and the number that shares the rest after."""
        goes = (
            value(used[0]) * value(used[1]) + value(used[2])
            if pattern.slots == "qcqq"
            else sum([value(n) for n in used], Fraction(0))
        )
        whole = ceil(goes) + self.dice.randint(0, 3)
        den = self.dice.choice(self.limits.denominators)
        start: Expr = (
            Whole(whole) if self.dice.random() < 0.6 else mixed(whole + Fraction(self.dice.randint(1, den - 1), den))
        )
        if value(start) <= goes:
            return None
        return [start, *used, *([Whole(self.dice.randint(2, 6))] if pattern.slots == "qqqc" else [])]
