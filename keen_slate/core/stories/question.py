"""The sentences of a story, the one that asks, and the sentence that answers it."""

from __future__ import annotations

import re
from dataclasses import dataclass

from ..errors import ReadError
from ..reading.measures import Unit, unit_named
from .words import BASES, COMPARATIVES, PAST, VERB_FORMS, third_person, words_of

# A full stop within a number or after a short form that goes on in small letters ends no sentence.
_END = re.compile(r"[.!?]+(?=\s+[^a-z\s]|\s*$)|\?+|\n+")
_ASKS = re.compile(r"\b(?:how|what|which|find|work out|calculate|tell)\b", re.I)
_COMMANDS = re.compile(r"^(?:find|work out|calculate|tell)\b", re.I)
_VERBS = words_of("is are was were can does do did will has have had of in must remain remains")
ANSWER = "_"  # where the answer stands in its sentence


@dataclass(frozen=True, slots=True)
class Sentence:
    """A sentence of a story from character *start* to *end*, without the spaces around it."""

    text: str
    start: int
    end: int

    @property
    def asks(self) -> bool:
        """Whether it is a question, or tells to find something."""
        return self.text.endswith("?") or (_COMMANDS.match(self.text) is not None)


def sentences(text: str) -> list[Sentence]:
    """The sentences of *text*.

    >>> [s.text for s in sentences("It is 2.5 m long. Sedge cuts 3 in. off. How long is it now?")]
    ['It is 2.5 m long.', 'Sedge cuts 3 in. off.', 'How long is it now?']
    """
    done, at = [], 0
    for found in [*_END.finditer(text), None]:
        end = found.end() if found else len(text)
        piece = text[at:end]
        start = at + len(piece) - len(piece.lstrip())
        if piece.strip():
            done.append(Sentence(piece.strip(), start, start + len(piece.strip())))
        at = end
    return done


def question_of(told: list[Sentence], text: str) -> Sentence:
    """The one sentence that asks. Raises `ReadError` where there is none, or two."""
    asking = [one for one in told if one.asks]
    if not asking:
        raise ReadError(
            "Nothing is asked in this story.", len(text), 0, "End it with a question, like: How much is left?"
        )
    if len(asking) > 1:
        second = asking[1]
        raise ReadError(
            "The story asks two questions.",
            second.start,
            second.end - second.start,
            "Keep one of them for each example.",
        )
    return asking[0]


def asked_unit(question: str) -> Unit | None:
    """The unit that a question asks for: "How many centimetres ..."."""
    for found in re.finditer(r"\b(?:how many|in) (square [a-z]+|[a-z]+)", question, re.I):
        unit = unit_named(found.group(1)) or unit_named(found.group(1).split()[-1])
        if unit is not None:
            return unit
    return None


def asked_noun(question: str) -> str | None:
    """The things that a question counts: "How many planks ..."; None where it asks for an amount."""
    found = re.search(r"\bhow many(?: more| fewer)? (?P<words>[a-z-]+(?: [a-z-]+)?)", question, re.I)
    if found is None:
        return None
    first, *second = found["words"].lower().split()
    if unit_named(first) or first in _VERBS:
        return None
    return (
        second[0]
        if second and second[0].endswith("s") and second[0] not in _VERBS and not first.endswith("s")
        else first
    )


# The answer sentence --------------------------------------------------------------------------------------------------

_DIMENSION = r"long|high|tall|deep|wide|thick|far|heavy|old|large|big|full"
_IS = r"is|are|was|were"
_BY = words_of("grow rise fall drop increase shrink sink change decrease")
_GROWN = words_of("grown risen fallen dropped increased shrunk sunk changed decreased")
_WEIGHS = {"is": "weighs", "are": "weigh", "was": "weighed", "were": "weighed"}
_DETERMINERS = words_of("the a an his her its their this that our your my no")
_ENDINGS = words_of("left needed there missing over used in altogether still gone remaining")


def answer_sentence(question: str, nouns: tuple[str, ...] = ()) -> str:
    """The sentence that answers *question*, with `ANSWER` for the answer and its label (*nouns*: what the label already says).

    >>> answer_sentence("How long is the plank now?")
    'The plank is _ long now.'
    >>> answer_sentence("How much rope did Alder use?", ("m",)), answer_sentence("How many metres are left?", ("metres",))
    ('Alder used _ of rope.', '_ are left.')
    """
    begin = re.search(r"\b(?:how|what|where)\b", question, re.I)
    asked = question[begin.start() if begin else 0 :].strip().rstrip("?").strip()
    for pattern, answer in _PATTERNS:
        if (found := re.fullmatch(pattern, asked, re.I)) is not None and (said := answer(found, nouns)) is not None:
            return _sentence(said)
    return f"The answer is {ANSWER}."


def _sentence(said: str) -> str:
    tidy = re.sub(r"\s+", " ", said).strip().rstrip(".")
    return f"{tidy[0].upper()}{tidy[1:]}."


def _dimension(found: re.Match[str], nouns: tuple[str, ...]) -> str:
    how, verb, subject = found["how"].lower(), found["verb"].lower(), found["subject"]
    if how == "heavy":
        return _end_last(subject, f"{_WEIGHS[verb]} {ANSWER}")
    return _end_last(subject, f"{verb} {ANSWER}{'' if how in ('far', 'large', 'big', 'full') else f' {how}'}")


def _compared(found: re.Match[str], nouns: tuple[str, ...]) -> str:
    more = re.sub(r"^(more|less|fewer) .*", r"\1", found["more"]).split()[-1]
    return _end_last(found["subject"], f"{found['verb']} {ANSWER} {more}") + f" than {found['other']}"


def _compared_doing(found: re.Match[str], nouns: tuple[str, ...]) -> str | None:
    split = _subject_verb(found["rest"])
    if split is None:
        return None
    subject, verb, rest = split
    before = re.match(r"(.*?) ?\b(than .*)", rest)
    ended = f"{before.group(1)} " if before and before.group(1) else ""
    more = re.sub(r"^(more|less|fewer) .*", r"\1", found["more"])
    than = before.group(2) if before else rest
    return f"{subject} {_in_tense(verb, found['aux'])} {ANSWER} {more} {ended}{than}"


def _is_left(found: re.Match[str], nouns: tuple[str, ...]) -> str | None:
    rest = found["rest"]
    if rest.split()[0].lower() not in _ENDINGS and not found["noun"]:
        return _end_last(rest, f"{found['verb']} {ANSWER}")
    of = _of(found["noun"] or "", nouns)
    if rest.lower().startswith("there"):
        return f"there {found['verb']} {ANSWER}{of} {rest[5:]}"
    return f"{ANSWER}{of} {found['verb']} {rest}"


def _doing(found: re.Match[str], nouns: tuple[str, ...]) -> str | None:
    aux, of = found["aux"].lower(), _of(found["noun"] or "", nouns)
    if aux in ("has", "have", "had"):
        return _having(found["rest"], aux, of)
    split = _subject_verb(found["rest"])
    if split is None:
        return None
    subject, verb, rest = split
    by = "by " if verb in _BY else ""
    return f"{subject} {_in_tense(verb, aux)} {by}{ANSWER}{of} {rest}"


def _having(rest: str, aux: str, of: str) -> str | None:
    words = rest.split()
    for i, word in enumerate(words[1:], 1):
        if word in ("left", "now", "in", "altogether", "still", "then"):
            return f"{' '.join(words[:i])} {aux} {ANSWER}{of} {' '.join(words[i:])}"
        if word.endswith(("ed", "en", "own")) or word in PAST.values():
            by = "by " if word in _GROWN else ""
            return f"{' '.join(words[:i])} {aux} {word} {by}{ANSWER}{of} {' '.join(words[i + 1 :])}"
    return f"{rest} {aux} {ANSWER}{of}"


def _what(found: re.Match[str], nouns: tuple[str, ...]) -> str:
    return _end_last(found["subject"], f"{found['verb']} {ANSWER}")


def _subject_verb(rest: str) -> tuple[str, str, str] | None:
    """ "the crew use in all" as its subject, its verb and what comes after; None where no verb is known."""
    words = rest.split()
    for i, word in enumerate(words[1:], 1):
        if word.lower() in BASES and words[i - 1].lower() not in _DETERMINERS:
            return " ".join(words[:i]), word.lower(), " ".join(words[i + 1 :])
    return None


def _in_tense(verb: str, aux: str) -> str:
    aux = aux.lower()
    if aux in ("can", "will", "must", "could", "should"):
        return f"{aux} {verb}"
    return {"does": third_person(verb), "do": verb, "did": PAST.get(verb, verb)}[aux]


def _of(noun: str, nouns: tuple[str, ...]) -> str:
    """ " of rope" where the question asks "how much rope", " more rope" where it asks "how much more"; "" where the label says it."""
    words = noun.split()
    more = [words.pop(0)] if words and words[0].lower() in ("more", "less", "fewer") else []
    while words and (words[0].lower() in (*nouns, "of", "money") or unit_named(words[0])):
        words = words[1:]
    if words and words[-1].lower() in nouns:
        words = []
    if more:
        return f" {' '.join([*more, *words])}"
    return f" of {' '.join(words)}" if words else ""


def _comparing_alone(found: re.Match[str], nouns: tuple[str, ...]) -> str | None:
    split = _subject_verb(found["rest"])
    if split is None:
        return None
    subject, verb, rest = split
    return f"{subject} {_in_tense(verb, found['aux'])} {rest} {ANSWER} {found['more']}"


def _happening(found: re.Match[str], nouns: tuple[str, ...]) -> str | None:
    """ "How much water came in": the amount itself does something."""
    if found["verb"].lower() not in VERB_FORMS:
        return None
    return f"{ANSWER}{_of(found['noun'] or '', nouns)} {found['verb']} {found['rest']}"


def _standing(found: re.Match[str], nouns: tuple[str, ...]) -> str | None:
    split = _subject_verb(found["rest"])
    return split and f"{split[0]} {_in_tense(split[1], found['aux'])} at {ANSWER} {split[2]}"


_AT_END = re.compile(
    r"(?P<subject>.+?) (?P<end>in all|in total|altogether|all together|together|now|then|at first|at the start|originally|to begin with|in the end|before|in the beginning)$",
    re.I,
)


def _end_last(subject: str, said: str) -> str:
    """*said* of a subject, where words that close a sentence ("now", "in all") come at its end."""
    found = _AT_END.match(subject) or re.match(
        r"(?P<subject>it|they|he|she|this|that|there) (?P<end>.+)", subject, re.I
    )
    return f"{found['subject']} {said} {found['end']}" if found else f"{subject} {said}"


_AUX = "does|do|did|can|will|must|has|have|had"
_PATTERNS = (
    (rf"how (?P<how>{_DIMENSION}) (?P<verb>{_IS}) (?P<subject>.+)", _dimension),
    (
        rf"how (?:much|many)? ?(?P<more>(?:more|less|fewer)(?: \S+){{0,2}}?|(?:\w+ )?(?:{COMPARATIVES})) (?P<verb>{_IS}) (?P<subject>.+?) than (?P<other>.+)",
        _compared,
    ),
    (
        r"how (?:much|many)? ?(?P<more>(?:more|less|fewer)(?: \S+){0,2}?|{COMPARATIVES}) (?P<aux>does|do|did) (?P<rest>.+ than .+)",
        _compared_doing,
    ),
    (rf"how much (?P<more>{COMPARATIVES}) (?P<aux>{_AUX}) (?P<rest>.+)", _comparing_alone),
    (
        rf"(?:how (?:much|many|far)|what (?:part|fraction|share) of)(?P<noun> .+?)?? (?P<verb>{_IS}) (?P<rest>.+)",
        _is_left,
    ),
    (rf"(?:how (?:much|many|far|long|high|deep)|what)(?P<noun> .+?)?? (?P<aux>{_AUX}) (?P<rest>.+)", _doing),
    (r"where (?P<aux>does|do|did) (?P<rest>.+)", _standing),
    (rf"what (?P<verb>{_IS}) (?P<subject>.+)", _what),
    (r"how (?:much|many)(?P<noun> .+?)?? (?P<verb>\w+)(?P<rest>(?: .*)?)", _happening),
)
