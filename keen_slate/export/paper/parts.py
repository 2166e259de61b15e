"""The parts of a paper: examples in a grid, cards, pieces to cut out, the key.

A template knows how each is laid out.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Literal

from ..blocks import Block, PageExample, Picture, WrittenLine
from ..item import Item
from .options import Options, PageKind


@dataclass(frozen=True, slots=True)
class Grid:
    """Examples for pupils, *columns* beside each other and no more than *per_page* on a page (0: as many as fit)."""

    title: str
    letter: str
    examples: tuple[PageExample, ...]
    columns: int
    per_page: int
    part: Literal["grid"] = "grid"


@dataclass(frozen=True, slots=True)
class Pair:
    """A worked example, and beside it one for the pupil."""

    given: PageExample
    yours: PageExample


@dataclass(frozen=True, slots=True)
class Pairs:
    """Worked examples, each beside one for the pupil."""

    title: str
    letter: str
    pairs: tuple[Pair, ...]
    part: Literal["pairs"] = "pairs"


@dataclass(frozen=True, slots=True)
class Slips:
    """A third of a page, three times on each page; *examples* stand on each of them."""

    title: str
    letter: str
    examples: tuple[PageExample, ...]
    part: Literal["slips"] = "slips"


@dataclass(frozen=True, slots=True)
class Cards:
    """A card to tick, as often as it fits on a page: its questions, each answered yes or no, or only ticked."""

    title: str
    questions: tuple[tuple[str, bool], ...]
    part: Literal["cards"] = "cards"


@dataclass(frozen=True, slots=True)
class CutOuts:
    """Strips, then circles to cut out, at one scale."""

    title: str
    strips: tuple[Picture, ...]
    circles: tuple[Picture, ...]
    part: Literal["cut-outs"] = "cut-outs"


@dataclass(frozen=True, slots=True)
class KeyRow:
    """A line of the key: what is written (None: the answer told in words before), what is said of it, its points."""

    line: WrittenLine | None
    said: WrittenLine
    points: int


@dataclass(frozen=True, slots=True)
class KeyEntry:
    """An example in the key: what stands *before* its lines, and what *after* them under a heading each."""

    number: int
    problem: WrittenLine | None
    before: tuple[Block, ...]
    rows: tuple[KeyRow, ...]
    notes: tuple[tuple[str, tuple[WrittenLine, ...]], ...]


@dataclass(frozen=True, slots=True)
class Key:
    """The key of a version, on pages of its own: in two columns, a line a step, or *long* with what is done in each."""

    title: str
    letter: str
    entries: tuple[KeyEntry, ...]
    long: bool
    part: Literal["key"] = "key"


@dataclass(frozen=True, slots=True)
class Copy:
    """The teacher's copy: the examples as pupils have them, the key in a slim margin beside each."""

    title: str
    letter: str
    examples: tuple[PageExample, ...]
    part: Literal["copy"] = "copy"


def numbers_on(part: Part) -> list[int]:
    """The numbers of the examples that pupils get on a part."""
    match part:
        case Grid() | Slips():
            return [one.head.number for one in part.examples]
        case Pairs():
            return [pair.given.head.number for pair in part.pairs]
    return []


def is_empty(part: Part) -> bool:
    """Whether there is nothing on a part."""
    match part:
        case Grid() | Slips() | Copy():
            return not part.examples
        case Pairs():
            return not part.pairs
        case Key():
            return not part.entries
    return False


Part = Grid | Pairs | Slips | Cards | CutOuts | Key | Copy


@dataclass(frozen=True, slots=True)
class Numbered:
    """An example with its number in the set, and one like it for the kinds that need it."""

    number: int
    item: Item
    like: Item | None = None


@dataclass(frozen=True, slots=True)
class PageMaterial:
    """What a kind of page is made from: the examples of a version."""

    title: str
    letter: str
    items: tuple[Numbered, ...]
    options: Options


Make = Callable[[PageMaterial], Sequence[Part]]
KINDS: dict[str, Make] = {}


def page_kind(code: PageKind) -> Callable[[Make], Make]:
    """Put the decorated function into the registry under *code*."""

    def add(make: Make) -> Make:
        if code in KINDS:
            raise ValueError(f"the kind of page {code} is registered twice")
        KINDS[code] = make
        return make

    return add
