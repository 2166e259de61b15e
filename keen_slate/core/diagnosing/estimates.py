"""A pupil's estimate, judged: whether the class's rule gives it, and if not, what may have happened (common
practice).
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from itertools import product
from typing import Literal

from ..expressions.sentences import Rich
from ..expressions.text import DecimalMark
from ..expressions.tree import Dec, Expr, Frac, Mixed, Sum, Whole, mixed, value
from ..expressions.walks import map_numbers
from ..judging.estimate import estimated, rounded_to, rule_of, rules_in
from ..worked import Worked
from .answers import read_answer

EstimateWord = Literal["fits", "explained", "near", "too-far", "unreadable"]

# What may have happened, by code.
CODES: dict[str, str] = {
    "whole-forgotten": "Rounded one number without its <whole>.",
    "truncated": "Cut the numbers off instead of rounding them.",
    "rounded-after": "Worked the problem first and rounded the answer.",
    "wrong-benchmark": "Rounded one number to a neighbour of its nearest benchmark.",
    "estimate-operation": "Used the other operation: added for subtracted, or the other way round.",
}


@dataclass(frozen=True, slots=True)
class EstimateVerdict:
    """What can be said of an estimate; *codes* only where it is `explained`."""

    verdict: EstimateWord
    value: Fraction | None = None
    codes: tuple[str, ...] = ()
    reason: Rich = ()


def judge_estimate(worked: Worked, typed: str, mark: DecimalMark = ".") -> EstimateVerdict | None:
    """The verdict on an estimate as a pupil wrote it; None where the problem has none.

    >>> from ..worked import work_text
    >>> worked = work_text("7 1/4 - 3 5/6")
    >>> judge_estimate(worked, "3 1/2").verdict, judge_estimate(worked, "11 1/2").codes
    ('fits', ('estimate-operation',))
    """
    expr = estimated(worked.working)
    if expr is None or worked.estimate is None:
        return None
    answer = read_answer(typed, mark)
    if answer is None:
        return EstimateVerdict("unreadable", reason=("This is not one written number.",))
    number = value(answer.number)
    if worked.estimate.rule == "between":
        return _between(worked, number)
    return _Rounding(worked, expr).verdict(number)


def _between(worked: Worked, number: Fraction) -> EstimateVerdict:
    about = worked.estimate
    assert about is not None and about.low is not None and about.high is not None, "the rule between has both"
    inside = about.low <= number <= about.high
    ends: Rich = ("The answer lies between ", mixed(about.low), " and ", mixed(about.high), ".")
    return EstimateVerdict("fits" if inside else "too-far", number, (), ends)


class _Rounding:
    """The numbers of a problem, rounded in every way that a pupil may round them."""

    def __init__(self, worked: Worked, expr: Expr) -> None:
        self.working = worked.working
        self.about = worked.estimate
        self.expr = expr
        rule = rule_of(worked.working)
        self.rule = "whole" if rule == "between" else rule
        self.unit = Fraction(1, 2) if self.rule == "half" else Fraction(1)
        self.numbers: list[Expr] = []
        map_numbers(expr, self._note)
        self.right = [near[0] for near in self.rounded(self.rule, (self.working.ways.ties,))]

    def _note(self, number: Expr) -> Expr:
        self.numbers.append(number)
        return number

    def rounded(self, rule: str, ties: Sequence[str]) -> list[list[Expr]]:
        """Each number to its benchmark, where the rule of the whole is *rule*; the ways of a tie after each other."""
        every = zip(self.numbers, rules_in(self.expr, rule), strict=True)
        return [list(dict.fromkeys([rounded_to(n, own, way)[0] for way in ties])) for n, own in every]

    def round(self, number: Expr, ties: str) -> Expr:
        """A number of no place in the problem, to the benchmark of the class's rule."""
        return rounded_to(number, self.rule, ties)[0]

    def of(self, rounded: list[Expr], expr: Expr | None = None) -> Fraction | None:
        """What the problem makes with these numbers in the place of its own; None where that divides by zero."""
        left = iter(rounded)
        try:
            return value(map_numbers(expr or self.expr, lambda _: next(left)))
        except ZeroDivisionError:
            return None

    def with_one(self, changes: Callable[[Expr], list[Expr]]) -> Iterator[Fraction | None]:
        """The results with one number rounded otherwise, the others rightly."""
        for i, number in enumerate(self.numbers):
            for changed in changes(number):
                yield self.of([*self.right[:i], changed, *self.right[i + 1 :]])

    # Verdict -----------------------------------------------------------------------------------------------------

    def verdict(self, number: Fraction) -> EstimateVerdict:
        for rule in dict.fromkeys([self.rule, "whole", "half"]):
            if any(self.of(list(near)) == number for near in product(*self.rounded(rule, ("up", "down")))):
                by = (
                    "The class's rule gives it."
                    if rule == self.rule
                    else f"Each number to the nearest {rule} gives it."
                )
                return EstimateVerdict("fits", number, (), self._gives_away(number) or (by,))
        codes = tuple([code for code, results in self._wrong() if number in results])
        if codes:
            return EstimateVerdict("explained", number, codes, (" ".join([CODES[code] for code in codes]),))
        if self._is_near(number):
            return EstimateVerdict("near", number, (), ("Near enough, though the class's rule does not give it.",))
        return EstimateVerdict("too-far", number, (), ("Too far from the answer to be an estimate of it.",))

    def _gives_away(self, number: Fraction) -> Rich:
        """Says that an estimate is the answer itself, and offers the coarser rule where there is one."""
        if number != self.working.value:
            return ()
        about = self.of([near[0] for near in self.rounded("whole", (self.working.ways.ties,))])
        if self.rule == "whole" or about is None or about == number:
            return ("This rule gives the answer itself away.",)
        return ("This rule gives the answer itself away. To the nearest <whole> it is about ", mixed(about), ".")

    def _wrong(self) -> Iterator[tuple[str, set[Fraction | None]]]:
        """What each way that goes wrong makes."""
        yield "whole-forgotten", set(self.with_one(self._without_whole))
        yield (
            "truncated",
            {self.of([self._cut_off(n, unit) for n in self.numbers]) for unit in (self.unit, Fraction(1))},
        )
        yield "rounded-after", {value(self.round(mixed(self.working.value), ties)) for ties in ("up", "down")}
        yield "wrong-benchmark", set(self.with_one(self._neighbours))
        yield "estimate-operation", {self.of(self.right, other) for other in _other_operations(self.expr)}

    def _without_whole(self, number: Expr) -> list[Expr]:
        if isinstance(number, Mixed):
            return [self.round(Frac(number.num, number.den), self.working.ways.ties)]
        if isinstance(number, Dec) and number.whole:
            return [self.round(replace(number, whole=0), self.working.ways.ties)]
        return []

    def _cut_off(self, number: Expr, unit: Fraction) -> Expr:
        return mixed(value(number) // unit * unit)

    def _neighbours(self, number: Expr) -> list[Expr]:
        if isinstance(number, Whole):
            return []
        near = value(self.round(number, self.working.ways.ties))
        return [mixed(n) for n in (near - self.unit, near + self.unit) if n >= 0]

    def _is_near(self, number: Fraction) -> bool:
        """Within the bound of the answer; where there is none, not less than half of the estimate and not more than
        twice as much.
        """
        about = self.about
        assert about is not None and about.total is not None, "an interval was judged before"
        if about.bound is not None:
            return abs(number - self.working.value) <= about.bound
        low, high = sorted([about.total * Fraction(1, 2), about.total * 2])
        return low <= number <= high


def _other_operations(expr: Expr) -> Iterator[Expr]:
    """A sum with one of its operations turned round."""
    if isinstance(expr, Sum):
        for i, (operator, term) in enumerate(expr.rest):
            turned: tuple[Literal["+", "-"], Expr] = ("-" if operator == "+" else "+", term)
            yield Sum(expr.first, (*expr.rest[:i], turned, *expr.rest[i + 1 :]))
