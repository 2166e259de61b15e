"""The kinds of step, each declared once: how it is called in documents, what loses its marks, which question a class
asks before it, how its numbers can be pictured, and its usual reason. What a teacher puts in the place of the core's
words is kept under the code.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

# How the numbers of a step can be shown: cut again and beside each other; moved together; crossed off; in columns of
# counters; as jumps only; not at all.
Pictures = Literal["beside", "joining", "taking", "columns", "jumps", "none"]

NEXT = ("What is the next step?", "this")
LINE_LOST = "Lost where this line is missing, or is not equal to the line before."
SAME_SIZE = "The pieces are the same size, so only the <numerators> are subtracted."


@dataclass(frozen=True, slots=True, eq=False)
class StepKind:
    """*code* is its name in documents. *loses* says what loses its marks (common practice).

    A checklist asks *question* and ticks it off with *answer*; steps that follow each other and ask the same share it,
    and those of the codes *along* go with it. *pictures* is the family of its pictures, *totals* whether a total with
    its parts is one of them; *rewrites* says that the step only writes the problem otherwise.
    """

    code: str
    loses: str = LINE_LOST
    question: str = NEXT[0]
    answer: str = NEXT[1]
    along: tuple[str, ...] = ()
    pictures: Pictures = "beside"
    totals: bool = False
    rewrites: bool = False
    reason: str = ""

    def __reduce__(self) -> tuple[object, ...]:
        """How it crosses to another process: there is one of each code there, too."""
        return _named, (self.code,)


STEP_KINDS: dict[str, StepKind] = {}


def _kind(
    code: str, loses: str = LINE_LOST, ask: tuple[str, str] = NEXT, *,
    along: tuple[str, ...] = (), pictures: Pictures = "beside", totals: bool = False, rewrites: bool = False,
    reason: str = "",
) -> StepKind:  # fmt: skip
    made = StepKind(code, loses, ask[0], ask[1], along, pictures, totals, rewrites, reason)
    if STEP_KINDS.setdefault(code, made) is not made:
        raise ValueError(f"the kind of step {code} is declared twice")
    return made


def _named(code: str) -> StepKind:
    return STEP_KINDS[code]


# Questions that several kinds share.
_ENOUGH = ("Are there enough pieces to take away?", "no: <regroup>, cut up a <whole>")
_LEFT = ("What is left?", "take away")
_HIDDEN = ("Is a <whole> hidden in the fraction?", "yes: take it out")
_FACTOR = ("Do top and bottom still share a factor?", "yes: divide both")
_PIECES = ("How many pieces are there?", "add the <numerators>")

# Written otherwise -------------------------------------------------------------------------------------------------

JOIN_SIGNS = _kind("join-signs", rewrites=True)
TO_MIXED = _kind(
    "to-mixed",
    "Lost where the <wholes> or the pieces left over are not the quotient and the remainder.",
    _HIDDEN,
    rewrites=True,
)
SPLIT_MIXED = _kind("split-mixed", rewrites=True)
TO_IMPROPER = _kind(
    "to-improper",
    "Lost where not every <whole> is cut into pieces, or the pieces there were are left out.",
    rewrites=True,
)
SPOT_WHOLE = _kind(
    "spot-whole", rewrites=True, reason="Terms that make a <whole> are joined first: what is left is easier."
)
SIMPLIFY = _kind(
    "simplify", "Lost where top and bottom are not divided by the same number, or it can still be simplified.", _FACTOR,
    rewrites=True,
)  # fmt: skip
TO_FRACTION = _kind("to-fraction", reason="A decimal is a fraction whose <denominator> is named by its last place.")
TO_DECIMAL = _kind("to-decimal")
DROP_ZEROS = _kind("drop-zeros", reason="They say that nothing of that place is there.")
BRACKET = _kind("bracket", reason="It needs no bracket any more.")

# One size of pieces ------------------------------------------------------------------------------------------------

COMMON_DENOMINATOR = _kind(
    "common-denominator",
    "Lost where the pieces are not all the same size, or a top is not changed with its bottom.",
    ("Are the pieces the same size?", "no: make them the same"),
    totals=True,
)
FILL_ZEROS = _kind(
    "fill-zeros", "Lost where a zero filled in changes the number.",
    reason="The points stand under each other, and a zero holds an empty place.",
)  # fmt: skip

OVER_ONE_BAR = _kind(
    "over-one-bar", "Lost where not all tops stand over the bar.", _PIECES, rewrites=True,
    reason="The pieces are the same size, so they are counted over one bar.",
)  # fmt: skip

# Adding ------------------------------------------------------------------------------------------------------------

ADD = _kind("add", ask=_PIECES, pictures="joining", totals=True)
ADD_WHOLES = _kind("add-wholes", ask=("How many <wholes> are there?", "add them"), pictures="joining", totals=True)
ADD_FRACTIONS = _kind("add-fractions", ask=_PIECES, pictures="joining", totals=True)
CARRY_WHOLE = _kind(
    "carry-whole", "Lost where the <whole> that was made is not added to the others.", _HIDDEN,
    reason="A <whole> belongs into the column of <wholes>.",
)  # fmt: skip
JOIN = _kind(
    "join", ask=("What is it as one number?", "join them"), pictures="joining", reason="What was set aside comes back."
)

ADD_KNOWN = _kind(
    "add-known", "Lost where not all that is known is added.", ("What is known together?", "add it"), pictures="none",
    reason="What is known together is taken from the total at once.",
)  # fmt: skip

# Subtracting -------------------------------------------------------------------------------------------------------

REORDER = _kind("reorder", ask=("What is added, what is taken away?", "start with what is added"), pictures="none")
PUT_SIGN = _kind(
    "put-sign", "Lost where the sign is left out.",
    ("Is more taken away than is there?", "yes: put the sign before"), along=("reorder",), pictures="jumps",
)  # fmt: skip
REWRITE_WHOLE = _kind(
    "rewrite-whole", "Lost where the <whole> is not written with the pieces that are counted.", _ENOUGH,
    reason="Written this way, it is plain that there is nothing to take the fraction from.",
)  # fmt: skip
REGROUP = _kind(
    "regroup",
    "Lost where the <whole> is not made one less, or the pieces do not grow by as many as <one whole> has.",
    _ENOUGH,
)
SUBTRACT = _kind("subtract", ask=_LEFT, pictures="taking", totals=True, reason=SAME_SIZE)
SUBTRACT_WHOLES = _kind(
    "subtract-wholes", ask=_LEFT, pictures="taking", totals=True, reason="<Wholes> and parts are subtracted apart."
)
SUBTRACT_FRACTIONS = _kind("subtract-fractions", ask=_LEFT, pictures="taking", totals=True, reason=SAME_SIZE)
COUNT_BACK = _kind("count-back", ask=("How far do you jump back?", "in jumps"), pictures="jumps")
SHIFT_BOTH = _kind(
    "shift-both", ask=("Can a <whole> be taken away instead?", "yes: add the same to both"), pictures="jumps",
    reason="Both move along by the same amount, so the difference stays the same, and a <whole> is taken away.",
)  # fmt: skip

# Columns -----------------------------------------------------------------------------------------------------------

COLUMN_ADD = _kind(
    "column-add", "Lost for points that do not stand under each other, or a carry left out.", pictures="columns",
    totals=True,
    reason="Ten of one place are one of the place to its left.",
)  # fmt: skip
COLUMN_SUBTRACT = _kind(
    "column-subtract", "Lost for points that do not stand under each other, or <regrouping> that is not paid for.",
    pictures="columns", totals=True,
    reason="Where the top digit is too small, one of the place to its left is <regrouped> as ten.",
)  # fmt: skip

# Multiplying, dividing, the order of operations ----------------------------------------------------------------------

MULTIPLY = _kind("multiply")
DIVIDE = _kind("divide")
SHIFT_POINT = _kind("shift-point", reason="Ten times as much shared by ten times as many is the same share.")
TURN_OVER = _kind("turn-over", "Lost where not the second number is turned over.")
CANCEL = _kind(
    "cancel", "Lost where a top and a bottom are not divided by the same number.",
    reason="Multiplied and divided by the same number, nothing changes.",
)  # fmt: skip
POWER = _kind("power")

# Stories -----------------------------------------------------------------------------------------------------------

THEN = _kind(
    "then", "Lost where what was found is not used, or not in the right calculation.", pictures="none",
    reason="What was found goes into the next calculation.",
)  # fmt: skip

# Blanks ------------------------------------------------------------------------------------------------------------

EQUIVALENT = _kind("equivalent", reason="What is done to the bottom is done to the top, so the amount stays the same.")
INVERSE = _kind("inverse")
FILL = _kind("fill", reason="Once the pieces are the same size, only their number is left to be found.")
