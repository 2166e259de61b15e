"""Misconceptions about decimals: where the point and the digits go, carries and exchanges in columns."""

from __future__ import annotations

from ...arithmetic.columns import add_columns, decimal, digits_of, in_last_place, places_of
from ...expressions.sentences import Rich
from ...expressions.tree import Dec, Whole
from .registry import Case, Wrong, misconception


def _sum(case: Case) -> tuple[list[int], list[int]] | None:
    """Digits and places of a sum of decimals; None for anything else."""
    found = case.decimals
    return (found[1], found[2]) if found is not None and min(found[0]) > 0 else None


def _difference(case: Case) -> tuple[list[int], list[int]] | None:
    """Digits and places of a difference of two decimals."""
    found = case.decimals
    return (found[1], found[2]) if found is not None and found[0] == [1, -1] else None


def _filled(digits: list[int], places: list[int]) -> tuple[list[int], int]:
    most = max(places)
    return [n * 10 ** (most - p) for n, p in zip(digits, places, strict=True)], most


def _from_digits(digits: list[int], places: int) -> Dec | Whole:
    """The number whose digits, from the right, are *digits*; the last may have two."""
    return decimal(sum(d * 10**i for i, d in enumerate(digits)), places)


@misconception(
    "right-aligned",
    name="lined up the last digits",
    reason="Writes the numbers under each other from the right, as whole numbers are written.",
    question="Are 2 tenths and 6 hundredths in one column pieces of one size?",
    kinds=("decimal",),
    example="7.2 + 1.56",
    often=3,
)
def right_aligned(case: Case) -> Wrong | None:
    added, subtracted = _sum(case), _difference(case)
    found = added or subtracted
    if found is None or len(set(found[1])) < 2:
        return None
    digits, places = found
    total = sum(digits) if added else digits[0] - digits[1]
    if total < 0:
        return None
    left = decimal(total, max(places))
    sign = " + " if added else " - "
    return Wrong(left, ((f"{sign.join(map(str, digits))} = {total}",), ("the point as in the longer number: ", left)))


@misconception(
    "parts-as-wholes",
    name="took the digits after the point for a whole number",
    reason="Adds what stands before the point and what stands after it as two separate whole numbers.",
    question="9 tenths and 4 tenths: is that still less than a <whole>?",
    kinds=("decimal",),
    example="3.9 + 2.4",
    often=3,
)
def parts_as_wholes(case: Case) -> Wrong | None:
    found = _sum(case)
    if found is None or len(set(found[1])) > 1 or not found[1][0]:
        return None
    digits, places = found
    scale = 10 ** places[0]
    wholes, after = [n // scale for n in digits], [n % scale for n in digits]
    if sum(after) < scale:
        return None
    lines: tuple[Rich, ...] = (
        (f"before the point: {' + '.join(map(str, wholes))} = {sum(wholes)}",),
        (f"after the point: {' + '.join(map(str, after))} = {sum(after)}",),
    )  # fmt: skip
    return Wrong(Dec(sum(wholes), str(sum(after))), lines)


@misconception(
    "column-carry-lost",
    name="never added a carry",
    reason="Writes the ones of each column and forgets the ten that belongs to the next.",
    question="Ten hundredths: what do they make, and where does it go?",
    kinds=("decimal",),
    example="4.75 + 2.68",
)
def column_carry_lost(case: Case) -> Wrong | None:
    found = _sum(case)
    if found is None:
        return None
    amounts, places = _filled(*found)
    # As many columns as were written, a zero before the point among them; the last one gets no carry.
    columns = add_columns(amounts)[: max(places + 1, *[len(str(n)) for n in amounts])]
    if not any(c.carried for c in columns):
        return None
    written = [sum(c.digits) % 10 for c in columns[:-1]] + [sum(columns[-1].digits)]
    return Wrong(
        _from_digits(written, places),
        tuple(
            [
                (f"{' + '.join(map(str, c.digits))} = {sum(c.digits)}, write {w}",)
                for c, w in zip(columns, written, strict=True)
            ]
        ),
    )


@misconception(
    "dropped-digit",
    name="copied the unmatched digit down",
    reason="Nothing stands above the last digit, so it is brought down as it is.",
    question="What is 0 hundredths minus 6 hundredths? Can it be 6?",
    kinds=("decimal",),
    example="9.4 - 4.16",
    often=3,
)
def dropped_digit(case: Case) -> Wrong | None:
    found = _difference(case)
    if found is None or found[1][0] >= found[1][1]:
        return None
    (a, b), (p, q) = found
    scale = 10 ** (q - p)
    above = b // scale
    if a < above:
        return None
    left = decimal((a - above) * scale + b % scale, q)
    return Wrong(
        left,
        (
            (decimal(a, p), " - ", decimal(above, p), " = ", decimal(a - above, p)),
            (f"{b % scale:0{q - p}} is copied: ", left),
        ),
    )


def _columns(case: Case) -> tuple[list[tuple[int, int]], int] | None:
    """Top and bottom digit of each column from the right, zeros filled in; None where nothing has to be exchanged."""
    found = _difference(case)
    if found is None:
        return None
    (a, b), places = _filled(*found)
    length = max(len(str(a)), len(str(b)))
    columns = list(zip(digits_of(a, length), digits_of(b, length), strict=True))
    return (columns, places) if any(top < bottom for top, bottom in columns) else None


@misconception(
    "column-smaller-from-larger",
    name="took the smaller digit from the larger",
    reason="In each column takes the smaller digit from the larger, whichever stands on top.",
    question="Which number is taken away in this column?",
    kinds=("decimal",),
    example="6.42 - 2.57",
    often=3,
)
def column_smaller_from_larger(case: Case) -> Wrong | None:
    found = _columns(case)
    if found is None:
        return None
    columns, places = found
    lines = tuple([(f"{max(t, b)} - {min(t, b)} = {abs(t - b)}",) for t, b in columns])
    return Wrong(_from_digits([abs(t - b) for t, b in columns], places), lines)


@misconception(
    "regroup-not-paid",
    name="took ten and did not pay for it",
    reason="Adds ten where the top digit is too small, and leaves the next column as it was.",
    question="Where did the ten come from? What is left there?",
    kinds=("decimal",),
    example="9.30 - 4.18",
)
def regroup_not_paid(case: Case) -> Wrong | None:
    found = _columns(case)
    if found is None:
        return None
    columns, places = found
    written = [t + 10 - b if t < b else t - b for t, b in columns]
    lines = tuple([(f"{t + 10 if t < b else t} - {b} = {w}",) for (t, b), w in zip(columns, written, strict=True)])
    return Wrong(_from_digits(written, places), lines)


@misconception(
    "zero-minus-digit",
    name="0 minus a digit is the digit",
    reason="Takes nothing from nothing and writes down what was to be taken away.",
    question="You have none and give away 6: do you have 6?",
    kinds=("decimal",),
    example="8.05 - 2.63",
)
def zero_minus_digit(case: Case) -> Wrong | None:
    found = _columns(case)
    if found is None:
        return None
    columns, places = found
    zeros = {i for i, (t, b) in enumerate(columns) if t == 0 and b > 0}
    if not zeros:
        return None
    tops = [t for t, _ in columns]
    written = []
    for i, (_, bottom) in enumerate(columns):
        if i in zeros:
            written.append(bottom)
            continue
        if tops[i] < bottom:
            source = next((j for j in range(i + 1, len(tops)) if tops[j] or j in zeros), None)
            if source is None or source in zeros:
                return None  # such a column would have to lend as well
            tops[source] -= 1
            for j in range(i + 1, source):
                tops[j] = 9
            tops[i] += 10
        written.append(tops[i] - bottom)
    lines = tuple(
        [
            (f"0 - {b} taken for {b}" if i in zeros else f"{tops[i]} - {b} = {w}",)
            for i, ((_, b), w) in enumerate(zip(columns, written, strict=True))
        ]
    )
    return Wrong(_from_digits(written, places), lines)


@misconception(
    "point-as-in-adding",
    name="put the point as in adding",
    reason="Multiplies the digits and puts the point where it stands in the numbers.",
    question="Is 3 tenths of 2 tenths as much as 6 tenths?",
    kinds=("decimal",),
    example="0.3 × 0.2",
    often=3,
)
def point_as_in_adding(case: Case) -> Wrong | None:
    if [s for s, _ in case.factors] != [1, 1]:
        return None
    a, b = [n for _, n in case.factors]
    if not isinstance(a, Dec) or not isinstance(b, Dec) or a.period or b.period:
        return None
    p, q = places_of(a), places_of(b)
    m, n = in_last_place(a, p), in_last_place(b, q)
    left = decimal(m * n, max(p, q))
    return Wrong(
        left, ((f"{m} × {n} = {m * n}",), (f"{max(p, q)} digit{'s' * (max(p, q) > 1)} after the point: ", left))
    )
