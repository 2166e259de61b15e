"""A graded set in one step: from a published standard to what is wished for.

What each standard asks of the numbers is from memory, as the standards themselves (`grading.standards`): in grade 4 of
CCSS-M the denominators are 2, 3, 4, 5, 6, 8, 10, 12 (those of a ladder that names none) and 100.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Any

from ..grading.standards import STANDARDS, Standard
from .spec import spread

PROBLEMS = 8
_USUAL: dict[str, Any] = {"largest_common_denominator": 60, "avoid": ["negatives"]}
# Where the rungs of a standard hold more than it asks for, or its problems stand on other rungs: the parts of its set.
# Unlike fractions and mixed numbers in eight problems that skip no rung: like ones lead to where a whole is cut up.
_UNLIKE: tuple[dict[str, Any], ...] = ({"rungs": dict.fromkeys(("F4", "F5", "F6", "M3", "M4", "M5", "M7", "M8"), 1)},)
_OWN: dict[str, tuple[dict[str, Any], ...]] = {
    "4.NF.B.3c": ({"only": "same-denominator"},),
    "4.NF.C.5": ({"denominators": [10, 100], "largest_common_denominator": 100, "operations": ["+"]},),
    "4.NF.C.6": ({"rungs": {"V3": 3}, "denominators": [10], "only": "to-decimal"},
                 {"rungs": {"V3": 5}, "denominators": [100], "largest_common_denominator": 100, "only": "to-decimal"}),
    "5.NF.A.1": _UNLIKE, "5.NF.A.2": _UNLIKE, "England, Year 6": _UNLIKE,
    "5.NF.B.7": ({"rungs": {"P4": 4}, "only": "unit-first"}, {"rungs": {"P4": 4}, "only": "whole-first"}),
    "5.OA.A.1": ({"only": "brackets"},),
    "6.NS.A.1": ({"rungs": {"P4": 5}, "only": "proper-fractions"}, {"rungs": {"P4": 3}, "only": "mixed-first"}),
    "6.EE.A.1": ({"only": "powers"},),
    "7.NS.A.1": ({"rungs": {"F4": 3, "F5": 3, "M5": 2}, "only": "below-zero", "avoid": []},),
    "7.NS.A.2d": ({"rungs": {"V3": 4}, "denominators": [4, 5, 8, 20, 25], "only": "to-decimal"},
                  {"rungs": {"V4": 4}, "denominators": [3, 6, 9, 11], "only": "to-decimal"}),
    "England, Year 5": ({"only": "one-fits"},),
    "England, Year 5 (multiplying)": ({"only": "by-a-whole"},),
    "England, Year 6 (multiplying)": ({"rungs": {"P2": 4}}, {"rungs": {"P4": 4}, "only": "by-a-whole"}),
    "England, Year 6 (order)": ({"only": "brackets"},),
    "England, Key Stage 3": ({"denominators": [2, 3, 4, 5, 6]},),
}  # fmt: skip


def wishes_for(standard: Standard, seed: int = 0) -> list[dict[str, Any]]:
    """The wishes, as docs/formats.md spells them, whose ladders one behind the other serve *standard*.

    >>> [wish["rungs"] for wish in wishes_for(STANDARDS[1])]
    [{'F1': 3, 'F2': 3, 'F3': 2}]
    """
    usual = _USUAL | {"rungs": spread(standard.rungs, PROBLEMS), "seed": seed}
    return [usual | own for own in _OWN.get(standard.code, ({},))]


def wish_between(first: str, last: str, problems: int, seed: int = 0) -> dict[str, Any]:
    """The wish for so many *problems* from one rung to another, within the usual limits."""
    return _USUAL | {"from": first, "to": last, "steps": problems, "seed": seed}


def standard_named(code: str) -> Standard | None:
    """The standard with this *code*, if there is one."""
    return next((one for one in STANDARDS if one.code == code), None)


def group_of(standard: Standard) -> str:
    """Under which heading a teacher looks for it.

    >>> group_of(STANDARDS[0]), group_of(STANDARDS[-1])
    ('CCSS-M, grade 4', 'England')
    """
    return "England" if standard.code.startswith("England") else f"CCSS-M, grade {standard.code[0]}"


@dataclass(frozen=True, slots=True)
class Stretch:
    """A stretch of rungs that a set may begin with, and the words of a title that ask for it."""

    name: str
    first: str
    last: str
    words: frozenset[str]


def _climb(name: str, first: str, last: str, words: str) -> Stretch:
    return Stretch(name, first, last, frozenset(words.split()))


CLIMBS: tuple[Stretch, ...] = (
    _climb("Unlike fractions", "F4", "F6", "fraction fractions unlike common denominator denominators add adding sum"),
    _climb("Subtracting <mixed numbers>", "M5", "M9",
           "mixed subtract subtracting difference take left over less minus regroup regrouping borrow exchange rename "
           "cut"),
    _climb("Decimals", "D1", "D5", "decimal decimals point tenths hundredths places rain money price metres litres"),
    _climb("Like fractions", "F1", "F3", "fraction fractions like same pieces whole add adding"),
    _climb("Adding <mixed numbers>", "M1", "M4", "mixed add adding sum plus total together carry"),
    _climb("Equal fractions", "E1", "E2", "equal equivalent same chain families"),
    _climb("<Lowest terms>", "N1", "N2", "simplify simplest lowest terms cancel factor factors"),
    _climb("Improper and <mixed numbers>", "V1", "V2", "improper mixed convert converting change rename"),
    _climb("Multiplying fractions", "P1", "P3", "multiply multiplying product times of groups area"),
    _climb("Decimals, multiplied and divided", "P5", "P6", "decimal decimals multiply divide product quotient price"),
    _climb("Dividing fractions", "P4", "P4", "divide dividing share shared quotient groups"),
    _climb("Order of operations", "O1", "O3", "order operations brackets power powers first"),
)  # fmt: skip


def climbs_for(title: str, most: int = 3) -> list[Stretch]:
    """The climbs whose words a set's *title* has, the best first; the usual ones where it has none.

    >>> [one.name for one in climbs_for("Rain gauge: decimals")][0]
    'Decimals'
    """
    found = set(re.findall(r"[a-z]+", title.lower()))
    return sorted(CLIMBS, key=lambda one: -len(one.words & found))[:most]
