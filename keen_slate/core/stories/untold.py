"""Numbers of a calculation that stand in no text, with what they are: the whole, two sides, a dozen, how many there
are. Common practice.
"""

from __future__ import annotations

import re
from fractions import Fraction

from ..expressions.text import text as write
from ..expressions.tree import Expr, Frac, Product, Sum, value
from ..expressions.walks import leaves
from .story import Story

NOT_TOLD = "not told in the story"


def untold_in(story: Story) -> list[tuple[str, str]]:
    """The numbers that the text of a *story* does not tell, each as it is written, and what it is.

    >>> from .reading import read_story
    >>> untold_in(read_story("5/8 of the wall is painted. What fraction of it is not painted?").story)
    [('1', 'the whole')]
    """
    found: dict[str, str] = {}
    for i, step in enumerate(story.steps):
        for leaf, use in zip(leaves(step.expr), step.uses, strict=True):
            if use.kind == "untold":
                found.setdefault(write(leaf), _name(story, i, leaf))
    return list(found.items())


def _name(story: Story, i: int, number: Expr) -> str:
    size, said = value(number), story.text
    expr = story.steps[i].expr
    if size == 1 and isinstance(expr, Sum):
        return "the whole"
    if size == 2:
        for pattern, name in (
            (r"\btwice\b|\bdouble", "twice"),
            (r"\brectang", "two sides of each length"),
            (r"\bboth\b", "both"),
        ):
            if re.search(pattern, said, re.I):
                return name
    if size == 4 and re.search(r"\bsquare\b", said, re.I):
        return "the sides of the square"
    if size == 12 and re.search(r"\bdozen", said, re.I):
        return "a dozen"
    if isinstance(expr, Product) and expr.rest[-1][0] == "÷" and size == _summed(story, i):
        return "how many there are"
    if isinstance(expr, Sum) and isinstance(number, Frac) and size < 1 and _shares_out(story, i):
        return "what is missing to a whole one" if expr.rest[-1][0] == "+" else "what makes no whole one"
    return NOT_TOLD


def _summed(story: Story, i: int) -> Fraction:
    """How many amounts the sum before a step has."""
    before = story.steps[i - 1].expr if i else None
    return Fraction(1 + len(before.rest)) if isinstance(before, Sum) else Fraction(0)


def _shares_out(story: Story, i: int) -> bool:
    """Whether the step before finds how many there would be."""
    before = story.steps[i - 1].expr if i else None
    return isinstance(before, Product) and before.rest[-1][0] == "÷"
