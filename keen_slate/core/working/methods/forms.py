"""One number from form to form: improper to mixed, mixed to improper, to lowest terms, to the answer form."""

from __future__ import annotations

from dataclasses import replace
from math import gcd

from ...arithmetic.lowest import why_lowest
from ...arithmetic.primes import factors, prime_factors, product_text
from ...expressions.sentences import Rich, Scaled, Sketch
from ...expressions.spoken import parts_name
from ...expressions.terms import Unsigned, improper, parts
from ...expressions.tree import Expr, Frac, Mixed, Sum, Whole, make
from ..scribe import Scribe
from ..sketches import long_division
from ..step_kinds import JOIN, PUT_SIGN, SIMPLIFY, SPLIT_MIXED, TO_IMPROPER, TO_MIXED

# Factor lists beyond this are no help on a board; the greatest shared factor is then only named.
LISTED_UP_TO = 400
# More wholes than this are not written out one by one.
SPLIT_UP_TO = 12
# Trial division of larger numbers would be slow, and nobody does it on a board.
FACTORED_UP_TO = 1_000_000


def finish(scribe: Scribe, number: Unsigned) -> Unsigned:
    """Write the steps that bring *number* into the answer form; returns the number they end in."""
    number = tidy_mixed(scribe, number)
    if (isinstance(number, Frac) and scribe.ways.wants_mixed) or _is_whole(number):
        number = to_mixed(scribe, number)
    if scribe.ways.wants_lowest_terms:
        number = simplify(scribe, number)
    if isinstance(number, Mixed) and scribe.ways.answer_form == "simplest-improper":
        number = to_improper(scribe, number)
    if scribe.ways.lowest_line == "yes":
        _ask_for_lowest(scribe, number)
    if scribe.negative and number == Whole(0):
        scribe.negative = False
        scribe.write(PUT_SIGN, number, ("0 has no sign.",), ("Nothing below zero is still nothing.",))
    return number


def _ask_for_lowest(scribe: Scribe, number: Unsigned) -> None:
    """Beside the last line: whether the fraction of *number* is in lowest terms, and why; nothing beside a whole."""
    _, num, den = parts(number)
    if not num or not scribe.steps:
        return
    shared = gcd(num, den)
    why = why_lowest(number) or f"nothing but 1 divides {num} and {den}"
    said = f"yes, because {why}" if shared == 1 else f"no, {shared} divides {num} and {den}"
    *before, last = scribe.steps
    scribe.steps = [
        *before,
        replace(last, lines=(*last.lines, (f"Is it in <lowest terms>? {said[0].upper()}{said[1:]}.",))),
    ]


def _is_whole(number: Unsigned) -> bool:
    return isinstance(number, Frac) and parts(number)[1] % parts(number)[2] == 0


# Improper to mixed -----------------------------------------------------------------------------------------


def split_lines(scribe: Scribe, num: int, den: int) -> tuple[Rich, ...]:
    """How num/den is seen to hold wholes: by dividing, or split into wholes."""
    whole, rest = divmod(num, den)
    if scribe.ways.to_mixed == "split-wholes" and 0 < whole <= SPLIT_UP_TO:
        line: list[str | Expr | Scaled | Sketch] = [Frac(num, den), " = "]
        if num == den:
            return ((*line, Whole(1)),)
        for piece in [den] * whole + [rest] * (rest > 0):
            line += [Frac(piece, den), " + "]
        return (tuple(line[:-1]),)
    if scribe.ways.to_mixed == "multiples" and 0 < whole <= SPLIT_UP_TO:
        listed = ", ".join(str(den * i) for i in range(1, whole + 2))
        left = f"; {num} - {whole * den} = {rest}" if rest else ""
        return (
            (f"multiples of {den}: {listed} (too large), so {whole} {'<whole>' if whole == 1 else '<wholes>'}{left}",),
        )
    return ((long_division(num, den),),)


def to_mixed(scribe: Scribe, number: Unsigned) -> Unsigned:
    """Turn an improper fraction into a mixed or whole number; others stay."""
    _, num, den = parts(number)
    if not isinstance(number, Frac) or 0 < num < den:
        return number
    whole, rest = divmod(num, den)
    tidy = make(whole, rest, den)
    title: Rich = (f"Every {den} {parts_name(den, True)} make a <whole>.",)
    reason: Rich = ("Count how many <wholes> are full, and keep what is left over as a fraction.",)
    if den == 1:
        title, reason = ("Over 1 it counts <wholes>.",), ("Cut into 1 part, a <whole> stays a <whole>.",)
    if num == 0:
        title, reason = ("Nothing is left.",), (f"No {parts_name(den, True)} at all make 0.",)
    scribe.write(TO_MIXED, tidy, title, reason, split_lines(scribe, num, den), facts=((whole, den),))
    return tidy


def tidy_mixed(scribe: Scribe, number: Unsigned) -> Unsigned:
    """Tidy a lone mixed number whose fraction part is improper or 0; others stay."""
    whole, num, den = parts(number)
    if not isinstance(number, Mixed) or (0 < num < den and whole):
        return number
    more, rest = divmod(num, den)
    tidy = make(whole + more, rest, den)
    if not whole or not more:
        scribe.write(TO_MIXED, tidy, *tidy_words(scribe, number), facts=((more, den),))
        return tidy
    apart = Whole(whole)
    scribe.write(
        SPLIT_MIXED, Sum(apart, (("+", Frac(num, den)),)), ("Take ", number, " apart."),
        ("A <mixed number> is a <whole> and a fraction, added.",),
    )  # fmt: skip
    scribe.write(
        TO_MIXED, Sum(apart, (("+", make(more, rest, den)),)), (f"Every {den} {parts_name(den, True)} make a <whole>.",
        ),
        ("Count how many <wholes> are full, and keep what is left over as a fraction.",),
        split_lines(scribe, num, den), facts=((more, den),),
    )  # fmt: skip
    scribe.write(JOIN, tidy, ("Put both together.",), (JOIN.reason,), ((f"{whole} + {more} = {whole + more}",),))
    return tidy


def tidy_words(scribe: Scribe, number: Mixed) -> tuple[Rich, Rich, tuple[Rich, ...]]:
    """Title, reason and jottings of tidying the improper part of *number*."""
    whole, num, den = parts(number)
    more = num // den
    if not more:
        return (
            ("Write ", number, " plainly."),
            (f"It has {'no ' + parts_name(den, True) if not num else 'no <wholes>'}.",),
            (),
        )
    lines: tuple[Rich, ...] = (*split_lines(scribe, num, den), (f"{whole} + {more} = {whole + more}",))
    reason = f"{num} {parts_name(den, True)} hold {more} more {'<wholes>' if more > 1 else '<whole>'}."
    return ("Tidy ", number, " first."), (reason,), lines


def improper_line(scribe: Scribe, number: Unsigned) -> Rich:
    """How a whole or mixed number is written as one fraction."""
    whole, num, den = parts(number)
    if isinstance(number, Whole):
        return (number, " = ", improper(number))
    if scribe.ways.to_improper == "cut-wholes":
        pieces = parts_name(den, True)
        cut = f" {whole} {'<whole>' if whole == 1 else '<wholes>'} cut into {den} {pieces} each: "
        return (number, ":", cut, Frac(whole * den, den), " + ", Frac(num, den), " = ", improper(number))
    return (number, f": {whole} × {den} + {num} = {whole * den + num}, so ", improper(number))


def to_improper(scribe: Scribe, number: Mixed) -> Frac:
    """Turn a mixed number into an improper fraction."""
    pieces = parts_name(number.den, True)
    scribe.write(
        TO_IMPROPER,
        improper(number),
        (f"Count everything in {pieces}.",),
        (f"Each <whole> is {number.den} {pieces}.",),
        (improper_line(scribe, number),),
        facts=((number.whole, number.den),),
    )
    return improper(number)


# Lowest terms ----------------------------------------------------------------------------------------------


def simplify(scribe: Scribe, number: Unsigned) -> Unsigned:
    """Bring the fraction part to lowest terms in the way of `Ways.simplify`."""
    _, num, den = parts(number)
    while (g := gcd(num, den)) > 1 and num:
        by = _smallest_prime(g) if scribe.ways.simplify == "small-steps" else g
        number = divide_both(scribe, number, by)
        _, num, den = parts(number)
    return number


def _smallest_prime(n: int) -> int:
    return prime_factors(n)[0] if n <= FACTORED_UP_TO else n


def divide_both(scribe: Scribe, number: Unsigned, by: int) -> Unsigned:
    """One step that divides top and bottom of the fraction part by *by*."""
    whole, num, den = parts(number)
    simple = make(whole, num // by, den // by)
    scribe.write(
        SIMPLIFY,
        simple,
        (f"Divide top and bottom by {by}.",),
        (_why_divide(scribe, num, den, by),),
        simplify_lines(scribe.ways.simplify, num, den, by),
        facts=((num // by, by), (den // by, by)),
    )
    return simple


def _why_divide(scribe: Scribe, num: int, den: int, by: int) -> str:
    end = "fewer, larger pieces are the same amount."
    if scribe.ways.simplify == "greatest-factor":
        return f"{by} is the greatest factor that {num} and {den} share; {end}"
    if scribe.ways.simplify == "primes":
        return f"A prime that stands above and below makes 1 and is crossed off; {end}"
    return f"{by} divides both {num} and {den}; {end}"


def simplify_lines(method: str, num: int, den: int, by: int) -> tuple[Rich, ...]:
    """The jottings beside a division of top and bottom."""
    lines: list[Rich] = []
    if method == "greatest-factor" and max(num, den) <= LISTED_UP_TO:
        lines += [(f"factors of {n}: {', '.join(map(str, factors(n)))}",) for n in (num, den)]
    if method == "primes" and max(num, den) <= FACTORED_UP_TO:
        lines += [(f"{n} = {product_text(prime_factors(n))}",) for n in (num, den)]
        lines.append((f"above and below: {product_text(prime_factors(by))}",))
    lines.append((Frac(num, den), " = ", Scaled(num, den, "÷", by), " = ", Frac(num // by, den // by)))
    return tuple(lines)


def scaling_lines(known: Expr, filled: Expr) -> tuple[Rich, ...]:
    """How *known* becomes *filled*: one factor where there is one, else by way of lowest terms."""
    if not (isinstance(known, Frac) and isinstance(filled, Frac)):
        return ((known, " = ", filled),)
    n, d, m, e = known.num, known.den, filled.num, filled.den
    if e % d == 0:
        return ((known, " = ", Scaled(n, d, "×", e // d), " = ", filled),) if e != d else ()
    if d % e == 0:
        return ((known, " = ", Scaled(n, d, "÷", d // e), " = ", filled),)
    g = gcd(n, d)
    simple = Frac(n // g, d // g)
    by = e // (d // g)
    first: Rich = (known, " = ", Scaled(n, d, "÷", g), " = ", simple)
    return (first, (simple, " = ", Scaled(n // g, d // g, "×", by), " = ", filled)) if m else (first,)
