"""The catalogue of misconceptions, each with its example worked: for a page, and for docs/misconceptions.md."""

from __future__ import annotations

from dataclasses import dataclass

from ..expressions.text import text
from ..expressions.voice import OWN
from ..judging.misconceptions import LikelyAnswer
from ..judging.misconceptions.registry import ENTRIES, Misconception
from ..ways.settings import Ways
from ..worked import Worked, work_text

FAMILIES = {
    "fractions": "Fractions, adding and subtracting",
    "mixed": "<Mixed numbers>",
    "forms": "Form and tidying",
    "products": "Multiplying and dividing",
    "decimals": "Decimals",
    "operations": "Which operation, and the sign",
    "order": "Order of operations",
    "blanks": "Blanks and equal fractions",
    "stories": "Stories",
}
_HOW_OFTEN = {1: "seldom", 2: "now and then", 3: "often"}


@dataclass(frozen=True, slots=True)
class CatalogueEntry:
    """An entry with its example."""

    entry: Misconception
    family: str
    worked: Worked
    likely: LikelyAnswer


def catalogue() -> list[CatalogueEntry]:
    """Every entry, by family, with its example worked and its wrong answer."""
    shown = []
    for entry in ENTRIES.values():
        worked = work_text(entry.example, Ways())
        found = next(one for one in worked.likely if one.entry.code == entry.code)
        shown.append(CatalogueEntry(entry, FAMILIES[entry.works.__module__.rsplit(".", 1)[1]], worked, found))
    order = list(FAMILIES.values())
    return sorted(shown, key=lambda one: order.index(one.family))


def as_markdown() -> str:
    """The catalogue as a document."""
    lines = [
        "# Likely wrong answers", "",
        "Made by the code from the entries in `keen_slate/core/judging/misconceptions/` (`python -m tools.tables`). "
        "How often one is met is",
        "common practice: a weight for the order in which they are shown, with no published source.",
    ]  # fmt: skip
    family = ""
    for one in catalogue():
        if one.family != family:
            family = one.family
            lines += [
                "",
                f"## {OWN.said(family)}",
                "",
                "| code | what the pupil does | met | example | right | written | why | question |",
                "|---|---|---|---|---|---|---|---|",
            ]
        working = "; ".join([OWN.plain(line) for line in one.likely.wrong.lines])
        cells = [
            f"`{one.entry.code}`", OWN.said(one.entry.name), _HOW_OFTEN[one.entry.often],
            one.worked.working.problem.text,
            one.worked.working.answer_text, f"{text(one.likely.wrong.answer)} ({working})", OWN.said(one.entry.reason),
            OWN.said(one.entry.question),
        ]  # fmt: skip
        lines.append(f"| {' | '.join(cells)} |")
    return "\n".join(lines) + "\n"
