"""The picture that shows why a wrong answer is wrong: it lies below the right one, wholes of the same size."""

from __future__ import annotations

from ..expressions.terms import signed_terms
from ..expressions.tree import Dec, Expr, Frac, Mixed, Neg, Whole
from ..expressions.typeset import Role
from ..expressions.voice import in_sentence
from ..limits import MOST_PARTS, MOST_WHOLES
from ..working.proof import Working
from . import number_line, place_value
from .choose import Look, draw_scene
from .display import Figure
from .scenes import NumberShown, Shown, largest


def of_wrong(working: Working, wrong: Expr) -> Figure | None:
    """The terms of a short sum, the right answer and the *wrong* one, under each other; None below zero.

    Fractions are strips, decimals counters in columns; where neither can show them, both lie on a number line.
    """
    right = working.answer
    if isinstance(right, Dec) or isinstance(wrong, Dec):
        return _decimals(right, wrong)
    if not _drawable(right) or not _drawable(wrong):
        return None
    terms = signed_terms(working.problem.expr)
    good, bad = NumberShown.of(right), NumberShown.of(wrong)
    captions = (f"right answer: {good.said}", f"wrong answer: {bad.said}")
    scene = Shown(((good, good, "answer"), (bad, bad, "wrong")), captions=captions)
    if len(terms) == 2 and all(sign > 0 and isinstance(term, Frac) for sign, term in terms):
        a, b = [NumberShown.of(term) for _, term in terms]
        scene = Shown(((a, a, "first"), (b, b, "second"), *scene.rows), captions=(a.said, b.said, *captions))
    parts, wholes = largest(scene)
    if parts > MOST_PARTS or wholes > MOST_WHOLES:
        return number_line.of_points([(right, "answer"), (wrong, "wrong")])
    return draw_scene(scene, "bars", Look(wholes, parts, None, False))


def _decimals(right: Expr, wrong: Expr) -> Figure | None:
    """Decimals in the same columns; on a number line, where they have too many places for counters."""
    answers: list[tuple[Expr, Role]] = [(right, "answer"), (wrong, "wrong")]
    if any(isinstance(number, Neg) for number, _ in answers):
        return None
    captions = [
        f"{name} answer: {in_sentence(number)}" for (number, _), name in zip(answers, ("right", "wrong"), strict=True)
    ]
    rows = [(*answer, caption) for answer, caption in zip(answers, captions, strict=True)]
    return place_value.compared(rows) or number_line.of_points(answers)


def _drawable(number: Expr) -> bool:
    return not isinstance(number, Neg) and isinstance(number, (Whole, Frac, Mixed))
