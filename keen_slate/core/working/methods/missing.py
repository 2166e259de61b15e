"""What is missing: one number by the inverse operation; blank numerators, all answers; chains of equal fractions."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from math import gcd, lcm

from ...errors import LimitError, ReadError
from ...expressions.sentences import Rich, Scaled
from ...expressions.spoken import parts_name
from ...expressions.terms import join_terms, parts, signed_terms
from ...expressions.text import text
from ...expressions.tree import Blank, Equation, Expr, Frac, Mixed, Neg, OpenFrac, OpenMixed, Sum, Whole, mixed, value
from ...expressions.walks import agrees, fillings, has_blank, leaves
from ...limits import TOO_LARGE
from ...reading.kinds import kind_of
from ...reading.problem import Problem
from ...ways.own_words import read_split
from ...ways.settings import Ways
from ..proof import Working
from ..step import Step
from ..step_kinds import EQUIVALENT, FILL, INVERSE
from . import add_subtract, decimals, order
from .blanks import MOST_LISTED, MOST_SKIPPED, Blanks, counted, listed
from .forms import scaling_lines
from .known_parts import known_together

NO_WHOLE = "No whole number does it"


def work_chain(problem: Problem, ways: Ways) -> Working:
    """The working of an `equivalent` chain: each blank from a neighbour.

    Raises `ReadError` where a blank is impossible.
    """
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
        if (renamed := _renaming(neighbour, filled)) is not None:
            steps.append(Step(EQUIVALENT, now, after, *renamed))
        else:
            title = ("Fill the blank from its neighbour ", neighbour, ".")
            steps.append(Step(EQUIVALENT, now, after, title, (), scaling_lines(neighbour, filled)))
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
        case OpenFrac(None, None):
            raise _refusal(problem, "Top and bottom are both blank: anything would do.", "Give one of them.")
        case OpenFrac(None, den) if den is not None:
            return Frac(_whole(problem, number * den, side, number), den)
        case OpenFrac(num, None) if num is not None:
            if number == 0 or num == 0:
                raise _refusal(
                    problem, f"{NO_WHOLE} below {num} here, or every one does.", "Leave the top blank instead."
                )
            return Frac(num, _whole(problem, num * Fraction(number.denominator, number.numerator), side, number))
        case OpenMixed(whole, den):
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


def _renaming(known: Expr, filled: Expr) -> tuple[Rich, Rich, tuple[Rich, ...]] | None:
    """Title, reason and jottings where wholes become pieces of the same size, or pieces wholes; None where nothing of
    that happens.
    """
    if not isinstance(known, (Whole, Mixed)) or not isinstance(filled, Mixed):
        return None
    (whole, num, den), (left, top, size) = parts(known), parts(filled)
    cut = whole - left
    if not cut or size % den:
        return None
    by = size // den
    again: tuple[Rich, ...] = (
        ((Frac(num, den), " = ", Scaled(num, den, "×", by), " = ", Frac(num * by, size)),) if num and by > 1 else ()
    )
    num *= by
    wholes = "1 <whole>" if abs(cut) == 1 else f"{abs(cut)} <wholes>"
    pieces = abs(cut) * size
    reason = (f"Only the way it is written changes: {wholes} and ", Frac(pieces, size), " are the same amount.")
    same = (Whole(abs(cut)), " = ", Frac(pieces, size))
    if cut > 0:
        jotted: tuple[Rich, ...] = ((f"{num} + {pieces} = {top}",),) if num else ()
        return (f"Cut up {wholes}: {pieces} {parts_name(size, True)} more.",), reason, (*again, same, *jotted)
    left_over: Rich = (f"{num} - {pieces} = {top}",)
    return (f"Make {wholes} of {pieces} {parts_name(size, True)}.",), reason, (*again, same, left_over)


# One missing number --------------------------------------------------------------------------------------------


def work(problem: Problem, ways: Ways) -> Working:
    """The working of a `missing` problem: all its answers, and one of them worked. Raises `ReadError`, `LimitError`."""
    blanks = _blanks_of(problem)
    if _numerators_alone(blanks):
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
    together = known_together(problem, ways, _worked)
    steps: list[Step] = list(together.steps) if together else []
    inverse = together.inverse if together else _inverse(problem)
    sub = _worked(problem, ways, inverse)
    number = sub.value
    negated = any(isinstance(t, Neg) and has_blank(t) for side in _sides(problem) for _, t in signed_terms(side))
    if negated:
        raise _refusal(problem, "A sign stands before the blank.", "Put the sign into the operation: 5 - _ for 5 + -_.")
    answer: Expr = sub.answer
    before = steps[-1].after if steps else problem.expr
    steps.append(Step(INVERSE, before, inverse, _why(problem), ("Adding and taking away undo each other.",)))
    steps += sub.steps
    if not isinstance(blank, Blank):
        if number < 0:
            raise _refusal(problem, f"{NO_WHOLE}: the fraction would have to be below zero.", "Change the total.")
        filled_blank = _fill_side(problem, blank, number)
        answer = filled_blank
        steps.append(
            Step(EQUIVALENT, steps[-1].after, filled_blank, ("Write it as ", blank, " is begun."),
                 ("The same amount, in the pieces that are asked for.",), scaling_lines(sub.answer, filled_blank))
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


_Top = tuple[int, OpenFrac | OpenMixed]  # +1 or -1, and what has a blank numerator


@dataclass(frozen=True, slots=True)
class _Sought:
    """The blanks of an equation with their signs, and what is looked for; all counted in parts of *common*."""

    blanks: list[_Top]
    common: int
    total: int
    wanted: Blanks


def _sought(problem: Problem, ways: Ways) -> _Sought:
    left, right = _sides(problem)
    terms = [*signed_terms(left), *[(-sign, term) for sign, term in signed_terms(right)]]
    blanks = [(sign, term) for sign, term in terms if isinstance(term, (OpenFrac, OpenMixed))]
    if any(isinstance(term, Neg) and has_blank(term) for _, term in terms):
        raise _refusal(problem, "A sign stands before a blank.", "Put the sign into the operation.")
    known = -sum((sign * value(term) for sign, term in terms if not has_blank(term)), Fraction(0))
    known -= sum((sign * term.whole for sign, term in blanks if isinstance(term, OpenMixed)), 0)
    dens = [term.den for _, term in blanks if term.den]
    common = lcm(*dens, known.denominator)
    total = known.numerator * common // known.denominator
    return _Sought(blanks, common, total, _wanted(blanks, dens, total, common, ways))


def _blanks_of(problem: Problem) -> list[Expr]:
    return [n for n in leaves(problem.expr) if has_blank(n)]


def _numerators_alone(blanks: Sequence[Expr]) -> bool:
    return all(isinstance(n, OpenMixed) or (isinstance(n, OpenFrac) and n.num is None) for n in blanks)


def more_answers(problem: Problem, ways: Ways, start: int, most: int = MOST_LISTED) -> tuple[Equation, ...]:
    """The answers of a problem with blank numerators from number *start* (from 0), so many at most; none of another
    problem.

    Raises `ReadError`.
    """
    if not _numerators_alone(_blanks_of(problem)):
        return ()
    sought = _sought(problem, ways)
    found = listed(sought.wanted, min(start, MOST_SKIPPED), most)
    return tuple([fill(problem.expr, iter(_fillings(sought.blanks, nums))) for nums in found])


def is_answer(problem: Problem, ways: Ways, filled: Equation) -> bool:
    """Whether *filled* is one of the answers of a chain, or of a problem with blank numerators."""
    if not agrees(problem.expr, filled) or has_blank(filled) or len({value(side) for side in filled.sides}) > 1:
        return False
    if problem.kind == "equivalent":
        return True
    wanted = _sought(problem, ways).wanted
    tops = [n.num for n in fillings(problem.expr, filled) if isinstance(n, (Frac, Mixed))]
    known = zip(tops, wanted.dens, wanted.proper, strict=True)
    return (
        all(n > 0 and (n < d or not proper) and (gcd(n, d) == 1 or not wanted.lowest) for n, d, proper in known)
        and (not wanted.different or len(set(tops)) == len(tops))
    )  # fmt: skip


def _numerators(problem: Problem, ways: Ways) -> Working:
    sought = _sought(problem, ways)
    blanks, common, total = sought.blanks, sought.common, sought.total
    answers = more_answers(problem, ways, 0)
    count = counted(sought.wanted)
    if count is not None and count >= TOO_LARGE:
        count = None
    if count == 0:
        raise _refusal(problem, *_none(sought, ways))
    if not answers:
        length = len(problem.text)
        raise LimitError("Too many numbers would have to be tried here.", 0, length, "Use smaller denominators.")
    tops, notes = _tops(problem, ways, sought)
    chosen = _fillings(blanks, tops)
    filled = fill(problem.expr, iter(chosen))
    lines = _reasoning(sought, count or len(answers), count is not None)
    check: list[str | Expr] = []
    for n, ((sign, _), number) in enumerate(zip(blanks, chosen, strict=True)):
        whole = number.whole if isinstance(number, Mixed) else 0
        top = (value(number) - whole) * common
        check += [(" + " if sign > 0 else " - ") if n else ("" if sign > 0 else "-"), Frac(top.numerator, common)]
    lines.append((*check, " = ", ("-" if total < 0 else ""), Frac(abs(total), common)))
    step = Step(
        FILL, problem.expr, filled, (f"Count everything in {parts_name(common, True)}.",),
        (), tuple(lines),
    )  # fmt: skip
    return Working(
        problem, ways, (step,), filled, Whole(0), common, notes, filled=filled, answers=answers, count=count
    )  # fmt: skip


def _tops(problem: Problem, ways: Ways, sought: _Sought) -> tuple[tuple[int, ...], tuple[str, ...]]:
    """The numerators that are worked, and a note where those that the teacher chose are no answer.

    Left to itself, the working has fractions that are proper and different, where there are any such.
    """
    notes: tuple[str, ...] = ()
    if own := read_split(ways.split):
        if len(own) == len(sought.blanks) and is_answer(
            problem, ways, fill(problem.expr, iter(_fillings(sought.blanks, own)))
        ):
            return own, ()
        said = ", ".join(map(str, own))
        notes = (f"The <numerators> {said} are no answer here, so another one is worked.",)
    plain = replace(sought.wanted, proper=(True,) * len(sought.blanks), different=True)
    return [*listed(plain, most=1), *listed(sought.wanted, most=1)][0], notes


def _wanted(blanks: list[_Top], dens: list[int], total: int, common: int, ways: Ways) -> Blanks:
    """What is looked for. Beside a whole, and where some are taken away and others added, all fractions are proper."""
    signs = {sign for sign, _ in blanks}
    proper = ways.blank_proper == "yes" or len(signs) > 1
    taken = [len(signs) > 1 and sign < 0 for sign, _ in blanks]
    # What is taken away is turned round: n/d less is (d - n)/d more and a whole less.
    total = -total if signs == {-1} else total + common * sum(taken)
    return Blanks(
        tuple([common // d for d in dens]), tuple(dens), total,
        tuple([proper or isinstance(term, OpenMixed) for _, term in blanks]), tuple(taken),
        ways.blank_lowest == "yes", ways.blank_different == "yes",
    )  # fmt: skip


def _fillings(blanks: list[_Top], nums: tuple[int, ...]) -> list[Expr]:
    return [
        Mixed(term.whole, n, term.den) if isinstance(term, OpenMixed) else Frac(n, term.den or 1)
        for (_, term), n in zip(blanks, nums, strict=True)
    ]


def _reasoning(sought: _Sought, count: int, exact: bool) -> list[Rich]:
    common, total = sought.common, abs(sought.total)
    lines: list[Rich] = [(f"{total} {parts_name(common, total != 1)} are to be made by the blanks",)]
    for place, (step, d) in enumerate(zip(sought.wanted.steps, sought.wanted.dens, strict=True), 1):
        counts = "ones" if step == 1 else f"{step}s"
        lines.append(
            (
                f"blank {place}: 1 {parts_name(d, False)} is {step} {parts_name(common, step != 1)}, so it counts in "
                f"{counts}",
            )
        )
    said = "in all" if exact else "and more"
    lines.append((f"{count} answer{'s' if count != 1 else ''} {said}",))
    return lines


def _none(sought: _Sought, ways: Ways) -> tuple[str, str]:
    common, total = sought.common, sought.total
    shared = gcd(*sought.wanted.steps)
    if total % shared:
        said = (
            f"{NO_WHOLE}: the blanks count in {shared}s of {parts_name(common, True)}, and {shared} does not divide "
            f"{abs(total)}."
        )
        return said, "Change the total or a denominator."
    chosen = [name for name in ("blank_proper", "blank_different", "blank_lowest") if getattr(ways, name) == "yes"]
    if chosen:
        return (
            "No numerators do all that is asked of them.",
            "Ask for less: allow improper, equal or unsimplified fractions.",
        )
    return f"{NO_WHOLE}: each numerator has to be at least 1.", "Change the total."
