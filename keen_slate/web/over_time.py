"""A class over all its sittings, as screens and papers show it."""

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

from keen_slate.core.diagnosing.mend import nearest
from keen_slate.core.expressions.voice import Voice
from keen_slate.core.grading.rungs import ALL_RUNGS
from keen_slate.core.judging.beliefs import LIKELY, Belief
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.sittings.answers import Answers
from keen_slate.core.sittings.happened import chances, happened
from keen_slate.core.sittings.over_time import OverTime, over_time
from keen_slate.core.sittings.question import Asked, Question, explainer_of
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import voice_of
from keen_slate.store.classes import Classes
from keen_slate.store.models import Pupil, SchoolClass, Sitting
from keen_slate.store.shelf import Shelf
from keen_slate.store.sittings import Sittings
from keen_slate.store.summaries import rules_version

from . import heavy, searches, sittings_tasks
from .cells import glyphs_of, name_in_cell, question_out
from .desk import shelf
from .sat import all_answers, as_sat, evidence, has_labels
from .schemas.classes import (
    AnswerShown,
    ChancesOut,
    CodeOverTime,
    GroupNow,
    HeldOut,
    MendedOut,
    OverTimeOut,
    PupilOverTime,
    PupilPageOut,
    ReachedOut,
    SittingOfPupil,
    SittingSummary,
)
from .schemas.explaining import MendOut

T = TypeVar("T")
_OVER_TIME, _PAGE, _WARM_UP = TypeAdapter(OverTime), TypeAdapter(OverTimeOut), TypeAdapter(tuple[Question, ...])
_CLASSES = 100  # of which what was found is kept in this process


@dataclass(frozen=True)
class Year:
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

    @property
    def asked(self) -> list[Asked]:
        """All that was asked, sitting after sitting."""
        return [asked for one in self.answers for asked in one.asked]

    @cached_property
    def voice(self) -> Voice:
        """The voice that speaks in the house's words."""
        return voice_of(Ways.of(self.house))

    def name(self, what: str) -> str:
        """What a misconception or a rung is called."""
        return self.voice.said(ENTRIES[what].name if what in ENTRIES else ALL_RUNGS.get(what, what))

    def question(self, codes: Sequence[str]) -> str:
        """What to ask those who hold some *codes*, the first of them above all; nothing where there is none."""
        return self.voice.said(ENTRIES[codes[0]].question) if codes else ""


@cache
def _shape(kind: TypeAdapter[Any]) -> str:
    """The same as long as what is kept has the same fields."""
    return dumps(kind.json_schema(mode="serialization"))


def _rests_on(year: Year, day: date) -> Any:
    sittings = [(one.id, one.counter, one.day, has_labels(one)) for one in year.sittings]
    pupils = [pupil.id for pupil in year.pupils]
    return year.school_class.id, tuple(sittings), tuple(pupils), tuple(year.school_class.returns), day


@cached(LRUCache(_CLASSES), key=_rests_on, lock=Lock())
def _over_time(year: Year, day: date) -> OverTime:
    return year.kept("over time", _rests_on(year, day), _OVER_TIME, lambda: _found(year, day))


def _found(year: Year, day: date) -> OverTime:
    sat = [as_sat(*pair) for pair in zip(year.sittings, year.answers, strict=True)]
    return over_time(sat, day, year.school_class.returns, evidence)


@cached(LRUCache(_CLASSES), key=_rests_on, lock=Lock())
def _warm_up(year: Year, day: date) -> tuple[Question, ...]:
    def made() -> tuple[Question, ...]:
        return tuple(heavy.run(sittings_tasks.warm_up, year.on(day), year.asked, day))

    return year.kept("warm-up", _rests_on(year, day), _WARM_UP, made)


def warm_up(year: Year, day: date) -> tuple[Question, ...]:
    """A warm-up of what comes back on a *day*; made once, as the Shelf asks for it whenever it is opened."""
    found: tuple[Question, ...] = _warm_up(year, day)
    return found


def year_of(mine: Shelf, class_id: UUID) -> Year:
    """A class with all that was written in it. Raises `NotFoundError`."""
    classes, store = Classes(mine.session, mine.teacher_id), Sittings(mine.session, mine.teacher_id)
    found, pupils, sittings = classes.one(class_id), classes.pupils(class_id), store.of_class(class_id)
    return Year(found, pupils, sittings, mine.house_ways())


def sitting_summary(sitting: Sitting, answers: Answers) -> SittingSummary:
    """A sitting in a line."""
    cells = [cell for row in answers.cells.values() for cell in row if cell is not None]
    answered = [cell for cell in cells if cell.said not in ("blank", "away")]
    right = sum(cell.said in ("right", "right-value") for cell in answered)
    return SittingSummary(
        id=sitting.id, title=sitting.title, day=sitting.day, kind=sitting.kind, questions=len(answers.asked),
        entered=len(cells), answered=len(answered), right=right,
    )  # fmt: skip


def summaries(year: Year) -> list[SittingSummary]:
    """The sittings of a class, each in a line, the oldest first."""
    return [sitting_summary(*pair) for pair in zip(year.sittings, year.answers, strict=True)]


def class_page(year: Year) -> OverTimeOut:
    """A class over all its sittings."""
    told = [(one.id, one.title, one.kind, one.moves) for one in year.sittings]
    pupils = [(one.id, one.alias, one.here) for one in year.pupils]
    rests_on = year.school_class.name, told, pupils, sorted(year.house.items()), _rests_on(year, year.today)
    return year.kept("page", rests_on, _PAGE, lambda: _class_page(year))


def _class_page(year: Year) -> OverTimeOut:
    here = [pupil.id for pupil in year.pupils if pupil.here]
    return OverTimeOut(
        name=year.school_class.name,
        sittings=summaries(year),
        groups=_groups(year, here),
        unclear=[one for one in here if str(one) in year.over.held.unclear],
        codes=_codes(year, {pupil.id for pupil in year.pupils}),
        pupils=[pupil_over_time(year, pupil) for pupil in year.pupils],
    )


def _groups(year: Year, here: Sequence[UUID]) -> list[GroupNow]:
    """The groups after all that was written, without who is not *here* any more."""
    found = [
        GroupNow(
            codes=list(group.codes), names=[year.name(code) for code in group.codes],
            pupils=[one for one in here if str(one) in group.pupils], question=year.question(group.codes),
        )
        for group in year.over.held.groups
    ]  # fmt: skip
    return [one for one in found if one.pupils]


def cannot_tell(year: Year, pupil: str) -> tuple[list[list[str]], MendOut]:
    """What cannot be told apart of a pupil, by names, and the nearest problem that would, where one is found at
    once.
    """
    pairs = year.over.held.cannot_tell.get(pupil, ())
    model = next((one for one in reversed(year.asked) if pairs and one.can_show(pairs[0][0])), None)
    telling = nearest(explainer_of(model.question).worked, *pairs[0]) if model else None
    return [[year.name(code) for code in pair] for pair in pairs], searches.problem_out(telling, None)


def pupil_page(year: Year, pupil: Pupil) -> PupilPageOut:
    """A pupil over all sittings of her class."""
    told, telling = cannot_tell(year, str(pupil.id))
    return PupilPageOut(
        ready=any(not group.codes and str(pupil.id) in group.pupils for group in year.over.held.groups),
        unclear=str(pupil.id) in year.over.held.unclear,
        cannot_tell=told,
        telling=telling,
        class_name=year.school_class.name,
        pupil=pupil_over_time(year, pupil),
        codes=_codes(year, {pupil.id}),
        sittings=[
            _sitting_of_pupil(sitting, answers, str(pupil.id))
            for sitting, answers in reversed(list(zip(year.sittings, year.answers, strict=True)))
            if any(answers.cells[str(pupil.id)])
        ],
    )


def pupil_over_time(year: Year, pupil: Pupil) -> PupilOverTime:
    """What a pupil holds, no longer does and has reached."""
    key = str(pupil.id)
    cells = [cell for answers in year.answers for cell in answers.cells[key] if cell is not None]
    answered = [cell for cell in cells if cell.said not in ("blank", "away")]
    return PupilOverTime(
        id=pupil.id,
        alias=pupil.alias,
        here=pupil.here,
        answered=len(answered),
        right=sum(cell.said in ("right", "right-value") for cell in answered),
        holds=[held_out(year, one) for one in year.over.held.beliefs.get(key, ())],
        no_longer=mended_out(year, key),
        reached=[
            ReachedOut(code=one.rung, name=year.name(one.rung), on=one.on) for one in year.over.reached.get(key, ())
        ],
    )


def held_out(year: Year, one: Belief) -> HeldOut:
    """A belief in words and numbers."""
    return HeldOut(
        code=one.code, name=year.name(one.code), word=one.word, belief=round(float(one.belief), 3),
        shown=len(one.did), chances=len(one.could), question=year.question([one.code]),
    )  # fmt: skip


def mended_out(year: Year, pupil: str) -> list[MendedOut]:
    """What a pupil no longer does."""
    return [
        MendedOut(code=one.code, name=year.name(one.code), last=one.last, chances=one.chances)
        for one in year.over.no_longer.get(pupil, ())
    ]


def _codes(year: Year, of: set[UUID]) -> list[CodeOverTime]:
    """The misconceptions that some pupils showed, sitting by sitting; the one that most are likely to hold first."""
    mine = [one.of(str(next(iter(of)))) for one in year.answers] if len(of) == 1 else year.answers
    found = [{one.code: one for one in happened(answers).codes} for answers in mine]
    codes = dict.fromkeys(code for one in found for code in one)
    rows = []
    for code in codes:
        strip = [
            ChancesOut(
                day=sitting.day,
                title=sitting.title,
                did=one[code].did if code in one else 0,
                could=one[code].could if code in one else chances(answers, code),
                pupils=len(one[code].pupils) if code in one else 0,
            )
            for sitting, answers, one in zip(year.sittings, mine, found, strict=True)
        ]
        beliefs = year.over.held.beliefs
        holders = [one for one in of if any(b.code == code and b.belief >= LIKELY for b in beliefs.get(str(one), ()))]
        rows.append(CodeOverTime(code=code, name=year.name(code), holders=holders, sittings=strip))
    return sorted(rows, key=lambda row: (-len(row.holders), -sum(one.did for one in row.sittings), row.code))


def _sitting_of_pupil(sitting: Sitting, answers: Answers, pupil: str) -> SittingOfPupil:
    shown = []
    for number, cell in enumerate(answers.cells[pupil]):
        if cell is not None:
            question = answers.asked[number].question
            shown.append(
                AnswerShown(
                    problem=question_out(question, 0).glyphs, written=list(glyphs_of(cell, question)), said=cell.said,
                    name=name_in_cell(answers, pupil, number),
                )
            )  # fmt: skip
    return SittingOfPupil(id=sitting.id, title=sitting.title, day=sitting.day, kind=sitting.kind, answers=shown)
