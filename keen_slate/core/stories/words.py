"""Words that tell what happens in a story, and verbs in the forms that an answer sentence needs.

Common practice of word problems.
"""

from __future__ import annotations

import re

# Verbs by what they do to an amount: base and past; the third person and the -ing form follow from the base.
_GROW = (
    "add added, gain gained, grow grew, get got, receive received, collect collected, find found, gather gathered, buy "
    "bought, "
    "rise rose, climb climbed, pour poured, fill filled, join joined, bring brought, arrive arrived, earn earned, save "
    "saved, lay laid, "
    "put put, attach attached, plant planted, increase increased, extend extended, borrow borrowed, stretch stretched, "
    "build built, "
    "tie tied, glue glued, nail nailed, pick picked, come came, load loaded, lengthen lengthened, deliver delivered, "
    "screw screwed, solder soldered, knot knotted, sew sewed, pile piled"
)
_SHRINK = (
    "use used, cut cut, chop chopped, saw sawed, give gave, take took, sell sold, lose lost, spend spent, leak leaked, "
    "drain drained, remove removed, "
    "burn burned, fall fell, drop dropped, shrink shrank, melt melted, evaporate evaporated, break broke, trim "
    "trimmed, drink drank, sow sowed, shovel shovelled, spread spread, "
    "pay paid, lend lent, spill spilled, sink sank, tear tore, decrease decreased, return returned, "
    "scoop scooped, unload unloaded, throw threw, hand handed, shorten shortened, empty emptied, ran ran, pull pulled"
)
_OTHER = (
    "have had, be was, walk walked, run ran, hike hiked, ride rode, drive drove, cycle cycled, carry carried, need "
    "needed, make made, hold held, "
    "weigh weighed, measure measured, cost cost, cover covered, work worked, read read, play played, reach reached, "
    "stand stood, swim swam, "
    "travel travelled, contain contained, take took, start started, begin began, record recorded, repair repaired, "
    "mend mended, paint painted, "
    "dig dug, weed weeded, sweep swept, rake raked, mow mowed, water watered, broadcast broadcast, practise practised, "
    "sew sewed, stack stacked, "
    "lift lifted, pump pumped, push pushed, last lasted, wait waited, keep kept, mark marked, share shared, go went, "
    "do did, fly flew, row rowed, stretch stretched, "
    "move moved, remain remained, lie lay, show showed, order ordered, print printed, edit edited, knot knotted, "
    "thread threaded, haul hauled, clear cleared, fetch fetched, flow flowed, change changed, "
    "rain rained, jump jumped, throw threw, roll rolled, bind bound, wind wound, sort sorted, pile piled, spread "
    "spread, screw screwed, solder soldered, paddle paddled, want wanted, hang hung, own owned, know knew, see saw, "
    "shovel shovelled"
)


def words_of(told: str) -> frozenset[str]:
    """The words of a list that is *told* with spaces between them."""
    return frozenset(told.split())


def _pairs(told: str) -> dict[str, str]:
    return {base: past for base, _, past in (pair.partition(" ") for pair in told.split(", "))}


PAST = _pairs(_OTHER) | _pairs(_GROW) | _pairs(_SHRINK)


def third_person(base: str) -> str:
    """A verb as it stands after he, she or it.

    >>> third_person("carry"), third_person("reach"), third_person("have")
    ('carries', 'reaches', 'has')
    """
    if base in ("have", "be"):
        return {"have": "has", "be": "is"}[base]
    if base.endswith("y") and base[-2] not in "aeiou":
        return base[:-1] + "ies"
    return base + ("es" if base.endswith(("s", "sh", "ch", "x", "o")) else "s")


def _ing(base: str) -> str:
    if base.endswith("e") and not base.endswith("ee"):
        return base[:-1] + "ing"
    doubles = re.fullmatch(r"[^aeiou]*[aeiou][bdgmnprt]", base) and base not in ("pour",)
    return base + (base[-1] if doubles else "") + "ing"


def regular_past(base: str) -> str:
    """The past of a verb that is regular.

    >>> regular_past("trim"), regular_past("carry"), regular_past("use")
    ('trimmed', 'carried', 'used')
    """
    if base.endswith("e"):
        return f"{base}d"
    third = third_person(base)
    return third[:-2] + "ed" if third.endswith("ies") else f"{_ing(base)[:-3]}ed"


def past_forms(base: str, past: str | None = None) -> set[str]:
    """The forms of a verb: its base, its *past* (with -ed, where none is given), the third person, and with -ing.

    >>> sorted(past_forms("trim")), sorted(past_forms("use"))
    (['trim', 'trimmed', 'trimming', 'trims'], ['use', 'used', 'uses', 'using'])
    """
    return {base, past or regular_past(base), third_person(base), _ing(base)}


_FORMS = {base: past_forms(base, past) for base, past in PAST.items()}
GROWING = {form for base in _pairs(_GROW) for form in _FORMS[base]} | {"another", "extra", "grown", "risen"}
SHRINKING = {form for base in _pairs(_SHRINK) for form in _FORMS[base]} | words_of(
    "given taken sawn fallen broken torn sunk shrunk thrown"
)
VERB_FORMS = frozenset(form for forms in _FORMS.values() for form in forms)

# Verbs of simply being there; where one stands nearer to a number than a verb of change, the number tells a state.
STAYING = words_of(
    "has have had is are was were be holds held hold shows showed measures measured weighs weighed stands stood "
    "contains contained wants"
)

# Words of a question, or of a statement that gives a total.
TOTAL = re.compile(
    r"\b(?:in all|in total|altogether|all together|together|total|the whole|combined|sum|overall|both|in sum|all "
    r"told|all in all)\b",
    re.I,
)
LEFT = re.compile(
    r"\b(?:left|remain\w*|the rest|still|unused|now|leave\w*|in the end|afterwards|(?<!since )then|finally|rest)\b",
    re.I,
)
FIRST = re.compile(
    r"\b(?:at first|to begin with|at the start|at the beginning|before|originally|in the beginning|to start with|begin "
    r"with|start with|"
    r"began with|started with|beforehand|earlier|at the outset|in the first place)\b", re.I,
)  # fmt: skip
AFTER = re.compile(
    r"\b(?:now|left|remain\w*|in the end|after(?:wards)?|at the end|finally|then there|still|today|this morning|so "
    r"that it is|until|by [a-z]+|only|when|"
    r"is to be|are to be|the rest|back)\b",
    re.I,
)
THAN = re.compile(r"\bthan\b", re.I)
COMPARATIVES = (
    "more|less|fewer|longer|shorter|taller|higher|lower|heavier|lighter|wider|narrower|deeper|farther|further|bigger|"
    "smaller|larger|older|younger|thicker|thinner|closer|nearer|faster|slower|earlier|later|cheaper|dearer"
)
COMPARATIVES_OF_ALL = f"{COMPARATIVES}|warmer|colder|cooler|hotter"  # of temperatures, too
COMPARED = re.compile(rf"\b(?:{COMPARATIVES})\b", re.I)
SMALLER = re.compile(
    r"\b(?:less|fewer|shorter|lower|lighter|narrower|smaller|younger|thinner|closer|nearer|cheaper)\b", re.I
)
EACH = re.compile(r"\b(?:each|every|apiece|per)\b", re.I)
EQUALLY = re.compile(r"\b(?:equal|equally|evenly|same|shared?|shares|sharing|split|splits|divided?|divides)\b", re.I)
SHARED = re.compile(r"\b(?:into|among|between|by|for|with|from)\b")
REST = re.compile(r"\b(?:left|remain\w*|the rest|still|un[a-z]+ed)\b", re.I)
