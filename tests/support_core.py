"""What tests of the core and of files share."""

from __future__ import annotations

import os
from collections.abc import Iterable, Mapping
from random import Random
from typing import Any, TypeVar

from keen_slate.core.documents.plain import plainly
from keen_slate.core.documents.view import working_view
from keen_slate.core.teaching.fading import Fading
from keen_slate.core.teaching.sentences import TeachersWords
from keen_slate.core.worked import Worked
from keen_slate.export.item import Item

T = TypeVar("T")


def as_item(worked: Worked, fading: Fading | None = None) -> Item:
    """An example as papers and files need it, nothing in its teacher's own words."""
    return Item(worked, TeachersWords(), fading or Fading(), {})


def sweep(usual: int, whole: int) -> int:
    """How many are gone through: as many as a usual run can bear, or all of them by ./slate test --all."""
    return whole if os.environ.get("KEEN_SLATE_ALL") else usual


def some(things: Iterable[T]) -> list[T]:
    """A third of *things* in their order, another one with each version of the files; all by ./slate test --all."""
    there = list(things)
    if os.environ.get("KEEN_SLATE_ALL"):
        return there
    dice = Random(os.environ.get("KEEN_SLATE_SEED", ""))
    return [there[i] for i in sorted(dice.sample(range(len(there)), -(-len(there) // 3)))]


def drawn(things: Mapping[str, T]) -> dict[str, T]:
    """The same of what has names."""
    return {name: things[name] for name in some(sorted(things))}


def viewed(*arguments: Any, **more: Any) -> Any:
    """A view as plain values."""
    return plainly(working_view(*arguments, **more))
