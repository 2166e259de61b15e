"""JSON as it goes out: in the order in which documents are published, and in letters that can be sent, whatever was
typed.
"""

from __future__ import annotations

from typing import Any

from apiflask.schema_adapters.pydantic import PydanticAdapter
from flask.json.provider import DefaultJSONProvider
from pydantic import BaseModel
from pydantic_core import PydanticSerializationError


class WrittenJSON(str):
    """A document that is JSON already."""

    __slots__ = ()


class WrittenOnce(PydanticAdapter):
    """What an operation hands back is written as JSON at once, not as plain values first."""

    def serialize_output(self, data: Any, many: bool = False) -> Any:
        """*data* as JSON; as plain values where it is no model, or has half a character in it."""
        if isinstance(data, BaseModel):
            try:
                return WrittenJSON(data.model_dump_json(by_alias=True))
            except PydanticSerializationError:
                pass
        return super().serialize_output(data, many)


class DocumentJSON(DefaultJSONProvider):
    """Documents keep their order. Half a character (a lone surrogate) is escaped, since it cannot be sent."""

    sort_keys = False
    ensure_ascii = False

    def dumps(self, obj: Any, **kwargs: Any) -> str:
        """*obj* as JSON."""
        if isinstance(obj, WrittenJSON):
            return obj
        written = super().dumps(obj, **kwargs)
        try:
            written.encode()
        except UnicodeEncodeError:
            return super().dumps(obj, **kwargs | {"ensure_ascii": True})
        return written
