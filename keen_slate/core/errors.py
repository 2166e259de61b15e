"""What the core says when it cannot go on: always a sentence, a place in the text and a remedy."""

from __future__ import annotations


class CoreError(ValueError):
    """Something typed that cannot be read or worked.

    *message* says what was found and expected, *position* counts characters from 0 (it may equal the
    length of the text, when something is missing at its end), *length* is how much of the text is meant,
    *hint* says how to mend it.

    >>> CoreError("Nothing is typed yet.", 0, 0, "Type a problem.").as_dict()["hint"]
    'Type a problem.'
    """

    def __init__(self, message: str, position: int, length: int, hint: str) -> None:
        super().__init__(message)
        self.message = message
        self.position = position
        self.length = length
        self.hint = hint

    def __reduce__(self) -> tuple[object, ...]:
        """How it crosses to another process: its parts as they are, whatever its kind was made of."""
        return _again, (type(self), self.args, self.__dict__)

    def as_dict(self) -> dict[str, str | int]:
        """The error object of the command line and of the HTTP API."""
        return {
            "message": self.message,
            "position": self.position,
            "length": self.length,
            "hint": self.hint,
        }


def _again(kind: type[CoreError], args: tuple[object, ...], parts: dict[str, object]) -> CoreError:
    error = kind.__new__(kind, *args)
    error.args = args
    error.__dict__.update(parts)
    return error


class ReadError(CoreError):
    """The text is not a problem that can be read."""


class LimitError(CoreError):
    """The problem reads well, but a number met on the way is past the limits."""


class SettingError(CoreError):
    """A way of working was asked for by a name or a code that does not exist."""
