"""Blank numerators: which whole numbers fill them, listed a few at a time, and counted without being listed.

With D the common denominator, a blank over d counts in steps of s = D/d: wanted are all n1, n2, ... of 1 or more with
s1 n1 + s2 n2 + ... = t. A blank that is taken away is proper, and n = d - m turns it into one that is added. What is
counted is bounded compositions: a numerator is r + d q with 1 <= r <= d; the r make one of few totals, and the q share
out the wholes that are left, in C(wholes + k - 1, k - 1) ways among k blanks (stars and bars; from memory).
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import accumulate, islice
from math import comb, gcd

from ...searching.deadline import look

MOST_LISTED = 200  # of the answers of a problem at once; the rest can be asked for
MOST_SKIPPED = 20_000  # answers are not listed beyond so many
_MOST_TRIED = 60_000  # numbers that are tried in one list
_MOST_TOTALS = 800_000  # of all blanks together, where each total is looked at
_MOST_FOLLOWED = 60_000  # where only those are followed that can still be completed
_MOST_DIFFERENT = 2_000  # where all must differ, they are counted by listing them


@dataclass(frozen=True, slots=True)
class Blanks:
    """Numerators to be found: *steps* that each counts in, *dens* they stand over, the *total* to be made.

    *proper* marks those that stay below their denominator, *taken* those that are taken away: they are proper too, and
    stand in the total as what is left of one. All may have to be in *lowest* terms, or *different*.
    """

    steps: tuple[int, ...]
    dens: tuple[int, ...]
    total: int
    proper: tuple[bool, ...]
    taken: tuple[bool, ...]
    lowest: bool = False
    different: bool = False


def listed(blanks: Blanks, start: int = 0, most: int = MOST_LISTED) -> list[tuple[int, ...]]:
    """The answers from number *start* (from 0), at most so many, in order; fewer where too many numbers would be tried.

    >>> listed(Blanks((1, 2, 6), (18, 9, 3), 23, (False,) * 3, (False,) * 3), 0, 3)
    [(1, 2, 3), (1, 5, 2), (1, 8, 1)]
    """
    return list(islice(_Search(blanks).found(0, blanks.total, ()), start, start + most))


def counted(blanks: Blanks) -> int | None:
    """How many answers there are; None where they are too many to be counted in a moment.

    >>> counted(Blanks((1, 2, 6), (18, 9, 3), 23, (False,) * 3, (False,) * 3))
    15
    >>> counted(Blanks((1, 1, 1, 1), (60, 60, 60, 60), 84, (False,) * 4, (False,) * 4))
    91881
    """
    if blanks.different:
        search = _Search(blanks)
        count = sum(1 for _ in islice(search.found(0, blanks.total, ()), _MOST_DIFFERENT + 1))
        return None if search.tired or count > _MOST_DIFFERENT else count
    shared = gcd(*blanks.steps)
    if blanks.total % shared or blanks.total < shared:
        return 0
    blanks = replace(blanks, steps=tuple([step // shared for step in blanks.steps]), total=blanks.total // shared)
    common = blanks.steps[0] * blanks.dens[0]
    free = blanks.proper.count(False)
    size = len(blanks.steps) * common
    rests = range(max(0, -((size - blanks.total) // common)), blanks.total // common + 1) if free else [0]
    goals = {blanks.total - m * common: _shared_out(m, free) for m in rests}
    made = _made(blanks, max(goals, default=0), size)
    return None if made is None else sum(made(goal) * ways for goal, ways in goals.items())


def _shared_out(wholes: int, blanks: int) -> int:
    """In how many ways *wholes* are shared out among *blanks*."""
    return comb(wholes + blanks - 1, blanks - 1) if blanks else int(wholes == 0)


class _Search:
    """Goes through the answers in order. *tired* says that it has tried as many numbers as it may, and has stopped."""

    def __init__(self, blanks: Blanks) -> None:
        self.blanks = blanks
        self.left = _MOST_TRIED
        steps = blanks.steps
        self.shared = [gcd(*steps[i:]) for i in range(len(steps))]
        self.least = [sum(steps[i:]) for i in range(len(steps) + 1)]
        tops = [(d - 1) * s if proper else None for d, s, proper in zip(blanks.dens, steps, blanks.proper, strict=True)]
        self.most = [None if None in tops[i:] else sum([top or 0 for top in tops[i:]]) for i in range(len(steps) + 1)]

    @property
    def tired(self) -> bool:
        return self.left <= 0

    def found(self, i: int, total: int, begun: tuple[int, ...]) -> Iterator[tuple[int, ...]]:
        step, den = self.blanks.steps[i], self.blanks.dens[i]
        last = i + 1 == len(self.blanks.steps)
        hopeful = self._hopeful(i, total, step, last)
        taken = self.blanks.taken[i]
        for counting in reversed(hopeful) if taken else hopeful:
            self.left -= 1
            if self.left <= 0:
                return
            n = den - counting if taken else counting
            if (self.blanks.lowest and gcd(n, den) > 1) or (self.blanks.different and n in begun):
                continue
            if last:
                yield (*begun, n)
            else:
                yield from self.found(i + 1, total - counting * step, (*begun, n))

    def _hopeful(self, i: int, total: int, step: int, last: bool) -> range:
        """The numerators that leave the later blanks a total they may make: one they divide, not too small, not too
        large.
        """
        if last:
            n, rest = divmod(total, step)
            top = self.blanks.dens[i] - 1 if self.blanks.proper[i] else n
            return range(n, n + 1) if rest == 0 and 1 <= n <= top else range(0)
        first, stride = _solved(total, step, self.shared[i + 1])
        if not stride:
            return range(0)
        high = (total - self.least[i + 1]) // step
        if self.blanks.proper[i]:
            high = min(high, self.blanks.dens[i] - 1)
        later = self.most[i + 1]
        low = 1 if later is None else max(1, -((later - total) // step))
        return range(low + (first - low) % stride, high + 1, stride)


def _solved(total: int, step: int, shared: int) -> tuple[int, int]:
    """The n with n × step = total modulo *shared*: one of them, and how far they lie apart (0 where there is none)."""
    by = gcd(step, shared)
    if total % by:
        return 0, 0
    stride = shared // by
    return (total // by * pow(step // by, -1, stride) % stride if stride > 1 else 0), stride


# Counting ------------------------------------------------------------------------------------------------------------


class _Count:
    """How often the residues r of the blanks make a total."""

    def __init__(self, made: dict[int, int] | list[int]) -> None:
        self.made = made

    def __call__(self, total: int) -> int:
        if isinstance(self.made, list):
            return self.made[total] if 0 <= total < len(self.made) else 0
        return self.made.get(total, 0)


def _made(blanks: Blanks, most: int, size: int) -> _Count | None:
    """The totals up to *most* that the residues make, each with how often; None where there are too many to go
    through.
    """
    passes = sum([len(_signed_divisors(den)) for den in blanks.dens]) if blanks.lowest else len(blanks.dens)
    if passes * min(size, most) <= _MOST_TOTALS:
        return _Count(_by_windows(blanks, min(size, most)))
    return _by_congruences(blanks, size)


def _by_windows(blanks: Blanks, most: int) -> list[int]:
    """All totals at once: each blank adds a window of equal steps to what the others make, less the multiples of
    primes.
    """
    made = [1] + [0] * most
    for step, den, proper in zip(blanks.steps, blanks.dens, blanks.proper, strict=True):
        last = den - 1 if proper else den
        look()
        added = [0] * (most + 1)
        for factor, sign in _signed_divisors(den) if blanks.lowest else [(1, 1)]:
            width, jump = last // factor, step * factor
            for residue in range(min(jump, most + 1)):
                column = made[residue::jump]
                sums = [0, *accumulate(column)]
                for at in range(1, len(column)):
                    added[residue + at * jump] += sign * (sums[at] - sums[max(0, at - width)])
        made = added
    return made


def _signed_divisors(den: int) -> list[tuple[int, int]]:
    """The divisors of *den* without a square, each with its sign: which numbers share no factor with it (Möbius)."""
    divisors = [(1, 1)]
    rest, prime = den, 2
    while rest > 1:
        if prime * prime > rest:
            prime = rest
        if rest % prime == 0:
            divisors += [(d * prime, -sign) for d, sign in divisors]
            while rest % prime == 0:
                rest //= prime
        prime += 1
    return divisors


def _by_congruences(blanks: Blanks, size: int) -> _Count | None:
    """Only the totals that later blanks can still complete: each leaves to those after it what their steps divide."""
    common = blanks.steps[0] * blanks.dens[0]
    order = sorted(range(len(blanks.steps)), key=lambda i: -blanks.dens[i])
    steps, dens = [blanks.steps[i] for i in order], [blanks.dens[i] for i in order]
    proper = [blanks.proper[i] for i in order]
    goals = range(blanks.total % common, size + 1, common)
    # What is still to be made -> which goal it came from -> in how many ways.
    left = {goal: Counter({goal: 1}) for goal in goals}
    work = 0
    for i, (step, den) in enumerate(zip(steps, dens, strict=True)):
        later = steps[i + 1 :]
        shared = gcd(*later) if later else 0
        nearer: dict[int, Counter[int]] = {}
        for total, ways in left.items():
            for r in _residues(total, step, den - 1 if proper[i] else den, shared):
                if blanks.lowest and gcd(r, den) > 1:
                    continue
                work += len(ways)
                if work > _MOST_FOLLOWED:
                    return None
                rest = total - r * step
                if rest >= 0:
                    nearer.setdefault(rest, Counter()).update(ways)
        left = nearer
    return _Count(dict(left.get(0, {})))


def _residues(total: int, step: int, last: int, shared: int) -> range:
    """The r from 1 to *last* for which *shared* divides total - r × step (0: for which nothing is left)."""
    if shared == 0:
        r, rest = divmod(total, step)
        return range(r, r + 1) if rest == 0 and 1 <= r <= last else range(0)
    first, stride = _solved(total, step, shared)
    return range(1 + (first - 1) % stride, last + 1, stride) if stride else range(0)
