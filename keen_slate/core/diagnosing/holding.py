"""A class's answers as the model of beliefs sees them, what cannot be told apart by a set, and groups of pupils for what comes next."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import combinations, zip_longest

from ..expressions.text import DecimalMark, text
from ..expressions.tree import Equation, value
from ..expressions.walks import denominators
from ..judging.beliefs import LIKELY, PERHAPS, Belief, Given, Seen, beliefs_of_class
from ..judging.misconceptions.registry import ENTRIES
from ..judging.slips import slips
from ..reading.problem import labelled
from ..ways.settings import Ways
from ..worked import Worked, work_text
from .answers import form_fault, read_answer

MOST_GROUPS = 4
READY = Fraction(3, 4)  # of the answers right, and a pupil of whom nothing is likely is ready to go on


@dataclass(frozen=True, slots=True)
class Group:
    """Pupils who hold the same: the *codes*, which problem (by index) to *show* them, and the *rungs* and *denominators* of a ladder.

    Without codes they are ready to go on.
    """

    codes: tuple[str, ...]
    pupils: tuple[str, ...]
    show: int | None
    rungs: tuple[str, ...]
    denominators: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class Held:
    """What the pupils of a class hold: *beliefs* by alias, pairs of codes that the problems *cannot_tell* apart, and *groups*."""

    beliefs: Mapping[str, tuple[Belief, ...]]
    cannot_tell: Mapping[str, tuple[tuple[str, str], ...]]
    groups: tuple[Group, ...]


def seen_of(worked: Worked) -> Seen:
    """A worked problem as the model sees it; one whose answer is no single number shows nothing."""
    working = worked.working
    if isinstance(working.answer, Equation):
        return Seen(working.value, {}, {}, frozenset())
    reveals = {one.entry.code: one.answer_value for one in worked.likely if one.status == "reveals"}
    forms = {
        one.entry.code: labelled(text(one.wrong.answer), working.answer_label if one.wrong.labelled else None)
        for one in worked.likely
        if one.status == "form"
    }
    wrong = frozenset([slip.value for slip in slips(working)]) - {working.value}
    return Seen(working.value, reveals, forms, wrong)


def given_of(worked: Worked, written: str | None, mark: DecimalMark = ".") -> Given | None:
    """What a pupil wrote as the model sees it; None for a blank, and for who was not there."""
    if written is None or not written.strip():
        return None
    answer = read_answer(written, mark)
    if answer is None:
        return Given(None, written.strip())
    fault = form_fault(worked, answer, mark) if value(answer.number) == worked.working.value else None
    return Given(value(answer.number), labelled(text(answer.number), answer.label), fault is not None)


def believe(
    problems: Sequence[str], pupils: Mapping[str, Sequence[str | None]], ways: Ways, mark: DecimalMark = "."
) -> Held:
    """What each pupil of a class holds after her answers to *problems* (texts). Raises `CoreError` where a problem cannot be worked."""
    worked = [work_text(problem, ways, mark) for problem in problems]
    seen = [seen_of(one) for one in worked]
    given = {alias: given_by(worked, answers, mark) for alias, answers in pupils.items()}
    return holding(worked, seen, given, beliefs_of_class(seen, given))


def given_by(worked: Sequence[Worked], wrote: Sequence[str | None], mark: DecimalMark) -> list[Given | None]:
    """What a pupil wrote to *worked* problems; what is not told after the last one is not there."""
    return [given_of(one, written, mark) for one, written in zip_longest(worked, wrote)]


def holding(
    worked: Sequence[Worked],
    seen: Sequence[Seen],
    given: Mapping[str, Sequence[Given | None]],
    found: Mapping[str, Sequence[Belief]],
) -> Held:
    """What each pupil holds by what was *found* of her after the answers *given*."""
    told = {alias: tuple([one for one in every if one.belief >= PERHAPS]) for alias, every in found.items()}
    alike = {alias: _alike(seen, given[alias], found[alias]) for alias in given}
    return Held(told, alike, _groups(worked, seen, given, found))


def _alike(seen: Sequence[Seen], given: Sequence[Given | None], found: Sequence[Belief]) -> tuple[tuple[str, str], ...]:
    """Pairs of codes, one of them worth speaking of, that write the same in every problem that was answered."""
    asked = [one for one, answer in zip(seen, given, strict=True) if answer is not None]
    spoken = [one.code for one in found if one.belief >= Fraction(1, 10)]
    return tuple([
        (a, b)
        for a, b in combinations(sorted(spoken), 2)
        if all(one.reveals.get(a) == one.reveals.get(b) and one.forms.get(a) == one.forms.get(b) for one in asked)
    ])  # fmt: skip


# Groups ---------------------------------------------------------------------------------------------------------------


def _groups(
    worked: Sequence[Worked],
    seen: Sequence[Seen],
    given: Mapping[str, Sequence[Given | None]],
    found: Mapping[str, Sequence[Belief]],
) -> tuple[Group, ...]:
    """At most four groups of two pupils or more, by what they hold; the last one is ready to go on."""
    held: dict[frozenset[str], list[str]] = {}
    ready: list[str] = []
    for alias, answers in given.items():
        if all(answer is None for answer in answers):
            continue
        codes = _codes_of(found[alias], seen, answers)
        if codes:
            held.setdefault(codes, []).append(alias)
        else:
            ready.append(alias)
    most = MOST_GROUPS - bool(ready)
    while len(held) > 1 and (len(held) > most or min(map(len, held.values())) < 2):
        _join_smallest(held)
    made = [_group(codes, pupils, worked, seen, given) for codes, pupils in held.items()]
    made.sort(key=lambda one: -len(one.pupils))
    return (*made, Group((), tuple(ready), None, (), ())) if ready else tuple(made)


def _codes_of(found: Sequence[Belief], seen: Sequence[Seen], answers: Sequence[Given | None]) -> frozenset[str]:
    """What is likely of a pupil; where nothing is and she is not ready, what is most so."""
    likely = frozenset([one.code for one in found if one.belief >= LIKELY])
    if likely or not found:
        return likely
    written = [(one, answer) for one, answer in zip(seen, answers, strict=True) if answer is not None]
    right = sum(answer.value == one.right for one, answer in written)
    perhaps = [one.code for one in found if one.belief >= PERHAPS]
    return frozenset(perhaps[:1]) if Fraction(right, len(written)) < READY else frozenset()


def _join_smallest(held: dict[frozenset[str], list[str]]) -> None:
    """The smallest group goes to the one that shares most with it; together they are about what most of them hold."""
    smallest = min(held, key=lambda codes: (len(held[codes]), sorted(codes)))
    others = [codes for codes in held if codes != smallest]
    nearest = max(
        others,
        key=lambda codes: (Fraction(len(codes & smallest), len(codes | smallest)), len(held[codes]), sorted(codes)),
    )
    pupils = held.pop(nearest) + held.pop(smallest)
    shared = nearest & smallest or nearest
    held.setdefault(shared, []).extend(pupils)


def _group(
    codes: frozenset[str],
    pupils: Sequence[str],
    worked: Sequence[Worked],
    seen: Sequence[Seen],
    given: Mapping[str, Sequence[Given | None]],
) -> Group:
    ordered = tuple(sorted(codes, key=lambda code: (-ENTRIES[code].often, code)))
    shows = [len(codes & set(one.reveals)) for one in seen]
    wrong = [
        worked[i].features.rung
        for alias in pupils
        for i, answer in enumerate(given[alias])
        if answer is not None and answer.value != seen[i].right
    ]
    dens = {d for one in worked for d in denominators(one.working.problem.expr)}
    return Group(
        ordered, tuple(pupils), shows.index(max(shows)) if any(shows) else None,
        tuple(sorted(set(wrong), key=lambda rung: (-wrong.count(rung), rung))[:3]), tuple(sorted(dens)),
    )  # fmt: skip
