"""The history of a set: every change is kept with the set as it was after it, so that it can be undone and done again.

The history outlives the page, the session and the server. A new change drops those that were undone.
"""

from __future__ import annotations

import uuid
from collections.abc import Mapping
from typing import Any

from sqlalchemy import delete, or_, select
from sqlalchemy.orm import Session

from .models import Change, Example, ExampleSet

MOST_CHANGES = 200
SET_FIELDS = ("title", "ways", "words", "note", "objective", "standards", "lesson_minutes")
EXAMPLE_FIELDS = ("source", "target", "ways", "words", "note", "fading", "marks")


class NoChangeError(LookupError):
    """There is nothing (more) to undo, or to do again."""


def snapshot(example_set: ExampleSet) -> dict[str, Any]:
    """The whole set as a document."""
    ordered = sorted(example_set.examples, key=lambda example: example.position)
    examples = [{"id": str(e.id)} | {name: getattr(e, name) for name in EXAMPLE_FIELDS} for e in ordered]
    return {name: getattr(example_set, name) for name in SET_FIELDS} | {"examples": examples}


class History:
    """The history of one set, in *session*."""

    def __init__(self, session: Session, example_set: ExampleSet) -> None:
        self.session = session
        self.example_set = example_set

    def begin(self) -> None:
        """Keep the set as it is, where nothing is kept of it yet; to be called before a change."""
        if not self.example_set.at_change and self._change(0) is None:
            self._keep(0, "")

    def record(self, said: str) -> None:
        """Keep the set as it is now, after the change that is *said*."""
        at = self.example_set.at_change
        gone = or_(Change.number > at, Change.number < at + 1 - MOST_CHANGES)
        with self.session.no_autoflush:  # the set is written once, with its new version
            self.session.execute(delete(Change).where(*self._mine(), gone))
        self.example_set.at_change = at + 1
        self._keep(at + 1, said)

    def said(self) -> tuple[str | None, str | None]:
        """What undoing takes back, and what can be done again; None for nothing."""
        at = self.example_set.at_change
        query = select(Change.number, Change.said).where(*self._mine(), Change.number.in_((at - 1, at, at + 1)))
        known = {row.number: row.said for row in self.session.execute(query)}
        return (known.get(at) if at - 1 in known else None), known.get(at + 1)

    def go(self, by: int) -> None:
        """Undo (-1) or do again (+1). Raises `NoChangeError`."""
        here, there = self._change(self.example_set.at_change), self._change(self.example_set.at_change + by)
        if here is None or there is None:
            raise NoChangeError("There is nothing more to undo." if by < 0 else "There is nothing more to do again.")
        self.example_set.at_change += by
        self._restore(there.after)

    def _restore(self, then: Mapping[str, Any]) -> None:
        for name in SET_FIELDS:
            setattr(self.example_set, name, then[name])
        now = {str(example.id): example for example in self.example_set.examples}
        kept = {example["id"] for example in then["examples"]}
        for key, example in now.items():
            if key not in kept:
                self.example_set.examples.remove(example)
        for position, stored in enumerate(then["examples"]):
            if stored["id"] not in now:
                now[stored["id"]] = Example(teacher_id=self.example_set.teacher_id, id=uuid.UUID(stored["id"]))
                self.example_set.examples.append(now[stored["id"]])
            example = now[stored["id"]]
            example.position = position
            for name in EXAMPLE_FIELDS:
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
