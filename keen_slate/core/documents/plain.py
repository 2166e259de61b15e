"""Documents as plain values: what JSON can say."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import fields, is_dataclass
from datetime import date
from functools import cache
from typing import Any

_ALREADY_PLAIN = frozenset([str, int, bool, type(None)])


def plainly(document: Any) -> Any:
    """A *document* (dataclasses, tuples, mappings of them) as dicts, lists, texts, numbers and None; a day is its text.

    >>> from ..expressions.typeset import Glyph
    >>> plainly((Glyph("number", "7"),))[0]["text"]
    '7'
    """
    kind = document.__class__
    if kind in _ALREADY_PLAIN:
        return document
    # Most of what a document holds is plain already; it is not asked about again.
    if kind is tuple or kind is list:
        return [part if part.__class__ in _ALREADY_PLAIN else plainly(part) for part in document]
    if (names := _names(kind)) is not None:
        pairs = [(name, getattr(document, name)) for name in names]
    elif isinstance(document, Mapping):
        pairs = list(document.items())
    else:
        return document.isoformat() if kind is date else document
    return {name: part if part.__class__ in _ALREADY_PLAIN else plainly(part) for name, part in pairs}


@cache
def _names(kind: type[Any]) -> tuple[str, ...] | None:
    """The fields of a dataclass, None for other types."""
    return tuple([one.name for one in fields(kind)]) if is_dataclass(kind) else None
