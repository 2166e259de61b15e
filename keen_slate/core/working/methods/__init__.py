"""Ways of working, one file a family. `work` picks the family by the kind of problem."""

from __future__ import annotations

from ...reading.problem import Problem
from ...stories.story import StoryProblem
from ...ways.settings import Ways
from ..proof import Method, Working
from . import add_subtract, decimals, missing, multiply_divide, order, single
from .beside import with_money
from .stories import work_story

FAMILIES: dict[str, Method] = {
    "add-subtract": add_subtract.work,
    "simplify": single.work,
    "convert": single.work,
    "decimal": decimals.work,
    "multiply-divide": multiply_divide.work,
    "order": order.work,
    "equivalent": missing.work_chain,
    "missing": missing.work,
}


def work(problem: Problem, ways: Ways | None = None) -> Working:
    """The working of *problem* in the given *ways* (the defaults, when None), proven step by step.

    Raises `LimitError` when a number on the way is too large, `ReadError` where there is no answer.

    >>> from ...reading.reader import read
    >>> work(read("7 1/4 - 3 5/6 ft")).answer_text
    '3 5/12 ft'
    """
    if isinstance(problem, StoryProblem):
        return work_story(problem, ways or Ways(), work)
    working = FAMILIES[problem.kind](problem, ways or Ways())
    return with_money(working) if problem.kind == "add-subtract" else working
