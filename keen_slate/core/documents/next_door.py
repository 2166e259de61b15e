"""The class next door: one example as it is worked there and here, step beside step, with the differences in
sentences.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from difflib import SequenceMatcher
from itertools import zip_longest

from ..errors import CoreError
from ..expressions.text import text
from ..expressions.tree import Equation
from ..expressions.voice import Voice
from ..layouts.laying import lay
from ..teaching.sentences import TeachersWords
from ..ways.settings import SETTINGS, Setting, Ways
from ..ways.voices import voice_of
from ..worked import Worked, work_out
from .view import RowView, StepView, WorkingView, working_view
from .working import answer_text, estimate_document, step_documents


@dataclass(frozen=True, slots=True)
class WrittenThere:
    """A step as a class writes it, with the line that it ends in."""

    step: StepView
    row: RowView | None


@dataclass(frozen=True, slots=True)
class BesideView:
    """A step there and a step here; *same* where both end in the same line, None where the other class has none
    for it.
    """

    theirs: WrittenThere | None
    mine: WrittenThere | None
    same: bool


@dataclass(frozen=True, slots=True)
class NextDoorView:
    """The lines that both begin with, the steps beside each other, and what is different: *said*, a sentence for each.

    *mine* is None, and *said* tells why, where the problem cannot be worked as it is here.
    """

    theirs: RowView
    mine: RowView | None
    beside: tuple[BesideView, ...]
    said: tuple[str, ...]


def next_door(theirs: Worked, edited: TeachersWords, mine: Ways) -> NextDoorView:
    """*theirs*, with the sentences that their teacher *edited*, beside the same problem worked in the ways that are
    *mine*.
    """
    # Which numbers are to fill the blanks belongs to the example, not to a class.
    mine = replace(mine, split=theirs.working.ways.split)
    shown = working_view(theirs, edited)
    try:
        here = work_out(theirs.working.problem, mine)
    except CoreError as error:
        alone = [BesideView(one, None, False) for one in _steps(shown)]
        return NextDoorView(shown.rows[0], None, tuple(alone), (f"Your class cannot work it: {error}",))
    own = working_view(here)
    return NextDoorView(shown.rows[0], own.rows[0], tuple(_beside(theirs, here, shown, own)), _said(theirs, here))


def _steps(view: WorkingView) -> list[WrittenThere]:
    rows = {row.step: row for row in view.rows}
    return [WrittenThere(step, rows.get(i)) for i, step in enumerate(view.steps)]


def _ends(worked: Worked) -> list[str]:
    """What each step ends in, written alike for both classes."""
    return [text(step.after) for step in worked.working.steps]


def _beside(theirs: Worked, mine: Worked, shown: WorkingView, own: WorkingView) -> Iterator[BesideView]:
    """Steps that end in the same line stand beside each other; those between them are filled up from above."""
    there, here = _steps(shown), _steps(own)
    for kind, a, b, c, d in SequenceMatcher(None, _ends(theirs), _ends(mine), autojunk=False).get_opcodes():
        for left, right in zip_longest(there[a:b], here[c:d]):
            yield BesideView(left, right, kind == "equal")


def _said(theirs: Worked, mine: Worked) -> tuple[str, ...]:
    voice = voice_of(mine.working.ways)
    told = [_told(one, theirs, mine, voice) for one in _different(theirs, mine)]
    return (*told, _both(theirs, mine, voice, alike=not told))


def _different(theirs: Worked, mine: Worked) -> list[Setting]:
    """The settings in which both classes differ, and that change something of this example, there or here."""
    there, here = theirs.working.ways, mine.working.ways
    return [
        one for name, one in SETTINGS.items()
        if getattr(there, name) != getattr(here, name)
        and (_changes(theirs, name, getattr(here, name)) or _changes(mine, name, getattr(there, name)))
    ]  # fmt: skip


def _changes(worked: Worked, name: str, code: str) -> bool:
    """Whether *worked* would be another with that one setting as the other class has it."""
    try:
        other = work_out(worked.working.problem, replace(worked.working.ways, **{name: code}))
    except CoreError:
        return True
    return _written(worked) != _written(other)


def _written(worked: Worked) -> tuple[object, ...]:
    """All that stands on the paper, as the class says it."""
    working, voice = worked.working, voice_of(worked.working.ways)
    layout, laid = lay(working)
    headings = [(box.heading(voice), voice.said(box.answer)) for box in laid.boxes]
    about = worked.estimate and estimate_document(worked.estimate, voice).text
    return step_documents(working, voice), answer_text(working, voice), layout, laid, headings, about


def _told(one: Setting, theirs: Worked, mine: Worked, voice: Voice) -> str:
    """A setting, with what each class does.

    >>> from ..worked import work_text
    >>> codes = ("count-back", "regroup")
    >>> there, here = (work_text("5 1/4 - 2 3/4", Ways.of({"mixed_subtract": code})) for code in codes)
    >>> _told(SETTINGS["mixed_subtract"], there, here, voice_of(Ways()))
    'Subtracting mixed numbers: next door count back; in your class regroup.'
    """
    there, here = (voice.said(one.codes[getattr(each.working.ways, one.name)]) for each in (theirs, mine))
    return f"{voice.said(one.title)}: next door {there}; in your class {here}."


def _both(theirs: Worked, mine: Worked, voice: Voice, alike: bool) -> str:
    """What both end in, and in how many lines."""
    there, here = theirs.working, mine.working
    ends = voice.text(there.answer), voice.text(here.answer)
    lines = len(there.steps), len(here.steps)
    if alike:
        return "Both classes write it alike."
    counted = (
        f"in {_counted(lines[0], 'line')} each"
        if lines[0] == lines[1]
        else f"in {_counted(lines[0], 'line')} there and {lines[1]} here"
    )
    if there.count is not None and here.count is not None and there.count != here.count:
        return f"{_counted(there.count, 'answer')} next door, {here.count} in your class."
    if ends[0] == ends[1]:
        return f"Both end in {ends[0]}, {counted}."
    if isinstance(there.problem.expr, Equation):
        return f"They end in {ends[0]}, your class in {ends[1]}: both are right."
    return f"They end in {ends[0]}, your class in {ends[1]}, which is the same number; {counted}."


def _counted(count: int, what: str) -> str:
    return f"{count} {what}" if count == 1 else f"{count} {what}s"
