"""A pattern, a thing and numbers become a story: sentences correct in number, article, tense and unit."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction

from ..expressions.text import text as write
from ..expressions.tree import Expr, Whole, value
from ..reading.measures import Unit, ratio_of, unit_named
from ..reading.problem import labelled
from ..reading.units import counted_in
from .numbers import CARDINALS
from .patterns import Pattern
from .reading import read_story
from .scenarios import SIZES, Thing
from .story import Story
from .words import PAST, third_person

_SLOT = re.compile(r"\{(\w+)\}")
_VERB = re.compile(r"\[(\w+)(\+| \d)?\]")
_IN_WORDS = {n: word for word, n in CARDINALS.items() if 2 <= n <= 12}
_ODD_PLURALS = {"shelf": "shelves", "strip": "strips"}
# What is told beside, and is not needed: of another measure than the thing.
_BESIDE = {"time": "The yard [be] {k} m wide.", "": "All that [take] {k} hours."}


@dataclass(frozen=True, slots=True)
class Manner:
    """How a story is told: of which *thing*, by whom, in the past or the present, its unit in a word or in short.

    *beside* is a number that is not needed, *label* what is written in the place of the unit's own short form.
    """

    thing: Thing
    doers: tuple[str, str]
    past: bool
    in_words: bool
    beside: int | None = None
    label: str | None = None


def tell(pattern: Pattern, numbers: Sequence[Expr], told: Manner) -> Story:
    """The story of a *pattern* with its *numbers* in the order told.

    Raises `CoreError` where such a story cannot be.
    """
    return read_story(source_of(pattern, numbers, told)).story


def source_of(pattern: Pattern, numbers: Sequence[Expr], told: Manner) -> str:
    """The text of a story with its calculation in braces."""
    small = smaller_unit(told.thing.unit) if "s" in pattern.slots else None
    sentences = pattern.told
    unneeded = ""
    if told.beside is not None:
        first, _, rest = sentences.rpartition(". ")
        extra = _BESIDE["time" if told.thing.unit.measure == "time" else ""].replace("{k}", str(told.beside))
        sentences = f"{first}. {extra} {rest}"
        unneeded = f"; not {told.beside}"
    words = _words(told, numbers, small)
    calculation = _SLOT.sub(lambda found: words[found.group(1)], pattern.calculation)
    calculation = re.sub(r"#(\d)", lambda found: write(numbers[int(found.group(1)) - 1]), calculation)
    amounts = {str(i): value(number) for i, number in enumerate(numbers, 1)}
    text = _filled(sentences, words, told, amounts)
    says = _filled(pattern.says, words, told, amounts)
    return f"{text} {{{pattern.situation} {pattern.unknown}: {calculation}{unneeded}; says {says}}}"


def smaller_unit(unit: Unit) -> tuple[Unit, int] | None:
    """A smaller unit in use beside *unit*, and how many of it make one; None where there is none."""
    for word in _SMALLER.get(unit.one, ()):
        each = ratio_of(unit, word)
        if each is not None:
            return word, int(each)
    return None


def _words(told: Manner, numbers: Sequence[Expr], small: tuple[Unit, int] | None) -> dict[str, str]:
    thing = told.thing
    far, farther = ("long", "longer") if thing.unit.measure == "time" else ("far", "farther")
    er, less = SIZES.get(thing.size, ("longer", "shorter"))
    words = {
        "a": f"{_article(thing.name)} {thing.name}", "A": f"{_article(thing.name).capitalize()} {thing.name}",
        "n": thing.name,
        "ns": plural(thing.name), "where": thing.where, "size": thing.size, "er": er, "less": less, "D": told.doers[0],
        "E": told.doers[1],
        "far": far, "farther": farther, "use": thing.use, "put": thing.put, "do": thing.name,
    }  # fmt: skip
    if small is not None:
        words |= {"small": small[0].many, "each": str(small[1])}
    for i, number in enumerate(numbers, 1):
        words[f"q{i}"] = (
            labelled(write(number), told.label) if told.label else _quantity(number, thing.unit, told.in_words)
        )
        words[f"c{i}"] = _count(number)
        words[f"C{i}"] = _count(number).capitalize()
        words[f"f{i}"] = write(number)
        if small is not None:
            words[f"s{i}"] = _quantity(number, small[0], told.in_words)
    return words


def _filled(told: str, words: Mapping[str, str], how: Manner, amounts: Mapping[str, Fraction]) -> str:
    def verb(found: re.Match[str]) -> str:
        base, of = found.groups()
        own = {"use": how.thing.use, "put": how.thing.put, "do": how.thing.name}.get(base, base)
        return _verb(own, how.past, plural=of == "+" or (of is not None and amounts[of.strip()] > 1))

    done = _SLOT.sub(lambda found: words[found.group(1)], told)
    done = _VERB.sub(verb, done)
    # A slot that is empty (what is done along nothing) leaves no gap.
    return re.sub(r" +(?=[ .,?])", "", done)


def _verb(base: str, past: bool, plural: bool) -> str:
    if base == "aux":
        return "did" if past else "do" if plural else "does"
    if base == "be":
        return ("were" if plural else "was") if past else ("are" if plural else "is")
    if past:
        return PAST[base]
    return base if plural else third_person(base)


def _quantity(number: Expr, unit: Unit, in_words: bool) -> str:
    if not in_words and unit.short:
        return f"{write(number)} {unit.short[0]}"
    return f"{write(number)} {counted_in(unit.many, number)}"


def _count(number: Expr) -> str:
    return _IN_WORDS.get(number.n, write(number)) if isinstance(number, Whole) else write(number)


def _article(name: str) -> str:
    return "an" if name[0].lower() in "aeiou" else "a"


def plural(name: str) -> str:
    """A noun's plural."""
    if name in _ODD_PLURALS:
        return _ODD_PLURALS[name]
    return name + ("es" if name.endswith(("s", "sh", "ch", "x")) else "s")


def possible(pattern: Pattern, numbers: Sequence[Expr], thing: Thing) -> bool:
    """Whether what a pattern tells with these *numbers* is plausible of a *thing*."""
    if pattern.kind != thing.kind or ("s" in pattern.slots and smaller_unit(thing.unit) is None):
        return False
    told = [value(number) for number, slot in zip(numbers, pattern.slots, strict=True) if slot == "q"]
    return all(thing.fits(number) for number in told)


def _units(told: Mapping[str, tuple[str, ...]]) -> dict[str, tuple[Unit, ...]]:
    return {
        one: tuple([unit for word in words if (unit := unit_named(word)) is not None]) for one, words in told.items()
    }


_SMALLER = _units({
    "metre": ("centimetre",), "kilometre": ("metre",), "kilogram": ("gram",), "litre": ("millilitre",),
    "foot": ("inch",), "yard": ("foot",),
    "pound": ("ounce",), "gallon": ("quart",), "quart": ("pint",), "hour": ("minute",), "minute": ("second",),
})  # fmt: skip
