"""What comes next for a group: a ladder built to order about what it holds, and a problem to check with."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Any

from ..errors import CoreError
from ..expressions.text import text
from ..grading.rungs import RUNGS
from ..judging.misconceptions.registry import ENTRIES
from ..ladders.build import NoLadderError, build
from ..ladders.parallel import parallel
from ..ladders.spec import read_spec
from ..reading.problem import labelled
from ..searching.deadline import EndedEarlyError
from .holding import Group
from .question import Asked, Question, explainer_of

_OF_A_RUNG = 2  # problems
_ONWARDS = 4  # problems of the next rung, for who is ready to go on
_LIKE = 4  # problems like those that went wrong, where no ladder can be built


@dataclass(frozen=True, slots=True)
class Following:
    """The problems of a group's *ladder*, one to *check* with, and the *targets* that the ladder shows and
    tells apart.
    """

    ladder: tuple[Question, ...]
    check: Question | None
    targets: tuple[str, ...]


def following(group: Group, asked: Sequence[Asked], apart: Sequence[str] = (), seed: int = 0) -> Following:
    """What comes next for a *group* after what was *asked*; *apart* are codes that its own could not be told from."""
    ways = asked[0].question.ways
    for wish in _wishes(group, asked, apart, seed):
        try:
            spec = read_spec(wish, ways)
            made = build(spec)
        except (CoreError, NoLadderError, EndedEarlyError):
            continue
        ladder = [Question(labelled(text(one.expr), spec.label), ways, one.target) for one in made.problems]
        return Following(tuple(ladder), _check(group, asked, ladder, seed), tuple(wish.get("targets", ())))
    ladder = _like(group, asked, seed)
    return Following(tuple(ladder), _check(group, asked, ladder, seed), ())


def wish_of(group: Group, asked: Sequence[Asked], apart: Sequence[str] = (), seed: int = 0) -> dict[str, Any] | None:
    """The wish for a ladder of a *group*: its rungs, its codes as targets, the denominators of the set; None where
    there is none.
    """
    rungs = [rung for rung in _rungs(group, asked) if rung in RUNGS]
    if not rungs:
        return None
    wish: dict[str, Any] = {
        "rungs": dict.fromkeys(rungs, _OF_A_RUNG if group.codes else _ONWARDS),
        "targets": [code for code in dict.fromkeys([*group.codes, *apart]) if not ENTRIES[code].on_form],
        "lowest_terms": True,
        "seed": seed,
    }
    if apart:
        wish["separate"] = True
    denominators = [d for d in group.denominators if 2 <= d <= 99]
    if denominators:
        wish["denominators"] = denominators
    return wish


def _wishes(group: Group, asked: Sequence[Asked], apart: Sequence[str], seed: int) -> Iterator[dict[str, Any]]:
    """The wish, and then what is left of it without what may rule it out."""
    whole = wish_of(group, asked, apart, seed)
    if whole is None:
        return
    labels = {explainer_of(one.question).working.problem.label for one in asked}
    label = {"label": labels.pop()} if len(labels) == 1 and None not in labels else {}
    alone = wish_of(group, asked, (), seed) or {}
    yield whole | label
    for wish, without in (
        (whole, {"denominators"}),
        (alone, {"denominators"}),
        (alone, {"denominators", "targets"}),
        (alone, {"denominators", "targets", "lowest_terms"}),
    ):
        yield {key: value for key, value in wish.items() if key not in without} | label


def _rungs(group: Group, asked: Sequence[Asked]) -> Sequence[str]:
    if group.rungs:
        return group.rungs
    if group.codes:
        return list(dict.fromkeys(one.rung for one in asked if any(map(one.can_show, group.codes))))[:3]
    return [onwards] if (onwards := next_rung([one.rung for one in asked])) else []


def next_rung(rungs: Sequence[str]) -> str | None:
    """The rung after the highest of *rungs*, in its family if there is one.

    >>> next_rung(["M5", "M9", "M7"]), next_rung(["F9"]), next_rung(["S1"])
    ('M10', 'V1', None)
    """
    order = list(RUNGS)
    known = [order.index(rung) for rung in rungs if rung in RUNGS]
    if not known:
        return None
    top = order[max(known)]
    after = order[max(known) + 1 :]
    return next((rung for rung in after if rung[0] == top[0]), after[0] if after else top)


def _like(group: Group, asked: Sequence[Asked], seed: int) -> list[Question]:
    """Problems like those on the rungs of a group."""
    rungs = _rungs(group, asked)
    models = [one.question for one in asked if not rungs or one.rung in rungs][-_LIKE:]
    made: list[Question] = []
    for model in models:
        other = _parallel(model, seed, [*[one.question for one in asked], *made])
        if other:
            made.append(other)
    return made


def _check(group: Group, asked: Sequence[Asked], ladder: Sequence[Question], seed: int) -> Question | None:
    """A problem like the one that is shown, or for who goes on like the last of the ladder."""
    model = asked[group.show].question if group.show is not None else ladder[-1] if ladder else None
    return model and _parallel(model, seed + 1, [*[one.question for one in asked], *ladder])


def _parallel(model: Question, seed: int, used: Sequence[Question]) -> Question | None:
    found = parallel(explainer_of(model).worked, seed, frozenset([one.source for one in used]))
    return replace(model, source=found.worked.working.problem.text, mark=".", points=()) if found else None
