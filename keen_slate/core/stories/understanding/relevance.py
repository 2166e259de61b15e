"""Whether a question asks for what the story tells of: its things, its people, its doings, and an amount of that
measure.
"""

from __future__ import annotations

import re
from collections.abc import Sequence

from ...reading.measures import unit_named
from ..lexicon import base_of, verb_in
from ..numbers import CARDINALS
from ..words import COMPARATIVES, words_of
from .abstract import TOKEN, Text
from .amounts import Amount, stem
from .clauses import Fact
from .wording import ADVERBS, AUXILIARIES, DETERMINERS, PREPOSITIONS, PRONOUNS, TURNING, content, words

_MEASURES = (
    (r"\bhow (?:high|tall|deep|wide|thick|far)\b|\b(?:height|width|depth|distance|perimeter)\b|\bwhat "
     r"length\b|\blength\b", ("length",)),
    (r"\bhow (?:much )?(?:long|longer)\b", ("length", "time")),
    (r"\bhow (?:much )?(?:heavy|heavier|lighter)\b|\bweigh(?:s|ed|t)?\b|\bmass\b", ("mass",)),
    (r"\bhow much money\b|\b(?:cost|costs|pay|pays|spend|price|earn)\b", ("money",)),
    (r"\btemperature\b|\bwarmer\b|\bcolder\b|\bcooler\b", ("temperature",)),
    (r"\bhow (?:much )?(?:old|older|younger)\b", ("years", "time")),
    (r"\barea\b|\bsquare (?:m|f|c|y|k)", ("area",)),
    (r"\bhow (?:much )?late\b|\bhow (?:much )?longer did\b", ("time", "length")),
    (r"\bhow much (?:water|milk|juice|oil|paint|ink|petrol)\b", ("capacity", "mass", "length", "count")),
    (r"\bat (?:which|what) (?:level|floor)\b", ("count",)),
)  # fmt: skip
# Words of questions that need not be told before.
_GENERAL = words_of("part fraction share end start beginning total whole rest water money weight length height width "
                    "depth price cost time distance area perimeter "
                    "average mean change amount number temperature latest tip reel difference piece pieces side sides "
                    "mass way round all tip talk noon whistle "
                    "kick-off x thing things kind degrees liquid liquids volume originally month year class crew child "
                    "pupil family friend team group journey trip ride pool ground")  # fmt: skip
_SAY_NOTHING = (
    ADVERBS
    | TURNING
    | PREPOSITIONS
    | PRONOUNS
    | AUXILIARIES
    | DETERMINERS
    | frozenset(COMPARATIVES.split("|"))
    | frozenset(CARDINALS)
    | words_of(
        "other outway backway warmer colder cooler hotter full empty final free possible first second third fourth "
        "fifth last square how what which when where why"
    )
)
_OF_ALL = re.compile(r"\b(?:is|was|are|were) (?:that|it|this)\b")
_DAYS = (
    r"\b(?:(?:Mon|Tues|Wednes|Thurs|Fri|Satur|Sun)day|January|February|March|April|June|July|August|September|October|"
    r"November|December)\b"
)
_DOES = ("does", "comes", "goes", "costs", "shares")
_UNTOLD_DOING = frozenset(
    [
        ("add-to", "change"),
        ("take-from", "change"),
        ("add-to", "start"),
        ("take-from", "start"),
        ("compare", "difference"),
    ]
)
_GENERAL_DOING = words_of(
    "pay cost get fill use own spend take need work serve last go want require fit practise study rest move mark form "
    "cover play carry end stop start line watch call"
)


def _effect(base: str) -> str:
    found = verb_in(base, frozenset())
    return found.effect if found else ""


def of_measure(question: str, answer: Amount, fraction: bool) -> bool:
    """Whether an answer measures what the words of a *question* ask for; a *fraction* has no measure."""
    wanted = [measures for pattern, measures in _MEASURES if re.search(pattern, question, re.I)]
    measure = answer.unit.measure if answer.unit else "years" if stem(answer.noun) == "year" else "count"
    return not wanted or any(measure in measures for measures in wanted) or (answer.unit is None and fraction)


def look_at_question(text: Text, facts: Sequence[Fact], may_name: frozenset[str], situation: str, unknown: str) -> None:
    """Note a doubt where the question speaks of things, people or doings of which the statements do not; some it
    *may_name*.
    """
    question, told = text.question, text.told
    said = told.text[: told.question.start] + told.text[told.question.end :]
    if TOKEN.search(question) or not text.statements or not said.strip():
        return
    known = {stem(word) for word in content(said)} | {base_of(word) for word in words(said)} - {None}
    for word in _unknown_things(words(question), known, may_name, question):
        text.doubt("asks-of-something-else", f"The story does not tell of “{word}”.", word)
    for day in re.findall(_DAYS, question):
        if not re.search(rf"\b{day}\b", said):
            text.doubt("asks-of-something-else", f"The story does not tell of “{day}”.", day)
    doings = _doings(words(question))
    if (
        (situation, unknown) not in _UNTOLD_DOING
        and doings - _GENERAL_DOING
        and not doings & known
        and all(one.effect == "is" for one in facts)
    ):
        text.doubt("asks-of-something-else", "The story does not tell of what is asked.")


def _unknown_things(plain: list[str], known: set[str | None], may_name: frozenset[str], question: str) -> list[str]:
    """The things and people of a question of which nothing is told; what something is made of may be new, where the
    thing is known.
    """
    unknown: list[tuple[str, bool]] = []
    named = 0
    for i, word in enumerate(plain):
        bare = re.sub(r"['’]s?$", "", word)
        before = plain[i - 1].lower() if i else ""
        thing = base_of(bare) is None or before in DETERMINERS | {"of", "how"}
        if bare.lower() in _SAY_NOTHING or unit_named(bare) or not content(bare) or not thing:
            continue
        if stem(bare) in known or (base_of(bare) is not None and base_of(bare) in known):
            named += 1
        elif bare.lower() not in may_name | _GENERAL and stem(bare) not in _GENERAL:
            unknown.append((bare, before in ("of", "how", "much")))
    made_of = named > 0 or _OF_ALL.search(question) is not None
    return [word for word, stuff in unknown if not (stuff and made_of and not word[0].isupper())]


def _doings(plain: list[str]) -> set[str | None]:
    """The verbs of a question that are doings; words that stand as nouns are none."""
    doings: set[str | None] = set()
    for i, word in enumerate(plain):
        before = plain[i - 1] if i else ""
        noun = before.lower() in DETERMINERS | {"of", "how"} or before.endswith(("'s", "’s"))
        base = base_of(word)
        if base is not None and word.lower() != "left" and not noun and _effect(base) in _DOES:
            doings.add(base)
    return doings
