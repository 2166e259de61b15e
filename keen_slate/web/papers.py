"""Papers and files of a whole set as tasks for another process: plain values in, bytes out."""

from __future__ import annotations

import base64
from collections.abc import Mapping, Sequence
from pathlib import Path

from keen_slate.core.errors import CoreError
from keen_slate.core.expressions.tree import Equation
from keen_slate.core.layouts.checklist import questions_of
from keen_slate.core.teaching.sentences import TeachersWords
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import voice_of
from keen_slate.core.worked import work_text
from keen_slate.export import fonts
from keen_slate.export.card import cards
from keen_slate.export.docx import docx as docx_file
from keen_slate.export.handout import Options, Version, handout
from keen_slate.export.item import Item
from keen_slate.export.markdown import markdown
from keen_slate.export.odt import odt as odt_file
from keen_slate.export.pdf import one_page, pages, pdf
from keen_slate.export.qti import qti
from keen_slate.export.report import SIZES, Report, report
from keen_slate.export.table import table as csv_table

from .given import Given, each_worked, points_in_all
from .searches import other_problem

READ = Options(form="full", per_page=1, space=0, name_line=False, pictures=True, key=False)  # on a screen


def handout_pdf(
    title: str, examples: Sequence[Given], options: Options, versions: int, seed: int, assets: Path
) -> bytes:
    """The handout as a PDF."""
    used = {one.source for one in examples}
    made: list[Version] = []
    for number in range(versions):
        letter = chr(ord("A") + number) if versions > 1 else ""
        made.append((letter, [item for one in examples if (item := _item(one, number, seed, used)) is not None]))
    return pdf(handout(title, made, options, fonts.on_disk(assets)))


def handout_pages(
    title: str, examples: Sequence[Given], options: Options, versions: int, seed: int, assets: Path
) -> list[str]:
    """Its pages as pictures in Base64: those of the PDF."""
    document = handout_pdf(title, examples, options, versions, seed, assets)
    return [base64.b64encode(picture).decode() for picture in pages(document)]


def page(title: str, examples: Sequence[Given], sheets: dict[int, str], nonce: str = "") -> str:
    """The set as one HTML page with its typeface at the addresses *sheets*."""
    items = [item for one in examples if (item := _item(one, 0, 0, set())) is not None]
    return handout(title, [("", items)], READ, sheets, nonce)


def page_alone(title: str, examples: Sequence[Given], assets: Path) -> str:
    """The same as a file that needs nothing else."""
    return page(title, examples, fonts.within(assets))


def text_file(title: str, examples: list[Given]) -> bytes:
    """The set as an OpenDocument text with formulas."""
    return odt_file(title, [worked for _, worked in each_worked(examples)])


def docx_text(title: str, examples: list[Given]) -> bytes:
    """The set as an Office Open XML text with equations."""
    return docx_file(title, [worked for _, worked in each_worked(examples)])


def pasted(title: str, examples: list[Given]) -> str:
    """The set as Markdown."""
    return markdown(title, [worked for _, worked in each_worked(examples)])


def table(examples: list[Given], separator: str) -> str:
    """Problems, answers and likely wrong answers as CSV, or with another separator."""
    return csv_table([worked for _, worked in each_worked(examples)], separator)


def items(title: str, examples: list[Given], to_choose: bool) -> bytes:
    """The set as a QTI 3.0 package, an item for each example whose answer is one number."""
    pairs = [
        (worked, points_in_all(one, worked)) for one, worked in each_worked(examples)
        if len(worked.working.answers) < 2 and not isinstance(worked.working.answer, Equation)
    ]  # fmt: skip
    return qti(title, [worked for worked, _ in pairs], [points for _, points in pairs], to_choose)


def report_paper(page: Report, assets: Path) -> bytes:
    """Tables on one page, as a PDF."""
    return one_page(lambda size: report(page, fonts.on_disk(assets), size), SIZES)


def checklist_card(ways: Mapping[str, str], assets: Path) -> bytes:
    """The questions that a class asks, as cards in a PDF."""
    chosen = Ways.of(ways)
    voice = voice_of(chosen)
    asked = [
        (one.asks if chosen.checklist else voice.said(one.asks), one.hangs_on != "always")
        for one in questions_of(chosen)
    ]
    return pdf(cards("Our checklist", asked, fonts.on_disk(assets)))


def _item(one: Given, number: int, seed: int, used: set[str]) -> Item | None:
    """An example as version *number* (from 0) has it: itself, or a problem like it. None where it cannot be worked."""
    try:
        worked = one.worked()
    except CoreError:
        return None
    words = one.sentences
    if number:
        source = other_problem(worked, f"{seed} {number} {one.position}", used)
        used.add(source)
        worked = work_text(source, worked.working.ways, ".", worked.working.problem.target)
        words = TeachersWords({}, one.set_words)
    return Item(worked, words, one.faded, dict(one.marks))
