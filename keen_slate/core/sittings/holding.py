"""A class's answers as the model of beliefs sees them, what cannot be told apart by a set, and groups of pupils for
what comes next.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import combinations, zip_longest

from ..judging.beliefs import LIKELY, PERHAPS, Belief, Evidence, Given, beliefs_of_class
from ..judging.misconceptions.registry import ENTRIES
from .judge import given_of, judged
from .question import Asked

MOST_GROUPS = 4
_MOST_MIXED = 2
READY = Fraction(3, 4)  # of the answers right, and a pupil of whom nothing is likely is ready to go on


@dataclass(frozen=True, slots=True)
class Group:
    """Pupils who hold the same: the *codes*, which problem (by index) to *show* them, and the *rungs* and
    *denominators* of a ladder.

    Without codes they are ready to go on.
    """

    codes: tuple[str, ...]
    pupils: tuple[str, ...]
    show: int | None
    rungs: tuple[str, ...]
    denominators: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class Held:
    """What the pupils of a class hold: *beliefs* by alias, pairs of codes that the problems *cannot_tell* apart, and
    *groups*.

    *unclear* are those with many wrong answers that nothing explains: they are to be asked.
    """

    beliefs: Mapping[str, tuple[Belief, ...]]
    cannot_tell: Mapping[str, tuple[tuple[str, str], ...]]
    groups: tuple[Group, ...]
    unclear: tuple[str, ...]


Moves = Mapping[str, Sequence[str]]  # the codes of the group that a pupil was moved to by hand


def believe(asked: Sequence[Asked], pupils: Mapping[str, Sequence[Given | None]], moves: Moves | None = None) -> Held:
    """What each pupil of a class holds after her answers to what was *asked*; *moves* change her group."""
    seen = [one.seen for one in asked]
    evidence = {alias: Evidence(seen, answers) for alias, answers in pupils.items()}
    return holding(asked, pupils, beliefs_of_class(evidence), moves or {})


def given_by(asked: Sequence[Asked], wrote: Sequence[str | None]) -> list[Given | None]:
    """What a pupil *wrote* to the problems that were asked; what is not told after the last one is not there."""
    return [given_of(judged(one.question, written), one.seen) for one, written in zip_longest(asked, wrote)]


def holding(
    asked: Sequence[Asked],
    given: Mapping[str, Sequence[Given | None]],
    found: Mapping[str, Sequence[Belief]],
    moves: Moves,
    still: Mapping[str, Sequence[Given | None]] | None = None,
) -> Held:
    """What each pupil holds by what was *found* of her after the answers *given*.

    *still* are those of her answers that speak of what comes next, where some do not any more.
    """
    told = {alias: tuple([one for one in every if one.belief >= PERHAPS]) for alias, every in found.items()}
    alike = {alias: _alike(asked, given[alias], found[alias]) for alias in given}
    groups, unclear = _groups(asked, still or given, found, moves)
    return Held(told, alike, groups, unclear)


def _alike(
    asked: Sequence[Asked], given: Sequence[Given | None], found: Sequence[Belief]
) -> tuple[tuple[str, str], ...]:
    """Pairs of codes, one of them worth speaking of, that write the same in every problem that was answered."""
    there = [one.seen for one, answer in zip(asked, given, strict=True) if answer is not None]
    spoken = [one.code for one in found if one.belief >= Fraction(1, 10)]
    return tuple([
        (a, b)
        for a, b in combinations(sorted(spoken), 2)
        if all(one.reveals.get(a) == one.reveals.get(b) and one.forms.get(a) == one.forms.get(b) for one in there)
    ])  # fmt: skip


def mixed_up(held: Held, group: Group) -> list[str]:
    """The codes, two at most, that those of a *group* could not be told from, for most of its pupils."""
    mixed = [
        code
        for pupil in group.pupils
        for pair in held.cannot_tell[pupil]
        if set(pair) & set(group.codes)
        for code in pair
        if code not in group.codes
    ]
    return [code for code in dict.fromkeys(mixed) if 2 * mixed.count(code) > len(group.pupils)][:_MOST_MIXED]


# Groups ---------------------------------------------------------------------------------------------------------------


def _groups(
    asked: Sequence[Asked],
    given: Mapping[str, Sequence[Given | None]],
    found: Mapping[str, Sequence[Belief]],
    moves: Moves,
) -> tuple[tuple[Group, ...], tuple[str, ...]]:
    """At most four groups of two pupils or more, by what they hold, the last one ready to go on; and who is in none."""
    held: dict[frozenset[str], list[str]] = {}
    ready: list[str] = []
    unclear: list[str] = []
    for alias, answers in given.items():
        if all(answer is None for answer in answers):
            continue
        codes = _codes_of(found[alias])
        right = _share_right(asked, answers)
        if not codes and right < READY:
            codes = frozenset([one.code for one in found[alias] if one.belief >= PERHAPS][:1])
        if codes:
            held.setdefault(codes, []).append(alias)
        else:
            (ready if right >= READY else unclear).append(alias)
    most = MOST_GROUPS - bool(ready)
    while len(held) > 1 and (len(held) > most or min(map(len, held.values())) < 2):
        _join_smallest(held)
    held[frozenset()] = ready
    _move(held, unclear, moves)
    made = [_group(codes, pupils, asked, given) for codes, pupils in held.items() if pupils]
    made.sort(key=lambda one: (not one.codes, -len(one.pupils)))
    return tuple(made), tuple(unclear)


def _move(held: Mapping[frozenset[str], list[str]], unclear: list[str], moves: Moves) -> None:
    """Put pupils where they were moved by hand; a group that is no more takes nobody."""
    for alias, codes in moves.items():
        target = held.get(frozenset(codes))
        there = [pupils for pupils in (*held.values(), unclear) if alias in pupils]
        if target is not None and there:
            there[0].remove(alias)
            target.append(alias)


def _codes_of(found: Sequence[Belief]) -> frozenset[str]:
    return frozenset([one.code for one in found if one.belief >= LIKELY])


def _share_right(asked: Sequence[Asked], answers: Sequence[Given | None]) -> Fraction:
    """How much of what a pupil has answered is right in value."""
    there = [(one.seen, answer) for one, answer in zip(asked, answers, strict=True) if answer is not None]
    return Fraction(sum(answer.value == one.right for one, answer in there), len(there))


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
    asked: Sequence[Asked],
    given: Mapping[str, Sequence[Given | None]],
) -> Group:
    ordered = tuple(sorted(codes, key=lambda code: (-ENTRIES[code].often, code)))
    shows = [sum(one.can_show(code) for code in codes) for one in asked]
    wrong = [
        asked[i].rung
        for alias in pupils
        for i, answer in enumerate(given[alias])
        if codes and answer is not None and (answer.value != asked[i].seen.right or answer.form_fault)
    ]
    dens = {d for one in asked for d in one.denominators}
    return Group(
        ordered, tuple(pupils), shows.index(max(shows)) if any(shows) else None,
        tuple(sorted(set(wrong), key=lambda rung: (-wrong.count(rung), rung))[:3]), tuple(sorted(dens)),
    )  # fmt: skip
