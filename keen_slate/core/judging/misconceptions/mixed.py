"""Misconceptions about wholes and regrouping when two mixed numbers are subtracted, and about turning them improper."""

from __future__ import annotations

from fractions import Fraction

from ...arithmetic.columns import subtract_columns
from ...expressions.sentences import Rich
from ...expressions.terms import pair
from ...expressions.tree import Equation, Expr, Frac, Mixed, OpenMixed, Whole, make
from .registry import Case, Wrong, misconception

_Regrouping = tuple[int, int, int, int, int]  # w1, n1', w2, n2', D


def _regrouping(case: Case) -> _Regrouping | None:
    """Wholes and scaled numerators of a difference whose first fraction part is the smaller; None for anything else."""
    if case.working.problem.kind != "add-subtract" or case.signs != [1, -1] or case.below_zero:
        return None
    if case.working.ways.mixed_subtract != "regroup":
        return None
    (w1, n1, d1), (w2, n2, d2) = case.tidied()
    d = case.common
    a, b = n1 * d // d1, n2 * d // d2
    return (w1, a, w2, b, d) if a < b else None


def _left(whole: int, num: int, den: int, lines: tuple[Rich, ...], via: tuple[Expr, ...] = ()) -> Wrong | None:
    if whole < 0 or num < 0:
        return None
    return Wrong(make(whole, num, den), lines, via=via)


@misconception(
    "smaller-from-larger",
    name="turned the fractions round",
    reason="Takes the smaller <numerator> from the larger, whichever stands first.",
    question="Which fraction is taken away? Are there enough pieces to take it from?",
    kinds=("add-subtract",),
    example="7 1/4 - 3 5/6",
    often=3,
)
def smaller_from_larger(case: Case) -> Wrong | None:
    found = _regrouping(case)
    if found is None or len(case.fractions) < 2:
        return None
    w1, a, w2, b, d = found
    wholes: tuple[Rich, ...] = ((f"{w1} - {w2} = {w1 - w2}",),) if w1 else ()
    return _left(w1 - w2, b - a, d, ((f"{b} - {a} = {b - a}",), *wholes))


def _given(case: Case, given: int) -> Wrong | None:
    """1 is taken from the whole, and *given* is added to the numerator in the place of the denominator."""
    if case.working.problem.kind == "equivalent":
        return _given_alone(case, given)
    found = _regrouping(case)
    if found is None or found[4] == given:
        return None
    w1, a, w2, b, d = found
    new = a + given
    take = f"{new} - {b}" if new >= b else f"{b} - {new}"
    lines: tuple[Rich, ...] = (
        (f"{w1} becomes {w1 - 1}, {a} becomes {new}",), (f"{take} = {abs(new - b)}",),
        (f"{w1 - 1} - {w2} = {w1 - 1 - w2}",),
    )  # fmt: skip
    via = (pair(make(w1 - 1, new, d), "-", make(w2, b, d)),) if new >= b else ()
    return _left(w1 - 1 - w2, abs(new - b), d, lines, via)


def _given_alone(case: Case, given: int) -> Wrong | None:
    """The same where a whole of a number is written as pieces, and nothing is taken away."""
    expr = case.working.problem.expr
    if not isinstance(expr, Equation) or len(expr.sides) != 2:
        return None
    known, blank = expr.sides
    if not isinstance(known, Mixed) or not isinstance(blank, OpenMixed):
        return None
    if (known.whole - 1, known.den) != (blank.whole, blank.den):
        return None
    new = known.num + given
    return Wrong(make(blank.whole, new, known.den), ((f"{known.num} + {given} = {new}",),))


@misconception(
    "regroup-ten",
    name="<regrouped> ten, as in whole numbers",
    reason="Adds 10 to the <numerator>, as in the columns of whole numbers, whatever the pieces are.",
    question="Into how many of these pieces is <one whole> cut?",
    kinds=("add-subtract", "equivalent"),
    example="7 1/4 - 3 5/6",
    often=3,
)
def regroup_ten(case: Case) -> Wrong | None:
    return _given(case, 10)


@misconception(
    "regroup-one",
    name="<regrouped> only one piece",
    reason="Takes a <whole> away and gives a single piece for it.",
    question="Is a <whole> worth as little as one piece?",
    kinds=("add-subtract", "equivalent"),
    example="7 1/4 - 3 5/6",
    often=1,
)
def regroup_one(case: Case) -> Wrong | None:
    return _given(case, 1)


@misconception(
    "whole-not-reduced",
    name="<regrouped>, but left the <whole> as it was",
    reason="Cuts a <whole> into pieces and still counts it as a <whole>.",
    question="The <whole> that was cut up: is it still among the <wholes>?",
    kinds=("add-subtract",),
    example="7 1/4 - 3 5/6",
)
def whole_not_reduced(case: Case) -> Wrong | None:
    found = _regrouping(case)
    if found is None:
        return None
    w1, a, w2, b, d = found
    lines: tuple[Rich, ...] = (
        (f"{a} + {d} = {a + d}",),
        (f"{a + d} - {b} = {a + d - b}",),
        (f"{w1} - {w2} = {w1 - w2}",),
    )
    return _left(w1 - w2, a + d - b, d, lines, (pair(make(w1, a + d, d), "-", make(w2, b, d)),))


@misconception(
    "regroup-as-ten-digit",
    name="wrote the 1 in front of the top",
    reason="Puts the 1 that was taken from the <whole> before the digits of the <numerator>, as in a column of whole "
    "numbers.",
    question="<One whole> and the pieces that were there: how many pieces is that?",
    kinds=("add-subtract",),
    example="7 10/11 - 3 21/22",
    often=1,
)
def regroup_as_ten_digit(case: Case) -> Wrong | None:
    found = _regrouping(case)
    if found is None or found[1] < 10:  # before a single digit it is ten: `regroup-ten`
        return None
    return _given(case, 10 ** len(str(found[1])))


@misconception(
    "tens-not-borrowed",
    name="took ten for the ones, left the tens",
    reason="In the <wholes>, adds ten where a digit is too small, and leaves the next column as it was.",
    question="Where did the ten come from? What is left there?",
    kinds=("add-subtract",),
    example="52 3/4 - 17 1/4",
)
def tens_not_borrowed(case: Case) -> Wrong | None:
    if case.working.problem.kind != "add-subtract" or case.signs != [1, -1] or case.below_zero or case.all_improper:
        return None
    (w, n, d), (v, m, e) = case.tidied()
    minuend = w - (Fraction(n, d) < Fraction(m, e))
    if minuend < v or not v:
        return None
    columns = subtract_columns(minuend, v)
    if not any(column.exchanged for column in columns):
        return None
    digits = [c.top - c.bottom + 10 * (c.top < c.bottom) for c in columns]
    lines = tuple(
        [(f"{c.top + 10 * (c.top < c.bottom)} - {c.bottom} = {r}",) for c, r in zip(columns, digits, strict=True)]
    )
    whole = int("".join([str(digit) for digit in reversed(digits)]))
    rest = case.answer_value - int(case.answer_value)
    return Wrong(make(whole, rest.numerator, rest.denominator), lines)


def _brought_down(case: Case, taken: int) -> Wrong | None:
    """A whole minus a mixed number or fraction: the fraction is copied, and *taken* is taken from the whole."""
    if _regrouping(case) is None or not isinstance(case.terms[0][1], Whole):
        return None
    (w1, _, _), (w2, n2, d2) = case.tidied()
    left = w1 - taken - w2
    lines: tuple[Rich, ...] = ((f"{w1 - taken} - {w2} = {left}",), ("the fraction ", Frac(n2, d2), " is copied"))
    return _left(left, n2, d2, lines)


@misconception(
    "fraction-brought-down",
    name="copied the fraction down",
    reason="Nothing stands above the fraction, so it is brought down as it is.",
    question="Is 5 - 1/3 more than 5?",
    kinds=("add-subtract",),
    example="9 - 4 2/3",
    often=3,
)
def fraction_brought_down(case: Case) -> Wrong | None:
    return _brought_down(case, 0)


@misconception(
    "regrouped-brought-down",
    name="took a <whole>, still copied the fraction",
    reason="Knows that a <whole> has to go, but brings the fraction down as it is.",
    question="What is left of the <whole> that you cut up?",
    kinds=("add-subtract",),
    example="9 - 4 2/3",
)
def regrouped_brought_down(case: Case) -> Wrong | None:
    return _brought_down(case, 1)


# Turning mixed numbers improper ---------------------------------------------------------------------------------


def _turned(case: Case, times: bool) -> Wrong | None:
    """The problem worked on with mixed numbers turned improper by a wrong rule."""
    kind = case.working.problem.kind
    lines: list[Rich] = []

    def improper(number: object) -> Frac | None:
        if isinstance(number, Whole):
            return Frac(number.n, 1)
        if isinstance(number, Frac):
            return number
        if not isinstance(number, Mixed):
            return None
        w, n, d = number.whole, number.num, number.den
        top = w * n + d if times else w + n
        said = f" × {n} + {d}" if times else f" + {n}"
        lines.append((number, f": {w}{said} = {top}, so ", Frac(top, d)))
        return Frac(top, d)

    if kind == "convert" and case.working.problem.target == "improper":
        number = improper(case.working.problem.expr)
        return Wrong(number, tuple(lines)) if number is not None and lines else None
    if kind == "add-subtract" and case.all_improper:
        made = [(sign, improper(term)) for sign, term in case.terms]
        if not lines or any(number is None for _, number in made):
            return None
        total = sum((s * Fraction(f.num, f.den) for s, f in made if f is not None), Fraction(0))
        return Wrong(case.finished(total), tuple(lines)) if total >= 0 else None
    if kind == "multiply-divide":
        made = [(sign, improper(number)) for sign, number in case.factors]
        if not lines or any(number is None for _, number in made):
            return None
        total = Fraction(1)
        for sign, f in made:
            if f is not None:
                number_value = Fraction(f.num, f.den)
                total *= number_value if sign > 0 else Fraction(number_value.denominator, number_value.numerator)
        return Wrong(case.finished(total), (*lines, ("worked on with these: ", case.finished(total))))
    return None


@misconception(
    "whole-added-to-top",
    name="added the <whole> to the top",
    reason="Puts the whole number on top of the <numerator> instead of cutting each <whole> into pieces.",
    question="How many pieces is <one whole>?",
    kinds=("add-subtract", "convert", "multiply-divide"),
    example="2 1/3 × 1 1/2",
)
def whole_added_to_top(case: Case) -> Wrong | None:
    return _turned(case, times=False)


@misconception(
    "times-top-plus-bottom",
    name="multiplied by the top, added the bottom",
    reason="Remembers that something is multiplied and something added, and takes the wrong ones.",
    question="What do you count when you cut the <wholes> into pieces?",
    kinds=("add-subtract", "convert", "multiply-divide"),
    example="2 1/3 × 1 1/2",
    often=1,
)
def times_top_plus_bottom(case: Case) -> Wrong | None:
    return _turned(case, times=True)
