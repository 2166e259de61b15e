"""A stand-in for a class: pupils with habits of their own, who answer problems as such pupils would.

Seeded, so repeatable.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from random import Random

from ..expressions.text import text
from ..expressions.tree import Neg, mixed
from ..judging.misconceptions.registry import ENTRIES
from ..judging.slips import slips
from ..reading.problem import labelled
from ..ways.settings import Ways
from ..worked import Worked, work_text


@dataclass(frozen=True, slots=True)
class StandIn:
    """An alias, the misconceptions that the pupil has, and how often (in a hundred) one shows, or a slip happens."""

    alias: str
    habits: tuple[str, ...]
    shows: int
    slips: int


@dataclass(frozen=True, slots=True)
class AnswerMadeUp:
    """What a pupil wrote, and why: the code of a misconception or slip; none where the answer is right."""

    pupil: str
    problem: str
    answer: str
    code: str | None


def make_class(aliases: Sequence[str], seed: int) -> list[StandIn]:
    """A class of pupils with one to four misconceptions each; those that are met more often are more likely."""
    dice = Random(f"class {seed}")
    codes = [code for code, entry in ENTRIES.items() for _ in range(entry.often)]
    return [
        StandIn(
            alias,
            tuple(dict.fromkeys(dice.choices(codes, k=dice.randint(1, 4)))),
            dice.randint(50, 95),
            dice.randint(2, 12),
        )
        for alias in aliases
    ]


def answers(
    pupils: Sequence[StandIn], problems: Sequence[str], seed: int, ways: Ways | None = None
) -> Iterator[AnswerMadeUp]:
    """Every pupil's answer to every problem. Raises `CoreError` where a problem cannot be worked."""
    dice = Random(f"answers {seed}")
    for problem in problems:
        worked = work_text(problem, ways)
        for pupil in pupils:
            yield _answer(worked, pupil, dice)


def _answer(worked: Worked, pupil: StandIn, dice: Random) -> AnswerMadeUp:
    problem = worked.working.problem
    may = [found for found in worked.likely if found.entry.code in pupil.habits]
    if may and dice.randint(1, 100) <= pupil.shows:
        found = dice.choice(may)
        label = problem.label if found.wrong.labelled else None
        return AnswerMadeUp(pupil.alias, problem.text, labelled(text(found.wrong.answer), label), found.entry.code)
    if dice.randint(1, 100) <= pupil.slips:
        made = [slip for slip in slips(worked.working) if slip.value != worked.working.value]
        made = [slip for slip in made if slip.value > 0 or isinstance(worked.working.answer, Neg)]
        if made:
            slip = dice.choice(made)
            return AnswerMadeUp(pupil.alias, problem.text, labelled(text(mixed(slip.value)), problem.label), slip.code)
    return AnswerMadeUp(pupil.alias, problem.text, worked.working.answer_text, None)
