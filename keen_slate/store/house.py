"""The ways of the house: a teacher's settings for all sets, with a version and a history of their own.

A set's history knows nothing of them, so that undoing at a set never takes back what was set for all.
"""

from __future__ import annotations

import uuid
from collections.abc import Mapping

from sqlalchemy import delete, or_, select
from sqlalchemy.orm import Session

from .history import MOST_CHANGES, NoChangeError
from .models import HouseChange, Teacher


class StaleHouseError(RuntimeError):
    """The ways were changed by somebody else since the version that a change was made on."""


def ways_of(teacher: Teacher) -> dict[str, str]:
    """What departs from the defaults in all sets of *teacher*: her ways, before those of her school."""
    return {**(teacher.school.ways if teacher.school else {}), **teacher.ways}


class House:
    """The ways of the teacher *teacher_id*, in *session*. The caller begins and ends the transaction."""

    def __init__(self, session: Session, teacher_id: uuid.UUID) -> None:
        self.session = session
        self.teacher = session.get_one(Teacher, teacher_id)

    def change(self, version: int, ways: Mapping[str, str], said: str = "Ways changed") -> None:
        """Give the house other ways. Raises `StaleHouseError`."""
        self._lock(version)
        at = self.teacher.at_change
        if not at and self._change(0) is None:
            self._keep(0, "")
        gone = or_(HouseChange.number > at, HouseChange.number < at + 1 - MOST_CHANGES)
        self.session.execute(delete(HouseChange).where(HouseChange.teacher_id == self.teacher.id, gone))
        self.teacher.ways = dict(ways)
        self.teacher.at_change = at + 1
        self._keep(at + 1, said)
        self.teacher.version += 1

    def go(self, version: int, by: int) -> None:
        """Undo (-1) or do again (+1). Raises `NoChangeError`, `StaleHouseError`."""
        self._lock(version)
        there = self._change(self.teacher.at_change + by)
        if there is None:
            raise NoChangeError("There is nothing more to undo." if by < 0 else "There is nothing more to do again.")
        self.teacher.at_change += by
        self.teacher.ways = there.after
        self.teacher.version += 1

    def said(self) -> tuple[str | None, str | None]:
        """What undoing takes back, and what can be done again; None for nothing."""
        at = self.teacher.at_change
        query = select(HouseChange.number, HouseChange.said).where(
            HouseChange.teacher_id == self.teacher.id, HouseChange.number.in_((at - 1, at, at + 1))
        )
        known = {row.number: row.said for row in self.session.execute(query)}
        return (known.get(at) if at - 1 in known else None), known.get(at + 1)

    def _lock(self, version: int) -> None:
        self.session.refresh(self.teacher, with_for_update={"of": Teacher})
        if self.teacher.version != version:
            raise StaleHouseError("The ways for all sets were changed elsewhere since they were opened here.")

    def _change(self, number: int) -> HouseChange | None:
        return self.session.get(HouseChange, (self.teacher.id, number))

    def _keep(self, number: int, said: str) -> None:
        after = dict(self.teacher.ways)
        self.session.add(HouseChange(teacher_id=self.teacher.id, number=number, said=said, after=after))
