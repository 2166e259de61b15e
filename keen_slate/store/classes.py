"""A teacher's classes and their pupils. What a pupil wrote goes with her, what a class wrote with the class."""

from __future__ import annotations

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

from sqlalchemy import delete, func, literal, select, update
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import Session

from keen_slate.core.limits import MOST_CLASSES, MOST_PUPILS
from keen_slate.core.sittings.over_time import RETURNS

from .database import where_there_is_room
from .models import Answered, Pupil, SchoolClass, Sitting
from .shelf import NotFoundError


class ClassError(ValueError):
    """A class cannot be so; the sentence says why, *hint* what to do."""

    def __init__(self, message: str, hint: str) -> None:
        super().__init__(message)
        self.hint = hint


@dataclass(frozen=True, slots=True)
class Listed:
    """A class with the number of its pupils who are here, and of its sittings, the last of them on a day."""

    school_class: SchoolClass
    pupils: int
    sittings: int
    last: date | None


class Classes:
    """The classes of the teacher *teacher_id*, in *session*. The caller begins and ends the transaction."""

    def __init__(self, session: Session, teacher_id: uuid.UUID) -> None:
        self.session = session
        self.teacher_id = teacher_id

    def all(self) -> list[Listed]:
        """The classes by name."""
        mine = select(SchoolClass).where(SchoolClass.teacher_id == self.teacher_id)
        pupils = select(Pupil.class_id, func.count()).where(Pupil.teacher_id == self.teacher_id, Pupil.here)
        sat = select(Sitting.class_id, func.count(), func.max(Sitting.day)).where(Sitting.teacher_id == self.teacher_id)
        counts = {row[0]: row[1] for row in self.session.execute(pupils.group_by(Pupil.class_id))}
        sittings = {row[0]: (row[1], row[2]) for row in self.session.execute(sat.group_by(Sitting.class_id))}
        return [
            Listed(one, counts.get(one.id, 0), *sittings.get(one.id, (0, None)))
            for one in self.session.scalars(mine.order_by(SchoolClass.name, SchoolClass.created_at))
        ]

    def one(self, class_id: uuid.UUID) -> SchoolClass:
        """A class. Raises `NotFoundError`."""
        found = self.session.get(SchoolClass, (self.teacher_id, class_id))
        if found is None:
            raise NotFoundError("This class is not there any more.")
        return found

    def pupils(self, class_id: uuid.UUID) -> list[Pupil]:
        """The pupils of a class in their order, those who have left among them."""
        query = select(Pupil).where(Pupil.teacher_id == self.teacher_id, Pupil.class_id == class_id)
        return list(self.session.scalars(query.order_by(Pupil.position, Pupil.alias)))

    def add(self, name: str, aliases: Sequence[str]) -> SchoolClass:
        """A new class with its pupils. Raises `ClassError`."""
        if len(self.all()) >= MOST_CLASSES:
            raise ClassError(f"There are {MOST_CLASSES} classes already.", "Remove one first.")
        made = SchoolClass(teacher_id=self.teacher_id, id=uuid.uuid4(), name=name, returns=list(RETURNS))
        self.session.add(made)
        self.session.flush()
        self.add_pupils(made.id, aliases)
        return made

    def change(self, class_id: uuid.UUID, changes: Mapping[str, Any]) -> SchoolClass:
        """Give a class another *name*, *returns* or *forget_months*."""
        found = self.one(class_id)
        for name, wanted in changes.items():
            setattr(found, name, wanted)
        self.session.flush()
        return found

    def remove(self, class_id: uuid.UUID) -> None:
        """Take a class away with its pupils and all that they wrote, for good."""
        self.one(class_id)
        mine = SchoolClass.teacher_id == self.teacher_id
        self.session.execute(delete(SchoolClass).where(mine, SchoolClass.id == class_id))

    # What the core says, kept ---------------------------------------------------------------------------------------

    def known(self, class_id: uuid.UUID, what: str, key: str) -> Any:
        """*What* the core says of a class's sittings, where it is kept and rests on what *key* says; None elsewhere."""
        mine = SchoolClass.teacher_id == self.teacher_id, SchoolClass.id == class_id
        kept = self.session.scalar(select(SchoolClass.known[what]).where(*mine))
        return kept[1] if kept and kept[0] == key else None

    def keep_known(self, class_id: uuid.UUID, what: str, key: str, value: Any, rests_on: tuple[int, int, int]) -> None:
        """Keep it, if pupils, sittings and entries are as many as it *rests_on*: nothing of what was removed is kept
        again.
        """
        mine = [SchoolClass.teacher_id == self.teacher_id, SchoolClass.id == class_id]
        free = select(SchoolClass.id).where(*mine).with_for_update(skip_locked=True).execution_options(autoflush=False)
        if self.session.scalars(free).first() is None or self.counts(class_id) != rests_on:
            return
        added = func.coalesce(SchoolClass.known, literal({}, JSONB)).op("||")(literal({what: [key, value]}, JSONB))
        with where_there_is_room(self.session):
            change = update(SchoolClass).where(*mine).values(known=added)
            self.session.execute(change.execution_options(synchronize_session=False))

    def counts(self, class_id: uuid.UUID) -> tuple[int, int, int]:
        """How many pupils, sittings and entries a class has."""
        pupils = select(func.count()).where(Pupil.teacher_id == self.teacher_id, Pupil.class_id == class_id)
        of_class = Sitting.teacher_id == self.teacher_id, Sitting.class_id == class_id
        sittings = select(func.count()).where(*of_class)
        entries = select(func.coalesce(func.sum(Sitting.counter), 0)).where(*of_class)
        row = self.session.execute(
            select(pupils.scalar_subquery(), sittings.scalar_subquery(), entries.scalar_subquery())
        ).one()
        return row[0], row[1], int(row[2])

    # Pupils -------------------------------------------------------------------------------------------------------

    def add_pupils(self, class_id: uuid.UUID, aliases: Sequence[str]) -> list[Pupil]:
        """Pupils at the end of a class. Raises `ClassError` for an alias twice, and for more than a class holds."""
        there = self.pupils(class_id)
        if len(there) + len(aliases) > MOST_PUPILS:
            said = f"A class holds {MOST_PUPILS} pupils; these would make {len(there) + len(aliases)}."
            raise ClassError(said, "Make two classes of them.")
        known = {pupil.alias.casefold() for pupil in there}
        for alias in aliases:
            if alias.casefold() in known:
                raise ClassError(f"There are two pupils called {alias}.", "Give one of them another alias.")
            known.add(alias.casefold())
        start = max([pupil.position for pupil in there], default=-1) + 1
        made = [
            Pupil(teacher_id=self.teacher_id, id=uuid.uuid4(), class_id=class_id, alias=alias, position=start + i)
            for i, alias in enumerate(aliases)
        ]
        self.session.add_all(made)
        self.session.flush()
        return made

    def pupil(self, class_id: uuid.UUID, pupil_id: uuid.UUID) -> Pupil:
        """A pupil of a class. Raises `NotFoundError`."""
        found = self.session.get(Pupil, (self.teacher_id, pupil_id))
        if found is None or found.class_id != class_id:
            raise NotFoundError("This pupil is not in the class any more.")
        return found

    def change_pupil(self, class_id: uuid.UUID, pupil_id: uuid.UUID, changes: Mapping[str, Any]) -> Pupil:
        """Give a pupil another *alias*, or say whether she is *here*. Raises `ClassError` for an alias twice."""
        found = self.pupil(class_id, pupil_id)
        alias = changes.get("alias", found.alias)
        others = [one.alias.casefold() for one in self.pupils(class_id) if one.id != pupil_id]
        if alias.casefold() in others:
            raise ClassError(f"There are two pupils called {alias}.", "Give one of them another alias.")
        for name, wanted in changes.items():
            setattr(found, name, wanted)
        self.session.flush()
        return found

    def remove_pupil(self, class_id: uuid.UUID, pupil_id: uuid.UUID) -> None:
        """Take a pupil away with all that she wrote, for good: also out of what was kept beside it."""
        self.pupil(class_id, pupil_id)
        mine = [Sitting.teacher_id == self.teacher_id, Sitting.class_id == class_id]
        forget_known(self.session, self.teacher_id, class_id)
        without = Sitting.moves.op("-")(str(pupil_id))  # the counter moves on, so that nothing older is kept again
        self.session.execute(
            update(Sitting).where(*mine).values(known=None, known_key=None, moves=without, counter=Sitting.counter + 1)
        )
        about = [Answered.teacher_id == self.teacher_id, Answered.class_id == class_id]
        self.session.execute(delete(Answered).where(*about))
        self.session.execute(delete(Pupil).where(Pupil.teacher_id == self.teacher_id, Pupil.id == pupil_id))


def forget_known(session: Session, teacher_id: uuid.UUID, class_id: uuid.UUID) -> None:
    """Forget what was said of all sittings of a class: something of it is taken away for good."""
    mine = SchoolClass.teacher_id == teacher_id, SchoolClass.id == class_id
    session.execute(update(SchoolClass).where(*mine).values(known=None))
