"""Expression -> pieces to be set in a line, each with its ink. It prints what is there and calculates nothing."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal, TypedDict, assert_never

from .text import text
from .tree import Blank, Bracket, Dec, Equation, Expr, Frac, Mixed, Neg, OpenFrac, OpenMixed, Power, Product, Sum, Whole


def _or_blank(n: int | None) -> str:
    return "_" if n is None else str(n)


# Typesetting ---------------------------------------------------------------------------------------------

Role = Literal["", "first", "second", "third", "fourth", "fifth", "sixth", "carried", "answer", "wrong"]
Roles = tuple[Role, ...]
TERM_ROLES: Roles = ("first", "second", "third", "fourth", "fifth", "sixth")


class Glyph(TypedDict, total=False):
    """A piece of typeset text: plain *text*, or a fraction of *top* over *bottom*; *role* gives its ink.

    A "recurring" piece has a bar over it. In a jotting, *key* names a number that may be made a *blank*.
    """

    kind: Literal["words", "number", "operator", "fraction", "power", "recurring"]
    text: str
    top: str
    bottom: str
    role: Role
    key: str
    blank: bool


def _number(text: str, role: Role) -> Glyph:
    return {"kind": "number", "text": text, "role": role}


def _operator(text: str) -> Glyph:
    return {"kind": "operator", "text": "−" if text == "-" else text, "role": ""}


def _fraction(top: int | None, bottom: int | None, role: Role) -> Glyph:
    return {"kind": "fraction", "top": _or_blank(top), "bottom": _or_blank(bottom), "role": role}


def glyphs(expr: Expr, roles: Roles = ()) -> list[Glyph]:
    """*expr* as pieces to be set in a line; *roles* colours its numbers from left to right."""
    return _glyphs(expr, iter(roles))


def _glyphs(expr: Expr, roles: Iterator[Role]) -> list[Glyph]:
    match expr:
        case Whole() | Blank():
            return [_number(text(expr), next(roles, ""))]
        case Dec(whole, places, period):
            ink: Role = next(roles, "")
            recurring: list[Glyph] = [{"kind": "recurring", "text": period, "role": ink}] if period else []
            return [_number(f"{whole}.{places}", ink), *recurring]
        case Frac(num, den) | OpenFrac(num, den):
            return [_fraction(num, den, next(roles, ""))]
        case Mixed(whole, num, den):
            role: Role = next(roles, "")
            return [_number(str(whole), role), _fraction(num, den, role)]
        case OpenMixed(whole, den):
            beside: Role = next(roles, "")
            return [_number(str(whole), beside), _fraction(None, den, beside)]
        case Sum(first, rest) | Product(first, rest):
            done = _glyphs(first, roles)
            for operator, inner in rest:
                done += [_operator(operator), *_glyphs(inner, roles)]
            return done
        case Neg(inner):
            return [_number("−", ""), *_glyphs(inner, roles)]
        case Bracket(inner):
            return [_number("(", ""), *_glyphs(inner, roles), _number(")", "")]
        case Power(base, exponent):
            return [*_glyphs(base, roles), {"kind": "power", "text": str(exponent), "role": ""}]
        case Equation(sides):
            sides_glyphs = [_glyphs(side, roles) for side in sides]
            return [glyph for i, side in enumerate(sides_glyphs) for glyph in ([_operator("=")] * (i > 0) + side)]
        case _:
            assert_never(expr)


def roles_for(count: int) -> Roles:
    """The inks of *count* terms; they start again after the last."""
    return tuple(TERM_ROLES[i % len(TERM_ROLES)] for i in range(count))
