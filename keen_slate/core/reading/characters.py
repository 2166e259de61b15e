"""Characters that cannot be kept: NUL and other control characters, and what is no character at all.

They cannot be seen, a database does not take some of them, and a file with others in it is not well-formed.
"""

from __future__ import annotations

import re
from collections.abc import Iterator

from ..errors import ReadError

# What XML 1.0 leaves out (the W3C's recommendation, section 2.2, from memory): tab, line feed and carriage return may
# stay.
_UNKEEPABLE = re.compile("[\x00-\x08\x0b\x0c\x0e-\x1f\ufffe\uffff\ud800-\udfff]")


MOST_LEVELS = 40  # of lists and objects in each other; no document of ours has more than ten


def refuse_unkeepable(value: object) -> None:
    """Raises `ReadError` where a text within *value* (lists and objects too) has a character that cannot be kept, and
    for deep nesting.

    >>> refuse_unkeepable({"title": ["Planks", "a\\x0bb"]})
    Traceback (most recent call last):
    keen_slate.core.errors.ReadError: There is a character in this that cannot be kept (U+000B).
    """
    for text in _texts(value, MOST_LEVELS):
        if found := _UNKEEPABLE.search(text):
            said = f"There is a character in this that cannot be kept (U+{ord(found[0]):04X})."
            raise ReadError(said, found.start(), 1, "Take out what cannot be seen, and type it again.")


def _texts(value: object, levels: int) -> Iterator[str]:
    """The texts within *value*, level by level. Raises `ReadError` where there are more *levels*."""
    level = [value]
    while level:
        if not levels:
            raise ReadError("This is nested too deep to be read.", 0, 0, "Send less at once.")
        levels -= 1
        yield from [one for one in level if isinstance(one, str)]
        inner: list[object] = []
        for one in level:
            if isinstance(one, dict):
                inner += [*one.keys(), *one.values()]
            elif isinstance(one, list):
                inner += one
        level = inner
