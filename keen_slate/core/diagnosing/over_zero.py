"""An answer over zero, like 2/0 for 3/4 - 1/4: no number, and yet it shows how a pupil came to it."""

from __future__ import annotations

import re

from ..expressions.sentences import Rich
from ..expressions.terms import parts, unsigned_terms
from ..expressions.tree import Whole
from ..working.proof import Working

ACROSS = "add-across"
_OVER_ZERO = re.compile(r"\s*(?:(\d{1,6})\s+)?(\d{1,6})\s*/\s*0+\s*")


def taken_across(working: Working, typed: str) -> tuple[Rich, ...] | None:
    """The lines of who takes tops from tops and bottoms from bottoms, where that gives what was *typed*, over zero;
    else None.
    """
    found = _OVER_ZERO.fullmatch(typed)
    if found is None or working.problem.kind != "add-subtract":
        return None
    terms = unsigned_terms(working.problem.expr)
    fractions = [(sign, *parts(term)[1:]) for sign, term in terms if not isinstance(term, Whole)]
    whole = sum(sign * parts(term)[0] for sign, term in terms)
    top, bottom = [sum(one[0] * one[i] for one in fractions) for i in (1, 2)]
    if len(fractions) < 2 or bottom or (whole, top) != (int(found[1] or 0), int(found[2])):
        return None
    (_, n, d), *rest = fractions
    tops, bottoms = [
        "".join([str(first), *[f" {'+' if one[0] > 0 else '-'} {one[i]}" for one in rest]])
        for first, i in ((n, 1), (d, 2))
    ]
    return (f"{tops} = {top}",), (f"{bottoms} = {bottom}",)
