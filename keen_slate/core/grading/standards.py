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
_UNLIKE = ("F4", "F5", "F6", "F8", "F9")
_MIXED_LIKE = ("M1", "M2", "M5", "M7")
_MIXED_UNLIKE = ("M3", "M4", "M5", "M6", "M8", "M9")
_DECIMALS = ("D1", "D2", "D3", "D4", "D5", "D6")
_EQUAL = ("E1", "E2", "N1", "N2")

STANDARDS: tuple[Standard, ...] = (
    Standard("4.NF.A.1", "see and make equal fractions", _EQUAL),
    Standard("4.NF.B.3a", "add and subtract like fractions as joining and separating parts of one whole", _LIKE),
    Standard("4.NF.B.3b", "take a fraction or a mixed number apart into a sum of fractions", ("V1", "V2")),
    Standard("4.NF.B.3c", "add and subtract mixed numbers with like denominators", _MIXED_LIKE),
    Standard("4.NF.B.4", "multiply a fraction by a whole number", ("P1",)),
    Standard("4.NF.C.5", "add tenths and hundredths by writing tenths as hundredths", ("F4",)),
    Standard("4.NF.C.6", "write fractions over 10 and 100 as decimals", ("V3",)),
    Standard("5.NF.A.1", "add and subtract with unlike denominators, mixed numbers too",
        _UNLIKE + _MIXED_UNLIKE + ("M10", "M11")),
    Standard("5.NF.A.2", "judge with benchmarks and estimates whether an answer can be right", _UNLIKE + _MIXED_UNLIKE),
    Standard("5.NF.B.4", "multiply a fraction or a whole number by a fraction", ("P1", "P2")),
    Standard("5.NF.B.6", "multiply fractions and mixed numbers", ("P2", "P3")),
    Standard("5.NF.B.7", "divide unit fractions by whole numbers, and whole numbers by unit fractions", ("P4",)),
    Standard("5.NBT.B.7", "calculate with decimals to hundredths", (*_DECIMALS, "P5", "P6")),
    Standard("5.OA.A.1", "use brackets in calculations", ("O2",)),
    Standard("6.NS.A.1", "divide fractions by fractions", ("P4",)),
    Standard("6.NS.B.3", "calculate fluently with decimals of several places", (*_DECIMALS, "P5", "P6")),
    Standard("6.NS.B.4", "find common multiples and common factors", _UNLIKE),
    Standard("6.EE.A.1", "work with whole-number powers", ("O2",)),
    Standard("7.NS.A.1", "add and subtract with numbers below zero", ("O4",)),
    Standard("7.NS.A.2d", "write fractions as decimals that end or recur", ("V3", "V4")),
    Standard("England, Year 3", "add and subtract like fractions within one whole", ("F1", "F2")),
    Standard("England, Year 4", "add and subtract like fractions, also past one whole", _LIKE),
    Standard("England, Year 4 (equal fractions)", "recognise families of equal fractions", _EQUAL),
    Standard("England, Year 5", "add and subtract where one denominator fits the other; mixed numbers and improper "
                                "fractions",
             ("F3", "F4", "V1", "V2", "M1", "M2", "M3", "M4", "M5")),
    Standard("England, Year 5 (multiplying)", "multiply proper fractions and mixed numbers by whole numbers",
        ("P1", "P3")),
    Standard("England, Year 5 (decimals)", "add and subtract decimals with different places",
        ("D1", "D2", "D3", "D4", "D5")),
    Standard("England, Year 6", "add and subtract fractions and mixed numbers with unlike denominators",
        _UNLIKE + _MIXED_UNLIKE),
    Standard("England, Year 6 (multiplying)",
        "multiply pairs of proper fractions, divide proper fractions by whole numbers",
             ("P2", "P4")),
    Standard("England, Year 6 (order)", "use the order of operations", ("O1", "O2")),
    Standard("England, Key Stage 3", "use the four operations on fractions, decimals and numbers below zero",
        ("O3", "O4", "P4", "P5", "P6")),
)  # fmt: skip
CODES = frozenset(standard.code for standard in STANDARDS)


def serving(rungs: set[str]) -> list[Standard]:
    """All standards: first those that *rungs* serve, then the others, each in their order."""
    return sorted(STANDARDS, key=lambda standard: not rungs & set(standard.rungs))
