"""Documents as plain values: what JSON can say."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import fields, is_dataclass
from functools import cache
from typing import Any

_ALREADY_PLAIN = frozenset([str, int, bool, type(None)])


def plainly(document: Any) -> Any:
    """A *document* (dataclasses, tuples and mappings of them) as dicts, lists, texts, numbers and None.

    >>> from ..expressions.typeset import Glyph
    >>> plainly((Glyph("number", "7"),))[0]["text"]
    '7'
    """
    kind = document.__class__
    if kind in _ALREADY_PLAIN:  # most of a document
        return document
    if kind is tuple or kind is list:
        return [plainly(part) for part in document]
    if (names := _names(kind)) is not None:
        return {name: plainly(getattr(document, name)) for name in names}
    if isinstance(document, Mapping):
        return {key: plainly(value) for key, value in document.items()}
    return document


@cache
def _names(kind: type[Any]) -> tuple[str, ...] | None:
    """The fields of a dataclass, None for other types."""
    return tuple([one.name for one in fields(kind)]) if is_dataclass(kind) else None
