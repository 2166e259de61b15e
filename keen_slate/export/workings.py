"""A working on paper, in the layout of its class: lines, a sheet of squares, boxes, or questions; with what pupils fill in left out."""

from __future__ import annotations

from collections.abc import Iterable
from html import escape

from keen_slate.core.documents.figure import picture_of
from keen_slate.core.expressions.typeset import Roles
from keen_slate.core.figures.svg import svg
from keen_slate.core.layouts.laying import lay
from keen_slate.core.layouts.registry import Box, Jotting
from keen_slate.core.layouts.rows import lead
from keen_slate.core.layouts.sheet import Sheet
from keen_slate.core.teaching.fading import Fading, glyphs_with_blanks, jotting_with_blanks, sheet_with_blanks
from keen_slate.core.ways.voices import voice_of
from keen_slate.core.working.keys import step_keys
from keen_slate.core.working.proof import Working

from .item import Item
from .marked_up import image, math
from .squares import squares

_TRY = '<p class="pause">Try it yourself first.</p>'
_FILL = '<div class="fill"></div>'


def body(item: Item, fading: Fading, pictures: bool) -> str:
    """The whole working of *item* as HTML, what *fading* leaves to pupils left out; with the pictures of its steps where wanted."""
    layout, laid = lay(item.working)
    if laid.sheet is not None:
        return _sheet(item, laid.sheet, fading, pictures)
    if laid.boxes:
        return _boxes(item, laid.boxes, fading, numbered=layout == "checklist")
    return "".join([_step(item, i, fading, pictures) for i in range(len(item.working.steps))])


def line(working: Working, index: int | None, key: str, fading: Fading) -> str:
    """The problem (*index* None) or the end of a step, typeset, with its blanks."""
    voice = voice_of(working.ways)
    if index is None:
        start = voice.glyphs(working.start, working.problem_roles)
        return math(glyphs_with_blanks(start, "problem", fading))
    step = working.steps[index]
    roles: Roles = ("answer",) if index == len(working.steps) - 1 else step.roles
    pieces = glyphs_with_blanks(voice.glyphs(step.after, roles), key, fading)
    before = " ".join(lead(working, index).strip())
    start_sign = f'<span class="operator">{before}</span>' if before else ""
    return f"{start_sign}{math(pieces)}"


# Line by line -------------------------------------------------------------------------------------------------------


def _step(item: Item, index: int, fading: Fading, pictures: bool) -> str:
    pause = _TRY if fading.pause == step_keys(item.working)[index] else ""
    if _hides(item, index, fading):
        return f"{pause}{_FILL}"
    return f"{pause}{_written(item, index, fading)}{_jottings(item, [index], fading)}{_picture(item, index, pictures)}"


def _hides(item: Item, index: int, fading: Fading) -> bool:
    keys = step_keys(item.working)
    return fading.hides_step(index, len(keys)) or fading.hides_row(keys[index])


def _written(item: Item, index: int, fading: Fading) -> str:
    return f"<p class='line'>{line(item.working, index, step_keys(item.working)[index], fading)}</p>"


def _jottings(item: Item, steps: Iterable[int], fading: Fading) -> str:
    every = [Jotting(rich, i, j) for i in steps for j, rich in enumerate(item.working.steps[i].lines)]
    return "".join([_jotting(item, one, fading) for one in every])


def _jotting(item: Item, one: Jotting, fading: Fading) -> str:
    if one.step is None:
        return f'<p class="jotting">{math(item.voice.typeset(one.rich))}</p>'
    key = f"{step_keys(item.working)[one.step]} line {one.line}"
    if key in fading.blanks or _hides(item, one.step, fading):
        return ""
    return f'<p class="jotting">{math(jotting_with_blanks(one.rich, key, fading, item.voice))}</p>'


def _picture(item: Item, index: int, wanted: bool) -> str:
    figure = picture_of(item.working, index, item.sentences) if wanted else None
    if figure is None:
        return ""
    return image("picture", svg(figure, "both", item.voice), item.voice.said(figure.alt))


# On one sheet ---------------------------------------------------------------------------------------------------------


def _sheet(item: Item, sheet: Sheet, fading: Fading, pictures: bool) -> str:
    """The sheet in its squares, then the jottings and pictures of the steps that are seen."""
    keys = step_keys(item.working)
    steps = [i for i in range(len(keys)) if not _hides(item, i, fading)]
    alt = item.voice.said(sheet.spoken) if fading.plain else "A working with blanks."
    drawn = image("squares", squares(sheet_with_blanks(sheet, keys, fading)), alt)
    # What is said of a calculation in columns would tell what belongs in its blanks.
    told = [i for i in steps if fading.plain or item.working.steps[i].kind.pictures != "columns"]
    beside = f'<div class="jottings">{_jottings(item, told, fading)}</div>'
    return drawn + beside + "".join([_picture(item, i, pictures) for i in steps])


# In boxes -------------------------------------------------------------------------------------------------------------


def _boxes(item: Item, boxes: tuple[Box, ...], fading: Fading, numbered: bool) -> str:
    made = [_box(item, box, fading, i + 1 if numbered else None) for i, box in enumerate(boxes)]
    if numbered:
        return f'<div class="questions">{"".join(made)}</div>'
    pairs = ["".join(made[i : i + 2]) for i in range(0, len(made), 2)]
    return f'<div class="boxes">{"".join([f"""<div class="pair">{pair}</div>""" for pair in pairs])}</div>'


def _box(item: Item, box: Box, fading: Fading, number: int | None) -> str:
    steps = [row.step for row in box.rows]
    hidden = any(step is not None and _hides(item, step, fading) for step in steps)
    answer = f" <span>{escape(item.voice.said(box.answer))}</span>" if box.answer and not hidden else ""
    title = f"{number}. " if number else ""
    rows = "".join([_row(item, step, fading) for step in steps])
    jottings = "".join([_jotting(item, one, fading) for one in box.jottings])
    return f'<div class="box"><h3>{title}{escape(box.heading(item.voice))}{answer}</h3>{rows}{jottings}</div>'


def _row(item: Item, step: int | None, fading: Fading) -> str:
    if step is None:
        return f"<p class='line'>{line(item.working, None, '', fading)}</p>"
    return _FILL if _hides(item, step, fading) else _written(item, step, fading)
