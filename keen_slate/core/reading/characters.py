"""Characters that cannot be kept: NUL and other control characters, and what is no character at all.

They cannot be seen, a database does not take some of them, and a file with others in it is not well-formed.
"""

from __future__ import annotations

import re
from collections.abc import Iterator

from ..errors import ReadError

# What XML 1.0 leaves out (the W3C's recommendation, section 2.2, from memory): tab, line feed and carriage return may stay.
_UNKEEPABLE = re.compile("[\x00-\x08\x0b\x0c\x0e-\x1f\ufffe\uffff\ud800-\udfff]")


def refuse_unkeepable(value: object) -> None:
    """Raises `ReadError` where a text within *value* (lists and objects too) has a character that cannot be kept.

    >>> refuse_unkeepable({"title": ["Planks", "a\\x0bb"]})
    Traceback (most recent call last):
    keen_slate.core.errors.ReadError: There is a character in this that cannot be kept (U+000B).
    """
    for text in _texts(value):
        if found := _UNKEEPABLE.search(text):
            said = f"There is a character in this that cannot be kept (U+{ord(found[0]):04X})."
            raise ReadError(said, found.start(), 1, "Take out what cannot be seen, and type it again.")


def _texts(value: object) -> Iterator[str]:
    waiting = [value]
    while waiting:
        one = waiting.pop()
        if isinstance(one, str):
            yield one
        elif isinstance(one, dict):
            waiting += [*one.keys(), *one.values()]
        elif isinstance(one, list):
            waiting += one
