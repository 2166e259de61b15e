"""Expressions as Office Math (OMML), the equations of an Office Open XML text.

The elements are those of ECMA-376, part 1, chapter 22, from memory; the tests open what is written in an office
program.
"""

from __future__ import annotations

import xml.etree.ElementTree as ET
from collections.abc import Sequence

from keen_slate.core.expressions.text import DecimalMark
from keen_slate.core.expressions.tree import Expr, Operator

from .printer import BOX, TRUE_SIGNS, Printer

NAMESPACE = "http://schemas.openxmlformats.org/officeDocument/2006/math"
_Parts = list[ET.Element]


def omml(expr: Expr, mark: DecimalMark = ".") -> ET.Element:
    """*expr* as an `oMath` element, decimals with the class's *mark*."""
    return _element("oMath", *_OfficeMath(mark).write(expr))


class _OfficeMath(Printer[_Parts]):
    def whole(self, n: int | None) -> _Parts:
        return [_run(BOX if n is None else str(n))]

    def fraction(self, top: _Parts, bottom: _Parts) -> _Parts:
        return [_element("f", _element("fPr"), _element("num", *top), _element("den", *bottom))]

    def mixed(self, whole: _Parts, part: _Parts) -> _Parts:
        return [*whole, *part]

    def decimal(self, whole: int, places: str, period: str) -> _Parts:
        plain = _run(f"{whole}{self.mark}{places}")
        return [plain, _over(period)] if period else [plain]

    def negative(self, inner: _Parts) -> _Parts:
        return [_run(TRUE_SIGNS["-"]), *inner]

    def bracket(self, inner: _Parts) -> _Parts:
        return [_element("d", _element("dPr"), _element("e", *inner))]

    def power(self, base: _Parts, exponent: _Parts) -> _Parts:
        return [_element("sSup", _element("sSupPr"), _element("e", *base), _element("sup", *exponent))]

    def chain(self, first: _Parts, rest: Sequence[tuple[Operator, _Parts]]) -> _Parts:
        return [*first, *[part for operator, term in rest for part in (_run(TRUE_SIGNS[operator]), *term)]]

    def equation(self, sides: Sequence[_Parts]) -> _Parts:
        return [*sides[0], *[part for side in sides[1:] for part in (_run("="), *side)]]


def _over(period: str) -> ET.Element:
    """Digits that recur, under a bar."""
    place = ET.Element(_name("pos"), {_name("val"): "top"})
    return _element("bar", _element("barPr", place), _element("e", _run(period)))


def _run(written: str) -> ET.Element:
    run = _element("r", _element("rPr", ET.Element(_name("sty"), {_name("val"): "p"})))  # upright, as digits are
    ET.SubElement(run, _name("t")).text = written
    return run


def _element(name: str, *inner: ET.Element) -> ET.Element:
    made = ET.Element(_name(name))
    made.extend(inner)
    return made


def _name(name: str) -> str:
    return f"{{{NAMESPACE}}}{name}"
