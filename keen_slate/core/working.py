"""A working: steps that lead from a problem to its answer, each of the same value as the one before.

Building a `Working` evaluates every expression in it exactly and compares. A mismatch is a fault in the
core and raises `UnequalStepError`; it can never be shown to anybody.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from fractions import Fraction

from .errors import LimitError
from .numbers import (
    MAX_DIGITS,
    TOO_LARGE,
    Bracket,
    Expr,
    Frac,
    Mixed,
    Neg,
    Operator,
    Sum,
    Whole,
    largest_integer,
    ratio,
)
from .reading import Problem, labelled
from .ways import Ways
from .wording import TERM_ROLES, Rich, Roles, text


class UnequalStepError(AssertionError):
    """A step changed the value: a fault in the core, never a fault of what was typed."""


@dataclass(frozen=True, slots=True)
class Step:
    """One step: *before* becomes *after*, of the same value.

    *title* and *reason* are sentences, *lines* the jottings beside it, *spoken* what the teacher says,
    *roles* the inks of the terms of *after*, *facts* the multiplications it rests on.
    """

    kind: str
    before: Expr
    after: Expr
    title: Rich
    reason: Rich
    lines: tuple[Rich, ...] = ()
    roles: Roles = ()
    facts: tuple[tuple[int, int], ...] = ()


@dataclass(frozen=True, slots=True)
class Working:
    """A proven working. *raw* is the last number before tidying and simplifying, for the marks on form.

    *notes* say where a way did not fit and another was used; *largest_number* and the exact *value* are found while it is proven.
    """

    problem: Problem
    ways: Ways
    steps: tuple[Step, ...]
    answer: Expr
    raw: Mixed | Frac | Whole
    used_denominator: int | None
    notes: tuple[str, ...] = ()
    largest_number: int = field(init=False)
    value: Fraction = field(init=False)

    def __post_init__(self) -> None:
        """Prove the working. Raises `UnequalStepError`, and `LimitError` for a number past the limits."""
        n, d = ratio(self.problem.expr)
        here = self.problem.expr
        largest = largest_integer(here)
        for step in self.steps:
            if step.before is not here and step.before != here:
                raise UnequalStepError(f"{text(step.before)} does not follow {text(here)}")
            m, e = ratio(step.after)
            if n * e != m * d:
                raise UnequalStepError(f"{text(step.before)} is not {text(step.after)}")
            largest = max(largest, largest_integer(step.after))
            here = step.after
        if here != self.answer:
            raise UnequalStepError(f"the steps end in {text(here)}, not in {text(self.answer)}")
        if largest >= TOO_LARGE:
            raise too_large(self.problem.text)
        object.__setattr__(self, "largest_number", largest)
        object.__setattr__(self, "value", Fraction(n, d))

    @property
    def problem_roles(self) -> Roles:
        """The inks of the problem's terms."""
        return roles_for(_terms(self.problem.expr))

    @property
    def answer_text(self) -> str:
        """The answer with its label."""
        return labelled(text(self.answer), self.problem.label)


def too_large(problem: str) -> LimitError:
    """The refusal of a problem whose working meets a number of more than `MAX_DIGITS` digits."""
    return LimitError(
        f"The working would need a number of more than {MAX_DIGITS} digits.",
        0,
        len(problem),
        "Use fewer terms, or denominators that share factors.",
    )


class Scribe:
    """Writes steps down. What is worked on may stand in a larger expression: after a sign, before other terms."""

    def __init__(self, start: Expr, ways: Ways) -> None:
        self.now = start
        self.ways = ways
        self.notes: list[str] = []  # where a way did not fit, and what was done instead
        self.steps: list[Step] = []
        self.negative = False
        self.raw: Mixed | None = None  # the last number before its improper part is tidied
        self.rest: tuple[tuple[Operator, Expr], ...] = ()
        self.rest_roles: Roles = ()

    def write(
        self,
        kind: str,
        local: Expr,
        title: Rich,
        reason: Rich,
        lines: tuple[Rich, ...] = (),
        roles: Roles = (),
        facts: tuple[tuple[int, int], ...] = (),
    ) -> None:
        """Add the step that turns what is being worked on into *local*; nothing is added if it is that already."""
        after = self._around(local)
        if after == self.now:
            return
        ink: Roles = ("",)
        plain = ink * (_terms(local) - len(roles))
        self.steps.append(Step(kind, self.now, after, title, reason, lines, roles + plain + self.rest_roles, facts))
        self.now = after

    def _around(self, local: Expr) -> Expr:
        if self.negative:
            local = Neg(Bracket(local) if isinstance(local, Sum) else local)
        if not self.rest:
            return local
        if isinstance(local, Sum):
            return Sum(local.first, local.rest + self.rest)
        return Sum(local, self.rest)


def _terms(expr: Expr) -> int:
    return 1 + len(expr.rest) if isinstance(expr, Sum) else 1


def roles_for(count: int) -> Roles:
    """The inks of *count* terms; they start again after the last."""
    return tuple(TERM_ROLES[i % len(TERM_ROLES)] for i in range(count))


Method = Callable[[Problem, Ways], Working]
