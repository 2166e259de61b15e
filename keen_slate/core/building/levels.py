"""Numbers and a number to build from them, proposed at a level of difficulty."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from random import Random

from ..errors import ReadError
from ..expressions.text import text
from ..expressions.tree import Bracket, Expr, Frac, Product, Sum, Whole, value
from ..searching.deadline import look
from .search import Built, Search, build, ratios

LEVELS = ("wholes", "common-denominator", "brackets", "one-way")
LEVEL_NAMES = {
    "wholes": "whole numbers",
    "common-denominator": "needs a common denominator",
    "brackets": "needs brackets",
    "one-way": "exactly one way",
}


# Making one -----------------------------------------------------------------------------------------------------


def propose(level: str, seed: int) -> Built:
    """Numbers and a number to build from them, of a *level* of difficulty; the same *seed* gives the same.

    Raises `ReadError` where there is no such level.
    """
    if level not in LEVELS:
        raise ReadError(f"There is no level called {level}.", 0, len(level), f"Levels: {', '.join(LEVELS)}.")
    dice = Random(f"{level} {seed}")
    while True:
        look()
        numbers = tuple(_draw(dice, level))
        search = Search(ratios(numbers), list(numbers))
        everything = (1 << len(numbers)) - 1
        most = 12 if level == "common-denominator" else 1
        made = [Fraction(*v) for v in search.values(everything) if v[1] <= most]
        goals = sorted(v for v in made if 0 < v <= 60)
        for goal in dice.sample(goals, min(8, len(goals))):
            built = build(numbers, _plain(goal))
            if _suits(built, level):
                return built


def _plain(number: Fraction) -> Expr:
    n, d = number.as_integer_ratio()
    return Whole(n) if d == 1 else Frac(n, d)


def _draw(dice: Random, level: str) -> Iterator[Expr]:
    for _ in range(2 if level == "common-denominator" else 4):
        yield Whole(dice.randint(2, 12))
    if level == "common-denominator":
        for d in dice.sample([2, 3, 4, 5, 6, 8], 2):
            yield Frac(dice.choice([n for n in range(1, d) if Fraction(n, d).denominator == d]), d)


def _suits(built: Built, level: str) -> bool:
    if not built.exact or _size(built.ways[0]) < 3:
        return False
    if level == "common-denominator":
        return all(_unlike(way) for way in built.ways)
    if level == "brackets":
        return all("(" in text(way) for way in built.ways)
    return level != "one-way" or len(built.ways) == 1


def _size(expr: Expr) -> int:
    return sum(_size(part) for part in _inside(expr)) or 1


def _inside(expr: Expr) -> list[Expr]:
    match expr:
        case Sum(first, rest) | Product(first, rest):
            return [first, *[other for _, other in rest]]
        case Bracket(inner):
            return [inner]
    return []


def _unlike(expr: Expr) -> bool:
    """Whether two terms with different denominators are added or subtracted somewhere."""
    if isinstance(expr, Sum):
        dens = {value(term).denominator for term in _inside(expr)} - {1}
        if len(dens) > 1:
            return True
    return any(_unlike(part) for part in _inside(expr))
