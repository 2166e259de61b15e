"""Finding a common denominator and writing fractions in it.

First it is asked whether the denominators are the same, then (except under `product`) whether one fits the
others; only else is a new one looked for, by the method of `Ways.common_denominator`.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable
from functools import lru_cache
from math import gcd, lcm, prod
from typing import Literal

from ...arithmetic.primes import prime_factors, product_text
from ...expressions.sentences import Rich, Scaled
from ...expressions.spoken import parts_name
from ...expressions.terms import Terms, Unsigned, denominators_of, join_terms, parts, scaled
from ...expressions.tree import Expr, Frac, Whole
from ...expressions.typeset import Roles
from ..scribe import Scribe
from ..sketches import factor_tree
from ..step_kinds import COMMON_DENOMINATOR

Relation = Literal["like", "one-fits", "shares-factor", "coprime"]
Denominators = tuple[int, ...]

# A longer row of multiples is cut in the middle: the board has no room for it, and nobody would read it.
ROW_SHOWN = 12
# Classes use few denominators, so what is said of them is kept; the functions are pure.
CACHED = 8192


@lru_cache(maxsize=CACHED)
def relation(denominators: Denominators) -> Relation | None:
    """How *denominators* stand to each other; None when there are none.

    >>> relation((4, 12)), relation((4, 6)), relation((4, 9)), relation((7, 7))
    ('one-fits', 'shares-factor', 'coprime', 'like')
    """
    distinct = set(denominators)
    if len(distinct) < 2:
        return "like" if distinct else None
    largest = max(distinct)
    if all(largest % d == 0 for d in distinct):
        return "one-fits"
    if all(gcd(a, b) == 1 for a in distinct for b in distinct if a < b):
        return "coprime"
    return "shares-factor"


def least(denominators: Denominators) -> int:
    """The least common denominator."""
    return lcm(*denominators)


@lru_cache(maxsize=CACHED)
def common_for(denominators: Denominators, method: str) -> int:
    """The common denominator that *method* finds; under `product` each different one is multiplied once.

    >>> common_for((12, 18), "list-multiples"), common_for((12, 18), "product"), common_for((4, 4), "product")
    (36, 216, 4)
    """
    return prod(set(denominators)) if method == "product" else least(denominators)


# The jottings of each method, for denominators of which none fits -------------------------------------------


def _row(d: int, common: int) -> Rich:
    count = common // d
    if count <= ROW_SHOWN:
        shown = ", ".join([str(d * k) for k in range(1, count + 1)])
    else:
        shown = ", ".join([str(d * k) for k in range(1, ROW_SHOWN - 1)]) + f", …, {common}"
    return (f"multiples of {d}: {shown}",)


def listed_multiples(denominators: Denominators, common: int) -> tuple[Rich, ...]:
    """A row of multiples for each different denominator, as far as the first that all share."""
    return tuple([_row(d, common) for d in dict.fromkeys(denominators)])


def paired_primes(denominators: Denominators, common: int) -> tuple[Rich, ...]:
    """The prime factors of each different denominator; those that pair off are taken once."""
    distinct = list(dict.fromkeys(denominators))
    trees = [Counter(prime_factors(d)) for d in distinct]
    shared = trees[0]
    for tree in trees[1:]:
        shared = shared & tree
    lines: list[Rich] = [(factor_tree(d, shared.elements()),) for d in distinct]
    if shared:
        lines.append((f"shared by all: {product_text(tuple(sorted(shared.elements())))}, taken once",))
    lines.append((f"{product_text(prime_factors(common))} = {common}",))
    return tuple(lines)


def multiplied(denominators: Denominators, common: int) -> tuple[Rich, ...]:
    """The different denominators multiplied."""
    return ((f"{' × '.join(map(str, dict.fromkeys(denominators)))} = {common}",),)


def tried_multiples(denominators: Denominators, common: int) -> tuple[Rich, ...]:
    """The multiples of the largest denominator, each tried until every other one goes into it."""
    largest = max(denominators)
    others = [d for d in dict.fromkeys(denominators) if largest % d]
    tried = range(largest, common + 1, largest)
    shown = [*tried] if len(tried) <= ROW_SHOWN else [*tried[: ROW_SHOWN - 2], common]
    lines: list[Rich] = []
    for multiple in shown:
        out = next((d for d in others if multiple % d), None)
        fits = f"{' and '.join(map(str, others))} {'goes' if len(others) == 1 else 'go'} into it"
        lines.append((f"{multiple}: {fits if out is None else f'{out} does not go into it'}",))
    return tuple(lines)


def _nothing(denominators: Denominators, common: int) -> tuple[Rich, ...]:
    return ()


JOTTINGS: dict[str, Callable[[Denominators, int], tuple[Rich, ...]]] = {
    "list-multiples": listed_multiples,
    "prime-factors": paired_primes,
    "product": multiplied,
    "multiples-of-larger": tried_multiples,
    "named": _nothing,
}
_WHY = {
    "list-multiples": "is the first number in every row of multiples",
    "prime-factors": "holds the prime factors of every <denominator>, and no more",
    "product": "is a multiple of every <denominator>, since all were multiplied",
    "multiples-of-larger": "is the first multiple of the largest <denominator> into which every other one goes",
    "named": "is the smallest number into which every <denominator> goes",
}


@lru_cache(maxsize=CACHED)
def explanation(
    denominators: Denominators, common: int, method: str, one_fits: str = "use"
) -> tuple[Rich, Rich, tuple[Rich, ...]]:
    """Title, reason and jottings of writing fractions with *denominators* in *common*.

    *one_fits* is the class's setting: whether it stops to look where one denominator fits the others.
    """
    pieces = parts_name(common, True)
    start = "The pieces must be the same size before they are counted together."
    if relation(denominators) == "one-fits" and method != "product" and one_fits == "use":
        changed = sum(d != common for d in denominators)
        only = "only one fraction changes" if changed == 1 else f"{changed} fractions change"
        return (
            (f"{common} fits every <denominator>, so all pieces become {pieces}.",),
            (f"{start} One <denominator> is a multiple of the others, so {only}.",),
            (),
        )
    return (
        (f"Same size pieces first: {pieces}.",),
        (f"{start} {common} {_WHY[method]}.",),
        JOTTINGS[method](denominators, common),
    )


@lru_cache(maxsize=CACHED)
def scaling(num: int, den: int, common: int) -> Rich:
    """How one fraction is scaled: what is done to the bottom is done to the top."""
    by = common // den
    return (Frac(num, den), " = ", Scaled(num, den, "×", by), " = ", Frac(num * by, common))


# Steps -----------------------------------------------------------------------------------------------------


def to_common(scribe: Scribe, terms: Terms, roles: Roles) -> Terms:
    """All fractions of *terms* in one denominator; plain wholes stay."""
    denominators = denominators_of(terms)
    if len(set(denominators)) < 2:
        return terms
    d = common_for(denominators, scribe.ways.common_denominator)
    done: Terms = [(sign, scaled(term, d)) for sign, term in terms]
    write_common(scribe, [t for _, t in terms], denominators, join_terms(done), roles)
    return done


def write_common(scribe: Scribe, terms: list[Unsigned], denominators: Denominators, after: Expr, roles: Roles) -> None:
    """The step that scales *terms*, with what is jotted beside it."""
    method = scribe.ways.common_denominator
    d = common_for(denominators, method)
    title, reason, lines = explanation(denominators, d, method, scribe.ways.one_fits)
    facts: list[tuple[int, int]] = []
    for term in terms:
        _, num, den = parts(term)
        if not isinstance(term, Whole) and den != d:
            lines += (scaling(num, den, d),)
            facts += [(den, d // den), (num, d // den)]
    scribe.write(COMMON_DENOMINATOR, after, title, reason, lines, roles, tuple(facts))
