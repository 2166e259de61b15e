"""`four-box` (problem, common denominator, equal fractions, solve and simplify) and `checklist` (questions, ticked)."""

from __future__ import annotations

from dataclasses import dataclass

from ..expressions.sentences import Rich
from ..working.proof import Working
from .cells import Row
from .line import expression_row, step_row

# The squares that fit into half a paper, beside the frame of a box.
BOX_COLUMNS = 12
_REWRITES = ("join-signs", "to-mixed", "to-improper", "simplify", "spot-whole")


@dataclass(frozen=True, slots=True)
class Box:
    """A titled part of a working: written rows and jottings; *answer* is what a checklist ticks it off with."""

    title: str
    answer: str
    rows: tuple[Row, ...]
    jottings: tuple[Rich, ...]


def _rows(working: Working, steps: list[int]) -> tuple[Row, ...]:
    return tuple([step_row(working, i, BOX_COLUMNS) for i in steps])


def four_box(working: Working) -> list[Box]:
    """Four boxes; what comes before the common denominator stands with the problem, what comes after with the solution."""
    problem = expression_row(None, working.problem.expr, working.problem_roles, "", BOX_COLUMNS)
    kinds = [step.kind for step in working.steps]
    common = kinds.index("common-denominator") if "common-denominator" in kinds else None
    first = common if common is not None else 0
    before, after = list(range(first)), list(range(first + (common is not None), len(kinds)))
    jottings = working.steps[common].lines if common is not None else ()
    # The rows of multiples (text alone) find the denominator; the scaled fractions are the equal fractions.
    finding = tuple([line for line in jottings if all(isinstance(part, str) for part in line)])
    scaling = tuple([line for line in jottings if line not in finding])
    none: Rich = ("The pieces are the same size already.",)
    fits: Rich = (f"{working.used_denominator} fits every denominator.",)
    denominator = (none,) if common is None else finding or (fits,)
    equal = _rows(working, [common]) if common is not None else ()
    return [
        Box("Problem", "", (problem, *_rows(working, before)), ()),
        Box("Common denominator", "", (), denominator),
        Box("Equal fractions", "", equal, scaling if common is not None else (none,)),
        Box("Solve and simplify", "", _rows(working, after), ()),
    ]


def checklist(working: Working) -> list[Box]:
    """The questions that a class asks in its order, each with its answer and the steps that follow from it."""
    left = list(range(len(working.steps)))
    asked: list[Box] = []

    def ask(question: str, kinds: tuple[str, ...], no: str, yes: str) -> None:
        found = []
        while left and working.steps[left[0]].kind in kinds:
            found.append(left.pop(0))
        jottings = tuple([line for i in found for line in working.steps[i].lines])
        asked.append(Box(question, yes if found else no, _rows(working, found), jottings))

    if left and working.steps[0].kind in _REWRITES:
        ask("Is there something to rewrite first?", _REWRITES, "no", "yes")
    early = [working.steps[i].kind for i in left[:1]] == ["add-wholes"]
    if early:
        ask("How many wholes are there?", ("add-wholes",), "none", "add them and set them aside")
    ask("Are the pieces the same size?", ("common-denominator",), "yes", "no: make them the same")
    while left and working.steps[left[0]].kind not in ("simplify",):
        kind = working.steps[left[0]].kind
        question, kinds, answer = _QUESTIONS.get(kind, ("What is the next step?", (kind,), "this"))
        ask(question, kinds, "no", answer)
    ask(
        "Do top and bottom still share a factor?", ("simplify", "to-improper"), "no: it is finished", "yes: divide both"
    )
    return asked


_QUESTIONS: dict[str, tuple[str, tuple[str, ...], str]] = {
    "rewrite-whole": ("Are there enough pieces to take away?", ("rewrite-whole", "regroup"), "no: cut up a whole"),
    "regroup": ("Are there enough pieces to take away?", ("rewrite-whole", "regroup"), "no: cut up a whole"),
    "subtract": ("What is left?", ("subtract", "subtract-wholes", "subtract-fractions"), "take away"),
    "subtract-wholes": ("What is left?", ("subtract-wholes", "subtract-fractions"), "take away"),
    "add": ("How many pieces are there?", ("add",), "add the numerators"),
    "add-fractions": ("How many pieces are there?", ("add-fractions",), "add the numerators"),
    "add-wholes": ("How many wholes are there?", ("add-wholes",), "add them"),
    "to-mixed": ("Is a whole hidden in the fraction?", ("to-mixed", "carry-whole"), "yes: take it out"),
    "carry-whole": ("Is a whole hidden in the fraction?", ("to-mixed", "carry-whole"), "yes: take it out"),
    "join": ("What is it as one number?", ("join",), "join them"),
    "count-back": ("How far do you jump back?", ("count-back",), "in jumps"),
    "shift-both": ("Can a whole be taken away instead?", ("shift-both",), "yes: add the same to both"),
    "put-sign": ("Is more taken away than is there?", ("reorder", "put-sign"), "yes: put the sign before"),
    "reorder": ("What is added, what is taken away?", ("reorder",), "start with what is added"),
}
