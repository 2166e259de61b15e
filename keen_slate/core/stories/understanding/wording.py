"""Words of sentences as the reader of stories sorts them."""

from __future__ import annotations

import re

from ..lexicon import base_of
from ..words import words_of

DETERMINERS = words_of(
    "the a an his her its their our my your this that these those one another some any what which how such"
)
PREPOSITIONS = words_of("in on at to for from off into out of onto with along by after before during through over "
                        "across near beside "
                        "around between behind under above towards past inside against upon about round among via up "
                        "down beyond below toward within")  # fmt: skip
PRONOUNS = words_of(
    "he she it they them him we us i you there who her his its their that this itself himself herself themselves"
)
AUXILIARIES = words_of(
    "is are was were be been has have had will would can could did does do to being must should shall may might"
)
ADVERBS = words_of("then later afterwards also already so far just first next finally now today yesterday and but "
                   "while when long wide high tall deep heavy "
                   "thick broad more further farther another extra still only away out in off on too soon again early "
                   "late all day morning afternoon "
                   "evening night noon overnight week weekend monday tuesday wednesday thursday friday saturday sunday "
                   "january february march "
                   "april may june july august september october november december spring summer autumn winter left "
                   "over there here "
                   "however since always o'clock midday dawn dusk lunch home back tomorrow together aside apart "
                   "straight clean and or because as such between")  # fmt: skip
# Words that change what a number means. None of them is passed over.
TURNING = words_of("not no never none nor neither without nearly almost about roughly each every per apiece twice "
                   "thrice times double triple doubled halved "
                   "half both equal equally same rest remaining average mean others than less fewer as if until till "
                   "except instead back "
                   "quarter third part parts fraction percent several pair pairs evenly altogether total remainder "
                   "minus plus difference short "
                   "missing owes owe enough least most first-time twice-as ago older younger shared share shares split "
                   "divided "
                   "many few dozen whose perhaps maybe unless otherwise or either")  # fmt: skip
_TELLING = words_of("another other this first second third last one")  # which of two it is
_SMALL = words_of("ones and but then also so already just only now still x")
_TOKEN = re.compile(r"[^\W\d_]+(?:['’-][^\W\d_]+)*")
LITTLE = words_of("in into on onto out off away from to back up over through apart together down by aside home")


def words(said: str) -> list[str]:
    """The words of *said*, without the tokens of numbers; "how many" is one that asks."""
    plain = re.sub(r"\b([Hh]ow) (?:many|much)\b", r"\1", said)
    return _TOKEN.findall(re.sub(r"<\w\d+>", " ", plain))


def content(said: str) -> frozenset[str]:
    """The words of *said* that name something, in small letters and without 's."""
    plain = [re.sub(r"['’]s?$", "", w.lower()) for w in words(said)]
    little = (DETERMINERS - _TELLING) | PREPOSITIONS | PRONOUNS | AUXILIARIES | _SMALL
    return frozenset([w for w in plain if w not in little and base_of(w) not in ("be", "have", "do")])


def names_in(said: str) -> frozenset[str]:
    """The names in *said*, in small letters."""
    known = DETERMINERS | PREPOSITIONS | PRONOUNS | ADVERBS | TURNING | AUXILIARIES
    plain = [re.sub(r"['’]s?$", "", word) for word in words(said)]
    return frozenset(
        [
            w.lower()
            for i, w in enumerate(plain)
            if w[0].isupper() and w.lower() not in known and (i or base_of(w) is None)
        ]
    )
