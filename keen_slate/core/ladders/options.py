"""A candidate, worked: what it reveals, and what makes it easy or hard."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass
from fractions import Fraction
from itertools import combinations

from ..errors import CoreError
from ..expressions.terms import signed_terms
from ..expressions.tree import Dec, Expr, Frac, Mixed, Product, Sum
from ..expressions.walks import leaves
from ..grading.features import Features, features
from ..grading.footing import Footing, footing_of
from ..judging.misconceptions import likely_answers
from ..limits import MOST_PARTS
from ..reading.kinds import Target, kind_of
from ..reading.problem import Problem
from ..ways.settings import Ways
from ..working.methods import work
from ..working.methods.common_denominator import relation
from .spec import TermLimits
from .written import is_written_within

PLAIN = Ways()


@dataclass(frozen=True, slots=True)
class Option:
    """A candidate with its *features* (in the default ways) and the wrong *answers* it reveals, by code (in the
    class's).

    *target* is the form that a lone number is asked for.
    """

    expr: Expr
    features: Features
    right: Fraction
    answers: Mapping[str, Fraction]
    hidden: frozenset[str]
    target: Target | None = None

    @property
    def rung(self) -> str:
        """Its rung."""
        return self.features.rung

    @property
    def footing(self) -> Footing:
        """Where it stands for who climbs."""
        return footing_of(self.expr, self.features)


# The rungs of which a lone number is asked for in a form; its own form tells which.
_CONVERTED = ("V2", "V3", "V4")


def problem_on(expr: Expr, rung: str) -> Problem | None:
    """*expr* as a problem of the *rung*, with the form that a lone number is asked for there; None where it is no
    problem.
    """
    kind, complaint = kind_of(expr)
    if complaint is not None:
        return None
    if kind != "simplify" or rung not in _CONVERTED:
        return Problem(expr, None, kind)
    target: Target = "improper" if rung == "V2" else "fraction" if isinstance(expr, Dec) else "decimal"
    return Problem(expr, None, "convert", target)


def option(expr: Expr, ways: Ways, rung: str = "") -> Option | None:
    """*expr* as a problem of the *rung*, worked; None where it cannot be."""
    problem = problem_on(expr, rung)
    if problem is None:
        return None
    try:
        working = work(problem, ways)
        plain = working if ways == PLAIN else work(problem)
    except CoreError:
        return None
    found = likely_answers(working, None)
    return Option(
        expr, features(plain), working.value,
        {one.entry.code: one.answer_value for one in found if one.status == "reveals"},
        frozenset([one.entry.code for one in found if one.status != "reveals"]), problem.target,
    )  # fmt: skip


def reveals(
    expr: Expr, ways: Ways, codes: Collection[str], rung: str = ""
) -> tuple[dict[str, Fraction], Fraction] | None:
    """The wrong answers of *codes* that *expr* reveals, and its right one; quicker than all of an `option`."""
    problem = problem_on(expr, rung)
    if problem is None:
        return None
    try:
        working = work(problem, ways)
    except CoreError:
        return None
    found = likely_answers(working, None, codes)
    return {one.entry.code: one.answer_value for one in found if one.status == "reveals"}, working.value


def is_within(found: Option, rung: str, limits: TermLimits) -> bool:
    """Whether a worked candidate stands on *rung* and keeps the *limits*: the last word, by the core's own features."""
    seen = found.features
    avoided = {
        "negatives": seen.negatives,
        "simplification": seen.simplify_by > 1,
        "whole-answers": seen.whole_answer,
        "large-pictures": (seen.common_denominator or 1) > MOST_PARTS,
        "large-facts": seen.large_facts > 0,
    }
    too_large = limits.largest_common is not None and (seen.common_denominator or 1) > limits.largest_common
    too_much = limits.below is not None and found.right >= limits.below
    if not is_written_within(found.expr, limits):
        return False
    return seen.rung == rung and not too_large and not too_much and not any(avoided[name] for name in limits.avoid)


def copy_key(expr: Expr) -> tuple[object, ...]:
    """The same for problems that are copies of each other: the same terms in another order, where it does not
    matter.
    """
    if isinstance(expr, Sum):
        return tuple(sorted([(sign, repr(term)) for sign, term in signed_terms(expr)]))
    if isinstance(expr, Product) and all(operator == "×" for operator, _ in expr.rest):
        return ("×", *sorted(map(repr, (expr.first, *[factor for _, factor in expr.rest]))))
    return (repr(expr),)


# What is to be revealed and told apart, as bits ---------------------------------------------------------------------


class Goals:
    """The misconceptions to reveal, a bit each; with *separate* a bit for each pair that is to be told apart
    besides.
    """

    def __init__(self, codes: Iterable[str], separate: bool) -> None:
        self.codes = tuple(codes)
        self.pairs = tuple(combinations(self.codes, 2)) if separate else ()
        self.must = (1 << len(self.codes)) - 1
        self.all = (1 << (len(self.codes) + len(self.pairs))) - 1

    def mask(self, answers: Mapping[str, Fraction], right: Fraction) -> int:
        """What a problem does, as bits: its wrong *answers* by code; who has none of them writes the *right* one."""
        bits = 0
        for i, code in enumerate(self.codes):
            if code in answers:
                bits |= 1 << i
        # Pairs of numbers are compared in place of fractions: there are many pairs of few answers.
        written = [answers.get(code, right).as_integer_ratio() for code in self.codes]
        for i, (a, b) in enumerate(combinations(written, 2) if self.pairs else (), len(self.codes)):
            if a != b:
                bits |= 1 << i
        return bits

    def codes_of(self, bits: int) -> list[str]:
        """The codes among *bits*."""
        return [code for i, code in enumerate(self.codes) if bits >> i & 1]

    def pairs_of(self, bits: int) -> list[tuple[str, str]]:
        """The pairs among *bits*."""
        return [pair for i, pair in enumerate(self.pairs, len(self.codes)) if bits >> i & 1]


# How alike two problems are -------------------------------------------------------------------------------------------


def traits(found: Option) -> tuple[object, ...]:
    """What a pupil meets in a problem, each trait on its own."""
    seen = found.features
    operators = tuple([o for o, _ in found.expr.rest]) if isinstance(found.expr, (Sum, Product)) else ()
    return (
        seen.terms, seen.denominators, seen.carries, seen.regroups, seen.across_zeros, seen.simplify_by > 1,
        seen.sum_above_one,
        seen.whole_answer, seen.large_facts > 0, seen.negatives, operators,
        tuple([type(n) for n in leaves(found.expr)]),
    )  # fmt: skip


def height(found: Option) -> tuple[int, ...]:
    """What comes first among the problems of a rung (common practice): fewer exchanges, a fraction beside one mixed
    number before two.

    Of three fractions those below one come first; where pieces are cut again, those with a smaller common denominator.
    """
    seen = found.features
    mixed = sum(isinstance(n, Mixed) for n in leaves(found.expr)) if found.footing.about == "M" else 0
    past_one = found.rung == "F7" and seen.sum_above_one
    common = (seen.common_denominator or 0) if found.rung in ("F8", "F9") else 0
    return found.footing.exchanges, mixed, past_one, common


def distance(a: Option, b: Option) -> int:
    """In how many traits two problems differ."""
    return sum(x != y for x, y in zip(traits(a), traits(b), strict=True))


def awkward(found: Option) -> int:
    """How much a teacher would not pick without a reason: terms typed unsimplified, equal numbers, one taken away
    again, large facts, nothing revealed.
    """
    dens = tuple([n.den for n in leaves(found.expr) if isinstance(n, (Frac, Mixed))])
    unsimplified = relation(dens) != "like" and any(
        Fraction(n.num, n.den).denominator != n.den for n in leaves(found.expr) if isinstance(n, (Frac, Mixed))
    )
    seen = found.features
    numbers = [repr(n) for n in leaves(found.expr)]
    terms = [(sign, repr(term)) for sign, term in signed_terms(found.expr)]
    return (
        len(numbers)
        - len(set(numbers))
        + 4 * any((-sign, term) in terms for sign, term in terms)
        + 4 * unsimplified
        + (not found.answers)
        + 2 * seen.negatives
        + (seen.large_facts > 0)
        + ((seen.common_denominator or 1) > MOST_PARTS)
    )


def step_up(before: Option, after: Option) -> int:
    """How far apart two neighbours stand; lower is better. The same numbers again are no practice."""
    same = {repr(n) for n in leaves(before.expr)} & {repr(n) for n in leaves(after.expr)}
    dens = [sorted([n.den for n in leaves(o.expr) if isinstance(n, (Frac, Mixed))]) for o in (before, after)]
    return 2 * distance(before, after) + 2 * len(same) + (dens[0] == dens[1] != [])
