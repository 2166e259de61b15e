"""What a teacher puts in the place of the core's own: sentences, and the kind of picture of a step."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

Source = Literal["", "example", "set"]


@dataclass(frozen=True, slots=True)
class TeachersWords:
    """*example* maps the key of a step (its kind, and the how-manieth of that kind from 0), *set* its kind alone; what
    is said aloud has " spoken" after it, what is done " title", a kind of picture " picture". A key stays with its step
    when the way of working changes.
    """

    example: Mapping[str, str] = field(default_factory=dict)
    set: Mapping[str, str] = field(default_factory=dict)

    def find(self, kind: str, key: str, suffix: str) -> tuple[str | None, Source]:
        """The teacher's sentence and where it comes from: "example", "set", or "" where there is none."""
        if (sentence := self.example.get(key + suffix)) is not None:
            return sentence, "example"
        if (sentence := self.set.get(kind + suffix)) is not None:
            return sentence, "set"
        return None, ""
