"""A missing addend beside several known ones: what is known is added first, then taken from the total."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from itertools import pairwise

from ...expressions.sentences import Rich
from ...expressions.spoken import parts_name
from ...expressions.terms import join_terms, pair, signed_terms
from ...expressions.tree import Blank, Equation, Expr, Frac, Mixed, Sum, Whole, value
from ...reading.problem import Problem
from ...ways.settings import Ways
from ..proof import Working
from ..step import Step
from ..step_kinds import ADD_KNOWN, COMMON_DENOMINATOR
from .common_denominator import common_for, explanation, scaling

Work = Callable[[Problem, Ways, Expr], Working]
_Terms = list[tuple[int, Expr]]


@dataclass(frozen=True, slots=True)
class Known:
    """The *steps* that lead to one known number beside the blank, and the subtraction that undoes it (*inverse*)."""

    steps: tuple[Step, ...]
    inverse: Expr


def known_together(problem: Problem, ways: Ways, work: Work) -> Known | None:
    """The steps that add all known addends; None where there are fewer than two, or anything is taken away."""
    if not isinstance(problem.expr, Equation):
        return None
    left, right = problem.expr.sides
    blank_first = any(isinstance(term, Blank) for _, term in signed_terms(left))
    side, total = (left, right) if blank_first else (right, left)
    terms = signed_terms(side)
    known: _Terms = [(1, term) for _, term in terms if not isinstance(term, Blank)]
    if len(known) < 2 or len(known) == len(terms) or isinstance(total, Sum):
        return None
    if any(sign < 0 for sign, _ in terms) or any(value(term) <= 0 for _, term in known):
        return None
    numbers = [*[term for _, term in known], total]
    if all(isinstance(n, Frac) for n in numbers[:-1]) and isinstance(total, (Whole, Frac, Mixed)):
        return _over_one_denominator(problem.expr, ways, terms, total, blank_first)
    return _added(problem, ways, known, total, blank_first, work)


def _sides(side: Expr, total: Expr, blank_first: bool) -> Equation:
    return Equation((side, total) if blank_first else (total, side))


def _added(
    problem: Problem, ways: Ways, known: _Terms, total: Expr, blank_first: bool, work: Work
) -> Known:  # fmt: skip
    """One step, with the working of the sum beside it."""
    sum_of = work(problem, ways, join_terms(known))  # type: ignore[arg-type]  # signs are put in a sum as they are
    chain = [sum_of.problem.expr, *[step.after for step in sum_of.steps]]
    lines: list[Rich] = [(before, " = ", after) for before, after in pairwise(chain)]
    after = _sides(_beside_blank(sum_of.answer), total, blank_first)
    step = Step(ADD_KNOWN, problem.expr, after, ("Add what is known.",), (ADD_KNOWN.reason,), tuple(lines))
    return Known((step,), pair(total, "-", sum_of.answer))


def _beside_blank(known: Expr) -> Expr:
    """What is *known*, and the blank."""
    return Sum(known, (("+", Blank()),))


def _over_one_denominator(equation: Equation, ways: Ways, terms: _Terms, total: Expr, blank_first: bool) -> Known:
    fractions = [term for _, term in terms if isinstance(term, Frac)]
    whole = value(total)
    dens = tuple([f.den for f in fractions]) + ((whole.denominator,) if whole.denominator > 1 else ())
    common = common_for(dens, ways.common_denominator)
    scaled = {id(f): Frac(f.num * (common // f.den), common) for f in fractions}
    goal = Frac(whole.numerator * common // whole.denominator, common)
    written = [(sign, scaled.get(id(term), term)) for sign, term in terms]
    tops = [str(term.num) if isinstance(term, Frac) else "_" for _, term in written]
    tops_only: Rich = (f"tops only: {' + '.join(tops)} = {goal.num}, over {common}",)
    over = _sides(join_terms(written), goal, blank_first)  # type: ignore[arg-type]
    steps: list[Step] = []
    beside: tuple[Rich, ...] = (tops_only,)
    if over != equation:
        lines: tuple[Rich, ...] = ()
        title: Rich = (f"Write everything in {parts_name(common, True)}.",)
        if len(set(dens)) > 1:
            title, _, lines = explanation(dens, common, ways.common_denominator, ways.one_fits)
        lines += tuple([scaling(f.num, f.den, common) for f in fractions if f.den != common])
        lines += ((total, " = ", goal),) if goal != total else ()
        reason = "Then only the <numerators> are counted."
        steps.append(Step(COMMON_DENOMINATOR, equation, over, title, (reason,), (*lines, tops_only)))
        beside = ()
    known = Frac(sum(f.num for f in scaled.values()), common)
    added = [str(f.num) for f in scaled.values()]
    after = _sides(_beside_blank(known), goal, blank_first)
    sum_line: Rich = (f"{' + '.join(added)} = {known.num}",)
    title = ("Add what is known.",)
    steps.append(Step(ADD_KNOWN, over, after, title, (ADD_KNOWN.reason,), (*beside, sum_line)))
    return Known(tuple(steps), pair(goal, "-", known))
