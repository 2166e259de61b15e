"""Ways that hold for all sets: a teacher's (the house), and those of a school; with a version and a history of their
own.

A set's history knows nothing of them, so that undoing at a set never takes back what was set for all.
"""

from __future__ import annotations

import uuid
from collections.abc import Mapping
from typing import Any, NoReturn, TypeVar

from sqlalchemy.orm import Session

from .changes import Changes
from .models import HouseChange, School, SchoolChange, Teacher

Owner = TypeVar("Owner", bound=Teacher | School)


class StaleHouseError(RuntimeError):
    """The ways were changed by somebody else since the version that a change was made on."""


class StaleSchoolError(RuntimeError):
    """The same, of the ways of a school."""


def ways_of(teacher: Teacher) -> dict[str, str]:
    """What departs from the defaults in all sets of *teacher*: her ways, before those of her school."""
    return {**(teacher.school.ways if teacher.school else {}), **teacher.ways}


class _WaysForAll(Changes[Owner]):
    """The ways of a teacher or a school. The caller begins and ends the transaction."""

    def refuse(self) -> NoReturn:
        """Refuse a change that was made on another version."""
        raise NotImplementedError

    def put(self, version: int, ways: Mapping[str, str], said: str = "Ways changed") -> None:
        """Give the owner other ways. Raises `StaleHouseError`, `StaleSchoolError`."""
        self._lock(version)
        self.begin()
        self.thing.ways = dict(ways)
        self.record(said)
        self.thing.version += 1

    def step(self, version: int, by: int) -> None:
        """Undo (-1) or do again (+1). Raises `NoChangeError`, and as `put`."""
        self._lock(version)
        self.go(by)
        self.thing.version += 1

    def now(self) -> dict[str, Any]:
        return dict(self.thing.ways)

    def restore(self, after: Mapping[str, Any]) -> None:
        self.thing.ways = dict(after)

    def _lock(self, version: int) -> None:
        self.session.refresh(self.thing, with_for_update={"of": type(self.thing)})
        if self.thing.version != version:
            self.refuse()


class House(_WaysForAll[Teacher]):
    """The ways of the teacher *teacher_id* for all her sets, in *session*."""

    def __init__(self, session: Session, teacher_id: uuid.UUID) -> None:
        super().__init__(session, session.get_one(Teacher, teacher_id), HouseChange, {"teacher_id": teacher_id})

    def refuse(self) -> NoReturn:
        raise StaleHouseError("The ways for all sets were changed elsewhere since they were opened here.")


class SchoolWays(_WaysForAll[School]):
    """The ways of a *school* for all who teach there, in *session* of its head."""

    def __init__(self, session: Session, school: School) -> None:
        super().__init__(session, school, SchoolChange, {"school_id": school.id})

    def refuse(self) -> NoReturn:
        raise StaleSchoolError("The ways of the school were changed elsewhere since they were opened here.")
