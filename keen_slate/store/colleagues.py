"""Schools, and what the teachers of one share: a set is read as it is now, and a copy of it is one's own."""

from __future__ import annotations

import uuid
from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import Select, and_, delete, func, or_, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session, selectinload

from .models import Account, ExampleSet, School, Share, Teacher
from .school import teachers
from .shelf import AS_SLIPS, NotFoundError, words_in


@dataclass(frozen=True, slots=True)
class Shared:
    """A set that a colleague shares."""

    teacher: Teacher
    example_set: ExampleSet


class Colleagues:
    """What *teacher* shares, and what others of her school share with her; nothing of another school is ever found."""

    def __init__(self, session: Session, teacher: Teacher) -> None:
        self.session = session
        self.teacher = teacher

    def school(self) -> School | None:
        """The school that she teaches in."""
        return self.session.get(School, self.teacher.school_id) if self.teacher.school_id else None

    def others(self) -> Sequence[Teacher]:
        """Who else teaches in her school, by name."""
        school = self.school()
        return [one for one in teachers(self.session, school) if one.id != self.teacher.id] if school else []

    def shared(self, set_id: uuid.UUID) -> Share | None:
        """How she shares a set of hers; None where she does not."""
        query = select(Share).where(Share.teacher_id == self.teacher.id, Share.set_id == set_id)
        return self.session.scalars(query, execution_options={"populate_existing": True}).one_or_none()

    def share(self, set_id: uuid.UUID, shared: bool, with_ids: Sequence[uuid.UUID] | None = None) -> None:
        """Share a set of hers with all colleagues, or *with_ids* alone; or withdraw it, at once."""
        if shared:
            ids = None if with_ids is None else [str(one) for one in with_ids]
            made = insert(Share).values(teacher_id=self.teacher.id, set_id=set_id, with_ids=ids)
            self.session.execute(
                made.on_conflict_do_update(index_elements=["teacher_id", "set_id"], set_={"with_ids": ids})
            )
        else:
            self.session.execute(delete(Share).where(Share.teacher_id == self.teacher.id, Share.set_id == set_id))

    def sets(self, search: str = "", start: int = 0, most: int | None = None) -> Sequence[Shared]:
        """What her colleagues share, the one changed last first: those in which each word of *search* is written."""
        query = self._theirs(search).options(AS_SLIPS)
        query = query.order_by(ExampleSet.changed_at.desc(), ExampleSet.id).offset(start).limit(most)
        return [Shared(teacher, example_set) for teacher, example_set in self.session.execute(query)]

    def count(self, search: str = "") -> int:
        """How many `sets` has in all."""
        return self.session.scalar(select(func.count()).select_from(self._theirs(search).subquery())) or 0

    def one(self, teacher_id: uuid.UUID, set_id: uuid.UUID) -> Shared:
        """A set that a colleague shares. Raises `NotFoundError`, also where she has withdrawn it."""
        query = self._theirs("").where(Teacher.id == teacher_id, ExampleSet.id == set_id)
        found = self.session.execute(query.options(selectinload(ExampleSet.examples))).one_or_none()
        if found is None:
            raise NotFoundError("This set is not shared with you, or not any more.")
        return Shared(*found)

    def _theirs(self, search: str) -> Select[Teacher, ExampleSet]:
        return (
            select(Teacher, ExampleSet)
            .join(Share, Share.teacher_id == Teacher.id)
            .join(ExampleSet, and_(ExampleSet.teacher_id == Share.teacher_id, ExampleSet.id == Share.set_id))
            # No school is like no other: NULL is equal to nothing.
            .where(
                Teacher.school_id == self.teacher.school_id, Teacher.id != self.teacher.id, Teacher.leaves_at.is_(None),
                or_(Share.with_ids.is_(None), Share.with_ids.has_key(str(self.teacher.id))),
                ExampleSet.place != "bin", *words_in(search),
            )
        )  # fmt: skip


# What the keeper of an installation does ------------------------------------------------------------------------------


def school_named(session: Session, name: str) -> School:
    """The school called *name*, made if there is none."""
    session.execute(insert(School).values(id=uuid.uuid4(), name=name).on_conflict_do_nothing())
    return session.scalars(select(School).where(School.name == name)).one()


def everybody(session: Session) -> list[tuple[str, str, str]]:
    """All teachers: school, name and address, "" where there is none."""
    query = (
        select(func.coalesce(School.name, ""), Teacher.name, func.coalesce(Account.address, ""))
        .outerjoin(School, School.id == Teacher.school_id)
        .outerjoin(Account, Account.teacher_id == Teacher.id)
        .order_by(func.coalesce(School.name, ""), Teacher.name)
    )
    return [(school, name, address) for school, name, address in session.execute(query)]
