"""Misconceptions about which operation is meant, how far a calculation goes, and the sign of what comes out."""

from __future__ import annotations

from ...expressions.sentences import Rich
from ...expressions.tree import Bracket, Expr, Neg, Operator, Sum, value
from ...expressions.walks import children
from ...reading.kinds import Kind
from .order import order_as_told, written
from .registry import Case, Wrong, misconception

_SUMS: tuple[Kind, ...] = ("add-subtract", "decimal", "story")  # in a story it is another: `wrong-operation`


def _all_by(case: Case, operator: Operator, other: Operator) -> Wrong | None:
    """A sum all of one operation, worked with the other; None for anything else, and where that goes below zero."""
    expr = case.working.problem.expr
    if case.story is not None or not isinstance(expr, Sum) or any(one != operator for one, _ in expr.rest):
        return None
    if any(isinstance(number, Neg) for number in children(expr)):
        return None
    if other == "-" and len(expr.rest) > 1:
        return None
    turned = Sum(expr.first, tuple([(other, number) for _, number in expr.rest]))
    if value(turned) < 0:
        return None
    answer = written(case, value(turned))
    return Wrong(answer, ((turned, " = ", answer),))


@misconception(
    "added-for-subtracted",
    name="added where it is to be subtracted",
    reason="Does what the last problems asked for, or does not look at the sign.",
    question="Which sign stands between the numbers? Does it become more or less?",
    kinds=_SUMS,
    example="3 1/2 - 1 1/4",
    often=1,
)
def added_for_subtracted(case: Case) -> Wrong | None:
    return _all_by(case, "-", "+")


@misconception(
    "subtracted-for-added",
    name="subtracted where it is to be added",
    reason="Does what the last problems asked for, or does not look at the sign.",
    question="Which sign stands between the numbers? Does it become more or less?",
    kinds=_SUMS,
    example="3 1/2 + 1 1/4",
    often=1,
)
def subtracted_for_added(case: Case) -> Wrong | None:
    return _all_by(case, "+", "-")


@misconception(
    "sign-lost",
    name="lost the sign",
    reason="Works with the sizes of the numbers and forgets that the result lies below zero.",
    question="On which side of zero does the answer lie?",
    kinds=("add-subtract", "decimal", "order", "multiply-divide"),
    example="1/2 - 3/4 - 1/8",
    often=3,
)
def sign_lost(case: Case) -> Wrong | None:
    answer = case.working.answer
    of_two_numbers = case.working.problem.kind != "order" and order_as_told(case) is not None  # it is that
    if not isinstance(answer, Neg) or of_two_numbers:
        return None
    return Wrong(answer.inner, ((answer, " is taken for ", answer.inner),))


@misconception(
    "stopped-after-bracket",
    name="stopped after the bracket",
    reason="Works what stands in the bracket, and takes that for the answer.",
    question="What is still to be done with what you found?",
    kinds=("order",),
    example="(3 + 1/2) × 2",
)
def stopped_after_bracket(case: Case) -> Wrong | None:
    inner = _bracket(case.working.problem.expr)
    if inner is None:
        return None
    answer = written(case, value(inner))
    line: Rich = (inner, " = ", answer)
    return Wrong(answer, (line,))


def _bracket(expr: Expr) -> Expr | None:
    """What stands in the only bracket of *expr*, itself none; None where there is none, or more than one."""
    found = [part for part in children(expr) if isinstance(part, Bracket)]
    if len(found) != 1 or not children(found[0].inner):
        return None
    return found[0].inner
