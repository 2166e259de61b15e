"""The display list that every figure is made of. Coordinates are whole numbers of the figure's own units."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..wording import Role

Weight = Literal["outline", "thick", "thin", "cross"]


@dataclass(frozen=True, slots=True)
class Shape:
    """A filled rectangle ("part"), an empty one ("whole"), a line, or a label at its left baseline."""

    shape: Literal["part", "whole", "line", "label"]
    x: int
    y: int
    w: int = 0
    h: int = 0
    role: Role = ""
    weight: Weight = "outline"
    text: str = ""


@dataclass(frozen=True, slots=True)
class Figure:
    """A picture: its size, its shapes from back to front, and what is seen in it."""

    kind: str
    width: int
    height: int
    shapes: tuple[Shape, ...]
    alt: str
