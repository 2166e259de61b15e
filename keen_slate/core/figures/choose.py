"""Which pictures can show a step, and which one serves it best. A new kind of picture has its place in `_MAKERS`."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from math import ceil

from ..expressions.tree import Bracket, Dec, Equation, Expr, Frac, Mixed, Neg, OpenFrac, OpenMixed, Sum, Whole, value
from ..expressions.walks import has_blank, leaves
from ..working.proof import Working
from ..working.step import Step
from . import number_line, part_whole, place_value
from .display import Figure
from .pieces import draw
from .scenes import MOST_PARTS, MOST_WHOLES, Scene, Taking, largest, scene_of, scene_of_problem
from .shapes import Circle, Square, Strip

KINDS = ("bars", "circles", "grid", "number-line", "part-whole", "place-value")
KIND_NAMES = {
    "bars": "strips",
    "circles": "circles",
    "grid": "squares cut both ways",
    "number-line": "number line",
    "part-whole": "total and parts",
    "place-value": "counters in columns",
}
TOO_MANY_PARTS = f"More than {MOST_PARTS} parts to a whole no longer help to see it: here is a number line."
TOO_MANY_WHOLES = f"More than {MOST_WHOLES} wholes no longer help to see it: here is a number line."

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
        written = [n for expr in [*numbers, *[s.after for s in working.steps]] for n in leaves(expr)]
        dens = [n.den for n in written if isinstance(n, (Frac, Mixed, OpenFrac, OpenMixed)) and n.den]
        whole = max([ceil(abs(value(n))) for expr in numbers for n in leaves(expr) if _is_plain(n)], default=1)
        terms = list(leaves(working.problem.expr))
        product = working.ways.common_denominator == "product"
        return cls(whole, max(dens, default=1), _grid(terms, dens), product, working.problem.label)


def _grid(terms: Sequence[Expr], dens: list[int]) -> tuple[int, int] | None:
    if len(terms) != 2 or not all(isinstance(n, Frac) and n.num and n.den and n.num <= n.den for n in terms):
        return None
    columns, rows = [n.den for n in terms if isinstance(n, Frac)]
    suits = columns != rows and min(columns, rows) > 1 and columns * rows <= MOST_PARTS and columns * rows in dens
    return (columns, rows) if suits else None


def offered(step: Step, look: Look) -> list[str]:
    """The kinds of picture that can show a step, the one that serves it best first."""
    scene = scene_of(step)
    kinds = [kind for kind in KINDS if _can(kind, step, scene, look)]
    best = _best(step, look, kinds)
    return sorted(kinds, key=lambda kind: kind != best)


def of_step(step: Step, look: Look, kind: str | None = None) -> Figure | None:
    """The picture of a step, of the *kind* asked for where it can be had; None where there is none at all."""
    return of_kinds(step, look, offered(step, look), kind)


def of_kinds(step: Step, look: Look, kinds: list[str], kind: str | None = None) -> Figure | None:
    """The same, where the *kinds* that are `offered` are known."""
    if not kinds:
        return None
    chosen = kind if kind in kinds else kinds[0]
    figure = _MAKERS[chosen](step, look)
    return replace(figure, note=_note(step)) if chosen == "number-line" else figure


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
    if kind == "bars":
        return draw(scene, kind, [Strip(240 if look.wholes <= 2 else 114)])
    if kind == "circles":
        return draw(scene, kind, [Circle(150 if look.wholes <= 2 else 88)])
    columns, rows = look.grid or (1, 1)
    square = Square(156, columns, rows)
    return draw(scene, kind, [square, replace(square, across=True)])


def _pieces(kind: str) -> Callable[[Step, Look], Figure]:
    def make(step: Step, look: Look) -> Figure:
        scene = scene_of(step)
        if scene is None:
            raise ValueError(f"{step.kind} has no wholes and parts to draw")
        return draw_scene(scene, kind, look)

    return make


def _part_whole(step: Step, look: Look) -> Figure:
    found = _parts(step)
    if found is None:
        raise ValueError(f"{step.kind} has no total with parts")
    return part_whole.draw(*found)


def _parts(step: Step) -> tuple[part_whole.Part, list[part_whole.Part]] | None:
    if isinstance(step.before, Equation):
        return part_whole.parts_of_equation(step.before, step.after)
    if not step.kind.startswith(("add", "subtract", "common", "column")) or not _is_sum(step.before):
        return None
    return part_whole.parts_of(step.before, step.after)


_MAKERS: dict[str, Callable[[Step, Look], Figure]] = {
    "bars": _pieces("bars"),
    "circles": _pieces("circles"),
    "grid": _pieces("grid"),
    "number-line": lambda step, look: number_line.of_step(step),
    "part-whole": _part_whole,
    "place-value": lambda step, look: place_value.of_step(step, look.label),
}


def _can(kind: str, step: Step, scene: Scene | None, look: Look) -> bool:
    if kind == "number-line":
        return _is_sum(step.before) and _is_sum(step.after) and step.kind != "reorder"
    if kind == "part-whole":
        return _parts(step) is not None
    if kind == "place-value":
        return place_value.can(step)
    return scene is not None and _fits(kind, scene, look)


def _is_plain(number: Expr) -> bool:
    return isinstance(number, _PLAIN) and not has_blank(number)


def _is_sum(expr: Expr) -> bool:
    """Whether *expr* is a number, or a sum of numbers; signs and brackets may stand among them."""
    if isinstance(expr, Sum):
        return all(_is_sum(term) for term in (expr.first, *[term for _, term in expr.rest]))
    return _is_sum(expr.inner) if isinstance(expr, (Neg, Bracket)) else _is_plain(expr)


def _fits(kind: str, scene: Scene, look: Look) -> bool:
    parts, wholes = largest(scene)
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


def _best(step: Step, look: Look, kinds: list[str]) -> str:
    for first in (
        ("place-value", "part-whole") if isinstance(step.before, Equation) or step.kind.startswith("column") else ()
    ):
        if first in kinds:
            return first
    if look.product and "grid" in kinds:
        return "grid"
    if "circles" in kinds and 1 < look.wholes <= MOST_WHOLES and look.parts <= _MOST_PARTS_OF_CIRCLES:
        return "circles"
    return "bars" if "bars" in kinds else "number-line"


def _note(step: Step) -> str:
    scene = scene_of(step)
    if scene is None:
        return ""
    parts, wholes = largest(scene)
    return TOO_MANY_PARTS if parts > MOST_PARTS else TOO_MANY_WHOLES if wholes > MOST_WHOLES else ""
