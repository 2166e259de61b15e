"""The verb of a clause: which of its words it is, and what it does to the number."""

from __future__ import annotations

from ..lexicon import Verb, base_of, verb_in
from ..words import words_of
from .wording import (
    AUXILIARIES,
    DETERMINERS,
    PREPOSITIONS,
    PRONOUNS,
)

TIMES = words_of("second minute hour day week month year night morning evening")


def taking_time(word: str) -> Verb | None:
    """What is told with a time: how long something takes, or how long somebody does it."""
    verb = verb_in(word, frozenset())
    base = base_of(word)
    if base in ("take", "last", "spend", "need", "use", "go", "stop", "run", "come"):
        return Verb("last", "does")
    if verb and verb.effect in ("is", "does"):
        return verb
    return Verb(base, "does") if base and not (verb and verb.effect in ("comes", "goes")) else None


def verb_at(ahead: list[str], behind: list[str]) -> tuple[int, str | None]:
    """The verb of a clause: the last one before the number that is no auxiliary, else the first one after it."""
    unsure = -1
    for i in range(len(ahead) - 1, -1, -1):
        base = base_of(ahead[i])
        if (
            base
            and base not in ("do", "begin", "start", "call")
            and not is_noun(ahead, i)
            and not (i == 0 and ahead[i][0].isupper() and not ahead[i].endswith("ed"))
        ):
            if not _after_adjective(ahead, i):
                return i, ahead[i]
            unsure = i if unsure < 0 else unsure
    verbs = [
        word
        for i, word in enumerate(behind[:8])
        if base_of(word)
        and word != "left"
        and base_of(word) != "do"
        and not is_noun(behind, i)
        and _stands_as_verb(behind, i)
    ]
    doing = [word for word in verbs if base_of(word) not in ("be", "have")]
    if not verbs and unsure >= len(ahead) - 2 >= 0:
        return unsure, ahead[unsure]
    return len(ahead), next(iter(doing or verbs), None)


def is_noun(said: list[str], i: int) -> bool:
    """Whether a word that is a verb as well stands as a noun: after a determiner, a preposition or an owner."""
    if i == 0:
        return False
    last = said[i - 1]
    if last.lower() in ("to", "then", "that", "who", "which", "there"):
        return False
    if last.lower() in PREPOSITIONS and _past(said[i]):
        return False
    return last.lower() in DETERMINERS | PREPOSITIONS or last.endswith(("'s", "’s"))


def _stands_as_verb(said: list[str], i: int) -> bool:
    """Whether a word after a number is no thing of which it is so much: "2 kg of blue paint"."""
    return i == 0 or said[i].lower() != base_of(said[i]) or said[i - 1].lower() in PRONOUNS | AUXILIARIES


def _after_adjective(said: list[str], i: int) -> bool:
    """Whether a word may be a noun with another word before it: "his morning walk"."""
    last = said[i - 1] if i else ""
    return (
        i > 1
        and said[i - 2].lower() in DETERMINERS
        and not base_of(last)
        and not last[0].isupper()
        and not last.endswith("s")
        and said[i].lower() == base_of(said[i]) not in ("be", "have")
    )


def _past(word: str) -> bool:
    """Whether a word is a verb in the past."""
    return base_of(word) not in (None, word.lower()) and not word.endswith(("s", "ing"))
