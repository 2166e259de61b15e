"""A total over its parts, all to one scale; what is to be found is left empty before, and filled after."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from ..expressions.spoken import words
from ..expressions.terms import signed_terms
from ..expressions.tree import Equation, Expr, Neg, Sum, mixed, value
from ..expressions.typeset import TERM_ROLES, Role, roles_for
from ..expressions.walks import fillings, has_blank
from .display import WIDTH, Figure, Shape, When
from .labels import HEIGHT, Levels, number_label, number_width, within

BAR = 34
_UNKNOWN = "?"


@dataclass(frozen=True, slots=True)
class PartShown:
    """A part with its label as it was and as it is: None for one that is to be found."""

    size: Fraction
    before: Expr | None
    after: Expr | None
    role: Role


def parts_of(before: Expr, after: Expr) -> tuple[PartShown, list[PartShown]] | None:
    """The total and the parts of a sum, or of what a first number is taken apart into; None where one is not above 0.

    *after* is the line after the step: its numbers are the labels of the after state.
    """
    terms, later = signed_terms(before), signed_terms(after)
    if len(terms) < 2 or any(isinstance(term, Neg) or value(term) <= 0 for _, term in terms):
        return None
    signs = {sign for sign, _ in terms[1:]}
    total = value(before)
    recut = [(s, value(t)) for s, t in terms] == [(s, value(t)) for s, t in later]
    if len(signs) > 1 or total <= 0 or (not recut and len(later) > 1):
        return None
    labels = [term for _, term in (later if recut else terms)]
    roles = roles_for(len(terms))
    known = [
        PartShown(value(term), term, label, roles[i])
        for i, ((_, term), label) in enumerate(zip(terms, labels, strict=True))
    ]
    found = PartShown(total, None, None if recut else after, "answer")
    return (found, known) if signs == {1} else (known[0], [*known[1:], found])


def parts_of_equation(before: Equation, after: Expr) -> tuple[PartShown, list[PartShown]] | None:
    """The total and the parts of an equation with blanks, one side a sum; None where the other is one too.

    *after* is the equation filled, or what gives the missing number: that number then stays a question.
    """
    if isinstance(after, Equation) and has_blank(after):
        return None
    left, right = before.sides[:2]
    if not isinstance(left, Sum):
        left, right = right, left
    if not isinstance(left, Sum) or isinstance(right, Sum) or len(before.sides) > 2:
        return None
    numbers = [*[term for _, term in signed_terms(left)], right]
    filled = fillings(before, after) if isinstance(after, Equation) else [after]
    later = iter(filled)
    parts = []
    for number, role in zip(numbers, (*TERM_ROLES, *TERM_ROLES, *TERM_ROLES), strict=False):
        blank = has_blank(number)
        known = next(later, None) if blank else number
        if known is None or isinstance(number, Neg) or value(known) <= 0:
            return None
        shown = None if blank and not isinstance(after, Equation) else known
        parts.append(PartShown(value(known), None if blank else number, shown, "answer" if blank else role))
    signs = {sign for sign, _ in signed_terms(left)[1:]}
    if len(signs) > 1:
        return None
    *terms, other = parts
    return (other, terms) if signs == {1} else (terms[0], [*terms[1:], other])


def draw(total: PartShown, parts: Sequence[PartShown]) -> Figure:
    """The bar of *total* and below it the bars of its *parts*, end to end."""
    shapes: list[Shape] = []
    y = HEIGHT + 4
    _bar(shapes, total, Fraction(0), Fraction(WIDTH), y)
    for when, label in _labels(total):
        write(shapes, label, WIDTH // 2, 0, total.role, when)
    y += BAR + 6
    levels, x, rows = Levels(), Fraction(0), 1
    for part in parts:
        width = part.size * WIDTH * Fraction(1, total.size)
        _bar(shapes, part, x, width, y)
        room = max([width_of(label) for _, label in _labels(part)])
        middle = within(x + width * Fraction(1, 2), room)
        row = levels.level(middle - room // 2, middle + room // 2)
        rows = max(rows, row + 1)
        top = y + BAR + 4 + row * HEIGHT
        if row:
            at = x + width * Fraction(1, 2)
            shapes.append(Shape("line", "leader", (at, y + BAR, middle, top), part.role))
        for when, label in _labels(part):
            write(shapes, label, middle, top, part.role, when)
        x += width
    alt = (
        f"A bar for {_said(total)}; below it, as long in all, bars for {', '.join([_said(part) for part in parts])}. "
        "All are drawn to one scale."
    )
    return Figure("part-whole", WIDTH, y + BAR + 6 + rows * HEIGHT, tuple(shapes), alt)


def _labels(part: PartShown) -> list[tuple[When, Expr | None]]:
    return [("", part.after)] if part.before == part.after else [("before", part.before), ("after", part.after)]


def _bar(shapes: list[Shape], part: PartShown, x: Fraction, width: Fraction, y: int) -> None:
    box = (x, y, width, BAR)
    if part.after is not None:
        shapes.append(Shape("rect", "part", box, part.role, "" if part.before else "after"))
    if part.before is None:
        shapes.append(Shape("rect", "blank", box, when="" if part.after is None else "before"))
    if part.after is not None:
        shapes.append(Shape("rect", "whole", box, when="" if part.before else "after"))


def width_of(label: Expr | None) -> int:
    """The width of a label, or of a question mark."""
    return 20 if label is None else number_width(label)


def write(shapes: list[Shape], label: Expr | None, x: Fraction | int, y: int, role: Role, when: When) -> None:
    """A label with its middle at *x*; None is what is to be found, a question mark."""
    if label is None:
        shapes.append(Shape("text", "label", (x, y + HEIGHT // 2 + 6), role, when, text=_UNKNOWN, anchor="middle"))
    else:
        shapes += number_label(label, x, y, role, when)


def _said(part: PartShown) -> str:
    if part.before is None and part.after is None:
        return "an unknown number"
    if part.before is None:
        return f"an unknown number, then {words(part.after or mixed(part.size))}"
    return words(part.before) + (f", then {words(part.after)}" if part.after and part.after != part.before else "")
