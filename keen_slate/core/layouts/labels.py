"""The label at every number of a line, where the class writes it there."""

from __future__ import annotations

from ..expressions.tree import Expr, Power, Product
from ..expressions.typeset import Glyph, Roles, glyphs
from ..expressions.walks import contains, leaves
from ..reading.problem import CURRENCY, close_to_number
from ..reading.units import counted_in
from ..ways.voices import mark_of
from ..working.proof import Working

_SIGNS = "−()"


def label_of_each(working: Working, *lines: Expr) -> str | None:
    """The label that stands at every number of *lines*; None where it stands at the answer alone, and among factors."""
    if working.ways.label == "answer" or any(contains(expr, Product, Power) for expr in lines):
        return None
    return working.problem.label


def line_glyphs(working: Working, expr: Expr, roles: Roles) -> list[Glyph]:
    """A line of *working* as pieces to be set, with the labels that its class writes."""
    plain = glyphs(expr, roles, mark_of(working.ways))
    label = label_of_each(working, expr)
    if label is None:
        return plain
    done: list[Glyph] = []
    for leaf in leaves(expr):
        while plain and (plain[0].kind == "operator" or (plain[0].text or "x") in _SIGNS):
            done.append(plain.pop(0))
        count = len(glyphs(leaf))
        number, plain = plain[:count], plain[count:]
        done += with_label(number, counted_in(label, leaf) or label)
    return done + plain


def with_label(number: list[Glyph], label: str | None) -> list[Glyph]:
    """The pieces of a *number* with its *label*, if it has one: a sign of money before it, others behind, with the room
    they take.
    """
    role = number[0].role if number else ""
    if not label:
        return number
    if label in CURRENCY:
        sign = [one for one in number[:1] if one.text == "−"]
        return [*sign, Glyph("words", label, role=role), *number[len(sign) :]]
    return [*number, Glyph("words", label if close_to_number(label) else f" {label}", role=role)]
