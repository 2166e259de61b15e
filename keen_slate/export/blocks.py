"""What papers are made of, whoever sets them: plain values that a template only has to place. No mark-up is in them."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import groupby
from typing import Literal

from keen_slate.core.expressions.aloud import aloud
from keen_slate.core.expressions.typeset import Glyph, JottingGlyph, Role
from keen_slate.core.expressions.voice import Voice
from keen_slate.core.figures.display import Figure
from keen_slate.core.figures.sketch import sketch_svg
from keen_slate.core.figures.svg import PAD, svg

_LONG = 26  # characters of a line of mathematics that are kept together


@dataclass(frozen=True, slots=True)
class Piece:
    """A piece of a line: as a `Glyph`, or a small *drawing* (SVG) that stands in the place of its *text*."""

    kind: str
    text: str = ""
    top: str = ""
    bottom: str = ""
    role: Role = ""
    drawing: str = ""


@dataclass(frozen=True, slots=True)
class Run:
    """Pieces that belong together, and how they are read aloud; words alone need no reading: *said* is "" then."""

    pieces: tuple[Piece, ...]
    said: str


@dataclass(frozen=True, slots=True)
class WrittenLine:
    """A line of mathematics or a sentence."""

    style: Literal["line", "jotting", "story", "sentence", "answer", "said"]
    runs: tuple[Run, ...]
    block: Literal["written"] = "written"


@dataclass(frozen=True, slots=True)
class Picture:
    """A drawing as SVG: its states, one after the other; its size in *units* and *high*; *width* in millimetres where
    it has one, else 0.
    """

    style: Literal["picture", "squares", "model", "shade", "cut"]
    states: tuple[str, ...]
    alt: str
    units: int
    high: int
    width: float = 0
    block: Literal["picture"] = "picture"


@dataclass(frozen=True, slots=True)
class Room:
    """Room for pupils: a frame to write a line in, a line for a sentence, or a frame to draw in; *said* stands
    in it.
    """

    style: Literal["fill", "sentence", "draw", "estimate", "reason"]
    said: str = ""
    block: Literal["room"] = "room"


@dataclass(frozen=True, slots=True)
class Pause:
    """Where pupils try it themselves before they read on."""

    block: Literal["pause"] = "pause"


@dataclass(frozen=True, slots=True)
class BoxCell:
    """A box with a title, and what it is answered with; *number* where it is a question, else 0."""

    title: str
    answer: str
    number: int
    blocks: tuple[Block, ...]


@dataclass(frozen=True, slots=True)
class Boxes:
    """Boxes in pairs; questions stand under each other."""

    cells: tuple[BoxCell, ...]
    questions: bool
    block: Literal["boxes"] = "boxes"


@dataclass(frozen=True, slots=True)
class Table:
    """Rows of a table: the head of each, and its cells."""

    rows: tuple[tuple[str, WrittenLine], ...]
    block: Literal["table"] = "table"


@dataclass(frozen=True, slots=True)
class Ticks:
    """What is ticked, with a box before each; *label* is printed in bold."""

    options: tuple[tuple[str, WrittenLine], ...]
    block: Literal["ticks"] = "ticks"


Block = WrittenLine | Picture | Room | Pause | Boxes | Table | Ticks


@dataclass(frozen=True, slots=True)
class Head:
    """The line that an example begins with."""

    number: int
    problem: WrittenLine | None
    label: str = ""
    marks: str = ""


@dataclass(frozen=True, slots=True)
class PageExample:
    """An example on a page: what stands before the room to work in, and what after it."""

    head: Head
    blocks: tuple[Block, ...]
    room: bool
    after: tuple[Block, ...] = ()
    aside: tuple[Block, ...] = ()


# How they are made ----------------------------------------------------------------------------------------------------


def written(
    style: Literal["line", "jotting", "story", "sentence", "answer", "said"], pieces: Sequence[Glyph], voice: Voice
) -> WrittenLine:
    """*pieces* in a *style*; what is mathematics among them is read aloud in the class's *voice*."""
    return WrittenLine(style, tuple(_runs(pieces, voice)))


def words(style: Literal["story", "sentence", "answer", "said"], text: str) -> WrittenLine:
    """A sentence."""
    return WrittenLine(style, (Run((Piece("words", text),), ""),))


def _runs(pieces: Sequence[Glyph], voice: Voice) -> Iterable[Run]:
    for plain, found in groupby(pieces, lambda piece: piece.kind == "words"):
        group = list(found)
        if plain:
            yield from [_drawn(one) for one in group]
        elif sum(_length(one) for one in group) <= _LONG:
            yield _run(group, voice)
        else:
            yield from [_run(part, voice) for part in _terms(group)]


def _drawn(piece: Glyph) -> Run:
    made = _piece(piece)
    return Run((made,), made.text if made.drawing else "")


def _terms(pieces: Sequence[Glyph]) -> list[list[Glyph]]:
    """A long line, broken before its signs."""
    parts: list[list[Glyph]] = [[]]
    for piece in pieces:
        if piece.kind == "operator" and parts[-1]:
            parts.append([])
        parts[-1].append(piece)
    return parts


def _length(piece: Glyph) -> int:
    return max(len(piece.text or ""), len(piece.top or ""), len(piece.bottom or ""))


def _run(pieces: Sequence[Glyph], voice: Voice) -> Run:
    return Run(tuple([_piece(one) for one in pieces]), voice.said(aloud(pieces)))


def _drawing(piece: Glyph) -> str:
    if isinstance(piece, JottingGlyph) and piece.drawing is not None:
        return sketch_svg(piece.drawing, piece.text or "")
    return ""


def _piece(piece: Glyph) -> Piece:
    return Piece(piece.kind, piece.text or "", piece.top or "", piece.bottom or "", piece.role, _drawing(piece))


def picture(
    style: Literal["picture", "model", "shade", "cut"],
    figure: Figure,
    voice: Voice,
    state: Literal["before", "after", "both"],
) -> Picture:
    """A *figure*, as it is *before* and *after* its action where both are wanted."""
    states: list[Literal["before", "after"]] = (
        ["before", "after"] if state == "both" and figure.acts else ["before" if state == "before" else "after"]
    )
    drawn = tuple([svg(figure, one, voice) for one in states])
    return Picture(style, drawn, voice.said(figure.alt), figure.width + 2 * PAD, figure.height + 2 * PAD)
