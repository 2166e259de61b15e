"""Pictures for pupils to do something with: the numbers of a problem with nothing shaded, and parts of a whole to cut
out.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import replace

from ..expressions.spoken import parts_name
from ..expressions.tree import Frac
from ..limits import MOST_PARTS
from ..working.proof import Working
from .choose import of_problem
from .display import WIDTH, Figure, Shape, on_circle
from .labels import HEIGHT, number_label, number_width
from .number_line import bare
from .shapes import Circle, Form, Strip, exact

KINDS = ("bars", "circles", "grid", "number-line")
_CIRCLE = 240
_STRIP = 54
_TOP = 26  # for the words above a form whose parts are too small for labels
_MOST_IN_CIRCLE = 10  # labels that do not meet
_INNER = 7  # tenths of the radius at which a label stands in its sector


def to_shade(working: Working, kind: str) -> Figure | None:
    """The numbers of a problem with nothing shaded, of the *kind* asked for where it can be had; None where there is no
    picture.

    A number line has its ticks and nothing on it.
    """
    figure = of_problem(working, kind)
    if figure is None:
        return None
    if figure.kind == "number-line":
        return bare(working.problem.expr)
    kept = [replace(shape, role="") for shape in figure.shapes if shape.look != "part" and shape.when != "after"]
    return replace(figure, shapes=tuple(kept), alt=f"The same with nothing shaded. Where it is shaded: {figure.alt}")


def strips_to_cut(dens: Iterable[int]) -> list[Figure]:
    """A strip for the whole, then one for each denominator, all of the same length; those of more than 24 parts are
    left out.
    """
    return [_cut_out(Strip(WIDTH, _STRIP), "strip", den) for den in (1, *_possible(dens))]


def circles_to_cut(dens: Iterable[int]) -> list[Figure]:
    """The same as circles."""
    return [_cut_out(Circle(_CIRCLE), "circle", den) for den in (1, *_possible(dens))]


def _possible(dens: Iterable[int]) -> list[int]:
    return sorted({den for den in dens if 1 < den <= MOST_PARTS})


def _cut_out(form: Form, noun: str, den: int) -> Figure:
    labels = tuple(_labels(form, den))
    top = 0 if labels else _TOP
    shapes = [form.outline(0, top, ""), *form.cuts(0, top, den, 1, "thick", ""), *labels]
    if not labels:
        shapes.append(Shape("text", "label", (0, _TOP - 8), text=f"{den} {parts_name(den, True)}"))
    said = "one <whole>" if den == 1 else f"{den} {parts_name(den, True)}"
    return Figure(noun, form.width, form.height + top, tuple(shapes), f"A {noun} to cut out: {said}.")


def _labels(form: Form, den: int) -> Iterator[Shape]:
    """1/den in each part, where there is room for it; on the whole its name."""
    if den == 1:
        at = (exact(form.width, 2), exact(form.height, 2) + 7)
        yield Shape("text", "label", at, text="1 <whole>", anchor="middle")
        return
    part = Frac(1, den)
    if isinstance(form, Circle):
        if den > _MOST_IN_CIRCLE:
            return
        for k in range(den):
            r = form.width // 2
            x, y = on_circle(r, r, exact(r * _INNER, 10), exact(2 * k + 1, 2 * den))
            yield from number_label(part, exact(x, 100), exact(y, 100) - HEIGHT // 2)
    elif number_width(part) <= form.width // den:
        for k in range(den):
            yield from number_label(part, exact(form.width * (2 * k + 1), 2 * den), (form.height - HEIGHT) // 2)
