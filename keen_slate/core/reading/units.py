"""Labels that are English unit words, in singular and plural. Other labels are somebody's own words, and never changed."""

from __future__ import annotations

from ..expressions.tree import Expr, Frac, Neg, value

_PLURALS = {
    "foot": "feet", "inch": "inches", "yard": "yards", "mile": "miles", "metre": "metres", "meter": "meters",
    "kilometre": "kilometres", "kilometer": "kilometers", "centimetre": "centimetres", "centimeter": "centimeters",
    "millimetre": "millimetres", "millimeter": "millimeters", "litre": "litres", "liter": "liters",
    "millilitre": "millilitres", "milliliter": "milliliters", "gallon": "gallons", "quart": "quarts", "pint": "pints",
    "gram": "grams", "kilogram": "kilograms", "pound": "pounds", "ounce": "ounces", "ton": "tons", "tonne": "tonnes",
    "second": "seconds", "minute": "minutes", "hour": "hours", "day": "days", "week": "weeks", "month": "months",
    "year": "years", "cent": "cents", "dollar": "dollars", "euro": "euros", "piece": "pieces", "part": "parts",
    "plank": "planks", "board": "boards", "bucket": "buckets", "box": "boxes", "bag": "bags", "roll": "rolls",
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
