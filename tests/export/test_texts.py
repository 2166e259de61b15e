"""A set as a text for an editor: headings, styles, answers at the end, and what pupils fill in left out."""

import io
import unittest
import zipfile

from docx import Document
from hypothesis import given, settings
from hypothesis import strategies as st

from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import Blank, Dec, Frac, Mixed, OpenFrac, OpenMixed
from keen_slate.core.expressions.walks import leaves
from keen_slate.core.teaching.fading import Fading
from keen_slate.core.worked import work_text
from keen_slate.export.docx import docx
from keen_slate.export.markdown import markdown
from keen_slate.export.odt import odt
from keen_slate.export.outline import ROOM, outline, with_blanks
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
