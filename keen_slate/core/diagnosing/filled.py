"""What a pupil filled into blanks: the whole equation, or only the numbers in their order."""

from __future__ import annotations

import re
from collections.abc import Iterator
from fractions import Fraction
from math import gcd, lcm

from ..errors import CoreError
from ..expressions.terms import signed_terms
from ..expressions.text import DecimalMark, text
from ..expressions.tree import Equation, Expr, Frac, Mixed, Neg, OpenFrac, OpenMixed, Sum, value
from ..expressions.walks import agrees, fillings, has_blank, leaves
from ..limits import PRINTED
from ..reading.problem import Problem
from ..reading.reader import read, read_equation
from ..worked import Worked
from ..working.methods.missing import fill, is_answer

_ONLY_WHOLES = re.compile(r"\d+(?:\s*(?:[,;]|and|\s)\s*\d+)*")
_LISTED = re.compile(r"\s*(?:[;,]|\band\b)\s*")


def filled_in(problem: Problem, typed: str, mark: DecimalMark) -> Equation | None:
    """The equation of *problem* as *typed* fills it: an equation, or a number or fraction for each blank; None where it
    does not.

    >>> from ..reading.reader import read
    >>> text(filled_in(read("_/2 + _/3 = 13/6"), "1, 5", "."))
    '1/2 + 5/3 = 13/6'
    """
    if "=" in typed:
        try:
            found = read_equation(typed, mark, PRINTED)
        except CoreError:
            return None
        return found if isinstance(found, Equation) and agrees(problem.expr, found) and not has_blank(found) else None
    blanks = [n for n in leaves(problem.expr) if has_blank(n)]
    if _ONLY_WHOLES.fullmatch(typed.strip()):
        listed = re.findall(r"\d+", typed)
        put = [_put(blank, int(digits)) for blank, digits in zip(blanks, listed, strict=False)]
    else:
        listed = _LISTED.split(typed.strip())
        put = [_read(blank, written, mark) for blank, written in zip(blanks, listed, strict=False)]
    done = [number for number in put if number is not None]
    return fill(problem.expr, iter(done)) if len(done) == len(blanks) == len(listed) else None


def _put(blank: Expr, number: int) -> Expr | None:
    """*blank* with *number* in its place."""
    match blank:
        case OpenFrac(None, den) if den is not None:
            return Frac(number, den)
        case OpenFrac(num, None) if num is not None and number:
            return Frac(num, number)
        case OpenMixed(whole, den):
            return Mixed(whole, number, den)
    return None


def _read(blank: Expr, written: str, mark: DecimalMark) -> Expr | None:
    try:
        found = read(written, mark, PRINTED).expr
    except CoreError:
        return None
    return found if agrees(blank, found) else None


def right_or_why_not(worked: Worked, filled: Equation) -> tuple[bool, str | None]:
    """Whether *filled* is an answer, and for one whose sides are equal what was asked for besides (a fault of form)."""
    working = worked.working
    if is_answer(working.problem, working.ways, filled):
        return True, None
    if len({value(side) for side in filled.sides}) > 1:
        return False, None
    tops = [n for n in fillings(working.problem.expr, filled) if isinstance(n, (Frac, Mixed))]
    ways = working.ways
    if any(n.num < 1 for n in tops):
        return False, "blank-zero"
    if ways.blank_lowest == "yes" and any(gcd(n.num, n.den) > 1 for n in tops):
        return False, "not-lowest-terms"
    if ways.blank_different == "yes" and len({n.num for n in tops}) < len(tops):
        return False, "blank-equal"
    return False, "blank-improper"


def codes_of(worked: Worked, filled: Equation) -> Iterator[str]:
    """The misconceptions that lead to *filled*."""
    working = worked.working
    put = [text(n) for n in fillings(working.problem.expr, filled)]
    for found in worked.likely:
        if text(found.wrong.answer) in put:
            yield found.entry.code
    if working.problem.kind == "missing" and _tops_alone(filled):
        yield "top-not-scaled"


def _tops_alone(filled: Equation) -> bool:
    """Whether only the tops make the total, in pieces of its size: the bottoms were changed and the tops kept."""
    left, right = filled.sides
    terms, total = (left, right) if isinstance(left, Sum) else (right, left)
    parts = [(sign, term) for sign, term in signed_terms(terms)]
    if not all(isinstance(term, Frac) and term.num for _, term in parts) or isinstance(total, (Sum, Neg)):
        return False
    dens = [term.den for _, term in parts if isinstance(term, Frac)]
    common = lcm(*dens, value(total).denominator)
    made = sum(sign * term.num for sign, term in parts if isinstance(term, Frac))
    return len(set(dens)) > 1 and Fraction(made, common) == value(total)
