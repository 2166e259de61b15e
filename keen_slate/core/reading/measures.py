"""The units of measure: their words, what they measure, and their exact size in one unit of each kind.

Sizes are exact by definition: 1 in = 0.0254 m, 1 lb = 0.45359237 kg (international yard and pound), 1 US gallon = 231
cubic inches.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

Measure = Literal["length", "area", "mass", "capacity", "time", "money", "temperature"]


@dataclass(frozen=True, slots=True)
class Unit:
    """A unit: its words, its *short* forms (the first is the usual one), what it measures, and how much one of it is.

    Sizes are in metres, square metres, kilograms, litres, minutes, cents (or their like) and degrees of one scale.
    """

    one: str
    many: str
    short: tuple[str, ...]
    measure: Measure
    size: Fraction
    family: str = ""  # units of money, and of temperature, are of the same family, or cannot be combined

    @property
    def label(self) -> str:
        """How it is written after a number: the short form, else the plural."""
        return self.short[0] if self.short else self.many


INCH = Fraction(254, 10_000)
POUND = Fraction(45_359_237, 100_000_000)
GALLON: Fraction = 231 * INCH**3 * 1000  # litres


def _metric(name: str, letter: str, measure: Measure, base: Fraction) -> list[Unit]:
    """The unit *name* with the prefixes in use at school, *base* of the measure's own unit each; without a *letter* no
    short form.
    """
    prefixes = {"": ("", Fraction(1)), "kilo": ("k", Fraction(1000)), "centi": ("c", Fraction(1, 100)),
        "milli": ("m", Fraction(1, 1000))}  # fmt: skip
    return [
        Unit(before + name, before + name + "s", (short + letter,) if letter else (), measure, base * size)
        for before, (short, size) in prefixes.items()
    ]


UNITS: tuple[Unit, ...] = (
    *_metric("metre", "m", "length", Fraction(1)),
    *_metric("meter", "", "length", Fraction(1)),
    *_metric("gram", "g", "mass", Fraction(1, 1000)),
    *_metric("litre", "l", "capacity", Fraction(1)),
    *_metric("liter", "L", "capacity", Fraction(1)),
    Unit("inch", "inches", ("in", "in."), "length", INCH),
    Unit("foot", "feet", ("ft", "ft."), "length", 12 * INCH),
    Unit("yard", "yards", ("yd", "yd."), "length", 36 * INCH),
    Unit("mile", "miles", ("mi", "mi."), "length", 5280 * 12 * INCH),
    Unit("tonne", "tonnes", ("t",), "mass", Fraction(1000)),
    Unit("ounce", "ounces", ("oz", "oz."), "mass", POUND / 16),
    Unit("pound", "pounds", ("lb", "lb.", "lbs"), "mass", POUND),
    Unit("ton", "tons", (), "mass", 2000 * POUND),
    Unit("fluid ounce", "fluid ounces", ("fl oz",), "capacity", GALLON / 128),
    Unit("cup", "cups", (), "capacity", GALLON / 16),
    Unit("pint", "pints", ("pt", "pt."), "capacity", GALLON / 8),
    Unit("quart", "quarts", ("qt", "qt."), "capacity", GALLON / 4),
    Unit("gallon", "gallons", ("gal", "gal."), "capacity", GALLON),
    Unit("square metre", "square metres", ("m²",), "area", Fraction(1)),
    Unit("square meter", "square meters", (), "area", Fraction(1)),
    Unit("square centimetre", "square centimetres", ("cm²",), "area", Fraction(1, 10_000)),
    Unit("square kilometre", "square kilometres", ("km²",), "area", Fraction(10**6)),
    Unit("square foot", "square feet", ("sq ft",), "area", 144 * INCH**2),
    Unit("square yard", "square yards", ("sq yd",), "area", 1296 * INCH**2),
    Unit("hectare", "hectares", ("ha",), "area", Fraction(10_000)),
    Unit("acre", "acres", (), "area", 43_560 * 144 * INCH**2),
    Unit("second", "seconds", ("s", "sec"), "time", Fraction(1, 60)),
    Unit("minute", "minutes", ("min", "mins"), "time", Fraction(1)),
    Unit("hour", "hours", ("h", "hr", "hrs"), "time", Fraction(60)),
    Unit("day", "days", (), "time", Fraction(1440)),
    Unit("week", "weeks", (), "time", Fraction(10_080)),
    Unit("dollar", "dollars", ("$",), "money", Fraction(100), "dollar"),
    Unit("cent", "cents", ("¢",), "money", Fraction(1), "dollar"),
    Unit("euro", "euros", ("€",), "money", Fraction(100), "euro"),
    Unit("pound sterling", "pounds sterling", ("£",), "money", Fraction(100), "pound"),
    Unit("degree Celsius", "degrees Celsius", ("°C",), "temperature", Fraction(1), "celsius"),
    Unit("degree Fahrenheit", "degrees Fahrenheit", ("°F",), "temperature", Fraction(1), "fahrenheit"),
)  # fmt: skip

_BY_WORD = {word.lower(): unit for unit in UNITS for word in (unit.one, unit.many)}
_BY_SHORT = {short: unit for unit in UNITS for short in unit.short}


def unit_named(word: str) -> Unit | None:
    """The unit that a *word* or short form names; words in any case, short forms as they are written.

    >>> unit_named("Metres").measure, unit_named("ft").one, unit_named("plank")
    ('length', 'foot', None)
    """
    return _BY_SHORT.get(word) or _BY_WORD.get(word.lower())


def ratio_of(unit: Unit, other: Unit) -> Fraction | None:
    """How many of *other* one *unit* is; None where they cannot be turned into each other.

    >>> ratio_of(unit_named("yd"), unit_named("in")), ratio_of(unit_named("m"), unit_named("kg"))
    (Fraction(36, 1), None)
    """
    alike = unit.measure == other.measure and unit.family == other.family
    return unit.size / other.size if alike else None
