"""What comes next for a class as tasks for another process: plain values of the core in and out."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

from keen_slate.core.sittings.following import Following, following
from keen_slate.core.sittings.holding import Group
from keen_slate.core.sittings.over_time import OverTime
from keen_slate.core.sittings.over_time import warm_up as made_of
from keen_slate.core.sittings.question import Asked, Question


def warm_up(over: OverTime, asked: Sequence[Asked], day: date) -> tuple[Question, ...]:
    """A warm-up of what comes back."""
    return made_of(over, asked, day)


def next_of(groups: Sequence[Group], asked: Sequence[Asked], apart: Sequence[Sequence[str]]) -> list[Following]:
    """What comes next for each group; *apart* are the codes that those of each could not be told from."""
    return [following(group, asked, apart[i], seed=i) for i, group in enumerate(groups)]
