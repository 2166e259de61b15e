"""Random problems, numbers and texts, named in the plural. All randomness of the tests comes from here."""

from __future__ import annotations

from hypothesis import strategies as st

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
    Power,
    Product,
    Sum,
    Whole,
)
from keen_slate.core.ways.settings import SETTINGS, Ways

small_denominators = st.integers(1, 24)
wholes = st.integers(0, 40).map(Whole)
fractions = st.builds(Frac, st.integers(0, 40), small_denominators)
mixeds = st.builds(Mixed, st.integers(0, 20), st.integers(0, 40), small_denominators)
plain_numbers = st.one_of(wholes, fractions, mixeds)
signed_numbers = st.one_of(plain_numbers, plain_numbers.map(Neg))


def _sum(first: Expr, rest: list[tuple[str, Expr]]) -> Sum:
    return Sum(first, tuple(rest))


def sums_of(numbers: st.SearchStrategy[Expr], most: int = 6) -> st.SearchStrategy[Sum]:
    """Sums and differences of 2 to *most* of *numbers*, a fraction among them."""
    signs = st.sampled_from("+-")
    return st.builds(_sum, numbers, st.lists(st.tuples(signs, numbers), min_size=1, max_size=most - 1)).filter(
        lambda expr: any(
            isinstance(getattr(t, "inner", t), (Frac, Mixed)) for t in (expr.first, *(t for _, t in expr.rest))
        )
    )


add_subtract_problems = sums_of(signed_numbers)
proper_fractions = st.tuples(st.integers(1, 30), st.integers(2, 12)).map(lambda p: Frac(p[0] % p[1] or 1, p[1]))
tidy_mixeds = st.builds(lambda w, f: Mixed(w, f.num, f.den), st.integers(1, 12), proper_fractions)
classroom_pairs = sums_of(st.one_of(proper_fractions, tidy_mixeds, st.integers(1, 12).map(Whole)), most=2)
large_problems = st.builds(
    lambda sign, numbers: _sum(numbers[0], [(sign, one) for one in numbers[1:]]), st.sampled_from("+-"),
    st.lists(st.builds(Mixed, st.integers(0, 999_999), st.integers(0, 9_999), st.integers(1, 9_999)), min_size=2,
        max_size=4),
)  # fmt: skip
CODES = {name: tuple(one.codes) for name, one in SETTINGS.items()}
all_ways = st.fixed_dictionaries({name: st.sampled_from(codes) for name, codes in CODES.items()}).map(Ways.of)

# Every node that can be typed -------------------------------------------------------------------------------

decimals = st.builds(
    lambda whole, places, period: Dec(whole, places, period),
    st.integers(0, 999),
    st.text("0123456789", min_size=1, max_size=3),
    st.one_of(st.just(""), st.text("0123456789", min_size=1, max_size=3)),
)
typed_numbers = st.one_of(wholes, fractions, mixeds, decimals)


def _composites(inner: st.SearchStrategy[Expr]) -> st.SearchStrategy[Expr]:
    operand = st.one_of(inner.map(lambda e: e if isinstance(e, (Whole, Frac, Mixed, Dec)) else Bracket(e)))
    powers = st.builds(Power, st.one_of(st.integers(1, 9).map(Whole), operand.filter(
        lambda e: isinstance(e, Bracket)).map(lambda b: b)), st.integers(1, 2))  # fmt: skip
    products = st.builds(
        lambda first, rest: Product(first, tuple(rest)),
        operand, st.lists(st.tuples(st.just("×"), operand), min_size=1, max_size=2),
    )  # fmt: skip
    sums = st.builds(
        _sum, st.one_of(operand, products), st.lists(st.tuples(st.sampled_from("+-"), operand), min_size=1, max_size=2)
    )
    return st.one_of(powers, products, sums, operand.map(Neg))


expressions = st.recursive(typed_numbers, _composites, max_leaves=6)
blank_numbers = st.one_of(
    st.just(Blank()),
    small_denominators.map(lambda d: OpenFrac(None, d)),
    st.integers(1, 40).map(lambda n: OpenFrac(n, None)),
    st.builds(lambda w, d: OpenMixed(w, d), st.integers(1, 9), small_denominators),
)
equations = st.builds(
    lambda number, blank, total: Equation((Sum(number, (("+", blank),)), total)),
    plain_numbers,
    blank_numbers,
    fractions,
)
chains = st.builds(
    lambda fraction, blanks: Equation((fraction, *blanks)), fractions, st.lists(blank_numbers, min_size=1, max_size=3)
)
problems = st.one_of(add_subtract_problems, expressions, equations, chains, signed_numbers)

# Anything a keyboard or a file can send: half of it made of the characters that problems are made of.
texts = st.one_of(st.text("0123456789/ +-−×÷*x^()=_.,[]&½⅓%$ft٣２\n\t", max_size=40), st.text(max_size=40))
