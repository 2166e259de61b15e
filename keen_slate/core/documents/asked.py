"""What is asked of a number that stands alone, and in which form an answer counts: in words, for every paper and every
test.
"""

from __future__ import annotations

from collections.abc import Mapping

from ..expressions.tree import Dec, Frac, Mixed, Neg, Whole
from ..working.proof import Working

_CONVERTED: Mapping[str, str] = {
    "decimal": "Write as a decimal", "fraction": "Write as a fraction", "mixed": "Write as a <mixed number>",
    "improper": "Write as one fraction",
}  # fmt: skip
_PAST_ONE: Mapping[str, str] = {
    "simplest-mixed": "Write as a <mixed number> in <lowest terms>",
    "simplest-improper": "Write as a fraction in <lowest terms>",
    "mixed-as-left": "Write as a <mixed number>",
}
_COUNTS: Mapping[str, str] = {
    "simplest-mixed": "in <lowest terms>, as a <mixed number> where it is past one",
    "simplest-improper": "as a fraction in <lowest terms>",
    "mixed-as-left": "as a <mixed number> where it is past one",
}


def task_of(working: Working) -> str:
    """What is to be done with a number that stands alone, with terms in angle brackets; "" where the problem says it
    itself.

    >>> from ..worked import work_text
    >>> [task_of(work_text(*one).working) for one in (("5/6", None, None, "decimal"), ("18/24",), ("1/2 + 1/3",))]
    ['Write as a decimal', 'Write in <lowest terms>', '']
    """
    problem = working.problem
    if problem.target is not None:
        return _CONVERTED[problem.target]
    if problem.kind != "simplify":
        return ""
    number = problem.expr.inner if isinstance(problem.expr, Neg) else problem.expr
    if isinstance(number, Dec):
        return "Write it without zeros at the end"
    if isinstance(number, Whole):
        return ""
    if isinstance(number, (Frac, Mixed)) and number.num >= number.den:
        return _PAST_ONE.get(working.ways.answer_form, "Write it with no improper part")
    return "Write in <lowest terms>" if working.ways.wants_lowest_terms else ""


def form_that_counts(working: Working) -> str:
    """In which form the answer of a calculation counts, as it ends a sentence; "" where any form does, or `task_of`
    says it.

    >>> from ..worked import work_text
    >>> form_that_counts(work_text("1/2 + 2/3").working)
    'in <lowest terms>, as a <mixed number> where it is past one'
    """
    ending = working.ending
    judged = ending.problem.kind in ("add-subtract", "multiply-divide", "order", "missing")
    number = ending.answer.inner if isinstance(ending.answer, Neg) else ending.answer
    return _COUNTS.get(working.ways.answer_form, "") if judged and not isinstance(number, Dec) else ""
