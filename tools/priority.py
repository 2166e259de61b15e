"""Where the system allows it (to root), a start is not held up by what else the machine has to do; what it starts is as
others are.
"""

from __future__ import annotations

import os
from collections.abc import Iterator
from contextlib import contextmanager, suppress

_FIRST = -15


def go_first() -> None:
    """Go before others from now on."""
    with suppress(PermissionError):
        os.setpriority(os.PRIO_PROCESS, 0, _FIRST)


def go_as_others() -> None:
    """Go before nobody any more."""
    if _is_first():
        os.setpriority(os.PRIO_PROCESS, 0, 0)


@contextmanager
def as_others() -> Iterator[None]:
    """What is started in the block goes before nobody."""
    first = _is_first()
    go_as_others()
    try:
        yield
    finally:
        if first:
            go_first()


def _is_first() -> bool:
    return os.getpriority(os.PRIO_PROCESS, 0) == _FIRST
