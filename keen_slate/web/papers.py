"""Papers and files of a whole set as tasks for another process: plain values in, bytes out."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path

from cachetools import LRUCache

from keen_slate.core.errors import CoreError
from keen_slate.core.teaching.sentences import TeachersWords
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import Worked, work_text
from keen_slate.export import fonts, handout
from keen_slate.export.docx import docx as docx_file
from keen_slate.export.handout import Version
from keen_slate.export.item import Item
from keen_slate.export.markdown import markdown
from keen_slate.export.odt import odt as odt_file
from keen_slate.export.page import page as page_of
from keen_slate.export.paper.kinds.tick import cards_of
from keen_slate.export.paper.options import SHOWS_EXAMPLES, Options
from keen_slate.export.paper.parts import Numbered
from keen_slate.export.qti import Version as QtiVersion
from keen_slate.export.qti import qti
from keen_slate.export.table import rows_for
from keen_slate.export.table import table as csv_table
from keen_slate.export.workbook import workbook

from .given import GivenExample, each_worked, points_in_all
from .schemas.papers import PagesOut
from .searches import other_problem

_KEPT: LRUCache[str, list[Version]] = LRUCache(maxsize=6)


@dataclass(frozen=True, slots=True)
class Wish:
    """Which examples of a set go on paper, in how many versions, and how the pages are to be; *only* are their numbers,
    all where empty.
    """

    options: Options
    versions: int = 1
    seed: int = 0
    only: frozenset[int] = frozenset()


def handout_pdf(title: str, examples: Sequence[GivenExample], wish: Wish, typefaces: Path) -> bytes:
    """The handout as a PDF."""
    return handout.pdf(title, _versions(examples, wish), wish.options, typefaces)


def handout_pages(title: str, examples: Sequence[GivenExample], wish: Wish, typefaces: Path, most: int) -> PagesOut:
    """The first pages as SVG pictures, at *most* so many."""
    pictures, shown = handout.pages(title, _versions(examples, wish), wish.options, typefaces)
    wanted = [number for number in range(1, len(examples) + 1) if not wish.only or number in wish.only]
    return PagesOut(
        pages=[picture.decode() for picture in pictures[:most]],
        count=len(pictures),
        left_out=[number for number in wanted if number not in shown] if wish.options.kind in SHOWS_EXAMPLES else [],
    )


def _versions(examples: Sequence[GivenExample], wish: Wish) -> list[Version]:
    """The examples of each version; kept for the next look at the same ones, for a preview changes how they look and
    not what they are.
    """
    key = repr((examples, wish.versions, wish.seed, sorted(wish.only), wish.options.kind == "yours"))
    found: list[Version] | None = _KEPT.get(key)
    if found is None:
        found = _KEPT[key] = _made(examples, wish)
    return found


def _made(examples: Sequence[GivenExample], wish: Wish) -> list[Version]:
    used = {one.source for one in examples}
    numbered = [(number, one) for number, one in enumerate(examples, 1) if not wish.only or number in wish.only]
    made: list[Version] = []
    for version in range(wish.versions):
        letter = chr(ord("A") + version) if wish.versions > 1 else ""
        items = [(number, one, _item(one, version, wish.seed, used)) for number, one in numbered]
        made.append((letter, [
            Numbered(number, item, _like(one, item, wish, used)) for number, one, item in items if item is not None
        ]))  # fmt: skip
    return made


def _like(one: GivenExample, item: Item, wish: Wish, used: set[str]) -> Item | None:
    """Another problem like that of *item*, where the kind of page needs one."""
    if wish.options.kind != "yours":
        return None
    return _other(one, item.worked, f"{wish.seed} yours {one.position}", used)


def page(title: str, examples: Sequence[GivenExample], faces: Mapping[int, str], nonce: str = "") -> str:
    """The set as one HTML page with its typeface at the addresses *faces*."""
    ((_, items),) = _versions(examples, Wish(Options()))
    return page_of(title, items, faces, nonce)


def page_alone(title: str, examples: Sequence[GivenExample], assets: Path) -> str:
    """The same as a file that needs nothing else."""
    return page(title, examples, fonts.within(assets))


def text_file(title: str, examples: list[GivenExample], author: str, typefaces: Path | None) -> bytes:
    """The set as an OpenDocument text with formulas; with pictures where *typefaces* are given for them."""
    return odt_file(title, _items(examples), author, typefaces)


def docx_text(title: str, examples: list[GivenExample], author: str, typefaces: Path | None) -> bytes:
    """The same as an Office Open XML text with equations."""
    return docx_file(title, _items(examples), author, typefaces)


def pasted(title: str, examples: list[GivenExample]) -> str:
    """The set as Markdown."""
    return markdown(title, _items(examples))


def _items(examples: list[GivenExample]) -> list[Item]:
    return [_as_given(one, worked) for one, worked in each_worked(examples)]


def _as_given(one: GivenExample, worked: Worked) -> Item:
    return Item(worked, one.sentences, one.faded, dict(one.marks))


def table(examples: list[GivenExample], separator: str) -> str:
    """Problems, answers and likely wrong answers as CSV, or with another separator."""
    return csv_table([worked for _, worked in each_worked(examples)], separator)


def sheet(examples: list[GivenExample]) -> bytes:
    """The same as a spreadsheet's own file."""
    return workbook(rows_for([worked for _, worked in each_worked(examples)]))


def items(title: str, examples: list[GivenExample], to_choose: bool, version: QtiVersion) -> bytes:
    """The set as a QTI package, an item for each example that can be one."""
    pairs = [(worked, points_in_all(one, worked)) for one, worked in each_worked(examples)]
    return qti(title, [worked for worked, _ in pairs], [points for _, points in pairs], to_choose, version)


def checklist_card(ways: Mapping[str, str], typefaces: Path) -> bytes:
    """The questions that a class asks, as cards in a PDF."""
    return handout.pdf_of("Our checklist", [cards_of(Ways.of(ways))], Options(), typefaces)


def _item(one: GivenExample, version: int, seed: int, used: set[str]) -> Item | None:
    """An example as *version* (from 0) has it: itself, or a problem like it. None where it cannot be worked."""
    try:
        worked = one.worked()
    except CoreError:
        return None
    if version:
        return _other(one, worked, f"{seed} {version} {one.position}", used)
    return _as_given(one, worked)


def _other(one: GivenExample, worked: Worked, seed: str, used: set[str]) -> Item:
    """A problem like *worked* that is not among those *used*, found by lot from the *seed*."""
    source = other_problem(worked, seed, used)
    used.add(source)
    found = work_text(source, worked.working.ways, ".", worked.working.problem.target)
    return Item(found, TeachersWords({}, one.set_words), one.faded, dict(one.marks))
