"""What pupils do with a story: they choose the wrong operation, stop early, leave a number out, take one that is not
needed.
"""

from __future__ import annotations

from fractions import Fraction

from ...errors import CoreError
from ...expressions.sentences import Rich
from ...expressions.terms import parts as parts_of_number
from ...expressions.tree import Bracket, Expr, Frac, Mixed, Product, Sum, Whole, make, value
from ...reading.problem import problem_of
from ...stories.story import Story, StoryStep
from ...working.methods import work
from .registry import Case, Wrong, misconception


class _Told:
    """A story as a pupil goes through it: its calculations with something changed."""

    def __init__(self, case: Case) -> None:
        self.case = case
        self.working = case.working
        story = case.story
        assert story is not None, "asked for stories alone"
        self.story: Story = story
        self.exprs = [part.problem.expr for part in self.working.parts]

    def instead(self, at: int, expr: Expr) -> Wrong | None:
        """What comes of it where the calculation *at* (by its index) is *expr*; None where it cannot be worked, or is
        below zero.
        """
        answer = self._worked(expr)
        after = None if answer is None else self.case.going_on(at, answer)
        if answer is None or after is None or any(value(one) < 0 for one in [answer, *[part.answer for part in after]]):
            return None
        lines: list[Rich] = [] if expr == answer else [(expr, " = ", answer)]
        lines += [(part.problem.expr, " = ", part.answer) for part in after]
        return Wrong(after[-1].answer if after else answer, tuple(lines))

    def _worked(self, expr: Expr) -> Expr | None:
        if not isinstance(expr, (Sum, Product)):
            return expr
        try:
            return work(problem_of(expr), self.working.ways).answer
        except (CoreError, ZeroDivisionError):
            return None

    def last_sum(self) -> int | None:
        """The last step that adds or subtracts two numbers."""
        return next((i for i in reversed(range(len(self.exprs))) if isinstance(self.exprs[i], Sum)), None)

    def told_numbers(self, step: StoryStep) -> list[int]:
        """The quantities that a step uses, by their indices."""
        return [use.index for use in step.uses if use.kind == "quantity"]


def _operands(expr: Sum | Product) -> list[Expr]:
    return [expr.first, *[inner for _, inner in expr.rest]]


@misconception(
    "wrong-operation",
    name="took the wrong operation",
    reason="Goes by a word like “more” or “left” instead of what happens: adds where it is to be subtracted, or the "
    "reverse.",
    question="Tell what happens without the numbers: does it become more or less?",
    kinds=("story",),
    example="Sedge has 3 1/2 m of rope. That is 1 1/4 m more than Alder has. How much rope has Alder? {compare "
    "smaller: 3 1/2 - 1 1/4}",
    often=3,
)
def wrong_operation(case: Case) -> Wrong | None:
    told = _Told(case)
    at = told.last_sum()
    if at is None:
        return None
    expr = told.exprs[at]
    assert isinstance(expr, Sum), "a sum was looked for"
    operators = {operator for operator, _ in expr.rest}
    if operators == {"-"}:
        return told.instead(at, Sum(expr.first, tuple([("+", inner) for _, inner in expr.rest])))
    if len(expr.rest) == 1 and operators == {"+"}:
        larger, smaller = sorted(_operands(expr), key=value, reverse=True)
        return told.instead(at, Sum(larger, (("-", smaller),)))
    return None


@misconception(
    "stopped-early",
    name="stopped before the last step",
    reason="Answers what the first calculation found, which is not what is asked.",
    question="What does the question ask for? Is that what you have found?",
    kinds=("story",),
    example="Alder has 8 m of rope. He uses 1 1/4 m and 2 2/3 m. How much rope is left?",
    often=3,
)
def stopped_early(case: Case) -> Wrong | None:
    told = _Told(case)
    if len(told.exprs) < 2:
        return None
    before = told.working.parts[-2]
    return Wrong(before.answer, ((before.problem.expr, " = ", before.answer),))


@misconception(
    "number-left-out",
    name="left a number out",
    reason="Uses the first of several amounts and goes on.",
    question="Cross off each number that you have used: is one left?",
    kinds=("story",),
    example="Alder has 8 m of rope. He uses 1 1/4 m and 2 2/3 m. How much rope is left?",
)
def number_left_out(case: Case) -> Wrong | None:
    told = _Told(case)
    for i, step in enumerate(told.story.steps):
        expr = told.exprs[i]
        several = len(told.exprs) > 1 or (isinstance(expr, Sum) and len(expr.rest) > 1)
        if isinstance(expr, Sum) and several and len(told.told_numbers(step)) > 1 and expr.rest[-1][0] == "+":
            shorter = Sum(expr.first, expr.rest[:-1]) if len(expr.rest) > 1 else expr.first
            return told.instead(i, shorter)
    return None


@misconception(
    "counted-once",
    name="counted once what is there several times",
    reason="Takes the size of one for the size of all.",
    question="How many of them are there?",
    kinds=("story",),
    example="A roll holds 4 m of wire. Sedge cuts off 3 pieces of 5/12 m. How many metres of wire are left?",
)
def counted_once(case: Case) -> Wrong | None:
    told = _Told(case)
    for i, step in enumerate(told.story.steps):
        expr = told.exprs[i]
        if isinstance(expr, Product) and expr.rest[0][0] == "×" and all(use.kind == "quantity" for use in step.uses):
            counts = [told.story.quantities[use.index].is_count for use in step.uses]
            if counts.count(False) == 1 and len(counts) == 2:
                return told.instead(i, _operands(expr)[counts.index(False)])
    return None


@misconception(
    "unneeded-used",
    name="used a number that is not needed",
    reason="Takes every number of the story into the calculation.",
    question="What does each number tell? Which of them does the question need?",
    kinds=("story",),
    example="A plank is 3 1/4 m long and weighs 1 kg. Alder saws 1 2/3 m off. How long is what is left?",
)
def unneeded_used(case: Case) -> Wrong | None:
    told = _Told(case)
    if not told.story.unneeded:
        return None
    extra = told.story.quantities[told.story.unneeded[0]].number
    last = len(told.exprs) - 1
    expr = told.exprs[last]
    if not isinstance(expr, Sum):
        return told.instead(last, Sum(Bracket(expr) if isinstance(expr, Product) else expr, (("+", extra),)))
    taken = told.instead(last, Sum(expr.first, (*expr.rest, (expr.rest[-1][0], extra))))
    return taken or told.instead(last, Sum(expr.first, (*expr.rest, ("+", extra))))


@misconception(
    "unit-not-changed",
    name="did not change the unit",
    reason="Combines numbers of two units as they stand.",
    question="What is each number counted in?",
    kinds=("story",),
    example="A plank is 92 1/2 m long. Alder saws 75 cm off. How many centimetres are left?",
)
def unit_not_changed(case: Case) -> Wrong | None:
    told = _Told(case)
    for i, step in enumerate(told.story.steps):
        if any(use.kind == "units" for use in step.uses) and told.told_numbers(step):
            (index, *_) = told.told_numbers(step)
            return told.instead(i, told.story.quantities[index].number)
    return None


@misconception(
    "shared-wrong-way",
    name="divided the wrong way round",
    reason="Divides the number of groups by the amount, often the larger number by the smaller.",
    question="What is shared, and among how many?",
    kinds=("story",),
    example="Four children share 2 2/3 kg of clay equally. How much clay does each child get?",
)
def shared_wrong_way(case: Case) -> Wrong | None:
    told = _Told(case)
    for i, expr in enumerate(told.exprs):
        units = any(use.kind == "units" for use in told.story.steps[i].uses)
        if isinstance(expr, Product) and [operator for operator, _ in expr.rest] == ["÷"] and not units:
            return told.instead(i, Product(expr.rest[0][1], (("÷", expr.first),)))
    return None


def in_told_order(case: Case) -> Wrong | None:
    """The difference of a story that tells the smaller number first: each part the smaller from the larger, whichever
    is on top.
    """
    told = _Told(case)
    for i, step in enumerate(told.story.steps):
        expr = told.exprs[i]
        used = told.told_numbers(step)
        if (
            isinstance(expr, Sum)
            and [operator for operator, _ in expr.rest] == ["-"]
            and len(used) == 2
            and used[0] > used[1]
        ):
            first, second = expr.rest[0][1], expr.first
            difference = _part_by_part(first, second)
            if difference is None or value(difference) == value(expr):
                return None
            after = told.instead(i, difference)
            return after and Wrong(after.answer, ((first, " - ", second, " taken for ", difference), *after.lines))
    return None


def _part_by_part(first: Expr, second: Expr) -> Expr | None:
    """Wholes and fractions subtracted apart, always the smaller from the larger; None where there are not both."""
    if not all(isinstance(n, (Whole, Frac, Mixed)) for n in (first, second)):
        return None
    (a, n, d), (b, m, e) = parts_of_number(first), parts_of_number(second)
    whole, rest = abs(a - b), abs(Fraction(n, d) - Fraction(m, e))
    return make(whole, rest.numerator, rest.denominator)
