"""What faults of form and slips are called."""

from __future__ import annotations

from ..judging.misconceptions.registry import ENTRIES

FORM_FAULTS: dict[str, str] = {
    "improper": "An improper fraction is to be written as a <mixed number>.",
    "improper-part": "A <mixed number> may not keep an improper part.",
    "whole-as-fraction": "A <whole> is to be written as a whole number.",
    "not-lowest-terms": "It is to be in <lowest terms>.",
    "mixed": "It is to be an improper fraction.",
    "decimal-for-fraction": "It is to be a fraction.",
    "fraction-for-decimal": "It is to be a decimal.",
    "blank-zero": "A <numerator> in a blank is 1 at least.",
    "blank-equal": "The <numerators> are all to be different.",
    "blank-improper": "The fractions are to be proper.",
    "label-missing": "The label is missing.",
    "label-wrong": "The label is another one.",
}

# The same in few words, for a cell of a table.
FORM_NAMES: dict[str, str] = {
    "improper": "improper fraction",
    "improper-part": "improper part",
    "whole-as-fraction": "<whole> as a fraction",
    "not-lowest-terms": "not in <lowest terms>",
    "mixed": "<mixed number>",
    "decimal-for-fraction": "a decimal",
    "fraction-for-decimal": "a fraction",
    "blank-zero": "0 in a blank",
    "blank-equal": "equal <numerators>",
    "blank-improper": "improper fraction",
    "label-missing": "label missing",
    "label-wrong": "another label",
}

SLIP_NAMES: dict[str, str] = {
    "slip-fact": "a multiplication fact off by one group",
    "slip-addition": "an addition off by 1 or 10",
    "slip-swapped": "two digits swapped",
    "slip-miscopied": "a number miscopied",
}
FAULTS: dict[str, str] = {
    **FORM_FAULTS,
    "equals-sign-misused": "An equals sign stands between numbers that are not equal.",
    "unreadable": "This line cannot be read as numbers and operations.",
}


def name_of(code: str) -> str:
    """What a misconception or slip is called."""
    return SLIP_NAMES[code] if code in SLIP_NAMES else ENTRIES[code].name


def is_code(code: str) -> bool:
    """Whether *code* is a misconception or a slip."""
    return code in SLIP_NAMES or code in ENTRIES
