"""What is typed: the numbers to build with, and the number that is wanted."""

from __future__ import annotations

from ..errors import ReadError
from ..expressions.text import DecimalMark
from ..expressions.tree import Dec, Expr, Frac, Mixed, Whole
from ..reading.reader import read

FEWEST, MOST = 3, 6
_PLAIN = (Whole, Frac, Mixed, Dec)


def read_numbers(typed: str, mark: DecimalMark = ".") -> tuple[Expr, ...]:
    """The numbers that *typed* lists, parted by commas or semicolons (by semicolons where the comma is the decimal
    *mark*).

    >>> from ..expressions.text import text
    >>> [text(n) for n in read_numbers("3, 1/2, 0.25")]
    ['3', '1/2', '0.25']

    Raises `ReadError` with the place in *typed*.
    """
    numbers: list[Expr] = []
    at = 0
    apart = ";" if mark == "," or ";" in typed else ","
    for piece in typed.split(apart):
        start = at + len(piece) - len(piece.lstrip())
        try:
            problem = read(piece.strip(), mark)
        except ReadError as error:
            raise ReadError(error.message, start + error.position, error.length, error.hint) from None
        if not isinstance(problem.expr, _PLAIN) or problem.label or problem.kind != "simplify":
            hint = (
                f"Write the numbers with a {'semicolon' if apart == ';' else 'comma'} between them, like 3{apart} "
                f"1/2{apart} 4."
            )
            raise ReadError("Only plain numbers are built with.", start, len(piece.strip()), hint)
        numbers.append(problem.expr)
        at += len(piece) + 1
    if not FEWEST <= len(numbers) <= MOST:
        raise ReadError(f"{len(numbers)} numbers are given.", 0, len(typed), f"Give {FEWEST} to {MOST} numbers.")
    return tuple(numbers)


def read_wanted(typed: str, mark: DecimalMark = ".") -> Expr:
    """The number to be built. Raises `ReadError`."""
    problem = read(typed, mark)
    if not isinstance(problem.expr, _PLAIN) or problem.label or problem.kind != "simplify":
        raise ReadError(
            "The number to build has to be one plain number.", 0, len(typed), "Type one number, like 14 or 2 1/2."
        )
    return problem.expr
