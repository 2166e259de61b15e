"""Like fractions over one bar, before they are counted: 5/20 + 8/20 = (5 + 8)/20."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from ...expressions.spoken import parts_name
from ...expressions.tree import Expr, Frac, Operator, OverBar, Sum, Whole
from ..scribe import Scribe
from ..step_kinds import OVER_ONE_BAR


def over_one_bar(
    scribe: Scribe, fractions: Sequence[Frac], around: Callable[[Expr], Expr], sign: Operator = "+"
) -> None:
    """Write the line with *fractions* of one denominator over one bar, where the class does so; *around* puts in what
    stands beside.
    """
    if scribe.ways.one_bar == "no" or len(fractions) < 2:
        return
    den = fractions[0].den
    top = Sum(Whole(fractions[0].num), tuple([(sign, Whole(f.num)) for f in fractions[1:]]))
    scribe.write(
        OVER_ONE_BAR,
        around(OverBar(top, den)),
        (f"{'Both' if len(fractions) == 2 else 'All'} are {parts_name(den, True)}: write one bar.",),
    )
