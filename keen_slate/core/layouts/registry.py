"""The layouts: a module each, found by being there.

A layout is a function that lays a working out, or says None where it cannot.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from ..expressions.sentences import Rich
from ..expressions.voice import Voice
from ..working.proof import Working
from .cells import Row
from .sheet import Sheet


@dataclass(frozen=True, slots=True)
class Jotting:
    """A line beside the steps.

    *step* and *line* say which jotting of the working it is; None where the layout says it itself.
    """

    rich: Rich
    step: int | None = None
    line: int = 0


@dataclass(frozen=True, slots=True)
class Box:
    """A titled part of a working: written rows and jottings; *answer* is what a checklist ticks it off with.

    A title that is *quoted* was written by a person, and is never reworded.
    """

    title: str
    answer: str
    rows: tuple[Row, ...]
    jottings: tuple[Jotting, ...]
    quoted: bool = False

    def heading(self, voice: Voice) -> str:
        """The title, in the class's words where it is the core's own."""
        return self.title if self.quoted else voice.said(self.title)


def jottings_of(working: Working, steps: Iterable[int]) -> tuple[Jotting, ...]:
    """All jottings of some *steps*, by their indices."""
    return tuple([Jotting(rich, i, j) for i in steps for j, rich in enumerate(working.steps[i].lines)])


@dataclass(frozen=True, slots=True)
class Laid:
    """What a layout makes of a working, besides its lines: one *sheet*, or *boxes*; neither, where the lines are all
    there is.
    """

    sheet: Sheet | None = None
    boxes: tuple[Box, ...] = ()


Layout = Callable[[Working], Laid | None]
LAYOUTS: dict[str, Layout] = {}
LINE = "line"  # what every working can be laid out in


def layout(code: str) -> Callable[[Layout], Layout]:
    """Put the decorated function into the registry under *code*, one of the codes of the setting `layout`."""

    def add(function: Layout) -> Layout:
        if code in LAYOUTS:
            raise ValueError(f"the layout {code} is registered twice")
        LAYOUTS[code] = function
        return function

    return add
