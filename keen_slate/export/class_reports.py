"""A sitting, a class and a pupil over time as pages of tables, to be printed."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

from keen_slate.core.documents.over_time import (
    ClassOverTime,
    CodeOverTime,
    GroupNow,
    PupilOverTime,
    PupilPage,
    SittingSummary,
)
from keen_slate.core.documents.sitting import HappenedView
from keen_slate.core.expressions.typeset import Glyph

from .report import Cell, Report, ReportTable

MOST_CODES = 12  # on a page
MOST_SITTINGS = 12  # the last ones
_MOST_ANSWERS = 30


def class_report(page: ClassOverTime) -> Report:
    """A class on one page: its misconceptions sitting by sitting, and what each pupil holds."""
    here = [pupil for pupil in page.pupils if pupil.here]
    pupils = [
        [pupil.alias, _share(pupil), _held(pupil), "; ".join([one.name for one in pupil.no_longer]) or "–"]
        for pupil in here
    ]
    aliases = {pupil.id: pupil.alias for pupil in here}
    groups: list[list[Cell]] = [
        [_held_by(one), ", ".join([aliases[who] for who in one.pupils]), one.question or "–"] for one in page.groups
    ]
    asked = [aliases[who] for who in page.unclear]
    said = f"To be asked, as nothing known explains much of what they wrote: {', '.join(asked)}." if asked else ""
    return Report(
        page.name,
        _over(page.sittings, f"{len(here)} pupils"),
        [
            ReportTable("Groups now", said, ["", "who", "ask"] if groups else [], groups),
            _codes(page.codes, page.sittings, "pupils who showed it (and how often, of its chances)"),
            ReportTable("Pupils", "", ["", "right", "holds", "no longer"], pupils),
        ],
    )


def pupil_report(page: PupilPage) -> Report:
    """A pupil on one page: what she holds, what she no longer does, rungs reached, her last answers."""
    pupil = page.pupil
    held: list[list[Cell]] = [[one.name, one.word, f"{one.shown} of {one.chances} chances"] for one in pupil.holds]
    gone: list[list[Cell]] = [
        [one.name, f"last seen {_day(one.last)}", f"{one.chances} chances since"] for one in pupil.no_longer
    ]
    reached: list[list[Cell]] = [[one.name, _day(one.on)] for one in pupil.reached]
    answers: list[list[Cell]] = [
        [one.problem, one.written or "–", one.name or one.said, _day(sitting.day)]
        for sitting in page.sittings
        for one in sitting.answers
    ]
    rows = answers[:_MOST_ANSWERS]
    shown = f"The last {len(rows)} of {len(answers)}." if len(answers) > len(rows) else ""
    return Report(
        pupil.alias,
        f"{page.class_name}, {_share(pupil)} answers right",
        [
            ReportTable("Holds", "" if held else "Nothing stands out.", ["", "", ""], held),
            ReportTable("No longer", "" if gone else "Nothing yet.", ["", "", ""], gone),
            ReportTable("Rungs reached", "" if reached else "None yet: right on two days.", ["", ""], reached),
            ReportTable("Answers", shown, ["problem", "written", "", "day"], rows),
        ],
    )


def sitting_report(title: str, said: str, found: HappenedView) -> Report:
    """What happened in a sitting on one page: its main misconceptions, then problem by problem."""
    codes: list[list[Cell]] = [
        [
            one.name,
            f"{len(one.pupils)} of {found.pupils}",
            f"{one.did} of {one.could}",
            ", ".join([who.alias for who in one.pupils]),
            one.question if i < found.main else "",
        ]
        for i, one in enumerate(found.codes[:MOST_CODES])
    ]
    problems: list[list[Cell]] = [
        [
            [Glyph("words", f"{i + 1}: "), *one.glyphs],
            str(one.right),
            str(one.value),
            str(one.wrong),
            str(one.blank),
            [*one.commonest, Glyph("words", f" ({one.times}) {one.name}")] if one.times else "",
            ", ".join(one.hides),
        ]
        for i, one in enumerate(found.problems)
    ]
    heads = ["problem", "right", "value only", "wrong", "blank", "written oftenest", "it hides"]
    return Report(
        title,
        said,
        [
            ReportTable("What they did", "", ["", "pupils", "chances", "who", "ask"], codes),
            ReportTable("Problem by problem", "", heads, problems),
        ],
    )


def _codes(codes: Sequence[CodeOverTime], sittings: Sequence[SittingSummary], said: str) -> ReportTable:
    last = slice(-MOST_SITTINGS, None)
    rows: list[list[Cell]] = [
        [one.name, *[f"{it.pupils} ({it.did} of {it.could})" if it.could else "–" for it in one.sittings[last]]]
        for one in codes[:MOST_CODES]
    ]
    return ReportTable(
        "What they wrote", f"In each sitting: {said}.", ["", *[_day(one.day) for one in sittings[last]]], rows
    )


def _held_by(group: GroupNow) -> str:
    return ", and ".join(group.names) or "ready to go on"


def _held(pupil: PupilOverTime) -> str:
    return "; ".join([f"{one.name} ({one.word})" for one in pupil.holds]) or "–"


def _share(pupil: PupilOverTime) -> str:
    return f"{pupil.right} of {pupil.answered}"


def _over(sittings: Sequence[SittingSummary], who: str) -> str:
    if not sittings:
        return who
    days = _day(sittings[0].day) if len(sittings) == 1 else f"{_day(sittings[0].day)} to {_day(sittings[-1].day)}"
    return f"{who}, {len(sittings)} {'sitting' if len(sittings) == 1 else 'sittings'}, {days}"


def _day(day: date) -> str:
    return f"{day.day} {day:%b %Y}"
