"""A teacher's shelf: the one place where rows are looked up, always filtered by the teacher.

Changes to a set name the version they were made on. If the set has moved on since, `StaleSetError` is raised
and nothing is changed.
"""

from __future__ import annotations

import uuid
from collections.abc import Mapping, Sequence

from sqlalchemy import func, select
from sqlalchemy.orm import Session, selectinload
from sqlalchemy.orm.attributes import flag_modified

from .models import Example, ExampleSet, Teacher

MOST_EXAMPLES = 60


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

    def sets(self) -> Sequence[ExampleSet]:
        """All sets with their examples, the one changed last first."""
        query = (
            select(ExampleSet)
            .where(ExampleSet.teacher_id == self.teacher_id)
            .options(selectinload(ExampleSet.examples))
            .order_by(ExampleSet.changed_at.desc(), ExampleSet.title, ExampleSet.id)
        )
        return self.session.scalars(query).all()

    def one_set(self, set_id: uuid.UUID) -> ExampleSet:
        """One set with its examples. Raises `NotFoundError`."""
        query = (
            select(ExampleSet)
            .where(ExampleSet.teacher_id == self.teacher_id, ExampleSet.id == set_id)
            .options(selectinload(ExampleSet.examples))
        )
        found = self.session.scalars(query).one_or_none()
        if found is None:
            raise NotFoundError("This set is not on your shelf.")
        return found

    def example(self, set_id: uuid.UUID, example_id: uuid.UUID) -> Example:
        """One example of a set. Raises `NotFoundError`."""
        return _example_in(self.one_set(set_id), example_id)

    def add_set(self, title: str) -> ExampleSet:
        """A new, empty set."""
        new = ExampleSet(teacher_id=self.teacher_id, id=uuid.uuid4(), title=title, examples=[])
        self.session.add(new)
        self.session.flush()
        return new

    def house_ways(self) -> dict[str, str]:
        """The ways of the house: what departs from the defaults in all sets."""
        return self.session.get_one(Teacher, self.teacher_id).ways

    def change_house_ways(self, ways: Mapping[str, str]) -> None:
        """Give the house other ways."""
        self.session.get_one(Teacher, self.teacher_id).ways = dict(ways)

    def change_set(
        self,
        set_id: uuid.UUID,
        version: int,
        title: str | None = None,
        order: Sequence[uuid.UUID] | None = None,
        ways: Mapping[str, str] | None = None,
        words: Mapping[str, str] | None = None,
    ) -> ExampleSet:
        """Give a set another *title*, other *ways* or *words*, its examples another *order*, or all of these."""
        found = self._for_change(set_id, version)
        if ways is not None:
            found.ways = dict(ways)
        if words is not None:
            found.words = dict(words)
        if title is not None:
            found.title = title
        if order is not None:
            by_id = {example.id: example for example in found.examples}
            if sorted(by_id) != sorted(order):
                raise OrderError("The new order does not name every example of the set once.")
            _renumber([by_id[example_id] for example_id in order])
        return self._changed(found)

    def add_example(
        self, set_id: uuid.UUID, version: int, source: str, position: int | None,
        ways: Mapping[str, str], words: Mapping[str, str], target: str | None = None,
    ) -> tuple[ExampleSet, Example]:  # fmt: skip
        """Put an example on the ladder at *position* from 0, or at its end."""
        found = self._for_change(set_id, version)
        if len(found.examples) >= MOST_EXAMPLES:
            raise FullSetError(f"A set holds {MOST_EXAMPLES} examples; begin a new one for more.")
        example = Example(
            teacher_id=self.teacher_id,
            id=uuid.uuid4(),
            position=0,
            source=source,
            target=target,
            ways=dict(ways),
            words=dict(words),
        )
        ordered = list(found.examples)
        ordered.insert(len(ordered) if position is None else position, example)
        found.examples.append(example)
        _renumber(ordered)
        return self._changed(found), example

    def change_example(
        self, set_id: uuid.UUID, example_id: uuid.UUID, version: int,
        source: str | None, ways: Mapping[str, str] | None, words: Mapping[str, str] | None,
        target: str | None = None,
    ) -> tuple[ExampleSet, Example]:  # fmt: skip
        """Change an example; another text drops the words of the old steps, an empty *target* asks for no form."""
        found = self._for_change(set_id, version)
        example = _example_in(found, example_id)
        if source is not None and source != example.source:
            example.source, example.words = source, {}
        if target is not None:
            example.target = target or None
        if ways is not None:
            example.ways = dict(ways)
        if words is not None:
            example.words = dict(words)
        return self._changed(found), example

    def remove_example(self, set_id: uuid.UUID, example_id: uuid.UUID, version: int) -> ExampleSet:
        """Take an example off the ladder."""
        found = self._for_change(set_id, version)
        found.examples.remove(_example_in(found, example_id))
        _renumber(found.examples)
        return self._changed(found)

    def _for_change(self, set_id: uuid.UUID, version: int) -> ExampleSet:
        found = self.one_set(set_id)
        if found.version != version:
            raise StaleSetError("This set was changed in another tab since it was opened here.")
        return found

    def _changed(self, found: ExampleSet) -> ExampleSet:
        """Count the change, even where only examples changed. A change that came between raises StaleDataError."""
        flag_modified(found, "title")
        self.session.flush()
        self.session.refresh(found)
        return found


def _example_in(found: ExampleSet, example_id: uuid.UUID) -> Example:
    for example in found.examples:
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
