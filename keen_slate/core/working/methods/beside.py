"""What stands beside the last line of a working on wish: a sum of fractions once more, in money."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

from ...expressions.terms import signed_terms
from ...expressions.tree import Expr, Frac, Mixed, Neg, value
from ...expressions.voice import MARK
from ...reading.problem import CURRENCY
from ..proof import Working

_MOST = 1000  # dollars: more are no help to anybody


def with_money(working: Working) -> Working:
    """*working* with the same sum in money beside its last line, where the ways ask for it and every term is whole
    cents.

    >>> from ...reading.reader import read
    >>> from ...ways.settings import Ways
    >>> from .add_subtract import work
    >>> with_money(work(read("3/4 + 2/5"), Ways(money_beside="yes"))).steps[-1].lines[-1]
    ('in money: $0<.>75 + $0<.>40 = $1<.>15',)
    """
    if working.ways.money_beside != "yes" or not working.steps:
        return working
    terms = signed_terms(working.problem.expr)
    amounts = [value(term) for _, term in terms]
    fractions = any(isinstance(_plain(term), (Frac, Mixed)) for _, term in terms)
    if len(terms) < 2 or not fractions or not all(_cents(one) for one in amounts):
        return working
    sign = working.problem.label if working.problem.label in tuple(CURRENCY) else "$"
    said = " ".join(
        [f"{'+' if way > 0 else '-'} {_money(one, sign)}" for (way, _), one in zip(terms, amounts, strict=True)]
    )
    line = f"in money: {said.removeprefix('+ ')} = {_money(value(working.answer), sign)}"
    *before, last = working.steps
    return replace(working, steps=(*before, replace(last, lines=(*last.lines, (line,)))))


def _plain(term: Expr) -> Expr:
    return term.inner if isinstance(term, Neg) else term


def _cents(amount: Fraction) -> bool:
    return (100 * amount).denominator == 1 and abs(amount) <= _MOST


def _money(amount: Fraction, sign: str) -> str:
    cents = abs(100 * amount).numerator
    shown = f"{sign}{cents // 100}{MARK}{cents % 100:02}"
    return f"(-{shown})" if amount < 0 else shown
