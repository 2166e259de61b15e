"""What is missing: one number by the inverse operation; blank numerators, all answers; chains of equal fractions."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from fractions import Fraction
from math import gcd, lcm

from ..errors import LimitError, ReadError
from ..kinds import kind_of
from ..numbers import Blank, Equation, Expr, Frac, Mixed, Neg, Sum, Whole, has_blank, leaves, mixed, value
from ..reading import Problem
from ..ways import Ways
from ..wording import Rich, Scaled, parts_name, text
from ..working import Step, Working
from . import add_subtract, decimals, order
from .terms import join_terms, signed_terms

MOST_ANSWERS = 100_000
NO_WHOLE = "No whole number does it"


def work_chain(problem: Problem, ways: Ways) -> Working:
    """The working of an `equivalent` chain: each blank from a neighbour. Raises `ReadError` where a blank is impossible."""
    sides = list(_sides(problem))
    known = [value(side) for side in sides if not has_blank(side)]
    if not known:
        raise _refusal(problem, "Nothing in this chain is known.", "Write one side without a blank, like 2/7 = _/21.")
    if len(set(known)) > 1:
        raise _refusal(problem, "The sides that are known are not equal.", "Change one of them.")
    steps: list[Step] = []
    now: Expr = problem.expr
    while (i := _next_blank(sides)) is not None:
        neighbour = sides[i - 1] if i and not has_blank(sides[i - 1]) else sides[i + 1]
        filled = _fill_side(problem, sides[i], known[0])
        sides[i] = filled
        after = Equation(tuple(sides))
        lines = _scaling(neighbour, filled)
        steps.append(
            Step("equivalent", now, after, ("Fill the blank from its neighbour ", neighbour, "."),
                 ("What is done to the bottom is done to the top, so the amount stays the same.",), lines)
        )  # fmt: skip
        now = after
    return Working(problem, ways, tuple(steps), now, Whole(0), None, filled=Equation(tuple(sides)))


def _sides(problem: Problem) -> tuple[Expr, ...]:
    if not isinstance(problem.expr, Equation):
        raise TypeError("an equation was expected")
    return problem.expr.sides


def _refusal(problem: Problem, message: str, hint: str) -> ReadError:
    return ReadError(message, 0, len(problem.text), hint)


def _next_blank(sides: list[Expr]) -> int | None:
    """The first blank that has a known side beside it."""
    for i, side in enumerate(sides):
        beside = [sides[j] for j in (i - 1, i + 1) if 0 <= j < len(sides)]
        if has_blank(side) and any(not has_blank(other) for other in beside):
            return i
    return None


def _fill_side(problem: Problem, side: Expr, number: Fraction) -> Expr:
    match side:
        case Blank():
            return mixed(number)
        case Frac(None, None):
            raise _refusal(problem, "Top and bottom are both blank: anything would do.", "Give one of them.")
        case Frac(None, den) if den is not None:
            return Frac(_whole(problem, number * den, side, number), den)
        case Frac(num, None) if num is not None:
            if number == 0 or num == 0:
                raise _refusal(
                    problem, f"{NO_WHOLE} below {num} here, or every one does.", "Leave the top blank instead."
                )
            return Frac(num, _whole(problem, num * Fraction(number.denominator, number.numerator), side, number))
        case Mixed(whole, None, den):
            return Mixed(whole, _whole(problem, (number - whole) * den, side, number), den)
    raise TypeError(f"{side} has no blank that can be filled")


def _whole(problem: Problem, number: Fraction, side: Expr, amount: Fraction) -> int:
    if number.denominator == 1 and number >= 0:
        return number.numerator
    blank = text(side)
    raise _refusal(
        problem, f"{NO_WHOLE} in {blank}: it would have to be {text(mixed(number))} to make {text(mixed(amount))}.",
        f"Choose a number that {amount.denominator} divides." if "/" in blank else "Change the total.",
    )  # fmt: skip


def _scaling(known: Expr, filled: Expr) -> tuple[Rich, ...]:
    """How *known* becomes *filled*: one factor where there is one, else by way of lowest terms."""
    if not (isinstance(known, Frac) and isinstance(filled, Frac)):
        return ((known, " = ", filled),)
    n, d, m, e = known.num or 0, known.den or 1, filled.num or 0, filled.den or 1
    if e % d == 0:
        return ((known, " = ", Scaled(n, d, "×", e // d), " = ", filled),) if e != d else ()
    if d % e == 0:
        return ((known, " = ", Scaled(n, d, "÷", d // e), " = ", filled),)
    g = gcd(n, d)
    simple = Frac(n // g, d // g)
    by = e // (d // g)
    first: Rich = (known, " = ", Scaled(n, d, "÷", g), " = ", simple)
    return (first, (simple, " = ", Scaled(n // g, d // g, "×", by), " = ", filled)) if m else (first,)


# One missing number --------------------------------------------------------------------------------------------


def work(problem: Problem, ways: Ways) -> Working:
    """The working of a `missing` problem: all its answers, and one of them worked. Raises `ReadError`, `LimitError`."""
    blanks = [n for n in leaves(problem.expr) if has_blank(n)]
    if all(isinstance(n, (Frac, Mixed)) and n.num is None and n.den is not None for n in blanks):
        return _numerators(problem, ways)
    if len(blanks) > 1:
        raise _refusal(
            problem,
            "Several blanks can be found only where each is a numerator.",
            "Leave one blank, or write _/8 and the like.",
        )
    return _one_number(problem, ways, blanks[0])


def _inverse(problem: Problem) -> Expr:
    """The calculation that gives the number in the blank: everything else brought to the other side."""
    left, right = _sides(problem)
    if not any(has_blank(t) for _, t in signed_terms(left)):
        left, right = right, left
    at = next(sign for sign, term in signed_terms(left) if has_blank(term))
    others = [(-sign, term) for sign, term in signed_terms(left) if not has_blank(term)]
    moved = [*signed_terms(right), *others]
    if at < 0:
        moved = [(-sign, term) for sign, term in moved]
    moved.sort(key=lambda pair: pair[0] < 0)  # what is added first: 7 - 2, not -2 + 7
    plain = [(sign, term) for sign, term in moved if value(term) != 0] or moved[:1]
    return join_terms(plain)  # type: ignore[arg-type]


def _one_number(problem: Problem, ways: Ways, blank: Expr) -> Working:
    inverse = _inverse(problem)
    sub = _worked(problem, ways, inverse)
    number = sub.value
    negated = any(isinstance(t, Neg) and has_blank(t) for side in _sides(problem) for _, t in signed_terms(side))
    if negated:
        raise _refusal(problem, "A sign stands before the blank.", "Put the sign into the operation: 5 - _ for 5 + -_.")
    answer: Expr = sub.answer
    steps = [Step("inverse", problem.expr, inverse, _why(problem), ("Adding and taking away undo each other.",))]
    steps += sub.steps
    if not isinstance(blank, Blank):
        if number < 0:
            raise _refusal(problem, f"{NO_WHOLE}: the fraction would have to be below zero.", "Change the total.")
        filled_blank = _fill_side(problem, blank, number)
        answer = filled_blank
        steps.append(
            Step("equivalent", steps[-1].after, filled_blank, ("Write it as ", blank, " is begun."),
                 ("The same amount, in the pieces that are asked for.",), _scaling(sub.answer, filled_blank))
        )  # fmt: skip
    filled = fill(problem.expr, iter([answer]))
    return Working(
        problem,
        ways,
        tuple(steps),
        answer,
        sub.raw,
        sub.used_denominator,
        sub.notes,
        filled=filled,
        answers=(answer,),
    )


def _why(problem: Problem) -> Rich:
    """What undoes the calculation around the blank, in words."""
    left, right = _sides(problem)
    side = left if any(has_blank(t) for _, t in signed_terms(left)) else right
    signs = {sign for sign, term in signed_terms(side) if not has_blank(term)}
    if any(sign < 0 and has_blank(term) for sign, term in signed_terms(side)):
        return ("What was taken away is the difference between the start and the result.",)
    if signs == {1}:
        return ("Take what is known away from the total.",)
    if signs == {-1}:
        return ("Put back what was taken away.",)
    return ("Undo everything around the blank.",)


def _worked(problem: Problem, ways: Ways, expr: Expr) -> Working:
    kind, _ = kind_of(expr)
    inner = Problem(expr, problem.label, kind)
    if kind == "decimal":
        return decimals.work(inner, ways)
    if kind in ("add-subtract", "simplify"):
        return add_subtract.work(inner, ways)
    return order.work(inner, ways)  # wholes alone, or decimals with fractions


def fill(expr: Expr, fillings: Iterator[Expr]) -> Equation:
    """*expr* with each number that has a blank replaced by the next of *fillings*."""

    def change(number: Expr) -> Expr:
        return next(fillings) if has_blank(number) else number

    if not isinstance(expr, Equation):
        raise TypeError("an equation was expected")
    return Equation(tuple([_map_terms(side, change) for side in expr.sides]))


def _map_terms(side: Expr, change: Callable[[Expr], Expr]) -> Expr:
    if isinstance(side, Sum):
        return Sum(_map_terms(side.first, change), tuple([(o, _map_terms(t, change)) for o, t in side.rest]))
    return Neg(_map_terms(side.inner, change)) if isinstance(side, Neg) else change(side)


# Blank numerators ----------------------------------------------------------------------------------------------


def _numerators(problem: Problem, ways: Ways) -> Working:
    left, right = _sides(problem)
    terms = [*signed_terms(left), *[(-sign, term) for sign, term in signed_terms(right)]]
    blanks = [(sign, term) for sign, term in terms if has_blank(term)]
    if any(isinstance(term, Neg) for _, term in blanks):
        raise _refusal(problem, "A sign stands before a blank.", "Put the sign into the operation.")
    known = -sum((sign * value(term) for sign, term in terms if not has_blank(term)), Fraction(0))
    known -= sum((sign * term.whole for sign, term in blanks if isinstance(term, Mixed)), 0)
    dens = [term.den or 1 for _, term in blanks if isinstance(term, (Frac, Mixed))]
    signs = [sign for sign, _ in blanks]
    common = lcm(*dens, known.denominator)
    total = known.numerator * common // known.denominator
    limits = _limits(ways, [term for _, term in blanks], signs)
    found = solve([s * common // d for s, d in zip(signs, dens, strict=True)], total, limits)
    kept = [nums for nums in found if _wanted(nums, dens, ways)]
    if not kept:
        raise _refusal(problem, *_none(signs, dens, common, total, ways))
    shown = [_fillings(blanks, nums) for nums in kept]
    chosen = shown[_choice(kept, dens)]
    filled = fill(problem.expr, iter(chosen))
    lines = _reasoning(dens, common, abs(total), len(kept))
    check: list[str | Expr] = []
    for n, ((sign, _), number) in enumerate(zip(blanks, chosen, strict=True)):
        whole = number.whole if isinstance(number, Mixed) else 0
        top = (value(number) - whole) * common
        check += [(" + " if sign > 0 else " - ") if n else ("" if sign > 0 else "-"), Frac(top.numerator, common)]
    lines.append((*check, " = ", ("-" if total < 0 else ""), Frac(abs(total), common)))
    step = Step(
        "fill", problem.expr, filled, (f"Count everything in {parts_name(common, True)}.",),
        ("Once the pieces are the same size, only their number is left to be found.",), tuple(lines),
    )  # fmt: skip
    answers = tuple([fill(problem.expr, iter(numbers)) for numbers in shown])
    return Working(problem, ways, (step,), filled, Whole(0), common, filled=filled, answers=answers)


def _limits(ways: Ways, blanks: list[Expr], signs: list[int]) -> list[int | None]:
    """The largest numerator of each blank, None for no limit; beside a whole, and where one is taken away, all are proper."""
    proper = ways.blank_proper == "yes" or len(set(signs)) > 1
    return [
        (term.den or 1) - 1 if isinstance(term, Mixed) or (proper and isinstance(term, Frac)) else None
        for term in blanks
        if isinstance(term, (Frac, Mixed))
    ]


def _wanted(nums: tuple[int, ...], dens: list[int], ways: Ways) -> bool:
    if ways.blank_different == "yes" and len(set(nums)) < len(nums):
        return False
    return ways.blank_lowest == "no" or all(gcd(n, d) == 1 for n, d in zip(nums, dens, strict=True))


def _fillings(blanks: list[tuple[int, Expr]], nums: tuple[int, ...]) -> list[Expr]:
    return [
        Mixed(term.whole, n, term.den) if isinstance(term, Mixed) else Frac(n, term.den)
        for (_, term), n in zip(blanks, nums, strict=True)
        if isinstance(term, (Frac, Mixed))
    ]


def _choice(kept: list[tuple[int, ...]], dens: list[int]) -> int:
    """The answer that is worked: the first whose fractions are proper and its numerators different, else the first."""
    for i, nums in enumerate(kept):
        if len(set(nums)) == len(nums) and all(n < d for n, d in zip(nums, dens, strict=True)):
            return i
    return 0


def _reasoning(dens: list[int], common: int, total: int, count: int) -> list[Rich]:
    lines: list[Rich] = [(f"{total} {parts_name(common, total != 1)} are to be made by the blanks",)]
    for place, d in enumerate(dens, 1):
        step = common // d
        counts = "ones" if step == 1 else f"{step}s"
        lines.append(
            (
                f"blank {place}: 1 {parts_name(d, False)} is {step} {parts_name(common, step != 1)}, so it counts in {counts}",
            )
        )
    lines.append((f"{count} answer{'s' if count != 1 else ''} in all",))
    return lines


def _none(signs: list[int], dens: list[int], common: int, total: int, ways: Ways) -> tuple[str, str]:
    steps = [common // d for d in dens]
    shared = gcd(*steps)
    if total % shared:
        said = f"{NO_WHOLE}: the blanks count in {shared}s of {parts_name(common, True)}, and {shared} does not divide {abs(total)}."
        return said, "Change the total or a denominator."
    chosen = [name for name in ("blank_proper", "blank_different", "blank_lowest") if getattr(ways, name) == "yes"]
    if chosen:
        return (
            "No numerators do all that is asked of them.",
            "Ask for less: allow improper, equal or unsimplified fractions.",
        )
    return f"{NO_WHOLE}: each numerator has to be at least 1.", "Change the total."


def solve(steps: list[int], total: int, limits: list[int | None]) -> list[tuple[int, ...]]:
    """All numerators n1, n2, ... (each 1 or more, at most its limit) with n1 × step1 + n2 × step2 + ... = total, in order.

    A step is negative where its fraction is taken away; then every blank must have a limit. Raises `LimitError` past
    `MOST_ANSWERS`.

    >>> solve([1, 2, 6], 23, [None, None, None])[:3]
    [(1, 2, 3), (1, 5, 2), (1, 8, 1)]
    """
    found: list[tuple[int, ...]] = []
    _search(steps, total, limits, (), found)
    return found


def _search(
    steps: list[int], total: int, limits: list[int | None], begun: tuple[int, ...], found: list[tuple[int, ...]]
) -> None:
    step, limit = steps[0], limits[0]
    if len(steps) == 1:
        n, rest = divmod(total, step)
        if rest == 0 and n >= 1 and (limit is None or n <= limit):
            found.append((*begun, n))
            if len(found) > MOST_ANSWERS:
                raise LimitError(
                    f"There are more than {MOST_ANSWERS} answers.",
                    0,
                    1,
                    "Ask for proper fractions, or use fewer blanks.",
                )
        return
    top = limit if limit is not None else (total - sum(steps[1:])) // step
    shared = gcd(*steps[1:])
    for n in range(1, top + 1):
        if (total - n * step) % shared == 0:
            _search(steps[1:], total - n * step, limits[1:], (*begun, n), found)
