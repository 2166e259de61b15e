"""Bar models of a story's calculations: a total over its parts, two amounts compared, equal groups, a part of an
amount; all to scale.

What a calculation finds is a question mark before, and stands there after. A change of unit has no model: nothing
happens in it.
"""

from __future__ import annotations

from collections.abc import Collection
from fractions import Fraction

from ..expressions.spoken import words
from ..expressions.tree import Expr, Frac, Product, Sum, value
from ..expressions.typeset import TERM_ROLES, Role
from ..limits import MOST_PARTS
from ..stories.story import Story
from ..working.proof import Working
from . import part_whole
from .display import WIDTH, Figure, Shape
from .labels import HEIGHT, within
from .part_whole import BAR, PartShown

_GAP = 6


def models_of(story: Story, working: Working, blanks: Collection[tuple[int, int]] = ()) -> list[Figure | None]:
    """The model of each calculation of a *story*, None where there is none to be drawn.

    *blanks* are numbers that pupils write: the index of the calculation, and of its number (what is found counts as the
    last).
    """
    return [_model(story, i, part, {k for j, k in blanks if j == i}) for i, part in enumerate(working.parts)]


def _model(story: Story, i: int, part: Working, blanks: Collection[int]) -> Figure | None:
    expr = part.problem.expr
    if any(use.kind == "units" for use in story.steps[i].uses):
        return None
    if isinstance(expr, Sum):
        found = part_whole.parts_of(expr, part.answer)
        if found is None:
            return None
        total, parts = found
        return part_whole.draw(*_with_blanks(total, parts, blanks))
    if isinstance(expr, Product) and len(expr.rest) == 1:
        return _of_product(expr, part.answer, blanks)
    return None


def _with_blanks(
    total: PartShown, parts: list[PartShown], blanks: Collection[int]
) -> tuple[PartShown, list[PartShown]]:
    """The bars with the numbers *blanks* left to pupils: counted as they stand in the calculation, what is
    found last.
    """
    known = sorted(
        [one for one in (total, *parts) if one.before is not None], key=lambda one: TERM_ROLES.index(one.role)
    )
    hidden = [one for k, one in enumerate(known) if k in blanks]
    hidden += [one for one in (total, *parts) if one.before is None and len(known) in blanks]

    def seen(one: PartShown) -> PartShown:
        return PartShown(one.size, None, None, one.role) if one in hidden else one

    return seen(total), [seen(one) for one in parts]


def _of_product(expr: Product, answer: Expr, blanks: Collection[int]) -> Figure | None:
    first, (operator, second) = expr.first, expr.rest[0]
    shown = [None if k in blanks else number for k, number in enumerate((first, second, answer))]
    if operator == "÷":
        return _divided(first, second, answer, shown)
    if isinstance(first, Frac) and value(first) < 1:
        return _part(first, second, shown)
    if value(first).denominator == 1 and 1 < value(first) <= MOST_PARTS:
        return _equal_parts(int(value(first)), value(second), shown[2], shown[1], (True, False), (second, answer))
    return None


def _divided(amount: Expr, by: Expr, answer: Expr, shown: list[Expr | None]) -> Figure | None:
    """An amount in equal parts: so many of them, or of such a size."""
    count = (
        value(by)
        if value(by).denominator == 1 and value(by) < 100 and value(answer) <= value(amount)
        else value(answer)
    )
    sized = count == value(answer) and count != value(by)
    if value(amount) <= 0 or not 1 < count <= MOST_PARTS or count.denominator != 1:
        return None
    size = value(amount) / count
    of_each = shown[1] if sized else shown[2]
    return _equal_parts(int(count), size, shown[0], of_each, (False, not sized), (by if sized else answer, amount))


def _equal_parts(
    count: int, size: Fraction, total: Expr | None, each: Expr | None, found: tuple[bool, bool], said: tuple[Expr, Expr]
) -> Figure:
    """A bar for the *total* over *count* equal ones; *found* says which of the two labels is a question before."""
    shapes: list[Shape] = []
    y = HEIGHT + 4
    _box(shapes, Fraction(0), Fraction(WIDTH), y, "answer" if found[0] else "first")
    _label(shapes, total, WIDTH // 2, 0, "answer" if found[0] else "first", found[0])
    y += BAR + _GAP
    width = Fraction(WIDTH, count)
    for k in range(count):
        _box(shapes, k * width, width, y, "answer" if found[1] else "second")
    room = part_whole.width_of(each)
    _label(shapes, each, within(width / 2, room), y + BAR + 4, "answer" if found[1] else "second", found[1])
    beside = (within(width / 2, room) + room // 2 + 10, y + BAR + 4 + HEIGHT // 2 + 6)
    shapes.append(Shape("text", "label", beside, text=f"× {count}"))
    alt = f"A bar, and below it as long in all {count} equal bars, each {words(said[0])}, together {words(said[1])}."
    return Figure("bar-model", WIDTH, y + BAR + _GAP + HEIGHT, tuple(shapes), alt)


def _part(fraction: Frac, amount: Expr, shown: list[Expr | None]) -> Figure | None:
    """A bar for an amount over the same bar cut into equal parts, some of them taken."""
    if fraction.den > MOST_PARTS:
        return None
    shapes: list[Shape] = []
    y = HEIGHT + 4
    _box(shapes, Fraction(0), Fraction(WIDTH), y, "second")
    _label(shapes, shown[1], WIDTH // 2, 0, "second", False)
    y += BAR + _GAP
    width = Fraction(WIDTH, fraction.den)
    for k in range(fraction.den):
        _box(shapes, k * width, width, y, "answer" if k < fraction.num else None)
    room = part_whole.width_of(shown[2])
    _label(shapes, shown[2], within(width * fraction.num / 2, room), y + BAR + 4, "answer", True)
    alt = (
        f"A bar for {words(amount)}, and below it the same cut into {fraction.den} equal parts, {fraction.num} of them "
        "shaded."
    )
    return Figure("bar-model", WIDTH, y + BAR + _GAP + HEIGHT, tuple(shapes), alt)


def _box(shapes: list[Shape], x: Fraction, width: Fraction, y: int, role: Role | None) -> None:
    box = (x, y, width, BAR)
    if role is not None:
        shapes.append(Shape("rect", "part", box, role))
    shapes.append(Shape("rect", "whole", box))


def _label(shapes: list[Shape], number: Expr | None, x: Fraction | int, y: int, role: Role, found: bool) -> None:
    """The label of a bar: a question mark for what pupils write, and for what is *found* before it is."""
    if number is None or found:
        part_whole.write(shapes, None, x, y, role, "" if number is None else "before")
    if number is not None:
        part_whole.write(shapes, number, x, y, role, "after" if found else "")
