"""A class's own checklist, answered: each question in its order with yes or no, and the steps that follow from it."""

from __future__ import annotations

from collections.abc import Callable, Collection
from dataclasses import dataclass

from ..expressions.terms import signed_terms
from ..expressions.tree import Frac, Mixed
from ..ways.checklist import HANGS_ON, ChecklistQuestion
from ..working.proof import Working
from ..working.step_kinds import (
    ADD,
    ADD_FRACTIONS,
    ADD_WHOLES,
    CARRY_WHOLE,
    COMMON_DENOMINATOR,
    COUNT_BACK,
    REGROUP,
    REWRITE_WHOLE,
    SHIFT_BOTH,
    SIMPLIFY,
    STEP_KINDS,
    SUBTRACT,
    SUBTRACT_FRACTIONS,
    SUBTRACT_WHOLES,
    TO_MIXED,
    StepKind,
)
from .four_box import BOX_COLUMNS
from .registry import Box, jottings_of
from .rows import rows_of

YES, NO = "yes", "no"


@dataclass(frozen=True, slots=True)
class _Hook:
    """What a question hangs on: steps of these *kinds* (*with_steps* is the answer where there are some), or what
    is *true* of the working. With neither, the pupil answers."""

    kinds: frozenset[StepKind] = frozenset()
    with_steps: str = YES
    true: Callable[[Working], bool] | None = None


def changed_denominators(working: Working) -> tuple[int, int] | None:
    """How many denominators change where a common one is found, of how many; None where there is none to be found."""
    step = next((step for step in working.steps if step.kind is COMMON_DENOMINATOR), None)
    if step is None:
        return None
    before = [n.den for _, n in signed_terms(step.before) if isinstance(n, (Frac, Mixed))]
    return sum(den != working.used_denominator for den in before), len(before)


def takes_away(working: Working) -> bool:
    """Whether a term of the problem is subtracted."""
    return any(sign < 0 for sign, _ in signed_terms(working.problem.expr))


def _more_than_one_changes(working: Working) -> bool:
    changed = changed_denominators(working)
    return changed is not None and changed[0] > 1


def _has_mixed(working: Working) -> bool:
    return any(isinstance(n, Mixed) for _, n in signed_terms(working.problem.expr))


_REWRITES = frozenset([kind for kind in STEP_KINDS.values() if kind.rewrites])
_CUT_UP = frozenset({REGROUP, REWRITE_WHOLE})
_HOOKS: dict[str, _Hook] = {
    "always": _Hook(),
    "rewrite": _Hook(_REWRITES - {SIMPLIFY, TO_MIXED}),
    "mixed": _Hook(true=_has_mixed),
    "wholes": _Hook(frozenset({ADD_WHOLES})),
    "same-size": _Hook(frozenset({COMMON_DENOMINATOR}), NO),
    "unlike": _Hook(frozenset({COMMON_DENOMINATOR})),
    "both-change": _Hook(true=_more_than_one_changes),
    "enough": _Hook(_CUT_UP, NO),
    "regroup": _Hook(_CUT_UP),
    "add": _Hook(frozenset({ADD, ADD_FRACTIONS})),
    "subtract": _Hook(frozenset({SUBTRACT, SUBTRACT_WHOLES, SUBTRACT_FRACTIONS, COUNT_BACK, SHIFT_BOTH})),
    "to-mixed": _Hook(frozenset({TO_MIXED, CARRY_WHOLE})),
    "simplify": _Hook(frozenset({SIMPLIFY})),
    "lowest": _Hook(frozenset({SIMPLIFY}), NO),
}
if set(_HOOKS) != set(HANGS_ON):
    raise ValueError("what a question may hang on and what answers it are not the same")


def own_boxes(working: Working, questions: Collection[ChecklistQuestion]) -> tuple[Box, ...]:
    """The *questions* with their answers; a step that none of them asks for stands where it comes, under the core's
    own.
    """
    steps = [step.kind for step in working.steps]
    boxes: list[Box] = []
    done = 0

    def take(title: str, answer: str, count: int, quoted: bool = True) -> None:
        nonlocal done
        found = range(done, done + count)
        rows = rows_of(working, list(found), BOX_COLUMNS)
        boxes.append(Box(title, answer, rows, jottings_of(working, found), quoted))
        done += count

    def run(kinds: Collection[StepKind]) -> int:
        count = 0
        while done + count < len(steps) and steps[done + count] in kinds:
            count += 1
        return count

    waiting = [_HOOKS[one.hangs_on] for one in questions]
    for at, question in enumerate(questions):
        later = frozenset[StepKind]().union(*[hook.kinds for hook in waiting[at:]])
        # What no question asks for comes before the question that asks for what follows; the last one asks when all
        # else is done.
        following = next((kind for kind in steps[done:] if kind in later), None)
        turn = following in waiting[at].kinds or waiting[at].kinds == {SIMPLIFY}
        while turn and done < len(steps) and steps[done] not in later:
            take(steps[done].question, steps[done].answer, 1, quoted=False)
        hook = waiting[at]
        if hook.true is not None:
            take(question.asks, YES if hook.true(working) else NO, 0)
        else:
            there = not hook.kinds.isdisjoint(steps)
            take(question.asks, _answer(hook, there, takes_away(working)), run(hook.kinds))
    while done < len(steps):
        take(steps[done].question, steps[done].answer, run({steps[done]}), quoted=False)
    return tuple(boxes)


def _answer(hook: _Hook, there: bool, subtracts: bool) -> str:
    """Yes or no: whether the steps that it hangs on are *there*; of cutting up nothing can be said where nothing is
    taken away.
    """
    if not hook.kinds:
        return ""
    if hook.kinds == _CUT_UP and not subtracts:
        return "nothing is taken away"
    return hook.with_steps if there else NO if hook.with_steps == YES else YES
