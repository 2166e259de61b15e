"""What a pupil holds: how probable each misconception is after all her answers to a set.

Let C be the codes that explain at least one of her answers, at most `MOST_CODES` of them, those met more often first. She holds a set
H of at most `MOST_HELD` codes of C. With A the codes of H whose wrong answer shows in problem i, and n slip answers known for it:

    P(y | A) = SHOWS * (codes of A that write y) / |A| + (1 - SHOWS) * P(y | nothing)      where A is not empty
    P(y | nothing) = 1 - SLIPS for the right value, SLIPS / (n + 1) for each slip answer and for anything else

A code that gives the right answer here (hidden) changes nothing. Codes on form act on the form of a right value alone, in the same way.
H is weighed by the product of its codes' priors, and of what the others of C are not. The posterior is summed over all sets, at most 299.
All of it is exact: every factor of a problem is taken times 600 (n + 1), which makes it a whole number.

`SHOWS`, `SLIPS`, `PSEUDO_COUNT` and the priors are common practice; no published figures are known to us.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from itertools import combinations

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
    """An answer as the model sees it: its *value* (None where it is not one number), its text, and whether its form is at fault."""

    value: Fraction | None
    written: str
    form_fault: bool = False


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
    given = [(i, problems[i], answer) for i, answer in enumerate(answers) if answer is not None]
    codes = _candidates([(seen, answer) for _, seen, answer in given])
    weights = _weights(given, codes, priors or Priors())
    total = sum(weights.values())
    found = []
    for code in codes:
        held = sum(weight for codes_held, weight in weights.items() if code in codes_held)
        could = tuple([i for i, seen, _ in given if code in seen.reveals or code in seen.forms])
        did = tuple([i for i, seen, answer in given if _writes(code, seen, answer)])
        found.append(Belief(code, Fraction(held, total), could, did))
    return sorted(found, key=lambda one: (-one.belief, one.code))


def beliefs_of_class(problems: Sequence[Seen], pupils: Mapping[str, Sequence[Given | None]]) -> dict[str, list[Belief]]:
    """The beliefs about each pupil, with the shares of the class as they are after a first look."""
    first = {alias: beliefs(problems, answers) for alias, answers in pupils.items()}
    there = [alias for alias, answers in pupils.items() if any(answer is not None for answer in answers)]
    codes = {one.code for alias in there for one in first[alias]}
    shares = {
        code: sum([one.belief for alias in there for one in first[alias] if one.code == code], Fraction(0)) / len(there)
        for code in codes
    }
    # The catalogue has many codes; one that no answer of the class speaks for keeps its weight.
    priors = Priors(shares, len(there))
    return {alias: beliefs(problems, answers, priors) for alias, answers in pupils.items()}


def _candidates(given: Sequence[tuple[Seen, Given]]) -> list[str]:
    """The codes that explain an answer, those that explain more and are met more often first."""
    counts: dict[str, int] = {}
    for seen, answer in given:
        for code in (*seen.reveals, *seen.forms):
            if _writes(code, seen, answer):
                counts[code] = counts.get(code, 0) + 1
    return sorted(counts, key=lambda code: (-ENTRIES[code].often * counts[code], code))[:MOST_CODES]


def _writes(code: str, seen: Seen, answer: Given) -> bool:
    """Whether an answer is what a code writes in a problem."""
    if answer.value is not None and seen.reveals.get(code) == answer.value:
        return True
    return answer.value == seen.right and seen.forms.get(code) == answer.written


def _weights(
    given: Sequence[tuple[int, Seen, Given]], codes: Sequence[str], priors: Priors
) -> dict[tuple[str, ...], int]:
    """The weight of each set of codes after the answers, as a whole number; only their proportions count."""
    chance = {code: max(1, min(_PER - 1, round(priors.of(code) * _PER))) for code in codes}
    weights: dict[tuple[str, ...], int] = {}
    for size in range(min(MOST_HELD, len(codes)) + 1):
        for held in combinations(codes, size):
            weight = 1
            for code in codes:
                weight *= chance[code] if code in held else _PER - chance[code]
            for _, seen, answer in given:
                weight *= _factor(seen, answer, held)
            weights[held] = weight
    return weights


def _factor(seen: Seen, answer: Given, held: Sequence[str]) -> int:
    """600 (n + 1) times the probability of an answer, and 600 times that of the form of a right one; whole numbers."""
    places = len(seen.slips) + 1
    right = answer.value == seen.right
    plain = 552 * places if right else 48
    made = _mixed(plain, 600 * places, [seen.reveals[code] == answer.value for code in held if code in seen.reveals])
    if not right or not seen.forms:
        return made * 600
    return made * _mixed(
        48 if answer.form_fault else 552,
        600,
        [seen.forms[code] == answer.written for code in held if code in seen.forms],
    )


def _mixed(plain: int, whole: int, writes: Sequence[bool]) -> int:
    """What is there without a misconception, and what with those that can show: for each of them whether it *writes* the answer."""
    if not writes:
        return plain
    return plain // 4 + (3 * whole // 4) * sum(writes) // len(writes)
