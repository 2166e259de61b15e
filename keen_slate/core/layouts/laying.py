"""A working laid out as its class does; a story's calculations as one: sheets under each other, or boxes one after the
other.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from ..working.keys import step_keys
from ..working.proof import Working
from .cells import Row
from .registry import LAYOUTS, LINE, Box, Laid
from .sheet import PROBLEM, Moment, Sheet

_BETWEEN = 4  # half squares between two sheets


def lay(working: Working) -> tuple[str, Laid]:
    """The layout that the class uses, or `LINE` where it cannot be had, and what it makes of *working*."""
    laid = _laid(working, working.ways.layout) if working.steps else None
    if laid is not None:
        return working.ways.layout, laid
    return LINE, (_laid(working, LINE) if working.steps else None) or Laid()


def _laid(working: Working, code: str) -> Laid | None:
    """What the layout *code* makes of a working; of a story's calculations it makes one."""
    if not working.parts:
        return LAYOUTS[code](working)
    parts = [LAYOUTS[code](part) if part.steps else None for part in working.parts]
    there = [part for part in parts if part is not None]
    return joined(working, there) if len(there) == len(parts) else None


def joined(working: Working, laid: list[Laid]) -> Laid | None:
    """What is *laid* out of each part of a working as one; None where some have sheets and others have none."""
    starts = _starts(working)
    sheets = [one.sheet for one in laid if one.sheet is not None]
    if len(sheets) == len(laid):
        return Laid(_one_sheet(working, sheets, starts))
    if not sheets and all(one.boxes for one in laid):
        return Laid(
            boxes=tuple([_moved(box, start) for one, start in zip(laid, starts, strict=True) for box in one.boxes])
        )
    return None if sheets else Laid()


def _starts(working: Working) -> list[int]:
    """The index of the first step of each part; before all but the first stands the step that leads to it."""
    starts = [0]
    for part in working.parts[:-1]:
        starts.append(starts[-1] + len(part.steps) + 1)
    return starts


def _one_sheet(working: Working, sheets: list[Sheet], starts: list[int]) -> Sheet:
    keys = step_keys(working)
    done = replace(sheets[0], moments=_moments(sheets[0], 0))
    names = [_names(part, keys, start) for part, start in zip(working.parts, starts, strict=True)]
    done = replace(done, cells=tuple([replace(c, key=_key(c.key, names[0])) for c in done.cells]))
    for sheet, start, name in zip(sheets[1:], starts[1:], names[1:], strict=True):
        drop, later = done.height + _BETWEEN, len(done.moments) + 1
        # What stands there from the start of a later calculation comes with the step that leads to it.
        cells = [
            replace(c, y=c.y + drop, at=c.at + later, struck_at=c.struck_at + later * c.struck, key=_key(c.key, name))
            for c in sheet.cells
        ]
        rules = [replace(r, y=r.y + drop, at=r.at + later) for r in sheet.rules]
        moments = (Moment(start - 1, working.steps[start - 1].title), *_moments(sheet, start))
        done = Sheet(
            max(done.width, sheet.width), drop + sheet.height, (*done.cells, *cells), (*done.rules, *rules),
            (*done.moments, *moments), f"{done.spoken} {sheet.spoken}",
        )  # fmt: skip
    return done


def _moments(sheet: Sheet, start: int) -> tuple[Moment, ...]:
    return tuple([one if one.step == PROBLEM else replace(one, step=one.step + start) for one in sheet.moments])


def _names(part: Working, keys: list[str], start: int) -> dict[str, str]:
    """The names of a part's steps in the whole working, by their own; its first line is that of the step that leads to
    it.
    """
    own = step_keys(part)
    first = keys[start - 1] if start else "problem"
    return {"problem": first} | {key: keys[start + i] for i, key in enumerate(own)}


def _key(key: str, names: dict[str, str]) -> str:
    for own in sorted(names, key=len, reverse=True):
        if key.startswith(f"{own} "):
            return f"{names[own]}{key[len(own) :]}"
    return key


def _moved(box: Box, start: int) -> Box:
    """A box of a part, its steps counted in the whole working."""
    jottings = tuple([one if one.step is None else replace(one, step=one.step + start) for one in box.jottings])
    return replace(box, rows=_rows(box.rows, start), jottings=jottings)


def _rows(rows: Iterable[Row], start: int) -> tuple[Row, ...]:
    first = start - 1 if start else None  # the line that a calculation begins with
    return tuple([replace(row, step=first if row.step is None else row.step + start) for row in rows])
