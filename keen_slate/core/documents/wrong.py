"""A likely wrong working, line by line, as a screen sets it."""

from __future__ import annotations

from ..diagnosing.wrong_working import wrong_working
from ..expressions.typeset import Glyph, Role
from ..expressions.walks import leaves
from ..ways.voices import voice_of
from ..worked import Worked


def wrong_lines(worked: Worked, code: str) -> tuple[tuple[Glyph, ...], ...]:
    """The lines after the problem of who has the misconception *code*, from the wrong one on in its ink; none where
    none can be written.
    """
    likely = next((one for one in worked.likely if one.entry.code == code), None)
    made = wrong_working(worked, likely) if likely else None
    if made is None:
        return ()
    voice = voice_of(worked.working.ways)
    ink: tuple[Role, ...] = ("wrong",)
    return tuple(
        [
            (Glyph("operator", "="), *voice.glyphs(line, ink * len(leaves(line)) if i >= made.wrong else ()))
            for i, line in enumerate(made.lines)
        ]
    )
