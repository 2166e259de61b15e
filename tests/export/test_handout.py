"""Handouts: the real PDF, read again page by page."""

import re
import tempfile
import unittest
import xml.etree.ElementTree as ET
import zlib
from collections import Counter
from dataclasses import replace
from fractions import Fraction
from html import escape
from pathlib import Path

import pypdfium2
from hypothesis import given, settings
from hypothesis import strategies as st

from keen_slate.core.documents.view import working_view
from keen_slate.core.documents.working import wrong_text
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.typeset import glyphs
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.layouts.registry import LAYOUTS
from keen_slate.core.teaching.fading import BOX, Fading, glyphs_with_blanks, sheet_with_blanks
from keen_slate.core.teaching.sentences import TeachersWords
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text
from keen_slate.core.working.keys import step_keys
from keen_slate.export.fonts import on_disk, within
from keen_slate.export.handout import Options, handout
from keen_slate.export.item import Item
from keen_slate.export.marked_up import math
from keen_slate.export.pdf import pages, pdf
from keen_slate.export.squares import squares
from keen_slate.store.demo import SETS
from keen_slate.web.app import DIST
from tests import strategies

SVG = "{http://www.w3.org/2000/svg}"
SUMS = ["1/2 + 1/3", "2/3 + 1/6", "7 1/4 - 3 5/6 ft", "9 - 4 2/3", "3/4 + 2/5", "1/6 + 1/3", "5/8 - 3/8"]


def item(problem, **fading):
    return Item(work_text(problem), TeachersWords(), Fading(**fading), {})


def made(items, title="Planks", **options):
    return pdf(handout(title, [("", items)], Options(**options), on_disk(DIST / "assets")))


def texts(document):
    """The text of each page, its white space taken out: fractions are read top, then bottom."""
    with pypdfium2.PdfDocument(document) as opened:
        return [re.sub(r"\s", "", page.get_textpage().get_text_range()) for page in opened]


def uncompressed(document):
    """The PDF with all its compressed streams opened."""
    streams = re.findall(rb"stream\r?\n(.*?)\nendstream", document, re.DOTALL)
    return b"".join([document, *[zlib.decompress(stream) for stream in streams if stream[:1] == b"\x78"]])


def bare(written):
    return re.sub(r"[\s/]", "", written.replace("-", "−"))


class HandoutTests(unittest.TestCase):
    def test_no_more_examples_stand_on_a_page_than_wanted_and_all_stand_somewhere(self):
        for per_page in (1, 2, 3, 5, 8):
            found = texts(made([item(p) for p in SUMS], per_page=per_page, form="problems", key=False, space=20))
            counts = [page.count("mark") for page in found]
            self.assertLessEqual(max(counts), per_page)
            self.assertEqual(sum(counts), len(SUMS))
            for problem in SUMS:
                self.assertTrue(any(bare(problem.removesuffix(" ft")) in page for page in found), problem)

    def test_examples_stand_in_two_columns_where_an_even_number_from_four_on_is_wanted(self):
        for per_page, beside in ((1, 1), (2, 1), (3, 1), (4, 2), (5, 1), (6, 2), (7, 1), (8, 2)):
            html = handout("Planks", [("", [item(p) for p in SUMS])], Options(per_page=per_page, form="problems"), {})
            rows = [
                row.count("<article") for row in html.split('<section class="key">')[0].split('<div class="row">')[1:]
            ]
            self.assertEqual((max(rows), sum(rows)), (beside, len(SUMS)))

    def test_room_to_work_in_is_left_only_where_pupils_write(self):
        for faded, form, space, room in (
            (1, "faded", 20, 1),
            (0, "faded", 20, 0),
            (1, "full", 20, 0),
            (1, "problems", 0, 0),
        ):
            html = handout("P", [("", [item("1/2 + 1/3", hide=faded)])], Options(form=form, space=space, key=False), {})
            self.assertEqual(html.count('<div class="space"'), room, (faded, form, space))

    def test_pupils_get_no_answer_and_the_key_has_them_with_marks_and_wrong_answers(self):
        sheet, *rest = texts(made([item("7 1/4 - 3 5/6 ft")], form="problems"))
        key = "".join(rest)
        self.assertNotIn("3512", sheet)
        self.assertIn("Answer:3512ft", key)
        self.assertIn("47/12ftturnedthefractionsround", key)
        self.assertIn("Lostforawrongvalue", key)
        without = texts(made([item("7 1/4 - 3 5/6 ft")], form="full", key=False))
        self.assertIn("=3512", "".join(without))
        self.assertNotIn("turned", "".join(without))

    @given(st.sampled_from(sorted(ENTRIES)), st.integers(0, 9), st.booleans())
    @settings(max_examples=40)
    def test_the_key_prints_each_step_its_points_and_the_wrong_answers_that_show(self, code, own, wrong):
        worked = work_text(ENTRIES[code].example)
        own_points = {step_keys(worked.working)[0]: own} if worked.working.steps else {}
        one = Item(worked, TeachersWords(), Fading(), own_points)
        html = handout("Planks", [("", [one])], Options(form="problems", wrong_answers=wrong), {})
        sheet, key = re.split('<section class="key">', html)
        awarded = [int(n) for n in re.findall(r'<td class="points">(\d+)</td>', key)]
        self.assertEqual(awarded, [points.points for points in one.worth()])
        self.assertIn(f'<span class="points">{sum(awarded)} mark{"" if sum(awarded) == 1 else "s"}</span>', sheet)
        self.assertEqual(awarded[0], own if own_points else awarded[0])
        for step in worked.working.steps:
            self.assertIn(f'<td class="said">{math(one.voice.typeset(step.title))}</td>', key)
        listed = re.findall(r"<li><strong>(.*?)</strong> (.*?)</li>", key)
        label = worked.working.problem.label
        expected = [
            (escape(wrong_text(a, label, one.voice)), escape(one.voice.said(a.entry.name)))
            for a in worked.likely if a.status != "hidden"
        ]  # fmt: skip
        self.assertEqual(listed, expected if wrong else [])
        self.assertNotIn("They may write", sheet)
        self.assertNotIn('<section class="key">', handout("Planks", [("", [one])], Options(key=False), {}))

    def test_what_is_done_is_said_in_the_teachers_own_words_everywhere(self):
        own = TeachersWords(
            {"common-denominator 0 title": "All in <b>twelfths</b>"}, {"subtract title": "Cross <wholes> off"}
        )
        worked = work_text("7 1/4 - 3 5/6", Ways.of({"layout": "stacked", "say_whole": "one"}))
        html = handout("Planks", [("", [Item(worked, own, Fading(), {})])], Options(form="problems"), {})
        self.assertIn("All in &lt;b&gt;twelfths&lt;/b&gt;", html)
        self.assertIn("Cross &lt;wholes&gt; off", html)
        view = working_view(worked, own)
        self.assertEqual([s.title for s in view.steps][::2], ["All in <b>twelfths</b>", "Cross <wholes> off"])
        self.assertEqual([s.title_from for s in view.steps], ["example", "", "set"])
        self.assertEqual(view.steps[0].own_title, "Same size pieces first: twelfths.")
        self.assertEqual(view.sheet.moments[0].title, "All in <b>twelfths</b>")

    def test_chains_and_missing_numbers_are_led_by_what_stands_before_them(self):
        (sheet,) = texts(made([item("2/7 = _/21 = 12/_"), item("5/8 + _ = 1 1/4")], form="full", key=False))
        self.assertNotIn("==", sheet)
        self.assertNotIn("=27=", sheet)
        self.assertIn("_=114−58", sheet)

    def test_what_pupils_fill_in_is_left_out(self):
        faded = item(
            "7 1/4 - 3 5/6", hide=1, blanks=frozenset(["common-denominator 0 4", "common-denominator 0 line 0"])
        )
        (sheet,) = texts(made([faded], form="faded", key=False))
        self.assertIn("=7312−3" + BOX + "12", sheet)
        self.assertNotIn("multiplesof4", sheet)
        self.assertIn("multiplesof6", sheet)
        self.assertNotIn("3512", sheet)

    def test_every_layout_is_on_paper_and_what_pupils_write_is_not(self):
        problem, answer = "52 1/4 - 17 5/6", "34512"
        for layout in LAYOUTS:
            full = Item(work_text(problem, Ways.of({"layout": layout})), TeachersWords(), Fading(), {})
            (sheet,) = texts(made([full], form="faded", key=False, space=0))
            for number in (answer, "multiplesof6:6,12"):
                self.assertLessEqual(Counter(number), Counter(sheet), (layout, number))
            faded = replace(
                full, fading=Fading(hide=1, blanks=frozenset(["regroup 0 0", "common-denominator 0 line 1"]))
            )
            (covered,) = texts(made([faded], form="faded", key=False, space=0))
            self.assertNotIn("multiplesof6", covered, layout)
            self.assertLess(covered.count("34"), sheet.count("34"), layout)
            self.assertLess(covered.count("51"), sheet.count("51"), layout)

    def test_a_sheet_on_paper_is_the_sheet_of_the_screen(self):
        for problem in ("7 1/4 - 3 5/6", "30.4 - 7.85", "1.25 × 0.48"):
            sheet = LAYOUTS["stacked"](work_text(problem).working).sheet
            drawn = squares(sheet)
            placed = [(x, text) for x, text in re.findall(r'<text x="(\d+)"[^>]*>(.)', drawn)]
            self.assertEqual(placed, [(str(10 * c.x + 10), c.text[0]) for c in sheet.cells])
            self.assertEqual(drawn.count('stroke-width="2"'), sum(c.struck for c in sheet.cells))
            self.assertEqual(drawn.count('stroke-width="1.8"'), len(sheet.rules))
            keys = step_keys(work_text(problem).working)
            hidden = squares(sheet_with_blanks(sheet, keys, Fading(hide=len(keys))))
            self.assertEqual(
                hidden.count("<text"), sum(not c.at or sheet.moments[c.at - 1].step < 0 for c in sheet.cells)
            )
            one = squares(sheet_with_blanks(sheet, keys, Fading(blanks=frozenset([sheet.cells[0].key]))))
            self.assertEqual(drawn.count("<text") - one.count("<text"), one.count("dasharray"))

    def test_what_is_drawn_stands_in_its_squares(self):
        worked = work_text("52 1/4 - 17 5/6")
        keys = step_keys(worked.working)
        faded = Fading(hide=1, blanks=frozenset(["common-denominator 0 4", "regroup 0 0"]))
        sheet = sheet_with_blanks(LAYOUTS["stacked"](worked.working).sheet, keys, faded)
        drawn = ET.fromstring(squares(sheet))
        seen = [c for c in sheet.cells if not (c.at and sheet.moments[c.at - 1].hidden)]
        half = 10  # units
        left, top, width, height = map(int, drawn.get("viewBox").split())
        self.assertEqual((left, top, width % (2 * half), height % (2 * half)), (0, 0, 0, 0))
        self.assertGreaterEqual(width, half * (sheet.width + 2))
        self.assertAlmostEqual(float(drawn.get("width")[:-2]) / width, float(drawn.get("height")[:-2]) / height)
        places = {(c.x, c.y): c for c in seen}
        texts = list(drawn.iter(f"{SVG}text"))
        self.assertEqual(len(texts), sum(not c.blank for c in seen))
        for text_of, cell in zip(texts, [c for c in seen if not c.blank], strict=True):
            size, high = float(text_of.get("font-size")), 4 if cell.size == "tall" else 2
            self.assertEqual(float(text_of.get("x")), half * (cell.x + 1))
            middle = float(text_of.get("y")) - 0.36 * size  # of a digit, which is as high as that twice
            self.assertAlmostEqual(middle, half * (cell.y + high / 2), delta=2)
            self.assertTrue(0.7 * half * high < size < 1.2 * half * high or cell.size == "small", (cell.size, size))
        frames = [[float(one.get(name)) for name in ("x", "y", "width", "height")] for one in drawn.iter(f"{SVG}rect")]
        blank = [[half * c.x + 1, half * c.y + 1, 18, 18] for c in seen if c.blank and c.size != "tall"]
        (fill,) = sheet.fills
        self.assertEqual(
            sorted(frames),
            sorted([*blank, [half * fill.x + 1, half * fill.y + 1, half * fill.w - 2, half * fill.h - 2]]),
        )
        hidden = [c for c in sheet.cells if c.at and sheet.moments[c.at - 1].hidden and c.role != "carried"]
        self.assertEqual((fill.x, fill.x + fill.w), (min(c.x for c in hidden), max(c.x for c in hidden) + 2))
        self.assertEqual(
            (fill.y, fill.y + fill.h),
            (min(c.y for c in hidden), max(c.y + (4 if c.size == "tall" else 2) for c in hidden)),
        )
        paths = [one.get("d") for one in drawn.iter(f"{SVG}path") if one.get("stroke-width") == "1.8"]
        rules = [r for r in sheet.rules if not (r.at and sheet.moments[r.at - 1].hidden)]
        self.assertEqual(paths, [f"M{half * r.x + 1} {half * r.y}h{half * r.w - 2}" for r in rules])
        for one in (one for one in drawn.iter(f"{SVG}path") if one.get("stroke-width") == "2"):
            x, y, right, up = map(float, re.findall(r"[\d.]+", one.get("d")))
            struck = next(
                c
                for (cx, cy), c in places.items()
                if half * cx + 1 == x and c.struck and half * cy <= up < y <= half * (cy + 4)
            )
            self.assertEqual(right, half * (struck.x + 2) - 1)

    def test_boxes_stand_in_pairs_and_questions_are_numbered(self):
        def html_of(layout, **fading):
            one = Item(work_text("7 1/4 - 3 5/6", Ways.of({"layout": layout})), TeachersWords(), Fading(**fading), {})
            return handout("P", [("", [one])], Options(form="faded", key=False, space=0), {})

        four = html_of("four-box")
        pairs = four.split('<div class="pair">')[1:]
        self.assertEqual([pair.count('<div class="box">') for pair in pairs], [2, 2])
        self.assertNotIn("1. Problem", four)
        asked = html_of("checklist")
        numbers = re.findall(r"<h3>(\d+)\. ", asked)
        self.assertEqual(numbers, [str(i + 1) for i in range(len(numbers))])
        self.assertIn("<span>no: make them the same</span>", asked)
        self.assertEqual(asked.count("r-answer"), html_of("line").count("r-answer"))
        covered = html_of("checklist", hide=1)
        self.assertNotIn("<span>take away</span>", covered)  # it would tell what is to be filled in
        self.assertIn("<span>take away</span>", asked)
        lines = html_of("line")
        self.assertLess(lines.rindex("r-answer"), lines.index("</body>"))
        self.assertEqual([lines.count(f'class="fr r-{role}"') > 0 for role in ("answer", "carried")], [True, True])

    def test_text_from_people_is_text_and_fonts_tags_and_alternative_texts_are_within(self):
        title = "O'Hara's <b>planks</b> <img src='file:///etc/passwd'> &amp;"
        document = made([item("1/3 + 2/5")], title=title, form="full", pictures=True, key=False)
        self.assertIn(re.sub(r"\s", "", title), texts(document)[0])
        inside = uncompressed(document)
        for part in (b"+Andika", b"/FontFile", b"/StructTreeRoot", b"/Alt (", b"pdfuaid"):
            self.assertTrue(part in inside, part)
        self.assertNotIn(b"root:", inside)

    def test_the_file_of_its_own_needs_nothing_from_elsewhere(self):
        items = [item("1/3 + 2/5"), item("7 1/4 - 3 5/6 ft")]
        html = handout("A <b>", [("", items)], Options(form="full", pictures=True), within(DIST / "assets"))
        self.assertIn("A &lt;b&gt;", html)
        self.assertEqual(
            set(re.findall(r"""(?:src|href)=["'](\w+:)|url\("?(\w+:)""", html)), {("data:", ""), ("", "data:")}
        )
        self.assertNotIn("<script", html)
        self.assertEqual(html.count("@font-face"), 2)

    def test_demo_sets_print_on_both_papers_and_is_dark_enough_in_grey(self):
        papers = {"a4": (595, 842), "letter": (612, 792)}
        for (title, problems), (paper, size) in zip(SETS[2:4], papers.items(), strict=True):
            document = made([item(p, hide=i) for i, p in enumerate(problems)], title=title, paper=paper, pictures=True)
            with pypdfium2.PdfDocument(document) as opened:
                for page in opened:
                    self.assertEqual(tuple(round(side) for side in page.get_size()), size)
                    darkest, _ = page.render(scale=1).to_pil().convert("L").getextrema()
                    self.assertLess(darkest, 60)
            with tempfile.TemporaryDirectory() as directory:
                first = Path(directory) / "page.png"
                first.write_bytes(pages(document)[0])
                self.assertEqual(first.read_bytes()[:4], b"\x89PNG")

    @given(strategies.classroom_pairs)
    @settings(max_examples=60)
    def test_a_blank_is_the_same_number_on_paper_as_in_the_squares(self, expr):
        worked = work_text(text(expr))
        view = working_view(worked)
        cells = view.rows[0].cells
        numbers = max(cell.unit for cell in cells) + 1
        for unit in range(numbers):
            fading = Fading(blanks=frozenset([f"problem {unit}"]))
            blank = working_view(worked, fading=fading).rows[0].cells
            gone = "".join(c.text for c in blank if c.blank)
            pieces = glyphs(worked.working.problem.expr)
            left = glyphs_with_blanks(pieces, "problem", fading)
            changed = [
                getattr(old, part) for old, new in zip(pieces, left, strict=True) for part in ("text", "top", "bottom")
                if getattr(old, part) != getattr(new, part)
            ]  # fmt: skip
            self.assertEqual(changed, [gone])
        self.assertEqual(worked.working.value, Fraction(view.answer.value))
