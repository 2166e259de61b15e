"""What makes a problem easy or hard: features computed from the problem and its working, and its rung."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from ..arithmetic.columns import Subtracted, add_columns, in_last_place, places_of, subtract_columns
from ..expressions.terms import parts
from ..expressions.tree import Dec, Mixed, Whole
from ..expressions.walks import denominators, has_sign, leaves
from ..limits import TIMES_TABLE
from ..working.methods.common_denominator import Relation, least, relation
from ..working.proof import Working
from ..working.step_kinds import (
    CARRY_WHOLE,
    COLUMN_ADD,
    COLUMN_SUBTRACT,
    JOIN,
    PUT_SIGN,
    REGROUP,
    SUBTRACT,
    SUBTRACT_WHOLES,
    TO_MIXED,
)
from .rungs import rung_of, simplified_by


@dataclass(frozen=True, slots=True)
class Features:
    """Counts are of written steps; denominators are those of the terms as written, None where there are none."""

    rung: str
    terms: int
    denominators: Relation | None
    common_denominator: int | None
    used_denominator: int | None
    largest_number: int
    steps: int
    carries: int
    regroups: int
    across_zeros: int
    simplify_by: int
    sum_above_one: bool
    whole_answer: bool
    large_facts: int
    negatives: bool


def features(working: Working) -> Features:
    """The features of a worked problem."""
    numbers = leaves(working.problem.expr)
    dens = tuple(denominators(working.problem.expr))
    kinds = [step.kind for step in working.steps]
    answer = working.value
    carries, regroups, across = column_counts(working)
    return Features(
        rung=rung_of(working),
        terms=len(numbers),
        denominators=relation(dens),
        common_denominator=least(dens) if dens else None,
        used_denominator=working.used_denominator,
        largest_number=working.largest_number,
        steps=len(kinds),
        carries=carries
        + kinds.count(CARRY_WHOLE)
        + sum(kind is TO_MIXED and following is JOIN for kind, following in pairwise(kinds)),
        regroups=regroups + kinds.count(REGROUP) + _among_wholes(working),
        across_zeros=across,
        simplify_by=simplified_by(working),
        sum_above_one=answer > 1,
        whole_answer=answer.denominator == 1,
        large_facts=large_facts(working),
        negatives=_meets_negatives(working),
    )


def large_facts(working: Working) -> int:
    """How many products a working needs that are beyond the times tables."""
    return sum(max(fact) > TIMES_TABLE and min(fact) > 1 for step in working.steps for fact in step.facts)


def _meets_negatives(working: Working) -> bool:
    """Whether a sign is typed or put anywhere: one that is put on the way is put by a step of its own."""
    if working.value < 0 or any(step.kind is PUT_SIGN for step in working.steps):
        return True
    return any(has_sign(expr) for expr in (working.problem.expr, *[step.after for step in working.steps]))


def _among_wholes(working: Working) -> int:
    """Exchanges between the places of the wholes, where a whole or mixed number is taken from another."""
    found = 0
    for step in working.steps:
        if step.kind not in (SUBTRACT, SUBTRACT_WHOLES):
            continue
        pair = leaves(step.before)[:2]
        if len(pair) == 2 and all(isinstance(n, (Whole, Mixed)) for n in pair):
            w, v = [parts(n)[0] for n in pair]
            found += exchanges(subtract_columns(max(w, v), min(w, v)))
    return found


def exchanges(columns: Sequence[Subtracted]) -> int:
    """How often one of a place becomes ten of the next; across a zero that is once for every place.

    >>> exchanges(subtract_columns(1002, 15)), exchanges(subtract_columns(62, 18))
    (3, 1)
    """
    return sum(number > 9 for column in columns for number in column.above)


def column_counts(working: Working) -> tuple[int, int, int]:
    """Carries, exchanges, and exchanges across a zero in the columns of a working; a new column at the front is no
    carry.
    """
    carries = regroups = across = 0
    for step in working.steps:
        if step.kind not in (COLUMN_ADD, COLUMN_SUBTRACT):
            continue
        found = [n for n in leaves(step.before) if isinstance(n, (Whole, Dec))]
        places = max(places_of(n) for n in found)
        later = len(leaves(step.after)) - 1  # terms that wait
        amounts = [in_last_place(n, places) for n in found[: len(found) - later]]
        if step.kind is COLUMN_ADD:
            carries += sum(c.carried > 0 and any(c.digits) for c in add_columns(amounts))
        else:
            subtracted = subtract_columns(max(amounts[:2]), min(amounts[:2]))
            regroups += exchanges(subtracted)
            across += sum(len(c.above) > 1 and c.above[0] == 10 for c in subtracted)
    return carries, regroups, across
