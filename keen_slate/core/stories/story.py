"""A story: what is told, and the calculations that it asks for, linked number by number."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Literal

from ..expressions.sentences import Rich
from ..expressions.tree import Blank, Bracket, Dec, Expr, Neg, Product, Sum
from ..expressions.voice import OWN, Voice
from ..expressions.walks import map_numbers
from ..reading.problem import Problem
from .answering import ANSWER
from .numbers import Quantity

Unknown = Literal[
    "result",
    "change",
    "start",
    "total",
    "part",
    "difference",
    "larger",
    "smaller",
    "product",
    "size",
    "number",
    "whole",
    "answer",
]

# The situations of the tables of CCSS-M (glossary, tables 1 and 2; from memory), with the unknowns of each.
SITUATIONS: dict[str, tuple[str, tuple[Unknown, ...]]] = {
    "add-to": ("something is added", ("result", "change", "start")),
    "take-from": ("something is taken away", ("result", "change", "start")),
    "put-together": ("parts of a total", ("total", "part")),
    "compare": ("two amounts are compared", ("difference", "larger", "smaller")),
    "equal-groups": ("equal groups", ("product", "size", "number")),
    "part-of": ("a part of an amount", ("part", "whole")),
    "steps": ("several steps", ("answer",)),
}
UNKNOWNS: dict[Unknown, str] = {
    "result": "the result", "change": "the change", "start": "the start", "total": "the total", "part": "a part",
    "difference": "the difference", "larger": "the larger", "smaller": "the smaller", "product": "all groups together",
    "size": "the size of a group", "number": "the number of groups", "whole": "the whole", "answer": "the answer",
}  # fmt: skip


FIRST = "a"  # what finds the answer to the first of two questions


@dataclass(frozen=True, slots=True)
class Use:
    """Where a number of a calculation comes from: a *quantity* of the text, what a step *found*, how many *units* make
    another, or *untold*.
    """

    kind: Literal["quantity", "found", "units", "untold"]
    index: int = 0


@dataclass(frozen=True, slots=True)
class StoryStep:
    """A calculation: *expr* with a blank for each number that an earlier step found, and where each of its numbers
    comes from.
    """

    expr: Expr
    uses: tuple[Use, ...]
    finds: str
    label: str | None


@dataclass(frozen=True, slots=True)
class Story:
    """A told *text* (without what stands in braces) with its *quantities* and *steps*; those that are *unneeded*, by
    index.

    *sentence* answers the question, with `_` for the answer and its label; *own_sentence* says that somebody wrote it.
    Where an *earlier* question is asked, the step that finds `FIRST` answers it, in its *first_sentence*.
    """

    text: str
    quantities: tuple[Quantity, ...]
    situation: str
    unknown: Unknown
    steps: tuple[StoryStep, ...]
    unneeded: tuple[int, ...]
    sentence: str
    own_sentence: bool
    question: tuple[int, int]
    earlier: tuple[int, int] | None = None
    first_sentence: str = ""

    @property
    def rich(self) -> Rich:
        """The text with its numbers as expressions; what stands around them is never a sentence of the core."""
        done: list[str | Expr] = []
        at = 0
        for one in self.quantities:
            if one.clock:
                continue
            done += [self.text[at : one.start], one.number, self.text[one.number_end : one.end]]
            at = one.end
        return (*done, self.text[at:])

    @property
    def source(self) -> str:
        """The text with its calculation in braces, which reads back as the same story."""
        return f"{self.text} {{{self.calculation()}}}"

    def calculation(self, voice: Voice = OWN) -> str:
        """What stands in the braces, with the decimal mark of a *voice*."""
        parts = [f"{self.situation} {self.unknown}: {self.spelled(0, voice)}"]
        parts += [self.spelled(i, voice) for i in range(1, len(self.steps))]
        parts += [f"not {voice.text(self.quantities[i].number)}" for i in self.unneeded]
        if self.own_sentence:
            parts.append(f"says {self.sentence}")
        return "; ".join(parts)

    def spelled(self, i: int, voice: Voice = OWN) -> str:
        """Calculation *i* as it stands in the braces, with the name of what it finds."""
        step = self.steps[i]
        names = iter([self.name_of(use) for use in step.uses if use.kind == "found"])
        spelled = "".join([next(names) if char == "_" else char for char in voice.text(step.expr)])
        return spelled if i == len(self.steps) - 1 else f"{step.finds} = {spelled}"

    def name_of(self, use: Use) -> str:
        """What an earlier step found is called."""
        return self.steps[use.index].finds

    def filled(self, i: int, found: Sequence[Expr]) -> Expr:
        """The calculation of step *i*, with what the earlier steps *found*."""
        waiting = iter([found[use.index] for use in self.steps[i].uses if use.kind == "found"])
        return map_numbers(self.steps[i].expr, lambda n: next(waiting) if isinstance(n, Blank) else n)

    @property
    def whole(self) -> Expr:
        """All calculations as one expression."""
        done: list[Expr] = []
        for i in range(len(self.steps)):
            done.append(self.filled(i, [_bracketed(expr) for expr in done]))
        return done[-1]

    @property
    def first_step(self) -> int | None:
        """The step that answers the first of two questions."""
        return next((i for i, step in enumerate(self.steps) if step.finds == FIRST), None) if self.earlier else None

    def first_line(self, answer: str) -> str:
        """The sentence that answers the first of two questions."""
        return self.first_sentence.replace(ANSWER, answer, 1)

    def answer_line(self, answer: str, number: Fraction) -> str:
        """The answer sentence with the *answer* in it; of one or less it is in the singular."""
        said = (
            _PLURAL.sub(lambda found: found.group(1) + _SINGULAR[found.group(2)], self.sentence)
            if number <= 1
            else self.sentence
        )
        return said.replace(ANSWER, answer, 1)


_PLURAL = re.compile(rf"^({ANSWER}(?: of [\w ]+?)? |There )(are|were)\b")
_SINGULAR = {"are": "is", "were": "was"}


def _bracketed(expr: Expr) -> Expr:
    return Bracket(expr) if isinstance(expr, (Sum, Product, Neg)) else expr


@dataclass(frozen=True, slots=True)
class StoryProblem(Problem):
    """A story as a problem: its *expr* is all its calculations as one."""

    story: Story = field(kw_only=True)

    @property
    def text(self) -> str:
        """The story with its calculation in braces."""
        return self.story.source


def story_of(problem: Problem) -> Story | None:
    """What is told, where a *problem* is a story."""
    return problem.story if isinstance(problem, StoryProblem) else None


def told_text(story: Story, voice: Voice) -> str:
    """The text with the class's decimal mark."""
    said, at = "", 0
    for one in story.quantities:
        told = one.text.replace(".", voice.mark) if isinstance(one.number, Dec) else one.text
        said += story.text[at : one.start] + told
        at = one.end
    return said + story.text[at:]
