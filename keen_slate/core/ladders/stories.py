"""Stories made to order: situations, a scenario, rungs; their numbers come from the ladder's own search, so its limits
hold.

All chance comes from the seed of the wish, so the same wish gives the same stories.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass, replace
from random import Random

from ..errors import CoreError
from ..expressions.tree import Expr, Operator, Sum, value
from ..expressions.walks import leaves
from ..judging.misconceptions.registry import ENTRIES
from ..searching.deadline import look
from ..stories.patterns import PATTERNS, Pattern
from ..stories.reading import as_problem
from ..stories.scenarios import Scenario, Thing
from ..stories.story import Story
from ..stories.telling import Manner, possible, smaller_unit, tell
from ..worked import Worked, work_out
from .build import NoLadderError, build
from .impossible import Impossible, build_or_why
from .options import PLAIN, is_within, option
from .space import Space
from .spaces import space_of
from .spec import TermLimits
from .story_numbers import Lot
from .story_wish import ADDING, SUBTRACTING, StoryWish

_OPERATIONS: dict[Operator, tuple[str, ...]] = {"-": SUBTRACTING, "+": ADDING}
_USUAL = ("F4", "F5", "M3", "M5", "M7", "M8")
_MOST_TRIED = 400
_MOST_DRAWN = 200


@dataclass(frozen=True, slots=True)
class Made:
    """The stories, worked, in their order, and which targets none of them reveals."""

    stories: tuple[Worked, ...]
    not_revealed: tuple[str, ...]


def make_stories(
    wish: StoryWish, kept: Mapping[int, Story] | None = None, shunned: Collection[str] = ()
) -> Made | Impossible:
    """The stories that are wished for, or which part of the wish rules them out. *kept* ones stay in their places (from
    0).

    Texts among *shunned* are not told again.
    """
    try:
        return _Maker(wish, kept or {}, shunned).made()
    except NoLadderError:
        return _why(wish)


def _why(wish: StoryWish) -> Impossible:
    """What rules the wish out: the limits of its numbers, else that its scenario or its situations have nothing of such
    sizes.
    """
    for operator, allowed in _OPERATIONS.items():
        for rung in [one for one in wish.calculations or _USUAL if one in allowed]:
            numbers = replace(wish.spec, rungs={rung: 1}, targets=()).within(operations=frozenset([operator]))
            found = build_or_why(numbers)
            if isinstance(found, Impossible):
                return replace(found, of="stories")
    return Impossible("situations" if wish.situations else "scenario" if wish.scenario else "rungs", None, of="stories")


class _Maker:
    """Chooses patterns, then numbers for them, then things that they suit."""

    def __init__(self, wish: StoryWish, kept: Mapping[int, Story], shunned: Collection[str]) -> None:
        self.wish = wish
        self.kept = kept
        self.shunned = set(shunned) | {story.text for story in kept.values()}
        self.dice = Random(f"stories {wish.seed}")
        self._spaces: dict[tuple[Operator, str], Space] = {}
        self.patterns = [one for one in PATTERNS if self._wished(one)]

    def _wished(self, one: Pattern) -> bool:
        wish = self.wish
        asked = (not wish.situations or one.situation in wish.situations) and (
            not wish.unknowns or one.unknown in wish.unknowns
        )
        there = wish.scenario is None or one.kind in {thing.kind for thing in wish.scenario.things}
        operator = searched_for(one)
        return asked and there and (operator is None or bool(self._rungs(operator)))

    def _rungs(self, operator: Operator) -> list[str]:
        """The rungs of the calculations that may be asked with an *operator*; of the usual ones those that the limits
        allow.
        """
        rungs = [rung for rung in self.wish.calculations or _USUAL if rung in _OPERATIONS[operator]]
        return rungs if self.wish.calculations else [rung for rung in rungs if self._space(operator, rung).count]

    def _space(self, operator: Operator, rung: str) -> Space:
        if (operator, rung) not in self._spaces:
            self._spaces[operator, rung] = space_of(rung, self._limits(operator))
        return self._spaces[operator, rung]

    def made(self) -> Made:
        """Every story of the wish. Raises `NoLadderError`."""
        plan = self._planned()
        numbers = self._numbers(plan)
        stories: list[Worked] = []
        for at, rung in enumerate(self.wish.slots):
            look()
            story = self.kept[at] if at in self.kept else self._told(rung, plan[at], numbers.get(at), at)
            stories.append(work_out(as_problem(story), self.wish.ways))
        targets = self.wish.spec.targets  # without any, nobody asks what the stories reveal
        seen = {one.entry.code for worked in stories if targets for one in worked.likely if one.status == "reveals"}
        return Made(tuple(stories), tuple([code for code in targets if code not in seen]))

    def _planned(self) -> dict[int, Pattern]:
        """A pattern for every free place, never that of its neighbour."""
        plan: dict[int, Pattern] = {}
        for at, rung in enumerate(self.wish.slots):
            if at not in self.kept:
                plan[at] = self._other_than(plan.get(at - 1), self._of_rung(rung))
        return plan

    def _of_rung(self, rung: str) -> list[Pattern]:
        found = [one for one in self.patterns if one.rung == rung]
        if rung == "S6":  # a number that is not needed goes with simple stories, too
            found += [one for one in self.patterns if one.rung in ("S1", "S3")]
        if not found:
            raise NoLadderError(rung=rung)
        return found

    def _other_than(self, before: Pattern | None, found: list[Pattern]) -> Pattern:
        # Situations first, so that a situation with many patterns is told no more often than the others.
        kinds = sorted({(one.situation, one.unknown) for one in found if one is not before or len(found) == 1})
        chosen = self.dice.choice(kinds)
        return self.dice.choice(
            [one for one in found if (one.situation, one.unknown) == chosen and (one is not before or len(found) == 1)]
        )

    # Numbers from the ladder ------------------------------------------------------------------------------------------

    def _numbers(self, plan: Mapping[int, Pattern]) -> dict[int, Expr]:
        """For each story that adds or subtracts two numbers of the ladder's, these numbers."""
        numbers: dict[int, Expr] = {}
        wanted = [code for code in self.wish.spec.targets if "story" not in ENTRIES[code].kinds]
        for operator in _OPERATIONS:
            places = [at for at, pattern in plan.items() if searched_for(pattern) == operator]
            rungs = self._rungs(operator)
            if not places:
                continue
            slots = [rungs[i * len(rungs) // len(places)] for i in range(len(places))]
            found, shown = self._searched(operator, slots, wanted)
            wanted = [code for code in wanted if code not in shown]
            numbers |= zip(places, found, strict=True)
        return numbers

    def _searched(self, operator: Operator, slots: list[str], targets: list[str]) -> tuple[list[Expr], set[str]]:
        if not targets:
            return [self._drawn(operator, rung, self.dice) for rung in slots], set()
        limits = self._limits(operator)
        rungs = {rung: slots.count(rung) for rung in slots}
        asked = list(targets)
        while True:
            try:
                made = build(
                    replace(self.wish.spec, rungs=rungs, limits=limits, targets=tuple(asked), seed=self.wish.seed)
                )
            except NoLadderError as error:
                if not asked or not error.missing:
                    raise
                asked = [code for code in asked if code not in error.missing]
                continue
            return [one.expr for one in made.problems], set(made.reveals)

    # Manner ----------------------------------------------------------------------------------------------------------

    def _told(self, rung: str, pattern: Pattern, expr: Expr | None, at: int) -> Story:
        """The story of a place: told of a thing that its numbers suit; with other numbers where there is none.

        Raises `NoLadderError`.
        """
        dice = Random(f"story {self.wish.seed} {at}")
        beside = rung == "S6" and pattern.rung != "S6"
        for tried in range(_MOST_TRIED):
            if tried == _MOST_TRIED // 2 and self.wish.scenario is None and not self.wish.situations:
                pattern = self._other_than(pattern, self._of_rung(rung))
                beside = rung == "S6" and pattern.rung != "S6"
            scenario = dice.choice(self.wish.scenarios)
            thing = self._thing(scenario, pattern, dice)
            if thing is None:
                continue
            numbers = self._filled(pattern, expr if tried < 40 else self._again(pattern, expr, dice), thing, dice)
            if numbers is None or not possible(pattern, numbers, thing):
                continue
            doer, other = dice.sample(scenario.doers, 2)
            told = Manner(
                thing,
                (doer, other),
                pattern.past_only or dice.random() < 0.5,
                dice.random() < 0.4,
                dice.randint(2, 6) if beside else None,
            )
            try:
                story = tell(pattern, numbers, told)
            except CoreError:
                continue
            if story.text not in self.shunned and _plausible(story, pattern, thing):
                self.shunned.add(story.text)
                return story
        raise NoLadderError(rung=rung)

    @staticmethod
    def _thing(scenario: Scenario, pattern: Pattern, dice: Random) -> Thing | None:
        things = [
            one
            for one in scenario.things
            if one.kind == pattern.kind and ("s" not in pattern.slots or smaller_unit(one.unit))
        ]
        return dice.choice(things) if things else None

    def _again(self, pattern: Pattern, expr: Expr | None, dice: Random) -> Expr | None:
        """Other numbers of the ladder's for a story that no thing suits."""
        operator = searched_for(pattern)
        if expr is None or operator is None:
            return expr
        rungs = self._rungs(operator)
        return self._drawn(operator, dice.choice(rungs), dice)

    def _drawn(self, operator: Operator, rung: str, dice: Random) -> Expr:
        """A candidate of the ladder's on *rung*, within the limits. Raises `NoLadderError` where there is none."""
        limits = self._limits(operator)
        space = self._space(operator, rung)
        for _ in range(_MOST_DRAWN if space.count else 0):
            expr = space.draw(dice)
            found = option(expr, PLAIN, rung) if len(limits.avoid) > 1 or limits.largest_common else None
            numbers = leaves(expr)
            if numbers[0] != numbers[1] and (found is None or is_within(found, rung, limits)):
                return expr
        raise NoLadderError(rung=rung)

    def _limits(self, operator: Operator) -> TermLimits:
        limits = self.wish.spec.limits
        return replace(limits, operations=frozenset([operator]), avoid=limits.avoid | {"negatives"}, lowest_terms=True)

    def _filled(self, pattern: Pattern, expr: Expr | None, thing: Thing, dice: Random) -> list[Expr] | None:
        """The numbers of a pattern in the order in which they are told; None where none were found."""
        lot = Lot(self.wish.spec.limits, thing, dice)
        if expr is None:
            return lot.numbers(pattern)
        assert isinstance(expr, Sum), "a sum or difference was searched for"
        pair = [expr.first, expr.rest[0][1]]
        if pattern.situation == "steps":
            return lot.with_start(pattern, pair)
        first_told = pattern.calculation.index("#1") < pattern.calculation.index("#2")
        return pair if first_told else pair[::-1]


def _plausible(story: Story, pattern: Pattern, thing: Thing) -> bool:
    """Whether there can be so much as is found; how much more or less something is may be little."""
    if "s" in pattern.slots or pattern.unknown in ("difference", "number"):
        return True
    return value(story.whole) >= thing.low


def searched_for(pattern: Pattern) -> Operator | None:
    """The operation whose numbers the ladder's search gives a *pattern*; None where its numbers are drawn."""
    first = pattern.calculation.split(";")[0]
    if "×" in first or "÷" in first:
        return None
    return "+" if "+" in first else "-"
