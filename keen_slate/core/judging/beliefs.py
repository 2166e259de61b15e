"""What a pupil holds: how probable each misconception is after all her answers to a set.

Let C be the codes that explain at least one of her answers, at most `MOST_CODES` of them, those met more often first. She holds a set
H of at most `MOST_HELD` codes of C. With A the codes of H whose wrong answer shows in problem i, and n slip answers known for it:

    P(y | A) = SHOWS * (codes of A that write y) / |A| + (1 - SHOWS) * P(y | nothing)      where A is not empty
    P(y | nothing) = 1 - SLIPS for the right value, SLIPS / (n + 1) for each slip answer and for anything else

A code that gives the right answer here (hidden) changes nothing. Codes on form act on the form of a right value alone, in the same way.
H is weighed by the product of its codes' priors, and of what the others of C are not. The posterior is summed over all sets, at most 299.
All of it is exact: every factor of a problem is taken times 600 (n + 1), or times 600 for a right answer, which makes it a whole number.

`SHOWS`, `SLIPS`, `PSEUDO_COUNT` and the priors are common practice; no published figures are known to us.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Container, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from functools import cached_property
from itertools import combinations
from math import prod
from typing import NamedTuple

from .misconceptions.registry import ENTRIES

SHOWS = Fraction(3, 4)  # how often a misconception that can show does
SLIPS = Fraction(2, 25)  # slips and what nothing explains
PSEUDO_COUNT = 5  # pupils that the catalogue's weight counts for beside those of a class
PRIORS = {1: Fraction(3, 100), 2: Fraction(6, 100), 3: Fraction(12, 100)}  # by how often a misconception is met
MOST_CODES = 12
MOST_HELD = 3
VERY_LIKELY, LIKELY, PERHAPS = Fraction(9, 10), Fraction(7, 10), Fraction(4, 10)
_PER = 10_000  # priors are rounded to so many parts, so that weights stay whole


@dataclass(frozen=True, slots=True)
class Seen:
    """A problem as the model sees it: the wrong value of each code that shows, what each code on form writes, the right value, slips."""

    right: Fraction
    reveals: Mapping[str, Fraction]
    forms: Mapping[str, str]
    slips: frozenset[Fraction]


@dataclass(frozen=True, slots=True)
class Given:
    """An answer as the model sees it: its *value* (None where it is not one number), its text, and whether its form is at fault.

    *picked* are the codes that its teacher says have written it; None where she has said nothing.
    """

    value: Fraction | None
    written: str
    form_fault: bool = False
    picked: frozenset[str] | None = None


@dataclass(frozen=True, slots=True)
class Belief:
    """How probable it is that a pupil holds *code*: the problems (by index) in which it *could* show, and those in which it *did*."""

    code: str
    belief: Fraction
    could: tuple[int, ...]
    did: tuple[int, ...]

    @property
    def word(self) -> str:
        """The belief in words; "" where it is not spoken of."""
        if self.belief >= VERY_LIKELY:
            return "very likely"
        return "likely" if self.belief >= LIKELY else "perhaps" if self.belief >= PERHAPS else ""


@dataclass(frozen=True, slots=True)
class Priors:
    """How probable a code is before a pupil's answers are seen: its weight in the catalogue, moved towards its *shares* in a class."""

    shares: Mapping[str, Fraction] = field(default_factory=dict)
    pupils: int = 0

    def of(self, code: str) -> Fraction:
        """The prior of a code.

        >>> Priors().of("add-across"), Priors({"add-across": Fraction(1, 2)}, 5).of("add-across")
        (Fraction(3, 25), Fraction(31, 100))
        """
        base = PRIORS[ENTRIES[code].often]
        return (PSEUDO_COUNT * base + self.pupils * self.shares.get(code, base)) / (PSEUDO_COUNT + self.pupils)


def beliefs(problems: Sequence[Seen], answers: Sequence[Given | None], priors: Priors | None = None) -> list[Belief]:
    """The beliefs about the codes that explain at least one answer, the strongest first. None stands for a blank, or for nobody there."""
    return _Evidence(problems, answers).beliefs(priors or Priors())


def beliefs_of_class(problems: Sequence[Seen], pupils: Mapping[str, Sequence[Given | None]]) -> dict[str, list[Belief]]:
    """The beliefs about each pupil, with the shares of the class as they are after a first look."""
    evidence = {alias: _Evidence(problems, answers) for alias, answers in pupils.items()}
    first = {alias: one.beliefs(Priors()) for alias, one in evidence.items()}
    there = [alias for alias, answers in pupils.items() if any(answer is not None for answer in answers)]
    codes = {one.code for alias in there for one in first[alias]}
    shares = {
        code: sum([one.belief for alias in there for one in first[alias] if one.code == code], Fraction(0)) / len(there)
        for code in codes
    }
    # The catalogue has many codes; one that no answer of the class speaks for keeps its weight.
    priors = Priors(shares, len(there))
    return {alias: one.beliefs(priors) for alias, one in evidence.items()}


class _Evidence:
    """What a pupil's answers say of each code, before anything is believed."""

    def __init__(self, problems: Sequence[Seen], answers: Sequence[Given | None]) -> None:
        given = [(i, problems[i], answer) for i, answer in enumerate(answers) if answer is not None]
        writers = {i: _writers(seen, answer) for i, seen, answer in given}
        self.codes = _candidates(list(writers.values()))
        self._shown = {
            code: (
                tuple([i for i, seen, _ in given if code in seen.reveals or code in seen.forms or code in writers[i]]),
                tuple([i for i, codes in writers.items() if code in codes]),
            )
            for code in self.codes
        }
        self._given = [(seen, answer, writers[i]) for i, seen, answer in given]

    @cached_property
    def _explains(self) -> dict[int, int]:
        return _likelihoods(self._given, self.codes)

    def beliefs(self, priors: Priors) -> list[Belief]:
        """The posterior of each code, the strongest first."""
        chances = [max(1, min(_PER - 1, round(priors.of(code) * _PER))) for code in self.codes]
        weights = {}
        for held, likelihood in self._explains.items():
            prior = prod(chance if held >> k & 1 else _PER - chance for k, chance in enumerate(chances))
            weights[held] = prior * likelihood
        total = sum(weights.values())
        found = []
        for k, code in enumerate(self.codes):
            held_by = sum(weight for held, weight in weights.items() if held >> k & 1)
            found.append(Belief(code, Fraction(held_by, total), *self._shown[code]))
        return sorted(found, key=lambda one: (-one.belief, one.code))


def _writers(seen: Seen, answer: Given) -> frozenset[str]:
    """The codes that write an answer."""
    if answer.picked is not None:
        return answer.picked & ENTRIES.keys()
    if answer.value == seen.right:
        return frozenset([code for code, written in seen.forms.items() if written == answer.written])
    return frozenset([code for code, wrong in seen.reveals.items() if wrong == answer.value])


def _candidates(writers: Sequence[frozenset[str]]) -> list[str]:
    """The codes that explain an answer, those that explain more and are met more often first."""
    counts = Counter(code for codes in writers for code in codes)
    return sorted(counts, key=lambda code: (-ENTRIES[code].often * counts[code], code))[:MOST_CODES]


# A set of codes is a whole number here: the bit 1 << k stands for the code of index k.


def _likelihoods(answers: Sequence[tuple[Seen, Given, frozenset[str]]], codes: Sequence[str]) -> dict[int, int]:
    """How well each set of codes explains the answers, as a whole number; only their proportions count.

    Answers that say the same of every set are counted, so that a year of them costs little more than a week.
    """
    alike = Counter(one for seen, answer, writers in answers for one in _said(seen, answer, writers, codes))
    sets = [
        sum(1 << k for k in held)
        for size in range(min(MOST_HELD, len(codes)) + 1)
        for held in combinations(range(len(codes)), size)
    ]
    found = dict.fromkeys(sets, 1)
    for can in {one.can for one in alike}:
        said = [(one, times) for one, times in alike.items() if one.can == can]
        chances = {
            held: prod(one.chance(held) ** times for one, times in said) for held in {held & can for held in sets}
        }
        for held in sets:
            found[held] *= chances[held & can]
    return found


class _Said(NamedTuple):
    """What an answer says, or the form of a right one: its chance without a misconception is *plain* of *whole*; *can* are the codes
    that can show in it, *writes* those that write it."""

    plain: int
    whole: int
    can: int
    writes: int

    def chance(self, held: int) -> int:
        """Its chance of *whole* where the codes *held* are."""
        can, writes = (held & self.can).bit_count(), (held & self.writes).bit_count()
        return self.plain // 4 + (3 * self.whole // 4) * writes // can if can else self.plain


def _said(seen: Seen, answer: Given, writers: frozenset[str], codes: Sequence[str]) -> Iterator[_Said]:
    right = answer.value == seen.right
    places = 1 if right else len(seen.slips) + 1
    writes = _bits(codes, writers)
    # What a teacher has picked could show, whatever the core thinks of it.
    yield _Said(
        552 if right else 48,
        600 * places,
        _bits(codes, seen.reveals) | (0 if right else writes),
        0 if right else writes,
    )
    if right and (seen.forms or writes):
        yield _Said(48 if answer.form_fault else 552, 600, _bits(codes, seen.forms) | writes, writes)


def _bits(codes: Sequence[str], chosen: Container[str]) -> int:
    return sum(1 << k for k, code in enumerate(codes) if code in chosen)
