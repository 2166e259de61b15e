"""Scenarios: the things that stories are told about, their units and plausible ranges, who does something, with which
verbs.

A line of a scenario is a thing: its kind, its name, its unit, how much of it is plausible (from, to), and

- of a `piece` (something with a length, a weight ...): the word of its size, the verb of taking some off, the verb of
  putting some on;
- of a `stuff` (something that fills a place): where it is, the verb of using it;
- of a `doing` (something that is walked, worked, played): what it is done along, or "".
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from functools import cache
from typing import Any, Literal

from ..errors import ReadError
from ..expressions.tree import value
from ..limits import CODE_LENGTH, MOST_THINGS, TITLE_LENGTH
from ..reading.measures import UNITS, Unit, unit_named
from ..reading.reader import read
from .words import PAST

ThingKind = Literal["piece", "stuff", "doing"]
# The words that each kind of thing has besides its name.
_WORDS: dict[ThingKind, tuple[str, ...]] = {
    "piece": ("size", "use", "put"),
    "stuff": ("where", "use"),
    "doing": ("where",),
}
SIZES = {
    "long": ("longer", "shorter"), "high": ("higher", "lower"), "wide": ("wider", "narrower"),
    "deep": ("deeper", "shallower"),
    "tall": ("taller", "shorter"), "thick": ("thicker", "thinner"),
}  # fmt: skip
_LETTERS = re.compile(r"[^\W\d_<>{}]+(?:[ '’-][^\W\d_<>{}]+){0,3}")


@dataclass(frozen=True, slots=True)
class Thing:
    """Something to tell of.

    *low* to *high* of its *unit* is plausible; *size*, *where*, *use* and *put* are as its kind needs them.
    """

    kind: ThingKind
    name: str
    unit: Unit
    low: Fraction
    high: Fraction
    size: str = ""
    where: str = ""
    use: str = "use"
    put: str = "add"

    def fits(self, number: Fraction) -> bool:
        """Whether there can be so much of it."""
        return self.low <= number <= self.high


@dataclass(frozen=True, slots=True)
class Scenario:
    """A scenario by its *code*: its *things*, and the aliases of those who do something."""

    code: str
    name: str
    things: tuple[Thing, ...]
    doers: tuple[str, ...]


def _scenario(code: str, name: str, doers: str, told: str) -> Scenario:
    return Scenario(code, name, tuple([_thing(line) for line in told.strip().splitlines()]), tuple(doers.split()))


def _thing(line: str) -> Thing:
    of_kind, name, unit, span, *words = [part.strip() for part in line.split("|")]
    low, high = [value(read(end.strip()).expr) for end in span.split(" to ")]
    known = unit_named(unit)
    assert known is not None, f"{unit} is a unit"
    kind = next(one for one in _WORDS if one == of_kind)
    return Thing(kind, name, known, low, high, **dict(zip(_WORDS[kind], words, strict=False)))


@cache
def scenarios() -> dict[str, Scenario]:
    """The scenarios that come with the program, by their codes."""
    return {one.code: one for one in (_trail(), _rain(), _radio(), _kites(), _books(), _stones())}


def _trail() -> Scenario:
    return _scenario("trail", "Building a trail", "Sedge Alder Yarrow Teasel Burdock Sorrel", """
        piece | plank | m | 1/4 to 8 | long | saw | nail
        piece | plank | ft | 1 to 24 | long | saw | nail
        piece | rail | ft | 1/2 to 20 | long | cut | screw
        piece | post | cm | 10 to 250 | tall | saw | glue
        piece | rope | m | 1/4 to 30 | long | cut | tie
        piece | rope | yd | 1/2 to 40 | long | cut | tie
        piece | step | in | 1 to 40 | wide | trim | glue
        piece | fence | m | 1/2 to 90 | long | take | build
        stuff | gravel | kg | 1/4 to 200 | in the barrow | use
        stuff | gravel | lb | 1/2 to 400 | in the barrow | use
        stuff | sand | kg | 1/4 to 150 | in the box | use
        stuff | wood oil | l | 1/8 to 20 | in the can | use
        stuff | bark | kg | 1/4 to 100 | in the sack | spread
        doing | walk | km | 1/8 to 25 | along the trail
        doing | walk | miles | 1/8 to 16 | along the trail
        doing | work | hours | 1/6 to 9 | on the bridge
        doing | dig | hours | 1/6 to 6 | beside the path
    """)  # fmt: skip


def _rain() -> Scenario:
    return _scenario("rain", "Rain and water", "Rush Willow Iris Flag Mint Cress", """
        stuff | rain water | l | 1/8 to 300 | in the barrel | use
        stuff | rain water | gal | 1/8 to 80 | in the barrel | use
        stuff | pond water | l | 1/4 to 200 | in the tub | scoop
        stuff | water | ml | 5 to 950 | in the gauge | spill
        stuff | water | l | 1/8 to 15 | in the can | spill
        stuff | water | qt | 1/4 to 40 | in the bucket | spill
        stuff | water | pt | 1/4 to 30 | in the jug | spill
        piece | hose | m | 1/2 to 40 | long | cut | screw
        piece | hose | ft | 1 to 100 | long | cut | screw
        piece | gutter | m | 1/2 to 12 | long | saw | screw
        piece | snow bank | ft | 1/2 to 12 | high | shovel | pile
        piece | pipe | ft | 1/2 to 60 | long | saw | screw
        piece | dam | cm | 5 to 200 | high | take | build
        doing | pump | minutes | 1/2 to 90 | at the pond
        doing | paddle | km | 1/4 to 20 | along the stream
        doing | paddle | miles | 1/4 to 12 | along the stream
    """)  # fmt: skip


def _radio() -> Scenario:
    return _scenario("radio", "A school radio", "Lark Finch Wren Robin Swift Plover", """
        doing | broadcast | minutes | 1/4 to 120 | from the hall
        doing | broadcast | hours | 1/12 to 8 | from the hall
        doing | practise | hours | 1/6 to 6 | for the show
        doing | edit | hours | 1/6 to 7 | in the studio
        doing | read | minutes | 1/4 to 60 | on air
        doing | play | minutes | 1/4 to 90 | on air
        doing | record | minutes | 1/4 to 90 | in the yard
        piece | cable | m | 1/4 to 50 | long | cut | solder
        piece | cable | ft | 1/2 to 120 | long | cut | solder
        piece | aerial | m | 1/2 to 20 | long | saw | screw
        piece | aerial | ft | 1 to 60 | tall | saw | screw
        piece | shelf | cm | 10 to 240 | wide | saw | glue
        stuff | wire | m | 1/4 to 80 | on the reel | use
        stuff | tape | yd | 1/4 to 60 | on the roll | use
        stuff | foam | kg | 1/8 to 12 | in the bag | use
        stuff | paint | l | 1/8 to 12 | in the tin | use
    """)  # fmt: skip


def _kites() -> Scenario:
    return _scenario("kites", "A kite workshop", "Clover Vetch Thistle Poppy Daisy Tansy", """
        piece | kite tail | m | 1/4 to 15 | long | cut | tie
        piece | kite tail | ft | 1/2 to 40 | long | cut | tie
        piece | ribbon | cm | 5 to 300 | long | cut | sew
        piece | ribbon | in | 1 to 99 | long | cut | sew
        piece | spar | cm | 10 to 200 | long | saw | glue
        piece | spar | in | 2 to 80 | long | saw | glue
        piece | string | m | 1/2 to 100 | long | cut | knot
        piece | banner | ft | 1 to 30 | wide | trim | sew
        stuff | cloth | m | 1/4 to 40 | on the table | use
        stuff | cloth | yd | 1/4 to 45 | on the table | use
        piece | ladder | m | 1/2 to 9 | long | saw | screw
        stuff | thread | m | 1/2 to 200 | on the spool | use
        stuff | glue | ml | 5 to 500 | in the pot | use
        stuff | paint | fl oz | 1/2 to 64 | in the jar | use
        doing | sew | hours | 1/6 to 6 | at the long table
        doing | fly | minutes | 1/2 to 90 | on the hill
        doing | run | km | 1/8 to 10 | with the kite
    """)  # fmt: skip


def _books() -> Scenario:
    return _scenario("books", "A small library's repairs", "Linden Hazel Rowan Aspen Elder Maple", """
        piece | shelf | m | 1/4 to 6 | long | saw | screw
        piece | shelf | ft | 1/2 to 20 | long | saw | screw
        piece | board | in | 2 to 96 | long | saw | glue
        piece | spine | cm | 1 to 60 | long | trim | glue
        piece | pile | in | 1 to 60 | high | take | pile
        piece | pile | cm | 2 to 180 | high | take | pile
        piece | strip | m | 1/8 to 9 | long | cut | sew
        piece | strip | yd | 1/4 to 20 | long | cut | sew
        stuff | book cloth | m | 1/4 to 30 | on the roll | use
        stuff | paper | kg | 1/4 to 40 | in the drawer | use
        stuff | paste | l | 1/8 to 8 | in the pot | use
        stuff | paste | pt | 1/4 to 16 | in the pot | use
        stuff | thread | yd | 1/2 to 120 | on the spool | use
        doing | mend | hours | 1/6 to 7 | in the back room
        doing | sort | hours | 1/6 to 6 | in the cellar
        doing | read | hours | 1/6 to 5 | in the corner
    """)  # fmt: skip


def _stones() -> Scenario:
    return _scenario("stones", "A garden of stones", "Juniper Fern Heath Ivy Bracken Yew", """
        piece | wall | m | 1/2 to 40 | long | take | build
        piece | wall | ft | 1/2 to 60 | long | take | build
        piece | slab | in | 2 to 60 | wide | chop | glue
        piece | slab | cm | 5 to 150 | thick | trim | glue
        piece | pillar | ft | 1 to 15 | tall | saw | build
        piece | heap | ft | 1/2 to 12 | high | shovel | pile
        piece | path | m | 1/2 to 90 | long | take | build
        piece | path | yd | 1 to 90 | long | take | build
        stuff | moss | kg | 1/8 to 20 | in the box | spread
        stuff | moss | lb | 1/4 to 40 | in the box | spread
        stuff | slate | kg | 1/4 to 250 | on the cart | use
        stuff | mortar | kg | 1/4 to 90 | in the tub | use
        stuff | water | l | 1/8 to 60 | in the basin | spill
        stuff | clay | kg | 1/8 to 60 | in the bin | use
        doing | rake | hours | 1/6 to 6 | in the garden
        doing | push | yards | 1 to 300 | with the barrow
        doing | carry | minutes | 1/2 to 90 | up the slope
    """)  # fmt: skip


# A teacher's own ------------------------------------------------------------------------------------------------------


def read_scenario(given: object) -> Scenario:
    """The scenario that a JSON value spells (docs/formats.md). Raises `ReadError` that names the place."""
    if not isinstance(given, Mapping):
        raise _refused(
            "A scenario is an object.", 'Begin with {"name": "A boat yard", "doers": ["Reed"], "things": [...]}.'
        )
    extra = sorted(set(given) - {"format", "version", "code", "name", "doers", "things"})
    if extra:
        raise _refused(f"{extra[0]!r} is no part of a scenario.", "It has name, doers and things.")
    name = _text(given.get("name"), "name", TITLE_LENGTH)
    doers, things = given.get("doers"), given.get("things")
    if not isinstance(doers, list) or not 2 <= len(doers) <= 20:
        raise _refused("doers: there are to be 2 to 20 aliases.", 'Write "doers": ["Reed", "Flax"].')
    if not isinstance(things, list) or not 1 <= len(things) <= MOST_THINGS:
        raise _refused(f"things: there are to be 1 to {MOST_THINGS}.", "Write a list of things.")
    return Scenario(
        _text(given.get("code") or "own", "code", CODE_LENGTH), name, tuple([_own_thing(one, f"things[{i}]") for i,
            one in enumerate(things)]),
        tuple([_word(one, f"doers[{i}]") for i, one in enumerate(doers)]),
    )  # fmt: skip


def _own_thing(given: object, place: str) -> Thing:
    if not isinstance(given, Mapping):
        raise _refused(f"{place}: a thing is an object.", 'Write {"kind": "piece", "name": "oar", "unit": "m", ...}.')
    kind = given.get("kind")
    if not isinstance(kind, str) or kind not in _WORDS:
        raise _refused(f"{place}.kind: it is piece, stuff or doing.", 'Write "kind": "piece".')
    extra = sorted(set(given) - {"kind", "name", "unit", "from", "to", "size", "where", "use", "put"})
    if extra:
        raise _refused(
            f"{place}: {extra[0]!r} is no part of a thing.", "It has kind, name, unit, from, to, and its words."
        )
    unit = unit_named(str(given.get("unit")))
    if unit is None:
        raise _refused(
            f"{place}.unit: {str(given.get('unit'))[:40]!r} is not known.",
            f"Write one of: {', '.join(one.label for one in UNITS[:12])} ...",
        )
    low, high = _number(given.get("from"), f"{place}.from"), _number(given.get("to"), f"{place}.to")
    if not 0 < low < high:
        raise _refused(
            f"{place}: from is to be less than to, and above 0.", "Write how little and how much of it there can be."
        )
    words = {
        key: _word(given.get(key), f"{place}.{key}") for key in _WORDS[kind] if kind != "doing" or given.get(key)
    }  # what is done needs no place
    if kind == "piece" and words["size"] not in SIZES:
        raise _refused(f"{place}.size: {words['size']!r} is not known.", f"Write one of: {', '.join(SIZES)}.")
    verbs = [words.get("use"), words.get("put"), given.get("name") if kind == "doing" else None]
    for verb in verbs:
        if verb is not None and verb not in PAST:
            raise _refused(
                f"{place}: the verb {str(verb)[:40]!r} is not known.", "Take another verb, as it stands after “to”."
            )
    return Thing(kind, _word(given.get("name"), f"{place}.name"), unit, low, high, **words)


def _number(given: object, place: str) -> Fraction:
    try:
        if isinstance(given, (int, str)) and not isinstance(given, bool):
            return value(read(str(given)).expr)
    except (ReadError, ValueError, ZeroDivisionError):
        pass
    raise _refused(f"{place}: a number is needed.", 'Write a whole number, or a text like "1/2".')


def _text(given: object, place: str, most: int) -> str:
    if not isinstance(given, str) or not given.strip() or len(given) > most:
        raise _refused(f"{place}: a text of at most {most} characters is needed.", "Write a few words.")
    return given.strip()


def _word(given: object, place: str) -> str:
    written = _text(given, place, CODE_LENGTH)
    if not _LETTERS.fullmatch(written):
        raise _refused(f"{place}: {written!r} is not read.", "Write up to four words of letters.")
    return written


def _refused(message: str, hint: str) -> ReadError:
    return ReadError(message, 0, 0, hint)


def document_of(scenario: Scenario) -> dict[str, Any]:
    """A scenario as its published document."""
    return {
        "format": "keen-slate/scenario", "version": 1, "code": scenario.code, "name": scenario.name,
        "doers": list(scenario.doers),
        "things": [_document_of_thing(thing) for thing in scenario.things],
    }  # fmt: skip


def _document_of_thing(thing: Thing) -> dict[str, Any]:
    known: dict[str, Any] = {
        "kind": thing.kind,
        "name": thing.name,
        "unit": thing.unit.label,
        "from": str(thing.low),
        "to": str(thing.high),
    }
    return known | {key: getattr(thing, key) for key in _WORDS[thing.kind] if getattr(thing, key)}
