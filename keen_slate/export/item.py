"""An example as papers need it."""

from __future__ import annotations

from dataclasses import dataclass

from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.expressions.voice import Voice
from keen_slate.core.teaching.fading import Fading
from keen_slate.core.teaching.points import Points, points_of
from keen_slate.core.teaching.sentences import TeachersWords
from keen_slate.core.ways.voices import voice_of
from keen_slate.core.worked import Worked
from keen_slate.core.working.keys import step_keys
from keen_slate.core.working.proof import Working


@dataclass(frozen=True, slots=True)
class Item:
    """An example with what its teacher put in the place of the core's own."""

    worked: Worked
    sentences: TeachersWords
    fading: Fading
    points: dict[str, int]

    @property
    def working(self) -> Working:
        """Its working."""
        return self.worked.working

    @property
    def voice(self) -> Voice:
        """How its class says things."""
        return voice_of(self.working.ways)

    def title(self, index: int) -> list[Glyph]:
        """What is done in a step, in its teacher's words where she has some."""
        written = self._own_title(index)
        return self.voice.typeset(self.working.steps[index].title) if written is None else [Glyph("words", written)]

    def plain_title(self, index: int) -> str:
        """The same as text."""
        written = self._own_title(index)
        return self.voice.plain(self.working.steps[index].title) if written is None else written

    def _own_title(self, index: int) -> str | None:
        step = self.working.steps[index]
        return self.sentences.find(step.kind.code, step_keys(self.working)[index], " title")[0]

    def worth(self) -> list[Points]:
        """Its points, a teacher's own among them."""
        return points_of(self.working, step_keys(self.working), self.points)
