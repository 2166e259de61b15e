"""What a pupil holds: how probable each misconception is after all her answers to a set.

Let C be the codes that explain at least one of her answers, at most `MOST_CODES` of them, those met more often first.
She holds a set H of at most `MOST_HELD` codes of C. With A the codes of H whose wrong answer shows in problem i, and n
slip answers known for it:

    P(y | A) = SHOWS * (codes of A that write y) / |A| + (1 - SHOWS) * P(y | nothing)      where A is not empty
    P(y | nothing) = 1 - SLIPS for the right value, SLIPS / (n + 1) for each slip answer and for anything else

A code that gives the right answer here (hidden) changes nothing. Codes on form act on the form of a right value alone,
in the same way. H is weighed by the product of its codes' priors, and of what the others of C are not. The posterior is
summed over all sets, at most 299. All of it is exact: every factor of a problem is taken times 600 (n + 1), or times
600 for a right answer, which makes it a whole number.

`SHOWS`, `SLIPS`, `PSEUDO_COUNT` and the priors are common practice; no published figures are known to us.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from functools import cached_property
from itertools import combinations
from math import lcm, prod
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
# Chances are counted in so many parts that each is whole: SHOWS and SLIPS are, and SHOWS shared among the codes that
# are held.
_PARTS = SHOWS.denominator * SLIPS.denominator * lcm(*range(1, MOST_HELD + 1))
_WRONG = int(SLIPS * _PARTS)


@dataclass(frozen=True)
class Seen:
    """A problem as the model sees it: the wrong value of each code that shows, what each code on form writes, the right
    value, slips.
    """

    right: Fraction
    reveals: Mapping[str, Fraction]
    forms: Mapping[str, str]
    slips: frozenset[Fraction]

    def can_show(self, code: str) -> bool:
        """Whether a code can be seen in the answer, or in the form of it."""
        return code in self.reveals or code in self.forms

    @cached_property
    def writers(self) -> dict[Fraction, frozenset[str]]:
        """The codes that write each wrong value."""
        values = set(self.reveals.values())
        return {value: frozenset([code for code, wrong in self.reveals.items() if wrong == value]) for value in values}


@dataclass(frozen=True, slots=True)
class Given:
    """An answer as the model sees it: its *value* (None where it is not one number), its text, and whether its form is
    at fault.

    *picked* are the codes that its teacher says have written it; None where she has said nothing.
    """

    value: Fraction | None
    written: str
    form_fault: bool = False
    picked: frozenset[str] | None = None


@dataclass(frozen=True, slots=True)
class Belief:
    """How probable it is that a pupil holds *code*: the problems (by index) in which it *could* show, and those in
    which it *did*.
    """

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
    """How probable a code is before a pupil's answers are seen: its weight in the catalogue, moved towards its *shares*
    in a class.
    """

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
    """The beliefs about the codes that explain at least one answer, the strongest first.

    None stands for a blank, or for nobody there.
    """
    return Evidence(problems, answers).beliefs(priors or Priors())


def beliefs_of_class(evidence: Mapping[str, Evidence]) -> dict[str, list[Belief]]:
    """The beliefs about each pupil by the *evidence* of her answers, with the shares of the class as they are after a
    first look.
    """
    there = [one for one in evidence.values() if one.told]
    shares: dict[str, Fraction] = {}
    for one in there:
        for belief in one.first:
            shares[belief.code] = shares.get(belief.code, Fraction(0)) + belief.belief
    # The catalogue has many codes; one that no answer of the class speaks for keeps its weight.
    priors = Priors({code: share / len(there) for code, share in shares.items()}, len(there))
    return {alias: one.beliefs(priors) for alias, one in evidence.items()}


class Evidence:
    """What a pupil's *answers* to *problems* say of each code, before anything is believed; the costly parts are found
    once.
    """

    def __init__(self, problems: Sequence[Seen], answers: Sequence[Given | None]) -> None:
        pairs = enumerate(zip(problems, answers, strict=False))
        self.told = [_Evident.of(i, seen, answer) for i, (seen, answer) in pairs if answer is not None]
        self._until: dict[int, list[Belief]] = {}

    @cached_property
    def codes(self) -> list[str]:
        """The codes that explain an answer."""
        return _candidates([told.writers for told in self.told])

    @cached_property
    def shown(self) -> dict[str, tuple[tuple[int, ...], tuple[int, ...]]]:
        """The answers (by index) in which each code could show, and those in which it did."""
        could: dict[str, list[int]] = {code: [] for code in self.codes}
        did: dict[str, list[int]] = {code: [] for code in self.codes}
        for told in self.told:
            for code in {*told.seen.reveals, *told.seen.forms, *told.writers} & could.keys():
                could[code].append(told.at)
            for code in told.writers & did.keys():
                did[code].append(told.at)
        return {code: (tuple(could[code]), tuple(did[code])) for code in self.codes}

    @cached_property
    def first(self) -> list[Belief]:
        """The beliefs by the catalogue's weights alone."""
        return self.beliefs(Priors())

    @cached_property
    def _explains(self) -> dict[int, int]:
        return _likelihoods(self.told, self.codes)

    def until(self, end: int) -> list[Belief]:
        """The beliefs, by the catalogue's weights, after the first *end* problems."""
        if end not in self._until:
            before = Evidence((), ())
            before.told = [told for told in self.told if told.at < end]
            self._until[end] = before.first
        return self._until[end]

    def beliefs(self, priors: Priors) -> list[Belief]:
        """The posterior of each code, the strongest first."""
        chances = [max(1, min(_PER - 1, round(priors.of(code) * _PER))) for code in self.codes]
        none = prod([_PER - chance for chance in chances])
        total = 0
        held_by = [0] * len(chances)
        for held, likelihood in self._explains.items():
            there = [k for k in range(len(chances)) if held >> k & 1]
            weight = none // prod([_PER - chances[k] for k in there]) * prod([chances[k] for k in there]) * likelihood
            total += weight
            for k in there:
                held_by[k] += weight
        found = [Belief(code, Fraction(held_by[k], total), *self.shown[code]) for k, code in enumerate(self.codes)]
        return sorted(found, key=lambda one: (-one.belief, one.code))


class _Evident(NamedTuple):
    """An answer with its problem (by its index, *at*), whether it is *right* in value, and the codes that write it."""

    at: int
    seen: Seen
    answer: Given
    right: bool
    writers: frozenset[str]

    @classmethod
    def of(cls, at: int, seen: Seen, answer: Given) -> _Evident:
        right = answer.value == seen.right
        return cls(at, seen, answer, right, _writers(seen, answer, right))


def _writers(seen: Seen, answer: Given, right: bool) -> frozenset[str]:
    """The codes that write an answer."""
    if answer.picked is not None:
        return answer.picked & ENTRIES.keys()
    if right:
        return frozenset([code for code, written in seen.forms.items() if written == answer.written])
    return seen.writers.get(answer.value, frozenset()) if answer.value is not None else frozenset()


def _candidates(writers: Sequence[frozenset[str]]) -> list[str]:
    """The codes that explain an answer, those that explain more and are met more often first."""
    counts = Counter(code for codes in writers for code in codes)
    return sorted(counts, key=lambda code: (-ENTRIES[code].often * counts[code], code))[:MOST_CODES]


# A set of codes is a whole number here: the bit 1 << k stands for the code of index k.


def _likelihoods(every: Sequence[_Evident], codes: Sequence[str]) -> dict[int, int]:
    """How well each set of codes explains the answers, as a whole number; only their proportions count.

    Answers that say the same of every set are counted, so that a year of them costs little more than a week.
    """
    bits = {code: 1 << k for k, code in enumerate(codes)}
    alike = Counter([one for told in every for one in _said(told, bits)])
    sets = [
        sum(1 << k for k in held)
        for size in range(min(MOST_HELD, len(codes)) + 1)
        for held in combinations(range(len(codes)), size)
    ]
    found = dict.fromkeys(sets, 1)
    for can, tables in _by_what_can_show(alike).items():
        chances: dict[int, int] = {}
        for held in sets:
            there = held & can
            if there not in chances:
                many = there.bit_count()
                chances[there] = prod([one[many][(there & writes).bit_count()] for writes, one in tables.items()])
            found[held] *= chances[there]
    return found


_Table = list[list[int]]  # a chance by how many codes that can show are held, and how many of them write the answer


def _by_what_can_show(alike: Mapping[_Said, int]) -> dict[int, dict[int, _Table]]:
    """The chances of answers together: those of the same codes that can show, and of the same that write them, in one
    table.
    """
    found: dict[int, dict[int, _Table]] = {}
    for one, times in alike.items():
        table = found.setdefault(one.can, {}).setdefault(
            one.writes, [[1] * (MOST_HELD + 1) for _ in range(MOST_HELD + 1)]
        )
        for can in range(MOST_HELD + 1):
            for writes in range(can + 1):
                table[can][writes] *= one.chance(can, writes) ** times
    return found


class _Said(NamedTuple):
    """What an answer says, or the form of a right one: its chance without a misconception is *plain* of *whole*; *can*
    are the codes that can show in it, *writes* those that write it.
    """

    plain: int
    whole: int
    can: int
    writes: int

    def chance(self, can: int, writes: int) -> int:
        """Its chance of *whole* where so many codes that *can* show are held, and so many of them write it."""
        if not can:
            return self.plain
        shows, of = SHOWS.numerator, SHOWS.denominator
        return self.plain * (of - shows) // of + self.whole * shows // of * writes // can


def _said(told: _Evident, codes: Mapping[str, int]) -> Iterator[_Said]:
    seen, right = told.seen, told.right
    places = 1 if right else len(seen.slips) + 1
    writes = _bits(codes, told.writers)
    # What a teacher has picked could show, whatever the core thinks of it.
    can = _bits(codes, seen.reveals) | (0 if right else writes)
    yield _Said(_PARTS - _WRONG if right else _WRONG, _PARTS * places, can, 0 if right else writes)
    if right and (seen.forms or writes):
        can = _bits(codes, seen.forms) | writes
        yield _Said(_WRONG if told.answer.form_fault else _PARTS - _WRONG, _PARTS, can, writes)


def _bits(codes: Mapping[str, int], chosen: Collection[str]) -> int:
    return sum([codes[code] for code in chosen if code in codes])
