"""Our text file opened by an office program that somebody else wrote, and saved as another kind: every formula is still
the same.
"""

import io
import re
import subprocess
import tempfile
import unittest
import xml.etree.ElementTree as ET
import zipfile
from collections import Counter
from functools import cache
from multiprocessing.util import Finalize
from pathlib import Path

from docx import Document
from openpyxl import load_workbook

from keen_slate.core.expressions.text import text
from keen_slate.core.teaching.fading import Fading
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text
from keen_slate.export.delimited import written
from keen_slate.export.docx import docx
from keen_slate.export.odt import odt
from keen_slate.export.outline import outline
from keen_slate.export.table import judged, rows_for
from keen_slate.export.workbook import table_in, workbook
from keen_slate.store.demo import SETS
from keen_slate.web.app import DIST
from tests.support_core import as_item

WORD = "{http://schemas.openxmlformats.org/wordprocessingml/2006/main}"
OMML = "{http://schemas.openxmlformats.org/officeDocument/2006/math}"
# Of every kind that the demo has not: recurring decimals, brackets, powers, numbers below zero.
MORE = (
    "1/3 + 0.5",
    "3.25 ÷ 0.3",
    "0.1[6] + 1/2",
    "2 (1/2 - 3)^2",
    "-2 1/2 + 1/3",
    "1/2 - 3/4",
    "_/2 + _/3 = 13/6",
    "15/18",
)


def spelled(node):
    """The input notation that a formula of the office program's own kind spells, told from its elements alone."""
    name = node.tag.removeprefix(OMML)
    if name == "f":
        return f" {spelled(node.find(f'{OMML}num')).strip()}/{spelled(node.find(f'{OMML}den')).strip()} "
    if name == "sSup":
        return f"{spelled(node.find(f'{OMML}e'))}^{spelled(node.find(f'{OMML}sup'))}"
    if name == "d":
        return f"({''.join(map(spelled, node.findall(f'{OMML}e')))})"
    if name in ("bar", "acc", "groupChr"):
        return f"[{''.join(map(spelled, node.findall(f'{OMML}e')))}]"
    return (node.text or "") if name == "t" else "".join(map(spelled, node))


def tight(written):
    for theirs, ours in (("\u2212", "-"), ("□", "_"), ("\u2215", "/")):
        written = written.replace(theirs, ours)
    return re.sub(r"[\s{}]", "", written)


@cache
def _profile():
    """The office program's own settings, which it makes when it first runs."""
    directory = tempfile.TemporaryDirectory()
    Finalize(None, directory.cleanup, exitpriority=1)
    return directory.name


def saved_by_office(files, wanted):
    """Each of the *files* (as content and kind), opened by the office program and saved as another kind."""
    with tempfile.TemporaryDirectory() as directory:
        paths = [Path(directory, f"{i}.{kind}") for i, (_, kind) in enumerate(files)]
        for path, (made, _) in zip(paths, files, strict=True):
            path.write_bytes(made)
        out = Path(directory, "out")
        command = ["soffice", f"-env:UserInstallation=file://{_profile()}", "--headless", "--convert-to", wanted,
            "--outdir", out, *paths]  # fmt: skip
        subprocess.run(command, check=True, capture_output=True, timeout=180)
        return [out.joinpath(f"{path.stem}.{wanted}").read_bytes() for path in paths]


def formulas(docx_file):
    document = ET.fromstring(zipfile.ZipFile(io.BytesIO(docx_file)).read("word/document.xml"))
    return [tight(spelled(formula)) for formula in document.iter(f"{OMML}oMath")]


def is_struck(run):
    """Whether a run of text is crossed out, by itself or by its style."""
    style = run.find(f"{WORD}rPr/{WORD}rStyle")
    return run.find(f"{WORD}rPr/{WORD}strike") is not None or (
        style is not None and style.get(f"{WORD}val").endswith("crossedout")
    )


class OfficeTests(unittest.TestCase):
    def test_every_formula_is_still_the_same_after_an_office_program_has_saved_it(self):
        problems = [problem for _, some in SETS for problem in some] + list(MORE)
        files, wanted = [], []
        for ways, mark in ((Ways(), "."), (Ways.of({"decimal_mark": "comma"}), ",")):
            worked = [as_item(work_text(problem, ways, mark=".")) for problem in problems]
            exprs = [
                tight(text(expr).replace(".", mark))
                for entry in outline(worked)
                for expr in (entry.start, *[line.expr for line in entry.lines if entry.grid is None])
            ]
            files += [(odt("All kinds", worked), "odt"), (docx("All kinds", worked), "docx")]
            wanted += [exprs, exprs]
        for saved, exprs, (_, kind) in zip(saved_by_office(files, "docx"), wanted, files, strict=True):
            self.assertEqual(formulas(saved), exprs, kind)

    def test_squares_and_boxes_are_tables_and_pictures_are_numbered_in_an_office_program(self):
        items = [
            as_item(work_text("12.05 - 8.36", mark="."), Fading(blanks=frozenset({"column-subtract 0 0"}))),
            as_item(work_text("7 1/4 - 3 5/6", Ways.of({"layout": "stacked"}))),
            as_item(work_text("7 1/4 - 3 5/6", Ways.of({"layout": "checklist"}))),
        ]
        *sheets, boxed = outline(items, pictures=True)
        captions = [one.caption for entry in (*sheets, boxed) for one in entry.drawings]
        made = [(make("Planks", items, "", DIST / "typefaces"), kind) for make, kind in ((odt, "odt"), (docx, "docx"))]
        for saved, (_, kind) in zip(saved_by_office(made, "docx"), made, strict=True):
            document = Document(io.BytesIO(saved))
            *tables, boxes = document.tables
            for table, entry in zip(tables, sheets, strict=True):
                cells = ["".join(tc.itertext(f"{WORD}t")) for tc in table._tbl.iter(f"{WORD}tc")]
                spots = entry.grid.spots
                self.assertEqual(Counter(filter(None, cells)), Counter([one.text for one in spots if one.text]), kind)
                struck = Counter(["".join(r.itertext(f"{WORD}t")) for r in table._tbl.iter(f"{WORD}r") if is_struck(r)])
                self.assertEqual(struck, Counter([one.text for one in spots if one.struck and one.text]), kind)
            titles = [cell.paragraphs[0].text for row in boxes.rows for cell in row.cells]
            self.assertEqual([one for one in titles if one], [part.title for part in boxed.parts], kind)
            self.assertEqual(len(document.inline_shapes), len(captions), kind)
            said = [one.text for one in document.paragraphs if one.text.startswith("Figure ")]
            self.assertEqual(said, [f"Figure {i}. {one}" for i, one in enumerate(captions, 1)], kind)

    def test_examples_and_answers_are_numbered_by_the_program(self):
        items = [as_item(work_text(problem)) for problem in ("12.05 - 8.36", "7 1/4 - 3 5/6 ft")]
        made = [(odt("Planks", items), "odt"), (docx("Planks", items), "docx")]
        for saved, (_, kind) in zip(saved_by_office(made, "txt"), made, strict=True):
            lines = saved.decode("utf-8-sig").splitlines()
            numbered = [" ".join(line.split()) for line in lines if re.match(r"\s*\d+\.\s", line)]
            kinds = ["1. A decimal calculation", "2. Adding and subtracting fractions and mixed numbers"]
            self.assertEqual(numbered, [*kinds, "1. 3.69", "2. 3 5/12 ft"], kind)


class SheetTests(unittest.TestCase):
    PROBLEMS = ("5/6", "1/2 + 1/3", "-2 1/2 + 1/3", "11/12 - 3/4", "3.50 + 2.65", "7 1/4 - 3 5/6 ft", "$4.75 + $12.60")

    def test_a_table_stays_text_in_a_spreadsheet_and_comes_back_from_it(self):
        rows = rows_for([work_text(problem) for problem in self.PROBLEMS])
        for made, kind in ((workbook(rows), "xlsx"), (("\ufeff" + written(rows)).encode(), "csv")):
            (saved,) = saved_by_office([(made, kind)], "xlsx" if kind == "csv" else "csv")
            if kind == "csv":
                cells = [row[1].value for row in load_workbook(io.BytesIO(saved)).active.iter_rows(min_row=2)]
                self.assertEqual([type(one) for one in cells], [str] * len(cells), "no date, no number")
                saved = table_in(saved).encode()
            lines = judged(saved.decode("utf-8-sig"), [], Ways())
            self.assertEqual([(one.text, one.verdict) for one in lines], [(one, "read") for one in self.PROBLEMS], kind)
