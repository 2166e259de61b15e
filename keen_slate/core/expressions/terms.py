"""The terms of a sum, the parts of a number: taken apart, put together again, turned into each other's form."""

from __future__ import annotations

from .tree import Bracket, Expr, Frac, Mixed, Neg, Operator, OverBar, Product, Sum, Whole

Unsigned = Whole | Frac | Mixed
Terms = list[tuple[int, Unsigned]]  # +1 or -1, and the number


def signed_terms(expr: Expr) -> list[tuple[int, Expr]]:
    """The terms of a sum with +1 or -1 for the operator before each; a term may carry a sign of its own."""
    if not isinstance(expr, Sum):
        return [(1, expr)]
    return [(1, expr.first), *((1 if operator == "+" else -1, term) for operator, term in expr.rest)]


def unsigned_terms(expr: Expr) -> Terms:
    """The terms of a sum as (sign, unsigned number), the operator and the term's own sign taken together."""
    return [_unsigned(sign, term) for sign, term in signed_terms(expr)]


def _unsigned(sign: int, term: Expr) -> tuple[int, Unsigned]:
    if isinstance(term, Neg):
        sign, term = -sign, term.inner
    if isinstance(term, (Whole, Frac, Mixed)):
        return sign, term
    raise TypeError(f"{term} is not a whole, a fraction or a mixed number")


def parts(number: Expr) -> tuple[int, int, int]:
    """Whole, numerator and denominator (1 for a plain whole) of an unsigned number as written."""
    match number:
        case Whole(n):
            return n, 0, 1
        case Frac(num, den):
            return 0, num, den
        case Mixed(whole, num, den):
            return whole, num, den
    raise TypeError(f"{number} is not a whole, a fraction or a mixed number")


def denominators_of(terms: Terms) -> tuple[int, ...]:
    """The denominators of the terms that have one, in their order."""
    return tuple([t.den for _, t in terms if not isinstance(t, Whole)])


def operator_for(sign: int) -> Operator:
    """The operator that stands before a term of this sign."""
    return "+" if sign > 0 else "-"


def join_terms(terms: Terms) -> Expr:
    """The sum that *terms* spell."""
    (sign, first), *rest = terms
    start: Expr = first if sign > 0 else Neg(first)
    return Sum(start, tuple([(operator_for(s), t) for s, t in rest])) if rest else start


def without_bars(expr: Expr) -> Expr:
    """*expr*, a number or a sum, with what stands over one bar as fractions of their own.

    >>> without_bars(OverBar(Sum(Whole(5), (("-", Whole(2)),)), 9))
    Sum(first=Frac(num=5, den=9), rest=(('-', Frac(num=2, den=9)),))
    """
    if isinstance(expr, OverBar):
        (_, first), *others = signed_terms(expr.top)
        return Sum(_over(first, expr.den), tuple([(operator_for(sign), _over(n, expr.den)) for sign, n in others]))
    if not isinstance(expr, Sum):
        return expr
    first = without_bars(expr.first)
    rest: list[tuple[Operator, Expr]] = []
    for operator, term in expr.rest:
        plain = without_bars(term)
        rest += (
            [(operator, plain.first), *plain.rest]
            if isinstance(plain, Sum) and operator == "+"
            else [(operator, plain)]
        )
    return Sum(first.first, (*first.rest, *rest)) if isinstance(first, Sum) else Sum(first, tuple(rest))


def _over(n: Expr, den: int) -> Frac:
    return Frac(parts(n)[0], den)


def pair(a: Expr, operator: Operator, b: Expr) -> Sum:
    """a + b or a - b."""
    return Sum(a, ((operator, b),))


def scaled(number: Unsigned, d: int) -> Unsigned:
    """*number* with the denominator *d*, a multiple of its own; a plain whole stays."""
    if isinstance(number, Whole):
        return number
    whole, num, den = parts(number)
    return Mixed(whole, num * d // den, d) if isinstance(number, Mixed) else Frac(num * d // den, d)


# Mixed to improper -----------------------------------------------------------------------------------------


def improper(number: Unsigned) -> Frac:
    """*number* as one fraction; a whole over 1."""
    whole, num, den = parts(number)
    return Frac(whole * den + num, den)


def operands(expr: Expr) -> list[tuple[int, Expr]]:
    """The unsigned numbers of a sum or product, with +1, or -1 for what is taken away or divided by.

    In a sum the sign of a term itself counts too; in a product signs are put before it all.
    """
    if not isinstance(expr, (Sum, Product)):
        return [(1, expr)]
    done: list[tuple[int, Expr]] = []
    for operator, operand in [("+", expr.first), *expr.rest]:
        sign: int = 1
        inner: Expr = operand
        while isinstance(inner, (Neg, Bracket)):
            sign, inner = (-sign if isinstance(inner, Neg) else sign), inner.inner
        turned = -1 if operator in ("-", "÷") else 1
        done.append((turned * (sign if isinstance(expr, Sum) else 1), inner))
    return done
