"""What a pupil's working has led to so far: the problem's own line of thought, and calculations on the side, each a
thread.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import combinations, permutations

from ..expressions.tree import Bracket, Expr, Frac, Mixed, Neg, Product, Sum, Whole, value
from ..expressions.walks import children, leaves
from ..reading.problem import Problem

_MOST_TERMS = 8  # of a sum whose parts are looked for


@dataclass
class Thread:
    """A line of thought: what its last line says, the *value* that the next one has to have, and the one that it would
    have without a mistake.

    One of its *own* began with a true statement to which nothing leads.
    """

    written: Problem
    value: Fraction
    true: Fraction
    own: bool = False


@dataclass(frozen=True, slots=True)
class _Seen:
    """What can be seen of a number: itself, its whole, its fraction, its numerator over its denominator."""

    size: Fraction
    whole: Fraction | None
    part: Fraction | None
    top: tuple[int, int] | None


def _seen(number: Expr) -> _Seen:
    size = value(number)
    if isinstance(number, Mixed):
        return _Seen(size, Fraction(number.whole), Fraction(number.num, number.den), (number.num, number.den))
    if isinstance(number, Frac):
        return _Seen(size, Fraction(0), size, (number.num, number.den))
    return _Seen(size, size if isinstance(number, Whole) else None, None, None)


class Threads:
    """The threads of a working; the first is that of the problem itself."""

    def __init__(self, start: Problem) -> None:
        self.all = [Thread(start, value(start.expr), value(start.expr))]
        self._sources: list[Expr] = []
        self._forms: dict[Fraction, list[Expr]] = {}
        self._found: set[int] = set()  # whole numbers that calculations on the side have found
        self.learn(start.expr)

    @property
    def main(self) -> Thread:
        """The problem's own line of thought."""
        return self.all[0]

    @property
    def side(self) -> list[Thread]:
        """The threads on the side, the one that was touched last first."""
        return list(reversed(self.all[1:]))

    def learn(self, *written: Expr) -> None:
        """Remember what a line says: later lines may take parts of it, and its numbers in place of equal ones."""
        for expr in written:
            self._sources += _wholes(expr)
            for number in leaves(expr):
                forms = self._forms.setdefault(value(number), [])
                if number not in forms:
                    forms.append(number)

    def found(self, expr: Expr) -> None:
        """Remember what a calculation on the side comes to."""
        size = value(expr)
        if size.denominator == 1:
            self._found.add(int(size))

    def continued(self, size: Fraction) -> Thread | None:
        """The thread that a line of this size goes on with, the problem's own before the others."""
        return next((one for one in (self.main, *self.side) if one.value == size), None)

    def joined(self, size: Fraction) -> bool:
        """Whether the problem comes to this *size* with the mistakes that were made on the side."""
        off = [one for one in self.side if one.value != one.true]
        for count in range(1, len(off) + 1):
            for some in combinations(off, count):
                changed = sum([one.value - one.true for one in some], Fraction(0))
                if size in (self.main.value + changed, self.main.value - changed):
                    return True
                if count == 1 and some[0].true and size == self.main.value * some[0].value / some[0].true:
                    return True
        return False

    def open(self, written: Problem, current: Expr, true: Fraction | None = None) -> Thread:
        """A new thread that began with *written* and stands at *current*."""
        begun = value(written.expr) if true is None else true
        self.all.append(Thread(Problem(current, written.label, written.kind), value(current), begun))
        return self.all[-1]

    def touch(self, thread: Thread) -> None:
        """A thread on the side is the one that was worked on last."""
        if thread is not self.main:
            self.all.remove(thread)
            self.all.append(thread)

    def together(self, expr: Expr) -> bool:
        """Whether a calculation, or a mixed number, is made of what threads on the side have come to."""
        sizes = {one.value for one in self.side}
        if isinstance(expr, Mixed):
            return {Fraction(expr.whole), Fraction(expr.num, expr.den)} <= sizes
        numbers = [value(one) for one in leaves(expr)]
        return len(numbers) > 1 and set(numbers) <= sizes | {self.main.value}

    # Parts of what is known -------------------------------------------------------------------------------------------

    def leads_to(self, expr: Expr) -> bool:
        """Whether a calculation, or a number, is a part of what was written before, or of a number in it."""
        if isinstance(expr, Bracket):
            return self.leads_to(expr.inner)
        if isinstance(expr, (Sum, Product)):
            alike = [
                source for source in self._sources if isinstance(source, (Sum, Product)) and type(source) is type(expr)
            ]
            return any(_is_part(_signed(expr), _signed(source), self._kinds) for source in alike)
        return self._is_known(expr)

    def _is_known(self, number: Expr) -> bool:
        """Whether a lone number is one that was written, in this form or another; or is made of tops that were
        found.
        """
        if value(number) in self._forms:
            return True
        if not isinstance(number, Frac):
            return False
        bottoms = {one.den for forms in self._forms.values() for one in forms if isinstance(one, (Frac, Mixed))}
        return number.num in self._found and (number.den in bottoms or number.den in self._found)

    def _kinds(self, number: Expr) -> list[_Seen]:
        """What can be seen of a number in each of the forms in which it was written."""
        return [_seen(one) for one in [number, *self._forms.get(value(number), ())]]


_Signed = list[tuple[str, Expr]]
_Kinds = Callable[[Expr], list[_Seen]]


def _wholes(expr: Expr) -> Iterator[Expr]:
    """A calculation, and every calculation in it."""
    if children(expr):
        yield expr.inner if isinstance(expr, (Bracket, Neg)) else expr
    for inner in children(expr):
        yield from _wholes(inner)


def _signed(expr: Sum | Product) -> _Signed:
    """The terms or factors with the operator before each."""
    return [("+" if isinstance(expr, Sum) else "×", expr.first), *expr.rest]


def _is_part(wanted: _Signed, source: _Signed, kinds: _Kinds) -> bool:
    """Whether terms (or factors) are some of those of a *source*: all of them themselves, or all their wholes, or
    fractions, or tops.
    """
    if len(wanted) > len(source) or len(source) > _MOST_TERMS:
        return False
    for chosen in permutations(source, len(wanted)):
        signs = {(sign == "-") != (other == "-") for (sign, _), (other, _) in zip(wanted, chosen, strict=True)}
        divided = any((sign == "÷") != (other == "÷") for (sign, _), (other, _) in zip(wanted, chosen, strict=True))
        if len(signs) == 1 and not divided and _alike([one for _, one in wanted], [one for _, one in chosen], kinds):
            return True
    return False


def _alike(wanted: Sequence[Expr], source: Sequence[Expr], kinds: _Kinds) -> bool:
    sizes = [value(one) for one in wanted]
    seen = [kinds(one) for one in source]
    for pick in ("size", "whole", "part"):
        if all(any(getattr(form, pick) == size for form in forms) for size, forms in zip(sizes, seen, strict=True)):
            return True
    if any(size.denominator != 1 for size in sizes):
        return False
    bottoms = set.intersection(*[{form.top[1] for form in forms if form.top} for forms in seen])
    return any(
        all(any(form.top == (int(size), bottom) for form in forms) for size, forms in zip(sizes, seen, strict=True))
        for bottom in bottoms
    )
