"""Expressions as Office Math (OMML), the equations of an Office Open XML text: a printer over the core's tree.

The elements are those of ECMA-376, part 1, chapter 22, from memory; the tests open what is written in an office
program.
"""

from __future__ import annotations

import xml.etree.ElementTree as ET
from typing import assert_never

from keen_slate.core.expressions.text import DecimalMark
from keen_slate.core.expressions.tree import (
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
    Operator,
    OverBar,
    Power,
    Product,
    Sum,
    Whole,
)

NAMESPACE = "http://schemas.openxmlformats.org/officeDocument/2006/math"
_SIGNS: dict[Operator, str] = {"+": "+", "-": "\u2212", "×": "\u00d7", "÷": "\u00f7"}
_BOX = "\u25a1"


def omml(expr: Expr, mark: DecimalMark = ".") -> ET.Element:
    """*expr* as an `oMath` element, decimals with the class's *mark*."""
    return _element("oMath", *_parts(expr, mark))


def _parts(expr: Expr, mark: DecimalMark) -> list[ET.Element]:
    match expr:
        case Whole(n):
            return [_run(str(n))]
        case Frac(num, den) | OpenFrac(num, den):
            return [_fraction(num, den)]
        case Mixed(whole, num, den):
            return [_run(str(whole)), _fraction(num, den)]
        case OpenMixed(whole, den):
            return [_run(str(whole)), _fraction(None, den)]
        case Dec(whole, places, period):
            plain = _run(f"{whole}{mark}{places}")
            return [plain, _over(period)] if period else [plain]
        case Blank():
            return [_run(_BOX)]
        case Neg(inner):
            return [_run(_SIGNS["-"]), *_parts(inner, mark)]
        case Bracket(inner):
            return [_element("d", _element("dPr"), _element("e", *_parts(inner, mark)))]
        case OverBar(top, den):
            over = _element("num", *_parts(top, mark))
            return [_element("f", _element("fPr"), over, _element("den", _top(den)))]
        case Power(base, exponent):
            raised = _element("sup", _run(str(exponent)))
            return [_element("sSup", _element("sSupPr"), _element("e", *_parts(base, mark)), raised)]
        case Sum(first, rest) | Product(first, rest):
            made = _parts(first, mark)
            for operator, term in rest:
                made += [_run(_SIGNS[operator]), *_parts(term, mark)]
            return made
        case Equation(sides):
            made = _parts(sides[0], mark)
            for side in sides[1:]:
                made += [_run("="), *_parts(side, mark)]
            return made
        case _:
            assert_never(expr)


def _fraction(num: int | None, den: int | None) -> ET.Element:
    return _element("f", _element("fPr"), _element("num", _top(num)), _element("den", _top(den)))


def _top(n: int | None) -> ET.Element:
    return _run(_BOX if n is None else str(n))


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
