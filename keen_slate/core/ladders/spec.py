"""What a ladder is to be like: rungs with counts, limits on the numbers, misconceptions it has to reveal."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from fractions import Fraction
from typing import Any

from ..errors import CoreError, ReadError
from ..expressions.tree import Operator, value
from ..grading.rungs import RUNGS
from ..judging.misconceptions.registry import ENTRIES
from ..limits import MAX_CHARACTERS
from ..reading.reader import read
from ..ways.settings import Ways
from .shapes import SHAPES

AVOIDED = {
    "negatives": "numbers below zero",
    "simplification": "answers that must be simplified",
    "whole-answers": "answers that are whole numbers",
    "large-pictures": "pictures of more than 24 parts",
    "large-facts": "facts beyond 12 × 12",
}
MOST_PROBLEMS = 60
MOST_WHOLE = 999
MOST_PLACES = 3
LARGEST_DENOMINATOR = 100
LARGEST_SEED: int = 2**53  # as large as a whole number may be in JSON everywhere
DENOMINATORS = (2, 3, 4, 5, 6, 8, 10, 12)
OPERATIONS: tuple[Operator, ...] = ("+", "-", "×", "÷")
PLACES = (1, 2)
_ON_THE_WAY = frozenset("FMDO")  # families of rungs


class SpecError(CoreError):
    """A wish for a ladder that cannot be understood: *key* is the part of it that is meant."""

    def __init__(self, message: str, key: str, hint: str) -> None:
        super().__init__(message, 0, 0, hint)
        self.key = key

    def as_dict(self) -> dict[str, str | int]:
        """The error object, with the key."""
        return super().as_dict() | {"key": self.key}


@dataclass(frozen=True, slots=True)
class TermLimits:
    """Limits on the terms as written and on the answer.

    *below* is the number that the answer stays under, *places* are the counts of digits that may stand after a point;
    with *lowest_terms* no term can be simplified as it is written, and *only* is one of `shapes.SHAPES` that all
    problems have.
    """

    denominators: tuple[int, ...] = DENOMINATORS
    largest_common: int | None = None
    largest_whole: int = 12
    below: Fraction | None = None
    avoid: frozenset[str] = frozenset()
    operations: frozenset[Operator] = frozenset(OPERATIONS)
    lowest_terms: bool = False
    places: tuple[int, ...] = PLACES
    only: str | None = None

    @property
    def narrows_terms(self) -> bool:
        """Whether not every operation, or not every fraction, may be written."""
        return self.lowest_terms or len(self.operations) < len(OPERATIONS)

    def with_denominators(self, denominators: tuple[int, ...]) -> TermLimits:
        """The same limits with other denominators."""
        return replace(self, denominators=denominators)


@dataclass(frozen=True, slots=True)
class Spec:
    """A wish for a ladder. *ways* are the class's: they decide which misconceptions a problem reveals.

    With *likes_first* the problems of each rung come in the order: one denominator, one fits the other, both change.
    """

    rungs: Mapping[str, int]
    limits: TermLimits = field(default_factory=TermLimits)
    targets: tuple[str, ...] = ()
    separate: bool = False
    seed: int = 0
    label: str | None = None
    ways: Ways = field(default_factory=Ways)
    likes_first: bool = False

    @property
    def slots(self) -> tuple[str, ...]:
        """The rung of each problem, in the order of the ladder."""
        return tuple([rung for rung in RUNGS for _ in range(self.rungs.get(rung, 0))])

    def within(self, **changed: Any) -> Spec:
        """The same wish with other limits."""
        return replace(self, limits=replace(self.limits, **changed))


def between(first: str, last: str, steps: int) -> dict[str, int]:
    """Counts for *steps* problems from the rung *first* to *last*: each rung once if they fit, spread evenly if not.

    Rungs beside the way of adding and subtracting are passed only where the way begins or ends among them.

    >>> between("F4", "M4", 8)
    {'F4': 1, 'F5': 1, 'F6': 1, 'F7': 1, 'F9': 1, 'M1': 1, 'M2': 1, 'M4': 1}
    >>> between("F1", "F3", 7), between("F1", "F5", 3)
    ({'F1': 3, 'F2': 2, 'F3': 2}, {'F1': 1, 'F3': 1, 'F5': 1})
    """
    order = list(RUNGS)
    passed = _ON_THE_WAY | {first[0], last[0]}
    return spread([rung for rung in order[order.index(first) : order.index(last) + 1] if rung[0] in passed], steps)


def spread(rungs: Sequence[str], steps: int) -> dict[str, int]:
    """So many *steps* over *rungs* (in the order of their climb) as evenly as they go, the first and the last among
    them.

    >>> spread(("F4", "F5", "F6"), 4), spread(("D1", "D2", "D3", "D4"), 2)
    ({'F4': 2, 'F5': 1, 'F6': 1}, {'D1': 1, 'D4': 1})
    """
    n = len(rungs)
    if steps <= n:
        return dict.fromkeys([rungs[i * (n - 1) // max(1, steps - 1)] for i in range(steps)], 1)
    return {rung: steps // n + (i < steps % n) for i, rung in enumerate(rungs)}


def read_spec(given: object, ways: Ways | None = None) -> Spec:
    """The wish that the JSON value *given* spells (docs/formats.md). Raises `SpecError`."""
    if not isinstance(given, Mapping):
        raise SpecError("A ladder is asked for with an object.", "", 'Begin with {"rungs": {"M7": 2}}.')
    known = {"rungs", "from", "to", "steps", "answer_below", "denominators", "largest_common_denominator",
        "largest_whole",
             "avoid", "targets", "separate", "seed", "label", "operations", "lowest_terms", "places", "likes_first",
             "only"}  # fmt: skip
    for key in given:
        if key not in known:
            raise SpecError(f"{key!r} is no part of a ladder.", str(key), f"It may have {', '.join(sorted(known))}.")
    limits = TermLimits(
        denominators=_denominators(given.get("denominators")),
        largest_common=_whole(given, "largest_common_denominator", 2, 10**6, None),
        largest_whole=_whole(given, "largest_whole", 0, MOST_WHOLE, 12) or 0,
        below=_below(given.get("answer_below")),
        avoid=frozenset(_names(given.get("avoid"), "avoid", AVOIDED)),
        operations=_operations(given.get("operations")),
        lowest_terms=_yes_or_no(given, "lowest_terms"),
        places=_places(given.get("places")),
        only=next(iter(_names(_listed(given.get("only")), "only", SHAPES)), None),
    )
    label = given.get("label")
    if label is not None and not isinstance(label, str):
        raise SpecError("A label is a word.", "label", 'Write "label": "ft", or null for none.')
    spec = Spec(
        _rungs(given), limits, _names(given.get("targets"), "targets", ENTRIES), _yes_or_no(given, "separate"),
        _whole(given, "seed", -LARGEST_SEED, LARGEST_SEED, 0) or 0, label or None, ways or Ways(),
        _yes_or_no(given, "likes_first"),
    )  # fmt: skip
    if spec.label:
        _check_label(spec.label)
    return spec


def _listed(found: object) -> object:
    return None if found is None else [found]


def _yes_or_no(given: Mapping[str, Any], key: str) -> bool:
    found = given.get(key)
    if found is None:
        return False
    if not isinstance(found, bool):
        raise SpecError(f"{key} is true or false.", key, f'Write "{key}": true.')
    return found


def _operations(found: object) -> frozenset[Operator]:
    if found is None:
        return frozenset(OPERATIONS)
    signs = {"−": "-", "*": "×", "·": "×", "/": "÷", ":": "÷"}
    given = [signs.get(one, one) for one in found if isinstance(one, str)] if isinstance(found, (list, tuple)) else []
    chosen = frozenset([operation for operation in OPERATIONS if operation in given])
    if not chosen or not set(given) <= chosen or len(given) != len(found):  # type: ignore[arg-type]  # a list, as just seen
        raise SpecError("The operations are a list of +, -, × and ÷.", "operations", 'Write "operations": ["+", "-"].')
    return chosen


def _places(found: object) -> tuple[int, ...]:
    """One number is the most that there may be; a list names each count that is allowed."""
    if found is None:
        return PLACES
    most = found if isinstance(found, int) and not isinstance(found, bool) else None
    listed = list(range(1, min(most, MOST_PLACES + 1) + 1)) if most is not None else found
    good = isinstance(listed, (list, tuple)) and all(
        isinstance(one, int) and not isinstance(one, bool) and 1 <= one <= MOST_PLACES for one in listed
    )
    if not good or not listed:
        raise SpecError(
            f"places is a number from 1 to {MOST_PLACES}, or a list of them.", "places", 'Write "places": 2, or [2].'
        )
    return tuple(sorted(set(listed)))  # type: ignore[call-overload]  # a list of whole numbers, as just seen


def _whole(given: Mapping[str, Any], key: str, low: int, high: int, missing: int | None) -> int | None:
    found = given.get(key)
    if found is None:
        return missing
    if not isinstance(found, int) or isinstance(found, bool) or not low <= found <= high:
        raise SpecError(f"{key} is a whole number from {low} to {high}.", key, f'Write "{key}": {max(low, 12)}.')
    return found


def _denominators(found: object) -> tuple[int, ...]:
    if found is None:
        return DENOMINATORS
    good = isinstance(found, (list, tuple)) and all(
        isinstance(d, int) and not isinstance(d, bool) and 2 <= d <= LARGEST_DENOMINATOR for d in found
    )
    if not good or not found:
        raise SpecError(
            f"The denominators are a list of whole numbers from 2 to {LARGEST_DENOMINATOR}.",
            "denominators", 'Write "denominators": [2, 3, 4, 6].',
        )  # fmt: skip
    return tuple(sorted(set(found)))  # type: ignore[call-overload]  # a list of whole numbers, as just seen


def _below(found: object) -> Fraction | None:
    if found is None:
        return None
    try:
        if isinstance(found, bool) or not isinstance(found, (int, str)):
            raise ReadError("", 0, 0, "")
        below = value(read(str(found)[:MAX_CHARACTERS]).expr)
        if below > 0:
            return below
    except (CoreError, ValueError, ZeroDivisionError):
        pass
    raise SpecError("answer_below is a number above 0.", "answer_below", 'Write "answer_below": 20 or "7 1/2".')


def _names(found: object, key: str, known: Mapping[str, object]) -> tuple[str, ...]:
    if found is None:
        return ()
    if not isinstance(found, (list, tuple)) or not all(isinstance(name, str) for name in found):
        raise SpecError(f"{key} is a list of codes.", key, f'Write "{key}": ["{next(iter(known))}"].')
    for name in found:
        if name not in known:
            raise SpecError(f"{key} does not know {name!r}.", key, f"It knows {', '.join(known)}.")
    return tuple(dict.fromkeys(found))


def _rungs(given: Mapping[str, Any]) -> dict[str, int]:
    if "rungs" not in given:
        return _from_to(given)
    found = given["rungs"]
    if not isinstance(found, Mapping) or not found:
        raise SpecError("The rungs are named with a count each.", "rungs", 'Write "rungs": {"M7": 2, "M8": 3}.')
    for rung, count in found.items():
        if rung not in RUNGS:
            raise SpecError(f"There is no rung {rung!r}.", "rungs", f"The rungs are {', '.join(RUNGS)}.")
        if not isinstance(count, int) or isinstance(count, bool) or not 0 <= count <= MOST_PROBLEMS:
            raise SpecError(f"{rung} needs a count from 0 to {MOST_PROBLEMS}.", "rungs", f'Write "{rung}": 2.')
    wanted = {rung: found[rung] for rung in RUNGS if found.get(rung)}
    if not 1 <= sum(wanted.values()) <= MOST_PROBLEMS:
        raise SpecError(f"A ladder has 1 to {MOST_PROBLEMS} problems.", "rungs", 'Write "rungs": {"M7": 2, "M8": 3}.')
    return wanted


def _from_to(given: Mapping[str, Any]) -> dict[str, int]:
    first, last = str(given.get("from")), str(given.get("to"))
    order = list(RUNGS)
    known = first in order and last in order
    if not known or order.index(first) > order.index(last):
        hint = 'Write "rungs": {"M7": 2}, or "from": "F4", "to": "M4", "steps": 8.'
        raise SpecError("The ladder needs rungs with counts, or a first and a last rung.", "rungs", hint)
    return between(first, last, _whole(given, "steps", 1, MOST_PROBLEMS, 8) or 8)


def _check_label(label: str) -> None:
    try:
        if read(f"1/2 + 1/3 {label}").label == label:
            return
    except CoreError:
        pass
    raise SpecError(f"{label[:40]!r} cannot be a label.", "label", "A label is a unit, like ft, km or %.")
