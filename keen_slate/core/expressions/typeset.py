"""Expression -> pieces to be set in a line, each with its ink. It prints what is there and calculates nothing."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal, assert_never

from .text import DecimalMark, text
from .tree import (
    Blank,
    Bracket,
    Dec,
    Equation,
    Expr,
    Frac,
    Mixed,
    Neg,
    OpenFrac,
    OpenMixed,
    OverBar,
    Power,
    Product,
    Sum,
    Whole,
)

Role = Literal["", "first", "second", "third", "fourth", "fifth", "sixth", "carried", "answer", "wrong"]
Roles = tuple[Role, ...]
TERM_ROLES: Roles = ("first", "second", "third", "fourth", "fifth", "sixth")


@dataclass(frozen=True, slots=True)
class Glyph:
    """A piece of typeset text: plain *text*, or a fraction of *top* over *bottom*; *role* gives its ink.

    A "recurring" piece has a bar over it.
    """

    kind: Literal["words", "number", "operator", "fraction", "power", "recurring"]
    text: str | None = None
    top: str | None = None
    bottom: str | None = None
    role: Role = ""

    @property
    def numbers(self) -> int:
        """As how many of the numbers of its line it counts: a fraction as two, words and signs as none."""
        return 2 if self.kind == "fraction" else int(self.kind in ("number", "power", "recurring"))


@dataclass(frozen=True, slots=True)
class DrawnText:
    """Digits of a drawing: *x* is where they begin, *y* is their foot."""

    x: int
    y: int
    text: str


@dataclass(frozen=True, slots=True)
class Drawing:
    """A small drawing among jottings, in points: digits, *lines* (from x, y to x, y) and *rings* (their middles, and
    how far they go to the side).
    """

    width: int
    height: int
    texts: tuple[DrawnText, ...]
    lines: tuple[tuple[int, int, int, int], ...]
    rings: tuple[tuple[int, int, int], ...]


@dataclass(frozen=True, slots=True)
class JottingGlyph(Glyph):
    """A piece of a jotting: *key* names a number or factor that pupils may fill in, *blank* says that they do.

    Where there is a *drawing*, it stands in the place of the text, which says the same.
    """

    key: str | None = None
    blank: bool = False
    drawing: Drawing | None = None


def _operator(sign: str) -> Glyph:
    return Glyph("operator", "−" if sign == "-" else sign)


def _fraction(top: int | None, bottom: int | None, role: Role) -> Glyph:
    return Glyph("fraction", None, _or_blank(top), _or_blank(bottom), role)


def _or_blank(n: int | None) -> str:
    return "_" if n is None else str(n)


def glyphs(expr: Expr, roles: Roles = (), mark: DecimalMark = ".") -> list[Glyph]:
    """*expr* as pieces to be set in a line, with the decimal *mark*; *roles* colours its numbers from left to right."""
    return _glyphs(expr, iter(roles), mark)


def _glyphs(expr: Expr, roles: Iterator[Role], mark: DecimalMark) -> list[Glyph]:
    match expr:
        case Whole() | Blank():
            return [Glyph("number", text(expr), role=next(roles, ""))]
        case Dec(whole, places, period):
            ink: Role = next(roles, "")
            recurring = [Glyph("recurring", period, role=ink)] if period else []
            return [Glyph("number", f"{whole}{mark}{places}", role=ink), *recurring]
        case Frac(num, den) | OpenFrac(num, den):
            return [_fraction(num, den, next(roles, ""))]
        case Mixed(whole, num, den):
            role: Role = next(roles, "")
            return [Glyph("number", str(whole), role=role), _fraction(num, den, role)]
        case OpenMixed(whole, den):
            beside: Role = next(roles, "")
            return [Glyph("number", str(whole), role=beside), _fraction(None, den, beside)]
        case Sum(first, rest) | Product(first, rest):
            done = _glyphs(first, roles, mark)
            for operator, inner in rest:
                done += [_operator(operator), *_glyphs(inner, roles, mark)]
            return done
        case Neg(inner):
            return [Glyph("number", "−"), *_glyphs(inner, roles, mark)]
        case Bracket(inner):
            return [Glyph("number", "("), *_glyphs(inner, roles, mark), Glyph("number", ")")]
        case OverBar(top, den):
            return [Glyph("fraction", None, text(top).replace("-", "−"), str(den), next(roles, ""))]
        case Power(base, exponent):
            return [*_glyphs(base, roles, mark), Glyph("power", str(exponent))]
        case Equation(sides):
            shown = [_glyphs(side, roles, mark) for side in sides]
            return [glyph for i, side in enumerate(shown) for glyph in ([_operator("=")] * (i > 0) + side)]
        case _:
            assert_never(expr)


def roles_for(count: int) -> Roles:
    """The inks of *count* terms; they start again after the last."""
    return tuple(TERM_ROLES[i % len(TERM_ROLES)] for i in range(count))
