"""What teachers draw beside their lines: a long division, a factor tree, a sum in a column."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from functools import partial

from ..arithmetic.primes import prime_factors, product_text
from ..expressions.sentences import Sketch
from ..expressions.typeset import Drawing, DrawnText

DIGIT = 11  # how wide a digit is drawn
ROW = 20  # how far apart rows are
RING = 10  # how high a ring is from its middle
_MOST_ROWS = 9
_MOST_PRIMES = 8
_SPREAD = 20  # how far a branch goes to its side at least


def division_text(num: int, den: int) -> str:
    """The division in a line.

    >>> division_text(17, 12)
    '17 ÷ 12 = 1 remainder 5'
    """
    whole, rest = divmod(num, den)
    return f"{num} ÷ {den} = {whole}" + (f" remainder {rest}" if rest else "")


def long_division(num: int, den: int) -> Sketch | str:
    """*num* ÷ *den* as it is worked in columns; in a line where nothing is divided in columns, or it needs too many
    rows.
    """
    said = division_text(num, den)
    # Each digit of the quotient that is not 0 makes two rows: a product and what is left.
    worked = sum(digit != "0" for digit in str(num // den))
    if not worked or den == 1 or 2 * worked > _MOST_ROWS:
        return said
    return Sketch(said, partial(_division, num, den))


def _division(num: int, den: int) -> Drawing:
    digits, divisor = str(num), str(den)
    left = (len(divisor) + 1) * DIGIT
    rows, quotient = _rows(digits, den)

    def at(column: int, row: int, text: str) -> DrawnText:
        """*text* with its last digit in a *column* of the dividend."""
        return DrawnText(left + (column - len(text) + 1) * DIGIT, (row + 1) * ROW, text)

    texts = [DrawnText(0, 2 * ROW, divisor), at(len(digits) - 1, 1, digits), at(len(digits) - 1, 0, quotient)]
    edge = left - DIGIT // 2
    lines = [(edge, ROW + 4, left + len(digits) * DIGIT, ROW + 4), (edge, ROW + 4, edge, 2 * ROW + 4)]
    for row, (column, text, is_product) in enumerate(rows, 2):
        texts.append(at(column, row, text))
        if is_product:
            y = (row + 1) * ROW + 4
            lines.append((left + (column - len(text) + 1) * DIGIT, y, left + (column + 1) * DIGIT, y))
    width = left + len(digits) * DIGIT + 2
    return Drawing(width, (len(rows) + 2) * ROW + 6, tuple(texts), tuple(lines), ())


def _rows(digits: str, den: int) -> tuple[list[tuple[int, str, bool]], str]:
    """What stands under the dividend, row by row (last column, digits, whether it is taken away), and the quotient."""
    rows: list[tuple[int, str, bool]] = []
    quotient = ""
    here = 0
    for column, digit in enumerate(digits):
        here = 10 * here + int(digit)
        times, here = divmod(here, den)
        if rows and not rows[-1][2]:  # the remainder that stands there takes this digit down
            _, text, _ = rows.pop()
            rows.append((column, (text if text != "0" else "") + digit, False))
        if times or quotient:
            quotient += str(times)
        if times:
            rows += [(column, str(times * den), True), (column, str(here), False)]
    return rows, quotient


def column_sum(numbers: Sequence[int]) -> Sketch | str:
    """Whole numbers added under each other, where there are three or more and one has two digits; else in a line."""
    said = f"{' + '.join(map(str, numbers))} = {sum(numbers)}"
    if len(numbers) < 3 or max(numbers) < 10 or len(numbers) > _MOST_ROWS:
        return said
    return Sketch(said, partial(_column, tuple(numbers)))


def _column(numbers: tuple[int, ...]) -> Drawing:
    total = str(sum(numbers))
    width = (len(total) + 2) * DIGIT
    rows = [*map(str, numbers), total]
    below = len(numbers)  # the total, under the rule
    texts = [
        DrawnText(width - len(text) * DIGIT, (row + 1) * ROW + 4 * (row == below), text)
        for row, text in enumerate(rows)
    ]
    texts.append(DrawnText(0, len(numbers) * ROW, "+"))
    rule = len(numbers) * ROW + 5
    return Drawing(width + 2, len(rows) * ROW + 10, tuple(texts), ((0, rule, width, rule),), ())


def factor_tree(number: int, ringed: Iterable[int] = ()) -> Sketch | str:
    """The prime factors of *number* as a tree, those *ringed* in a ring each; in a line where there are too many."""
    primes = prime_factors(number)
    said = f"{number} = {product_text(primes)}" if len(primes) > 1 else f"{number} is a prime"
    if not 1 < len(primes) <= _MOST_PRIMES:
        return said
    return Sketch(said, partial(_tree, number, primes, tuple(ringed)))


def _tree(number: int, primes: tuple[int, ...], ringed: tuple[int, ...]) -> Drawing:
    rings = Counter(ringed)
    texts, lines, rounds = [], [], []
    x, y, left = _half(number) + _SPREAD + RING, ROW, number
    texts.append(_centred(x, y, number))
    for at, prime in enumerate(primes):
        last = at == len(primes) - 1
        if last:
            here = (x, y)
        else:
            left //= prime
            aside = max(_SPREAD, _half(left) + _half(prime) // 2 + 6)
            here, other = (x - aside, y + 2 * ROW), (x + aside, y + 2 * ROW)
            lines += [(x - 4, y + 4, here[0] + 3, here[1] - 15), (x + 4, y + 4, other[0] - 3, other[1] - 15)]
            texts += [_centred(*here, prime), _centred(*other, left)]
            x, y = other
        if rings[prime]:
            rings[prime] -= 1
            rounds.append((here[0], here[1] - 5, _half(prime) + 5))
    width = x + RING + _half(number)
    return Drawing(width, y + RING, tuple(texts), tuple(lines), tuple(rounds))


def _centred(x: int, y: int, number: int) -> DrawnText:
    return DrawnText(x - _half(number), y, str(number))


def _half(number: int) -> int:
    """Half of the width of *number*."""
    return DIGIT * len(str(number)) // 2
