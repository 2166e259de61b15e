"""`checklist`: the questions that a class asks in its order, every time, each answered, with the steps that follow from
it.
"""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass

from ..arithmetic.lowest import why_lowest
from ..ways.checklist import ChecklistQuestion, read_checklist
from ..ways.settings import Ways
from ..working.proof import Working
from ..working.step_kinds import (
    ADD_WHOLES,
    COMMON_DENOMINATOR,
    COUNT_BACK,
    NEXT,
    REGROUP,
    REWRITE_WHOLE,
    SHIFT_BOTH,
    SIMPLIFY,
    STEP_KINDS,
    SUBTRACT_WHOLES,
    TO_IMPROPER,
    TO_MIXED,
    StepKind,
)
from .four_box import BOX_COLUMNS, BOXED
from .own_checklist import changed_denominators, own_boxes, takes_away
from .registry import Box, Laid, jottings_of, layout
from .rows import rows_of

_REWRITES = frozenset([kind for kind in STEP_KINDS.values() if kind.rewrites])
_REWRITE = "Is there something to rewrite first?"
_CHANGE = "Do both <denominators> change, or only one?"
# The places of the questions that are asked every time; whatever else a working asks stands at the last but two.
_PLACES = (_REWRITE, ADD_WHOLES.question, COMMON_DENOMINATOR.question, _CHANGE, REGROUP.question)
_HIDDEN_AT, _LAST = len(_PLACES) + 1, len(_PLACES) + 2


# The questions of a class that has no list of its own, as its card has them.
OF_THE_HOUSE = tuple(
    [
        ChecklistQuestion(hook, asks)
        for hook, asks in (
            ("rewrite", _REWRITE),
            ("same-size", COMMON_DENOMINATOR.question),
            ("both-change", _CHANGE),
            ("enough", REGROUP.question),
            ("to-mixed", TO_MIXED.question),
            ("simplify", SIMPLIFY.question),
        )
    ]
)


def questions_of(ways: Ways) -> tuple[ChecklistQuestion, ...]:
    """The questions that a class asks: its own, or else those that are asked every time."""
    return read_checklist(ways.checklist) or OF_THE_HOUSE


@layout("checklist")
def checklist(working: Working) -> Laid | None:
    """The questions, each with its answer and the steps that follow from it."""
    if working.problem.kind not in BOXED:
        return None
    own = read_checklist(working.ways.checklist)
    if own:
        return Laid(boxes=own_boxes(working, own))
    asked = _Asked(working)
    if working.steps and working.steps[0].kind in _REWRITES:
        asked.ask(_REWRITE, _REWRITES, "no", "yes")
    if asked.next_kind() is ADD_WHOLES:
        asked.ask(ADD_WHOLES.question, (ADD_WHOLES,), "none", "add them and set them aside")
    asked.ask(COMMON_DENOMINATOR.question, (COMMON_DENOMINATOR,), "yes", COMMON_DENOMINATOR.answer)
    while (kind := asked.next_kind()) not in (None, SIMPLIFY):
        asked.ask(kind.question, _asked_with(kind), "no", kind.answer)
    for question in _standing(working):
        asked.answer(question)
    last = _finished(working)
    asked.ask(SIMPLIFY.question, (SIMPLIFY, TO_IMPROPER), last, SIMPLIFY.answer)
    return Laid(boxes=tuple(asked.boxes))


class _Asked:
    """The questions asked so far, and the steps that are left."""

    def __init__(self, working: Working) -> None:
        self.working = working
        self.left = list(range(len(working.steps)))
        self.boxes: list[Box] = []

    def next_kind(self) -> StepKind | None:
        """The kind of the next step; None where none is left."""
        return self.working.steps[self.left[0]].kind if self.left else None

    def ask(self, question: str, kinds: Collection[StepKind], no: str, yes: str) -> None:
        """Ask *question*: the steps of these *kinds* that come next follow from it."""
        found = []
        while self.next_kind() in kinds:
            found.append(self.left.pop(0))
        rows = rows_of(self.working, found, BOX_COLUMNS)
        self.boxes.append(Box(question, yes if found else no, rows, jottings_of(self.working, found)))

    def answer(self, standing: _Standing) -> None:
        """Ask a question that nothing follows from, in its place; not again, where it was asked before."""
        if all(box.title != standing.question for box in self.boxes):
            at = next(
                (i for i, box in enumerate(self.boxes) if _place(box.title) > _place(standing.question)),
                len(self.boxes),
            )
            self.boxes.insert(at, Box(standing.question, standing.answer, (), ()))


@dataclass(frozen=True, slots=True)
class _Standing:
    """A question with the answer that leads to no step."""

    question: str
    answer: str


def _place(question: str) -> int:
    if question in _PLACES:
        return _PLACES.index(question)
    return {TO_MIXED.question: _HIDDEN_AT, SIMPLIFY.question: _LAST}.get(question, len(_PLACES))


def _standing(working: Working) -> list[_Standing]:
    """The questions that are asked of this *working* whether a step follows from them or not."""
    kinds = {step.kind for step in working.steps}
    asked = [_Standing(_REWRITE, "no")]
    changed = _changed(working)
    if changed is not None:
        asked.append(_Standing(_CHANGE, changed))
    other_way = kinds & {SUBTRACT_WHOLES, COUNT_BACK, SHIFT_BOTH, REWRITE_WHOLE}
    if takes_away(working) and not other_way:
        asked.append(_Standing(REGROUP.question, "yes"))
    return [*asked, _Standing(TO_MIXED.question, "no")]


def _changed(working: Working) -> str | None:
    """Which denominators change where a common one is found; None where there is none to be found."""
    changed = changed_denominators(working)
    if changed is None:
        return None
    count, every = changed
    if every > 2:
        return f"{count} of {every}"
    return "both" if count == 2 else "only one"


def _finished(working: Working) -> str:
    """Why nothing is left to simplify."""
    because = why_lowest(working.answer)
    return f"no: {because}" if because else "no: it is finished"


def _asked_with(kind: StepKind) -> list[StepKind]:
    """The kinds of step that the same question leads to."""
    if kind.question == NEXT[0]:
        return [kind]
    return [other for other in STEP_KINDS.values() if other.question == kind.question or other.code in kind.along]
