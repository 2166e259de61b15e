"""Why a story is not certain."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Doubt:
    """Why a story is not certain: a *code*, a sentence, and the place in the text that it is about."""

    code: str
    message: str
    position: int
    length: int


class DoubtError(Exception):
    """Nothing can be said of what is asked."""

    def __init__(self, doubt: Doubt) -> None:
        super().__init__(doubt.message)
        self.doubt = doubt
