"""What happens to the numbers of a step, told in wholes and parts: nothing here knows how they are drawn."""

from __future__ import annotations

from dataclasses import dataclass, replace

from ..expressions.spoken import parts_name
from ..expressions.terms import parts, without_bars
from ..expressions.tree import Bracket, Equation, Expr, Frac, Mixed, Neg, OverBar, Sum, Whole, ratio
from ..expressions.typeset import Role, roles_for
from ..expressions.walks import children, has_blank, leaves
from ..working.step import Step
from ..working.step_kinds import (
    ADD_FRACTIONS,
    ADD_WHOLES,
    EQUIVALENT,
    JOIN,
    REGROUP,
    SUBTRACT_FRACTIONS,
    SUBTRACT_WHOLES,
)


@dataclass(frozen=True, slots=True)
class NumberShown:
    """A number as a picture shows it: *wholes* uncut, and *num* parts of which *den* make a whole."""

    wholes: int
    num: int
    den: int

    @classmethod
    def of(cls, number: Expr) -> NumberShown:
        """The amount of an unsigned number as written; over 1 it counts wholes."""
        whole, num, den = parts(number)
        return cls(whole + num, 0, 1) if den == 1 else cls(whole, num, den)

    @property
    def cut(self) -> int:
        """How many wholes are cut to show the parts."""
        return -(-self.num // self.den) if self.num else 0

    @property
    def places(self) -> int:
        """How many wholes are drawn: an amount of nothing is one empty whole."""
        return max(1, self.wholes + self.cut)

    @property
    def said(self) -> str:
        """The amount as it is counted in a picture.

        >>> NumberShown(7, 3, 12).said, NumberShown(0, 1, 2).said, NumberShown(1, 0, 1).said
        ('7 <wholes> and 3 twelfths', '1 half', '1 <whole>')
        """
        said = [f"{self.wholes} {'<whole>' if self.wholes == 1 else '<wholes>'}"] if self.wholes else []
        if self.num or not self.wholes:
            said.append(f"{self.num} {parts_name(self.den, self.num != 1)}")
        return " and ".join(said)


@dataclass(frozen=True, slots=True)
class Shown:
    """Numbers that stand beside each other, or are cut again: each as it was and as it is, of the same value."""

    rows: tuple[tuple[NumberShown, NumberShown, Role], ...]
    carried: bool = False  # whether the newly cut whole is one that was regrouped
    captions: tuple[str, ...] = ()  # in the place of the amounts


@dataclass(frozen=True, slots=True)
class Joining:
    """The parts of the later amounts move to the first; all have parts of one size."""

    amounts: tuple[tuple[NumberShown, Role], ...]
    total: NumberShown


@dataclass(frozen=True, slots=True)
class Taking:
    """*away* is crossed off *start*."""

    start: NumberShown
    away: NumberShown
    role: Role


Scene = Shown | Joining | Taking


def scene_of(step: Step) -> Scene | None:
    """What a step does to its numbers; None where wholes and parts cannot show it."""
    if any(isinstance(number, OverBar) for number in leaves(step.before)):
        step = replace(step, before=without_bars(step.before))
    if step.kind is EQUIVALENT and isinstance(step.before, Equation):
        return _equivalent(step.before, step.after)
    if (
        step.kind.pictures in ("jumps", "none")
        or not (_is_plain(step.before) and _is_plain(step.after))
        or not all(isinstance(n, (Whole, Frac, Mixed)) for n in _numbers(step))
    ):
        return None
    if step.kind.pictures == "taking":
        return _taking(step)
    if step.kind.pictures == "joining":
        if (joining := _joining(step)) is not None:
            return joining
        if step.kind is not JOIN:
            return None
    return _shown(step)


def scene_of_problem(expr: Expr) -> Scene | None:
    """The numbers of a problem, or of any line, beside each other."""
    numbers = leaves(expr)
    if not all(isinstance(n, (Whole, Frac, Mixed)) and not has_blank(n) for n in numbers):
        return None
    return Shown(
        tuple([_same(NumberShown.of(n), role) for n, role in zip(numbers, roles_for(len(numbers)), strict=True)])
    )


FEW = 3  # wholes that are drawn one by one beside others that are not


@dataclass(frozen=True, slots=True)
class Blocks:
    """The wholes of each row of a *scene* to which nothing happens, as one block of so many; the scene is what is left
    of it.
    """

    scene: Scene
    kept: tuple[int, ...]
    taken: int = 0  # crossed off, as a second block


def in_blocks(scene: Scene) -> Blocks:
    """*scene* with its many wholes put together; nothing is put together where numbers are joined."""
    match scene:
        case Shown(rows, carried, captions):
            kept = tuple([_many(min(before.wholes, after.wholes)) for before, after, _ in rows])
            left = [(_less(a, k), _less(b, k), role) for (a, b, role), k in zip(rows, kept, strict=True)]
            said = captions or tuple(["" for _ in rows])
            return Blocks(Shown(tuple(left), carried, said), kept)
        case Taking(start, away, role):
            stays, taken = _many(start.wholes - away.wholes), _many(away.wholes)
            return Blocks(Taking(_less(start, stays + taken), _less(away, taken), role), (stays,), taken)
    return Blocks(scene, ())


def _many(wholes: int) -> int:
    return wholes if wholes > FEW else 0


def _less(amount: NumberShown, wholes: int) -> NumberShown:
    return NumberShown(amount.wholes - wholes, amount.num, amount.den)


def largest(scene: Scene) -> tuple[int, int]:
    """The most parts that a whole of *scene* is cut into, and the most wholes that one number has."""
    amounts = _amounts(scene)
    return max([a.den for a in amounts]), max([a.places for a in amounts])


def wholes_in(scene: Scene) -> bool:
    """Whether a whole of *scene* is not cut."""
    return any(amount.wholes for amount in _amounts(scene))


def _amounts(scene: Scene) -> list[NumberShown]:
    match scene:
        case Shown(rows):
            return [amount for row in rows for amount in row[:2]]
        case Joining(pairs, total):
            return [total, *[amount for amount, _ in pairs]]
        case Taking(start, away, _):
            return [start, away]


def _equivalent(asked: Equation, filled: Expr) -> Shown | None:
    """The side that is filled, cut from one that is known."""
    known = next((side for side in asked.sides if not has_blank(side)), None)
    new = [b for a, b in zip(asked.sides, filled.sides, strict=True) if a != b] if isinstance(filled, Equation) else []
    if known is None or len(new) != 1 or not all(isinstance(n, (Whole, Frac, Mixed)) for n in (known, new[0])):
        return None
    before, after = NumberShown.of(known), NumberShown.of(new[0])
    return Shown(((before, after, "first"),), carried=before.wholes > after.wholes > 0)


def _is_plain(expr: Expr) -> bool:
    """Whether *expr* is a number, a sum of numbers, or one of these below zero: nothing else can be laid out in
    wholes.
    """
    inner = expr.inner if isinstance(expr, Neg) else expr
    inner = inner.inner if isinstance(inner, Bracket) and isinstance(expr, Neg) else inner
    terms = (inner.first, *[term for _, term in inner.rest]) if isinstance(inner, Sum) else (inner,)
    return not any(children(term) for term in terms)


def _numbers(step: Step) -> list[Expr]:
    return [*leaves(step.before), *leaves(step.after)]


def _same(amount: NumberShown, role: Role) -> tuple[NumberShown, NumberShown, Role]:
    return amount, amount, role


def _shown(step: Step) -> Shown | None:
    before, after = leaves(step.before), leaves(step.after)
    carried = step.kind is REGROUP
    roles: list[Role] = [(step.roles[i] if i < len(step.roles) else "") or "answer" for i in range(len(after))]
    if carried:  # only the whole that is cut is in the ink of what is carried
        roles = list(roles_for(len(after)))
    if isinstance(step.after, Neg):
        return None
    if len(before) == len(after) and all(_same_value(a, b) for a, b in zip(before, after, strict=True)):
        pairs = [(NumberShown.of(a), NumberShown.of(b), role) for a, b, role in zip(before, after, roles, strict=True)]
        rows = [(a, b, role) for a, b, role in pairs if a != b]
        return Shown(tuple(rows), carried) if rows else None
    new = [_same(NumberShown.of(b), role) for b, role in zip(after, roles, strict=True) if b not in before]
    return Shown(tuple(new)) if new else None


def _same_value(a: Expr, b: Expr) -> bool:
    (n, d), (m, e) = ratio(a), ratio(b)
    return n * e == m * d


def _joining(step: Step) -> Joining | None:
    if not isinstance(step.before, Sum) or any(operator == "-" for operator, _ in step.before.rest):
        return None
    numbers = [NumberShown.of(n) for n in leaves(step.before)]
    results = [NumberShown.of(n) for n in leaves(step.after)]
    if step.kind is ADD_WHOLES:
        numbers, results = [NumberShown(n.wholes, 0, 1) for n in numbers], results[:1]
    elif step.kind is ADD_FRACTIONS:
        numbers, results = [NumberShown(0, n.num, n.den) for n in numbers], results[-1:]
    else:
        while len(results) > 1 and numbers[-1] == results[-1]:
            numbers.pop()
            results.pop()
    numbers = [n for n in numbers if n.wholes or n.num]
    dens = {n.den for n in numbers if n.num}
    if len(numbers) < 2 or len(results) != 1 or len(dens) > 1:
        return None
    total = NumberShown(sum(n.wholes for n in numbers), sum(n.num for n in numbers), max(dens, default=1))
    den = total.den
    amounts = [NumberShown(n.wholes, n.num, den) for n in numbers]
    return Joining(tuple(zip(amounts, roles_for(len(amounts)), strict=True)), total)


def _taking(step: Step) -> Taking | None:
    pair = _first_pair(step.before)
    if pair is None or isinstance(step.after, Neg):
        return None
    start, away = NumberShown.of(pair[0]), NumberShown.of(pair[1])
    if step.kind is SUBTRACT_WHOLES:
        start, away = NumberShown(start.wholes, 0, 1), NumberShown(away.wholes, 0, 1)
    elif step.kind is SUBTRACT_FRACTIONS:
        numbers = [NumberShown.of(n) for n in leaves(step.before)]
        pieces = [NumberShown(0, n.num, n.den) for n in numbers if n.num]
        if len(pieces) < 2:
            return None
        start, away = pieces[:2]
    den = start.den if start.num else away.den
    if (away.num and away.den != den) or away.wholes > start.wholes or away.num > start.num:
        return None
    return Taking(NumberShown(start.wholes, start.num, den), NumberShown(away.wholes, away.num, den), "first")


def _first_pair(expr: Expr) -> tuple[Expr, Expr] | None:
    if not isinstance(expr, Sum) or isinstance(expr.first, Neg):
        return None
    operator, second = expr.rest[0]
    return (expr.first, second) if operator == "-" else None
