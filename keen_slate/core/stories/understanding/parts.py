"""Fractions of something: a part of it, what is left of it, the whole from a part; of a whole that is told without a
number, too.
"""

from __future__ import annotations

import re

from ..lexicon import base_of, verb_in
from .abstract import TOKEN
from .amounts import Amount, combined, over, plain, stem, times
from .wording import LITTLE, content, words
from .world import Finding, World

_REST = r"\b(?:rest|remaining|remainder|others?|left|still|not|empty|un[a-z]+ed|free|neither|missing|un[a-z]+n)\b"
_OF_REST = (
    r"of (?:the |what )?(?:remaining|rest|remainder|others?|is left|was left|remained)|of those left|of what (?:is|"
    r"was) left"
)
_ALLOWED = "rest remaining remainder others all half part parts fraction other left not one"
_EACH = r"\b(?:each|every|times|twice|average|than|per)\b"


def fractions(world: World) -> Finding | None:
    """Stories whose fractions are of something that is told, or of a whole without a number."""
    parts = [i for kind, i in world.needed if kind == "f"]
    if not parts or len(parts) > 3 or world.says(_EACH) or any(kind in "cd" for kind, _ in world.needed):
        return None
    if world.says(r"<f\d+> (?:as|times)\b") is not None or (
        world.says(r"<f\d+> of an? ") and any(one.number == 1 for one in world.amounts("n"))
    ):
        return None
    wholes = [world.text.amounts[i] for kind, i in world.needed if kind in "un"]
    if not wholes:
        return _of_the_whole(world, parts)
    if len(wholes) == 1:
        if world.asked.fraction:
            return _part_of_part(world, parts, wholes[0])
        return _whole_of(world, parts, wholes[0]) or _of_amount(world, parts, wholes[0])
    return None


def _nested(world: World, index: int) -> bool:
    """Whether a fraction is one of what the fraction before it leaves."""
    return world.says(rf"<f{index}> (?:[a-z]+ )?{_OF_REST}") is not None


def _of_the_whole(world: World, parts: list[int]) -> Finding | None:
    asked = world.text.question
    amounts = [world.text.amounts[i] for i in parts]
    if not (world.asked.fraction or re.match(r"how much of (?:the|it|his|her|their)\b", asked, re.I)):
        return None
    if any(one.number >= 1 for one in amounts):
        return None
    if any(
        "<f" in one
        and re.search(r"\b(?:left|remain\w*)\b(?! (?:part|piece|half))", one)
        and not re.search(_OF_REST, one)
        for one in world.text.statements
    ):
        return None
    world.look_at_words(_ALLOWED + (" neither nor" if world.says(r"\bneither [a-z]+ nor\b") else ""))
    whole = plain(1, "the whole")
    nested = [i for i in parts if _nested(world, i)]
    rest = _asks_rest(world)
    if len(parts) == 2 and nested == [parts[1]]:
        left = combined([("+", whole), ("-", amounts[0])], name="the rest")
        second = times(amounts[1], left, "the second part")
        about = _asked_part(world, parts)
        if rest and about is None:
            first = combined([("+", amounts[0]), ("+", second)], name="both parts")
            return world.found(combined([("+", whole), ("-", first)]), "steps", "answer")
        if world.asked.total:
            return world.found(combined([("+", amounts[0]), ("+", second)]), "steps", "answer")
        if about == parts[1]:
            return world.found(second, "steps", "answer")
        return None
    if nested:
        return None
    if (
        len(parts) == 2
        and world.says(rf"<f{parts[1]}> of (?:that|this) (?:is|are|was|were)\b")
        and not rest
        and not world.asked.total
        and _asked_part(world, parts) == parts[1]
    ):
        return world.found(times(amounts[1], amounts[0], "the part"), "part-of", "part")
    if world.says(r"of (?:that|this|these|those|them)\b(?! (?:are|is|were))") and len(parts) > 1:
        world.text.doubt("part-of-what", "It is not clear of what this is a part.", parts[1])
    if rest and _asked_part(world, parts) is None:
        _same_whole(world, parts)
        if sum(one.number for one in amounts) > 1:
            world.text.doubt("impossible", "The parts are more than the whole.")
        taken = combined([("+", one) for one in amounts], name="all the parts")
        return world.found(
            combined([("+", whole), ("-", taken)]),
            "steps" if taken.operator else "put-together",
            "answer" if taken.operator else "part",
        )
    if world.asked.total and len(parts) > 1:
        _same_whole(world, parts)
        return world.found(combined([("+", one) for one in amounts]), "put-together", "total")
    if world.asked.compared and len(parts) == 2:
        large, small = sorted(amounts, key=lambda one: one.number, reverse=True)
        world.text.doubt("question-unclear", "It is not clear which of the parts is compared with which.")
        return world.found(combined([("+", large), ("-", small)]), "compare", "difference")
    return None


def _same_whole(world: World, parts: list[int]) -> None:
    """Note a doubt where two fractions are of things of different names."""
    said = [
        found.group(1)
        for i in parts
        if (found := world.says(rf"<f{i}> of (?:the |a |an |his |her |their |its |all )?([a-z]+)"))
    ]
    nouns = {stem(one) for one in said} - {"it", "them", "that", "day"}
    asked = {stem(one) for one in words(world.text.question)}
    if len(nouns) > 1:
        world.text.doubt("part-of-what", "It is not clear whether these are parts of the same whole.", parts[-1])
    if (
        nouns
        and asked
        and not nouns & asked
        and not re.search(r"\b(?:it|them|of all|fraction|part)\b", world.text.question)
    ):
        world.text.doubt("part-of-what", "It is not clear whether this is a part of what is asked about.", parts[-1])


def _asks_rest(world: World) -> bool:
    """Whether what no part tells is asked for: by a word, or by what the story says of the others."""
    if world.asks(_REST) or world.asks(r"\bun[a-z]+\b"):
        return True
    if world.asks(r"\b(?:now|then|in the end)\b"):
        gone = any(_goes(word, one) for one in world.text.statements if "<f" in one for word in words(one))
        if not gone:
            world.text.doubt("question-unclear", "It is not clear whether the part or the rest is asked for.")
        return gone
    others = world.says(
        r"(?<!of )\b(?:the rest|all the others?|all others|the others|the remainder|the remaining [a-z]+)\b(?! "
        r"(?:part|piece))"
    )
    if others is not None:
        tail = content(world.text.all[others.end() :].split(". ")[0])
        return bool({stem(one) for one in tail} & {stem(one) for one in content(world.text.question)})
    sorted_into = world.says(r"\b(?:into|are|were|is) ([a-z]+), ([a-z]+)(?: or|,? and) ([a-z]+)\b")
    if sorted_into is not None:
        told = {one for one in sorted_into.groups() if world.says(rf"\b{one}\b[^.]*<f|<f\d+>[^.]*\b{one}\b|{one}: ")}
        return len(told) == 2 and any(world.asks(rf"\b{one}\b") for one in sorted_into.groups() if one not in told)
    return False


def _goes(word: str, said: str) -> bool:
    """Whether a word of a clause is a verb of going."""
    verb = verb_in(word, frozenset(words(said)) & LITTLE)
    return verb is not None and verb.effect == "goes"


def _asked_part(world: World, parts: list[int]) -> int | None:
    """The told fraction that the question asks about, by words that its clause alone has; None where it is none."""
    clauses: dict[int, frozenset[str]] = {}
    for said in world.text.statements:
        found = [one for one in TOKEN.finditer(said) if int(one.group(2)) in parts]
        for n, one in enumerate(found):
            begin = (
                0
                if n == 0
                else max(found[n - 1].end(), said.rfind(",", 0, one.start()), said.rfind(" and ", 0, one.start()))
            )
            others = re.search(
                r",? (?:and |but )?(?<!of )(?:the rest|all the others?|all others|the others|the remainder)\b",
                said[one.end() :],
            )
            last = one.end() + others.start() if others else len(said)
            end = last if n == len(found) - 1 else _cut(said, one.end(), found[n + 1].start())
            clauses[int(one.group(2))] = _things(said[begin:end])
    common = frozenset.intersection(*clauses.values()) if len(clauses) > 1 else frozenset()
    asked = _things(world.text.question)
    if world.asks(r"\b(?:not|neither|un[a-z]+ed|left|still)\b"):
        return None
    fitting = [i for i, keys in clauses.items() if (keys - common) & asked]
    return fitting[0] if len(fitting) == 1 and len(clauses) > 1 else None


def _things(said: str) -> frozenset[str]:
    """The words of a clause that tell it from others: no verbs, and not the whole of which it tells a part."""
    bare = re.sub(r"(<f\d+>|fraction|part|share) of (?:the |his |her |their |its |a |an |all )?[a-z]+", r"\1", said)
    bare = re.sub(r"\b([Bb]efore|[Aa]fter) ([a-z]+)", lambda found: f"{found[1].lower()}-{found[2]}", bare)
    return frozenset([word for word in content(bare) if base_of(word) is None])


def _cut(said: str, start: int, end: int) -> int:
    found = list(re.finditer(r",| and ", said[start:end]))
    return start + found[-1].start() if found else end


def _part_of_part(world: World, parts: list[int], whole: Amount) -> Finding | None:
    """ "5/6 of an hour, a third of that time: what part of an hour?" """
    if len(parts) != 1 or whole.unit is None or not world.asks(r"\b(?:part|fraction) of an? [a-z]+\b"):
        return None
    named = world.asks(r"\b(?:part|fraction) of an? ([a-z]+)\b")
    if named is None or stem(named.group(1)) != stem(whole.unit.one):
        return None
    world.look_at_words(_ALLOWED)
    if not world.says(rf"<f{parts[0]}> of (?:that|this|the|it)"):
        world.text.doubt("part-of-what", "It is not clear of what this is a part.", parts[0])
    return world.found(times(world.text.amounts[parts[0]], whole), "part-of", "part")


def _whole_of(world: World, parts: list[int], told: Amount) -> Finding | None:
    """The whole, where a part of it is told."""
    if len(parts) != 1:
        return None
    part = world.text.amounts[parts[0]]
    index = told.index
    says_part = world.says(
        rf"\b(?:that|this|which|these|those) (?:is|are|was|were|makes?|made|comes? to|came to) "
        rf"<[un]{index}>|<[un]{index}> (?:is|are|was|were) <f{parts[0]}> of|<f{parts[0]}> of [^.]* "
        rf"(?:is|are|was|were|cost|costs|weighs?|comes to|makes?) <[un]{index}>"
    )
    same = world.says(
        rf"<f{parts[0]}> of (?:[A-Z]\w+['’]s|the|his|her|their) (?P<thing>[a-z]+) (?:are|is|were) "
        rf"(?P<how>[a-z]+)\b.*\b(?:has|have|had|are|there are|owns?|counts?) <[un]{index}> (?P=how)\b"
    )
    if says_part is None and same is None:
        return None
    if not world.asks(
        r"\b(?:in all|altogether|own|has|have|had|is the whole|are there|does .* "
        r"(?:own|have|hold|weigh|cost)|whole|full|long is|in total|were there|total)\b"
    ) or world.asks(r"\b(?:left|not|other|rest)\b"):
        return None
    world.look_at_words(_ALLOWED + " " + (same["how"] if same else ""))
    if part.number == 0 or part.number >= 1:
        return None
    return world.found(over(told, part, "the whole"), "part-of", "whole")


def _of_amount(world: World, parts: list[int], whole: Amount) -> Finding | None:
    """A part of an amount that is told, or what is left of it."""
    amounts = [world.text.amounts[i] for i in parts]
    if world.asked.compared or not _whole_is_told(world, parts, whole):
        return None
    if any(one.number >= 1 for one in amounts):
        return None
    world.look_at_words(_ALLOWED)
    _same_whole_as(world, parts, whole)
    rest = _asks_rest(world)
    nested = [i for i in parts if _nested(world, i)]
    pieces = [times(amounts[0], whole, "the part" if len(parts) == 1 else "the first part")]
    if len(parts) == 1:
        if nested:
            return None
        if rest and not _asks_the_part(world, parts[0]):
            return world.found(combined([("+", whole), ("-", pieces[0])]), "steps", "answer")
        if rest:
            world.text.doubt("question-unclear", "It is not clear whether the part or the rest is asked for.")
        return world.found(pieces[0].called("the part"), "part-of", "part")
    if len(parts) != 2:
        return None
    left = combined([("+", whole), ("-", pieces[0])], name="the rest")
    second = times(amounts[1], left if nested == [parts[1]] else whole, "the second part")
    about = _asked_part(world, parts)
    if nested not in ([], [parts[1]]):
        return None
    if sum(one.number for one in amounts) > 1 and not nested:
        world.text.doubt("impossible", "The parts are more than the whole.")
    if (rest and about is None) or (rest and world.asks(r"\b(?:left|not|still)\b")):
        both = combined([("+", pieces[0]), ("+", second)], name="both parts")
        return world.found(combined([("+", whole), ("-", both)]), "steps", "answer")
    if about == parts[1]:
        return world.found(second, "steps" if nested else "part-of", "answer" if nested else "part")
    if about == parts[0]:
        return world.found(pieces[0], "part-of", "part")
    return None


def _asks_the_part(world: World, index: int) -> bool:
    """Whether the question repeats what the clause of the part says, and nothing says that it does not."""
    if world.asks(r"\b(?:not|left|still|rest|others?|remain\w*|other|over)\b(?! for\b)"):
        return False
    said = next((one for one in world.text.statements if f"<f{index}>" in one), "")
    clause = re.split(
        r",? (?:and |but )?(?<!of )(?:the rest|all the others?|all others|the others|the remainder)\b",
        said[said.find("<f") :],
    )[0]
    return bool(_things(clause) & _things(world.text.question)) if said else False


def _whole_is_told(world: World, parts: list[int], whole: Amount) -> bool:
    """Whether the fraction is said to be of the amount that is told: of it, of its noun, or of the thing it
    measures.
    """
    i = whole.index
    first = parts[0]
    return (
        world.says(
            rf"<f{first}> of (?:the |his |her |their |its |a |an |all )?(?:[a-z]+ ){{0,2}}?(?:of "
            rf")?<[un]{i}>|<f{first}> of (?:a|an|the) [a-z ]+ (?:of|with) <[un]{i}>|"
            rf"\b(?:[Oo]f|[Oo]ut of|[Ff]rom) (?:the |a |an |his |her )?(?:[a-z]+ of "
            rf")?<[un]{i}>.*<f{first}>|<[un]{i}>.*<f{first}> (?:of|were|was|are|is|went|came|have)|<f{first}>.*\bof "
            rf"<[un]{i}>|<f{first}>.*<[un]{i}>"
        )
        is not None
    )


def _same_whole_as(world: World, parts: list[int], whole: Amount) -> None:
    """Note a doubt where a fraction is said to be of something that is not what is told."""
    said = world.text.all
    known = (
        content(said.split(f"<f{parts[0]}>")[0])
        | content(said[said.find(f"{whole.index}>") :][:60])
        | frozenset(["it", "them", "that"])
    )
    for i in parts:
        found = world.says(rf"<f{i}> of (?:the |his |her |their |its |this |that )([a-z]+)")
        if (
            found
            and not _nested(world, i)
            and stem(found.group(1)) not in {stem(one) for one in known}
            and found.group(1) not in ("time",)
        ):
            world.text.doubt(
                "part-of-what", f"It is not clear whether “{found.group(1)}” is what was told before.", found.group(1)
            )
    at, fraction = said.find(f"{whole.index}>"), said.find(f"<f{parts[0]}>")
    if at > fraction and not world.says(rf"<f{parts[0]}> of (?:[a-z]+ ){{0,4}}?(?:of )?<[un]{whole.index}>"):
        world.text.doubt("part-of-what", "It is not clear of what this is a part.", parts[0])
