"""Documents as plain values: what JSON can say."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import fields, is_dataclass
from functools import cache
from typing import Any


def plainly(document: Any) -> Any:
    """A *document* (dataclasses, tuples and mappings of them) as dicts, lists, texts, numbers and None.

    >>> from ..expressions.typeset import Glyph
    >>> plainly((Glyph("number", "7"),))[0]["text"]
    '7'
    """
    if isinstance(document, (list, tuple)):
        return [plainly(part) for part in document]
    if isinstance(document, Mapping):
        return {key: plainly(value) for key, value in document.items()}
    if is_dataclass(document):
        return {name: plainly(getattr(document, name)) for name in _names(document.__class__)}
    return document


@cache
def _names(kind: type[Any]) -> tuple[str, ...]:
    return tuple([one.name for one in fields(kind)])
