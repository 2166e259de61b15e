"""Strips: a row of strips for each number of a step; every strip is one whole, all of the same length.

The length of a strip is a multiple of every denominator in the figure, so all parts are exactly equal.
Thin cuts over thick ones show a strip that was cut again; crossed-off parts were taken away.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import lcm

from ..methods.terms import parts
from ..numbers import Expr, Frac, Mixed, Neg, Sum, Whole, leaves
from ..wording import Role, parts_name
from ..working import Step
from .display import Figure, Shape, Weight

MOST_PARTS = 24
TOO_MANY_PARTS = f"More than {MOST_PARTS} parts to a whole: a picture of strips no longer helps."

_LENGTH = 220  # at least; the next multiple of all denominators is taken
_HEIGHT = 34
_GAP = 12
_ROW_GAP = 22
_LABEL = 22
_PER_ROW = 2
_WHOLES_SHOWN = 2


@dataclass(frozen=True, slots=True)
class _Strips:
    """One number as strips: *parts* of 1/*den* in all, beside *wholes* uncut strips, *old* the cuts before."""

    wholes: int
    parts: int
    den: int
    role: Role
    old: int | None = None
    crossed_wholes: int = 0
    crossed: int = 0
    label: str = ""


def of_step(step: Step) -> Figure | None:
    """The strips of what a step leads to; None for decimals, and past `MOST_PARTS` parts to a whole."""
    rows = _taking_away(step) or _shown(step)
    if not rows or any(row.den > MOST_PARTS or (row.old or 1) > MOST_PARTS for row in rows):
        return None
    return _draw(rows)


def amount(whole: int, num: int, den: int) -> str:
    """A number as it is counted in a picture.

    >>> amount(7, 3, 12), amount(0, 1, 2), amount(1, 0, 1)
    ('7 wholes and 3 twelfths', '1 half', '1 whole')
    """
    said = [f"{whole} whole{'s' if whole != 1 else ''}"] if whole else []
    if num or not whole:
        said.append(f"{num} {parts_name(den, num != 1)}")
    return " and ".join(said)


def note(step: Step) -> str | None:
    """Why a step has no strips, where its parts are too many; None otherwise."""
    numbers = [*leaves(step.before), *leaves(step.after)]
    dens = [number.den or 1 for number in numbers if isinstance(number, (Frac, Mixed))]
    return TOO_MANY_PARTS if max(dens, default=1) > MOST_PARTS else None


def _shown(step: Step) -> list[_Strips]:
    numbers = [n for n in leaves(step.after) if isinstance(n, (Whole, Frac, Mixed))]
    olds = [n for n in leaves(step.before) if isinstance(n, (Whole, Frac, Mixed))]
    recut = step.kind in ("common-denominator", "simplify") and len(olds) == len(numbers)
    if not recut:
        numbers = _changed(olds, numbers)
    rows = []
    for i, number in enumerate(numbers):
        whole, num, den = parts(number)
        role: Role = (step.roles[i] if i < len(step.roles) else "") or "answer"
        old = parts(olds[i])[2] if recut and parts(olds[i])[2] != den else None
        rows.append(_Strips(whole, num, den, role, old, label=amount(whole, num, den)))
    return rows


def _changed(before: list[Whole | Frac | Mixed], after: list[Whole | Frac | Mixed]) -> list[Whole | Frac | Mixed]:
    """*after* without the terms at its end that the step left as they were; all of it, where only the order changed."""
    keep = len(after)
    while keep > 1 and len(before) - (len(after) - keep) > 1 and before[keep - len(after) - 1] == after[keep - 1]:
        keep -= 1
    return after[:keep]


def _taking_away(step: Step) -> list[_Strips]:
    """For a subtraction: the strips of the first number, with what is taken away crossed off."""
    if step.kind != "subtract":
        return []
    pair = _first_pair(step.before)
    if pair is None:
        return []
    a, b = pair
    (w, n, d), (v, m, e) = parts(a), parts(b)
    den = d if isinstance(b, Whole) else e
    return [_Strips(w, n, den, "first", crossed_wholes=v, crossed=m, label=f"take away {amount(v, m, den)}")]


def _first_pair(expr: Expr) -> tuple[Expr, Expr] | None:
    while not isinstance(expr, Sum):
        if not isinstance(expr, Neg):
            return None
        expr = getattr(expr.inner, "inner", expr.inner)
    if isinstance(expr.first, Neg):
        return _first_pair(expr.first)
    return expr.first, expr.rest[0][1]


# Drawing ---------------------------------------------------------------------------------------------------


def _draw(rows: list[_Strips]) -> Figure:
    unit = lcm(*(row.den for row in rows), *(row.old or 1 for row in rows))
    length = unit * -(-_LENGTH // unit)
    shapes: list[Shape] = []
    y = 0
    for row in rows:
        shapes.append(Shape("label", 0, y + _LABEL - 6, role=row.role, text=row.label))
        y = _draw_number(shapes, row, length, y + _LABEL) + _ROW_GAP - _GAP
    # Always as wide as a full row: all pictures of a working have one scale, and labels have room.
    width = _PER_ROW * length + (_PER_ROW - 1) * _GAP
    return Figure("bars", width, y - (_ROW_GAP - _GAP) - _GAP, tuple(shapes), " ".join([_alt(row) for row in rows]))


def _draw_number(shapes: list[Shape], row: _Strips, length: int, y: int) -> int:
    """Append the strips of one number from height *y* on; returns the height below them."""
    shown = row.wholes if row.wholes <= _WHOLES_SHOWN else 1
    crossed_shown = max(0, row.crossed_wholes - (row.wholes - shown))
    filled, left = shown, row.parts
    place = 0
    crossed = row.crossed
    while filled or left > 0 or place == 0:
        x = (place % _PER_ROW) * (length + _GAP)
        top = y + (place // _PER_ROW) * (_HEIGHT + _GAP)
        if filled:
            _uncut(shapes, row, x, top, length, crossed=filled <= crossed_shown)
            filled -= 1
        else:
            count = min(left, row.den)
            _cut_strip(shapes, row, x, top, length, count, min(crossed, count))
            crossed -= min(crossed, count)
            left -= count
        place += 1
    below = y + -(-place // _PER_ROW) * (_HEIGHT + _GAP)
    if shown == row.wholes:
        return below
    hidden = row.wholes - shown
    said = f"and {amount(hidden, 0, 1)} more"
    if row.crossed_wholes > crossed_shown:
        said += f", {row.crossed_wholes - crossed_shown} of them crossed off"
    shapes.append(Shape("label", 0, below + _LABEL - _GAP, text=said))
    return below + _LABEL


def _uncut(shapes: list[Shape], row: _Strips, x: int, y: int, length: int, crossed: bool) -> None:
    shapes.append(Shape("part", x, y, length, _HEIGHT, row.role))
    if crossed:
        shapes.append(Shape("line", x, y + _HEIGHT, length, -_HEIGHT, weight="cross"))
    shapes.append(Shape("whole", x, y, length, _HEIGHT))


def _cut_strip(shapes: list[Shape], row: _Strips, x: int, y: int, length: int, count: int, crossed: int) -> None:
    part = length // row.den
    if count:
        shapes.append(Shape("part", x, y, part * count, _HEIGHT, row.role))
    coarse = min(row.den, row.old or row.den)
    fine = max(row.den, row.old or row.den)
    for k in range(1, fine):
        # A cut of the coarser kind is drawn thick; where nothing was recut, all cuts are thick.
        weight: Weight = "thick" if (k * coarse) % fine == 0 else "thin"
        shapes.append(Shape("line", x + length // fine * k, y, 0, _HEIGHT, weight=weight))
    for k in range(count - crossed, count):
        shapes.append(Shape("line", x + part * k, y + _HEIGHT, part, -_HEIGHT, weight="cross"))
    shapes.append(Shape("whole", x, y, length, _HEIGHT))


def _alt(row: _Strips) -> str:
    said = [f"{row.wholes} strip{'s' if row.wholes != 1 else ''} shaded whole"] if row.wholes else []
    if row.parts or not row.wholes:
        strips = max(1, -(-row.parts // row.den))
        each = "strip" if strips == 1 else f"{strips} strips, each"
        said.append(f"{'a ' if strips == 1 else ''}{each} cut into {row.den} equal parts, {row.parts} of them shaded")
    if row.old:
        said.append(f"the cuts of {row.old} equal parts are drawn as well")
    if row.crossed or row.crossed_wholes:
        off = [amount(row.crossed_wholes, 0, 1)] * bool(row.crossed_wholes) + [f"{row.crossed} parts"] * bool(
            row.crossed
        )
        said.append(f"{' and '.join(off)} crossed off")
    sentence = "; ".join(said) + "."
    return f"{row.label}: {sentence}"
