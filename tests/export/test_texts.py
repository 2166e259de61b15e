"""A set as a text for an editor: headings, styles, answers at the end, and what pupils fill in left out."""

import io
import unittest
import xml.etree.ElementTree as ET
import zipfile
from collections import Counter
from itertools import product

from docx import Document
from hypothesis import given, settings
from hypothesis import strategies as st

from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import Blank, Dec, Frac, Mixed, OpenFrac, OpenMixed
from keen_slate.core.expressions.walks import leaves
from keen_slate.core.layouts.laying import lay
from keen_slate.core.teaching.fading import Fading, sheet_with_blanks
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text
from keen_slate.core.working.keys import step_keys
from keen_slate.export.docx import docx
from keen_slate.export.gaps import with_blanks
from keen_slate.export.grid import grid
from keen_slate.export.markdown import markdown
from keen_slate.export.odt import odt
from keen_slate.export.opendocument import name
from keen_slate.export.outline import ROOM, outline
from keen_slate.web.app import DIST
from tests import strategies
from tests.support_core import as_item


def in_parts(number, like):
    """The numbers that a number of a line is written with, None for a gap; *like* says how many there are."""
    match number:
        case Frac(num, den) | OpenFrac(num, den):
            return [num, den]
        case Mixed(whole, num, den):
            return [whole, num, den]
        case OpenMixed(whole, den):
            return [whole, None, den]
        case Blank() if not isinstance(like, Blank):
            return [None] * len(in_parts(like, like))
        case Dec(_, _, period):
            return [number, period] if period else [number]
    return [number]


class EditorTests(unittest.TestCase):
    FADED = Fading(hide=1, blanks=frozenset({"common-denominator 0 1", "regroup 0 row"}))

    def test_what_pupils_fill_in_is_left_out_of_every_text_and_the_answers_come_last(self):
        item = as_item(work_text("7 1/4 - 3 5/6 ft"), self.FADED)
        (entry,) = outline([item])
        gaps = [line.expr and text(line.expr) for line in entry.lines]
        self.assertEqual(gaps, ["7 _/12 - 3 10/12", None, None])  # the numerator is a gap, two lines are pupils' own
        document = Document(io.BytesIO(docx("Planks", [item], "A teacher")))
        said = [(one.style.name, one.text) for one in document.paragraphs]
        self.assertEqual(
            [one for one, _ in said], ["Title", "Example", *["Line of a working"] * 4, "Heading 1", "Answer"]
        )
        self.assertEqual((said[-1][1], document.core_properties.author), ("3 5/12 ft", "A teacher"))
        self.assertEqual([ROOM in one for _, one in said[3:6]], [False, True, True])
        written = zipfile.ZipFile(io.BytesIO(odt("Planks", [item]))).read("content.xml").decode()
        self.assertEqual(written.count(ROOM), 2)
        self.assertLess(written.rindex(ROOM), written.index("3 5/12 ft"))
        pasted = markdown("Planks", [item])
        self.assertEqual((pasted.count(r"\underline"), pasted.count("3 5/12 ft")), (2, 1))
        self.assertTrue(pasted.endswith("## Answers\n\n1. 3 5/12 ft\n"))

    @settings(max_examples=150)
    @given(strategies.expressions, st.data())
    def test_a_gap_takes_away_what_is_a_blank_and_nothing_else(self, expr, data):
        every = [one for number in leaves(expr) for one in in_parts(number, number)]
        at = data.draw(st.sets(st.integers(0, len(every) - 1), max_size=2))
        left = with_blanks(expr, "add 0", Fading(blanks=frozenset({f"add 0 {i}" for i in at})))
        if left is None:  # all of the line is left to pupils
            self.assertTrue(at)
            return
        found = [one for a, b in zip(leaves(left), leaves(expr), strict=True) for one in in_parts(a, b)]
        self.assertEqual(found, [None if i in at else one for i, one in enumerate(every)])


PRICES = "Rope: 7 1/4 m\nWire: 3 5/6 m\nHow much longer is the rope than the wire?"
STACKED = Ways.of({"layout": "stacked"})
in_columns = st.builds(
    lambda a, sign, b, p, q: f"{max(a, b) / 10**p:.{p}f} {sign} {min(a, b) / 10**q:.{q}f}",
    st.integers(11, 9999), st.sampled_from("+-×"), st.integers(11, 999), st.integers(1, 3), st.integers(1, 3),
)  # fmt: skip


class TableTests(unittest.TestCase):
    @settings(max_examples=150)
    @given(st.one_of(in_columns, strategies.classroom_pairs.map(text)), st.integers(0, 2), st.data())
    def test_all_that_stands_in_the_squares_stands_in_the_table_under_what_it_stood_under(self, problem, hide, data):
        working = work_text(problem, STACKED, mark=".").working
        sheet = lay(working)[1].sheet
        if sheet is None:
            return
        named = sorted({one.key for one in sheet.cells if one.key})
        blanks = data.draw(st.sets(st.sampled_from(named), max_size=2)) if named else set()
        sheet = sheet_with_blanks(sheet, step_keys(working), Fading(hide=hide, blanks=frozenset(blanks)))
        made = grid(sheet, "")
        seen = [one for one in sheet.cells if not (one.at and sheet.moments[one.at - 1].hidden)]
        written = [one.text for one in seen if not one.blank]
        self.assertEqual(Counter(written), Counter([one.text for one in made.spots if one.text]))
        self.assertEqual(sum(one.blank for one in made.spots), sum(one.blank for one in seen) + len(sheet.fills))
        struck = [
            one.text for one in seen if not one.blank and one.struck_at and not sheet.moments[one.struck_at - 1].hidden
        ]
        self.assertEqual(Counter([one.text for one in made.spots if one.struck and one.text]), Counter(struck))
        places = Counter(
            place
            for one in made.spots
            for place in product(range(one.column, one.column + one.across), range(one.row, one.row + one.down))
        )
        every = product(range(len(made.widths)), range(len(made.heights)))
        self.assertEqual(places, Counter(every), "each place of the table is in one cell")
        for row in made.rows():
            self.assertEqual(sum(one.across for one, _ in row), len(made.widths))
        across = [sum(made.widths[:i]) for i in range(len(made.widths) + 1)]
        down = [sum(made.heights[:i]) for i in range(len(made.heights) + 1)]
        for one in seen:  # as on paper, but for the room that a point takes
            if not one.blank:
                middles = [
                    (across[spot.column] + across[spot.column + spot.across]) / 2
                    for spot in made.spots
                    if spot.text == one.text and down[spot.row] == one.y
                ]
                self.assertTrue(any(abs(middle - one.x - one.w / 2) <= 0.3 for middle in middles), one)

        points = [spot for spot in made.spots if spot.text in (".", ",")]
        wide = [across[spot.column + spot.across] - across[spot.column] for spot in points]
        self.assertTrue(all(abs(one - 0.6) < 1e-6 for one in wide), "a point has a narrow column of its own")
        ruled = {
            (x, edge)
            for spot in made.spots
            for x in range(spot.column, spot.column + spot.across)
            for edge, drawn in ((spot.row, spot.over), (spot.row + spot.down, spot.under))
            if drawn
        }
        rules = [one for one in sheet.rules if not (one.at and sheet.moments[one.at - 1].hidden)]
        wanted = {
            (x, down.index(rule.y))
            for rule in rules
            for x in range(across.index(rule.x), across.index(rule.x + rule.w))
        }
        self.assertEqual(ruled, wanted)

    def test_squares_boxes_and_what_a_story_tells_are_tables_and_pictures_have_captions(self):
        boxed = Ways.of({"layout": "four-box"})
        items = [
            as_item(work_text("12.05 - 8.36", STACKED, mark=".")),
            as_item(work_text("7 1/4 - 3 5/6", boxed)),
            as_item(work_text(PRICES)),
        ]
        document = Document(io.BytesIO(docx("Planks", items, "", DIST / "typefaces")))
        squares, boxes, told = document.tables
        rows = [[cell.text for cell in row.cells if cell.text] for row in squares.rows]
        self.assertEqual(rows[-3:], [["1", "2", ".", "0", "5"], ["−", "8", ".", "3", "6"], ["3", ".", "6", "9"]])
        self.assertEqual(squares._tbl.tblPr.find(".//{*}tblDescription").values()[0].split(":")[0], "In columns")
        self.assertEqual(boxes.cell(1, 1).text.split("\n")[0], "Solve and simplify")
        self.assertEqual(
            [[cell.text for cell in row.cells] for row in told.rows], [["Rope", "7 1/4 m"], ["Wire", "3 5/6 m"]]
        )
        self.assertFalse([one.text for one in document.paragraphs if "Rope:" in one.text], "told once, in the table")
        boxed_entry, faded = outline([items[1], as_item(work_text("7 1/4 - 3 5/6", STACKED), Fading(hide=2))])
        self.assertEqual([one.expr for one in boxed_entry.parts[-1].lines], [one.expr for one in boxed_entry.lines])
        self.assertFalse([one for one in faded.jottings if "15" in one], "what is jotted in steps that pupils write")
        content = ET.fromstring(zipfile.ZipFile(io.BytesIO(odt("Planks", items))).read("content.xml"))
        table = content.find(f".//{name('table:table')}")
        for row in table.iter(name("table:table-row")):
            self.assertEqual(len(row), len(table.findall(name("table:table-column"))), "each place, covered or not")
        captions = [one.text for one in document.paragraphs if one.style.name == "Caption"]
        self.assertEqual(len(document.inline_shapes), len(captions))
        alts = [one._inline.docPr.get("descr") for one in document.inline_shapes]
        self.assertTrue(all(alts))
        self.assertIn("A bar for seven and one fourth", " ".join(alts))
        self.assertFalse(Document(io.BytesIO(docx("Planks", items))).inline_shapes, "none where none are wanted")
