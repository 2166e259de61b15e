"""A teacher's shelf: the one place where rows are looked up, always filtered by the teacher.

Changes to a set name the version they were made on. If the set has moved on since, `StaleSetError` is raised
and nothing is changed. Every change goes into the history of the set.
"""

from __future__ import annotations

import secrets
import uuid
from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from sqlalchemy import ColumnElement, ScalarSelect, Select, and_, bindparam, column, delete, func, select, true
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import Session, defer, joinedload, selectinload
from sqlalchemy.orm.attributes import flag_modified

from keen_slate.core.limits import MOST_EXAMPLES

from .history import EXAMPLE_FIELDS, SET_FIELDS, History
from .house import House, ways_of
from .models import Example, ExampleSet, SchoolClass, Sitting, Teacher

MOST_DAYS = 100  # in the time log of an example
PLACES = ("shelf", "archive", "bin")
_SAID = {
    "title": "Renamed",
    "ways": "Ways changed",
    "words": "Step changed",
    "note": "Note changed",
    "objective": "Objective changed",
    "standards": "Objective changed",
    "lesson_minutes": "Lesson changed",
    "source": "Changed",
    "target": "Asked otherwise",
    "fading": "Blanks changed",
    "marks": "Marks changed",
}


class NotFoundError(LookupError):
    """There is no such set or example on this shelf."""


class StaleSetError(RuntimeError):
    """The set was changed by somebody else since the version that a change was made on."""


class FullSetError(ValueError):
    """The set holds as many examples as a set may hold."""


class OrderError(ValueError):
    """A new order does not name every example of the set exactly once."""


class Shelf:
    """The sets of the teacher *teacher_id*, in *session*. The caller begins and ends the transaction."""

    def __init__(self, session: Session, teacher_id: uuid.UUID) -> None:
        self.session = session
        self.teacher_id = teacher_id

    # Sets ---------------------------------------------------------------------------------------------------------

    def sets(
        self, place: str = "shelf", search: str = "", start: int = 0, most: int | None = None, order: str = "changed"
    ) -> Sequence[ExampleSet]:
        """The sets in a *place* with their examples; those in which *search* is written, *most* from number *start*
        (from 0).

        In *order*: the one changed last first, by title, or the one that was on the wall last first.
        """
        query = self._in_place(place, search).options(AS_SLIPS)
        if order == "title":
            query = query.order_by(func.lower(ExampleSet.title))
        if order == "shown":
            query = query.order_by(_shown_on().desc().nulls_last())
        query = query.order_by(ExampleSet.changed_at.desc(), ExampleSet.title, ExampleSet.id)
        query = query.offset(start).limit(most)
        return self.session.scalars(query).all()

    def whole_sets(self, place: str) -> Sequence[ExampleSet]:
        """The sets in a *place* with all that they have, the one changed last first."""
        query = self._in_place(place, "").options(selectinload(ExampleSet.examples))
        return self.session.scalars(query.order_by(ExampleSet.changed_at.desc(), ExampleSet.title, ExampleSet.id)).all()

    def count(self, place: str, search: str) -> int:
        """How many sets `sets` has in all."""
        return self.session.scalar(select(func.count()).select_from(self._in_place(place, search).subquery())) or 0

    def classes_of(self, set_ids: Sequence[uuid.UUID]) -> dict[uuid.UUID, list[str]]:
        """The names of the classes that had each of these sets."""
        query = (
            select(Sitting.set_id, SchoolClass.name)
            .join(SchoolClass, and_(SchoolClass.teacher_id == Sitting.teacher_id, SchoolClass.id == Sitting.class_id))
            .where(Sitting.teacher_id == self.teacher_id, Sitting.set_id.in_(set_ids))
            .distinct()
            .order_by(SchoolClass.name)
        )
        names: dict[uuid.UUID, list[str]] = {}
        for set_id, name in self.session.execute(query):
            if set_id is not None:
                names.setdefault(set_id, []).append(name)
        return names

    def _in_place(self, place: str, search: str) -> Select[ExampleSet]:
        mine = select(ExampleSet).where(ExampleSet.teacher_id == self.teacher_id, ExampleSet.place == place)
        return mine.where(*words_in(search))

    def counts(self) -> dict[str, int]:
        """How many sets lie in each place."""
        by_place = {row[0]: row[1] for row in self.session.execute(_COUNTS, {"teacher": self.teacher_id})}
        return {place: by_place.get(place, 0) for place in PLACES}

    def one_set(self, set_id: uuid.UUID) -> ExampleSet:
        """One set with its examples, wherever it lies. Raises `NotFoundError`."""
        return self._found(_ONE_SET, {"teacher": self.teacher_id, "set": set_id})

    def ways_in(self, set_id: uuid.UUID | None) -> dict[str, str]:
        """The ways that hold in a set, its own before those of the house; in none, the house's.

        Raises `NotFoundError`.
        """
        if set_id is None:
            return self.house_ways()
        own = self.session.scalar(
            select(ExampleSet.ways).where(ExampleSet.teacher_id == self.teacher_id, ExampleSet.id == set_id)
        )
        if own is None:
            raise _no_set()
        return {**self.house_ways(), **own}

    def has_set(self, set_id: uuid.UUID) -> bool:
        """Whether a set is there, wherever it lies."""
        own = select(ExampleSet.id).where(ExampleSet.teacher_id == self.teacher_id, ExampleSet.id == set_id)
        return self.session.scalar(own) is not None

    def _found(self, query: Select[ExampleSet], asked: Mapping[str, Any]) -> ExampleSet:
        example_set = self.session.scalars(query, asked).one_or_none()
        if example_set is None:
            raise _no_set()
        return example_set

    def example(self, set_id: uuid.UUID, example_id: uuid.UUID) -> Example:
        """One example of a set. Raises `NotFoundError`."""
        asked = {"teacher": self.teacher_id, "set": set_id, "example": example_id}
        found = self.session.scalars(_ONE_EXAMPLE, asked).one_or_none()
        if found is None:
            raise NotFoundError("This example is not in the set any more.")
        return found

    def add_set(
        self,
        title: str,
        examples: Iterable[Mapping[str, Any]] = (),
        like: ExampleSet | None = None,
        about: Mapping[str, Any] | None = None,
    ) -> ExampleSet:
        """A new set of *examples* (values of `EXAMPLE_FIELDS`), with all else that the set has which it is *like*.

        What is known *about* it (values of `SET_FIELDS`) goes before that.
        """
        new = ExampleSet(teacher_id=self.teacher_id, id=uuid.uuid4())
        if like is not None:
            for name in SET_FIELDS:
                setattr(new, name, getattr(like, name))
        for name, known in (about or {}).items():
            setattr(new, name, known)
        new.examples = [self._new_example(i, fields) for i, fields in enumerate(examples)]
        new.title = title
        new.searched = _searched(new)
        self.session.add(new)
        self.session.flush()
        return new

    def put(self, set_id: uuid.UUID, place: str) -> ExampleSet:
        """Lay a set in another *place*: on the shelf, in the archive, in the bin. Raises `NotFoundError`."""
        example_set = self._locked(set_id)
        example_set.place = place
        self.session.flush()
        return example_set

    def show(self, set_id: uuid.UUID, shown: bool) -> ExampleSet:
        """Give a set a new secret key to be read under, or take its key away."""
        example_set = self._locked(set_id)
        example_set.show_key = secrets.token_urlsafe(32) if shown else None
        self.session.flush()
        return example_set

    def shown(self, key: str) -> ExampleSet:
        """The set that may be read under *key*. Raises `NotFoundError`; a set in the bin is not shown."""
        query = (
            select(ExampleSet)
            .where(ExampleSet.teacher_id == self.teacher_id, ExampleSet.show_key == key, ExampleSet.place != "bin")
            .options(selectinload(ExampleSet.examples))
        )
        return self._found(query, {})

    def empty_bin(self) -> int:
        """Take every set in the bin away for good; how many there were."""
        gone = delete(ExampleSet).where(ExampleSet.teacher_id == self.teacher_id, ExampleSet.place == "bin")
        return len(self.session.scalars(gone.returning(ExampleSet.id)).all())

    # The house ----------------------------------------------------------------------------------------------------

    def house_ways(self) -> dict[str, str]:
        """The ways of the house, before those of its school: what departs from the defaults in all sets."""
        return ways_of(self.session.get_one(Teacher, self.teacher_id))

    def house(self) -> House:
        """The ways of the house with their history."""
        return House(self.session, self.teacher_id)

    # Changes to a set ---------------------------------------------------------------------------------------------

    def change_set(
        self, set_id: uuid.UUID, version: int, changes: Mapping[str, Any], order: Sequence[uuid.UUID] | None = None
    ) -> ExampleSet:
        """Give a set other values of `SET_FIELDS`, or its examples another *order*, or both."""
        example_set, history = self._for_change(set_id, version)
        for name in SET_FIELDS:
            if name in changes:
                setattr(example_set, name, changes[name])
        if order is not None:
            by_id = {example.id: example for example in example_set.examples}
            if sorted(by_id) != sorted(order):
                raise OrderError("The new order does not name every example of the set once.")
            _renumber([by_id[example_id] for example_id in order])
        return self._changed(example_set, history, "Moved" if order is not None else _said(changes))

    def add_examples(
        self, set_id: uuid.UUID, version: int, examples: Sequence[Mapping[str, Any]], position: int | None = None
    ) -> tuple[ExampleSet, list[Example]]:
        """Put examples (values of `EXAMPLE_FIELDS`, *source* at least) on the ladder at *position* from 0, or at its
        end.
        """
        example_set, history = self._for_change(set_id, version)
        if len(example_set.examples) + len(examples) > MOST_EXAMPLES:
            raise FullSetError(f"A set holds {MOST_EXAMPLES} examples; begin a new one for more.")
        new = [self._new_example(0, fields) for fields in examples]
        ordered = list(example_set.examples)
        at = len(ordered) if position is None else position
        ordered[at:at] = new
        example_set.examples.extend(new)
        _renumber(ordered)
        said = "Added" if len(new) == 1 else f"{len(new)} examples added"
        return self._changed(example_set, history, said), new

    def change_examples(
        self, set_id: uuid.UUID, version: int, changes: Mapping[uuid.UUID, Mapping[str, Any]]
    ) -> ExampleSet:
        """Change examples by their ids; another text drops what was kept for the old one's steps."""
        example_set, history = self._for_change(set_id, version)
        for example_id, fields in changes.items():
            example = _example_in(example_set, example_id)
            if fields.get("source", example.source) != example.source:
                example.words, example.fading, example.marks = {}, {}, {}
            for name in EXAMPLE_FIELDS:
                if name in fields:
                    setattr(example, name, fields[name])
        names = [name for fields in changes.values() for name in fields]
        said = "Worked another way" if names == ["ways"] else _said(names)
        return self._changed(example_set, history, said)

    def remove_example(self, set_id: uuid.UUID, example_id: uuid.UUID, version: int) -> ExampleSet:
        """Take an example off the ladder."""
        example_set, history = self._for_change(set_id, version)
        example = _example_in(example_set, example_id)
        history.before_taking_off()
        example_set.examples.remove(example)
        _renumber(example_set.examples)
        return self._changed(example_set, history, f"{example.source} was taken off")

    def add_time(self, set_id: uuid.UUID, example_id: uuid.UUID, day: str, seconds: int) -> Example:
        """Log that an example was shown for so many *seconds* on a *day*.

        It is no change of the set, and is not undone.
        """
        self._locked(set_id)
        example = self.example(set_id, example_id)
        log = [dict(entry) for entry in example.time_log]
        if not log or log[-1]["day"] != day:
            log = [*log[-MOST_DAYS:], {"day": day, "seconds": 0}]
        log[-1]["seconds"] += seconds
        example.time_log = log
        self.session.flush()
        return example

    def undo(self, set_id: uuid.UUID, version: int, by: int = -1) -> ExampleSet:
        """Take back the last change of a set, or (*by* +1) do it again. Raises `NoChangeError`."""
        example_set, history = self._for_change(set_id, version)
        history.go(by)
        return self._touched(example_set)

    def history(self, example_set: ExampleSet) -> History:
        """The history of a set."""
        return History(self.session, example_set)

    def _for_change(self, set_id: uuid.UUID, version: int) -> tuple[ExampleSet, History]:
        example_set = self._locked(set_id)
        if example_set.version != version:
            raise StaleSetError("This set was changed in another tab since it was opened here.")
        history = History(self.session, example_set)
        history.begin()
        return example_set, history

    def _locked(self, set_id: uuid.UUID) -> ExampleSet:
        """The set as it is now; whoever changes it at this moment waits, and then sees the version that this change
        makes.
        """
        return self._found(_ONE_SET_LOCKED, {"teacher": self.teacher_id, "set": set_id})

    def _changed(self, example_set: ExampleSet, history: History, said: str) -> ExampleSet:
        history.record(said)
        return self._touched(example_set)

    def _touched(self, example_set: ExampleSet) -> ExampleSet:
        """Count the change, even where only examples changed. A change that came between raises StaleDataError."""
        flag_modified(example_set, "title")
        example_set.searched = _searched(example_set)
        self.session.flush()
        example_set.examples.sort(key=lambda example: example.position)
        return example_set

    def _new_example(self, position: int, fields: Mapping[str, Any]) -> Example:
        return Example(teacher_id=self.teacher_id, id=uuid.uuid4(), position=position, **_empty() | dict(fields))


def words_in(search: str) -> list[ColumnElement[bool]]:
    """That each word of *search* is written in a set."""
    return [ExampleSet.searched.contains(word, autoescape=True) for word in search.lower().split()]


# Sets with their examples as a slip shows them: what it does not show stays where it is.
AS_SLIPS = selectinload(ExampleSet.examples).options(defer(Example.words), defer(Example.fading), defer(Example.note))
# Asked with nearly every request, so made once.
_ONE_SET = (
    select(ExampleSet)
    .where(ExampleSet.teacher_id == bindparam("teacher"), ExampleSet.id == bindparam("set"))
    .options(selectinload(ExampleSet.examples))
)
_ONE_SET_LOCKED = _ONE_SET.with_for_update(of=ExampleSet).execution_options(populate_existing=True)
_COUNTS = (
    select(ExampleSet.place, func.count())
    .where(ExampleSet.teacher_id == bindparam("teacher"))
    .group_by(ExampleSet.place)
)
_ONE_EXAMPLE = (
    select(Example)
    .where(
        Example.teacher_id == bindparam("teacher"),
        Example.set_id == bindparam("set"),
        Example.id == bindparam("example"),
    )
    .options(joinedload(Example.example_set))
)


def _searched(example_set: ExampleSet) -> str:
    """All that is written in a set, a line each, in small letters: what one looks for never goes over the end of a
    line.
    """
    # Before it is first written a new set has no defaults yet.
    of_examples = [text for one in example_set.examples for text in (one.source, one.note)]
    written = [example_set.title, example_set.note, example_set.objective, *(example_set.standards or ()), *of_examples]
    return "\n".join([text for text in written if text]).lower()


def _no_set() -> NotFoundError:
    return NotFoundError("This set is not on your shelf.")


def _shown_on() -> ScalarSelect[str]:
    """The last day on which an example of a set was on the wall."""
    days = func.jsonb_array_elements(Example.time_log).table_valued(column("value", JSONB)).lateral("day")
    last = select(func.max(days.c.value["day"].astext)).select_from(Example).join(days, true())
    of_set = last.where(Example.teacher_id == ExampleSet.teacher_id, Example.set_id == ExampleSet.id)
    return of_set.correlate(ExampleSet).scalar_subquery()


def _empty() -> dict[str, Any]:
    """What an example has of which nothing is said."""
    begins = {name: Example.__table__.columns[name].default for name in EXAMPLE_FIELDS}
    return {
        name: None if begin is None else begin.arg(None) if begin.is_callable else begin.arg
        for name, begin in begins.items()
    }


def _said(names: Mapping[str, Any] | Sequence[str]) -> str:
    return _SAID.get(next(iter(names), ""), "Changed")


def fields_of(example: Example) -> dict[str, Any]:
    """All of an example that a copy of it has too."""
    return {name: getattr(example, name) for name in EXAMPLE_FIELDS}


def _example_in(example_set: ExampleSet, example_id: uuid.UUID) -> Example:
    for example in example_set.examples:
        if example.id == example_id:
            return example
    raise NotFoundError("This example is not in the set any more.")


def _renumber(ordered: Sequence[Example]) -> None:
    for position, example in enumerate(ordered):
        example.position = position


def teacher_named(session: Session, name: str) -> Teacher:
    """The first teacher called *name*, made if there is none."""
    found = session.scalars(select(Teacher).where(Teacher.name == name).order_by(Teacher.created_at)).first()
    if found is None:
        found = Teacher(id=uuid.uuid4(), name=name)
        session.add(found)
        session.flush()
    return found


def count_sets(session: Session, teacher_id: uuid.UUID) -> int:
    """How many sets a teacher has."""
    return session.scalar(select(func.count()).select_from(ExampleSet).where(ExampleSet.teacher_id == teacher_id)) or 0
