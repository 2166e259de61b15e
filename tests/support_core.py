"""What tests of the core share."""

from __future__ import annotations

from typing import Any

from keen_slate.core.documents.plain import plainly
from keen_slate.core.documents.view import working_view


def viewed(*arguments: Any, **more: Any) -> Any:
    """A view as plain values."""
    return plainly(working_view(*arguments, **more))
