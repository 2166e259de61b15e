"""A set as a text tells it, whatever the text is written in: each problem, its lines with what is done in them, its
answer.

What pupils are to fill in is left out as on paper; the answers are told apart, as a key at the end. A working in the
squares of its class, or in boxes, is one here, too, for those texts that have tables.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from keen_slate.core.documents.asked import task_of
from keen_slate.core.documents.figure import picture_of
from keen_slate.core.documents.story import StoryView, answer_line, model_blanks, story_view
from keen_slate.core.documents.working import answer_text, problem_text
from keen_slate.core.expressions.tree import Expr
from keen_slate.core.expressions.voice import Voice
from keen_slate.core.figures.bar_model import models_of
from keen_slate.core.figures.display import Figure
from keen_slate.core.figures.svg import PAD, svg
from keen_slate.core.layouts.laying import lay
from keen_slate.core.layouts.registry import Box, Jotting, Laid
from keen_slate.core.layouts.rows import lead
from keen_slate.core.reading.kinds import KIND_NAMES
from keen_slate.core.stories.story import story_of
from keen_slate.core.teaching.fading import Fading, sheet_with_blanks
from keen_slate.core.working.keys import step_keys

from .gaps import with_blanks
from .grid import SheetTable, grid
from .item import Item

ROOM = "_" * 24  # in a text, for what pupils write
UNIT = 0.17  # millimetres of a unit of a picture, as on paper


@dataclass(frozen=True, slots=True)
class TextPicture:
    """A picture as SVG, *width* millimetres wide; what it says to who does not see it, and what stands under it."""

    svg: str
    width: float
    alt: str
    caption: str


@dataclass(frozen=True, slots=True)
class TextLine:
    """A line of a working: the *sign* before it, what is written (None where pupils write it), what is done in it, and
    a picture of that where one is wanted.
    """

    sign: str
    expr: Expr | None
    said: str
    drawing: TextPicture | None = None


@dataclass(frozen=True, slots=True)
class TextBox:
    """A box of a working: its title, its lines, what is jotted in it."""

    title: str
    lines: tuple[TextLine, ...]
    jottings: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class TextEntry:
    """An example: of what *kind* it is, a *story* as it is told ("" where it is none) with the rows of its *table* and
    pictures of its calculations, what its working begins with (None where pupils write it), what is *asked* of it and
    its label, its lines, and its answer for the key.

    Where its class works in squares or in boxes, it has a *grid* with what is jotted beside it, or *parts*.
    """

    kind: str
    story: str
    table: tuple[tuple[str, str], ...]
    models: tuple[TextPicture, ...]
    start: Expr | None
    asked: str
    lines: tuple[TextLine, ...]
    grid: SheetTable | None
    jottings: tuple[str, ...]
    parts: tuple[TextBox, ...]
    answer: str
    voice: Voice

    @property
    def in_table(self) -> bool:
        """Whether its working stands in a table rather than in lines."""
        return self.grid is not None or bool(self.parts)

    @property
    def told(self) -> str:
        """The story without the rows of its table."""
        rows = tuple([f"{name}:" for name, _ in self.table])
        return "\n".join([one for one in self.story.splitlines() if not rows or not one.lstrip().startswith(rows)])

    @property
    def drawings(self) -> list[TextPicture]:
        """All its pictures."""
        return [*self.models, *[one.drawing for one in self.lines if one.drawing is not None]]


def outline(items: Sequence[Item], pictures: bool = False) -> list[TextEntry]:
    """The examples of a set, with their *pictures* where they are wanted."""
    return [_entry(item, pictures) for item in items]


def _entry(item: Item, pictures: bool) -> TextEntry:
    working, voice = item.working, item.voice
    told = story_view(working, item.fading)
    kind = voice.said(KIND_NAMES[working.problem.kind])
    start = with_blanks(working.start, "problem", item.fading)
    lines = tuple(_lines(item, pictures))
    _, laid = lay(working)
    return TextEntry(
        kind[0].upper() + kind[1:],
        problem_text(working, voice) if told else "",
        tuple(_rows(told)) if told else (),
        tuple(_models(item, told)) if told and pictures else (),
        start,
        "" if told else _asked(item),
        lines,
        _grid(item, laid),
        tuple(_jottings(item, [one for i in range(len(lines)) for one in _of_step(item, i)])) if laid.sheet else (),
        tuple([_part(item, box, TextLine("", start, ""), lines) for box in laid.boxes]),
        answer_line(working) if told else answer_text(working, voice),
        voice,
    )


def _asked(item: Item) -> str:
    """What stands behind a problem: what to do with it, and what it is counted in."""
    label = item.working.problem.label
    return ", ".join(filter(None, [item.voice.said(task_of(item.working)), f"in {label}" if label else ""]))


def _lines(item: Item, pictures: bool) -> Iterator[TextLine]:
    keys = step_keys(item.working)
    for i, (step, key) in enumerate(zip(item.working.steps, keys, strict=True)):
        sign = " ".join(lead(item.working, i).strip())
        if item.fading.hides_line(i, keys):
            yield TextLine(sign, None, "")
        else:
            title = item.plain_title(i)
            figure = picture_of(item.working, i, item.sentences) if pictures else None
            drawn = None if figure is None else _drawing(item, figure, title, "both")
            yield TextLine(sign, with_blanks(step.after, key, item.fading), title, drawn)


def _drawing(item: Item, figure: Figure, caption: str, state: Literal["before", "after", "both"]) -> TextPicture:
    wide = (figure.width + 2 * PAD) * UNIT
    return TextPicture(svg(figure, state, item.voice), wide, item.voice.said(figure.alt), caption)


# Stories --------------------------------------------------------------------------------------------------------------


def _rows(told: StoryView) -> Iterator[tuple[str, str]]:
    for row in told.table:
        amount = told.quantities[row.quantity]
        yield row.name, amount.text


def _models(item: Item, told: StoryView) -> Iterator[TextPicture]:
    """The models that pupils do not draw themselves."""
    story = story_of(item.working.problem)
    assert story is not None, "only a story has models"
    if item.fading.hide >= len(item.working.steps):
        return
    figures = models_of(story, item.working, model_blanks(item.fading))
    for figure, part in zip(figures, told.calculations, strict=True):
        if figure is not None and not part.model_hidden:
            yield _drawing(item, figure, f"A model for {part.finds}.", "before" if item.fading.hide else "after")


# Squares and boxes ----------------------------------------------------------------------------------------------------


def _grid(item: Item, laid: Laid) -> SheetTable | None:
    if laid.sheet is None:
        return None
    said = item.voice.said(laid.sheet.spoken) if item.fading.plain else "A working with blanks."
    return grid(sheet_with_blanks(laid.sheet, step_keys(item.working), item.fading), said)


def _part(item: Item, box: Box, start: TextLine, lines: Sequence[TextLine]) -> TextBox:
    """A *box*; of what follows it from its question only the lines, for the question stands over them."""
    rows = [start if row.step is None else replace(lines[row.step], said="") for row in box.rows]
    hidden = any(row.step is not None and lines[row.step].expr is None for row in box.rows)
    answer = f" {item.voice.said(box.answer)}" if box.answer and not hidden else ""
    return TextBox(f"{box.heading(item.voice)}{answer}", tuple(rows), tuple(_jottings(item, box.jottings)))


def _of_step(item: Item, index: int) -> list[Jotting]:
    # What is said of a calculation in columns would tell what belongs in its blanks.
    step = item.working.steps[index]
    seen = item.fading.plain or step.kind.pictures != "columns"
    return [Jotting(rich, index, j) for j, rich in enumerate(step.lines)] if seen else []


def _jottings(item: Item, some: Sequence[Jotting]) -> Iterator[str]:
    """What is jotted, but for what pupils fill in."""
    return (item.voice.plain(one.rich) for one in some if one.step is None or _is_seen(item, one.step, one.line))


def _is_seen(item: Item, step: int, line: int) -> bool:
    keys = step_keys(item.working)
    return not (item.fading.hides_line(step, keys) or _has_blanks(f"{keys[step]} line {line}", item.fading))


def _has_blanks(key: str, fading: Fading) -> bool:
    return any(blank == key or blank.startswith(f"{key} ") for blank in fading.blanks)
