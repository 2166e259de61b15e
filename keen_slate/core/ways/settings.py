"""Ways: how a class does things. Every setting is declared once, below; its default is its first code.

What is derived from a declaration: the field of `Ways`, the validation, the comparison of ways, the class's words, the
choices on the screen, the table in docs/formats.md (`python -m tools.tables`). A new setting is a field here and a
function in the room that looks at it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, fields, replace
from functools import lru_cache
from typing import Any, Literal

from ..errors import SettingError
from ..reading.kinds import Kind
from .own_words import OWN_TEXTS

Group = Literal["fractions", "mixed", "decimals", "order", "answers", "words", "look"]
# What a teacher looks under.
GROUPS: dict[Group, str] = {
    "fractions": "Fractions",
    "mixed": "<Mixed numbers>",
    "decimals": "Decimals",
    "order": "Products",
    "answers": "Answers",
    "words": "Words",
    "look": "Look",
}


@dataclass(frozen=True, slots=True)
class Setting:
    """A choice that a class makes.

    It stands in a *group* on the screen, where a working of the *example* (a problem, and the form it is asked for)
    shows what it does. *codes* maps each code to its title. In problems of the kinds *compared* the codes are shown
    side by side as other ways, those of the largest *weight* first. *terms* are the words that a code puts in the place
    of the core's own.
    """

    name: str
    group: Group
    example: str
    title: str
    codes: Mapping[str, str]
    compared: frozenset[Kind]
    weight: int
    terms: Mapping[str, Mapping[str, str]]

    @property
    def default(self) -> str:
        """The first code."""
        return next(iter(self.codes))


def _setting(
    group: Group, example: str, title: str, codes: dict[str, str], compared: tuple[Kind, ...] = (), weight: int = 0,
    terms: Mapping[str, Mapping[str, str]] | None = None,
) -> Any:  # fmt: skip
    """A field of `Ways` with its declaration; the name is the field's own."""
    kept = {
        "group": group,
        "example": example,
        "title": title,
        "codes": codes,
        "compared": frozenset(compared),
        "weight": weight,
        "terms": terms or {},
    }
    return field(default=next(iter(codes)), metadata=kept)


def _yes_no(
    group: Group, example: str, title: str, no: str, yes: str, compared: tuple[Kind, ...] = (), weight: int = 0
) -> Any:
    return _setting(group, example, title, {"no": no, "yes": yes}, compared, weight)


def _verb(stem: str, past: str, gerund: str) -> dict[str, str]:
    return {"regroup": stem, "regrouped": past, "regrouping": gerund}


@dataclass(frozen=True, slots=True)
class Ways:
    """The settings that a working is made with; each field holds one of its codes."""

    common_denominator: str = _setting(
        "fractions",
        "5/6 + 3/4",
        "Finding a common denominator",
        {
            "list-multiples": "multiples listed",
            "prime-factors": "prime factors paired",
            "product": "<denominators> multiplied",
            "multiples-of-larger": "multiples of the largest tried",
            "named": "named at once",
        },
        compared=("add-subtract", "missing"),
        weight=7,
    )
    one_fits: str = _setting(
        "fractions",
        "1/4 + 5/12",
        "Where one <denominator> fits",
        {"use": "said at once", "ignore": "found all the same"},
        compared=("add-subtract", "missing"),
        weight=1,
    )
    one_bar: str = _yes_no(
        "fractions",
        "1/4 + 2/5",
        "Like fractions",
        "counted at once",
        "over one bar first, (5 + 8)/20",
        compared=("add-subtract",),
        weight=1,
    )
    reduce_first: str = _yes_no(
        "fractions",
        "6/8 + 1/12",
        "Simplify before scaling",
        "terms as they are",
        "simplify terms first",
        compared=("add-subtract",),
        weight=5,
    )
    spot_wholes: str = _yes_no(
        "fractions",
        "1/3 + 1/4 + 2/3",
        "Terms that make a <whole>",
        "terms in their order",
        "<wholes> spotted first",
        compared=("add-subtract",),
        weight=6,
    )
    mixed_add: str = _setting(
        "mixed",
        "2 3/4 + 1 5/6",
        "Adding <mixed numbers>",
        {
            "wholes-first": "<wholes> first",
            "fractions-first": "fractions first, carry",
            "improper": "all improper",
            "wholes-then-improper": "<wholes> first, then improper",
            "fractions-wholes-tidy": "fractions, <wholes>, then tidy",
        },
        compared=("add-subtract", "missing"),
        weight=8,
    )
    mixed_subtract: str = _setting(
        "mixed",
        "7 1/4 - 3 5/6",
        "Subtracting <mixed numbers>",
        {
            "regroup": "<regroup>",
            "improper": "all improper",
            "below-zero": "parts apart, below zero",
            "count-back": "count back",
            "same-difference": "same difference",
            "wholes-then-improper": "<wholes> first, then improper",
            "wholes-apart": "<wholes> first, then the common <denominator>",
        },
        compared=("add-subtract", "missing"),
        weight=9,
    )
    zero_part: str = _setting(
        "mixed",
        "9 - 4 2/3",
        "A fraction part of zero",
        {"skip": "left out", "write": "written, like 5 0/6"},
        compared=("add-subtract",),
        weight=1,
    )
    to_mixed: str = _setting(
        "mixed",
        "17/5 to mixed",
        "Improper to mixed",
        {"divide": "divide", "split-wholes": "split into <wholes>", "multiples": "multiples as far as they fit"},
    )
    to_improper: str = _setting(
        "mixed",
        "3 2/5 to improper",
        "Mixed to improper",
        {"times-and-add": "multiply and add", "cut-wholes": "cut every <whole>"},
    )
    simplify: str = _setting(
        "answers",
        "24/36",
        "Simplifying",
        {
            "greatest-factor": "greatest factor from lists",
            "small-steps": "small steps",
            "primes": "primes crossed off",
            "at-once": "greatest factor at once, without lists",
        },
        compared=("add-subtract", "simplify", "convert", "multiply-divide", "order", "missing"),
        weight=3,
    )
    answer_form: str = _setting(
        "answers",
        "5/6 + 2/3",
        "Form of the answer",
        {
            "simplest-mixed": "mixed, <lowest terms>",
            "simplest-improper": "improper, <lowest terms>",
            "any-equal": "any equal form",
            "mixed-as-left": "mixed, as it is left",
        },
    )
    lowest_line: str = _yes_no(
        "answers", "5/6 - 3/4", "Is it in <lowest terms>?", "not asked", "asked and answered beside the last line"
    )
    money_beside: str = _yes_no(
        "fractions",
        "3/4 + 2/5",
        "The same in money",
        "not shown",
        "beside the last line, where all are whole cents",
    )
    label: str = _setting(
        "answers",
        "2 3/4 ft + 1 1/2 ft",
        "A label like ft or $",
        {"answer": "at the answer", "each": "at every number of every line"},
    )
    decimal: str = _setting(
        "decimals",
        "12.4 - 6.75",
        "Decimals",
        {"columns": "in columns", "as-fractions": "as fractions"},
        compared=("decimal", "missing"),
        weight=2,
    )
    across_zeros: str = _setting(
        "decimals",
        "100 - 41.8",
        "<Regrouping> across zeros",
        {"each": "digit by digit", "at-once": "100 is 99 and 10 at once"},
    )
    mixed_kinds: str = _setting(
        "decimals",
        "1/2 × 0.6",
        "Decimals beside fractions",
        {"fractions": "in fractions", "decimals": "in decimals"},
        compared=("order", "multiply-divide"),
        weight=4,
    )
    opposites: str = _setting(
        "order",
        "3 - 7 + 1/2 × 4",
        "Taking away more than there is",
        {"minus": "taken away, 3 - 7", "plus": "the opposite added, 3 + (-7)"},
        compared=("order",),
        weight=1,
    )
    order_lines: str = _setting(
        "order",
        "(1/2 + 1/3) × (3/4 - 1/2)",
        "Brackets beside each other",
        {"one": "one after the other", "together": "worked in the same lines"},
        compared=("order",),
        weight=2,
    )
    cancel: str = _setting(
        "order",
        "5/6 × 9/10",
        "Multiplying fractions",
        {"before": "cancel, then multiply", "after": "multiply, then simplify"},
        compared=("multiply-divide", "order"),
        weight=4,
    )
    blank_proper: str = _yes_no(
        "answers", "_/4 + _/2 = 5/4", "Blank <numerators>, size", "any <numerator>", "proper fractions only"
    )
    blank_different: str = _yes_no(
        "answers", "_/6 + _/3 = 1", "Blank <numerators>, repeats", "<numerators> may be equal", "all different"
    )
    blank_lowest: str = _yes_no(
        "answers", "_/3 + _/3 = 4/3", "Blank <numerators>, form", "any form", "in <lowest terms> only"
    )
    layout: str = _setting(
        "look",
        "5/6 - 3/4",
        "Layout on the paper",
        {"line": "line by line", "stacked": "stacked", "four-box": "four boxes", "checklist": "checklist"},
    )
    estimate: str = _setting(
        "answers",
        "5 3/8 + 2 1/5",
        "Estimating",
        {
            "by-kind": "usual for the numbers",
            "half": "to the nearest half",
            "whole": "to the nearest <whole>",
            "between": "between two <wholes>",
        },
    )
    ties: str = _setting("answers", "7 1/4 - 3 5/6", "Rounding a tie in an estimate", {"up": "up", "down": "down"})
    decimal_mark: str = _setting(
        "look",
        "1.5 + 0.75",
        "Decimal mark",
        {"point": "point, 3.5", "comma": "comma, 3,5"},
        terms={"comma": {".": ","}},
    )
    say_regroup: str = _setting(
        "words",
        "7 1/4 - 3 5/6",
        "Word for regrouping",
        {"regroup": "regroup", "borrow": "borrow", "exchange": "exchange", "rename": "rename", "trade": "trade"},
        terms={
            "borrow": _verb("borrow", "borrowed", "borrowing"),
            "exchange": _verb("exchange", "exchanged", "exchanging"),
            "rename": _verb("rename", "renamed", "renaming"),
            "trade": _verb("trade", "traded", "trading"),
        },
    )
    say_least: str = _setting(
        "words",
        "5/12 + 3/14",
        "Least or lowest",
        {
            "least": "least common denominator",
            "lowest": "lowest common denominator",
            "multiple": "least common multiple",
        },
        terms={
            "lowest": {"least common denominator": "lowest common denominator"},
            "multiple": {"least common denominator": "least common multiple"},
        },
    )
    say_simplest: str = _setting(
        "words",
        "7 1/4 - 3 5/6",
        "Word for lowest terms",
        {"lowest-terms": "lowest terms", "simplest-form": "simplest form"},
        terms={"simplest-form": {"lowest terms": "simplest form"}},
    )
    say_mixed: str = _setting(
        "words",
        "2 1/2 + 1 1/4",
        "Mixed number or fraction",
        {"mixed-number": "mixed number", "mixed-fraction": "mixed fraction"},
        terms={"mixed-fraction": {"mixed number": "mixed fraction", "mixed numbers": "mixed fractions"}},
    )
    say_whole: str = _setting(
        "words",
        "7 1/4 - 3 5/6",
        "Whole or one",
        {"whole": "whole", "one": "one"},
        terms={"one": {"one whole": "a one", "whole": "one", "wholes": "ones"}},
    )
    say_numerator: str = _setting(
        "words",
        "5/6 - 1/6",
        "Numerator or top",
        {"numerator": "numerator", "top": "top"},
        terms={
            "top": {"numerator": "top", "numerators": "tops", "denominator": "bottom", "denominators": "bottoms"},
        },
    )

    say_fourths: str = _setting(
        "words",
        "3/4 - 1/4",
        "Fourths or quarters",
        {"fourths": "fourths", "quarters": "quarters"},
        terms={"quarters": {"fourth": "quarter", "fourths": "quarters"}},
    )

    # What a teacher writes herself, read by `ways.own_words`; "" where there is nothing of the kind.
    checklist: str = ""  # the questions of the class, "" for those of the house
    order_words: str = ""  # by which the class remembers the order of operations
    asks: str = ""  # what the class is asked before each line on the Wall
    split: str = ""  # the numerators that are to fill the blanks of an example

    @property
    def wants_mixed(self) -> bool:
        """Whether an answer past one is to be a mixed number."""
        return self.answer_form in ("simplest-mixed", "mixed-as-left")

    @property
    def wants_lowest_terms(self) -> bool:
        """Whether an answer is to be in lowest terms."""
        return self.answer_form in ("simplest-mixed", "simplest-improper")

    @property
    def exchanges_at_once(self) -> bool:
        """Whether the class exchanges across zeros in one stroke: 100 is 99 and 10."""
        return self.across_zeros == "at-once"

    def works_like(self, other: Ways) -> bool:
        """Whether both make the same working, said and laid out in one way or another."""
        return all(getattr(self, name) == getattr(other, name) for name in SETTINGS if name not in _ONLY_SHOWN)

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
            if name in OWN_TEXTS:
                OWN_TEXTS[name](code)
                continue
            if name not in SETTINGS:
                raise SettingError(
                    f"There is no setting called {name}.", 0, len(name), f"Settings: {', '.join(SETTINGS)}."
                )
            if code not in SETTINGS[name].codes:
                raise SettingError(
                    f"{name} has no way called {code}.",
                    len(name) + 1,
                    len(code),
                    f"Ways of {name}: {', '.join(SETTINGS[name].codes)}.",
                )
        return replace(cls(), **settings)

    def as_dict(self) -> dict[str, str]:
        """Name to code, in the order of the declarations; what a teacher wrote herself comes last."""
        return dict(_named(self)) | {name: own for name in OWN_TEXTS if (own := getattr(self, name))}


SETTINGS: dict[str, Setting] = {one.name: Setting(one.name, **one.metadata) for one in fields(Ways) if one.metadata}

# Settings that change nothing of a working but how it is said and laid out, or what is estimated beside it.
_ONLY_SHOWN = frozenset([name for name, one in SETTINGS.items() if one.terms]) | {"layout", "label", "estimate", "ties"}


@lru_cache(maxsize=1024)
def _named(ways: Ways) -> tuple[tuple[str, str], ...]:
    return tuple([(name, getattr(ways, name)) for name in SETTINGS])


def compared_in(kind: Kind) -> list[Setting]:
    """The settings whose codes are other ways of working problems of this *kind*, the weightiest first.

    >>> [setting.name for setting in compared_in("multiply-divide")]
    ['mixed_kinds', 'cancel', 'simplify']
    """
    return sorted([one for one in SETTINGS.values() if kind in one.compared], key=lambda one: -one.weight)
