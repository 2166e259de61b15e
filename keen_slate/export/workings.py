"""A working on paper, in the layout of its class: lines, a sheet of squares, boxes, or questions; with what pupils fill
in left out.
"""

from __future__ import annotations

from collections.abc import Iterable

from keen_slate.core.documents.figure import picture_of
from keen_slate.core.expressions.typeset import Glyph, Roles
from keen_slate.core.layouts.labels import line_glyphs
from keen_slate.core.layouts.laying import lay
from keen_slate.core.layouts.registry import Box, Jotting
from keen_slate.core.layouts.rows import lead
from keen_slate.core.layouts.sheet import Sheet
from keen_slate.core.teaching.fading import Fading, glyphs_with_blanks, jotting_with_blanks, sheet_with_blanks
from keen_slate.core.ways.voices import voice_of
from keen_slate.core.working.keys import step_keys
from keen_slate.core.working.proof import Working

from .blocks import Block, BoxCell, Boxes, Pause, Picture, Room, WrittenLine, picture, written
from .item import Item
from .squares import size_of, squares

_FILL = Room("fill")


def body(item: Item, fading: Fading, pictures: bool) -> list[Block]:
    """The whole working of *item*, what *fading* leaves to pupils left out; with the pictures of its steps where
    wanted.
    """
    layout, laid = lay(item.working)
    if laid.sheet is not None:
        return _sheet(item, laid.sheet, fading, pictures)
    if laid.boxes:
        return [_boxes(item, laid.boxes, fading, numbered=layout == "checklist")]
    return [block for i in range(len(item.working.steps)) for block in _step(item, i, fading, pictures)]


def line(working: Working, index: int | None, key: str, fading: Fading) -> WrittenLine:
    """The problem (*index* None) or the end of a step, with its blanks."""
    voice = voice_of(working.ways)
    if index is None:
        start = line_glyphs(working, working.start, working.problem_roles)
        return written("line", glyphs_with_blanks(start, "problem", fading), voice)
    step = working.steps[index]
    roles: Roles = ("answer",) if index == len(working.steps) - 1 else step.roles
    pieces = glyphs_with_blanks(line_glyphs(working, step.after, roles), key, fading)
    before = " ".join(lead(working, index).strip())
    return written("line", [*([Glyph("operator", before)] if before else []), *pieces], voice)


# Line by line -------------------------------------------------------------------------------------------------------


def _step(item: Item, index: int, fading: Fading, pictures: bool) -> list[Block]:
    pause: list[Block] = [Pause()] if fading.pause == step_keys(item.working)[index] else []
    if _hides(item, index, fading):
        return [*pause, _FILL]
    return [
        *pause,
        _written(item, index, fading),
        *_jottings(item, [index], fading),
        *_picture(item, index, pictures),
    ]


def _hides(item: Item, index: int, fading: Fading) -> bool:
    return fading.hides_line(index, step_keys(item.working))


def _written(item: Item, index: int, fading: Fading) -> WrittenLine:
    return line(item.working, index, step_keys(item.working)[index], fading)


def _jottings(item: Item, steps: Iterable[int], fading: Fading) -> list[WrittenLine]:
    every = [Jotting(rich, i, j) for i in steps for j, rich in enumerate(item.working.steps[i].lines)]
    return [found for one in every if (found := _jotting(item, one, fading)) is not None]


def _jotting(item: Item, one: Jotting, fading: Fading) -> WrittenLine | None:
    if one.step is None:
        return written("jotting", item.voice.typeset(one.rich), item.voice)
    key = f"{step_keys(item.working)[one.step]} line {one.line}"
    if key in fading.blanks or _hides(item, one.step, fading):
        return None
    return written("jotting", jotting_with_blanks(one.rich, key, fading, item.voice), item.voice)


def _picture(item: Item, index: int, wanted: bool) -> list[Picture]:
    figure = picture_of(item.working, index, item.sentences) if wanted else None
    return [] if figure is None else [picture("picture", figure, item.voice, "both")]


# On one sheet ---------------------------------------------------------------------------------------------------------


def _sheet(item: Item, sheet: Sheet, fading: Fading, pictures: bool) -> list[Block]:
    """The sheet in its squares, then the jottings and pictures of the steps that are seen."""
    keys = step_keys(item.working)
    steps = [i for i in range(len(keys)) if not _hides(item, i, fading)]
    alt = item.voice.said(sheet.spoken) if fading.plain else "A working with blanks."
    drawn = squares(sheet_with_blanks(sheet, keys, fading))
    units, high, width = size_of(sheet)
    # What is said of a calculation in columns would tell what belongs in its blanks.
    told = [i for i in steps if fading.plain or item.working.steps[i].kind.pictures != "columns"]
    shown = [one for i in steps for one in _picture(item, i, pictures)]
    return [Picture("squares", (drawn,), alt, units, high, width), *_jottings(item, told, fading), *shown]


# In boxes -------------------------------------------------------------------------------------------------------------


def _boxes(item: Item, boxes: tuple[Box, ...], fading: Fading, numbered: bool) -> Boxes:
    made = [_box(item, box, fading, i + 1 if numbered else 0) for i, box in enumerate(boxes)]
    return Boxes(tuple(made), numbered)


def _box(item: Item, box: Box, fading: Fading, number: int) -> BoxCell:
    steps = [row.step for row in box.rows]
    hidden = any(step is not None and _hides(item, step, fading) for step in steps)
    answer = item.voice.said(box.answer) if box.answer and not hidden else ""
    blocks: list[Block] = [_row(item, step, fading) for step in steps]
    blocks += [found for one in box.jottings if (found := _jotting(item, one, fading)) is not None]
    return BoxCell(box.heading(item.voice), answer, number, tuple(blocks))


def _row(item: Item, step: int | None, fading: Fading) -> Block:
    if step is None:
        return line(item.working, None, "", fading)
    return _FILL if _hides(item, step, fading) else _written(item, step, fading)
