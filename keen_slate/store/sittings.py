"""Sittings of a class: a snapshot of a set on a day, and what was entered cell by cell.

The last entry of a cell is the one that holds.
"""

from __future__ import annotations

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from typing import Any, NamedTuple

from sqlalchemy import delete, func, literal, select, update
from sqlalchemy.dialects.postgresql import JSONB, insert
from sqlalchemy.orm import Session

from keen_slate.core.limits import MOST_SITTINGS

from .classes import ClassError, forget_known
from .database import where_there_is_room
from .models import Answer, Entry, ExampleSet, Pupil, Sitting
from .shelf import NotFoundError
from .summaries import rules_version


@dataclass(frozen=True, slots=True)
class Entered:
    """What is entered in a cell: the text (None: away) and the teacher's *word*; *gone* empties it."""

    pupil_id: uuid.UUID
    number: int
    written: str | None
    word: Mapping[str, Any] = field(default_factory=dict)
    gone: bool = False


class CellWritten(NamedTuple):
    """What stands in a cell."""

    sitting_id: uuid.UUID
    pupil_id: uuid.UUID
    number: int
    written: str | None
    word: Mapping[str, Any]
    counter: int


class Sittings:
    """The sittings of the teacher *teacher_id*, in *session*. The caller begins and ends the transaction."""

    def __init__(self, session: Session, teacher_id: uuid.UUID) -> None:
        self.session = session
        self.teacher_id = teacher_id

    def of_class(self, class_id: uuid.UUID) -> list[Sitting]:
        """The sittings of a class, the oldest first."""
        query = select(Sitting).where(Sitting.teacher_id == self.teacher_id, Sitting.class_id == class_id)
        return list(self.session.scalars(query.order_by(Sitting.day, Sitting.created_at)))

    def last(self, set_id: uuid.UUID, most: int) -> list[Sitting]:
        """The last sittings of all classes, those of a set before others."""
        query = select(Sitting).where(Sitting.teacher_id == self.teacher_id)
        of_set = func.coalesce(Sitting.set_id == set_id, False).desc()
        return list(
            self.session.scalars(query.order_by(of_set, Sitting.day.desc(), Sitting.created_at.desc()).limit(most))
        )

    def one(self, sitting_id: uuid.UUID) -> Sitting:
        """A sitting. Raises `NotFoundError`."""
        found = self.session.get(Sitting, (self.teacher_id, sitting_id))
        if found is None:
            raise NotFoundError("This sitting is not there any more.")
        return found

    def add(
        self, class_id: uuid.UUID, example_set: ExampleSet, questions: list[dict[str, Any]], day: date, kind: str
    ) -> Sitting:
        """A sitting of a class with the *questions* of a set as they are now. Raises `ClassError`."""
        if not questions:
            raise ClassError("This set has no example yet.", "Put problems on its ladder first.")
        return self.bring(class_id, example_set.title, questions, day, kind, example_set.id)

    def bring(
        self, class_id: uuid.UUID, title: str, questions: list[dict[str, Any]], day: date, kind: str,
        set_id: uuid.UUID | None = None,
    ) -> Sitting:  # fmt: skip
        """A sitting whose set need not be there. Raises `ClassError`."""
        if len(self.of_class(class_id)) >= MOST_SITTINGS:
            raise ClassError(f"A class has {MOST_SITTINGS} sittings at most.", "Remove old ones first.")
        made = Sitting(
            teacher_id=self.teacher_id, id=uuid.uuid4(), class_id=class_id, set_id=set_id, title=title, day=day,
            kind=kind, questions=questions, moves={}, counter=0,
        )  # fmt: skip
        self.session.add(made)
        self.session.flush()
        return made

    def count_labels(self, sitting_id: uuid.UUID, counted: bool) -> Sitting:
        """Say whether a missing label counts; what was judged before is judged anew."""
        sitting = self._locked(sitting_id)
        sitting.questions = [one | {"labels": counted} for one in sitting.questions]
        sitting.known = sitting.known_key = None
        self.session.flush()
        return sitting

    def remove(self, sitting_id: uuid.UUID) -> None:
        """Take a sitting away with all that was written in it, for good."""
        forget_known(self.session, self.teacher_id, self.one(sitting_id).class_id)
        self.session.execute(delete(Sitting).where(Sitting.teacher_id == self.teacher_id, Sitting.id == sitting_id))

    # Answers ------------------------------------------------------------------------------------------------------

    def answers(self, sitting_ids: Sequence[uuid.UUID], since: int = 0) -> list[CellWritten]:
        """What was written in some sittings, by entries after number *since*."""
        word = func.nullif(
            Answer.word, literal({}, JSONB), type_=JSONB
        )  # few have one; what is not there need not be read
        columns = (Answer.sitting_id, Answer.pupil_id, Answer.number, Answer.written, word, Answer.counter)
        query = select(*columns).where(
            Answer.teacher_id == self.teacher_id, Answer.sitting_id.in_(sitting_ids), Answer.counter > since
        )
        return [
            CellWritten(row[0], row[1], row[2], row[3], row[4] or {}, row[5])
            for row in self.session.execute(query.order_by(Answer.sitting_id, Answer.number))
        ]

    def emptied(self, sitting_id: uuid.UUID, since: int) -> list[tuple[uuid.UUID, int]]:
        """The cells that were emptied by entries after number *since*."""
        query = select(Entry.pupil_id, Entry.number).where(
            Entry.teacher_id == self.teacher_id, Entry.sitting_id == sitting_id, Entry.counter > since, Entry.gone
        )
        return [(row[0], row[1]) for row in self.session.execute(query)]

    def enter(self, sitting_id: uuid.UUID, entered: Sequence[Entered], made_by: str = "teacher") -> Sitting:
        """Enter cells, one after the other; those of pupils who were removed meanwhile are passed over."""
        sitting = self._locked(sitting_id)
        mine = select(Pupil.id).where(Pupil.teacher_id == self.teacher_id, Pupil.class_id == sitting.class_id)
        pupils = set(self.session.scalars(mine))
        cells = {
            (one.pupil_id, one.number): one
            for one in entered
            if one.pupil_id in pupils and one.number < len(sitting.questions)
        }
        if not cells:
            return sitting
        rows = []
        for (pupil_id, number), one in cells.items():
            sitting.counter += 1
            keys = {"teacher_id": self.teacher_id, "sitting_id": sitting_id, "counter": sitting.counter}
            rows.append(
                keys | {"pupil_id": pupil_id, "number": number, "written": one.written, "word": dict(one.word)}
                | {"gone": one.gone, "made_by": made_by}
            )  # fmt: skip
        self.session.execute(insert(Entry).values(rows))
        kept = [{key: row[key] for key in row if key not in ("gone", "made_by")} for row in rows if not row["gone"]]
        if kept:
            put = insert(Answer).values(kept)
            new = {name: put.excluded[name] for name in ("written", "word", "counter")}
            keys_of = ["teacher_id", "sitting_id", "pupil_id", "number"]
            self.session.execute(put.on_conflict_do_update(index_elements=keys_of, set_=new))
        for row in rows:
            if row["gone"]:
                at = [
                    Answer.sitting_id == sitting_id,
                    Answer.pupil_id == row["pupil_id"],
                    Answer.number == row["number"],
                ]
                self.session.execute(delete(Answer).where(Answer.teacher_id == self.teacher_id, *at))
        self.session.flush()
        return sitting

    def log(self, sitting_id: uuid.UUID) -> list[Entry]:
        """Who entered what and when, the last entry first."""
        query = select(Entry).where(Entry.teacher_id == self.teacher_id, Entry.sitting_id == sitting_id)
        return list(self.session.scalars(query.order_by(Entry.counter.desc()).limit(1000)))

    def move(self, sitting_id: uuid.UUID, moves: Mapping[str, Sequence[str] | None]) -> Sitting:
        """Put pupils (by id) into the groups of some codes; None leaves a pupil where her answers put her."""
        sitting = self._locked(sitting_id)
        moved = dict(sitting.moves) | dict(moves)
        sitting.moves = {pupil: list(codes) for pupil, codes in moved.items() if codes is not None}
        self.session.flush()
        return sitting

    def _locked(self, sitting_id: uuid.UUID) -> Sitting:
        query = select(Sitting).where(Sitting.teacher_id == self.teacher_id, Sitting.id == sitting_id)
        found = self.session.scalars(query.with_for_update().execution_options(populate_existing=True)).first()
        if found is None:
            raise NotFoundError("This sitting is not there any more.")
        return found

    # What the core says, kept ---------------------------------------------------------------------------------------

    def known(self, sitting: Sitting) -> dict[str, Any]:
        """What the core says of the questions and answers of a sitting, as far as it is kept and its rules are still
        the same.
        """
        mine = Sitting.teacher_id == self.teacher_id, Sitting.id == sitting.id, Sitting.known_key == rules_version()
        return self.session.scalar(select(Sitting.known).where(*mine)) or {}

    def keep_known(self, sitting: Sitting, known: Mapping[str, Any]) -> None:
        """Keep it; a sitting that somebody is writing in at this moment is passed over."""
        at = [Sitting.teacher_id == self.teacher_id, Sitting.id == sitting.id, Sitting.counter == sitting.counter]
        free = select(Sitting.id).where(*at).with_for_update(skip_locked=True).execution_options(autoflush=False)
        if self.session.scalars(free).first() is not None:
            change = update(Sitting).where(*at).values(known=dict(known), known_key=rules_version())
            with where_there_is_room(self.session):
                self.session.execute(change.execution_options(synchronize_session=False))
