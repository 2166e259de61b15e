"""Sentences in clauses, each with one number at most."""

from __future__ import annotations

import re
from collections.abc import Iterator
from itertools import pairwise

from ..lexicon import base_of
from .abstract import TOKEN, Text
from .doubts import Doubt
from .wording import (
    words,
)

FACTOR = re.compile(
    r"(?:<(?P<kind>n)(?P<times>\d+)> times|<f(?P<part>\d+)>(?: times)?) (?:as (?P<how>[a-z]+)(?: "
    r"(?!as\b|again\b)[a-z]+)?(?: as (?P<thing>[^<,;]+))?|the "
    r"(?:length|weight|height|price|amount|number|size|width|depth|distance|time)(?: of (?P<of>[^<,;]+))?)"
)

_CUT = re.compile(
    r"(?:,\s*)?\b(?:and then|and|but|then|while|whereas|so that)\b|[,;:]|(?= (?:it|there|he|she|they) "
    r"(?:was|were|is|are|had|has|held|weighed|measured)\b)"
)


_WHOLE = re.compile(
    r"(?P<prep>\b(?:off|from|out of|From|Out of|Of)) (?P<det>a|an|the|his|her|their|its) (?:(?P<thing>(?:[a-z][\w-]* "
    r"){0,3}?[a-z][\w-]*) "
    r"(?:of|that is|that was|which is|which was|with|holding|containing) (?P<one><[un]\d+>)(?: long| of [a-z]+)?(?: "
    r"[a-z]+s\b)?|(?P<two><u\d+>)[ -](?P<noun>(?:long )?[a-z][\w-]*(?: of [a-z]+)?))"
)  # fmt: skip


_SUBJECT = re.compile(
    r"^(?P<lead>(?:Together |In all |Altogether |(?:On|In|At|Last|This) [A-Za-z ]+? )?(?:the |all |these |his |her "
    r")?)<n\d+> (?P<things>(?:[a-z][\w-]* ){0,2}[a-z][\w-]*s|children|people|men|women)(?P<names>,? [A-Z]\w+(?:, "
    r"[A-Z]\w+)*,? and [A-Z]\w+,?)?(?= (?:from |of |in )?(?:the [a-z]+ )?[a-z]+ )",
    re.I,
)


def without_count(statement: str) -> str:
    """A statement without the number of those of whom it tells an amount: "three barges carry 100 tonnes in all"."""
    statement = re.sub(
        r"\b(team|group|family|party|crew|band|row|class) of <n\d+>(?: [a-z]+s| children)?", r"\1", statement
    )
    found = _SUBJECT.match(statement)
    if (
        found is None
        or len(TOKEN.findall(statement)) < 2
        or re.search(r"\b(?:each|every|per|equal\w*|shared?|apiece)\b", statement)
    ):
        return statement
    names = (found["names"] or "").strip(" ,")
    return f"{found['lead']}{names or 'the ' + found['things']}" + statement[found.end() :]


def with_wholes(statement: str) -> Iterator[tuple[bool, str]]:
    """A statement without the whole that it tells on the way ("from a board of 10 ft"), which comes first."""
    found = _WHOLE.search(statement)
    if found is None or len(TOKEN.findall(statement)) < 2:
        yield False, statement
        return
    thing = found["thing"] or found["noun"]
    yield True, f"There is {found['one'] or found['two']} in the {thing}"
    rest = statement[: found.start()] + f"{found['prep']} it" + statement[found.end() :]
    yield False, re.sub(r"^(?:From|Out of|Of) it,? (?:of [a-z ]+, )?", "", rest)


def clauses_of(text: Text, statement: str) -> Iterator[tuple[str, list[Doubt]]]:
    """The clauses of a statement, each with at most one number, and what is doubtful about it."""
    doubts: list[Doubt] = []
    found = list(TOKEN.finditer(statement))
    start = 0
    for last, following in pairwise(found):
        between = statement[last.end() : following.start()]
        if FACTOR.match(statement, following.start()) and not _CUT.search(between):
            continue
        cuts = list(_CUT.finditer(between))
        cuts = [one for one in cuts if one.group().strip()] or cuts
        if not cuts:
            doubts = [
                text.doubtful(
                    "two-numbers", "Two numbers stand here, and it is not clear how they belong together.", _index(last)
                )
            ]
            cut = (len(between), len(between))
        else:
            cut = (cuts[-1].start(), cuts[-1].end())
            # A clause that begins with its verb's subject begins at the first cut after which a subject stands.
        if cuts and cuts[-1].group().strip(" ,") in ("while", "whereas", "so that", "but"):
            cut = (cuts[-1].start(), cuts[-1].end())
        yield from _apart(statement[start : last.end() + cut[0]], doubts)
        start = last.end() + cut[1]
        if cuts and "then" in cuts[-1].group():
            statement = statement[:start] + " later" + statement[start:]
            yield from clauses_of(text, statement[start:])
            return
    rest = statement[start:]
    end = list(TOKEN.finditer(rest))
    if (
        end
        and (
            tail := re.search(
                r"(?<! of)(?<! Of),? (?:and |but |so that |the rest|all the others?|the others?)", rest[end[-1].end() :]
            )
        )
        is not None
        and _has_verb(rest[end[-1].end() + tail.start() :])
    ):
        at = end[-1].end() + tail.start()
        yield from _apart(rest[:at], doubts)
        yield rest[at:].lstrip(" ,"), doubts
        return
    yield from _apart(rest, doubts)


_LINK = re.compile(
    r",? (?:so that|and then|and after that|and now|and|then) (?=(?:[a-z]+ )?(?:it|he|she|they|there|the "
    r"\w+|that|his|her|now|[A-Z]\w+)\b)|, (?=(?:it|he|she|they|there) )"
)


def _apart(clause: str, doubts: list[Doubt]) -> Iterator[tuple[str, list[Doubt]]]:
    """A clause, and before it what its sentence says without a number."""
    token = TOKEN.search(clause)
    cuts = [one for one in _LINK.finditer(clause, 0, token.start() if token else 0) if token]
    if (
        cuts
        and _has_verb(clause[: cuts[-1].start()])
        and not re.match(r"(?:After|When|Before|Then)\b", clause)
        and _has_verb(clause[cuts[-1].end() :])
    ):
        yield clause[: cuts[-1].start()], []
        clause = clause[cuts[-1].end() :] if "now" not in cuts[-1].group() else "now " + clause[cuts[-1].end() :]
        if "after that" in cuts[0].group():
            clause = "then " + clause
    yield clause, doubts


def _has_verb(said: str) -> bool:
    return any(base_of(word) for word in words(said))


def _index(found: re.Match[str]) -> int:
    return int(found.group(2))
