"""A story's working: its calculations one after the other, each an ordinary working; what one finds goes into
the next.
"""

from __future__ import annotations

from collections.abc import Sequence

from ...expressions.tree import Expr
from ...expressions.typeset import roles_for
from ...expressions.walks import leaves
from ...reading.problem import problem_of
from ...stories.story import Story, StoryProblem
from ...ways.settings import Ways
from ..proof import Method, Working
from ..step import Step
from ..step_kinds import THEN


def work_story(problem: StoryProblem, ways: Ways, work: Method) -> Working:
    """The working of a story, its calculations worked by *work*. Raises `LimitError` as they do."""
    story = problem.story
    parts = parts_of(story, ways, work)
    steps = list(parts[0].steps)
    for i, part in enumerate(parts[1:], 1):
        start = part.problem.expr
        title = (f"Then find {story.steps[i].finds}.",)
        steps.append(Step(THEN, parts[i - 1].answer, start, title, roles=roles_for(len(leaves(start)))))
        steps += part.steps
    last = parts[-1]
    notes = tuple(dict.fromkeys(note for part in parts for note in part.notes))
    # What the class's ways could not be used for is said of the part; the story is in its class's ways.
    return Working(
        problem, ways, tuple(steps), last.answer, last.raw, last.used_denominator, notes,
        start_roles=parts[0].start_roles, parts=parts,
    )  # fmt: skip


def parts_of(story: Story, ways: Ways, work: Method, found: Sequence[Expr] = ()) -> tuple[Working, ...]:
    """The workings of a story's calculations, those after the ones that *found* these numbers already; rightly or
    wrongly.
    """
    parts: list[Working] = []
    known = list(found)
    for i in range(len(known), len(story.steps)):
        part = work(problem_of(story.filled(i, known), story.steps[i].label), ways)
        parts.append(part)
        known.append(part.answer)
    return tuple(parts)
