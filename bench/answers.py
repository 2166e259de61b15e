"""How well beliefs find what a stand-in class holds, beside two plain ways of finding it and the posterior over all
sets of codes.
"""

from __future__ import annotations

import time
from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from fractions import Fraction
from itertools import combinations
from random import Random

from keen_slate.core.diagnosing.answers import diagnose
from keen_slate.core.expressions.text import text
from keen_slate.core.judging.beliefs import LIKELY, SHOWS, SLIPS, Given, Priors, Seen, beliefs
from keen_slate.core.ladders import build_or_why, read_spec
from keen_slate.core.sittings.holding import believe, given_by
from keen_slate.core.sittings.question import Question, asked_of
from keen_slate.core.sittings.stand_in import StandIn, answers

CODES = (
    "smaller-from-larger", "add-across", "top-not-scaled", "regroup-ten", "whole-not-reduced", "fraction-brought-down",
    "scaled-by-adding",
    "kept-larger-bottom", "whole-lost",
)  # fmt: skip
_PUPILS = 26


def revealing_set(count: int, seed: int) -> list[str]:
    """So many problems that reveal the codes and tell them apart as far as they can."""
    rungs = {"F5": 2, "M4": 1, "M6": 1, "M8": 2, "M9": 1, "F6": 1}
    wish = {
        "rungs": {rung: n * count // 8 for rung, n in rungs.items()},
        "targets": list(CODES),
        "separate": True,
        "seed": seed,
    }
    made = build_or_why(read_spec(wish))
    return [text(one.expr) for one in made.problems]


def make_pupils(seed: int) -> list[StandIn]:
    """Pupils with one to three of the codes each, which show three times in four; 8 slips in a hundred."""
    dice = Random(f"pupils {seed}")
    return [StandIn(f"pupil {i}", tuple(dice.sample(CODES, dice.randint(1, 3))), 75, 8) for i in range(_PUPILS)]


def written_by(pupils: Sequence[StandIn], problems: Sequence[str], seed: int) -> dict[str, list[str]]:
    """What each pupil writes, by alias."""
    wrote: dict[str, list[str]] = {one.alias: [] for one in pupils}
    for one in answers(pupils, problems, seed):
        wrote[one.pupil].append(one.answer)
    return wrote


Finder = Callable[[Sequence[Seen], Sequence[Given | None], Sequence[str]], set[str]]


def report(seeds: int = 20) -> None:
    """Print the F1 of each way, how the beliefs are calibrated, and how long a class takes."""
    finders: dict[str, Finder] = {"beliefs": _by_beliefs, "brute force": _by_brute_force, "counted": _counted}
    for count in (8, 16):
        hits: dict[str, Counter[str]] = {name: Counter() for name in (*finders, "best explanation")}
        bins: dict[int, list[bool]] = {}
        for seed in range(seeds):
            problems, pupils = revealing_set(count, seed), make_pupils(seed)
            wrote = written_by(pupils, problems, seed)
            asked = [asked_of(Question(one)) for one in problems]
            seen = [one.seen for one in asked]
            fair = identifiable(seen)
            for pupil in pupils:
                given = given_by(asked, wrote[pupil.alias])
                truth = set(pupil.habits) & fair
                for name, finder in finders.items():
                    _score(hits[name], finder(seen, given, problems) & fair, truth)
                _score(hits["best explanation"], _best_explanations(problems, wrote[pupil.alias]) & fair, truth)
                for found in beliefs(seen, given):
                    if found.code in fair:
                        bins.setdefault(int(found.belief * 10), []).append(found.code in pupil.habits)
        print(f"answers: {seeds} classes of {_PUPILS}, {count} problems, F1 of what is likely against what was given")
        for name, seen_hits in hits.items():
            print(f"  {name:<17} {_f1(seen_hits):.3f}")
        middle = [held for tenth in (6, 7) for held in bins.get(tenth, [])]
        print(f"  of {len(middle)} beliefs between 0.6 and 0.8, {sum(middle) / max(1, len(middle)):.0%} are held")
    _time()


def identifiable(seen: Sequence[Seen]) -> set[str]:
    """The codes that can show three times or more and are not always tied with another."""
    chances = {code: sum(code in one.reveals for one in seen) for code in CODES}
    return {
        code
        for code in CODES
        if chances[code] >= 3
        and not any(
            all(one.reveals.get(code) == one.reveals.get(other) for one in seen) for other in CODES if other != code
        )
    }


def _score(hits: Counter[str], found: set[str], truth: set[str]) -> None:
    hits["both"] += len(found & truth)
    hits["found"] += len(found)
    hits["true"] += len(truth)


def _f1(hits: Mapping[str, int]) -> float:
    return 2 * hits["both"] / max(1, hits["found"] + hits["true"])


def _by_beliefs(seen: Sequence[Seen], given: Sequence[Given | None], problems: Sequence[str]) -> set[str]:
    return {one.code for one in beliefs(seen, given) if one.belief >= LIKELY}


def _by_brute_force(seen: Sequence[Seen], given: Sequence[Given | None], problems: Sequence[str]) -> set[str]:
    """The posterior over every set of at most three of all codes that can show, whether an answer speaks for them or
    not.
    """
    there = [(one, answer) for one, answer in zip(seen, given, strict=True) if answer is not None]
    codes = sorted({code for one in seen for code in (*one.reveals, *one.forms)})
    prior = {code: float(Priors().of(code)) for code in codes}
    nothing = 1.0
    factors: dict[tuple[int, tuple[str, ...]], float] = {}
    total, held = 0.0, dict.fromkeys(codes, 0.0)
    base = [_factor(one, answer, ()) for one, answer in there]
    for size in range(4):
        for chosen in combinations(codes, size):
            weight = nothing
            for code in chosen:
                weight *= prior[code] / (1 - prior[code])
            for i, (one, answer) in enumerate(there):
                acting = tuple([code for code in chosen if code in one.reveals or code in one.forms])
                if acting:
                    key = (i, acting)
                    if key not in factors:
                        factors[key] = _factor(one, answer, acting) / base[i]
                    weight *= factors[key]
            total += weight
            for code in chosen:
                held[code] += weight
    return {code for code in codes if held[code] / total >= float(LIKELY)}


def _factor(seen: Seen, answer: Given, held: Sequence[str]) -> float:
    """The probability of an answer, and that of the form of a right one, as the model's formula says it."""
    right = answer.value == seen.right
    plain = 1 - SLIPS if right else SLIPS / (len(seen.slips) + 1)
    made = _mixed(plain, [seen.reveals[code] == answer.value for code in held if code in seen.reveals])
    if not right or not seen.forms:
        return made
    writes = [seen.forms[code] == answer.written for code in held if code in seen.forms]
    return made * _mixed(SLIPS if answer.form_fault else 1 - SLIPS, writes)


def _mixed(plain: Fraction, writes: Sequence[bool]) -> float:
    return float(SHOWS * Fraction(sum(writes), len(writes)) + (1 - SHOWS) * plain if writes else plain)


def _counted(seen: Sequence[Seen], given: Sequence[Given | None], problems: Sequence[str]) -> set[str]:
    """Every code that explains two answers or more."""
    counts = Counter(
        code
        for one, answer in zip(seen, given, strict=True)
        if answer
        for code, wrong in one.reveals.items()
        if wrong == answer.value
    )
    return {code for code, count in counts.items() if count >= 2}


def _best_explanations(problems: Sequence[str], wrote: Sequence[str]) -> set[str]:
    """The first explanation of each answer, counted where it is one code that comes twice."""
    counts: Counter[str] = Counter()
    for problem, written in zip(problems, wrote, strict=True):
        found = diagnose(problem, written).explanations
        if found and len(found[0].codes) == 1:
            counts[found[0].codes[0]] += 1
    return {code for code, count in counts.items() if count >= 2}


def _time() -> None:
    problems = revealing_set(8, 99)
    wrote = written_by(make_pupils(99), problems, 99)
    start = time.perf_counter()
    asked = [asked_of(Question(problem)) for problem in problems]
    believe(asked, {alias: given_by(asked, answers) for alias, answers in wrote.items()})
    print(f"  {_PUPILS} pupils by {len(problems)} problems judged and believed: {time.perf_counter() - start:.3f} s")
