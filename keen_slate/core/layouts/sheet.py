"""A whole working on one sheet, for the layouts that do not go line by line."""

from __future__ import annotations

from dataclasses import dataclass

from .cells import Cell, Rule


@dataclass(frozen=True, slots=True)
class Sheet:
    """Everything that is written, and what a screen reader says of it."""

    width: int
    height: int
    cells: tuple[Cell, ...]
    rules: tuple[Rule, ...]
    spoken: str
