"""JSON as it goes out: in the order in which documents are published, and in letters that can be sent, whatever was typed."""

from __future__ import annotations

from typing import Any

from flask.json.provider import DefaultJSONProvider


class DocumentJSON(DefaultJSONProvider):
    """Documents keep their order. Half a character (a lone surrogate) is escaped, since it cannot be sent."""

    sort_keys = False
    ensure_ascii = False

    def dumps(self, obj: Any, **kwargs: Any) -> str:
        """*obj* as JSON."""
        written = super().dumps(obj, **kwargs)
        try:
            written.encode()
        except UnicodeEncodeError:
            return super().dumps(obj, **kwargs | {"ensure_ascii": True})
        return written
