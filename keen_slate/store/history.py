"""The history of a set: every change is kept with the set as it was after it, so that it can be undone and done again.

The history outlives the page, the session and the server. A new change drops those that were undone. What belongs to a set and to an
example is what their tables have, so that a new column is among it; the columns that are left out are named here.
"""

from __future__ import annotations

import uuid
from collections.abc import Mapping
from datetime import timedelta
from typing import Any

from sqlalchemy import Integer, bindparam, delete, exists, func, or_, select
from sqlalchemy.orm import Session

from .models import Change, Example, ExampleSet

MOST_CHANGES = 200
# A set that nobody has changed for so long keeps only its last changes: nobody undoes what was done a term ago.
OLD, MOST_OF_OLD = timedelta(days=90), 10
_SWEPT = 16  # old histories are thinned with one change of a set in so many
# What says which row it is and where, what is worked anew, and of a set what no undoing takes back.
NOT_OF_SET = {
    "teacher_id", "id", "version", "place", "show_key", "searched", "at_change", "created_at", "changed_at",
}  # fmt: skip
NOT_OF_EXAMPLE = {"teacher_id", "id", "set_id", "position", "summary", "summary_key"}
# What happens to an example without being a change of it: undoing leaves it, and brings it back with an example that was taken
# off. A copy, and a file, are of the problem and not of what happened to it.
HAPPENED = ("time_log",)
SET_FIELDS = tuple([column.key for column in ExampleSet.__table__.columns if column.key not in NOT_OF_SET])
EXAMPLE_FIELDS = tuple(
    [column.key for column in Example.__table__.columns if column.key not in {*NOT_OF_EXAMPLE, *HAPPENED}]
)


class NoChangeError(LookupError):
    """There is nothing (more) to undo, or to do again."""


def snapshot(example_set: ExampleSet) -> dict[str, Any]:
    """The whole set as a document."""
    ordered = sorted(example_set.examples, key=lambda example: example.position)
    kept = (*EXAMPLE_FIELDS, *HAPPENED)
    examples = [{"id": str(e.id)} | {name: getattr(e, name) for name in kept} for e in ordered]
    return {name: getattr(example_set, name) for name in SET_FIELDS} | {"examples": examples}


_SAID = select(Change.number, Change.said).where(
    Change.teacher_id == bindparam("teacher"), Change.set_id == bindparam("set"),
    Change.number.between(bindparam("at", type_=Integer) - 1, bindparam("at", type_=Integer) + 1),
)  # fmt: skip


class History:
    """The history of one set, in *session*."""

    def __init__(self, session: Session, example_set: ExampleSet) -> None:
        self.session = session
        self.example_set = example_set

    def begin(self) -> None:
        """Keep the set as it is, where nothing is kept of it yet; to be called before a change."""
        if not self.example_set.at_change and self._change(0) is None:
            self._keep(0, "")

    def before_taking_off(self) -> None:
        """Keep what has happened to the examples by now: where one is taken off, undoing brings it back with that."""
        here = self._change(self.example_set.at_change)
        if here is not None:
            self._note_what_happened(here)

    def record(self, said: str) -> None:
        """Keep the set as it is now, after the change that is *said*."""
        at = self.example_set.at_change
        gone = or_(Change.number > at, Change.number < at + 1 - MOST_CHANGES)
        with self.session.no_autoflush:  # the set is written once, with its new version
            self.session.execute(delete(Change).where(*self._mine(), gone))
            if at % _SWEPT == 0:
                self._thin()
        self.example_set.at_change = at + 1
        self._keep(at + 1, said)

    def _thin(self) -> None:
        """Take away what was done long ago to the sets of this teacher that have rested since; what can be done again stays."""
        rested = exists().where(
            ExampleSet.teacher_id == Change.teacher_id, ExampleSet.id == Change.set_id,
            ExampleSet.changed_at < func.now() - OLD, Change.number < ExampleSet.at_change - MOST_OF_OLD,
        )  # fmt: skip
        self.session.execute(
            delete(Change).where(Change.teacher_id == self.example_set.teacher_id, rested),
            execution_options={"synchronize_session": False},
        )

    def said(self) -> tuple[str | None, str | None]:
        """What undoing takes back, and what can be done again; None for nothing."""
        at = self.example_set.at_change
        asked = {"teacher": self.example_set.teacher_id, "set": self.example_set.id, "at": at}
        known = {row.number: row.said for row in self.session.execute(_SAID, asked)}
        return (known.get(at) if at - 1 in known else None), known.get(at + 1)

    def go(self, by: int) -> None:
        """Undo (-1) or do again (+1). Raises `NoChangeError`."""
        here, there = self._change(self.example_set.at_change), self._change(self.example_set.at_change + by)
        if here is None or there is None:
            raise NoChangeError("There is nothing more to undo." if by < 0 else "There is nothing more to do again.")
        self._note_what_happened(here)
        self.example_set.at_change += by
        self._restore(there.after)

    def _note_what_happened(self, here: Change) -> None:
        now = {str(example.id): example for example in self.example_set.examples}
        examples = [
            stored | {name: getattr(now[stored["id"]], name) for name in HAPPENED} if stored["id"] in now else stored
            for stored in here.after["examples"]
        ]
        if examples != here.after["examples"]:
            here.after = {**here.after, "examples": examples}

    def _restore(self, then: Mapping[str, Any]) -> None:
        for name in SET_FIELDS:
            if name in then:
                setattr(self.example_set, name, then[name])
        now = {str(example.id): example for example in self.example_set.examples}
        kept = {example["id"] for example in then["examples"]}
        for key, example in now.items():
            if key not in kept:
                self.example_set.examples.remove(example)
        for position, stored in enumerate(then["examples"]):
            if stored["id"] not in now:
                happened = {name: stored[name] for name in HAPPENED if name in stored}
                back = Example(teacher_id=self.example_set.teacher_id, id=uuid.UUID(stored["id"]), **happened)
                now[stored["id"]] = back
                self.example_set.examples.append(back)
            example = now[stored["id"]]
            example.position = position
            for name in EXAMPLE_FIELDS:
                if name in stored:  # what an older version kept has not what came later
                    setattr(example, name, stored[name])

    def _mine(self) -> tuple[Any, ...]:
        return Change.teacher_id == self.example_set.teacher_id, Change.set_id == self.example_set.id

    def _change(self, number: int) -> Change | None:
        return self.session.get(Change, (self.example_set.teacher_id, self.example_set.id, number))

    def _keep(self, number: int, said: str) -> None:
        after = snapshot(self.example_set)
        row = Change(
            teacher_id=self.example_set.teacher_id, set_id=self.example_set.id, number=number, said=said, after=after
        )
        self.session.add(row)
