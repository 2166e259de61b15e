"""A teacher's own scenarios for stories."""

from __future__ import annotations

import uuid
from collections.abc import Mapping
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from keen_slate.core.limits import MOST_SCENARIOS

from .models import OwnScenario


class FullError(ValueError):
    """A teacher has as many scenarios as she may have."""


class OwnScenarios:
    """The scenarios of the teacher *teacher_id*, in *session*. The caller begins and ends the transaction."""

    def __init__(self, session: Session, teacher_id: uuid.UUID) -> None:
        self.session = session
        self.teacher_id = teacher_id

    def all(self) -> list[dict[str, Any]]:
        """Their documents, the oldest first."""
        query = select(OwnScenario.document).where(OwnScenario.teacher_id == self.teacher_id)
        return list(self.session.scalars(query.order_by(OwnScenario.made_at, OwnScenario.code)))

    def put(self, code: str, document: Mapping[str, Any]) -> None:
        """Keep a scenario under its *code*, in the place of the one that was there. Raises `FullError`."""
        known = [one["code"] for one in self.all()]
        if code not in known and len(known) >= MOST_SCENARIOS:
            raise FullError
        row = insert(OwnScenario).values(teacher_id=self.teacher_id, code=code, document=dict(document))
        self.session.execute(
            row.on_conflict_do_update(index_elements=["teacher_id", "code"], set_={"document": dict(document)})
        )

    def remove(self, code: str) -> None:
        """Take a scenario away; stories that were told with it stay."""
        gone = delete(OwnScenario).where(OwnScenario.teacher_id == self.teacher_id, OwnScenario.code == code)
        self.session.execute(gone)
