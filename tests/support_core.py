"""What tests of the core and of files share."""

from __future__ import annotations

import os
from typing import Any

from keen_slate.core.documents.plain import plainly
from keen_slate.core.documents.view import working_view
from keen_slate.core.teaching.fading import Fading
from keen_slate.core.teaching.sentences import TeachersWords
from keen_slate.core.worked import Worked
from keen_slate.export.item import Item


def as_item(worked: Worked, fading: Fading | None = None) -> Item:
    """An example as papers and files need it, nothing in its teacher's own words."""
    return Item(worked, TeachersWords(), fading or Fading(), {})


def sweep(usual: int, whole: int) -> int:
    """How many are gone through: as many as a usual run can bear, or all of them by ./slate test --all."""
    return whole if os.environ.get("KEEN_SLATE_ALL") else usual


def viewed(*arguments: Any, **more: Any) -> Any:
    """A view as plain values."""
    return plainly(working_view(*arguments, **more))
