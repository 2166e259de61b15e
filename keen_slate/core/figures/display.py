"""The display list that every figure is made of, and its last moment: exact shapes -> paths and places in text.

A `Shape` has exact coordinates (int or Fraction) in the figure's own units. `marks` rounds them to hundredths of a
unit and writes them as SVG paths; the two renderers (parts/FigureDrawing.vue, `svg`) only place what it returns.
A figure may have two states, before and after an action: *when* says in which of them a shape is seen, and *moved*
how far a shape of the after state stands from its place before.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from math import cos, sin, tau
from typing import Literal

from ..expressions.typeset import Role

Length = int | Fraction
State = Literal["before", "after"]
When = Literal["", "before", "after"]
Look = Literal[
    "part",
    "whole",
    "thick",
    "thin",
    "cross",
    "axis",
    "jump",
    "dot",
    "label",
    "bar",
    "leader",
    "blank",
    "plate",
    "block",
]

WIDTH = 492  # of every figure of a working, so that all of them have one scale
TEXT_SIZE = 20
DIGIT_WIDTH = 12  # room that a character is given; Andika's digits are 0.55 em wide (measured in the browser tests)


@dataclass(frozen=True, slots=True)
class Shape:
    """One shape. What *at* holds depends on *shape*; turns are parts of a full turn, clockwise from the top.

    rect: x, y, width, height · line: x1, y1, x2, y2 · ring: x, y, radius · sector: x, y, radius, turn, turn · spoke: x,
    y, turn, radius, turn, radius (a line between two points given by turn and radius) · arc: x1, x2, y, height (a jump
    above the line at y) · comb: x, step, count, y1, y2 (upright lines, as far apart) · text: x, y (the middle of its
    baseline, or its *anchor*)
    """

    shape: Literal["rect", "line", "ring", "sector", "spoke", "arc", "comb", "text"]
    look: Look
    at: tuple[Length, ...]
    role: Role = ""
    when: When = ""
    moved: tuple[Length, Length, Length] = (0, 0, 0)  # x, y, turn
    text: str = ""
    anchor: Literal["start", "middle", "end"] = "start"


@dataclass(frozen=True, slots=True)
class Figure:
    """A picture: its size, its shapes from back to front, and what is seen in it. *note* says why it is this kind."""

    kind: str
    width: int
    height: int
    shapes: tuple[Shape, ...]
    alt: str
    note: str = ""

    @property
    def acts(self) -> bool:
        """Whether there is a state before and one after."""
        return any(shape.when or any(shape.moved) for shape in self.shapes)


@dataclass(frozen=True, slots=True)
class Mark:
    """A shape ready to be placed: an SVG path *d*, or *text* at x, y. All numbers are text, rounded to hundredths.

    dx, dy and turn (degrees, about x, y) bring it to where it stands before the action.
    """

    look: Look
    role: Role
    when: When
    d: str
    x: str = "0"
    y: str = "0"
    dx: str = "0"
    dy: str = "0"
    turn: str = "0"
    text: str = ""
    anchor: Literal["start", "middle", "end"] = "start"


def marks(figure: Figure) -> list[Mark]:
    """The shapes of *figure* as marks; lines of one look in one state are one path.

    >>> marks(Figure("bars", 9, 9, (Shape("line", "thin", (Fraction(1, 3), 0, Fraction(1, 3), 9)),), ""))[0].d
    'M0.33 0L0.33 9'
    """
    done: list[Mark] = []
    lines: list[str] = []  # of the run of lines that is being gathered
    run: tuple[Look, Role, When] | None = None
    for shape in figure.shapes:
        kind = (shape.look, shape.role, shape.when) if shape.shape in ("line", "spoke", "comb") else None
        if run and kind != run:
            done.append(Mark(*run, "".join(lines)))
            lines.clear()
        run = kind
        if kind:
            lines.append(path(shape))
        else:
            done.append(_mark(shape))
    if run:
        done.append(Mark(*run, "".join(lines)))
    return done


def seen(figure: Figure, state: State) -> Iterator[Shape]:
    """The shapes that are seen in *state*."""
    return (shape for shape in figure.shapes if shape.when in ("", state))


def _mark(shape: Shape) -> Mark:
    if shape.shape == "text":
        x, y = shape.at
        return Mark(shape.look, shape.role, shape.when, "", number(x), number(y), text=shape.text, anchor=shape.anchor)
    if shape.moved == (0, 0, 0):
        return Mark(shape.look, shape.role, shape.when, path(shape))
    dx, dy, turn = shape.moved
    x, y = shape.at[:2]
    turned = number(turn * 360)
    return Mark(shape.look, shape.role, shape.when, path(shape), number(x), number(y), number(dx), number(dy), turned)


def number(length: Length) -> str:
    """*length* as SVG writes it, rounded to hundredths.

    >>> number(Fraction(22, 3)), number(12), number(Fraction(1, 2))
    ('7.33', '12', '0.5')
    """
    if isinstance(length, int):
        return str(length)
    n, d = length.numerator, length.denominator
    return _from_hundredths((200 * n + d) // (2 * d))


@lru_cache(maxsize=8192)
def _from_hundredths(n: int) -> str:
    sign = "-" if n < 0 else ""
    whole, hundredths = divmod(abs(n), 100)
    return f"{sign}{whole}.{hundredths:02}".rstrip("0").rstrip(".") if hundredths else f"{sign}{whole}"


def path(shape: Shape) -> str:
    """The SVG path of a shape that is not text."""
    at = shape.at
    if shape.shape == "rect":
        left, top, width, high = map(number, at)
        return f"M{left} {top}h{width}v{high}h-{width}z"
    if shape.shape == "line":
        x1, y1, x2, y2 = map(number, at)
        return f"M{x1} {y1}L{x2} {y2}"
    if shape.shape == "arc":
        start, end, line, height = at
        # A quadratic curve reaches half of its control point's height.
        middle = f"{number(Fraction(start + end) * Fraction(1, 2))} {number(line - 2 * height)}"
        return f"M{number(start)} {number(line)}Q{middle} {number(end)} {number(line)}"
    if shape.shape == "comb":
        first, step, count = at[:3]
        ends = f" {number(at[3])}V{number(at[4])}"
        # All places are over one denominator: a number line has hundreds of them.
        d = first.denominator * step.denominator
        n, by = first.numerator * step.denominator, step.numerator * first.denominator
        return "".join([f"M{_from_hundredths((200 * (n + i * by) + d) // (2 * d))}{ends}" for i in range(int(count))])
    x, y, r = at[:3]
    if shape.shape == "spoke":
        x, y, turn, r, to_turn, to_r = at
        return f"M{_on_circle(x, y, r, turn)}L{_on_circle(x, y, to_r, to_turn)}"
    radius = number(r)
    if shape.shape == "ring" or at[4] - at[3] == 1:
        across = number(2 * r)
        return f"M{number(x - r)} {number(y)}a{radius} {radius} 0 1 1 {across} 0a{radius} {radius} 0 1 1 -{across} 0z"
    start, end = at[3:]
    large = int(end - start > Fraction(1, 2))
    return (
        f"M{number(x)} {number(y)}L{_on_circle(x, y, r, start)}A{radius} {radius} 0 {large} 1 "
        f"{_on_circle(x, y, r, end)}z"
    )


def on_circle(x: Length, y: Length, r: Length, turn: Length) -> tuple[int, int]:
    """The point at a *turn* (a part of a full one, clockwise from the top) on the circle around x, y: in hundredths of
    a unit.
    """
    # The one place where a picture leaves exact arithmetic: nothing is calculated on from here.
    right, up = _directions(turn.numerator, turn.denominator)
    return int((100_000 * x + r * right + 500) // 1000), int((100_000 * y - r * up + 500) // 1000)


def _on_circle(x: Length, y: Length, r: Length, turn: Length) -> str:
    across, down = on_circle(x, y, r, turn)
    return f"{_from_hundredths(across)} {_from_hundredths(down)}"


@lru_cache(maxsize=2048)
def _directions(n: int, d: int) -> tuple[int, int]:
    """How far right and up the turn n/d leads on a circle, in hundred thousandths of its radius."""
    angle = tau * Fraction(n, d)
    return round(100_000 * sin(angle)), round(100_000 * cos(angle))
