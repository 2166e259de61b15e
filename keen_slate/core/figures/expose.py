"""The picture that shows why a wrong answer is wrong: it lies below the right one, wholes of the same size."""

from __future__ import annotations

from ..expressions.terms import signed_terms
from ..expressions.tree import Expr, Frac, Mixed, Neg, Whole
from ..limits import MOST_PARTS, MOST_WHOLES
from ..working.proof import Working
from . import number_line
from .choose import Look, draw_scene
from .display import Figure
from .scenes import Amount, Shown, largest


def of_wrong(working: Working, wrong: Expr) -> Figure | None:
    """The terms of a short sum, the right answer and the *wrong* one, under each other; None below zero."""
    right = working.answer
    if not _drawable(right) or not _drawable(wrong):
        return None
    terms = signed_terms(working.problem.expr)
    good, bad = Amount.of(right), Amount.of(wrong)
    captions = (f"right answer: {good.said}", f"wrong answer: {bad.said}")
    scene = Shown(((good, good, "answer"), (bad, bad, "wrong")), captions=captions)
    if len(terms) == 2 and all(sign > 0 and isinstance(term, Frac) for sign, term in terms):
        a, b = [Amount.of(term) for _, term in terms]
        scene = Shown(((a, a, "first"), (b, b, "second"), *scene.rows), captions=(a.said, b.said, *captions))
    parts, wholes = largest(scene)
    if parts > MOST_PARTS or wholes > MOST_WHOLES:
        return number_line.of_points([(right, "answer"), (wrong, "wrong")])
    return draw_scene(scene, "bars", Look(wholes, parts, None, False))


def _drawable(number: Expr) -> bool:
    return not isinstance(number, Neg) and isinstance(number, (Whole, Frac, Mixed))
