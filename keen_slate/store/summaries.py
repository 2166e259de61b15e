"""What the ladder and the Shelf show of an example is worked once and kept with it, until something that it rests on
changes.
"""

from __future__ import annotations

import json
from collections.abc import Mapping
from functools import cache
from hashlib import sha256
from pathlib import Path
from typing import Any

from sqlalchemy import bindparam, select, update
from sqlalchemy.orm import Session, object_session

import keen_slate.core

from .models import Example

_WAITING = "summaries to keep"  # of a session


@cache
def rules_version() -> str:
    """The same as long as the rules of the job are: every file of the core goes into it."""
    core = Path(keen_slate.core.__file__).parent
    rules = sha256()
    for path in sorted(core.rglob("*.py")):
        rules.update(path.read_bytes())
    return rules.hexdigest()


def key_of(example: Example, ways: Mapping[str, str]) -> str:
    """The same as long as the summary of an example worked in *ways* stays the same."""
    rests_on = [rules_version(), example.source, example.target, dict(ways), example.marks]
    return sha256(json.dumps(rests_on, sort_keys=True).encode()).hexdigest()[:32]


def kept(example: Example, key: str) -> dict[str, Any] | None:
    """The summary that is kept of *example*, if it is the one of *key*."""
    return example.summary if example.summary_key == key else None


def remember(example: Example, key: str, summary: dict[str, Any]) -> None:
    """Have *summary* kept with *example* when its session is done (`keep`)."""
    session = object_session(example)
    if session is not None:
        session.info.setdefault(_WAITING, {})[example.id] = (example.teacher_id, key, summary)


def forget(session: Session) -> None:
    """Have nothing kept of what was remembered."""
    session.info.pop(_WAITING, None)


def keep(session: Session) -> None:
    """Keep what was remembered. An example that somebody else is changing at this moment is passed over."""
    waiting = session.info.pop(_WAITING, {})
    if not waiting:
        return
    teacher_id = next(iter(waiting.values()))[0]
    mine = select(Example.id).where(Example.teacher_id == teacher_id, Example.id.in_(waiting))
    free = session.scalars(mine.order_by(Example.id).with_for_update(skip_locked=True)).all()
    rows = [
        {"this": example_id, "summary": waiting[example_id][2], "key": waiting[example_id][1]} for example_id in free
    ]
    if rows:
        table = Example.__table__
        change = update(table).where(table.c.teacher_id == teacher_id, table.c.id == bindparam("this"))  # type: ignore[arg-type]
        session.connection().execute(change.values(summary=bindparam("summary"), summary_key=bindparam("key")), rows)
