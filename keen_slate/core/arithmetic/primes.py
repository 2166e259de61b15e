"""Factors and prime factors of small whole numbers."""

from __future__ import annotations

from functools import lru_cache
from math import isqrt


@lru_cache(maxsize=1024)
def factors(n: int) -> tuple[int, ...]:
    """All factors of *n* (1 or more), from the smallest.

    >>> factors(12)
    (1, 2, 3, 4, 6, 12)
    """
    low = [k for k in range(1, isqrt(n) + 1) if n % k == 0]
    return tuple(low + [n // k for k in reversed(low) if k * k != n])


@lru_cache(maxsize=8192)
def prime_factors(n: int) -> tuple[int, ...]:
    """The prime factors of *n* (1 or more), from the smallest, each as often as it divides; 1 has none.

    >>> prime_factors(12), prime_factors(97), prime_factors(1)
    ((2, 2, 3), (97,), ())
    """
    found: list[int] = []
    p = 2
    while p * p <= n:
        while n % p == 0:
            found.append(p)
            n //= p
        p += 1 if p == 2 else 2
    return (*found, n) if n > 1 else tuple(found)


def product_text(numbers: tuple[int, ...]) -> str:
    """Numbers with × between them; an empty product is 1.

    >>> product_text((2, 3)), product_text(())
    ('2 × 3', '1')
    """
    return " × ".join(map(str, numbers)) if numbers else "1"
