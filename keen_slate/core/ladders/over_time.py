"""What changes from sitting to sitting: misconceptions that are no longer there, rungs reached, and what comes back on which day.

All of it is common practice: three chances without it, two right answers of a rung on two days, a return after 2, 7 and 21 days.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from ..diagnosing.holding import Held, given_by, holding, seen_of
from ..expressions.text import DecimalMark
from ..judging.beliefs import LIKELY, Belief, Given, Seen, beliefs, beliefs_of_class
from ..ways.settings import Ways
from ..worked import Worked, work_text
from .parallel import parallel

CHANCES_WITHOUT = 3  # in which a misconception could have shown since it last did, and did not
RETURNS = (2, 7, 21)  # days
WARM_UP = 3  # problems


@dataclass(frozen=True, slots=True)
class Sitting:
    """What a class wrote on a *day*: its *problems* (texts), and the answers of each pupil in their order."""

    day: date
    problems: tuple[str, ...]
    pupils: Mapping[str, Sequence[str | None]]


@dataclass(frozen=True, slots=True)
class Mended:
    """A misconception that was likely, and has not shown in so many *chances* since its *last* day; *on* is the day of the third."""

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
    """What the pupils hold now, what they no longer do, the rungs that they reached, what is due, and a warm-up made of it."""

    held: Held
    no_longer: Mapping[str, tuple[Mended, ...]]
    reached: Mapping[str, tuple[Reached, ...]]
    come_back: tuple[Back, ...]
    warm_up: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class _Asked:
    """A problem that was asked on a *day*, worked, and as the model of beliefs sees it."""

    day: date
    worked: Worked
    seen: Seen

    def is_about(self, what: str) -> bool:
        """Whether it is of a rung, or a code can show in it."""
        return what in (self.worked.features.rung, *self.seen.reveals, *self.seen.forms)


def over_time(sittings: Sequence[Sitting], ways: Ways, today: date, mark: DecimalMark = ".") -> OverTime:
    """What a class's *sittings* say together on the day *today*; later ones are left out. Raises `CoreError` for a problem that cannot be worked."""
    there = sorted([one for one in sittings if one.day <= today], key=lambda one: one.day)
    every = [[_asked(problem, one.day, ways, mark) for problem in one.problems] for one in there]
    asked = [one for sitting in every for one in sitting]
    worked, seen = [one.worked for one in asked], [one.seen for one in asked]
    given = {
        alias: [
            answer
            for one, problems in zip(there, every, strict=True)
            for answer in given_by([one.worked for one in problems], one.pupils.get(alias, ()), mark)
        ]
        for alias in dict.fromkeys(alias for one in there for alias in one.pupils)
    }
    found = beliefs_of_class(seen, given)
    no_longer = {alias: _no_longer(asked, given[alias], found[alias]) for alias in given}
    reached = {alias: _reached(asked, answers) for alias, answers in given.items()}
    now = {alias: _without(found[alias], no_longer[alias]) for alias in given}
    back = _come_back(asked, given, no_longer, reached, today)
    return OverTime(holding(worked, seen, given, now), no_longer, reached, back, _warm_up(back, asked, today))


def _asked(problem: str, day: date, ways: Ways, mark: DecimalMark) -> _Asked:
    worked = work_text(problem, ways, mark)
    return _Asked(day, worked, seen_of(worked))


def _without(found: Sequence[Belief], gone: Sequence[Mended]) -> list[Belief]:
    codes = {one.code for one in gone}
    return [one for one in found if one.code not in codes]


def _no_longer(asked: Sequence[_Asked], given: Sequence[Given | None], found: Sequence[Belief]) -> tuple[Mended, ...]:
    """The codes that were likely on the day when they last showed, and have not shown in three chances since."""
    gone = []
    likely: dict[int, set[str]] = {}
    for one in found:
        last = one.did[-1]
        since = [i for i in one.could if i > last]
        if len(since) < CHANCES_WITHOUT:
            continue
        end = sum(other.day <= asked[last].day for other in asked)  # all of that day speaks
        if end not in likely:
            then = beliefs([other.seen for other in asked[:end]], given[:end])
            likely[end] = {before.code for before in then if before.belief >= LIKELY}
        if one.code in likely[end]:
            gone.append(Mended(one.code, asked[last].day, asked[since[CHANCES_WITHOUT - 1]].day, len(since)))
    return tuple(sorted(gone, key=lambda one: (one.on, one.code)))


def _reached(asked: Sequence[_Asked], given: Sequence[Given | None]) -> tuple[Reached, ...]:
    """The rungs whose last answers, back to the last one that was not right, are of two days or more."""
    right: dict[str, list[date]] = {}
    for one, answer in zip(asked, given, strict=True):
        if answer is None:
            continue
        streak = right.setdefault(one.worked.features.rung, [])
        if answer.value == one.seen.right and not answer.form_fault:
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


def due(since: date, asked: Sequence[date], today: date) -> bool:
    """Whether something that was reached on the day *since* comes back today: a return has come and nothing was *asked* after it.

    >>> due(date(2026, 11, 2), [], date(2026, 11, 3)), due(date(2026, 11, 2), [], date(2026, 11, 4))
    (False, True)
    >>> due(date(2026, 11, 2), [date(2026, 11, 4)], date(2026, 11, 8))
    False
    """
    come = [since + timedelta(days=days) for days in RETURNS if since + timedelta(days=days) <= today]
    return bool(come) and not any(day >= come[-1] for day in asked)


def _come_back(
    asked: Sequence[_Asked],
    given: Mapping[str, Sequence[Given | None]],
    no_longer: Mapping[str, Sequence[Mended]],
    reached: Mapping[str, Sequence[Reached]],
    today: date,
) -> tuple[Back, ...]:
    """What is due for whom, what is due for most pupils first."""
    found: dict[str, list[str]] = {}
    for alias, answers in given.items():
        answered = [one for one, answer in zip(asked, answers, strict=True) if answer is not None]
        won = [(one.code, one.on) for one in no_longer[alias]] + [(one.rung, one.on) for one in reached[alias]]
        for what, since in won:
            if due(since, [one.day for one in answered if one.is_about(what)], today):
                found.setdefault(what, []).append(alias)
    order = sorted(found, key=lambda what: (-len(found[what]), what))
    return tuple([Back(what, tuple(found[what])) for what in order])


def _warm_up(back: Sequence[Back], asked: Sequence[_Asked], today: date) -> tuple[str, ...]:
    """Three problems at most like those of the sittings, each for something that is due; other ones on another day."""
    made: list[str] = []
    there = {one.worked.working.problem.text for one in asked}
    for one in back:
        model = [other for other in asked if other.is_about(one.what)][-1]
        found = parallel(model.worked, today.toordinal(), frozenset({*there, *made}))
        if found and _Asked(today, found.worked, seen_of(found.worked)).is_about(one.what):
            made.append(found.worked.working.problem.text)
        if len(made) == WARM_UP:
            break
    return tuple(made)
