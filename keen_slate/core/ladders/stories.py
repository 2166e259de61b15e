"""Stories made to order: situations, a scenario, rungs; their numbers come from the ladder's own search, so its limits hold.

All chance comes from the seed of the wish, so the same wish gives the same stories.
"""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from math import ceil
from random import Random
from typing import Any

from ..errors import CoreError
from ..expressions.tree import Dec, Expr, Frac, Mixed, Operator, Product, Sum, Whole, mixed, value
from ..expressions.walks import leaves
from ..grading.rungs import STORY_RUNGS
from ..judging.misconceptions.registry import ENTRIES
from ..reading.measures import ratio_of, unit_named
from ..reading.problem import Problem
from ..searching.deadline import look
from ..stories.patterns import PATTERNS, Pattern
from ..stories.reading import as_problem
from ..stories.scenarios import Scenario, Thing, read_scenario, scenarios
from ..stories.story import SITUATIONS, Story, StoryProblem
from ..stories.telling import Told, possible, smaller_unit, tell
from ..ways.settings import Ways
from ..worked import Worked, work_out
from .build import NoLadderError, build
from .impossible import Impossible, build_or_why
from .options import PLAIN, is_within, option
from .space import Space
from .spaces import space_of
from .spec import MOST_PROBLEMS, Limits, Spec, SpecError, read_spec

ADDING = ("F1", "F2", "F3", "F4", "F5", "F6", "M1", "M2", "M3", "M4", "D1", "D2", "D3")
SUBTRACTING = ("F1", "F2", "F4", "F5", "F6", "M5", "M6", "M7", "M8", "M9", "D1", "D2", "D3", "D4", "D5")
CALCULATIONS = tuple(dict.fromkeys((*ADDING, *SUBTRACTING)))
_OPERATIONS: tuple[tuple[Operator, tuple[str, ...]], ...] = (("-", SUBTRACTING), ("+", ADDING))
_USUAL = ("F4", "F5", "M3", "M5", "M7", "M8")
_MOST_TRIED = 400
_MOST_DRAWN = 200
_OWN = {"seed", "rungs", "count", "situations", "scenario", "calculations", "unknowns"}


@dataclass(frozen=True, slots=True)
class StoryWish:
    """What stories are wished for: *rungs* with counts, *situations* (none: all), a *scenario* (None: any), and the rungs and limits
    of their calculations as those of a ladder."""

    rungs: Mapping[str, int]
    spec: Spec
    calculations: tuple[str, ...] = ()
    situations: tuple[str, ...] = ()
    unknowns: tuple[str, ...] = ()
    scenario: Scenario | None = None
    seed: int = 0

    @property
    def slots(self) -> tuple[str, ...]:
        """The rung of each story, in order."""
        return tuple([rung for rung in STORY_RUNGS for _ in range(self.rungs.get(rung, 0))])

    @property
    def ways(self) -> Ways:
        """The class's ways."""
        return self.spec.ways


def read_story_wish(given: object, ways: Ways | None = None, own: Sequence[Scenario] = ()) -> StoryWish:
    """The wish that the JSON value *given* spells; *own* scenarios are known besides. Raises `SpecError`."""
    if not isinstance(given, Mapping):
        raise SpecError("Stories are asked for with an object.", "", 'Begin with {"rungs": {"S1": 2}}.')
    spec = read_spec({key: given[key] for key in given if key not in _OWN} | {"rungs": {"F4": 1}}, ways)
    seed = read_spec({"rungs": {"F4": 1}, "seed": given.get("seed")}).seed
    calculations = _codes(given, "calculations", CALCULATIONS)
    situations, unknowns = _codes(given, "situations", SITUATIONS), _codes(given, "unknowns", _unknowns())
    return StoryWish(
        _rungs(given), spec, calculations, situations, unknowns, _scenario(given.get("scenario"), own), seed
    )


def _unknowns() -> list[str]:
    return [unknown for _, unknowns in SITUATIONS.values() for unknown in unknowns]


def _codes(given: Mapping[str, Any], key: str, known: Collection[str]) -> tuple[str, ...]:
    found = given.get(key)
    if found is None:
        return ()
    if not isinstance(found, (list, tuple)) or not all(isinstance(code, str) and code in known for code in found):
        raise SpecError(f"{key} is a list of codes.", key, f"It knows {', '.join(dict.fromkeys(known))}.")
    return tuple(dict.fromkeys(found))


def _rungs(given: Mapping[str, Any]) -> dict[str, int]:
    found = given.get("rungs")
    if found is None:
        count = given.get("count", len(STORY_RUNGS))
        if not isinstance(count, int) or isinstance(count, bool) or not 1 <= count <= MOST_PROBLEMS:
            raise SpecError(f"count is a whole number from 1 to {MOST_PROBLEMS}.", "count", 'Write "count": 8.')
        order = list(STORY_RUNGS)
        return {rung: sum(order[i * len(order) // count] == rung for i in range(count)) for rung in order}
    good = isinstance(found, Mapping) and all(
        rung in STORY_RUNGS and isinstance(n, int) and not isinstance(n, bool) and 0 <= n <= MOST_PROBLEMS
        for rung, n in found.items()
    )
    if not good or not 1 <= sum(found.values()) <= MOST_PROBLEMS:
        raise SpecError(
            "The rungs of stories are named with a count each.", "rungs", 'Write "rungs": {"S1": 2, "S3": 1}.'
        )
    return dict(found)


def _scenario(found: object, own: Sequence[Scenario]) -> Scenario | None:
    if found is None:
        return None
    if isinstance(found, Mapping):
        try:
            return read_scenario(found)
        except CoreError as error:
            raise SpecError(f"scenario: {error.message}", "scenario", error.hint) from None
    known = scenarios() | {one.code: one for one in own}
    if not isinstance(found, str) or found not in known:
        raise SpecError("This scenario is not known.", "scenario", f"It is one of {', '.join(known)}.")
    return known[found]


# Making them ----------------------------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class Made:
    """The stories, worked, in their order, and which targets none of them reveals."""

    stories: tuple[Worked, ...]
    not_revealed: tuple[str, ...]


def make_stories(
    wish: StoryWish, kept: Mapping[int, Story] | None = None, shunned: Collection[str] = ()
) -> Made | Impossible:
    """The stories that are wished for, or which part of the wish rules them out. *kept* ones stay in their places (from 0).

    Texts among *shunned* are not told again.
    """
    try:
        maker = _Maker(wish, kept or {}, shunned)
        return maker.made()
    except NoLadderError:
        return _why(wish)


def _why(wish: StoryWish) -> Impossible:
    """What rules the wish out: the limits of its numbers, else that its scenario or its situations have nothing of such sizes."""
    for operator, allowed in _OPERATIONS:
        for rung in [one for one in wish.calculations or _USUAL if one in allowed]:
            numbers = replace(wish.spec, rungs={rung: 1}, targets=()).within(operations=frozenset([operator]))
            found = build_or_why(numbers)
            if isinstance(found, Impossible):
                return found
    return Impossible("situations" if wish.situations else "scenario" if wish.scenario else "rungs", None)


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
        """The rungs of the calculations that may be asked with an *operator*; of the usual ones those that the limits allow."""
        rungs = [rung for rung in self.wish.calculations or _USUAL if rung in dict(_OPERATIONS)[operator]]
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
        seen = {one.entry.code for worked in stories for one in worked.likely if one.status == "reveals"}
        return Made(tuple(stories), tuple([code for code in self.wish.spec.targets if code not in seen]))

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
        for operator, _ in _OPERATIONS:
            places = [at for at, pattern in plan.items() if searched_for(pattern) == operator]
            rungs = self._rungs(operator)
            if not places:
                continue
            slots = [rungs[i * len(rungs) // len(places)] for i in range(len(places))]
            found, shown = self._searched(operator, slots, wanted)
            wanted = [code for code in wanted if code not in shown]
            for at, expr in zip(places, found, strict=True):
                numbers[at] = expr
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

    # Telling ----------------------------------------------------------------------------------------------------------

    def _told(self, rung: str, pattern: Pattern, expr: Expr | None, at: int) -> Story:
        """The story of a place: told of a thing that its numbers suit; with other numbers where there is none. Raises `NoLadderError`."""
        dice = Random(f"story {self.wish.seed} {at}")
        beside = rung == "S6" and pattern.rung != "S6"
        for tried in range(_MOST_TRIED):
            if tried == _MOST_TRIED // 2 and self.wish.scenario is None and not self.wish.situations:
                pattern = self._other_than(pattern, self._of_rung(rung))
                beside = rung == "S6" and pattern.rung != "S6"
            scenario = self._scenario(dice)
            thing = self._thing(scenario, pattern, dice)
            if thing is None:
                continue
            numbers = self._filled(pattern, expr if tried < 40 else self._again(pattern, expr, dice), thing, dice)
            if numbers is None or not possible(pattern, numbers, thing):
                continue
            doers = tuple(dice.sample(scenario.doers, 2))
            told = Told(
                thing,
                (doers[0], doers[1]),
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

    def _scenario(self, dice: Random) -> Scenario:
        return self.wish.scenario or dice.choice([*scenarios().values()])

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
            numbers = list(leaves(expr))
            if numbers[0] != numbers[1] and (found is None or is_within(found, rung, limits)):
                return expr
        raise NoLadderError(rung=rung)

    def _limits(self, operator: Operator) -> Limits:
        limits = self.wish.spec.limits
        return replace(limits, operations=frozenset([operator]), avoid=limits.avoid | {"negatives"}, lowest_terms=True)

    def _filled(self, pattern: Pattern, expr: Expr | None, thing: Thing, dice: Random) -> list[Expr] | None:
        """The numbers of a pattern in the order in which they are told; None where none were found."""
        lot = _Lot(self.wish.spec.limits, thing, dice)
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


class _Lot:
    """Numbers drawn by lot within limits, of sizes that a thing can have."""

    def __init__(self, limits: Limits, thing: Thing, dice: Random) -> None:
        self.limits, self.thing, self.dice = limits, thing, dice

    def size(self, most: Fraction) -> Expr:
        """A fraction or mixed number of at most about *most*."""
        den = self.dice.choice(self.limits.denominators)
        whole = self.dice.randint(0, max(0, min(self.limits.largest_whole, int(most) - 1)))
        number = whole + Fraction(self.dice.randint(1, den - 1), den)
        return mixed(number)

    def numbers(self, pattern: Pattern) -> list[Expr] | None:
        """The numbers of a pattern with equal groups, a part, or a change of unit."""
        count = self.dice.randint(2, 6)
        each = self.size(self.thing.high / count)
        total = mixed(value(each) * count)
        match pattern.situation, pattern.unknown, pattern.slots:
            case "equal-groups", "product", _:
                return [Whole(count), each]
            case "equal-groups", "size", "qc":
                return [total, Whole(count)]
            case "equal-groups", "size", _:
                return [Whole(count), total]
            case "equal-groups", "number", _:
                return [total, each]
            case "part-of", _, _:
                den = self.dice.choice([d for d in self.limits.denominators if d > 2] or [3])
                return [each, mixed(Fraction(self.dice.randint(1, den - 1), den))]
            case _, _, "qcqq":
                return self.with_start(pattern, [Whole(count), each, self.size(self.thing.high / 4)])
        return self._in_two_units()

    def _in_two_units(self) -> list[Expr] | None:
        unit = smaller_unit(self.thing.unit)
        if unit is None:
            return None
        dens = [d for d in self.limits.denominators if unit[1] % d == 0] or [2]
        den = self.dice.choice(dens)
        amount = self.dice.randint(1, max(1, min(self.limits.largest_whole, 6))) + Fraction(
            self.dice.randint(0, den - 1), den
        )
        step = 5 if unit[1] % 100 == 0 else 1
        less = step * self.dice.randint(1, max(1, int(amount * unit[1]) // step - 1))
        return [mixed(amount), Whole(min(less, unit[1] - step))]

    def with_start(self, pattern: Pattern, used: list[Expr]) -> list[Expr] | None:
        """*used* amounts with what there is at the start before them, and the number that shares the rest after."""
        goes = (
            value(used[0]) * value(used[1]) + value(used[2])
            if pattern.slots == "qcqq"
            else sum([value(n) for n in used], Fraction(0))
        )
        whole = ceil(goes) + self.dice.randint(0, 3)
        den = self.dice.choice(self.limits.denominators)
        start: Expr = (
            Whole(whole) if self.dice.random() < 0.6 else mixed(whole + Fraction(self.dice.randint(1, den - 1), den))
        )
        if value(start) <= goes:
            return None
        return [start, *used, *([Whole(self.dice.randint(2, 6))] if pattern.slots == "qqqc" else [])]


# Around an example ----------------------------------------------------------------------------------------------------


def stories_for(problem: Problem, ways: Ways, seed: int, count: int = 3, own: Sequence[Scenario] = ()) -> list[Worked]:
    """So many stories that fit the numbers and the label of a *problem*, each of another situation; fewer where there are no more."""
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
            try:
                story = tell(
                    pattern,
                    numbers,
                    Told(
                        dice.choice(things),
                        (doers[0], doers[1]),
                        pattern.past_only or dice.random() < 0.5,
                        False,
                        label=problem.label,
                    ),
                )
                made.append(work_out(as_problem(story), ways))
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
    """A story like a *worked* one: the same situation and unknown, calculations on the same rungs, other numbers, another scenario."""
    problem = worked.working.problem
    story = problem.story if isinstance(problem, StoryProblem) else None
    if story is None:
        return None
    rungs = [work_out(part.problem, worked.working.ways).features.rung for part in worked.working.parts]
    calculations = tuple([rung for rung in rungs if rung in CALCULATIONS])
    spec = Spec({"F4": 1}, ways=worked.working.ways)
    wish = StoryWish({worked.features.rung: 1}, spec, calculations, (story.situation,), (story.unknown,), None, seed)
    for loosened in (
        wish,
        replace(wish, calculations=()),
        replace(wish, situations=(), unknowns=(), calculations=()),
    ):
        made = make_stories(loosened, shunned=shunned)
        if isinstance(made, Made):
            return made.stories[0]
    return None
