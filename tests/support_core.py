"""What tests of the core share."""

from __future__ import annotations

import os
from typing import Any

from keen_slate.core.documents.plain import plainly
from keen_slate.core.documents.view import working_view


def sweep(usual: int, whole: int) -> int:
    """How many are gone through: as many as a usual run can bear, or all of them by ./slate test --all."""
    return whole if os.environ.get("KEEN_SLATE_ALL") else usual


def viewed(*arguments: Any, **more: Any) -> Any:
    """A view as plain values."""
    return plainly(working_view(*arguments, **more))
