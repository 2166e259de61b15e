"""What verbs do to an amount: the frames that the second reading of a story knows. A verb that is not here is not understood.

After the idea of verb classes for word problems (change, combine, compare: Riley, Greeno and Heller 1983; verb categories: Hosseini and
others 2014; both from memory). A frame may hang on a particle: what is poured in comes, what is poured out goes.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from typing import Literal

from .words import PAST, past_forms, words_of

Effect = Literal["is", "comes", "goes", "does"]
# Where something is, or how much of it; what comes to it; what goes from it; what somebody does, so much of it.
_FRAMES: dict[Effect, str] = {
    "is": "be have hold contain weigh measure own show stand last cost remain lie keep",
    "comes": "add gain get receive collect find gather buy build earn save borrow bring deliver pick grow rise climb increase lengthen",
    "goes": "use spend lose sell give burn drink pay lend remove drop fall shrink sink melt evaporate leak spill decrease trim "
    "saw cut chop tear break eat sow unload scoop drain shorten donate waste crumble spread",
    "does": "walk run ride drive cycle swim hike jog travel row paddle jump throw practise work read play mow dig weed rake sweep "
    "sew knit fly sail lay plant hammer rest sleep train study carry move need haul pull push record edit mend repair broadcast paint make sort print",
}
# With one of these words after it (or after its number) a verb does this.
_PARTICLES: dict[str, dict[str, Effect]] = {
    "pour": {"in": "comes", "into": "comes", "out": "goes", "off": "goes", "away": "goes", "from": "goes"},
    "fill": {"in": "comes", "into": "comes"},
    "put": {"in": "comes", "into": "comes", "on": "comes", "onto": "comes"},
    "take": {"out": "goes", "off": "goes", "away": "goes", "from": "goes"},
    "run": {"in": "comes", "into": "comes", "out": "goes", "off": "goes"},
    "flow": {"in": "comes", "into": "comes", "out": "goes", "off": "goes"},
    "come": {"in": "comes", "into": "comes"},
    "throw": {"away": "goes", "in": "comes", "into": "comes"},
    "pump": {"in": "comes", "into": "comes", "out": "goes", "off": "goes"},
    "load": {"on": "comes", "onto": "comes", "in": "comes", "into": "comes"},
    "tie": {"on": "comes", "to": "comes"},
    "glue": {"on": "comes", "to": "comes"},
    "screw": {"on": "comes", "to": "comes"},
    "solder": {"on": "comes", "to": "comes"},
    "nail": {"on": "comes", "to": "comes"},
    "knot": {"on": "comes", "to": "comes"},
    "attach": {"on": "comes", "to": "comes"},
}
# Particles after which nothing is known of the others ("give back", "use up" of all there was, "add up").
STRANGE = words_of("back up over")
_IRREGULAR = {
    "is": "be", "are": "be", "was": "be", "were": "be", "been": "be", "am": "be", "has": "have", "had": "have", "given": "give", "taken": "take",
    "fallen": "fall", "grown": "grow", "risen": "rise", "sunk": "sink", "shrunk": "shrink", "eaten": "eat", "ate": "eat", "broken": "break",
    "torn": "tear", "sawn": "saw", "ridden": "ride", "driven": "drive", "flown": "fly", "thrown": "throw", "knitted": "knit", "slept": "sleep",
    "ran": "run", "rode": "ride", "drove": "drive", "drank": "drink", "drunk": "drink", "sewn": "sew", "studied": "study",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Verb:
    """A verb of a clause: its base, and what it does to the amount beside it."""

    base: str
    effect: Effect


@cache
def _bases() -> dict[str, str]:
    """Every form of every verb that is known, to its base."""
    bases = {base for told in _FRAMES.values() for base in told.split()} | set(_PARTICLES)
    return {form: base for base in bases for form in past_forms(base, PAST.get(base))} | _IRREGULAR


def base_of(word: str) -> str | None:
    """The base of a form of a verb that is known; None of another word.

    >>> base_of("poured"), base_of("spent"), base_of("plank")
    ('pour', 'spend', None)
    """
    return _bases().get(word.lower())


def verb_in(word: str, particles: frozenset[str]) -> Verb | None:
    """What a verb does with these *particles* after it; None where that is not known.

    >>> verb_in("poured", frozenset({"out"})), verb_in("takes", frozenset())
    (Verb(base='pour', effect='goes'), None)
    """
    base = base_of(word)
    if base is None or (particles & STRANGE and base not in _FRAMES["is"].split()):
        return None
    if base in _PARTICLES:
        effects = {_PARTICLES[base][one] for one in particles if one in _PARTICLES[base]}
        if effects or not any(base in told.split() for told in _FRAMES.values()):
            return Verb(base, effects.pop()) if len(effects) == 1 else None
    return next((Verb(base, effect) for effect, told in _FRAMES.items() if base in told.split()), None)
