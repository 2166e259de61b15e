"""What a set reveals: which misconceptions its examples show or hide, which pairs stay alike, what would tell them
apart.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import combinations

from ..judging.misconceptions.registry import ENTRIES, Status
from ..searching.cover import fewest
from ..worked import Worked
from .mend import nearest

_MOST_ADDED = 6
_MOST_PAIRS = 8  # near problems are looked for to separate so many pairs; they separate others too
_TEACHES_ESTIMATION = 2, 3  # at least two of three wrong answers are caught


@dataclass(frozen=True, slots=True)
class RevealedRow:
    """A misconception and what becomes of it in each example: its status, or None where it does not apply."""

    code: str
    statuses: tuple[Status | None, ...]


@dataclass(frozen=True, slots=True)
class Revealed:
    """The matrix, the *alike* pairs that no example separates, the problems to *add*, and how many wrong answers are
    caught.
    """

    rows: tuple[RevealedRow, ...]
    alike: tuple[tuple[str, str], ...]
    add: tuple[Worked, ...]
    caught: int
    wrong: int

    @property
    def teaches_estimation(self) -> bool | None:
        """Whether the estimate catches most wrong answers; None where there are none."""
        part, of = _TEACHES_ESTIMATION
        return None if not self.wrong else of * self.caught >= part * self.wrong


def reveal(examples: Sequence[Worked]) -> Revealed:
    """What the worked *examples* reveal together."""
    found = [{one.entry.code: one for one in worked.likely} for worked in examples]
    codes = [code for code in ENTRIES if any(code in each for each in found)]
    rows = [RevealedRow(code, tuple([each[code].status if code in each else None for each in found])) for code in codes]
    shown = [row.code for row in rows if "reveals" in row.statuses]
    alike = [pair for pair in combinations(shown, 2) if not any(_apart(worked, *pair) for worked in examples)]
    every = [one for each in found for one in each.values() if one.status == "reveals"]
    return Revealed(
        tuple(rows),
        tuple(alike),
        tuple(_additions(examples, alike)),
        sum(one.caught_by_estimate for one in every),
        len(every),
    )


def _answers(worked: Worked) -> dict[str, Fraction]:
    return {one.entry.code: one.answer_value for one in worked.likely}


def _apart(worked: Worked, a: str, b: str) -> bool:
    """Whether pupils with the one and with the other write different values; who has neither is right."""
    values = _answers(worked)
    right = worked.working.value
    return values.get(a, right) != values.get(b, right)


def _additions(examples: Sequence[Worked], alike: Sequence[tuple[str, str]]) -> list[Worked]:
    """The fewest of the problems near the examples that tell as many of the *alike* pairs apart as all of these do."""
    near = [nearest(worked, a, b) for a, b in alike[:_MOST_PAIRS] for worked in examples if a in _answers(worked)]
    candidates = [worked for worked in near if worked is not None]
    masks = [sum(1 << i for i, pair in enumerate(alike) if _apart(worked, *pair)) for worked in candidates]
    return [candidates[i] for i in fewest(masks, (1 << len(alike)) - 1).chosen[:_MOST_ADDED]]
