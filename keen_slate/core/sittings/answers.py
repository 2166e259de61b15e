"""The answers of a class to one sitting: each judged, with the teacher's word, and what is counted of them."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

from ..judging.beliefs import Given
from .judge import NO_WORD, Judged, TeachersWord, Word, best_codes, given_of, habits, in_order, word_of
from .question import Asked


@dataclass(frozen=True, slots=True)
class AnswerCell:
    """An answer as it was *written* (None: away), what the core says of it and what its teacher does."""

    written: str | None
    judged: Judged
    word: TeachersWord = NO_WORD

    @property
    def said(self) -> Word:
        """What is said of it in the end."""
        return word_of(self.judged, self.word)

    @property
    def answered(self) -> bool:
        """Whether something was written in it."""
        return self.said not in ("blank", "away")

    @property
    def right(self) -> bool:
        """Whether it is right, in value at least."""
        return self.said in ("right", "right-value")

    def points(self, most: int) -> int:
        """What it is worth of so many points at *most*, by the teacher's word before the core's."""
        if self.word.points is not None:
            return self.word.points
        if self.word.right is not None:
            return most if self.word.right else 0
        return self.judged.points


class Answers:
    """What was *asked*, and for each pupil (by any name) the *cells* in its order; None where nothing was entered."""

    def __init__(self, asked: Sequence[Asked], cells: Mapping[str, Sequence[AnswerCell | None]]) -> None:
        self.asked = tuple(asked)
        self.cells = {pupil: tuple(row) for pupil, row in cells.items()}

    @cached_property
    def given(self) -> dict[str, list[Given | None]]:
        """The answers as the model of beliefs sees them."""
        return {
            pupil: [
                None if cell is None else given_of(cell.judged, asked.seen, cell.word)
                for cell, asked in zip(row, self.asked, strict=True)
            ]
            for pupil, row in self.cells.items()
        }

    @cached_property
    def how_many_gave(self) -> list[int]:
        """How many answers there are to each problem, blanks left out."""
        rows = self.given.values()
        return [sum(row[i] is not None for row in rows) for i in range(len(self.asked))]

    def of(self, pupil: str) -> Answers:
        """The answers of one pupil, explained as they are among those of her class."""
        mine = Answers(self.asked, {pupil: self.cells[pupil]})
        mine.given = {pupil: self.given[pupil]}
        mine._habits, mine.habits = self._habits, self.habits
        return mine

    @cached_property
    def _habits(self) -> dict[str, Counter[str]]:
        return {pupil: habits([cell.judged for cell in row if cell]) for pupil, row in self.cells.items()}

    @cached_property
    def habits(self) -> Counter[str]:
        """How often each code may have been at work in the class."""
        return sum(self._habits.values(), Counter())

    def codes(self, pupil: str, i: int) -> tuple[str, ...]:
        """The codes of the explanation that counts for an answer; none where there is none."""
        cell = self.cells[pupil][i]
        return best_codes(cell.judged, self._habits[pupil], self.habits, cell.word) if cell else ()

    def explanations(self, pupil: str, i: int) -> list[tuple[str, ...]]:
        """The codes of every explanation of an answer, in the order in which they are shown."""
        cell = self.cells[pupil][i]
        return in_order(cell.judged.explanations, self._habits[pupil], self.habits) if cell else []

    def points(self, pupil: str) -> int:
        """The points of a pupil in all."""
        row = zip(self.cells[pupil], self.asked, strict=True)
        return sum(cell.points(asked.points) for cell, asked in row if cell)

    @property
    def points_in_all(self) -> int:
        """The points that there are to be had."""
        return sum(one.points for one in self.asked)
