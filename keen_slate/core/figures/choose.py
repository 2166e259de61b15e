"""Which pictures can show a step, and which one serves it best.

A new kind of picture is one entry of `FIGURE_KINDS`.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import partial
from math import ceil

from ..expressions.tree import Bracket, Dec, Equation, Expr, Frac, Mixed, Neg, Sum, Whole, value
from ..expressions.walks import denominators, leaves
from ..limits import MOST_PARTS, MOST_WHOLES
from ..working.proof import Working
from ..working.step import Step
from . import number_line, part_whole, place_value
from .display import Figure, Shape
from .display import seen as seen_in
from .pieces import draw
from .scenes import Scene, Taking, in_blocks, largest, scene_of, scene_of_problem
from .shapes import Circle, Square, Strip

TOO_MANY_PARTS = f"More than {MOST_PARTS} parts to a <whole> no longer help to see it: here is a number line."

_MOST_PARTS_OF_CIRCLES = 12
_PLAIN = (Whole, Frac, Mixed, Dec)


@dataclass(frozen=True, slots=True)
class Look:
    """What all pictures of a working share, so that they have one scale and one look."""

    wholes: int  # of the largest number
    parts: int  # to a whole, at most
    grid: tuple[int, int] | None  # columns and rows, where the denominators suit a square cut both ways
    product: bool  # whether the denominators are multiplied
    label: str | None = None

    @classmethod
    def of(cls, working: Working) -> Look:
        """The look of a working."""
        numbers = [working.problem.expr, working.answer]
        dens = [d for expr in [*numbers, *[s.after for s in working.steps]] for d in denominators(expr)]
        whole = max([ceil(abs(value(n))) for expr in numbers for n in leaves(expr) if _is_plain(n)], default=1)
        terms = leaves(working.problem.expr)
        product = working.ways.common_denominator == "product"
        return cls(whole, max(dens, default=1), _grid(terms, dens), product, working.problem.label)


def _grid(terms: Sequence[Expr], dens: list[int]) -> tuple[int, int] | None:
    if len(terms) != 2 or not all(isinstance(n, Frac) and 0 < n.num <= n.den for n in terms):
        return None
    columns, rows = [n.den for n in terms if isinstance(n, Frac)]
    suits = columns != rows and min(columns, rows) > 1 and columns * rows <= MOST_PARTS and columns * rows in dens
    return (columns, rows) if suits else None


@dataclass(frozen=True, slots=True)
class StepSeen:
    """A step as its pictures see it: what happens in it, and what is asked of each kind of picture, found once."""

    step: Step
    look: Look
    scene: Scene | None
    parts: tuple[part_whole.PartShown, list[part_whole.PartShown]] | None

    @classmethod
    def of(cls, step: Step, look: Look) -> StepSeen:
        """*step*, looked at with the *look* of its working."""
        return cls(step, look, scene_of(step), _parts(step))


@dataclass(frozen=True, slots=True)
class FigureKind:
    """A kind of picture: what it is called, whether it can show a step, and how it is drawn where it can."""

    name: str
    can: Callable[[StepSeen], bool]
    draw: Callable[[StepSeen], Figure]


def _fits_pieces(kind: str, seen: StepSeen) -> bool:
    return seen.scene is not None and _fits(kind, seen.scene, seen.look)


def _draw_pieces(kind: str, seen: StepSeen) -> Figure:
    assert seen.scene is not None, "asked only where it fits"
    return draw_scene(seen.scene, kind, seen.look)


def _pieces(kind: str, name: str) -> FigureKind:
    return FigureKind(name, partial(_fits_pieces, kind), partial(_draw_pieces, kind))


def _draw_parts(seen: StepSeen) -> Figure:
    assert seen.parts is not None, "asked only where there are parts"
    return part_whole.draw(*seen.parts)


def _can_be_jumped(seen: StepSeen) -> bool:
    step = seen.step
    return _is_sum(step.before) and _is_sum(step.after) and step.kind.pictures != "none"


FIGURE_KINDS: dict[str, FigureKind] = {
    "bars": _pieces("bars", "strips"),
    "circles": _pieces("circles", "circles"),
    "grid": _pieces("grid", "squares cut both ways"),
    "number-line": FigureKind(
        "number line", _can_be_jumped, lambda seen: replace(number_line.of_step(seen.step), note=_note(seen.scene))
    ),
    "part-whole": FigureKind("total and parts", lambda seen: seen.parts is not None, _draw_parts),
    "place-value": FigureKind(
        "counters in columns",
        lambda seen: place_value.can(seen.step),
        lambda seen: place_value.of_step(seen.step, seen.look.label),
    ),
}


def offered(seen: StepSeen) -> list[str]:
    """The kinds of picture that can show a step, the one that serves it best first."""
    kinds = [code for code, kind in FIGURE_KINDS.items() if kind.can(seen)]
    best = _best(seen, kinds)
    return sorted(kinds, key=lambda kind: kind != best)


def of_step(step: Step, look: Look, kind: str | None = None) -> Figure | None:
    """The picture of a step, of the *kind* asked for where it can be had; None where there is none at all."""
    seen = StepSeen.of(step, look)
    return of_kinds(seen, offered(seen), kind)


def of_kinds(seen: StepSeen, kinds: list[str], kind: str | None = None) -> Figure | None:
    """The same, where the *kinds* that are `offered` are known."""
    if not kinds:
        return None
    return FIGURE_KINDS[kind if kind in kinds else kinds[0]].draw(seen)


def repeats(figure: Figure | None, before: Figure | None) -> bool:
    """Whether *figure* shows nothing but what the picture of the step *before* showed: on a number line, whatever is
    written at it.
    """
    return figure is not None and before is not None and figure.kind == before.kind and _looks(figure) == _looks(before)


def _looks(figure: Figure) -> list[Shape]:
    return [
        one for one in seen_in(figure, "after") if figure.kind != "number-line" or one.look not in ("label", "leader")
    ]


def of_problem(working: Working, kind: str | None = None) -> Figure | None:
    """The numbers of the problem itself, of the *kind* asked for where it can be had."""
    look, expr = Look.of(working), working.problem.expr
    if not _is_sum(expr):
        return None
    scene = scene_of_problem(expr)
    can = [k for k in ("bars", "circles", "grid") if scene and _fits(k, scene, look)]
    if kind == "part-whole" and (found := part_whole.parts_of(expr, expr)) is not None:
        return part_whole.draw(*found)
    if kind == "number-line" or not scene or not can:
        return number_line.of_problem(expr)
    return draw_scene(scene, kind if kind in can else can[0], look)


def draw_scene(scene: Scene, kind: str, look: Look) -> Figure:
    """*scene* in strips, circles or squares of the size that suits the working."""
    many = look.wholes > MOST_WHOLES
    if kind == "bars":
        return draw(scene, kind, [Strip(240 if look.wholes <= 2 else 114)], blocks=many)
    if kind == "circles":
        return draw(scene, kind, [Circle(150 if look.wholes <= 2 else 110 if many else 88)], blocks=many)
    columns, rows = look.grid or (1, 1)
    square = Square(156, columns, rows)
    return draw(scene, kind, [square, replace(square, across=True)])


def _parts(step: Step) -> tuple[part_whole.PartShown, list[part_whole.PartShown]] | None:
    if isinstance(step.before, Equation):
        return part_whole.parts_of_equation(step.before, step.after)
    if not step.kind.totals or not _is_sum(step.before):
        return None
    return part_whole.parts_of(step.before, step.after)


def _is_plain(number: Expr) -> bool:
    return isinstance(number, _PLAIN)


def _is_sum(expr: Expr) -> bool:
    """Whether *expr* is a number, or a sum of numbers; signs and brackets may stand among them."""
    if isinstance(expr, Sum):
        return all(_is_sum(term) for term in (expr.first, *[term for _, term in expr.rest]))
    return _is_sum(expr.inner) if isinstance(expr, (Neg, Bracket)) else _is_plain(expr)


def _fits(kind: str, scene: Scene, look: Look) -> bool:
    parts, wholes = largest(in_blocks(scene).scene if look.wholes > MOST_WHOLES else scene)
    if parts > MOST_PARTS or wholes > MOST_WHOLES:
        return False
    if kind != "grid":
        return True
    return (
        look.grid is not None
        and parts in (*look.grid, look.grid[0] * look.grid[1])
        and _stays_in_grid(scene, look.grid)
    )


def _stays_in_grid(scene: Scene, grid: tuple[int, int]) -> bool:
    """Whether every row of a scene is cut as its square is: the first down, the second across, or both ways."""
    both = grid[0] * grid[1]
    match scene:
        case Taking(start, _, _):
            return start.den == both
        case _ if hasattr(scene, "total"):
            return bool(scene.total.den == both)
    rows = getattr(scene, "rows", ())
    return len(rows) == 2 and all(
        {before.den, after.den} <= {side, both} for (before, after, _), side in zip(rows, grid, strict=True)
    )


def _best(seen: StepSeen, kinds: list[str]) -> str:
    look = seen.look
    if isinstance(seen.step.before, Equation) or seen.step.kind.pictures == "columns":
        for first in ("place-value", "part-whole"):
            if first in kinds:
                return first
    if look.product and "grid" in kinds:
        return "grid"
    if "circles" in kinds and look.wholes > 1 and look.parts <= _MOST_PARTS_OF_CIRCLES:
        return "circles"
    return "bars" if "bars" in kinds else "number-line"


def _note(scene: Scene | None) -> str:
    return TOO_MANY_PARTS if scene is not None and largest(scene)[0] > MOST_PARTS else ""
