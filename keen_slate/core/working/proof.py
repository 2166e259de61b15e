"""A working: steps that lead from a problem to its answer, each of the same value as the one before.

Building a `Working` evaluates every expression in it exactly and compares. A mismatch is a fault in the
core and raises `UnequalStepError`; it can never be shown to anybody.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from fractions import Fraction

from ..errors import LimitError
from ..expressions.text import text
from ..expressions.tree import Blank, Equation, Expr, Frac, Mixed, Whole, ratio, value
from ..expressions.typeset import Roles, roles_for
from ..expressions.walks import agrees, fillings, has_blank, largest_integer, leaves, map_numbers
from ..limits import MAX_DIGITS, TOO_LARGE
from ..reading.problem import Problem, labelled
from ..reading.units import counted_in
from ..ways.settings import Ways
from .step import Step
from .step_kinds import INVERSE, THEN


class UnequalStepError(AssertionError):
    """A step changed the value: a fault in the core, never a fault of what was typed."""


@dataclass(frozen=True, slots=True)
class Working:
    """A proven working. *raw* is the last number before tidying and simplifying, for the marks on form.

    *notes* say where a way did not fit and another was used. *start_roles* are the inks of the problem's numbers where
    they are not those of its terms. A problem with blanks has its *filled* equation and its first *answers*; *count*
    says how many there are, None where they are too many to be counted. A story has its calculations as *parts*, worked
    one after the other; its steps are theirs. *largest_number* and the exact *value* (of the number in the blank, or of
    the sides) are found while it is proven.
    """

    problem: Problem
    ways: Ways
    steps: tuple[Step, ...]
    answer: Expr
    raw: Mixed | Frac | Whole
    used_denominator: int | None
    notes: tuple[str, ...] = ()
    start_roles: Roles = ()
    filled: Equation | None = None
    answers: tuple[Expr, ...] = ()
    count: int | None = 1
    parts: tuple[Working, ...] = ()
    largest_number: int = field(init=False)
    value: Fraction = field(init=False)

    def __post_init__(self) -> None:
        """Prove the working. Raises `UnequalStepError`, and `LimitError` for a number past the limits."""
        n, d = self._start()
        here = self.start
        largest = largest_integer(here)
        later = iter(self.parts[1:])
        for step in self.steps:
            if step.before is not here and step.before != here:
                raise UnequalStepError(f"{text(step.before)} does not follow {text(here)}")
            if step.kind is THEN:
                here = self._begun(next(later, None), step)
                n, d = ratio(here)
                continue
            m, e = (n, d) if isinstance(step.after, Equation) else ratio(step.after)
            if isinstance(step.after, Equation) and not self._holds(step.after):
                raise UnequalStepError(f"{text(step.after)} is not {self.filled and text(self.filled)}")
            if n * e != m * d:
                raise UnequalStepError(f"{text(step.before)} is not {text(step.after)}")
            largest = max(largest, largest_integer(step.after))
            here = step.after
        if self.parts and n * ratio(self.problem.expr)[1] != d * ratio(self.problem.expr)[0]:
            raise UnequalStepError(f"the calculations end in {n}/{d}, not in {text(self.problem.expr)}")
        if here != self.answer:
            raise UnequalStepError(f"the steps end in {text(here)}, not in {text(self.answer)}")
        if largest >= TOO_LARGE:
            raise too_large(self.problem.text)
        object.__setattr__(self, "largest_number", largest)
        object.__setattr__(self, "value", Fraction(n, d))

    @staticmethod
    def _begun(part: Working | None, step: Step) -> Expr:
        """The calculation that a step goes on to. Raises `UnequalStepError` where it is not that of the next *part*."""
        if part is None or step.after != part.problem.expr:
            raise UnequalStepError(f"{text(step.after)} is not the next calculation")
        return step.after

    def _holds(self, equation: Equation) -> bool:
        """Whether *equation* is the filled one with blanks in it, or is true with the answer in its one blank."""
        if agrees(equation, self.filled):
            return True
        if isinstance(self.answer, Equation):
            return False
        sides = [map_numbers(side, lambda n: self.answer if isinstance(n, Blank) else n) for side in equation.sides]
        alone = sum(isinstance(n, Blank) for n in leaves(equation)) == 1
        return alone and not any(has_blank(side) for side in sides) and len({value(side) for side in sides}) == 1

    def _start(self) -> tuple[int, int]:
        """The value that every line must have. Raises `UnequalStepError` where the filled equation is wrong."""
        if not isinstance(self.problem.expr, Equation):
            return ratio(self.start)
        if self.filled is None or not agrees(self.problem.expr, self.filled) or has_blank(self.filled):
            raise UnequalStepError(f"{text(self.problem.expr)} is not filled")
        if len({value(side) for side in self.filled.sides}) > 1:
            raise UnequalStepError(f"the sides of {text(self.filled)} are not equal")
        if isinstance(self.answer, Equation):
            if self.answer != self.filled:
                raise UnequalStepError(f"{text(self.answer)} is not {text(self.filled)}")
            return ratio(self.filled.sides[0])
        if self.answer not in fillings(self.problem.expr, self.filled):
            raise UnequalStepError(f"{text(self.answer)} is not what stands in the blank")
        return ratio(self.answer)

    @property
    def problem_roles(self) -> Roles:
        """The inks of the problem's terms."""
        if isinstance(self.problem.expr, Equation):
            return ()
        return self.start_roles or roles_for(len(leaves(self.start)))

    @property
    def start(self) -> Expr:
        """What the first line is: the problem, or the first calculation of a story."""
        return self.parts[0].problem.expr if self.parts else self.problem.expr

    @property
    def ending(self) -> Working:
        """The working that the answer comes from: itself, or the last calculation of a story."""
        return self.parts[-1] if self.parts else self

    @property
    def inverse(self) -> Expr | None:
        """What gives a missing number; None where no number is missing."""
        return next((step.after for step in self.steps if step.kind is INVERSE), None)

    @property
    def answer_text(self) -> str:
        """The answer with its label."""
        return labelled(text(self.answer), self.answer_label)

    @property
    def answer_label(self) -> str | None:
        """The label of the answer: a unit word is in the singular or the plural, as the answer needs it."""
        return self.problem.label if isinstance(self.answer, Equation) else counted_in(self.problem.label, self.answer)


def too_large(problem: str) -> LimitError:
    """The refusal of a problem whose working meets a number of more than `MAX_DIGITS` digits."""
    return LimitError(
        f"The working would need a number of more than {MAX_DIGITS} digits.",
        0,
        len(problem),
        "Use fewer terms, or denominators that share factors.",
    )


Method = Callable[[Problem, Ways], Working]
