"""The sentence that answers a question, made from the question's own words; where it would be none, the plain form
"Answer: 3 m" stands.

A sentence is kept only where the grammar that reads stories finds in it a subject, a verb in its tense, and one place
for the answer.
"""

from __future__ import annotations

import re

from ..reading.measures import unit_named
from .lexicon import base_of, past_of
from .words import COMPARATIVES_OF_ALL, third_person, words_of

ANSWER = "_"  # where the answer stands in its sentence
PLAIN = f"Answer: {ANSWER}"
_DIMENSION = r"long|high|tall|deep|wide|thick|far|heavy|old|large|big|full|late|short|warm|cold"
_MORE = rf"(?:{COMPARATIVES_OF_ALL}|late)"
_IS = r"is|are|was|were"
_BY = words_of("grow rise fall drop increase shrink sink change decrease lengthen")
_WEIGHS = {"is": "weighs", "are": "weigh", "was": "weighed", "were": "weighed"}
_DETERMINERS = words_of("the a an his her its their this that our your my no some each both")
_OBJECTS = words_of("her him them me us you it")
_MODALS = words_of("can will must could should would may might")
_PRONOUNS = words_of("he she it they we you i this that there")


def answer_sentence(question: str, nouns: tuple[str, ...] = ()) -> str:
    """The sentence that answers *question*, with `ANSWER` for the answer and its label (*nouns*: what the label already
    says).

    >>> answer_sentence("How long is the plank now?")
    'The plank is _ long now.'
    >>> answer_sentence("How much rope did Alder use?", ("m",))
    'Alder used _ of rope.'
    >>> answer_sentence("How many metres are left?", ("metres",))
    '_ are left.'
    """
    begin = re.search(r"\b(?:(?:by|for|at|in) )?(?:how|what|where|which|when)\b", question, re.I)
    asked = question[begin.start() if begin else 0 :].strip().rstrip("?.! ").strip()
    asked = re.sub(r",? (?:if|when|given that) .*$|, in [a-z ]+$", "", asked)
    for pattern, answer in _PATTERNS:
        found = re.fullmatch(pattern, asked, re.I)
        said = answer(found, nouns) if found else None
        if said is not None and _sound(said := _sentence(said)):
            return said
    return PLAIN


def _sentence(said: str) -> str:
    tidy = re.sub(r"\s+", " ", said).strip().rstrip(".")
    return f"{tidy[0].upper()}{tidy[1:]}."


def _sound(said: str) -> bool:
    """Whether a sentence has one place for the answer, a verb, and a subject that is none."""
    words = re.findall(r"[^\W\d_]+(?:['’-][^\W\d_]+)*|_", said)
    if words.count(ANSWER) != 1 or not any(base_of(word) for word in words):
        return False
    first = words[0].lower()
    if (
        first != ANSWER
        and base_of(first)
        and first not in _DETERMINERS
        and not (words[1:2] and base_of(words[1]))
        and first not in ("here",)
    ):
        return False
    after = said.partition(ANSWER)[2]
    return (
        re.match(
            rf" of (?:{_MORE}|degrees|fraction|part|times|as)\b| (?:is|was|are|were) (?:he|she|it|they|that|this)\b",
            after,
        )
        is None
    )


# The forms of questions ----------------------------------------------------------------------------------------------


def _dimension(found: re.Match[str], nouns: tuple[str, ...]) -> str:
    how, verb, subject = found["how"].lower(), found["verb"].lower(), found["subject"]
    if how == "heavy":
        return _end_last(subject, f"{_WEIGHS[verb]} {ANSWER}")
    return _end_last(
        subject, f"{verb} {ANSWER}{'' if how in ('far', 'large', 'big', 'full', 'warm', 'cold') else f' {how}'}"
    )


def _compared(found: re.Match[str], nouns: tuple[str, ...]) -> str:
    more = re.sub(r"^(more|less|fewer) .*", r"\1", found["more"]).split()[-1]
    other = f" than {found['other']}" if found["other"] else ""
    return _end_last(found["subject"], f"{found['verb']} {ANSWER} {more}") + other


def _compared_late(found: re.Match[str], nouns: tuple[str, ...]) -> str | None:
    subject = found["subject"].strip()
    return f"{subject} {found['verb']} {ANSWER} {found['more']} than {found['other']}"


def _compared_doing(found: re.Match[str], nouns: tuple[str, ...]) -> str | None:
    split = _subject_verb(found["rest"])
    if split is None:
        return None
    subject, verb, rest = split
    more = re.sub(r"^(more|less|fewer) .*", r"\1", found["more"]).split()[-1]
    before, than, other = rest.partition("than ")
    where = before.strip()
    if where.split()[:1] and where.split()[0].lower() in _OBJECTS:
        return f"{subject} {_in_tense(verb, found['aux'])} {where} {ANSWER} {more} {than}{other}"
    return f"{subject} {_in_tense(verb, found['aux'])} {ANSWER} {more} {where} {than}{other}"


def _is_left(found: re.Match[str], nouns: tuple[str, ...]) -> str | None:
    rest, verb = found["rest"], found["verb"]
    first = rest.split()[0].lower()
    if first in ("that", "this", "it") and not found["noun"]:
        return f"{rest.split()[0]} {verb} {ANSWER} {' '.join(rest.split()[1:])}"
    if first in ("he", "she", "they", "it", "we") and rest.split()[-1] in ("short", "late", "missing"):
        return f"{rest.split()[0]} {verb} {ANSWER} {' '.join(rest.split()[1:])}"
    if first in ("he", "she", "they", "it", "we"):
        return f"{rest.split()[0]} {verb} {' '.join(rest.split()[1:])} {ANSWER}"
    of = _of(found["noun"] or "", nouns)
    if first == "there":
        return f"there {verb} {ANSWER}{of} {rest[5:]}"
    return f"{ANSWER}{of} {verb} {rest}"


def _that(found: re.Match[str], nouns: tuple[str, ...]) -> str:
    return f"{found['it']} {found['verb']} {ANSWER}{_of(found['noun'], nouns)} {found['rest'] or ''}"


def _doing(found: re.Match[str], nouns: tuple[str, ...]) -> str | None:
    aux, noun, rest = found["aux"].lower(), found["noun"] or "", found["rest"]
    of = _of(noun, nouns)
    if aux in ("has", "have", "had"):
        return _having(rest, aux, of)
    split = _subject_verb(rest)
    if split is None:
        return None
    subject, verb, rest = split
    by = "by " if verb in _BY else ""
    first, _, more = rest.partition(" ")
    if first.lower() in _OBJECTS:
        return f"{subject} {_in_tense(verb, aux)} {first} {by}{ANSWER}{of} {more}"
    return f"{subject} {_in_tense(verb, aux)} {by}{ANSWER}{of} {rest}"


def _passive(found: re.Match[str], nouns: tuple[str, ...]) -> str:
    return f"{ANSWER}{_of(found['noun'] or '', nouns)} {found['aux']} {found['be']} {found['rest']}"


def _having(rest: str, aux: str, of: str) -> str | None:
    words = rest.split()
    for i, word in enumerate(words[1:], 1):
        if word in ("left", "now", "in", "altogether", "still", "then", "before", "at"):
            return f"{' '.join(words[:i])} {aux} {ANSWER}{of} {' '.join(words[i:])}"
        base = base_of(word)
        if base is not None and word != base and not word.endswith(("s", "ing")):
            by = "by " if base in _BY else ""
            return f"{' '.join(words[:i])} {aux} {word} {by}{ANSWER}{of} {' '.join(words[i + 1 :])}"
    return f"{rest} {aux} {ANSWER}{of}"


def _fraction_done(found: re.Match[str], nouns: tuple[str, ...]) -> str | None:
    split = _subject_verb(found["rest"])
    return split and f"{split[0]} {_in_tense(split[1], found['aux'])} {ANSWER} of {found['whole']} {split[2]}"


def _fraction_is(found: re.Match[str], nouns: tuple[str, ...]) -> str:
    return f"{ANSWER} of {found['whole']} {found['verb']} {found['rest']}"


def _what(found: re.Match[str], nouns: tuple[str, ...]) -> str:
    return _end_last(
        re.sub(r" in square [a-z]+$| in [a-z]+$", "", found["subject"]) or found["subject"], f"{found['verb']} {ANSWER}"
    )


def _what_amount(found: re.Match[str], nouns: tuple[str, ...]) -> str:
    return f"{ANSWER} {found['verb']} {found['rest']}"


def _subject_verb(rest: str) -> tuple[str, str, str] | None:
    """ "the crew use in all" as its subject, its verb and what comes after; None where no verb is known."""
    words = rest.split()
    for i, word in enumerate(words[1:], 1):
        if (
            base_of(word) == word.lower()
            and words[i - 1].lower() not in _DETERMINERS
            and word.lower() not in ("still", "back", "round", "left")
        ):
            return " ".join(words[:i]), word.lower(), " ".join(words[i + 1 :])
    return None


def _in_tense(verb: str, aux: str) -> str:
    aux = aux.lower()
    if aux in _MODALS:
        return f"{aux} {verb}"
    return {"does": third_person(verb), "do": verb, "did": past_of(verb)}[aux]


def _of(noun: str, nouns: tuple[str, ...]) -> str:
    """ " of rope" where the question asks "how much rope", " more rope" where it asks "how much more"; "" where the
    label says it.
    """
    words = noun.split()
    if noun.strip().lower() in nouns:
        return ""
    if words and words[0].lower() in ("whole", "full"):
        words.pop(0)
    more = [words.pop(0)] if words and words[0].lower() in ("more", "less", "fewer") else []
    while words and (words[0].lower() in (*nouns, "of", "money", "degrees", "times") or unit_named(words[0])):
        words = words[1:]
    if words and words[-1].lower() in nouns:
        words = []
    if more:
        return f" {' '.join([*more, *words])}"
    if words and words[0].lower() == "change":
        return f" {' '.join(words)}"
    return f" of {' '.join(words)}" if words else ""


def _times(found: re.Match[str], nouns: tuple[str, ...]) -> str:
    return f"{found['subject']} {found['verb']} {ANSWER} {found['how']} {found['other']}"


def _happening(found: re.Match[str], nouns: tuple[str, ...]) -> str | None:
    """ "How much water came in": the amount itself does something."""
    words = found["rest"].split()
    fraction = found["how"].lower().startswith(("what", "which"))
    if fraction and base_of(words[0]) is not None:
        return f"{ANSWER} {found['rest']}"
    for i, word in enumerate(words):
        base = base_of(word)
        if (
            base is None
            or word.endswith("ing")
            or word.lower() in nouns
            or (
                word.lower() == base
                and i + 1 < len(words)
                and base_of(words[i + 1]) not in (None, words[i + 1].lower())
            )
        ):
            continue
        if (i or found["how"].lower().endswith("many")) and (word.lower() != base or i):
            return f"{ANSWER}{_of(' '.join(words[:i]), nouns)} {' '.join(words[i:])}"
    return None


def _standing(found: re.Match[str], nouns: tuple[str, ...]) -> str | None:
    split = _subject_verb(found["rest"])
    return split and f"{split[0]} {_in_tense(split[1], found['aux'])} at {ANSWER} {split[2]}"


_AT_END = re.compile(
    r"(?P<subject>.+?) (?P<end>in all|in total|altogether|all together|together|now|then|at first|at the "
    r"start|originally|to begin with|in the end|before|in the beginning|"
    r"at noon|in the morning|at the end of [A-Z]\w+)$", re.I,
)  # fmt: skip


def _end_last(subject: str, said: str) -> str:
    """*said* of a subject, where words that close a sentence ("now", "in all") come at its end."""
    found = _AT_END.match(subject) or re.match(
        r"(?P<subject>it|they|he|she|this|that|there) (?P<end>.+)", subject, re.I
    )
    return f"{found['subject']} {said} {found['end']}" if found else f"{subject} {said}"


_AUX = "does|do|did|can|will|must|could|should|would|has|have|had"
_THINGS = r"(?P<noun> .+?)??"
_PATTERNS = (
    (
        r"(?:where|(?:at )?(?:what|which) time|when) "
        r"(?P<aux>does|do|did|can|will|must|could|should|would) (?P<rest>.+)",
        _standing,
    ),
    (rf"how (?P<how>{_DIMENSION}) (?P<verb>{_IS}) (?P<subject>.+)", _dimension),
    (
        rf"by how (?:much|many)(?: [a-z]+)? (?P<verb>{_IS}) (?P<subject>.+) (?P<more>{_MORE}) than (?P<other>.+)",
        _compared_late,
    ),
    (rf"how many times (?P<how>as [a-z]+ as) (?P<other>.+) (?P<verb>{_IS}) (?P<subject>an? .+|the .+)", _times),
    (
        rf"how (?:much|many)? ?(?P<more>(?:more|less|fewer)(?: \S+){{0,2}}?|(?:\w+ )?{_MORE}|\w+ "
        rf"(?:long|wide|high|tall|deep|thick|old)) (?P<verb>{_IS}) (?P<subject>.+?)(?: than (?P<other>.+))?",
        _compared,
    ),
    (
        rf"how (?:much|many)? ?(?P<more>(?:more|less|fewer)(?: \S+){{0,2}}?|(?:\w+ )?{_MORE}) (?P<aux>does|do|did) "
        rf"(?P<rest>.+)",
        _compared_doing,
    ),
    (
        rf"(?:how much|how many|what)(?P<noun> [^<]*?)?? (?P<aux>{_AUX}|is to|are to) (?P<be>be|been) (?P<rest>.+)",
        _passive,
    ),
    (rf"how many(?P<noun>(?: square)? [a-z]+) (?P<verb>{_IS}) (?P<it>that|this)(?P<rest> .+)?", _that),
    (
        rf"(?:what|which) (?:part|fraction|share) of (?P<whole>.+?) (?P<verb>{_IS}|has|have|had) (?P<rest>.+)",
        _fraction_is,
    ),
    (r"(?:what|which) (?:part|fraction|share) of (?P<whole>.+?) (?P<aux>does|do|did) (?P<rest>.+)", _fraction_done),
    (rf"what (?:weight|length|amount|height|distance) (?P<verb>{_IS}) (?P<rest>.+)", _what_amount),
    (rf"(?:how (?:much|many|far)){_THINGS} (?P<verb>{_IS}) (?P<rest>.+)", _is_left),
    (rf"(?:(?:for |by )?how (?:much|many|far|long|high|deep)|what){_THINGS} (?P<aux>{_AUX}) (?P<rest>.+)", _doing),
    (rf"what (?P<verb>{_IS}) (?P<subject>.+)", _what),
    (r"(?P<how>how (?:much|many)|(?:what|which) (?:part|fraction|share)) (?P<rest>.+)", _happening),
)
