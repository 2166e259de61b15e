"""`checklist`: the questions that a class asks in its order, each ticked, with the steps that follow from it."""

from __future__ import annotations

from collections.abc import Collection

from ..working.proof import Working
from ..working.step_kinds import ADD_WHOLES, COMMON_DENOMINATOR, NEXT, SIMPLIFY, STEP_KINDS, TO_IMPROPER, StepKind
from .four_box import BOX_COLUMNS, BOXED
from .registry import Box, Laid, jottings_of, layout
from .rows import rows_of

_REWRITES = frozenset([kind for kind in STEP_KINDS.values() if kind.rewrites])


@layout("checklist")
def checklist(working: Working) -> Laid | None:
    """The questions, each with its answer and the steps that follow from it; the first and the last are asked always."""
    if working.problem.kind not in BOXED:
        return None
    left = list(range(len(working.steps)))
    asked: list[Box] = []

    def ask(question: str, kinds: Collection[StepKind], no: str, yes: str) -> None:
        found = []
        while left and working.steps[left[0]].kind in kinds:
            found.append(left.pop(0))
        rows = rows_of(working, found, BOX_COLUMNS)
        asked.append(Box(question, yes if found else no, rows, jottings_of(working, found)))

    if working.steps and working.steps[0].kind in _REWRITES:
        ask("Is there something to rewrite first?", _REWRITES, "no", "yes")
    if [working.steps[i].kind for i in left[:1]] == [ADD_WHOLES]:
        ask(ADD_WHOLES.question, (ADD_WHOLES,), "none", "add them and set them aside")
    ask(COMMON_DENOMINATOR.question, (COMMON_DENOMINATOR,), "yes", COMMON_DENOMINATOR.answer)
    while left and (kind := working.steps[left[0]].kind) is not SIMPLIFY:
        ask(kind.question, _asked_with(kind), "no", kind.answer)
    ask(SIMPLIFY.question, (SIMPLIFY, TO_IMPROPER), "no: it is finished", SIMPLIFY.answer)
    return Laid(boxes=tuple(asked))


def _asked_with(kind: StepKind) -> list[StepKind]:
    """The kinds of step that the same question leads to."""
    if kind.question == NEXT[0]:
        return [kind]
    return [other for other in STEP_KINDS.values() if other.question == kind.question or other.code in kind.along]
