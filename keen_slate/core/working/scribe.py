"""Who writes the steps of a method down."""

from __future__ import annotations

from ..expressions.sentences import Rich
from ..expressions.tree import Bracket, Expr, Mixed, Neg, Operator, Product, Sum
from ..expressions.typeset import Roles
from ..ways.settings import Ways
from .step import Step
from .step_kinds import StepKind


class Scribe:
    """Writes steps down. What is worked on may stand in a larger expression: after a sign, before other terms."""

    def __init__(self, start: Expr, ways: Ways) -> None:
        self.now = start
        self.ways = ways
        self.notes: list[str] = []  # where a way did not fit, and what was done instead
        self.steps: list[Step] = []
        self.negative = False
        self.raw: Mixed | None = None  # the last number before its improper part is tidied
        self.rest: tuple[tuple[Operator, Expr], ...] = ()
        self.rest_roles: Roles = ()

    def write(
        self,
        kind: StepKind,
        local: Expr,
        title: Rich,
        reason: Rich = (),
        lines: tuple[Rich, ...] = (),
        roles: Roles = (),
        facts: tuple[tuple[int, int], ...] = (),
    ) -> None:
        """Add the step that turns what is being worked on into *local*; nothing is added if it is that already."""
        after = self._around(local)
        if after == self.now:
            return
        ink: Roles = ("",)
        plain = ink * (_terms(local) - len(roles))
        self.steps.append(Step(kind, self.now, after, title, reason, lines, roles + plain + self.rest_roles, facts))
        self.now = after

    def _around(self, local: Expr) -> Expr:
        if self.negative:
            local = Neg(Bracket(local) if isinstance(local, (Sum, Product)) else local)
        if not self.rest:
            return local
        if isinstance(local, Sum):
            return Sum(local.first, local.rest + self.rest)
        return Sum(local, self.rest)


def _terms(expr: Expr) -> int:
    return 1 + len(expr.rest) if isinstance(expr, Sum) else 1
