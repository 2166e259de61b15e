"""A ladder built to order: candidates of each rung are drawn, few that reveal the targets are taken, the rest step up
evenly.

All chance comes from the seed of the wish, so the same wish gives the same ladder.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass, replace
from itertools import combinations, islice
from random import Random

from ..expressions.tree import Expr
from ..searching.deadline import EndedEarlyError, after_looks, look, passed, until
from .options import Goals, Option, awkward, copy_key, height, is_within, option, reveals, step_up
from .space import Space, TwoTerms
from .spaces import space_of
from .spec import Spec

_MOST_SEARCHED = 20_000  # typical candidates of a rung that are worked to find one that reveals something rare
_MOST_OF_THREE = 4_000  # the same where three numbers meet: there are more, and each takes longer
_MOST_NODES = 20_000
_MANY, _FEW = 24, 10  # denominators whose candidates take long to count, and so many of them that they do not
_SOON = 2000  # looks at the deadline, some tenths of a second of work
# From one denominator to those that share nothing; what has no denominator comes first.
_RELATIONS = (None, "like", "one-fits", "shares-factor", "coprime")


class NoLadderError(LookupError):
    """No ladder fulfils the wish: *rung* has too few candidates, or the codes *missing* are revealed by none."""

    def __init__(self, rung: str | None = None, missing: tuple[str, ...] = ()) -> None:
        super().__init__(f"too few candidates on {rung}" if rung else f"nothing reveals {', '.join(missing)}")
        self.rung = rung
        self.missing = missing


@dataclass(frozen=True, slots=True)
class Ladder:
    """The problems chosen, what they reveal, the pairs of targets that stay alike, and the candidates: how many there
    were.

    *exact* is False where the counts are upper bounds, *sampled* True where not all candidates were gone through.
    *ended_early* says that the deadline came first: there may be better problems, and *not_revealed* targets may show
    yet.
    """

    problems: tuple[Option, ...]
    reveals: tuple[str, ...]
    not_separated: tuple[tuple[str, str], ...]
    counts: Mapping[str, int]
    considered: int
    exact: bool
    sampled: bool
    ended_early: bool = False
    not_revealed: tuple[str, ...] = ()


def build(spec: Spec, kept: Mapping[int, Expr] | None = None, shunned: Collection[Expr] = ()) -> Ladder:
    """The ladder that *spec* wishes for; at the deadline, what there is by then. Raises `NoLadderError`,
    `EndedEarlyError`.

    *kept* problems stay in their places (from 0); *shunned* ones are not taken, nor are copies of either.
    Where counting the candidates of very many denominators takes too long, it is a ladder of few of them.
    """
    try:
        return _Builder(spec, kept or {}, shunned).ladder()
    except EndedEarlyError:
        few = _of_few_denominators(spec, kept or {}, shunned)
        if few is None:
            raise
        return few


def _of_few_denominators(spec: Spec, kept: Mapping[int, Expr], shunned: Collection[Expr]) -> Ladder | None:
    """A ladder of the smallest of many denominators, soon found; None where they are few, or where it would not do."""
    few = tuple(sorted(spec.limits.denominators)[:_FEW])
    if len(spec.limits.denominators) < _MANY:
        return None
    try:
        with until(after_looks(_SOON)):
            made = _Builder(spec.within(denominators=few), kept, shunned).ladder()
    except (NoLadderError, EndedEarlyError):
        return None
    return replace(made, sampled=True, ended_early=True)


def counts_of(spec: Spec) -> tuple[dict[str, Space], int]:
    """The space of each rung that is wished for, and how many candidates were considered in all.

    At the deadline, the rungs that are counted by then; at least one. Raises `EndedEarlyError` where there is none.
    """
    spaces: dict[str, Space] = {}
    for rung in spec.rungs:
        try:
            spaces[rung] = space_of(rung, spec.limits)
            _ = spaces[rung].count
        except EndedEarlyError:
            spaces.pop(rung, None)
    if not spaces:
        raise EndedEarlyError
    families = {space.family: space.considered for space in spaces.values()}
    return spaces, sum(families.values())


class _Builder:
    def __init__(self, spec: Spec, kept: Mapping[int, Expr], shunned: Collection[Expr]) -> None:
        self.spec = spec
        self.spaces, self.considered = counts_of(spec)
        if len(self.spaces) < len(spec.rungs):
            raise EndedEarlyError
        self.ended_early = False
        self.masks: dict[int, int] = {}
        self.masked: list[Option] = []
        self.sampled = any(space.sampled for space in self.spaces.values())
        self.goals = Goals(spec.targets, spec.separate)
        self.kept = {
            at: found for at, expr in kept.items() if (found := option(expr, spec.ways, spec.slots[at])) is not None
        }
        self.used = {copy_key(expr) for expr in (*kept.values(), *shunned)}
        self.free = Counter(rung for at, rung in enumerate(spec.slots) if at not in self.kept)
        self.pools = {rung: self._pool(rung, count) for rung, count in self.free.items()}

    def mask(self, found: Option) -> int:
        """What a candidate does, as bits; it is asked for again and again, and takes a while for many targets."""
        known = self.masks.get(id(found))
        if known is None:
            known = self.masks[id(found)] = self.goals.mask(found.answers, found.right)
            self.masked.append(found)  # so that its place in memory stays its own
        return known

    # Candidates ---------------------------------------------------------------------------------------------------

    def _pool(self, rung: str, count: int) -> list[Option]:
        """Candidates by lot, no copies among them: more than are needed.

        Raises `NoLadderError` where they are too few.
        """
        wanted = 5 * count + 7
        pool: list[Option] = []
        keys = set(self.used)
        for expr in self._in_time(self._by_lot(rung, wanted)):
            if len(pool) >= count and self._ended():
                break
            look()
            if (key := copy_key(expr)) in keys:
                continue
            keys.add(key)
            found = option(expr, self.spec.ways, rung)
            if found is not None and is_within(found, rung, self.spec.limits):
                pool.append(found)
            if len(pool) >= wanted:
                break
        if len(pool) < count:
            raise EndedEarlyError if self.ended_early else NoLadderError(rung=rung)
        return pool

    def _in_time(self, candidates: Iterator[Expr]) -> Iterator[Expr]:
        """The *candidates* that are found before the deadline."""
        try:
            yield from candidates
        except EndedEarlyError:
            self.ended_early = True

    def _by_lot(self, rung: str, wanted: int) -> Iterator[Expr]:
        space = self.spaces[rung]
        dice = self._dice(rung)
        if space.count > 20 * wanted:
            for _ in range(20 * wanted):
                yield space.draw(dice)
        elif space.count:
            every = list(space.all())
            dice.shuffle(every)
            yield from every
        if space.count and not space.exact:  # the lot may have met the few that do not fit
            yield from islice(space.all(), _MOST_SEARCHED)

    def _ended(self) -> bool:
        """Whether the deadline has passed, while something is in hand."""
        self.ended_early = self.ended_early or passed()
        return self.ended_early

    def _dice(self, purpose: str) -> Random:
        return Random(f"{self.spec.seed} {purpose}")

    def _search(self, wanted: int) -> None:
        """Add to the pools candidates that do something of *wanted* which nothing in them does yet."""
        for rung in self._by_hope():
            pool = self.pools[rung]
            known = {self.mask(found) for found in pool}
            for expr, bits in self._searched(rung):
                if not wanted or self._ended():
                    return
                if bits & wanted and bits not in known and (found := self._usable(expr, rung)) is not None:
                    known.add(bits)
                    pool.append(found)
                    wanted &= ~bits

    def _by_hope(self) -> list[str]:
        """The rungs with free places, the ones that are gone through sooner first."""
        return sorted(
            self.free, key=lambda rung: (not isinstance(self.spaces[rung], TwoTerms), self.spaces[rung].count)
        )

    def _searched(self, rung: str) -> Iterator[tuple[Expr, int]]:
        """The typical candidates of *rung* in an order by lot, and what each does."""
        most = _MOST_SEARCHED if isinstance(self.spaces[rung], TwoTerms) else _MOST_OF_THREE
        every = []
        for expr in self._in_time(islice(self.spaces[rung].typical(), most + 1)):
            every.append(expr)
            if self._ended():
                return
        if self.ended_early:
            return
        if len(every) > most:
            self.sampled = True
            if self.spaces[rung].count:
                dice = self._dice(f"search {rung}")
                every = [self.spaces[rung].draw(dice) for _ in range(most)]
        self._dice(f"order {rung}").shuffle(every)
        for expr in every:
            if self._ended():
                return
            seen = reveals(expr, self.spec.ways, self.goals.codes, rung)
            if seen is not None and (bits := self.goals.mask(*seen)):
                yield expr, bits

    def _usable(self, expr: Expr, rung: str) -> Option | None:
        found = option(expr, self.spec.ways, rung)
        fits = found is not None and is_within(found, rung, self.spec.limits) and copy_key(expr) not in self.used
        return found if fits else None

    def _search_all(self) -> None:
        """Add to the pools a candidate for each thing that can be done at once, gone through whole."""
        for rung in self.free:
            pool = self.pools[rung]
            known = {self.mask(found) for found in pool}
            for expr, bits in self._searched(rung):
                if self._ended():
                    return
                if bits not in known and (found := self._usable(expr, rung)) is not None:
                    known.add(bits)
                    pool.append(found)

    # Choice -------------------------------------------------------------------------------------------------------

    def ladder(self) -> Ladder:
        chosen = self._revealing()
        problems = self._in_order(self._filled(chosen))
        alike = [
            (a, b) for a, b in combinations(self.spec.targets, 2)
            if all(o.answers.get(a, o.right) == o.answers.get(b, o.right) for o in problems)
        ]  # fmt: skip
        return Ladder(
            tuple(problems),
            tuple(dict.fromkeys([code for found in problems for code in found.answers])),
            tuple(alike),
            {rung: space.count for rung, space in self.spaces.items()},
            self.considered,
            all(space.exact for space in self.spaces.values()),
            self.sampled,
            self.ended_early,
            tuple([code for code in self.spec.targets if not any(code in found.answers for found in problems)]),
        )

    def _revealing(self) -> list[Option]:
        """Problems for free places that reveal all targets and, as far as it goes, tell them apart.

        Raises `NoLadderError`.
        """
        done = 0
        for found in self.kept.values():
            done |= self.mask(found)
        must, every = self.goals.must & ~done, self.goals.all & ~done
        reach = self._reach()
        if every & ~reach:
            self._search(every & ~reach)
            reach = self._reach()
        if must & ~reach and not self.ended_early:
            raise NoLadderError(missing=tuple(self.goals.codes_of(must & ~reach)))
        for wanted in (every & reach, must):
            if (assigned := self._assign(wanted)) is not None:
                return assigned
        self._search_all()
        for wanted in (every & self._reach(), must):
            if (assigned := self._assign(wanted)) is not None:
                return assigned
        if self.ended_early:
            return self._as_far_as_it_goes(must & self._reach())
        raise NoLadderError(missing=tuple(self.goals.codes_of(must)))

    def _reach(self) -> int:
        bits = 0
        for pool in self.pools.values():
            for found in pool:
                bits |= self.mask(found)
        return bits

    def _assign(self, wanted: int) -> list[Option] | None:
        """The fewest candidates for free places that do all of *wanted*; None where they do not fit."""
        best: dict[tuple[str, int], Option] = {}
        for rung, pool in self.pools.items():
            for found in pool:
                key = (rung, self.mask(found) & wanted)
                if key[1] and (key not in best or awkward(found) < awkward(best[key])):
                    best[key] = found
        options = sorted(best.items(), key=lambda item: (-item[0][1].bit_count(), awkward(item[1])))
        nodes = [_MOST_NODES]

        def put(left: int, free: Counter[str], size: int) -> list[Option] | None:
            if not left:
                return []
            nodes[0] -= 1
            if not size or nodes[0] < 0 or self._ended():
                return None
            usable = [(bits & left, rung, found) for (rung, bits), found in options if bits & left and free[rung]]
            if max([bits.bit_count() for bits, _, _ in usable], default=0) * size < left.bit_count():
                return None
            rare = _rarest([bits for bits, _, _ in usable], left)
            for bits, rung, found in usable:
                if bits & rare:
                    rest = put(left & ~bits, free - Counter([rung]), size - 1)
                    if rest is not None:
                        return [found, *rest]
            return None

        for size in range(sum(self.free.values()) + 1):
            assigned = put(wanted, self.free, size)
            if assigned is not None or nodes[0] < 0:
                return assigned
        return None

    def _as_far_as_it_goes(self, wanted: int) -> list[Option]:
        """For each free place in turn, the candidate that does most of what is still *wanted*."""
        chosen: list[Option] = []
        free = Counter(self.free)
        while wanted and free:
            rung, best = max(
                [(rung, found) for rung in free for found in self.pools[rung]],
                key=lambda one: (self.mask(one[1]) & wanted).bit_count(),
            )
            if not self.mask(best) & wanted:
                break
            chosen.append(best)
            wanted &= ~self.mask(best)
            free -= Counter([rung])
        return chosen

    def _filled(self, chosen: list[Option]) -> list[list[Option]]:
        """For each rung its new problems: those *chosen*, and others that stand near what is below them."""
        taken = {copy_key(found.expr) for found in chosen} | self.used
        filled = []
        before: Option | None = None
        for rung, count in self.free.items():
            here = [found for found in chosen if found.rung == rung]
            while len(here) < count:
                left = [found for found in self.pools[rung] if copy_key(found.expr) not in taken]
                if not left:
                    raise NoLadderError(rung=rung)
                last = here[-1] if here else before
                best = min(left, key=lambda found: 3 * awkward(found) + (step_up(last, found) if last else 0))
                here.append(best)
                taken.add(copy_key(best.expr))
            before = here[-1] if here else before
            filled.append(here)
        return filled

    def _in_order(self, filled: list[list[Option]]) -> list[Option]:
        """The new problems of each rung, each climbing, and the kept ones in their places; neighbours near each
        other.
        """
        waiting = dict(zip(self.free, filled, strict=True))
        problems: list[Option] = []
        for at, rung in enumerate(self.spec.slots):
            if at in self.kept:
                problems.append(self.kept[at])
                continue
            here = waiting[rung]
            nearest = min(here, key=lambda found: self._next_to(problems[-1] if problems else None, found))
            here.remove(nearest)
            problems.append(nearest)
        return problems

    def _next_to(self, before: Option | None, found: Option) -> tuple[object, ...]:
        alike = _RELATIONS.index(found.features.denominators) if self.spec.likes_first else 0
        return alike, height(found), step_up(before, found) if before else awkward(found)


def _rarest(masks: list[int], left: int) -> int:
    """The bit of *left* that the fewest *masks* have."""
    bits = [1 << i for i in range(left.bit_length()) if left >> i & 1]
    return min(bits, key=lambda bit: sum(1 for mask in masks if mask & bit))
