"""Why a number cannot be reduced any further, in one line."""

from __future__ import annotations

from math import gcd

from ..arithmetic.primes import prime_factors
from ..expressions.tree import Expr, Frac, Mixed, Neg

_FACTORED_UP_TO = 1_000_000


def why_lowest(number: Expr) -> str | None:
    """Why the fraction of *number* is in lowest terms; None where it has none, is not, or it is plain to see.

    >>> why_lowest(Mixed(2, 11, 12)), why_lowest(Frac(12, 25)), why_lowest(Frac(1, 6)), why_lowest(Frac(4, 6))
    ('11 is a prime that does not go into 12', 'nothing but 1 divides 12 and 25', None, None)
    """
    if isinstance(number, Neg):
        return why_lowest(number.inner)
    if not isinstance(number, (Frac, Mixed)) or min(number.num, number.den) < 2 or gcd(number.num, number.den) > 1:
        return None
    n, d = number.num, number.den
    for prime, other in ((n, d), (d, n)):
        if prime <= _FACTORED_UP_TO and len(prime_factors(prime)) == 1:
            return f"{prime} is a prime that does not go into {other}"
    return f"nothing but 1 divides {n} and {d}"
