"""Roles: for each a colour and a hatch, so that a picture is read in colour, by colour-blind readers, and in grey.

The front end gets this table as a generated file (frontend/src/parts/inks.json) and the SVG writer uses it directly.
"""

from __future__ import annotations

from dataclasses import dataclass

PAPER = "#fcfbf5"
INK = "#1d2a33"
TILE = 10  # a hatch repeats every 10 units
TINT = 18  # per cent of the colour under the hatch


@dataclass(frozen=True, slots=True)
class Ink:
    """A colour, and the lines of its hatch in a tile of 10 by 10 with their width."""

    colour: str
    hatch: str
    width: str = "1.8"

    @property
    def tint(self) -> str:
        """The colour under the hatch: `TINT` per cent of the role's colour on white.

        >>> Ink("#000000", "").tint
        '#d1d1d1'
        """
        channels = [int(self.colour[i : i + 2], 16) for i in (1, 3, 5)]
        return "#" + "".join([f"{(channel * TINT + 255 * (100 - TINT) + 50) // 100:02x}" for channel in channels])


INKS: dict[str, Ink] = {
    "first": Ink("#0b63a5", "M-2 2l4-4M0 10l10-10M8 12l4-4"),
    "second": Ink("#a85500", "M3 3h.01M8 8h.01", "3.4"),
    "third": Ink("#1b7a5a", "M2 5h6M5 2v6"),
    "fourth": Ink("#7a4b9e", "M-2 8l4 4M0 0l10 10M8-2l4 4"),
    "fifth": Ink("#a03a5c", "M3 0v10M8 0v10"),
    "sixth": Ink("#5b6412", "M0 3l2.5 3l2.5-3l2.5 3l2.5-3"),
    "carried": Ink("#8a3b86", "M0 2.5h10M0 7.5h10"),
    "wrong": Ink("#980820", "M1 1l8 8M9 1l-8 8"),
    "answer": Ink(INK, "M0 5h10"),
}
