"""Adding and subtracting fractions, mixed numbers and wholes.

The plan, for terms t1 ± t2 ± ... (all t unsigned after the signs are put together):

- before anything else, improper parts typed beside a whole are tidied; where the class asks for it, terms that
  make a whole are joined, and terms simplified that make the common denominator smaller;
- only + signs: the way of `Ways.mixed_add` takes all terms at once;
- two terms and a -: the way of `Ways.mixed_subtract`; `improper` turns the terms before anything is scaled;
- three terms or more, a - among them: all get the common denominator, then from the left, two at a time.

A pair (a, b) with a < b is worked as the larger minus the smaller, and the sign put on it. Numbers keep the
common denominator until `finish` brings the last one into the answer form.
"""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from itertools import combinations
from math import gcd, lcm

from ...errors import LimitError
from ...expressions.sentences import Rich
from ...expressions.terms import Terms, Unsigned, denominators_of, join_terms, operator_for, pair, parts, unsigned_terms
from ...expressions.tree import Expr, Frac, Mixed, Neg, Whole, make, ratio, value
from ...expressions.typeset import Roles, roles_for
from ...limits import MAX_DIGITS, TOO_LARGE
from ...reading.problem import Problem
from ...ways.settings import Ways
from ..proof import Working, too_large
from ..scribe import Scribe
from ..step_kinds import JOIN_SIGNS, PUT_SIGN, REORDER, SIMPLIFY, SPOT_WHOLE, TO_MIXED
from .adding import add
from .common_denominator import common_for, to_common
from .forms import finish, scaling_lines, simplify_lines, tidy_words
from .improper import all_improper
from .subtracting import subtract, wholes_apart, wholes_first_then_improper

# The ways that keep numbers smallest; they take over where another would meet one past the limits.
_SMALLEST = {
    "reduce_first": "yes",
    "common_denominator": "list-multiples",
    "mixed_add": "wholes-first",
    "mixed_subtract": "regroup",
}


def work(problem: Problem, ways: Ways) -> Working:
    """The working of an `add-subtract` problem. Raises `LimitError` where even the smallest way is too large."""
    try:
        return _work(problem, ways, ())
    except LimitError:
        smallest = replace(ways, **_SMALLEST)
        if smallest == ways:
            raise
        said = f"Worked as asked it would need a number of more than {MAX_DIGITS} digits; this way has smaller ones."
        return _work(problem, smallest, (said,))


def _work(problem: Problem, ways: Ways, notes: tuple[str, ...]) -> Working:
    scribe = Scribe(problem.expr, ways)
    terms = _tidy_terms(scribe, _put_signs_together(scribe, problem.expr))
    if ways.spot_wholes == "yes":
        terms = _spot_wholes(scribe, terms)
    if ways.reduce_first == "yes":
        terms = _reduce_first(scribe, terms)
    denominators = denominators_of(terms)
    if denominators and common_for(denominators, ways.common_denominator) >= TOO_LARGE:
        raise too_large(problem.text)
    raw = _calculate(scribe, terms)
    answer = finish(scribe, raw)
    return Working(
        problem,
        ways,
        tuple(scribe.steps),
        Neg(answer) if scribe.negative else answer,
        scribe.raw or raw,
        common_for(denominators, ways.common_denominator) if denominators else None,
        notes + tuple(scribe.notes),
    )


def _calculate(scribe: Scribe, terms: Terms) -> Unsigned:
    """The sum of *terms* as one unsigned number; its sign is left in *scribe*."""
    roles = roles_for(len(terms))
    if len(terms) == 1:  # everything was joined already
        scribe.negative = terms[0][0] < 0
        return terms[0][1]
    if all(sign > 0 for sign, _ in terms):
        return add(scribe, [t for _, t in terms], roles)
    if [sign for sign, _ in terms] == [1, -1] and scribe.ways.mixed_subtract == "wholes-then-improper":
        terms = wholes_first_then_improper(scribe, terms, roles)
    if [sign for sign, _ in terms] == [1, -1] and scribe.ways.mixed_subtract == "wholes-apart":
        terms = wholes_apart(scribe, terms, roles)
    if _improper_throughout(scribe.ways, terms):
        terms = all_improper(scribe, terms, roles)
    return _from_the_left(scribe, to_common(scribe, terms, roles))


def _improper_throughout(ways: Ways, terms: Terms) -> bool:
    """Whether every pair is to be worked in improper fractions, and there is a whole to be turned into one."""
    if not denominators_of(terms) or all(isinstance(t, Frac) for _, t in terms):
        return False
    return ways.mixed_subtract == "improper" and (len(terms) == 2 or ways.mixed_add == "improper")


# Before the calculation ----------------------------------------------------------------------------------------


def _put_signs_together(scribe: Scribe, expr: Expr) -> Terms:
    plain = unsigned_terms(expr)
    scribe.write(
        JOIN_SIGNS,
        join_terms(plain),
        ("Put the signs together.",),
        ("Adding a negative takes away; taking away a negative adds.",),
        roles=roles_for(len(plain)),
    )
    return plain


def _tidy_terms(scribe: Scribe, terms: Terms) -> Terms:
    """Tidy every mixed number typed with an improper part: 2 5/2 becomes 4 1/2."""
    for i, (sign, term) in enumerate(terms):
        whole, num, den = parts(term)
        if isinstance(term, Mixed) and num >= den:
            more, rest = divmod(num, den)
            terms = [*terms[:i], (sign, make(whole + more, rest, den)), *terms[i + 1 :]]
            scribe.write(TO_MIXED, join_terms(terms), *tidy_words(scribe, term), roles_for(len(terms)), ((more, den),))
    return terms


def _spot_wholes(scribe: Scribe, terms: Terms) -> Terms:
    """Join two or three added terms whose fractions make a whole by their values, where others stay beside them."""
    while (spotted := _that_make_a_whole(terms)) is not None:
        joined = [terms[i][1] for i in spotted]
        total = Whole(sum([value(term) for term in joined], Fraction()).numerator)
        terms = [(sign, total if k == spotted[0] else t) for k, (sign, t) in enumerate(terms) if k not in spotted[1:]]
        *first, last = joined
        named = [part for term in first for part in (term, ", ")][:-1]
        added = [part for term in joined for part in (term, " + ")][:-1]
        scribe.write(
            SPOT_WHOLE,
            join_terms(terms),
            (*named, " and ", last, " make ", total, "."),
            (),
            (*_why_whole(joined), (*added, " = ", total)),
        )
    return terms


def _why_whole(terms: list[Unsigned]) -> list[Rich]:
    """How each fraction is written in the pieces that they can all be counted in: 14/24 = 7/12."""
    den = lcm(*[value(term).denominator for term in terms])
    fractions = [Frac(*parts(term)[1:]) for term in terms]
    return [
        line
        for f in dict.fromkeys(fractions)
        if f.den != den
        for line in scaling_lines(f, Frac(f.num * den // f.den, den))
    ]


def _that_make_a_whole(terms: Terms) -> tuple[int, ...] | None:
    """The places of two terms, or else of three, that are added and make a whole; not all of the terms."""
    broken = [i for i, (sign, term) in enumerate(terms) if sign > 0 and value(term).denominator > 1]
    for count in (2, 3):
        if count < len(terms):
            for places in combinations(broken, count):
                if sum([value(terms[i][1]) for i in places], Fraction()).denominator == 1:
                    return places
    return None


def _reduce_first(scribe: Scribe, terms: Terms) -> Terms:
    """Simplify those terms without which the common denominator would stay larger than it must."""
    lowest = [_lowest(t) for _, t in terms]
    goal = lcm(*lowest)
    for i, (sign, term) in enumerate(terms):
        whole, num, den = parts(term)
        if lcm(*(den if k == i else d for k, d in enumerate(lowest))) == goal:
            continue
        by = den // lowest[i]
        terms = [*terms[:i], (sign, make(whole, num // by, lowest[i])), *terms[i + 1 :]]
        scribe.write(
            SIMPLIFY,
            join_terms(terms),
            ("Simplify ", term, " first."),
            ("Then the common <denominator> is smaller.",),
            simplify_lines(scribe.ways.simplify, num, den, by) if num else (),
            roles_for(len(terms)),
            ((num // by, by), (lowest[i], by)),
        )
    return terms


def _lowest(term: Unsigned) -> int:
    _, num, den = parts(term)
    return den // gcd(num, den)


# From the left, two at a time ------------------------------------------------------------------------------------


def _from_the_left(scribe: Scribe, terms: Terms) -> Unsigned:
    """Work *terms* (all in one denominator) from the left; the sign of the result is left in *scribe*."""
    roles = roles_for(len(terms))
    (sign, here), *others = terms
    for i, (next_sign, term) in enumerate(others, start=1):
        scribe.rest = tuple([(operator_for(s), t) for s, t in others[i:]])
        scribe.rest_roles = roles[i + 1 :]
        here, sign = _pair(scribe, sign, here, next_sign, term, (roles[0], roles[i]))
    scribe.negative = sign < 0
    return here


def _pair(scribe: Scribe, sign: int, a: Unsigned, next_sign: int, b: Unsigned, roles: Roles) -> tuple[Unsigned, int]:
    """One pair ±a ±b: the unsigned result and its sign."""
    scribe.negative, scribe.raw = False, None
    if sign == next_sign:
        if sign < 0:
            title: Rich = ("Both are taken away: add them and put the sign before.",)
            _put_sign_before(scribe, pair(a, "+", b), title, "Taking away twice is taking away the sum.")
        return add(scribe, [a, b], roles), sign
    if sign < 0:
        a, b, roles = b, a, roles[::-1]
        scribe.write(
            REORDER,
            pair(a, "-", b),
            ("Start with the term that is added.",),
            ("The order of terms can change, if each keeps its sign.",),
            roles=roles,
        )
    (n, d), (m, e) = ratio(a), ratio(b)
    if n * e >= m * d:
        return subtract(scribe, a, b, roles), 1
    title = (b, " is larger than ", a, ": the answer falls below zero.")
    _put_sign_before(scribe, pair(b, "-", a), title, "Work the larger minus the smaller, and put the sign on it.")
    return subtract(scribe, b, a, roles[::-1]), -1


def _put_sign_before(scribe: Scribe, local: Expr, title: Rich, reason: str) -> None:
    scribe.negative = True
    scribe.write(PUT_SIGN, local, title, (reason,))
