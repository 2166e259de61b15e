"""Published standards that a set may serve, in short words of our own; codes and years from memory.

CCSS-M: Common Core State Standards for Mathematics (2010), by code. England: national curriculum, mathematics
programmes of study (2013), by year.
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Standard:
    """*code* as it is cited, what it asks in *words* of our own, and the *rungs* that serve it."""

    code: str
    words: str
    rungs: tuple[str, ...]


_LIKE = ("F1", "F2", "F3")
_UNLIKE = ("F4", "F5", "F6", "F7")
_MIXED_LIKE = ("M1", "M2", "M5", "M7")
_MIXED_UNLIKE = ("M3", "M4", "M5", "M6", "M8", "M9")
_DECIMALS = ("D1", "D2", "D3", "D4", "D5", "D6")

STANDARDS: tuple[Standard, ...] = (
    Standard("4.NF.B.3a", "add and subtract like fractions as joining and separating parts of one whole", _LIKE),
    Standard("4.NF.B.3c", "add and subtract mixed numbers with like denominators", _MIXED_LIKE),
    Standard("4.NF.C.5", "add tenths and hundredths by writing tenths as hundredths", ("F4",)),
    Standard("5.NF.A.1", "add and subtract with unlike denominators, mixed numbers too", _UNLIKE + _MIXED_UNLIKE),
    Standard("5.NF.A.2", "judge with benchmarks and estimates whether an answer can be right", _UNLIKE + _MIXED_UNLIKE),
    Standard("5.NBT.B.7", "calculate with decimals to hundredths", _DECIMALS),
    Standard("5.OA.A.1", "use brackets in calculations", ("O2",)),
    Standard("6.NS.B.3", "calculate fluently with decimals of several places", _DECIMALS),
    Standard("6.NS.B.4", "find common multiples and common factors", _UNLIKE),
    Standard("6.EE.A.1", "work with whole-number powers", ("O2",)),
    Standard("7.NS.A.1", "add and subtract with numbers below zero", ("O4",)),
    Standard("England, Year 3", "add and subtract like fractions within one whole", ("F1", "F2")),
    Standard("England, Year 4", "add and subtract like fractions, also past one whole", _LIKE),
    Standard("England, Year 5", "add and subtract where one denominator fits the other; mixed numbers and improper fractions",
             ("F3", "F4", "M1", "M2", "M3", "M4", "M5")),
    Standard("England, Year 5 (decimals)", "add and subtract decimals with different places", ("D1", "D2", "D3", "D4", "D5")),
    Standard("England, Year 6", "add and subtract fractions and mixed numbers with unlike denominators", _UNLIKE + _MIXED_UNLIKE),
    Standard("England, Year 6 (order)", "use the order of operations", ("O1", "O2")),
    Standard("England, Key Stage 3", "use the four operations on fractions, decimals and numbers below zero", ("O3", "O4")),
)  # fmt: skip
CODES = frozenset(standard.code for standard in STANDARDS)


def serving(rungs: set[str]) -> list[Standard]:
    """All standards: first those that *rungs* serve, then the others, each in their order."""
    return sorted(STANDARDS, key=lambda standard: not rungs & set(standard.rungs))
