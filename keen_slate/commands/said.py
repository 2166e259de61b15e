"""What the commands say: documents and errors as JSON, exit statuses."""

from __future__ import annotations

import json
import sys
from typing import Any

from keen_slate.core.errors import CoreError, ReadError

UNREADABLE = 2
IMPOSSIBLE = 3


class NotUnderstoodError(ReadError):
    """A story that cannot be understood, with what was understood of it so far."""

    def __init__(self, refusal: CoreError, understood: dict[str, Any]) -> None:
        super().__init__(refusal.message, refusal.position, refusal.length, refusal.hint)
        self.understood = understood


def as_json(document: dict[str, Any]) -> str:
    """A document in one line."""
    return json.dumps(document, ensure_ascii=False)


def report(error: CoreError) -> None:
    """Write an error as an object to standard error."""
    understood = {"understood": error.understood} if isinstance(error, NotUnderstoodError) else {}
    print(as_json({"error": error.as_dict(), **understood}), file=sys.stderr)
