"""One step of a working."""

from __future__ import annotations

from dataclasses import dataclass

from ..expressions.sentences import Rich
from ..expressions.tree import Expr
from ..expressions.typeset import Roles
from .step_kinds import StepKind


@dataclass(frozen=True, slots=True)
class Step:
    """One step: *before* becomes *after*, of the same value.

    *title* and *reason* are sentences (the usual reason of its kind, where none is given), *lines* the jottings beside
    it, *spoken* what the teacher says, *roles* the inks of the terms of *after*, *facts* the multiplications it rests
    on.
    """

    kind: StepKind
    before: Expr
    after: Expr
    title: Rich
    reason: Rich = ()
    lines: tuple[Rich, ...] = ()
    roles: Roles = ()
    facts: tuple[tuple[int, int], ...] = ()

    def __post_init__(self) -> None:
        """Give it the usual reason of its kind where it has none of its own."""
        if not self.reason:
            object.__setattr__(self, "reason", (self.kind.reason,))
