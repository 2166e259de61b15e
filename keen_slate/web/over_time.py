"""A class over all its sittings: looked up, and kept with it until something else is entered."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from functools import cache, cached_property
from hashlib import sha256
from json import dumps
from threading import Lock
from typing import Any, TypeVar
from uuid import UUID

from cachetools import LRUCache, cached
from pydantic import TypeAdapter

from keen_slate.core.documents.over_time import ClassOverTime, SittingSeen, Year, class_over_time
from keen_slate.core.expressions.voice import Voice
from keen_slate.core.sittings.answers import Answers
from keen_slate.core.sittings.over_time import OverTime, over_time
from keen_slate.core.sittings.question import Asked, Question
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import voice_of
from keen_slate.store.classes import Classes
from keen_slate.store.models import Pupil, SchoolClass, Sitting
from keen_slate.store.shelf import Shelf
from keen_slate.store.sittings import Sittings
from keen_slate.store.summaries import rules_version

from . import heavy, sittings_tasks
from .desk import shelf
from .sat import all_answers, as_sat, as_seen, evidence, has_labels

T = TypeVar("T")
_OVER_TIME, _PAGE = TypeAdapter(OverTime), TypeAdapter(ClassOverTime)
_WARM_UP = TypeAdapter(tuple[Question, ...])
_CLASSES = 100  # of which what was found is kept in this process


@dataclass(frozen=True)
class KeptYear:
    """A class with its pupils and its sittings; *house* are the ways in which all is said.

    Their answers are looked up when they are asked for: what they say together is kept, also for after a restart.
    """

    school_class: SchoolClass
    pupils: Sequence[Pupil]
    sittings: Sequence[Sitting]
    house: Mapping[str, str]

    @cached_property
    def answers(self) -> Sequence[Answers]:
        """What was written in each sitting."""
        with shelf() as mine:
            return all_answers(Sittings(mine.session, mine.teacher_id), self.sittings, self.pupils)

    def kept(self, what: str, rests_on: Any, kind: TypeAdapter[T], make: Callable[[], T]) -> T:
        """*What* is said of all sittings together: as it is kept with the class, or made now and kept."""
        key = sha256(repr((rules_version(), _shape(kind), rests_on)).encode()).hexdigest()
        class_id = self.school_class.id
        with shelf() as mine:
            found = Classes(mine.session, mine.teacher_id).known(class_id, what, key)
        if found is not None:
            return kind.validate_python(found, strict=False)
        made = make()
        counted = len(self.pupils), len(self.sittings), sum(one.counter for one in self.sittings)
        with shelf() as mine:  # what was made may have taken long, in a process of its own
            plain = kind.dump_python(made, mode="json")
            Classes(mine.session, mine.teacher_id).keep_known(class_id, what, key, plain, counted)
        return made

    @cached_property
    def over(self) -> OverTime:
        """What the sittings say together, once the last of them is over."""
        return self.on(self.today)

    @property
    def today(self) -> date:
        """The day on which the last of the sittings is over."""
        return max([date.today(), *[one.day for one in self.sittings]])

    def on(self, day: date) -> OverTime:
        """The same as of a *day*."""
        found: OverTime = _over_time(self, day)
        return found

    @cached_property
    def seen(self) -> Year:
        """All of it, looked up, as the core knows it."""
        pupils = [as_seen(one) for one in self.pupils]
        sat = [
            SittingSeen(str(one.id), one.title, one.day, one.kind, answers)
            for one, answers in zip(self.sittings, self.answers, strict=True)
        ]
        return Year(self.school_class.name, pupils, sat, self.over, self.voice)

    @property
    def asked(self) -> list[Asked]:
        """All that was asked, sitting after sitting."""
        return [asked for one in self.answers for asked in one.asked]

    @cached_property
    def voice(self) -> Voice:
        """The voice that speaks in the house's words."""
        return voice_of(Ways.of(self.house))


@cache
def _shape(kind: TypeAdapter[Any]) -> str:
    """The same as long as what is kept has the same fields."""
    return dumps(kind.json_schema(mode="serialization"))


def _rests_on(year: KeptYear, day: date) -> Any:
    sittings = [(one.id, one.counter, one.day, has_labels(one)) for one in year.sittings]
    pupils = [pupil.id for pupil in year.pupils]
    return year.school_class.id, tuple(sittings), tuple(pupils), tuple(year.school_class.returns), day


@cached(LRUCache(_CLASSES), key=_rests_on, lock=Lock())
def _over_time(year: KeptYear, day: date) -> OverTime:
    return year.kept("over time", _rests_on(year, day), _OVER_TIME, lambda: _found(year, day))


def _found(year: KeptYear, day: date) -> OverTime:
    sat = [as_sat(*pair) for pair in zip(year.sittings, year.answers, strict=True)]
    return over_time(sat, day, year.school_class.returns, evidence)


@cached(LRUCache(_CLASSES), key=_rests_on, lock=Lock())
def _warm_up(year: KeptYear, day: date) -> tuple[Question, ...]:
    def made() -> tuple[Question, ...]:
        return tuple(heavy.run(sittings_tasks.warm_up, year.on(day), year.asked, day))

    return year.kept("warm-up", _rests_on(year, day), _WARM_UP, made)


def warm_up(year: KeptYear, day: date) -> tuple[Question, ...]:
    """A warm-up of what comes back on a *day*; made once, as the Shelf asks for it whenever it is opened."""
    found: tuple[Question, ...] = _warm_up(year, day)
    return found


def year_of(mine: Shelf, class_id: UUID) -> KeptYear:
    """A class with all that was written in it. Raises `NotFoundError`."""
    classes, store = Classes(mine.session, mine.teacher_id), Sittings(mine.session, mine.teacher_id)
    found, pupils, sittings = classes.one(class_id), classes.pupils(class_id), store.of_class(class_id)
    return KeptYear(found, pupils, sittings, mine.house_ways())


def class_page(year: KeptYear) -> ClassOverTime:
    """A class over all its sittings."""
    told = [(one.id, one.title, one.kind, one.moves) for one in year.sittings]
    pupils = [(one.id, one.alias, one.here) for one in year.pupils]
    rests_on = year.school_class.name, told, pupils, sorted(year.house.items()), _rests_on(year, year.today)
    return year.kept("page", rests_on, _PAGE, lambda: class_over_time(year.seen))
