"""Multiplying and dividing fractions, mixed numbers, wholes, and decimals among them.

The plan: one sign before the whole product; decimals by place value; mixed numbers improper, wholes over 1;
each divisor turned over; what is shared above and below cancelled, before or after multiplying; the answer form.
"""

from __future__ import annotations

from math import prod

from ...arithmetic.columns import partial_products
from ...expressions.sentences import Rich
from ...expressions.spoken import parts_name
from ...expressions.terms import Unsigned, improper, operands, parts
from ...expressions.tree import Dec, Expr, Frac, Mixed, Neg, Operator, Product, Whole
from ...expressions.typeset import Roles, roles_for
from ...expressions.walks import leaves
from ...reading.problem import Problem
from ...ways.settings import Ways
from ..proof import Working
from ..scribe import Scribe
from ..sketches import long_division
from ..step_kinds import CANCEL, DIVIDE, JOIN_SIGNS, MULTIPLY, PUT_SIGN, TO_FRACTION, TO_IMPROPER, TURN_OVER
from .cancelling import cancelled
from .forms import finish, improper_line
from .order import in_decimals
from .single import to_fraction

_Factors = list[tuple[int, Frac]]  # +1 for a factor, -1 for a divisor


def work(problem: Problem, ways: Ways) -> Working:
    """The working of a `multiply-divide` problem. Raises `LimitError`; a division by 0 cannot be read."""
    if ways.mixed_kinds == "decimals" and any(isinstance(n, Dec) for n in leaves(problem.expr)):
        return in_decimals(problem, ways, lambda notes: _in_fractions(problem, ways, notes))
    return _in_fractions(problem, ways, ())


def _in_fractions(problem: Problem, ways: Ways, notes: tuple[str, ...]) -> Working:
    scribe = Scribe(problem.expr, ways)
    put_sign_before(scribe, problem.expr)
    numbers = operands(problem.expr)
    shared = _shared(scribe, numbers)
    raw = _multiply(scribe, _as_fractions(scribe, numbers)) if shared is None else shared
    answer = finish(scribe, raw)
    signed = Neg(answer) if scribe.negative else answer
    return Working(problem, ways, tuple(scribe.steps), signed, raw, None, (*notes, *scribe.notes))


def _shared(scribe: Scribe, numbers: list[tuple[int, Expr]]) -> Unsigned | None:
    """What needs no fractions: whole numbers with a whole result, and a fraction whose pieces are shared evenly.

    None for anything else.
    """
    match [n for _, n in numbers], [sign for sign, _ in numbers]:
        case [Whole(a), Whole(b)], [1, 1]:
            return _whole_product(scribe, a, b)
        case [Whole(a), Whole(b)], [1, -1] if a % b == 0:
            scribe.write(
                DIVIDE, Whole(a // b), (f"Divide {a} by {b}.",), (f"{b} goes {a // b} times into {a}.",),
                ((long_division(a, b),),), facts=((a // b, b),),
            )  # fmt: skip
            return Whole(a // b)
        case [Frac(num, den), Whole(among)], [1, -1] if num and among > 1 and num % among == 0:
            pieces = parts_name(den, num != 1)
            scribe.write(
                DIVIDE, Frac(num // among, den), (f"Share the {num} {pieces} among {among}.",),
                ("The pieces stay as large as they are; only their number is shared.",),
                ((f"{num} ÷ {among} = {num // among}",),), facts=((among, num // among),),
            )  # fmt: skip
            return Frac(num // among, den)
    return None


def _whole_product(scribe: Scribe, a: int, b: int) -> Whole:
    """Two whole numbers multiplied; one of several digits place by place."""
    parts_of = [n for n in reversed(partial_products(a, b)) if n]
    lines: list[Rich] = [(f"{a} × {n // a} = {n}",) for n in parts_of] if len(parts_of) > 1 else []
    lines.append((f"{' + '.join(map(str, parts_of))} = {a * b}" if len(parts_of) > 1 else f"{a} × {b} = {a * b}",))
    scribe.write(
        MULTIPLY,
        Whole(a * b),
        (f"Multiply {a} by {b}.",),
        ("Each place is multiplied, and all are added.",) if len(parts_of) > 1 else (f"{a} taken {b} times.",),
        tuple(lines),
        facts=((a, b),),
    )
    return Whole(a * b)


def put_sign_before(scribe: Scribe, expr: Expr) -> None:
    """Write the step that puts all signs of a product before it as one, or as none; no step where there is no sign."""
    if not isinstance(expr, Product):
        return
    signs = sum(
        isinstance(n, Neg) or isinstance(getattr(n, "inner", None), Neg)
        for n in (expr.first, *[n for _, n in expr.rest])
    )
    if not signs:
        return
    scribe.negative = signs % 2 == 1
    title = (
        "One sign is below zero, so the result is."
        if signs == 1
        else f"{signs} signs: {'below' if signs % 2 else 'not below'} zero."
    )
    reason = "Two signs undo each other; what is left over stands before the result."
    kind = PUT_SIGN if scribe.negative else JOIN_SIGNS
    scribe.write(kind, product(operands(expr)), (title,), (reason,), roles=roles_for(len(operands(expr))))


def product(factors: list[tuple[int, Expr]] | _Factors) -> Expr:
    """The product that *factors* (with -1 for a divisor) spell."""
    (_, first), *rest = factors
    chain: list[tuple[Operator, Expr]] = [("×" if sign > 0 else "÷", n) for sign, n in rest]
    return Product(first, tuple(chain)) if chain else first


def _as_fractions(scribe: Scribe, numbers: list[tuple[int, Expr]]) -> _Factors:
    roles = roles_for(len(numbers))
    if any(isinstance(n, Dec) for _, n in numbers):
        lines: list[Rich] = []
        changed: list[tuple[int, Expr]] = []
        for sign, n in numbers:
            fraction = to_fraction(Scribe(n, scribe.ways), n) if isinstance(n, Dec) else n
            lines += [(n, " = ", fraction)] if isinstance(n, Dec) else []
            changed.append((sign, fraction))
        numbers = changed
        scribe.write(
            TO_FRACTION, product(numbers), ("Write the decimal as a fraction by its last place.",),
            (), tuple(lines), roles,
        )  # fmt: skip
    plain: list[tuple[int, Unsigned]] = [(s, n) for s, n in numbers if isinstance(n, (Whole, Frac, Mixed))]
    done = [(sign, improper(n)) for sign, n in plain]
    turned = [n for _, n in plain if not isinstance(n, Frac)]
    scribe.write(
        TO_IMPROPER, product(done), ("Write every number as one fraction.",),
        ("Tops are multiplied with tops and bottoms with bottoms, so everything has to be a top over a bottom.",),
        tuple([improper_line(scribe, n) for n in turned]), roles,
        tuple([(parts(n)[0], parts(n)[2]) for n in turned]),
    )  # fmt: skip
    return done


def _multiply(scribe: Scribe, factors: _Factors) -> Unsigned:
    roles = roles_for(len(factors))
    divisors = [f for sign, f in factors if sign < 0]
    if divisors:
        factors = [(1, f if sign > 0 else turned(f)) for sign, f in factors]
        scribe.write(
            TURN_OVER, product(factors), ("Turn over what you divide by, and multiply.",),
            ("How often a piece fits is found by multiplying by how many of it make a <whole>.",),
            tuple([("÷ ", f, " becomes × ", turned(f)) for f in divisors]), roles,
        )  # fmt: skip
    fractions = [f for _, f in factors]
    if scribe.ways.cancel == "before":
        fractions = _cancel(scribe, fractions, roles)
    tops, bottoms = [f.num for f in fractions], [f.den for f in fractions]
    below = prod(bottoms)
    result: Unsigned = Frac(prod(tops), below) if below > 1 else Whole(prod(tops))
    scribe.write(
        MULTIPLY, result, ("Multiply the tops, and multiply the bottoms.",),
        ("Parts of parts: each piece is cut again, and so many of them are taken.",),
        ((f"{' × '.join(map(str, tops))} = {prod(tops)}",), (f"{' × '.join(map(str, bottoms))} = {prod(bottoms)}",)),
        facts=((tops[0], tops[1]), (bottoms[0], bottoms[1])) if len(tops) == 2 else (),
    )  # fmt: skip
    return result


def turned(fraction: Frac) -> Frac:
    """*fraction* turned over."""
    return Frac(fraction.den, fraction.num)


def _cancel(scribe: Scribe, fractions: list[Frac], roles: Roles) -> list[Frac]:
    """Divide a top and a bottom by what they share, until none share anything."""
    done, lines = cancelled(fractions)
    scribe.write(
        CANCEL, product([(1, f) for f in done]), ("Cancel what tops and bottoms share.",),
        (), lines, roles,
    )  # fmt: skip
    return done
