"""Four options to choose from: the right answer and three likely wrong ones, all of different values (common
practice).
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction

from ..arithmetic.division import as_decimal
from ..expressions.terms import improper
from ..expressions.tree import Dec, Equation, Expr, Frac, Mixed, Neg, mixed, value
from ..judging.slips import slips
from ..worked import Worked

COUNT = 4
LABELS = "ABCD"


@dataclass(frozen=True, slots=True)
class Choice:
    """An option: its letter, the *answer* as it is written, whether it is *right*, and the *codes* that lead to a wrong
    one.
    """

    label: str
    answer: Expr
    right: bool
    codes: tuple[str, ...]
    reason: str = ""


def choices(worked: Worked) -> tuple[Choice, ...]:
    """The options of a problem from the least to the greatest; none where its answer is no single number.

    The wrong ones are the likely answers that are met most often; where they are fewer than three, slips fill the
    places.

    >>> from ..worked import work_text
    >>> [(one.label, one.right) for one in choices(work_text("7 1/4 - 3 5/6"))]
    [('A', False), ('B', True), ('C', False), ('D', False)]
    """
    answer = worked.working.answer
    if isinstance(answer, Equation) or len(worked.working.answers) > 1:
        return ()
    found = {worked.working.value: Choice("", answer, True, ())}
    for wrong in _wrong(worked):
        found.setdefault(value(wrong.answer), wrong)
        if len(found) == COUNT:
            break
    ordered = [found[number] for number in sorted(found)]
    return tuple([
        Choice(label, one.answer, one.right, one.codes, one.reason) for label, one in zip(LABELS, ordered, strict=False)
    ])  # fmt: skip


def _wrong(worked: Worked) -> Iterator[Choice]:
    for likely in worked.likely:
        if likely.status == "reveals":
            codes = (likely.entry.code, *likely.same_as)
            yield Choice("", likely.wrong.answer, False, codes, likely.entry.reason)
    for slip in slips(worked.working):
        if slip.value != worked.working.value and (slip.value >= 0 or worked.working.value < 0):
            yield Choice("", _like(worked.working.answer, slip.value), False, (slip.code,))


def _like(answer: Expr, number: Fraction) -> Expr:
    """*number* written in the form of the *answer*."""
    if number < 0:
        return Neg(_like(answer.inner if isinstance(answer, Neg) else answer, -number))
    decimal = as_decimal(number) if isinstance(answer, Dec) and (number * 10**6).denominator == 1 else None
    if decimal is not None:
        return decimal
    written = mixed(number)
    if isinstance(answer, Frac) and answer.num > answer.den and isinstance(written, Mixed):
        return improper(written)
    return written
