"""Order of operations: one operation a line; brackets, powers, × and ÷ from the left, + and - from the left.

Each round finds the one operation that comes next (`_next`), calculates it exactly, and puts the result in its place.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from math import lcm

from ...arithmetic.division import as_decimal
from ...errors import LimitError
from ...expressions.sentences import Rich, Scaled, Sketch
from ...expressions.tree import (
    Bracket,
    Dec,
    Expr,
    Frac,
    Mixed,
    Neg,
    Operator,
    OverBar,
    Power,
    Product,
    Sum,
    Whole,
    ratio,
    value,
)
from ...expressions.typeset import Role, Roles
from ...expressions.voice import in_sentence
from ...expressions.walks import leaves, map_numbers
from ...limits import TOO_LARGE
from ...reading.problem import Problem
from ...ways.own_words import read_words
from ...ways.settings import Ways
from ..proof import Working, too_large
from ..scribe import Scribe
from ..step import Step
from ..step_kinds import (
    ADD,
    BRACKET,
    DIVIDE,
    JOIN_SIGNS,
    MULTIPLY,
    POWER,
    PUT_SIGN,
    SUBTRACT,
    TO_DECIMAL,
    TO_FRACTION,
    StepKind,
)
from .brackets import brackets_apart, replaced, waiting_decimals
from .forms import finish
from .order_lines import OrderLine, next_line, simpler
from .single import to_fraction

_PLAIN = (Whole, Frac, Mixed, Dec)
_MOST_STEPS = 60

# Which rule a line follows, as a title and a reason.
_RULES: dict[str, tuple[str, str]] = {
    "bracket": (
        "Brackets first: ", "What stands in brackets is one number, so it is worked before anything around it.",
    ),
    "power": ("Then powers: ", "A power says how often its base is a factor."),
    "×÷": ("Multiply or divide, from the left: ",
        "Multiplying and dividing come before adding and subtracting, neither before the other."),
    "+-": ("Add or subtract, from the left: ", "Adding and subtracting come last, neither before the other."),
    "bar": ("Above the bar first: ", "What stands above a bar is one number: how many pieces there are."),
    "opposite": ("Write the taking away as adding: ", "Taking a number away is the same as adding its opposite."),
    "sign": ("The sign before the bracket: ", "The opposite of a number lies as far on the other side of zero."),
}  # fmt: skip
_STEP_KINDS: dict[str, StepKind] = {"+": ADD, "-": SUBTRACT, "×": MULTIPLY, "÷": DIVIDE}


class _EndlessDecimalError(Exception):
    """A value on the way is no decimal that ends."""


@dataclass(frozen=True, slots=True)
class _How:
    """How a *problem* is worked: in *decimals* or in fractions; these line by line, or *at_once* where that has smaller
    numbers.
    """

    problem: str
    scribe: Scribe
    decimals: bool = False
    at_once: bool = False


@dataclass(frozen=True, slots=True)
class _Next:
    """The next line: what is worked, what it makes, the expression after it, and the rule that it follows.

    *line* is how two fractions of it are worked, None where it is done at once.
    """

    worked: Expr
    result: Expr
    after: Expr
    rule: str
    kind: StepKind
    bracket: bool = False
    line: OrderLine | None = None


def work(problem: Problem, ways: Ways) -> Working:
    """The working of an `order` problem. Raises `LimitError`; a division by 0 cannot be read."""
    numbers = leaves(problem.expr)
    decimals, fractions = [any(isinstance(n, t) for n in numbers) for t in (Dec, (Frac, Mixed))]
    if not decimals or (fractions and ways.mixed_kinds != "decimals"):
        return _in_fractions(problem, ways, ())
    return in_decimals(problem, ways, lambda notes: _in_fractions(problem, ways, notes))


def in_decimals(problem: Problem, ways: Ways, other: Callable[[tuple[str, ...]], Working]) -> Working:
    """The working of *problem* with all its numbers as decimals; the *other* one, with a note, where one of them does
    not end.
    """
    try:
        return _work(problem, ways, (), decimals=True)
    except _EndlessDecimalError as error:
        return other((f"{error} does not end as a decimal, so it is worked in fractions.",))


def _in_fractions(problem: Problem, ways: Ways, notes: tuple[str, ...]) -> Working:
    """Line by line; several lines at once where that would need too many lines, or numbers past the limits."""
    try:
        return _work(problem, ways, notes)
    except LimitError:
        return _work(problem, ways, notes, at_once=True)


def _work(
    problem: Problem, ways: Ways, notes: tuple[str, ...], *, decimals: bool = False, at_once: bool = False
) -> Working:
    scribe = Scribe(problem.expr, ways)
    how = _How(problem.text, scribe, decimals, at_once)
    begun = False  # whether an operation is in the middle of its lines
    while _one_kind(how) and (following := _next(scribe.now, how)) is not None:
        if len(scribe.steps) > _MOST_STEPS:
            raise LimitError("This needs too many lines.", 0, len(problem.text), "Use fewer operations.")
        if ways.order_lines == "together" and len(brackets := brackets_apart(scribe.now)) > 1:
            _work_together(brackets, how)
            begun = False
            continue
        scribe.steps.append(_step(scribe.now, following, how, begun))
        scribe.now = following.after
        begun = following.line is not None and number_in(following.result) is None
        if following.line is not None and not begun and number_in(scribe.now) is None and ways.cancel == "before":
            _simplify(how, following.result)
    last = scribe.now
    while isinstance(last, Bracket):
        last = last.inner
    scribe.negative = isinstance(last, Neg)
    number = last.inner if isinstance(last, Neg) else last
    if isinstance(number, (Whole, Frac, Mixed)):
        raw: Whole | Frac | Mixed = number
        number = finish(scribe, number)
    else:
        raw = Whole(0)
    answer = Neg(number) if scribe.negative else number
    if answer != scribe.now:  # a bracket is left around it
        scribe.steps.append(Step(BRACKET, scribe.now, answer, ("The bracket holds one number.",), ()))
    start = _inks(problem.expr, how)
    return Working(problem, ways, _remembered(scribe.steps, ways), answer, raw, None, notes, start_roles=start)


def _remembered(steps: Sequence[Step], ways: Ways) -> tuple[Step, ...]:
    """The *steps*, the words by which the class remembers the order beside the first of several."""
    if not ways.order_words or len(steps) < 2:
        return tuple(steps)
    return (replace(steps[0], lines=((read_words(ways.order_words),), *steps[0].lines)), *steps[1:])


def _work_together(brackets: Sequence[Bracket], how: _How) -> None:
    """The step that takes one line of work in each of several *brackets* that do not depend on each other."""
    found = [(one, following) for one in brackets if (following := _next(one, how)) is not None]
    after = how.scribe.now
    for one, following in found:
        after = replaced(after, one, following.after)
    said: list[Rich] = [one.line.says if one.line else (one.worked, ".") for _, one in found]
    title: list[str | Expr | Scaled | Sketch] = ["Brackets first: "]
    for i, says in enumerate(said):
        last = says[-1]
        ends = last.removesuffix(".") if isinstance(last, str) else last
        title += [*says[:-1], ends, "." if i == len(said) - 1 else "; "]
    lines = [line for _, one in found for line in (one.line.lines if one.line else _jottings(one.worked, one.result))]
    reason = f"{_RULES['bracket'][1]} They do not depend on each other, so they share a line."
    kind = found[0][1].kind if found[0][1].line is None else found[0][1].line.kind
    how.scribe.steps.append(Step(kind, how.scribe.now, after, tuple(title), (reason,), tuple(lines), _inks(after, how)))
    how.scribe.now = after
    for _, following in found:
        done = following.line is not None and number_in(following.result) is not None
        if done and how.scribe.ways.cancel == "before":
            _simplify(how, following.result)


def _simplify(how: _How, made: Expr) -> None:
    """The step that simplifies what was just *made*, where there is something to go on with."""
    line = simpler(how.scribe.now, made)
    if line is not None:
        title: Rich = ("Simplify before you go on: ", *line.says)
        roles = _inks(line.after, how)
        how.scribe.steps.append(Step(line.kind, how.scribe.now, line.after, title, (line.reason,), line.lines, roles))
        how.scribe.now = line.after


def _one_kind(how: _How) -> bool:
    """The step that turns all numbers into decimals, or all decimals into fractions, where both are there; always True.

    A decimal waits while the bracket that it is multiplied by is not one number.
    """
    scribe, decimals = how.scribe, how.decimals
    lines: list[Rich] = []
    waiting = [] if decimals else waiting_decimals(scribe.now)

    def change(number: Expr) -> Expr:
        if any(number is one for one in waiting):
            return number
        if decimals and isinstance(number, (Frac, Mixed)):
            changed = _written(value(number), True)
        elif not decimals and isinstance(number, Dec):
            changed = to_fraction(Scribe(number, scribe.ways), number)
        else:
            return number
        lines.append((number, " = ", changed))
        return changed

    changed = map_numbers(scribe.now, change)
    if changed == scribe.now:
        return True
    if decimals:
        title, reason, kind = (
            "Write the fractions as decimals." if len(lines) > 1 else "Write the fraction as a decimal.",
            "With numbers of one kind each line is one calculation.",
            TO_DECIMAL,
        )
    else:
        title, reason, kind = (
            "Write the decimals as fractions." if len(lines) > 1 else "Write the decimal as a fraction.",
            "The last place of a decimal names its <denominator>.",
            TO_FRACTION,
        )
    roles = _inks(changed, how)
    scribe.steps.append(Step(kind, scribe.now, changed, (title,), (reason,), tuple(lines), roles))
    scribe.now = changed
    return True


def _step(before: Expr, found: _Next, how: _How, begun: bool) -> Step:
    title, reason = _RULES[found.rule]
    if found.bracket and found.rule != "bracket":
        title = "Brackets first: "
        reason = f"{_RULES['bracket'][1]} Inside: {reason[0].lower()}{reason[1:]}"
    roles = _inks(found.after, how)
    line = found.line
    if line is None:
        said: Rich = (title, found.worked, ".")
        return Step(found.kind, before, found.after, said, (reason,), _jottings(found.worked, found.result), roles)
    if begun:
        return Step(line.kind, before, found.after, _capital(line.says), (line.reason,), line.lines, roles)
    return Step(line.kind, before, found.after, (title, *line.says), (reason,), line.lines, roles)


def _capital(says: Rich) -> Rich:
    """*says* as a sentence of its own."""
    first, *rest = says
    return (f"{first[0].upper()}{first[1:]}", *rest) if isinstance(first, str) else ("Then ", first, *rest)


def _inks(expr: Expr, how: _How) -> Roles:
    """The inks of the numbers of *expr*: the two that are worked next in the first two, the others plain."""
    following = _next(expr, how)
    numbers = leaves(expr)
    if following is None:
        return tuple(["" for _ in numbers])
    busy = leaves(following.worked)
    inks: list[Role] = ["first", "second"]
    found: list[Role] = []
    for number in numbers:
        at = next((i for i, other in enumerate(busy) if other is number), None)
        found.append(inks[min(at, 1)] if at is not None else "")
    return tuple(found)


# The next operation --------------------------------------------------------------------------------------------


def number_in(expr: Expr) -> Expr | None:
    """The number, with its sign, that *expr* is, in brackets or not; None for anything else."""
    match expr:
        case Bracket(inner):
            return number_in(inner)
        case Neg(inner):
            return expr if isinstance(inner, _PLAIN) else None
        case _:
            return expr if isinstance(expr, _PLAIN) else None


def _next(expr: Expr, how: _How) -> _Next | None:
    if number_in(expr) is not None:
        return None
    if (found := _inside(expr, _has_bracket, how)) is not None:
        return found
    if (found := _inside(expr, _has_power, how)) is not None:
        return found
    match expr:
        case Bracket(inner):
            found = _next(inner, how)
            if found is None:
                return None
            done = number_in(found.after)
            after = Bracket(found.after) if done is None or isinstance(done, Neg) else done
            return replace(found, after=after, bracket=True)
        case Power(base, exponent):
            number = number_in(base)
            if number is None:
                return None
            result = _written(value(number) ** exponent, how.decimals)
            return _Next(expr, result, result, "power", POWER)
        case OverBar(top, den):
            n, _ = ratio(top)
            counted = _written(Fraction(n, den), True) if how.decimals else _counted(n, den)
            return _Next(top, counted, counted, "bar", ADD)
        case Neg(inner):
            number = number_in(inner)
            if number is not None:  # the opposite of a number in brackets
                result = _opposite(number)
                return _Next(expr, result, result, "sign", PUT_SIGN)
            found = _next(inner, how)
            return found and replace(found, after=Neg(found.after))
        case Sum(first, rest) | Product(first, rest):
            return _in_chain(expr, first, rest, how)
    return None


def _in_chain(expr: Sum | Product, first: Expr, rest: tuple[tuple[Operator, Expr], ...], how: _How) -> _Next | None:
    """The leftmost product in a sum, or else the first two operands."""
    operands = [first, *[e for _, e in rest]]
    for i, operand in enumerate(operands):
        if number_in(operand) is None:
            found = _next(operand, how)
            return found and replace(found, after=_put(expr, i, found.after))
    operator, second = rest[0]
    same = Sum if isinstance(expr, Sum) else Product
    worked = same(first, rest[:1])
    if operator == "-" and how.scribe.ways.opposites == "plus" and value(second) > 0 and value(first) < value(second):
        added: tuple[Operator, Expr] = ("+", Bracket(Neg(second)))
        return _Next(worked, Sum(first, (added,)), Sum(first, (added, *rest[1:])), "opposite", JOIN_SIGNS)
    line = None if how.decimals or how.at_once else next_line(how.scribe, first, operator, second)
    result = line.after if line is not None else _calculate(first, operator, second, how)
    chain = result if isinstance(result, same) else same(result, ())
    after: Expr = same(chain.first, chain.rest + rest[1:]) if chain.rest + rest[1:] else result
    return _Next(worked, result, after, "+-" if same is Sum else "×÷", _STEP_KINDS[operator], line=line)


def _put(expr: Sum | Product, i: int, new: Expr) -> Expr:
    """*expr* with *new* in the place of operand *i*; what needs a bracket there gets one."""
    same = Sum if isinstance(expr, Sum) else Product
    if i == 0:
        plain = new.inner if isinstance(new, Bracket) and isinstance(new.inner, Neg) and same is Sum else new
        return same(plain, expr.rest)
    kept = Bracket(new) if isinstance(new, Neg) else new
    rest = list(expr.rest)
    rest[i - 1] = (rest[i - 1][0], kept)
    return same(expr.first, tuple(rest))


def _inside(expr: Expr, has: Callable[[Expr], bool], how: _How) -> _Next | None:
    """The next operation in the leftmost operand that *has* something to be done before what is around it."""
    match expr:
        case Sum(first, rest) | Product(first, rest):
            for i, operand in enumerate([first, *[e for _, e in rest]]):
                if has(operand):
                    found = _next(operand, how)
                    return found and replace(found, after=_put(expr, i, found.after))
        case Neg(inner) if has(inner) and number_in(inner) is None:
            found = _next(inner, how)
            return found and replace(found, after=Neg(found.after))
        case Power(base, exponent) if has(base) and number_in(base) is None:
            found = _next(base, how)
            if found is None:
                return None
            done = found.after
            bare = isinstance(done, (Whole, Dec, Bracket))
            return replace(found, after=Power(done if bare else Bracket(done), exponent))
    return None


def _has_bracket(expr: Expr) -> bool:
    match expr:
        case OverBar():
            return True
        case Bracket(inner):
            return number_in(inner) is None
        case Neg(inner) | Power(inner, _):
            return _has_bracket(inner)
        case Sum(first, rest) | Product(first, rest):
            return any(_has_bracket(e) for e in (first, *[e for _, e in rest]))
        case _:
            return False


def _has_power(expr: Expr) -> bool:
    match expr:
        case Power():
            return True
        case Neg(inner) | Bracket(inner):
            return _has_power(inner)
        case Sum(first, rest) | Product(first, rest):
            return any(_has_power(e) for e in (first, *[e for _, e in rest]))
        case _:
            return False


# Calculating ---------------------------------------------------------------------------------------------------


def _calculate(a: Expr, operator: Operator, b: Expr, how: _How) -> Expr:
    (n, d), (m, e) = ratio(a), ratio(b)
    x, y = Fraction(n, d), Fraction(m, e)
    results: dict[str, Callable[[], Fraction]] = {
        "+": lambda: x + y,
        "-": lambda: x - y,
        "×": lambda: x * y,
        "÷": lambda: x * Fraction(y.denominator, y.numerator),
    }
    result = results[operator]()
    if max(abs(result.numerator), result.denominator) >= TOO_LARGE:
        raise too_large(how.problem)
    return _written(result, how.decimals)


def _written(number: Fraction, decimals: bool) -> Expr:
    """*number* as a whole, a decimal that ends, or a fraction in lowest terms, with its sign.

    Raises `_EndlessDecimalError`.
    """
    if decimals:
        decimal = as_decimal(number)
        if decimal is None:
            raise _EndlessDecimalError(f"{abs(number.numerator)}/{number.denominator}")
        return decimal
    n, d = abs(number.numerator), number.denominator
    size: Expr = Whole(n) if d == 1 else Frac(n, d)
    return Neg(size) if number < 0 else size


def _counted(n: int, den: int) -> Expr:
    """*n* pieces, as they are counted over a bar, with their sign."""
    plain: Expr = Frac(abs(n), den) if n and den > 1 else Whole(abs(n))
    return Neg(plain) if n < 0 else plain


def _opposite(number: Expr) -> Expr:
    """*number* with the other sign; 0 has none."""
    if isinstance(number, Neg):
        return number.inner
    return Neg(number) if value(number) else number


def _jottings(worked: Expr, result: Expr) -> tuple[Rich, ...]:
    """What stands beside a line: how two fractions are added, multiplied or divided."""
    match worked:
        case Power(base, exponent) if exponent > 1:
            return ((" × ".join([in_sentence(base)] * exponent), " = ", result),)
        case Sum(first, ((operator, second),)) if _fractions(first, second):
            a, b = value(first), value(second)
            d = lcm(a.denominator, b.denominator)
            n, m = a.numerator * d // a.denominator, b.numerator * d // b.denominator
            if d in (a.denominator, b.denominator) and a.denominator == b.denominator:
                return ()
            total = n + m if operator == "+" else n - m
            return ((_over(n, d), f" {operator} ", _over(m, d, later=True), " = ", _over(total, d)),)
        case Product(first, ((operator, second),)) if _fractions(first, second):
            a, b = value(first), value(second)
            turned = Fraction(b.denominator, b.numerator) if operator == "÷" else b
            n, d = a.numerator * turned.numerator, a.denominator * turned.denominator
            line: list[str | Expr] = [_over(a.numerator, a.denominator), " × "]
            return ((*line, _over(turned.numerator, turned.denominator, later=True), " = ", _over(n, d)),)
    return ()


def _fractions(*numbers: Expr) -> bool:
    return any(isinstance(n, (Frac, Mixed)) for number in numbers for n in leaves(number))


def _over(n: int, d: int, later: bool = False) -> Expr:
    number: Expr = Frac(abs(n), d)
    if n >= 0:
        return number
    return Bracket(Neg(number)) if later else Neg(number)
