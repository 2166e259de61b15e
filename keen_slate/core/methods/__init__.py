"""Ways of working, one file a family. `work` picks the family by the kind of problem."""

from __future__ import annotations

from ..errors import NotYetError
from ..kinds import KIND_NAMES
from ..reading import Problem
from ..ways import Ways
from ..working import Method, Working
from . import add_subtract, single

FAMILIES: dict[str, Method] = {
    "add-subtract": add_subtract.work,
    "simplify": single.work,
    "convert": single.work,
}


def work(problem: Problem, ways: Ways | None = None) -> Working:
    """The working of *problem* in the given *ways* (the defaults, when None), proven step by step.

    Raises `LimitError` when a number on the way is too large, `NotYetError` for a kind not worked yet.

    >>> from ..reading import read
    >>> work(read("7 1/4 - 3 5/6 ft")).answer_text
    '3 5/12 ft'
    """
    family = FAMILIES.get(problem.kind)
    if family is None:
        raise NotYetError(
            f"This is {KIND_NAMES[problem.kind]}; this version works sums and differences of fractions, "
            "mixed numbers and wholes, and lone numbers.",
            0,
            len(problem.text),
            "Try a problem like 5 1/6 - 2 3/8.",
        )
    return family(problem, ways or Ways())
