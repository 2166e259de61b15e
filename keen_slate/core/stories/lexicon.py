"""What verbs do to an amount: the frames that the reader of stories knows. A verb that is not here is not understood.

After the idea of verb classes for word problems (change, combine, compare: Riley, Greeno and Heller 1983; verb
categories: Hosseini and others 2014; both from memory). A frame may hang on a particle: what is poured in comes, what
is poured out goes.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from typing import Literal

from .words import PAST, past_forms, regular_past, words_of

Effect = Literal["is", "comes", "goes", "does", "shares", "costs"]

# What something is, or how much of it; what comes; what goes; what is done, so much of it; what is parted; what is paid
# for a thing.
_FRAMES: dict[Effect, str] = {
    "is": "be have hold contain weigh measure own show stand last remain lie keep stay reach cover fit seat stretch "
          "form total number belong",
    "comes": "mix blend combine add gain get receive collect find gather buy build earn save borrow bring deliver pick "
             "grow rise climb increase lengthen win catch "
    "harvest swell mount ascend expand accumulate obtain acquire inherit import refill replenish top extend join "
    "attach fix stick pile stack heap "
    "gift raise hatch arrive land plant deposit stock",
    "goes": "use spend lose sell give burn lend remove drop fall shrink sink melt evaporate leak spill decrease trim "
            "saw cut chop tear break eat sow "
    "unload scoop drain shorten donate waste crumble spread consume drip escape erode wither slip slide descend dip "
    "slice clip snip snap hack carve "
    "subtract withdraw deduct discard dump scrape rub wear rot decay bake hand pass post mail ship export rent trade "
    "swap unpack "
    "uproot fell prune rip peel strip drink swallow gulp nibble feed scatter sprinkle spray squirt empty strike erase "
    "cool "
    "apply vanish disappear leave depart thaw burst shed sacrifice plane file grind polish chip",
    "does": "fill walk run ride drive cycle swim hike jog travel row paddle jump throw practise practice work play mow "
            "dig weed rake sweep sew knit fly sail "
    "lay hammer rest sleep train study carry move need haul pull push record edit mend repair broadcast paint make "
    "sort print write draw read march "
    "wander stroll tramp trek trot gallop sprint crawl creep skate ski sled canoe kayak glide float drift steer tow "
    "shift lift hoist roll "
    "toss hurl kick hit bowl shoot leap hop skip dance sing drum rehearse perform act sketch colour color varnish "
    "plaster tile wallpaper cook stir boil "
    "wash iron fold dry clean scrub dust hoover vacuum tidy water hoe plough plow fence hedge shovel stitch weave spin "
    "crochet embroider "
    "hem quilt type copy bind photocopy scan call phone chat talk listen watch wait queue sunbathe nap sit exercise "
    "juggle fish hunt "
    "camp explore visit tour guard patrol teach tutor babysit shop help volunteer film photograph program code solve "
    "answer calculate pack "
    "wrap label load stamp rain snow hail drizzle pave tar surface dredge tunnel drill excavate log mine quarry tape "
    "edge line decorate "
    "learn memorise memorize revise serve require want demand cater produce manufacture assemble weld solder screw "
    "nail "
    "glue tie knot clear prepare finish complete mark correct grade inspect check test survey map trace lead follow "
    "pedal coast",
    "shares": "share divide split part distribute halve separate portion",
    "costs": "cost pay charge",
}  # fmt: skip
# With one of these words after it (or after its number) a verb does this.
_IN = words_of("in into on onto")
_OUT = words_of("out off away from")
_BOTH = (
    "pour pump flow run load shovel tip let siphon ladle squeeze stream suck tap trickle seep blow move carry roll "
    "push pull draw hand channel"
)
_PARTICLES: dict[str, dict[str, Effect]] = {
    **{base: {**dict.fromkeys(_IN, "comes"), **dict.fromkeys(_OUT, "goes")} for base in _BOTH.split()},
    "fill": dict.fromkeys(_IN, "comes"),
    "put": {**dict.fromkeys(_IN, "comes"), "aside": "goes"},
    "take": {**dict.fromkeys(_OUT, "goes"), "up": "does", "of": "goes"},
    "come": {**dict.fromkeys(_IN, "comes"), "home": "is", "out": "goes", "off": "goes", "from": "goes"},
    "throw": {"away": "goes", "in": "comes", "into": "comes"},
    "go": {"into": "comes", "out": "goes", "off": "goes", "up": "comes", "down": "goes", "away": "goes", "on": "goes"},
    "creep": {"up": "comes", "down": "goes", "back": "goes"},
    "crawl": {"up": "comes", "down": "goes", "back": "goes"},
    "climb": {"up": "comes", "down": "goes", "back": "goes"},
    "slide": {"back": "goes", "down": "goes"},
    "slip": {"back": "goes", "down": "goes"},
    "move": {"up": "comes", "down": "goes"},
    "glue": dict.fromkeys(words_of("on onto to"), "comes"),
    "tie": dict.fromkeys(words_of("on onto to"), "comes"),
    "screw": dict.fromkeys(words_of("on onto to"), "comes"),
    "solder": dict.fromkeys(words_of("on onto to"), "comes"),
    "nail": dict.fromkeys(words_of("on onto to"), "comes"),
    "knot": dict.fromkeys(words_of("on onto to"), "comes"),
    "sew": dict.fromkeys(words_of("on onto to"), "comes"),
    "attach": dict.fromkeys(words_of("on onto to"), "comes"),
    "use": {"up": "goes"}, "eat": {"up": "goes"}, "drink": {"up": "goes"},
    "cut": dict.fromkeys(words_of("off away up"), "goes"),
    "rake": {"up": "comes"}, "pick": {"up": "comes"}, "top": {"up": "comes"}, "save": {"up": "comes"},
    "dig": {"up": "goes", "in": "comes"},
    "sweep": {"up": "goes", "away": "goes"}, "give": {"away": "goes", "to": "goes"}, "lift": {"out": "goes"},
    "paint": {"with": "does"}, "wash": {"away": "goes"}, "wear": {"away": "goes", "off": "goes"},
    "break": {"off": "goes"},
    "rise": {"by": "comes"}, "fall": {"by": "goes", "to": "is"}, "write": {"down": "does"},
    "burn": {"down": "goes", "up": "goes"},
    "drip": {"in": "comes", "into": "comes", "out": "goes", "from": "goes"},
    "leak": {"in": "comes", "into": "comes", "out": "goes", "from": "goes"},
}  # fmt: skip
# Particles after which nothing is known of the others ("give back", "add up").
STRANGE = words_of("back over")
# Past and participle where they do not follow from the base.
_IRREGULAR = {
    form: base for base, forms in {
        "be": "is are was were been am being", "have": "has had having", "give": "gave given", "take": "took taken",
        "fall": "fell fallen", "grow": "grew grown", "rise": "rose risen", "sink": "sank sunk",
        "shrink": "shrank shrunk", "eat": "ate eaten", "break": "broke broken", "tear": "tore torn",
        "saw": "sawn sawed", "ride": "rode ridden", "drive": "drove driven", "fly": "flew flown",
        "throw": "threw thrown", "knit": "knitted", "sleep": "slept", "run": "ran", "drink": "drank drunk",
        "sew": "sewed sewn", "study": "studied", "hold": "held", "stand": "stood", "lie": "lay lain", "keep": "kept",
        "get": "got gotten", "find": "found", "buy": "bought", "build": "built", "bring": "brought", "win": "won",
        "catch": "caught", "stick": "stuck", "spend": "spent", "lose": "lost", "sell": "sold", "lend": "lent",
        "melt": "molten", "sow": "sowed sown", "slide": "slid", "let": "let", "wear": "wore worn", "feed": "fed",
        "strike": "struck", "leave": "left", "burst": "burst", "shed": "shed", "grind": "ground", "swim": "swam swum",
        "dig": "dug", "sweep": "swept", "lay": "laid", "make": "made", "write": "wrote written", "draw": "drew drawn",
        "creep": "crept", "hit": "hit", "shoot": "shot", "leap": "leapt", "sing": "sang sung", "weave": "wove woven",
        "spin": "spun", "bind": "bound", "sit": "sat", "teach": "taught", "learn": "learnt", "lead": "led",
        "split": "split", "put": "put", "come": "came", "go": "went gone", "pay": "paid", "blow": "blew blown",
        "mow": "mown", "cut": "cut", "burn": "burnt", "spill": "spilt", "cost": "cost", "read": "read",
        "swell": "swollen", "spread": "spread", "rip": "ripped", "slip": "slipped", "prune": "pruned",
        "do": "did done does", "begin": "began begun", "say": "said", "tell": "told", "know": "knew known",
        "choose": "chose chosen", "meet": "met", "hang": "hung", "wind": "wound", "swing": "swung", "see": "saw seen",
        "become": "became", "set": "set", "start": "started", "hear": "heard", "light": "lit", "fit": "fitted",
        "travel": "travelled traveled", "label": "labelled", "permit": "permitted", "dip": "dipped", "fill": "filled",
    }.items() for form in forms.split()
}  # fmt: skip
_PAST_IS_REGULAR = words_of("mow saw sew sow swell burn learn spill")  # whose participle or other past is not
# Verbs that say nothing of an amount.
_PLAIN = words_of(
    "like wish intend plan hope decide try want would go come set start begin stop end finish open close live see meet "
    "see hang know think say tell choose enter call invite believe expect help allow turn return happen become look "
    "feel permit begin"
)


@dataclass(frozen=True, slots=True)
class Verb:
    """A verb of a clause: its base, and what it does to the amount beside it."""

    base: str
    effect: Effect


@cache
def _effects() -> dict[str, Effect]:
    return {base: effect for effect, told in _FRAMES.items() for base in told.split()}


@cache
def _bases() -> dict[str, str]:
    """Every form of every verb that is known, to its base."""
    bases = set(_effects()) | set(_PARTICLES) | _PLAIN
    return {form: base for base in bases for form in past_forms(base)} | _IRREGULAR


def base_of(word: str) -> str | None:
    """The base of a form of a verb that is known; None of another word.

    >>> base_of("poured"), base_of("spent"), base_of("plank")
    ('pour', 'spend', None)
    """
    return _bases().get(word.lower())


_PASTS = {base: form for form, base in reversed(_IRREGULAR.items()) if base not in ("be", "have", "do")}
_PASTS |= {"have": "had", "be": "was", "do": "did"}


def past_of(base: str) -> str:
    """The past of a verb.

    >>> past_of("take"), past_of("carry"), past_of("fit"), past_of("mow")
    ('took', 'carried', 'fitted', 'mowed')
    """
    if base in _PAST_IS_REGULAR:
        return regular_past(base)
    return PAST.get(base) or _PASTS.get(base) or regular_past(base)


def verb_in(word: str, particles: frozenset[str]) -> Verb | None:
    """What a verb does with these *particles* after it; None where that is not known.

    >>> verb_in("poured", frozenset({"out"})), verb_in("takes", frozenset())
    (Verb(base='pour', effect='goes'), None)
    """
    base = base_of(word)
    if base is None:
        return None
    usual = _effects().get(base)
    if base in _PARTICLES:
        effects = {_PARTICLES[base][one] for one in particles if one in _PARTICLES[base]}
        if len(effects) == 1:
            return Verb(base, effects.pop())
        if effects or usual is None:
            return None
    if usual is None or (particles & STRANGE and usual in ("comes", "goes")):
        return None
    return Verb(base, usual)


def particles_of(base: str) -> frozenset[str]:
    """The particles that say what a verb does."""
    return frozenset(_PARTICLES.get(base, ()))
