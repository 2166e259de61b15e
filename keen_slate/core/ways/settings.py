"""Ways: how a class does things. Every setting, its codes (the first is the default) and its name.

A new method adds its code here and its function in `methods/`; nothing else lists them.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import lru_cache

from ..errors import SettingError

CODES: dict[str, tuple[str, ...]] = {
    "common_denominator": ("list-multiples", "prime-factors", "product"),
    "reduce_first": ("no", "yes"),
    "spot_wholes": ("no", "yes"),
    "mixed_add": ("wholes-first", "fractions-first", "improper"),
    "mixed_subtract": ("regroup", "improper", "below-zero", "count-back", "same-difference"),
    "to_mixed": ("divide", "split-wholes"),
    "to_improper": ("times-and-add", "cut-wholes"),
    "simplify": ("greatest-factor", "small-steps", "primes"),
    "answer_form": ("simplest-mixed", "simplest-improper", "any-equal"),
    "decimal": ("columns", "as-fractions"),
    "mixed_kinds": ("fractions", "decimals"),
    "cancel": ("before", "after"),
    "blank_proper": ("no", "yes"),
    "blank_different": ("no", "yes"),
    "blank_lowest": ("no", "yes"),
    "estimate": ("by-kind", "half", "whole", "between"),
    "ties": ("up", "down"),
    "layout": ("line", "stacked", "four-box", "checklist"),
    "decimal_mark": ("point", "comma"),
    "say_regroup": ("regroup", "borrow", "exchange", "rename"),
    "say_least": ("least", "lowest"),
    "say_simplest": ("lowest-terms", "simplest-form"),
    "say_mixed": ("mixed-number", "mixed-fraction"),
    "say_whole": ("whole", "one"),
    "say_numerator": ("numerator", "top"),
}

# What a code is called on the screen, where teachers choose between ways.
NAMES: dict[tuple[str, str], str] = {
    ("common_denominator", "list-multiples"): "multiples listed",
    ("common_denominator", "prime-factors"): "prime factors paired",
    ("common_denominator", "product"): "denominators multiplied",
    ("reduce_first", "no"): "terms as they are",
    ("reduce_first", "yes"): "simplify terms first",
    ("spot_wholes", "no"): "terms in their order",
    ("spot_wholes", "yes"): "wholes spotted first",
    ("mixed_add", "wholes-first"): "wholes first",
    ("mixed_add", "fractions-first"): "fractions first, carry",
    ("mixed_add", "improper"): "all improper",
    ("mixed_subtract", "regroup"): "regroup",
    ("mixed_subtract", "improper"): "all improper",
    ("mixed_subtract", "below-zero"): "parts apart, below zero",
    ("mixed_subtract", "count-back"): "count back",
    ("mixed_subtract", "same-difference"): "same difference",
    ("simplify", "greatest-factor"): "greatest factor at once",
    ("simplify", "small-steps"): "small steps",
    ("simplify", "primes"): "primes crossed off",
    ("to_mixed", "divide"): "divide",
    ("to_mixed", "split-wholes"): "split into wholes",
    ("to_improper", "times-and-add"): "multiply and add",
    ("to_improper", "cut-wholes"): "cut every whole",
    ("answer_form", "simplest-mixed"): "mixed, lowest terms",
    ("answer_form", "simplest-improper"): "improper, lowest terms",
    ("answer_form", "any-equal"): "any equal form",
    ("decimal", "columns"): "in columns",
    ("decimal", "as-fractions"): "as fractions",
    ("mixed_kinds", "fractions"): "in fractions",
    ("mixed_kinds", "decimals"): "in decimals",
    ("cancel", "before"): "cancel, then multiply",
    ("cancel", "after"): "multiply, then simplify",
    ("blank_proper", "no"): "any numerator",
    ("blank_proper", "yes"): "proper fractions only",
    ("blank_different", "no"): "numerators may be equal",
    ("blank_different", "yes"): "all different",
    ("blank_lowest", "no"): "any form",
    ("blank_lowest", "yes"): "in lowest terms only",
    ("estimate", "by-kind"): "usual for the numbers",
    ("estimate", "half"): "to the nearest half",
    ("estimate", "whole"): "to the nearest whole",
    ("estimate", "between"): "between two wholes",
    ("ties", "up"): "up",
    ("ties", "down"): "down",
    ("decimal_mark", "point"): "point, 3.5",
    ("decimal_mark", "comma"): "comma, 3,5",
    ("say_regroup", "regroup"): "regroup",
    ("say_regroup", "borrow"): "borrow",
    ("say_regroup", "exchange"): "exchange",
    ("say_regroup", "rename"): "rename",
    ("say_least", "least"): "least common …",
    ("say_least", "lowest"): "lowest common …",
    ("say_simplest", "lowest-terms"): "lowest terms",
    ("say_simplest", "simplest-form"): "simplest form",
    ("say_mixed", "mixed-number"): "mixed number",
    ("say_mixed", "mixed-fraction"): "mixed fraction",
    ("say_whole", "whole"): "whole",
    ("say_whole", "one"): "one",
    ("say_numerator", "numerator"): "numerator",
    ("say_numerator", "top"): "top",
    ("layout", "line"): "line by line",
    ("layout", "stacked"): "stacked",
    ("layout", "four-box"): "four boxes",
    ("layout", "checklist"): "checklist",
}
# What a setting is called. A setting with one code only is not offered.
TITLES: dict[str, str] = {
    "common_denominator": "Finding a common denominator",
    "reduce_first": "Simplify before scaling",
    "spot_wholes": "Terms that make a whole",
    "mixed_add": "Adding mixed numbers",
    "mixed_subtract": "Subtracting mixed numbers",
    "to_mixed": "Improper to mixed",
    "to_improper": "Mixed to improper",
    "simplify": "Simplifying",
    "answer_form": "Form of the answer",
    "decimal": "Decimals",
    "mixed_kinds": "Decimals beside fractions",
    "cancel": "Multiplying fractions",
    "blank_proper": "Blank numerators, size",
    "blank_different": "Blank numerators, repeats",
    "blank_lowest": "Blank numerators, form",
    "layout": "Layout on the paper",
    "estimate": "Estimating",
    "ties": "Rounding a tie in an estimate",
    "decimal_mark": "Decimal mark",
    "say_regroup": "Word for regrouping",
    "say_least": "Least or lowest",
    "say_simplest": "Word for lowest terms",
    "say_mixed": "Mixed number or fraction",
    "say_whole": "Whole or one",
    "say_numerator": "Numerator or top",
}


@dataclass(frozen=True, slots=True)
class Ways:
    """The settings that a working is made with; each field holds one of its codes in `CODES`."""

    common_denominator: str = "list-multiples"
    reduce_first: str = "no"
    spot_wholes: str = "no"
    mixed_add: str = "wholes-first"
    mixed_subtract: str = "regroup"
    to_mixed: str = "divide"
    to_improper: str = "times-and-add"
    simplify: str = "greatest-factor"
    answer_form: str = "simplest-mixed"
    decimal: str = "columns"
    mixed_kinds: str = "fractions"
    cancel: str = "before"
    blank_proper: str = "no"
    blank_different: str = "no"
    blank_lowest: str = "no"
    estimate: str = "by-kind"
    ties: str = "up"
    layout: str = "line"
    decimal_mark: str = "point"
    say_regroup: str = "regroup"
    say_least: str = "least"
    say_simplest: str = "lowest-terms"
    say_mixed: str = "mixed-number"
    say_whole: str = "whole"
    say_numerator: str = "numerator"

    @classmethod
    def of(cls, settings: Mapping[str, str]) -> Ways:
        """The default ways with *settings* (name to code) changed. Raises `SettingError`.

        >>> Ways.of({"ties": "down"}).ties
        'down'
        >>> Ways.of({"ties": "sideways"})
        Traceback (most recent call last):
        keen_slate.core.errors.SettingError: ties has no way called sideways.
        """
        for name, code in settings.items():
            if name not in CODES:
                raise SettingError(
                    f"There is no setting called {name}.", 0, len(name), f"Settings: {', '.join(CODES)}."
                )
            if code not in CODES[name]:
                raise SettingError(
                    f"{name} has no way called {code}.",
                    len(name) + 1,
                    len(code),
                    f"Ways of {name}: {', '.join(CODES[name])}.",
                )
        return replace(cls(), **settings)

    def as_dict(self) -> dict[str, str]:
        """Name to code, in the order of `CODES`."""
        return dict(_named(self))


@lru_cache(maxsize=1024)
def _named(ways: Ways) -> tuple[tuple[str, str], ...]:
    return tuple([(name, getattr(ways, name)) for name in CODES])
