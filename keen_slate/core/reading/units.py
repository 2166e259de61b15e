"""Labels that are English unit words, in singular and plural.

Other labels are somebody's own words, and never changed.
"""

from __future__ import annotations

from ..expressions.tree import Expr, Frac, Neg, value
from .measures import UNITS

_PLURALS = {
    **{unit.one: unit.many for unit in UNITS},
    "month": "months", "year": "years", "piece": "pieces", "part": "parts", "plank": "planks", "board": "boards",
    "bucket": "buckets", "box": "boxes", "bag": "bags", "roll": "rolls",
}  # fmt: skip
_SINGULARS = {plural: singular for singular, plural in _PLURALS.items()}


def singular(label: str) -> str:
    """The *label* in the singular, where it is a unit word in the plural.

    >>> singular("feet"), singular("yd")
    ('foot', 'yd')
    """
    return _SINGULARS.get(label, label)


def counted_in(label: str | None, number: Expr) -> str | None:
    """The *label* as it is said of *number*: one yard, 3/4 yard, two yards, 0.5 yards.

    >>> from ..expressions.tree import Whole
    >>> counted_in("yards", Whole(1)), counted_in("foot", Whole(2)), counted_in("yd", Whole(1))
    ('yard', 'feet', 'yd')
    """
    if label is None:
        return None
    size = number.inner if isinstance(number, Neg) else number
    amount = abs(value(size))
    one = singular(label)
    return one if amount == 1 or (isinstance(size, Frac) and 0 < amount < 1) else _PLURALS.get(one, label)
