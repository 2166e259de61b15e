"""Misconceptions about multiplying and dividing fractions."""

from __future__ import annotations

from fractions import Fraction
from math import lcm

from ...expressions.sentences import Rich
from ...expressions.terms import improper
from ...expressions.tree import Frac, Mixed, Whole, value
from .registry import Case, Wrong, misconception


def _two(case: Case, sign: int) -> list[object]:
    """The two numbers of a product (*sign* 1) or quotient (-1); none for anything else."""
    if [s for s, _ in case.factors] != [1, sign]:
        return []
    return [number for _, number in case.factors]


@misconception(
    "kept-common-bottom",
    name="multiplied the tops, kept the bottom",
    reason="Carries over from adding that pieces of one size keep their name.",
    question="Half of a half: is that a half?",
    kinds=("multiply-divide",),
    example="2/5 × 3/5",
)
def kept_common_bottom(case: Case) -> Wrong | None:
    numbers = _two(case, 1)
    if len(numbers) != 2 or not all(isinstance(n, Frac) for n in numbers):
        return None
    (n, d), (m, e) = [(f.num, f.den) for f in numbers if isinstance(f, Frac)]
    common = lcm(d, e)
    tops = n * common // d, m * common // e
    scaled: list[Rich] = [] if d == e else [(Frac(tops[0], common), " × ", Frac(tops[1], common))]
    return Wrong(
        Frac(tops[0] * tops[1], common),
        (*scaled, (f"{tops[0]} × {tops[1]} = {tops[0] * tops[1]}, the bottom stays {common}",)),
    )


@misconception(
    "parts-separately",
    name="multiplied <wholes> and fractions separately",
    reason="Works on the <wholes> and on the fractions as if they were two problems, as in adding.",
    question="Is 2 1/2 of 2 1/2 really only two twos and half of a half?",
    kinds=("multiply-divide",),
    example="2 1/2 × 3 1/3",
    often=3,
)
def parts_separately(case: Case) -> Wrong | None:
    numbers = _two(case, 1)
    if len(numbers) != 2 or not all(isinstance(n, Mixed) for n in numbers):
        return None
    a, b = [n for n in numbers if isinstance(n, Mixed)]
    top, bottom = a.num * b.num, a.den * b.den
    lines: tuple[Rich, ...] = (
        (f"{a.whole} × {b.whole} = {a.whole * b.whole}",),
        (Frac(a.num, a.den), " × ", Frac(b.num, b.den), " = ", Frac(top, bottom)),
    )
    return Wrong(Mixed(a.whole * b.whole, top, bottom), lines)


def _as_fractions(numbers: list[object]) -> list[Frac]:
    return [improper(n) for n in numbers if isinstance(n, (Whole, Frac, Mixed))]


@misconception(
    "flipped-first",
    name="turned over the first number",
    reason="Remembers that one number is turned over, and takes the one that comes first.",
    question="Which number says how large the pieces are that you share out into?",
    kinds=("multiply-divide",),
    example="2/3 ÷ 4/5",
)
def flipped_first(case: Case) -> Wrong | None:
    fractions = _as_fractions(_two(case, -1))
    if len(fractions) != 2:
        return None
    a, b = fractions
    turned = Frac(a.den, a.num)
    total = value(turned) * value(b)
    return Wrong(case.finished(total), ((turned, " × ", b, " = ", case.finished(total)),))


@misconception(
    "not-flipped",
    name="multiplied without turning over",
    reason="Changes the sign to × and forgets to turn the divisor over.",
    question="How often does a half fit into 3? Is that less than 3?",
    kinds=("multiply-divide",),
    example="3/4 ÷ 1/2",
    often=3,
)
def not_flipped(case: Case) -> Wrong | None:
    fractions = _as_fractions(_two(case, -1))
    if len(fractions) != 2:
        return None
    a, b = fractions
    total: Fraction = value(a) * value(b)
    return Wrong(case.finished(total), ((a, " × ", b, " = ", case.finished(total)),))


@misconception(
    "only-whole-multiplied",
    name="multiplied the <whole> alone",
    reason="Takes the fraction of a <mixed number> for something that only stands beside it.",
    question="Seven times 1 2/3: how often is the 2/3 there?",
    kinds=("multiply-divide",),
    example="7 × 1 2/3",
    often=3,
)
def only_whole_multiplied(case: Case) -> Wrong | None:
    match _two(case, 1):
        case [Whole(n), Mixed() as number] | [Mixed() as number, Whole(n)] if n > 1 and number.num < number.den:
            made = n * number.whole
            line: Rich = (f"{n} × {number.whole} = {made}",)
            return Wrong(Mixed(made, number.num, number.den), (line,))
    return None
