"""Column arithmetic digit by digit, as it is written: carries, exchanges across zeros, partial products.

Numbers are whole here: a decimal is counted in its last place. Columns are counted from the right, from 0.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..expressions.spoken import parts_name
from ..expressions.tree import Dec, Expr, Neg, Whole

_NAMES = ("ones", "tens", "hundreds", "thousands", "ten thousands", "hundred thousands", "millions", "ten millions")


@dataclass(frozen=True, slots=True)
class Added:
    """A column of an addition: its digits, what was carried into it, what is written, what it carries on."""

    digits: tuple[int, ...]
    carried: int
    written: int
    carries: int


@dataclass(frozen=True, slots=True)
class Subtracted:
    """A column of a subtraction; *above* are the numbers written over the top digit, one after the other.

    Each of them is written in the turn of the column that needs ten: *turns* names it. *exchanged* says that this
    column took ten of its own from the left.
    """

    top: int
    bottom: int
    above: tuple[int, ...]
    turns: tuple[int, ...]
    exchanged: bool
    written: int


def places_of(number: Expr) -> int:
    """How many digits stand after the point of a decimal or whole number."""
    return len(number.places) if isinstance(number, Dec) else 0


def in_last_place(number: Expr, places: int) -> int:
    """An unsigned decimal or whole number, counted in units of its *places*-th place.

    >>> in_last_place(Dec(7, "2"), 2), in_last_place(Whole(3), 1)
    (720, 30)
    """
    if isinstance(number, Whole):
        scale: int = 10**places
        return number.n * scale
    if not isinstance(number, Dec) or number.period:
        raise TypeError(f"{number} is not a decimal that ends")
    return int(f"{number.whole}{number.places:0<{places}}")


def decimal(n: int, places: int) -> Dec | Whole:
    """*n* units of the *places*-th place, with all its zeros.

    >>> decimal(876, 2), decimal(5, 2), decimal(7, 0)
    (Dec(whole=8, places='76', period=''), Dec(whole=0, places='05', period=''), Whole(n=7))
    """
    if not places:
        return Whole(n)
    digits = f"{n:0{places + 1}}"
    return Dec(int(digits[:-places]), digits[-places:])


def signed(n: int, places: int) -> Expr:
    """As `decimal`, of any sign."""
    return Neg(decimal(-n, places)) if n < 0 else decimal(n, places)


def place_name(column: int, places: int) -> str:
    """What a column of a number with *places* digits after the point is called.

    >>> place_name(0, 2), place_name(2, 2), place_name(3, 2)
    ('hundredths', 'ones', 'tens')
    """
    power = column - places
    if power < 0:
        return parts_name(10**-power, True)
    return _NAMES[power] if power < len(_NAMES) else f"column {power + 1}"


def digits_of(n: int, length: int = 0) -> list[int]:
    """The digits of *n* from the right, at least *length* of them."""
    return [int(d) for d in reversed(str(n))] + [0] * (length - len(str(n)))


def add_columns(numbers: Sequence[int]) -> list[Added]:
    """The columns of a sum; the last one writes its carry in full.

    >>> [(c.written, c.carries) for c in add_columns([475, 268])]
    [(3, 1), (4, 1), (7, 0)]
    """
    length = max(len(str(n)) for n in numbers)
    rows = [digits_of(n, length) for n in numbers]
    done, carry = [], 0
    for i in range(length):
        digits = tuple([row[i] for row in rows])
        total = sum(digits) + carry
        done.append(Added(digits, carry, total % 10, total // 10))
        carry = total // 10
    if carry:
        done.append(Added((0,) * len(rows), carry, carry, 0))
    return done


def subtract_columns(a: int, b: int, at_once: bool = False) -> list[Subtracted]:
    """The columns of a - b (a >= b); where a top digit is too small, one is exchanged from the left, across zeros too.

    That is done digit by digit, or *at_once*: 300 is 299 and 10.

    >>> [(c.above, c.written) for c in subtract_columns(3040, 785)]
    [((10,), 5), ((3, 13), 5), ((10, 9), 2), ((2,), 2)]
    >>> [c.above for c in subtract_columns(300, 41)], [c.above for c in subtract_columns(300, 41, at_once=True)]
    ([(10,), (10, 9), (2,)], [(10,), (9,), (2,)])
    """
    length = len(str(a))
    tops, bottoms = digits_of(a, length), digits_of(b, length)
    written_tops = list(tops)
    above: list[list[int]] = [[] for _ in range(length)]
    turns: list[list[int]] = [[] for _ in range(length)]
    exchanged = [False] * length
    for i in range(length):
        if tops[i] >= bottoms[i]:
            continue
        source = next(j for j in range(i + 1, length) if tops[j])
        for j in range(source, i, -1):
            for column, by in ((j, -1), (j - 1, 10)):
                tops[column] += by
                if not (at_once and i < column < source and by == 10):
                    above[column].append(tops[column])
                    turns[column].append(i)
        exchanged[i] = True
    return [
        Subtracted(written_tops[i], bottoms[i], tuple(above[i]), tuple(turns[i]), exchanged[i], tops[i] - bottoms[i])
        for i in range(length)
    ]


def partial_products(a: int, b: int) -> list[int]:
    """What a times each digit of b makes, from the right, in its place; digits 0 are left out.

    >>> partial_products(24, 305)
    [120, 7200]
    """
    return [a * digit * 10**i for i, digit in enumerate(digits_of(b)) if digit]
