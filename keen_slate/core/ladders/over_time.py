"""What changes from sitting to sitting: misconceptions that are no longer there, rungs reached, and what comes back on which day.

All of it is common practice: three chances without it, two right answers of a rung on two days, a return after 2, 7 and 21 days.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from ..diagnosing.holding import Held, given_of, holding, seen_of
from ..expressions.text import DecimalMark
from ..judging.beliefs import LIKELY, Given, Seen, beliefs, shown
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
class _Line:
    """The answers of one pupil in the order of time, blanks and days away left out."""

    days: tuple[date, ...]
    worked: tuple[Worked, ...]
    seen: tuple[Seen, ...]
    given: tuple[Given, ...]


def over_time(sittings: Sequence[Sitting], ways: Ways, today: date, mark: DecimalMark = ".") -> OverTime:
    """What a class's *sittings* say together on the day *today*; later ones are left out. Raises `CoreError` for a problem that cannot be worked."""
    there = sorted([one for one in sittings if one.day <= today], key=lambda one: one.day)
    days = [one.day for one in there for _ in one.problems]
    worked = [work_text(problem, ways, mark) for one in there for problem in one.problems]
    seen = [seen_of(one) for one in worked]
    aliases = dict.fromkeys(alias for one in there for alias in one.pupils)
    given: dict[str, list[Given | None]] = {}
    for alias in aliases:
        wrote = [answer for one in there for answer in _padded(one.pupils.get(alias, ()), len(one.problems))]
        given[alias] = [given_of(one, answer, mark) for one, answer in zip(worked, wrote, strict=True)]
    lines = {alias: _line(days, worked, seen, answers) for alias, answers in given.items()}
    no_longer = {alias: _no_longer(line) for alias, line in lines.items()}
    reached = {alias: _reached(line) for alias, line in lines.items()}
    held = holding(worked, seen, given, {alias: {one.code for one in gone} for alias, gone in no_longer.items()})
    back = _come_back(lines, no_longer, reached, today)
    return OverTime(held, no_longer, reached, back, _warm_up(back, worked, seen, today))


def _padded(answers: Sequence[str | None], count: int) -> list[str | None]:
    return [*answers, *[None] * (count - len(answers))]


def _line(
    days: Sequence[date], worked: Sequence[Worked], seen: Sequence[Seen], answers: Sequence[Given | None]
) -> _Line:
    kept = [i for i, answer in enumerate(answers) if answer is not None]
    given = tuple([answer for answer in answers if answer is not None])
    return _Line(
        tuple([days[i] for i in kept]), tuple([worked[i] for i in kept]), tuple([seen[i] for i in kept]), given
    )


def _no_longer(line: _Line) -> tuple[Mended, ...]:
    """The codes that were likely on the day when they last showed, and have not shown in three chances since."""
    found = []
    likely: dict[int, set[str]] = {}
    for code, (could, did) in shown(line.seen, line.given).items():
        last = did[-1]
        since = [i for i in could if i > last]
        if len(since) < CHANCES_WITHOUT:
            continue
        end = sum(day <= line.days[last] for day in line.days)  # all of that day speaks
        if end not in likely:
            then = beliefs(line.seen[:end], line.given[:end])
            likely[end] = {one.code for one in then if one.belief >= LIKELY}
        if code in likely[end]:
            found.append(Mended(code, line.days[last], line.days[since[CHANCES_WITHOUT - 1]], len(since)))
    return tuple(sorted(found, key=lambda one: (one.on, one.code)))


def _reached(line: _Line) -> tuple[Reached, ...]:
    """The rungs whose last answers, back to the last one that was not right, are of two days or more."""
    right: dict[str, list[date]] = {}
    for day, worked, seen, answer in zip(line.days, line.worked, line.seen, line.given, strict=True):
        streak = right.setdefault(worked.features.rung, [])
        if answer.value == seen.right and not answer.form_fault:
            streak.append(day)
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
    lines: Mapping[str, _Line],
    no_longer: Mapping[str, Sequence[Mended]],
    reached: Mapping[str, Sequence[Reached]],
    today: date,
) -> tuple[Back, ...]:
    """What is due for whom, what is due for most pupils first."""
    found: dict[str, list[str]] = {}
    for alias, line in lines.items():
        asked = list(zip(line.days, line.worked, line.seen, strict=True))
        won = [(one.code, one.on) for one in no_longer[alias]] + [(one.rung, one.on) for one in reached[alias]]
        for what, since in won:
            days = [day for day, worked, seen in asked if _is_about(what, worked, seen)]
            if due(since, days, today):
                found.setdefault(what, []).append(alias)
    order = sorted(found, key=lambda what: (-len(found[what]), what))
    return tuple([Back(what, tuple(found[what])) for what in order])


def _warm_up(back: Sequence[Back], worked: Sequence[Worked], seen: Sequence[Seen], today: date) -> tuple[str, ...]:
    """Three problems at most like those of the sittings, each for something that is due; other ones on another day."""
    made: list[str] = []
    there = {one.working.problem.text for one in worked}
    for one in back:
        models = [work for work, shows in zip(worked, seen, strict=True) if _is_about(one.what, work, shows)]
        found = parallel(models[-1], today.toordinal(), frozenset({*there, *made}))
        if found and _is_about(one.what, found.worked, seen_of(found.worked)):
            made.append(found.worked.working.problem.text)
        if len(made) == WARM_UP:
            break
    return tuple(made)


def _is_about(what: str, worked: Worked, seen: Seen) -> bool:
    """Whether a problem is of a rung, or one in which a code can show."""
    return what in (worked.features.rung, *seen.reveals, *seen.forms)
