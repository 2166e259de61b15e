"""The end of a long search. Whoever asks says when; the search looks at it inside, and hands back what it has by then.

The core has no clock: *passed* comes from outside, and holds for what is called within the block.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar

from ..errors import CoreError


class EndedEarlyError(CoreError):
    """A search came to its deadline before it had anything to hand back."""

    def __init__(self, message: str = "This takes longer than a lesson can wait, so it was ended.") -> None:
        super().__init__(message, 0, 0, "Ask for less: fewer rungs, wrong answers or denominators.")


def _never() -> bool:
    return False


_PASSED: ContextVar[Callable[[], bool]] = ContextVar("passed", default=_never)


@contextmanager
def until(passed: Callable[[], bool]) -> Iterator[None]:
    """Within the block, searches end soon after *passed* says True.

    >>> with until(lambda: True):
    ...     passed()
    True
    """
    token = _PASSED.set(passed)
    try:
        yield
    finally:
        _PASSED.reset(token)


def passed() -> bool:
    """Whether the deadline of what is being done has passed; never, where there is none."""
    return _PASSED.get()()


def look() -> None:
    """Go on before the deadline. Raises `EndedEarlyError` after it."""
    if passed():
        raise EndedEarlyError
