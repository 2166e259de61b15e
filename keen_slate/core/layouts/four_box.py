"""`four-box`: problem, common denominator, equal fractions, solve and simplify."""

from __future__ import annotations

from ..expressions.tree import Whole
from ..expressions.walks import leaves
from ..working.proof import Working
from ..working.step_kinds import COMMON_DENOMINATOR
from .registry import Box, Jotting, Laid, jottings_of, layout
from .rows import expression_row, rows_of

# The squares that fit into half a paper, beside the frame of a box.
BOX_COLUMNS = 12
BOXED = ("add-subtract", "simplify")  # the kinds of problem that boxes are drawn for


@layout("four-box")
def four_box(working: Working) -> Laid | None:
    """Four boxes; what comes before the common denominator stands with the problem; the solution begins with the like
    fractions.
    """
    if working.problem.kind not in BOXED:
        return None
    problem = expression_row(None, working.problem.expr, working.problem_roles, "", working, BOX_COLUMNS)
    kinds = [step.kind for step in working.steps]
    common = kinds.index(COMMON_DENOMINATOR) if COMMON_DENOMINATOR in kinds else None
    first = common if common is not None else 0
    before, after = list(range(first)), list(range(first + (common is not None), len(kinds)))
    jottings = jottings_of(working, [common] if common is not None else [])
    # The rows of multiples (text alone) find the denominator; the scaled fractions are the equal fractions.
    finding = tuple([one for one in jottings if all(isinstance(part, str) for part in one.rich)])
    scaling = tuple([one for one in jottings if one not in finding])
    none = Jotting(("The pieces are the same size already.",))
    fits = Jotting((f"{working.used_denominator} fits every <denominator>.",))
    denominator = (none,) if common is None else finding or (fits,)
    solved = rows_of(working, [*([common] if common is not None else []), *after], BOX_COLUMNS)
    return Laid(
        boxes=(
            Box("Problem", "", (problem, *rows_of(working, before, BOX_COLUMNS)), ()),
            Box("Common <denominator>", "", (), denominator),
            Box("Equal fractions", "", (), (*scaling, *_unchanged(working, common)) if common is not None else (none,)),
            Box("Solve and simplify", "", solved, ()),
        )
    )


def _unchanged(working: Working, common: int) -> list[Jotting]:
    """A row for each fraction that has the common denominator already."""
    before, after = [leaves(expr) for expr in (working.steps[common].before, working.steps[common].after)]
    kept = [n for n in dict.fromkeys(before) if n in after and not isinstance(n, Whole)]
    return [Jotting((n, " = ", n)) for n in kept]
