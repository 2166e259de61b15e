"""What was changed, kept with the thing as it was after it, so that it can be undone and done again.

A set, the ways of a teacher and those of a school each have such a history (`history`, `house`). It outlives the page,
the session and the server. A new change drops those that were undone; number 0 is what the history found.
"""

from __future__ import annotations

import uuid
from collections.abc import Mapping
from functools import cache
from typing import Any, Generic, TypeVar, cast

from sqlalchemy import Integer, Select, bindparam, delete, or_, select
from sqlalchemy.orm import Session

from .models import Change, ExampleSet, HouseChange, School, SchoolChange, Teacher

MOST_CHANGES = 200
Kept = Change | HouseChange | SchoolChange
Thing = TypeVar("Thing", bound=ExampleSet | Teacher | School)


class NoChangeError(LookupError):
    """There is nothing (more) to undo, or to do again."""


class Changes(Generic[Thing]):
    """The history of one *thing*, in *session*: rows of *table* under its *keys* and a number."""

    def __init__(self, session: Session, thing: Thing, table: type[Kept], keys: Mapping[str, uuid.UUID]) -> None:
        self.session = session
        self.thing = thing
        self.table = table
        self.keys = dict(keys)

    # What each kind of thing says of itself -----------------------------------------------------------------------

    def now(self) -> dict[str, Any]:
        """The thing as it is, as a document."""
        raise NotImplementedError

    def restore(self, after: Mapping[str, Any]) -> None:
        """Make the thing what it was *after* some change."""
        raise NotImplementedError

    def leave(self, here: Kept) -> None:
        """What is still to be kept with the change that the thing stands at, before it is left."""

    # What all have in common --------------------------------------------------------------------------------------

    def begin(self) -> None:
        """Keep the thing as it is, where nothing is kept of it yet; to be called before a change."""
        if not self.thing.at_change and self.change(0) is None:
            self._keep(0, "")

    def record(self, said: str) -> None:
        """Keep the thing as it is now, after the change that is *said*."""
        at = self.thing.at_change
        number: Any = self.table.number
        with self.session.no_autoflush:  # it is written once, with its new version
            gone = or_(number > at, number < at + 1 - MOST_CHANGES)
            self.session.execute(delete(self.table).filter_by(**self.keys).where(gone))
        self.thing.at_change = at + 1
        self._keep(at + 1, said)

    def go(self, by: int) -> None:
        """Undo (-1) or do again (+1). Raises `NoChangeError`."""
        here, there = self.change(self.thing.at_change), self.change(self.thing.at_change + by)
        if here is None or there is None:
            raise NoChangeError("There is nothing more to undo." if by < 0 else "There is nothing more to do again.")
        self.leave(here)
        self.thing.at_change += by
        self.restore(there.after)

    def said(self) -> tuple[str | None, str | None]:
        """What undoing takes back, and what can be done again; None for nothing."""
        at = self.thing.at_change
        asked = self.keys | {"at": at}
        known = {row.number: row.said for row in self.session.execute(_asking(self.table), asked)}
        return (known.get(at) if at - 1 in known else None), known.get(at + 1)

    def change(self, number: int) -> Kept | None:
        """A change that is kept."""
        return cast(Kept | None, self.session.get(self.table, (*self.keys.values(), number)))

    def _keep(self, number: int, said: str) -> None:
        self.session.add(self.table(**self.keys, number=number, said=said, after=self.now()))


@cache
def _asking(table: type[Kept]) -> Select[tuple[int, str]]:
    """What is said of the changes around one: made once for each table, for every opening of a set asks it."""
    at = bindparam("at", type_=Integer)
    keys = [column == bindparam(column.name) for column in table.__table__.primary_key if column.name != "number"]
    number: Any = table.number
    return select(number, table.said).where(*keys, number.between(at - 1, at + 1))
