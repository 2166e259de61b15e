"""An example as it is handed to another process: plain values, no row, no session."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from keen_slate.core.errors import CoreError
from keen_slate.core.teaching.fading import Fading
from keen_slate.core.teaching.points import points_of
from keen_slate.core.teaching.sentences import TeachersWords
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import Worked, work_text
from keen_slate.core.working.keys import step_keys

if TYPE_CHECKING:
    from keen_slate.store.models import Example, ExampleSet


@dataclass(frozen=True, slots=True)
class GivenExample:
    """An example with the *ways* that hold for it, in all that was chosen: the house's, its set's and its own."""

    source: str
    target: str | None
    ways: Mapping[str, str]
    position: int
    words: Mapping[str, str]
    set_words: Mapping[str, str]
    fading: Mapping[str, Any]
    marks: Mapping[str, int]

    def worked(self) -> Worked:
        """It, worked. Raises `CoreError`."""
        return work_text(self.source, Ways.of(self.ways), ".", self.target)

    @property
    def sentences(self) -> TeachersWords:
        """What its teacher wrote in the place of the core's own sentences."""
        return TeachersWords(self.words, self.set_words)

    @property
    def faded(self) -> Fading:
        """What pupils fill in."""
        return fading_of(self.fading)


def fading_of(stored: Mapping[str, Any]) -> Fading:
    """What pupils fill in, as it is stored."""
    return Fading(stored.get("hide", 0), frozenset(stored.get("blanks", ())), stored.get("pause"))


def ways_of(example: Example, house: Mapping[str, str]) -> dict[str, str]:
    """What was chosen for an example: its own ways, else those of its set, else of the *house*."""
    return {**house, **example.example_set.ways, **example.ways}


def given(example_set: ExampleSet, house: Mapping[str, str]) -> list[GivenExample]:
    """The examples of a set."""
    return [
        GivenExample(e.source, e.target, ways_of(e, house), e.position, e.words, example_set.words, e.fading, e.marks)
        for e in example_set.examples
    ]


def each_worked(examples: list[GivenExample]) -> list[tuple[GivenExample, Worked]]:
    """Those that can be worked, each with its working."""
    done = []
    for one in examples:
        try:
            done.append((one, one.worked()))
        except CoreError:
            continue
    return done


def points_in_all(one: GivenExample, worked: Worked) -> int:
    """The points that an example is worth."""
    return sum(part.points for part in points_of(worked.working, step_keys(worked.working), one.marks))
