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
_ANEW: ContextVar[Callable[[], Callable[[], bool]] | None] = ContextVar("anew", default=None)


@contextmanager
def until(passed: Callable[[], bool], anew: Callable[[], Callable[[], bool]] | None = None) -> Iterator[None]:
    """Within the block, searches end soon after *passed* says True; *anew* begins a deadline for one of many
    (`one_of_many`).

    >>> with until(lambda: True):
    ...     passed()
    True
    """
    tokens = _PASSED.set(passed), _ANEW.set(anew)
    try:
        yield
    finally:
        _PASSED.reset(tokens[0])
        _ANEW.reset(tokens[1])


@contextmanager
def one_of_many() -> Iterator[None]:
    """The block does one of many things that are alike: it has its whole time, however many there are.

    >>> with until(lambda: True, anew=lambda: lambda: False), one_of_many():
    ...     passed()
    False
    """
    anew = _ANEW.get()
    with until(_PASSED.get() if anew is None else anew(), anew):
        yield


def after_looks(most: int) -> Callable[[], bool]:
    """A deadline that passes when it was looked at so many times: a bound of work, the same on any machine.

    >>> with until(after_looks(2)):
    ...     [passed(), passed(), passed()]
    [False, False, True]
    """
    left = iter(range(most))
    return lambda: next(left, None) is None


def passed() -> bool:
    """Whether the deadline of what is being done has passed; never, where there is none."""
    return _PASSED.get()()


def look() -> None:
    """Go on before the deadline. Raises `EndedEarlyError` after it."""
    if passed():
        raise EndedEarlyError
