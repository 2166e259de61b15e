"""The history of a set: every change is kept with the set as it was after it, so that it can be undone and done again.

What belongs to a set and to an example is what their tables have, so that a new column is among it; the columns that
are left out are named here.
"""

from __future__ import annotations

import uuid
from collections.abc import Mapping
from datetime import timedelta
from typing import Any

from sqlalchemy import delete, exists, func
from sqlalchemy.orm import Session

from .changes import Changes, Kept
from .models import Change, Example, ExampleSet

# A set that nobody has changed for so long keeps only its last changes: nobody undoes what was done a term ago.
OLD, MOST_OF_OLD = timedelta(days=90), 10
_SWEPT = 16  # old histories are thinned with one change of a set in so many
# What says which row it is and where, what is worked anew, and of a set what no undoing takes back.
NOT_OF_SET = {
    "teacher_id", "id", "version", "place", "show_key", "searched", "at_change", "created_at", "changed_at",
}  # fmt: skip
NOT_OF_EXAMPLE = {"teacher_id", "id", "set_id", "position", "summary", "summary_key"}
# What happens to an example without being a change of it: undoing leaves it, and brings it back with an example that
# was taken off. A copy, and a file, are of the problem and not of what happened to it.
HAPPENED = ("time_log",)
SET_FIELDS = tuple([column.key for column in ExampleSet.__table__.columns if column.key not in NOT_OF_SET])
EXAMPLE_FIELDS = tuple(
    [column.key for column in Example.__table__.columns if column.key not in {*NOT_OF_EXAMPLE, *HAPPENED}]
)


class History(Changes[ExampleSet]):
    """The history of one set, in *session*."""

    def __init__(self, session: Session, example_set: ExampleSet) -> None:
        keys = {"teacher_id": example_set.teacher_id, "set_id": example_set.id}
        super().__init__(session, example_set, Change, keys)

    def before_taking_off(self) -> None:
        """Keep what has happened to the examples by now: where one is taken off, undoing brings it back with that."""
        here = self.change(self.thing.at_change)
        if here is not None:
            self.leave(here)

    def record(self, said: str) -> None:
        """Keep the set as it is now, after the change that is *said*."""
        if self.thing.at_change % _SWEPT == 0:
            with self.session.no_autoflush:
                self._thin()
        super().record(said)

    def _thin(self) -> None:
        """Take away what was done long ago to the sets of this teacher that have rested since; what can be done again
        stays.
        """
        rested = exists().where(
            ExampleSet.teacher_id == Change.teacher_id, ExampleSet.id == Change.set_id,
            ExampleSet.changed_at < func.now() - OLD, Change.number < ExampleSet.at_change - MOST_OF_OLD,
        )  # fmt: skip
        self.session.execute(
            delete(Change).where(Change.teacher_id == self.thing.teacher_id, rested),
            execution_options={"synchronize_session": False},
        )

    def now(self) -> dict[str, Any]:
        ordered = sorted(self.thing.examples, key=lambda example: example.position)
        kept = (*EXAMPLE_FIELDS, *HAPPENED)
        examples = [{"id": str(e.id)} | {name: getattr(e, name) for name in kept} for e in ordered]
        return {name: getattr(self.thing, name) for name in SET_FIELDS} | {"examples": examples}

    def leave(self, here: Kept) -> None:
        now = {str(example.id): example for example in self.thing.examples}
        examples = [
            stored | {name: getattr(now[stored["id"]], name) for name in HAPPENED} if stored["id"] in now else stored
            for stored in here.after["examples"]
        ]
        if examples != here.after["examples"]:
            here.after = {**here.after, "examples": examples}

    def restore(self, after: Mapping[str, Any]) -> None:
        for name in SET_FIELDS:
            if name in after:
                setattr(self.thing, name, after[name])
        now = {str(example.id): example for example in self.thing.examples}
        kept = {example["id"] for example in after["examples"]}
        for key, example in now.items():
            if key not in kept:
                self.thing.examples.remove(example)
        for position, stored in enumerate(after["examples"]):
            if stored["id"] not in now:
                happened = {name: stored[name] for name in HAPPENED if name in stored}
                back = Example(teacher_id=self.thing.teacher_id, id=uuid.UUID(stored["id"]), **happened)
                now[stored["id"]] = back
                self.thing.examples.append(back)
            example = now[stored["id"]]
            example.position = position
            for name in EXAMPLE_FIELDS:
                if name in stored:  # what an older version kept has not what came later
                    setattr(example, name, stored[name])
