"""A number line: every term a jump, every step the jumps as they were and as they are."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import count

from ..arithmetic.division import as_decimal
from ..expressions.spoken import words
from ..expressions.terms import signed_terms
from ..expressions.tree import Bracket, Dec, Expr, Frac, Mixed, Neg, Sum, Whole, mixed, value
from ..expressions.typeset import Role, roles_for
from ..expressions.walks import leaves
from ..working.step import Step
from ..working.step_kinds import COUNT_BACK, SHIFT_BOTH
from .display import WIDTH, Figure, Length, Shape, When
from .labels import HEIGHT, Levels, number_label, number_width, within
from .shapes import exact

_APART = 12  # between the labels of two ticks, at least
_JUMP = 30  # the height of the lowest jump
_STEP = 18  # by which a jump that passes over others is higher
_NEAR = 8  # a label so near to its jump needs no line to it
_TICK = 8
_BAND = 18
_MOST_SMALL_TICKS = 60
# So many times as far from a band as it is wide, and not less than so many wholes, a point is still drawn in its place.
_REACH = 2
_MOST_TICKS = 13
_PLAIN = (Whole, Frac, Mixed, Dec)


@dataclass(frozen=True, slots=True)
class _Jump:
    start: Fraction
    end: Fraction
    label: Expr | None
    role: Role


@dataclass(frozen=True, slots=True)
class _Point:
    at: Fraction
    label: Expr
    role: Role
    when: When


def of_step(step: Step) -> Figure:
    """The jumps of a step before and after; the lone numbers of a step are jumps from 0."""
    if step.kind is SHIFT_BOTH:
        return _shift_both(step)
    before, after = _jumps(step.before), _jumps(step.after)
    if _same_way(before, after):
        changed: list[tuple[_Jump, When]] = [(jump, "before") for jump in before]
        return _draw(changed + [(jump, "after") for jump in after], [], _denominators(step))
    if step.kind is COUNT_BACK:
        # What has been jumped already is kept in sight.
        done = _Jump(before[0].end, after[0].end, None, "carried")
        so_far = [after[0]] if done.start == done.end else [before[0], done]
        now: list[tuple[_Jump, When]] = [(jump, "before") for jump in before]
        later = [_Jump(jump.start, jump.end, jump.label, "second") for jump in after[1:]]
        points = [_Point(after[0].end, _first(step.after), "carried", "after")]
        return _draw(now + [(jump, "after") for jump in so_far + later], points, _denominators(step))
    both: list[tuple[_Jump, When]] = [(jump, "") for jump in before]
    return _draw(both, [_Point(value(_first(step.after)), _first(step.after), "answer", "after")], _denominators(step))


def of_problem(expr: Expr) -> Figure:
    """The jumps that a problem, or a lone number, stands for."""
    return _draw([(jump, "") for jump in _jumps(expr)], [], [1])


def bare(expr: Expr) -> Figure:
    """The line on which the numbers of *expr* can be marked, cut as they are; nothing stands on it yet."""
    jumps = _jumps(expr)
    dens = [n.den for n in leaves(expr) if isinstance(n, (Frac, Mixed))]
    scale = _Scale.over([n for jump in jumps for n in (jump.start, jump.end)], dens or [1])
    shapes: list[Shape] = []
    bottom = _axis(shapes, scale, [], _JUMP)
    return Figure("number-line", WIDTH, bottom, tuple(shapes), _alt(scale, [], []))


def of_points(points: Sequence[tuple[Expr, Role]], band: tuple[Fraction, Fraction] | None = None) -> Figure:
    """Numbers that are compared, as points with their labels; a *band* shows where an answer may lie.

    What lies far from the band would squeeze all the rest: an arrow and its value stand at the end of the line.
    """
    placed = [_Point(value(number), number, role, "") for number, role in points]
    if band is None:
        return _draw([], placed, [1])
    reach = _REACH * max(band[1] - band[0], Fraction(1))
    near = [one for i, one in enumerate(placed) if not i or band[0] - reach <= one.at <= band[1] + reach]
    numbers = [*[point.at for point in near], *band]
    scale = _Scale.over(numbers, [1], from_zero=False)
    left, right = scale.x(band[0]), scale.x(band[1])
    shapes: list[Shape] = [Shape("rect", "part", (left, 4, right - left, _BAND), "third")]
    middle = exact((left + right).numerator, 2 * (left + right).denominator)
    shapes.append(Shape("line", "thick", (middle, 4, middle, 4 + _BAND)))
    on_it = [one for one in placed if scale.low <= one.at <= scale.high]
    beyond = [one for one in placed if one not in on_it]
    bottom = _axis(shapes, scale, on_it, _BAND + 4, beyond)
    low, high = [_said_like(end, points[0][0]) for end in band]
    far = f" Arrows point to what lies beyond: {', '.join([words(one.label) for one in beyond])}." if beyond else ""
    alt = f"{_alt(scale, [], on_it)}{far} A band lies from {low} to {high}, its middle marked."
    return Figure("number-line", WIDTH, bottom, tuple(shapes), alt)


def _first(expr: Expr) -> Expr:
    first = expr.first if isinstance(expr, Sum) else expr
    return _plainest(first)


def _plainest(expr: Expr) -> Expr:
    """*expr* itself where it is a written number, with or without a sign; else its value, written plainly."""
    inner = expr.inner if isinstance(expr, Neg) else expr
    if isinstance(inner, _PLAIN):
        return expr
    return mixed(value(expr))


def _jumps(expr: Expr) -> list[_Jump]:
    at = Fraction(0)
    jumps = []
    terms = signed_terms(expr)
    for (sign, term), role in zip(terms, roles_for(len(terms)), strict=True):
        end = at + sign * value(term)
        jumps.append(_Jump(at, end, _plainest(Neg(term) if sign < 0 and not isinstance(term, Neg) else term), role))
        at = end
    return jumps


def _same_way(a: Sequence[_Jump], b: Sequence[_Jump]) -> bool:
    return [jump.end for jump in a] == [jump.end for jump in b]


def _denominators(step: Step) -> list[int]:
    numbers = [*leaves(step.before), *leaves(step.after)]
    tenths = [10 for n in numbers if isinstance(n, Dec)]
    return [n.den for n in numbers if isinstance(n, (Frac, Mixed))] + tenths or [1]


def _shift_both(step: Step) -> Figure:
    """The stretch between the two numbers of a difference, moved as it is along the line."""
    numbers = [_pair(step.before), _pair(step.after)]
    (a, b), (c, d) = [(value(first), value(second)) for first, second in numbers]
    scale = _Scale.over([a, b, c, d], _denominators(step))
    top = HEIGHT + 40
    shapes: list[Shape] = []
    stretch = (scale.x(d), top - 20, scale.x(c) - scale.x(d), 12)
    back = (scale.x(b) - scale.x(d), 0, 0)
    shapes.append(Shape("rect", "part", stretch, "carried", moved=back))
    shapes.append(Shape("rect", "whole", stretch, moved=back))
    inks: list[tuple[Role, When]] = [("first", "before"), ("second", "before"), ("first", "after"), ("second", "after")]
    written = [number for pair in numbers for number in pair]
    points = [_Point(value(number), number, *ink) for number, ink in zip(written, inks, strict=True)]
    bottom = _axis(shapes, scale, points, top)
    alt = (
        f"A number line; a stretch from {words(points[1].label)} to {words(points[0].label)}, "
        f"then moved as it is, from {words(points[3].label)} to {words(points[2].label)}."
    )
    return Figure("number-line", WIDTH, bottom, tuple(shapes), alt)


def _pair(expr: Expr) -> tuple[Expr, Expr]:
    """The two numbers of the difference that *expr* is, or begins with; it may stand in brackets after a sign."""
    while isinstance(expr, (Neg, Bracket)) or (isinstance(expr, Sum) and isinstance(expr.first, Neg)):
        expr = expr.first if isinstance(expr, Sum) else expr.inner
    (_, first), (_, second), *_ = signed_terms(expr)
    return first, second


@dataclass(frozen=True, slots=True)
class _Scale:
    """From *low* to *high* in steps of *tick* wholes, each cut by small ticks into *small* parts (1: none)."""

    low: int
    high: int
    tick: int
    small: int
    margin: int  # units left of the first tick and right of the last

    @classmethod
    def over(cls, numbers: Sequence[Fraction], dens: Sequence[int], from_zero: bool = True) -> _Scale:
        """The scale that shows all *numbers*, from 0 (if asked for) where 0 is not far off."""
        low, high = min([n.__floor__() for n in numbers]), max([n.__ceil__() for n in numbers])
        if from_zero and low > 0 and high <= _MOST_TICKS:
            low = 0
        high = max(high, low + 1)
        room = max([number_width(mixed(Fraction(n))) for n in (low, high)]) + 2 * _APART
        most = max(2, min(_MOST_TICKS, WIDTH // room - 1))
        tick = next(t * 10**k for k in count() for t in (1, 2, 5) if (high - low) <= t * 10**k * (most - 1))
        low, high = low // tick * tick, -(-high // tick) * tick
        small = max(dens) if tick == 1 else 1
        return cls(low, high, tick, small if small * (high - low) <= _MOST_SMALL_TICKS else 1, room // 2)

    def x(self, number: Fraction | int) -> Length:
        """Where a number lies, in units."""
        n, d = number.numerator, number.denominator
        return self.margin + exact((n - self.low * d) * (WIDTH - 2 * self.margin), d * (self.high - self.low))


def _draw(jumps: Sequence[tuple[_Jump, When]], points: Sequence[_Point], dens: Sequence[int]) -> Figure:
    numbers = [n for jump, _ in jumps for n in (jump.start, jump.end)] + [point.at for point in points]
    far = min(numbers[1:], default=numbers[0]) > _MOST_TICKS or max(numbers) > _MOST_TICKS
    if jumps and far and (low := min([*[jump.end for jump, _ in jumps], *[point.at for point in points]])) > 1:
        # A first jump from 0 would make all the others too small to see: its end is a point.
        points = [*points, *[_Point(j.end, j.label, j.role, when) for j, when in jumps if j.start == 0 and j.label]]
        jumps = [(jump, when) for jump, when in jumps if jump.start != 0]
        numbers = [n for n in numbers if n >= low]
    scale = _Scale.over(numbers, dens)
    shapes: list[Shape] = []
    arcs = _rows([(when, *_stretch(jump, scale)) for jump, when in jumps])
    heights = [_JUMP - 6 + row * _STEP for row in arcs]
    # All labels stand above all jumps, so that none lies on one.
    over = max(heights, default=0) + _NEAR
    labels = _side_by_side(jumps, scale)
    top = max([row + 1 for _, row in labels.values()], default=0) * HEIGHT + over
    for (jump, when), height in zip(jumps, heights, strict=True):
        shapes += _jump(jump, when, scale, top, height)
    for i, (middle, row) in labels.items():
        shapes += _label(*jumps[i], scale, middle, (top - over - row * HEIGHT, top - heights[i]))
    bottom = _axis(shapes, scale, points, top)
    return Figure("number-line", WIDTH, bottom, tuple(shapes), _alt(scale, jumps, points))


def _side_by_side(jumps: Sequence[tuple[_Jump, When]], scale: _Scale) -> dict[int, tuple[Length, int]]:
    """The middle and the row of each label, by the place of its jump.

    It is as near to its jump as it can be without meeting another of its state; there is one row, if they all have room
    in it.
    """
    places: dict[int, tuple[Length, int]] = {}
    for state in ("", "before", "after"):
        own = [i for i, (jump, when) in enumerate(jumps) if when == state and jump.label is not None]
        own.sort(key=lambda i: _apex(jumps[i][0], scale))
        widths = {i: number_width(_labelled(jumps[i][0])) + _APART for i in own}
        rows = max(1, -(-sum(widths.values()) // WIDTH))
        for row in range(rows):
            mine = own[row::rows]
            for i, middle in zip(mine, _swept([(_apex(jumps[i][0], scale), widths[i]) for i in mine]), strict=True):
                places[i] = exact(middle.numerator, middle.denominator), row
    return places


def _swept(wanted: Sequence[tuple[Fraction, int]]) -> list[Fraction]:
    """Middles as near to those *wanted* as things so wide allow that stand side by side within the frame."""
    middles: list[Fraction] = []
    free = Fraction(0)
    for middle, width in wanted:
        middles.append(max(middle, free + Fraction(width, 2)))
        free = middles[-1] + Fraction(width, 2)
    free = Fraction(WIDTH)
    for at, (_, width) in reversed(list(enumerate(wanted))):
        middles[at] = min(middles[at], free - Fraction(width, 2))
        free = middles[at] - Fraction(width, 2)
    return middles


def _apex(jump: _Jump, scale: _Scale) -> Fraction:
    return Fraction(scale.x(jump.start) + scale.x(jump.end)) * Fraction(1, 2)


def _rows(stretches: Sequence[tuple[When, Length, Length]]) -> list[int]:
    """For each stretch of a state the lowest row in which nothing of the state lies there yet."""
    levels: dict[When, Levels] = {"": Levels(), "before": Levels(), "after": Levels()}
    return [levels[when].level(left, right) for when, left, right in stretches]


def _stretch(jump: _Jump, scale: _Scale) -> tuple[Length, Length]:
    ends = scale.x(jump.start), scale.x(jump.end)
    return min(ends), max(ends)


def _labelled(jump: _Jump) -> Expr:
    assert jump.label is not None, "only jumps with a label are asked for it"
    return jump.label


def _jump(jump: _Jump, when: When, scale: _Scale, axis: int, height: int) -> Iterator[Shape]:
    start, end = scale.x(jump.start), scale.x(jump.end)
    yield Shape("arc", "jump", (start, end, axis, height), jump.role, when)
    # The head of the arrow: two short strokes at the point of landing.
    back = 5 if end < start else -5
    yield Shape("line", "jump", (end, axis, end + back - 2, axis - 10), jump.role, when)
    yield Shape("line", "jump", (end, axis, end + back + 6 * (1 if back > 0 else -1), axis - 6), jump.role, when)


def _label(jump: _Jump, when: When, scale: _Scale, middle: Length, between: tuple[Length, Length]) -> Iterator[Shape]:
    """The label of a jump with its *middle* there, led down *between* its lower edge and the highest place of
    its jump.
    """
    at = _apex(jump, scale)
    x = exact(at.numerator, at.denominator)
    if between[1] - between[0] > _NEAR or abs(at - middle) > _NEAR:
        yield Shape("line", "leader", (middle, between[0], x, between[1]), jump.role, when)
    yield from number_label(_labelled(jump), middle, between[0] - HEIGHT, jump.role, when)


def _axis(shapes: list[Shape], scale: _Scale, points: Sequence[_Point], y: int, beyond: Sequence[_Point] = ()) -> int:
    """Append the line with its ticks and the labels below it; returns the height below them.

    Points *beyond* it are arrows at its ends.
    """
    shapes.append(Shape("line", "axis", (0, y, WIDTH, y)))
    if scale.small > 1:
        count = (scale.high - scale.low) * scale.small
        step = exact(WIDTH - 2 * scale.margin, count)
        shapes.append(Shape("comb", "thin", (scale.margin, step, count + 1, y - _TICK // 2, y + _TICK // 2)))
    beneath = y + _TICK + 20
    under = beneath + 4 - y  # below the labels of the ticks
    ticks = {n: scale.x(n) for n in range(scale.low, scale.high + 1, scale.tick)}
    for n, at in ticks.items():
        shapes.append(Shape("line", "axis", (at, y - _TICK, at, y + _TICK)))
        number = str(n).replace("-", "−")
        width = number_width(mixed(Fraction(n)))
        shapes.append(Shape("text", "label", (within(at, width), beneath), text=number, anchor="middle"))
    # Points of both states are laid out together, so that no label meets another in either.
    levels, rows = Levels(), 0
    for point in points:
        at = scale.x(point.at)
        if (
            point.at.denominator == 1
            and (point.at - scale.low) % scale.tick == 0
            and point.label == Whole(int(point.at))
        ):
            shapes.append(Shape("ring", "dot", (at, y, 5), point.role, point.when))
            continue  # its tick is its label
        width = number_width(point.label)
        middle = within(at, width)
        row = levels.level(middle - width // 2, middle + width // 2)
        rows = max(rows, row + 1)
        top = beneath + 6 + row * HEIGHT
        near = any(-scale.margin < at - tick < scale.margin for tick in ticks.values())
        shapes.append(Shape("line", "leader", (at, y + (under if near else 0), at, top), point.role, point.when))
        shapes += number_label(point.label, middle, top, point.role, point.when)
        shapes.append(Shape("ring", "dot", (at, y, 5), point.role, point.when))
    for point in beyond:
        end, back = (WIDTH, -9) if point.at > scale.high else (0, 9)
        width = number_width(point.label)
        middle = within(end, width)
        row = levels.level(middle - width // 2, middle + width // 2)
        rows = max(rows, row + 1)
        shapes.append(Shape("line", "jump", (end, y, end + back, y - 6), point.role, point.when))
        shapes.append(Shape("line", "jump", (end, y, end + back, y + 6), point.role, point.when))
        shapes += number_label(point.label, middle, beneath + 6 + row * HEIGHT, point.role, point.when)
    return beneath + 8 + rows * HEIGHT


def _alt(scale: _Scale, jumps: Sequence[tuple[_Jump, When]], points: Sequence[_Point]) -> str:
    said = [f"A number line from {words(mixed(Fraction(scale.low)))} to {words(mixed(Fraction(scale.high)))}"]
    states: list[tuple[tuple[When, ...], str]] = [(("", "before"), ""), (("after",), "then ")]
    for kinds, then in states:
        ways = [_said(jump) for jump, when in jumps if when in kinds]
        ways += [f"a point at {words(point.label)}" for point in points if point.when in kinds]
        if ways:
            said.append(then + ", ".join(ways))
    return "; ".join(said) + "."


def _said(jump: _Jump) -> str:
    way = "back" if jump.end < jump.start else "on"
    label = jump.label.inner if isinstance(jump.label, Neg) else jump.label
    size = words(label) if label else _said_like(abs(jump.end - jump.start), None)
    return f"a jump {way} of {size} from {_said_like(jump.start, label)} to {_said_like(jump.end, label)}"


def _said_like(number: Fraction, like: Expr | None) -> str:
    """*number* in words: as a decimal beside a decimal."""
    decimal = as_decimal(number) if isinstance(like, Dec) else None
    return words(decimal or mixed(number))
