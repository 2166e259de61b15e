"""Stories around an example: those that fit its numbers and label, and stories like one that is there."""

from __future__ import annotations

import re
from collections.abc import Collection, Iterator, Sequence
from dataclasses import replace
from random import Random

from ..errors import CoreError
from ..expressions.tree import Dec, Expr, Frac, Mixed, Product, Sum, Whole, value
from ..reading.measures import ratio_of, unit_named
from ..reading.problem import Problem
from ..stories.patterns import PATTERNS, Pattern
from ..stories.reading import as_problem
from ..stories.scenarios import Scenario, Thing, scenarios
from ..stories.story import Story, story_of
from ..stories.telling import Manner, plural, possible, tell
from ..ways.settings import Ways
from ..worked import Worked, work_out
from .spec import Spec
from .stories import Made, make_stories
from .story_wish import CALCULATIONS, StoryWish

_WORD = re.compile(r"[^\W\d_]+")


def stories_for(problem: Problem, ways: Ways, seed: int, count: int = 3, own: Sequence[Scenario] = ()) -> list[Worked]:
    """So many stories that fit the numbers and the label of a *problem*, each of another situation; fewer where there
    are no more.
    """
    dice = Random(f"tell {seed} {problem.text}")
    made: list[Worked] = []
    told: set[tuple[str, str]] = set()
    candidates = list(_fitting(problem.expr))
    dice.shuffle(candidates)
    every = [*scenarios().values(), *own]
    for pattern, numbers in candidates:
        if len(made) == count:
            break
        dice.shuffle(every)
        for scenario in every:
            things = [
                one for one in scenario.things if possible(pattern, numbers, one) and _counts_in(one, problem.label)
            ]
            if not things or (pattern.situation, pattern.unknown) in told:
                continue
            doers = dice.sample(scenario.doers, 2)
            thing, past = dice.choice(things), pattern.past_only or dice.random() < 0.5
            told_of = Manner(thing, (doers[0], doers[1]), past, False, label=problem.label)
            try:
                made.append(work_out(as_problem(tell(pattern, numbers, told_of)), ways))
            except CoreError:
                continue
            told.add((pattern.situation, pattern.unknown))
            break
    return made


def _counts_in(thing: Thing, label: str | None) -> bool:
    unit = unit_named(label) if label else None
    return label is None or (unit is not None and ratio_of(unit, thing.unit) == 1)


def _fitting(expr: Expr) -> Iterator[tuple[Pattern, list[Expr]]]:
    """The patterns of one calculation that *expr* can be told in, with its numbers in the order told."""
    if not isinstance(expr, (Sum, Product)) or len(expr.rest) != 1:
        return
    first, (operator, second) = expr.first, expr.rest[0]
    if not all(isinstance(number, (Whole, Frac, Mixed, Dec)) for number in (first, second)):
        return
    for pattern in PATTERNS:
        if pattern.calculation not in (f"#1 {operator} #2", f"#2 {operator} #1"):
            continue
        numbers = [first, second] if pattern.calculation.startswith("#1") else [second, first]
        if all(_suits(number, slot) for number, slot in zip(numbers, pattern.slots, strict=True)):
            yield pattern, numbers


def _suits(number: Expr, slot: str) -> bool:
    if slot == "c":
        return isinstance(number, Whole) and 2 <= number.n <= 99
    if slot == "f":
        return isinstance(number, Frac) and value(number) < 1
    return slot == "q"


def story_like(worked: Worked, seed: int, shunned: Collection[str] = ()) -> Worked | None:
    """A story like a *worked* one: the same situation and unknown, calculations on the same rungs, other numbers,
    another scenario.
    """
    story = story_of(worked.working.problem)
    if story is None:
        return None
    rungs = [work_out(part.problem, worked.working.ways).features.rung for part in worked.working.parts]
    calculations = tuple([rung for rung in rungs if rung in CALCULATIONS])
    spec = Spec({"F4": 1}, ways=worked.working.ways)
    one = {worked.features.rung: 1}
    wish = StoryWish(
        one, spec, calculations, (story.situation,), (story.unknown,), None, seed, elsewhere=told_in(story)
    )
    for loosened in (
        wish,
        replace(wish, calculations=()),
        replace(wish, situations=(), unknowns=(), calculations=()),
    ):
        made = make_stories(loosened, shunned=shunned)
        if isinstance(made, Made):
            return made.stories[0]
    return None


def told_in(story: Story) -> list[Scenario]:
    """The scenarios of ours whose doers and things a *story* names most often: several where it fits them alike, or
    none.
    """
    text = f" {' '.join(_WORD.findall(story.text.lower()))} "

    def named(one: Scenario) -> int:
        names = {*[doer.lower() for doer in one.doers], *[thing.name for thing in one.things]}
        return sum(f" {name} " in text or f" {plural(name)} " in text for name in names)

    most = max(named(one) for one in scenarios().values())
    return [one for one in scenarios().values() if named(one) == most > 0]
