"""A problem as read, and its text with the label where a teacher writes it."""

from __future__ import annotations

import re
from dataclasses import dataclass

from ..expressions.text import text as write
from ..expressions.tree import Expr
from .kinds import Kind

CURRENCY = "$€£"
LONE_NUMBER = re.compile(r"-?[0-9_./\[\]]+(?: [0-9_]+/[0-9]+)?")


@dataclass(frozen=True, slots=True)
class Problem:
    """A problem as read: *expr* without its *label*, its *kind*, and for a conversion the form wanted."""

    expr: Expr
    label: str | None
    kind: Kind
    target: str | None = None

    @property
    def text(self) -> str:
        """The problem in the input notation, with its label; it reads back as the same problem."""
        return labelled(write(self.expr), self.label)


def labelled(number: str, label: str | None) -> str:
    """*number* with its *label* as a teacher writes it.

    >>> labelled("41 3/8", "%"), labelled("5 3/8", "ft"), labelled("3.20", "$")
    ('41 3/8%', '5 3/8 ft', '$3.20')
    """
    if label is None:
        return number
    if label in CURRENCY and LONE_NUMBER.fullmatch(number):
        return f"-{label}{number[1:]}" if number.startswith("-") else f"{label}{number}"
    return f"{number}{label}" if label in "%°" + CURRENCY else f"{number} {label}"
