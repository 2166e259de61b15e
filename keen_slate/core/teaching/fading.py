"""Fading: what of a working pupils are to fill in. The last steps in blank, or blanks put by hand, and a pause to try.

A blank put by hand has a key that stays with its step when the way of working changes: the key of the step, then
nothing but `row` (its written line), a number's place in that line, `line J` (a jotting) or `line J K` (a number or
factor in it), or `cell N` (a digit of a sheet that is no number of the line). `problem` takes the place of a step's key
for the problem's own line.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..expressions.aloud import BOX
from ..expressions.sentences import Rich, Scaled, Sketch
from ..expressions.typeset import Glyph, JottingGlyph
from ..expressions.voice import Voice
from ..layouts.cells import NUMBER_HEIGHT, SQUARE, Cell
from ..layouts.sheet import Fill, Sheet


@dataclass(frozen=True, slots=True)
class Fading:
    """*hide* so many of the last steps (as many as there are: only the problem is left), the *blanks* by key.

    *pause* is the key of the step before which pupils try it themselves.
    """

    hide: int = 0
    blanks: frozenset[str] = frozenset()
    pause: str | None = None

    @property
    def plain(self) -> bool:
        """Whether nothing is left out."""
        return not self.hide and not self.blanks

    def hides_step(self, index: int, steps: int) -> bool:
        """Whether step *index* (from 0) of so many *steps* is among the last that are hidden.

        >>> [Fading(hide=2).hides_step(i, 3) for i in range(3)]
        [False, True, True]
        """
        return index >= steps - self.hide

    def hides_row(self, key: str) -> bool:
        """Whether the written line of the step *key* was made a blank by hand."""
        return f"{key} row" in self.blanks

    def hides_line(self, index: int, keys: Sequence[str]) -> bool:
        """Whether pupils write the line of step *index* (from 0) of those with these *keys*, in one way or the
        other.
        """
        return self.hides_step(index, len(keys)) or self.hides_row(keys[index])


def plan(steps: Sequence[int]) -> list[int]:
    """How many of the last steps are hidden in each example of a set: the first is full, each further one fades by a
    step.

    *steps* are the numbers of steps of the examples, in their order.

    >>> plan([2, 3, 3, 4, 3])
    [0, 1, 2, 3, 3]
    """
    return [min(i, count) for i, count in enumerate(steps)]


def cells_with_blanks(cells: Sequence[Cell], key: str, fading: Fading) -> tuple[Cell, ...]:
    """The *cells* of the line *key*, those of a blank number marked."""
    if not fading.blanks:
        return tuple(cells)
    return tuple([replace(c, blank=True) if f"{key} {c.unit}" in fading.blanks else c for c in cells])


def sheet_with_blanks(sheet: Sheet, keys: Sequence[str], fading: Fading) -> Sheet:
    """The *sheet* of a working whose steps have these *keys*: blank cells marked, hidden moments named, a frame for
    each hidden step.
    """
    hidden = {i for i in range(len(keys)) if fading.hides_line(i, keys)}
    cells = tuple([replace(c, blank=True) if c.key in fading.blanks else c for c in sheet.cells])
    moments = tuple([replace(moment, hidden=moment.step in hidden) for moment in sheet.moments])
    frames = []
    for step in sorted(hidden):
        own = [c for c in cells if c.at and moments[c.at - 1].step == step and c.role != "carried"]
        if own:
            x, y = min(c.x for c in own), min(c.y for c in own)
            bottom = max(c.y + (NUMBER_HEIGHT if c.size == "tall" else SQUARE) for c in own)
            frames.append(Fill(x, y, max(c.x + c.w for c in own) - x, bottom - y))
    return replace(sheet, cells=cells, moments=moments, fills=tuple(frames))


def glyphs_with_blanks(pieces: Sequence[Glyph], key: str, fading: Fading) -> list[Glyph]:
    """A written line as *pieces*, its blank numbers as boxes; numbers are counted as in the squares
    (`layouts.rows`).
    """
    if not fading.blanks:
        return list(pieces)
    done: list[Glyph] = []
    unit = 0
    for piece in pieces:
        if piece.kind == "fraction":
            top, bottom = (f"{key} {unit + i}" in fading.blanks for i in (0, 1))
            done.append(replace(piece, top=BOX if top else piece.top, bottom=BOX if bottom else piece.bottom))
        elif piece.numbers:
            done.append(replace(piece, text=BOX) if f"{key} {unit}" in fading.blanks else piece)
        else:
            done.append(piece)
        unit += piece.numbers
    return done


def jotting_with_blanks(line: Rich, key: str, fading: Fading, voice: Voice) -> list[JottingGlyph]:
    """A jotting as pieces, said in the class's *voice*; each number and factor has its key, and is a box where it is a
    blank.
    """
    done: list[JottingGlyph] = []
    for k, part in enumerate(line):
        own = None if isinstance(part, str) else f"{key} {k}"
        if isinstance(part, Sketch) and own not in fading.blanks:
            done.append(JottingGlyph("words", part.said, key=own, drawing=part.drawing))
        elif own not in fading.blanks:
            done += [JottingGlyph(p.kind, p.text, p.top, p.bottom, p.role, own) for p in voice.typeset((part,))]
        elif isinstance(part, Scaled):
            top, bottom = (f"{n} {part.operator} {BOX}" for n in (part.num, part.den))
            done.append(JottingGlyph("fraction", None, top, bottom, "", own, blank=True))
        else:
            done.append(JottingGlyph("number", BOX, key=own, blank=True))
    return done
