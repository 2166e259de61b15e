"""What changes from sitting to sitting: misconceptions that are no longer there, rungs reached, and what comes back on
which day.

All of it is common practice: three chances without it, two right answers of a rung on two days, a return after 2, 7 and
21 days.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta
from itertools import zip_longest

from ..judging.beliefs import LIKELY, Belief, Evidence, Given, beliefs_of_class
from ..ladders.parallel import parallel
from .holding import Held, holding
from .question import Asked, Question, asked_of, explainer_of

CHANCES_WITHOUT = 3  # in which a misconception could have shown since it last did, and did not
RETURNS = (2, 7, 21)  # days
WARM_UP = 3  # problems


@dataclass(frozen=True, slots=True)
class SittingAnswers:
    """What a class wrote on a *day*: what was *asked*, and the answers of each pupil in its order."""

    day: date
    asked: tuple[Asked, ...]
    pupils: Mapping[str, Sequence[Given | None]]


@dataclass(frozen=True, slots=True)
class Mended:
    """A misconception that was likely, and has not shown in so many *chances* since its *last* day; *on* is the day of
    the third.
    """

    code: str
    last: date
    on: date
    chances: int


@dataclass(frozen=True, slots=True)
class Reached:
    """A rung of which the last answers were right on two days or more, *on* the second of them."""

    rung: str
    on: date


@dataclass(frozen=True, slots=True)
class Back:
    """What comes back: a code or a rung as *what*, for which *pupils*."""

    what: str
    pupils: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class OverTime:
    """What the pupils hold now, what they no longer do, the rungs that they reached, and what is due."""

    held: Held
    no_longer: Mapping[str, tuple[Mended, ...]]
    reached: Mapping[str, tuple[Reached, ...]]
    come_back: tuple[Back, ...]


@dataclass(frozen=True, slots=True)
class _Dated:
    """A problem that was asked on a *day*."""

    day: date
    asked: Asked


def until(sittings: Sequence[SittingAnswers], today: date) -> list[SittingAnswers]:
    """The *sittings* that there have been on the day *today*, in their order."""
    return sorted([one for one in sittings if one.day <= today], key=lambda one: one.day)


def evidence_of(sittings: Sequence[SittingAnswers], pupil: str) -> Evidence:
    """What a pupil's answers in all of some *sittings* say."""
    seen = [asked.seen for one in sittings for asked in one.asked]
    return Evidence(seen, answers_in_a_row(sittings, [pupil])[pupil])


def over_time(
    sittings: Sequence[SittingAnswers],
    today: date,
    returns: Sequence[int] = RETURNS,
    evidence: Callable[[Sequence[SittingAnswers], str], Evidence] = evidence_of,
) -> OverTime:
    """What a class's *sittings* say together on the day *today*; later ones are left out.

    *returns* are days after which things come back, *evidence* may know what a pupil's answers say from before.
    """
    there = until(sittings, today)
    dated = [_Dated(one.day, asked) for one in there for asked in one.asked]
    asked = [one.asked for one in dated]
    pupils = list(dict.fromkeys(alias for one in there for alias in one.pupils))
    given = answers_in_a_row(there, pupils)
    said = {alias: evidence(there, alias) for alias in pupils}
    found = beliefs_of_class(said)
    no_longer = {alias: _no_longer(dated, said[alias], found[alias]) for alias in given}
    reached = {alias: _reached(dated, answers) for alias, answers in given.items()}
    now = {alias: _without(found[alias], no_longer[alias]) for alias in given}
    still = {alias: _still(given[alias], found[alias], no_longer[alias]) for alias in given}
    back = _come_back(dated, given, no_longer, reached, today, returns)
    return OverTime(holding(asked, given, now, {}, still), no_longer, reached, back)


def answers_in_a_row(sittings: Sequence[SittingAnswers], pupils: Sequence[str]) -> dict[str, list[Given | None]]:
    """The answers of some *pupils* to all that was asked, sitting after sitting; None where one was not there."""
    return {
        alias: [
            answer
            for one in sittings
            for answer, _ in zip_longest(one.pupils.get(alias, ())[: len(one.asked)], one.asked)
        ]
        for alias in pupils
    }


def _without(found: Sequence[Belief], gone: Sequence[Mended]) -> list[Belief]:
    codes = {one.code for one in gone}
    return [one for one in found if one.code not in codes]


def _still(given: Sequence[Given | None], found: Sequence[Belief], gone: Sequence[Mended]) -> list[Given | None]:
    """The answers without those that showed what is no longer there: they say nothing of what comes next."""
    codes = {one.code for one in gone}
    showed = {i for one in found if one.code in codes for i in one.did}
    return [None if i in showed else answer for i, answer in enumerate(given)]


def _no_longer(asked: Sequence[_Dated], said: Evidence, found: Sequence[Belief]) -> tuple[Mended, ...]:
    """The codes that were likely on the day when they last showed, and have not shown in three chances since."""
    gone = []
    for one in found:
        last = one.did[-1]
        since = [i for i in one.could if i > last]
        if len(since) < CHANCES_WITHOUT:
            continue
        end = sum(other.day <= asked[last].day for other in asked)  # all of that day speaks
        if any(before.code == one.code and before.belief >= LIKELY for before in said.until(end)):
            gone.append(Mended(one.code, asked[last].day, asked[since[CHANCES_WITHOUT - 1]].day, len(since)))
    return tuple(sorted(gone, key=lambda one: (one.on, one.code)))


def _reached(asked: Sequence[_Dated], given: Sequence[Given | None]) -> tuple[Reached, ...]:
    """The rungs whose last answers, back to the last one that was not right, are of two days or more."""
    right: dict[str, list[date]] = {}
    for one, answer in zip(asked, given, strict=True):
        if answer is None:
            continue
        streak = right.setdefault(one.asked.rung, [])
        if answer.value == one.asked.seen.right and not answer.form_fault:
            streak.append(one.day)
        else:
            streak.clear()
    found = []
    for rung, days in right.items():
        second = [day for day in days if day > days[0]]
        if second:
            found.append(Reached(rung, second[0]))
    return tuple(sorted(found, key=lambda one: (one.on, one.rung)))


# What comes back ------------------------------------------------------------------------------------------------------


def due(since: date, asked: Sequence[date], today: date, returns: Sequence[int] = RETURNS) -> bool:
    """Whether something that was reached on the day *since* comes back today: a return has come and nothing was *asked*
    after it.

    >>> due(date(2026, 11, 2), [], date(2026, 11, 3)), due(date(2026, 11, 2), [], date(2026, 11, 4))
    (False, True)
    >>> due(date(2026, 11, 2), [date(2026, 11, 4)], date(2026, 11, 8))
    False
    """
    come = [since + timedelta(days=days) for days in returns if since + timedelta(days=days) <= today]
    return bool(come) and not any(day >= come[-1] for day in asked)


def _come_back(
    asked: Sequence[_Dated],
    given: Mapping[str, Sequence[Given | None]],
    no_longer: Mapping[str, Sequence[Mended]],
    reached: Mapping[str, Sequence[Reached]],
    today: date,
    returns: Sequence[int],
) -> tuple[Back, ...]:
    """What is due for whom, what is due for most pupils first."""
    found: dict[str, list[str]] = {}
    for alias, answers in given.items():
        answered = [one for one, answer in zip(asked, answers, strict=True) if answer is not None]
        won = [(one.code, one.on) for one in no_longer[alias]] + [(one.rung, one.on) for one in reached[alias]]
        for what, since in won:
            if due(since, [one.day for one in answered if one.asked.is_about(what)], today, returns):
                found.setdefault(what, []).append(alias)
    order = sorted(found, key=lambda what: (-len(found[what]), what))
    return tuple([Back(what, tuple(found[what])) for what in order])


def warm_up(over: OverTime, asked: Sequence[Asked], today: date) -> tuple[Question, ...]:
    """Three problems at most like those that were *asked*, each for something that is due; other ones on
    another day.
    """
    made: list[Question] = []
    used = {one.question.source for one in asked}
    for back in over.come_back:
        model = [one.question for one in asked if one.is_about(back.what)][-1]
        found = parallel(explainer_of(model).worked, today.toordinal(), frozenset(used))
        if found is None:
            continue
        like = replace(model, source=found.worked.working.problem.text, mark=".", points=())
        if asked_of(like).is_about(back.what):
            made.append(like)
            used.add(like.source)
        if len(made) == WARM_UP:
            break
    return tuple(made)
