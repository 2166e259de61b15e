"""Where a problem stands for who climbs: its rung, what that rung is about, and how much is exchanged in it."""

from __future__ import annotations

from dataclasses import dataclass

from ..expressions.terms import signed_terms
from ..expressions.tree import Expr, Sum
from .features import Features
from .rungs import ALL_RUNGS

# What rungs are about, with the rungs in the order of their climb (common practice); of the others, each letter is
# about one thing. Where a rung is there twice, the second is for what is subtracted.
ABOUT: dict[str, tuple[str, ...]] = {
    "W": ("W1", "W2"), "W-": ("W1", "W2"), "W×": ("W3",),
    "E": ("E1", "E2"), "E=": ("E5",), "E_": ("E3", "E4"),
    "M": ("M1", "M2", "M3", "M4", "M10"), "M-": ("M5", "M6", "M7", "M8", "M9", "M11"),
    "D": ("D1", "D2", "D3", "D6"), "D-": ("D1", "D2", "D3", "D4", "D5", "D6"),
    "P": ("P1", "P2", "P3"), "P÷": ("P4",), "P.": ("P5", "P6"),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Footing:
    """The *rung*, what it is *about* (rungs of one kind are compared, others are not), and the carries and *exchanges*
    met.
    """

    rung: str
    about: str
    exchanges: int = 0


def footing_of(expr: Expr, seen: Features) -> Footing:
    """Where *expr* stands, whose features in the default ways are *seen*."""
    return Footing(seen.rung, _about(seen.rung, expr), seen.carries + seen.regroups)


def _about(rung: str, expr: Expr) -> str:
    """What a *rung* is about, where *expr* stands on it.

    >>> from ..reading.reader import read
    >>> problems = {"M4": "1 3/4 + 1 1/2", "D2": "4.2 - 1.7", "P4": "1/2 ÷ 3"}
    >>> [_about(rung, read(text).expr) for rung, text in problems.items()]
    ['M', 'D-', 'P÷']
    """
    found = [about for about, rungs in ABOUT.items() if rung in rungs]
    return found[-1 if _subtracts(expr) else 0] if found else rung[0]


def _subtracts(expr: Expr) -> bool:
    return isinstance(expr, Sum) and any(sign < 0 for sign, _ in signed_terms(expr))


def rungs_about(about: str) -> tuple[str, ...]:
    """The rungs about the same, in the order in which they are climbed.

    >>> rungs_about("D"), rungs_about("N")
    (('D1', 'D2', 'D3', 'D6'), ('N1', 'N2', 'N3', 'N4'))
    """
    return ABOUT.get(about) or tuple([rung for rung in ALL_RUNGS if rung[0] == about])
