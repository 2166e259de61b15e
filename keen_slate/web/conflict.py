"""Where two have changed the same thing: the second is shown it as it is now, and chooses."""

from __future__ import annotations

from apiflask import APIFlask
from flask import request
from sqlalchemy.orm.exc import StaleDataError

from keen_slate.store.house import StaleHouseError
from keen_slate.store.shelf import StaleSetError

from . import session
from .desk import shelf
from .errors import Answer, answer_to, refusal
from .sets import set_view
from .ways import ways_view

CHOICE = "Take the other version, or make your change on top of it."


def init_app(app: APIFlask) -> None:
    """Answer changes on old versions with what there is now; nothing was changed."""
    for stale in (StaleSetError, StaleDataError, StaleHouseError):
        app.register_error_handler(stale, _conflict)


def _conflict(error: Exception) -> Answer:
    session.drop()
    try:
        return _house() if isinstance(error, StaleHouseError) else _set()
    except Exception as worse:  # the records may be lost while this is looked up
        return answer_to(worse)


def _set() -> Answer:
    with shelf() as mine:
        now = set_view(mine, mine.one_set((request.view_args or {})["set_id"]))
    said = "This set was changed in another tab since it was opened here."
    return refusal(409, said, CHOICE, set=now.model_dump(mode="json"))


def _house() -> Answer:
    with shelf() as mine:
        now = ways_view(mine)
    said = "The ways for all sets were changed in another tab since they were opened here."
    return refusal(409, said, CHOICE, ways=now.model_dump(mode="json"))
