"""Handouts: the real PDF, read again by another program; and what stands on its pages, kind by kind."""

import io
import json
import re
import unittest
import xml.etree.ElementTree as ET
import zipfile
from collections import Counter
from dataclasses import replace
from fractions import Fraction

from hypothesis import example, given, settings
from hypothesis import strategies as st

from keen_slate.core.documents.view import working_view
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import value
from keen_slate.core.expressions.typeset import glyphs
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.layouts.registry import LAYOUTS
from keen_slate.core.teaching.fading import Fading, glyphs_with_blanks, sheet_with_blanks
from keen_slate.core.teaching.sentences import TeachersWords
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text
from keen_slate.core.working.keys import step_keys
from keen_slate.export import handout, typesetting
from keen_slate.export.blocks import written
from keen_slate.export.fonts import within
from keen_slate.export.item import Item
from keen_slate.export.markdown import markdown
from keen_slate.export.page import page
from keen_slate.export.paper.kinds.mistake import wrong_way
from keen_slate.export.paper.options import PAGE_KINDS, Options
from keen_slate.export.paper.parts import Numbered
from keen_slate.export.qti import qti
from keen_slate.export.squares import squares
from keen_slate.store.demo import SETS
from keen_slate.web.app import DIST
from tests import strategies
from tests.pdf_reader import alternatives, greys, info, places, texts

SVG = "{http://www.w3.org/2000/svg}"
SUMS = ["1/2 + 1/3", "2/3 + 1/6", "7 1/4 - 3 5/6 ft", "9 - 4 2/3", "3/4 + 2/5", "1/6 + 1/3", "5/8 - 3/8"]
TYPEFACES = DIST / typesetting.FOLDER
SIZES = {"a4": (595.276, 841.89), "letter": (612, 792)}  # points


def item(problem, ways=None, **fading):
    return Item(work_text(problem, Ways.of(ways or {})), TeachersWords(), Fading(**fading), {})


def numbered(items):
    return [Numbered(i, one, one) for i, one in enumerate(items, 1)]


def parts(items, title="Planks", **options):
    return handout.parts_of(title, [("", numbered(items))], Options(**options))


def made(items, title="Planks", **options):
    return handout.pdf(title, [("", numbered(items))], Options(**options), TYPEFACES)


def plain(block):
    """What a written block says, its fractions as top/bottom."""
    return "".join(
        f"{piece.top}/{piece.bottom}" if piece.kind == "fraction" else piece.text
        for run in block.runs for piece in run.pieces
    )  # fmt: skip


def bare(written):
    return re.sub(r"[\s/]", "", written.replace("-", "−"))


class PageTests(unittest.TestCase):
    """The pages of each kind."""

    def test_each_kind_prints_on_both_papers_within_its_edges_with_its_words_for_who_hears_them(self):
        looks = st.fixed_dictionaries({
            "kind": st.sampled_from(PAGE_KINDS), "paper": st.sampled_from(sorted(SIZES)),
            "per_page": st.integers(0, 8), "fill": st.booleans(), "space": st.sampled_from([0, 30, 150]),
            "form": st.sampled_from(["full", "faded", "problems"]), "pictures": st.booleans(),
            "key": st.sampled_from(["none", "pages", "long", "margin"]), "choices": st.booleans(),
            "shading": st.sampled_from(["bars", "circles", "grid", "number-line"]),
            "large": st.booleans(), "wide": st.booleans(), "grey": st.booleans(), "minutes": st.integers(0, 60),
            "class_name": st.sampled_from(["", "6 Heron"]),
        })  # fmt: skip
        problems = st.lists(
            st.sampled_from([problem for _, found in SETS for problem in found] + SUMS), min_size=1, max_size=7
        )

        @settings(max_examples=40, deadline=None)
        @given(looks, problems, st.integers(0, 2), st.sampled_from(sorted(LAYOUTS)))
        @example(
            dict.fromkeys(("fill", "pictures", "choices", "grey"), False)
            | dict.fromkeys(("per_page", "space", "minutes"), 0)
            | {
                "kind": "yours",
                "paper": "a4",
                "form": "full",
                "key": "none",
                "shading": "bars",
                "large": True,
                "wide": True,
                "class_name": "",
            },
            ["2/3 + 1/6 ft"],
            0,
            "four-box",
        )
        def prints(look, problems, hide, layout):
            items = [item(problem, {"layout": layout}, hide=hide) for problem in problems]
            # Typst refuses what does not meet PDF/UA-1: pictures and formulas without words, gaps between headings.
            document = made(items, **look)
            width, height = SIZES[look["paper"]]
            pages = places(document)
            for words in pages:
                self.assertGreater(len(words), 3, "a page with nothing but its number")
                for _, _, right, bottom in words:
                    self.assertLess(right, width - 28)
                    self.assertLess(bottom, height - 15)
            shown = [one.head.number for part in parts(items, **look) for one in getattr(part, "examples", ())]
            for number in shown:
                expr = items[number - 1].working.start
                if not items[number - 1].working.parts and len(text(expr)) < 20:
                    self.assertIn(items[number - 1].voice.words(expr), alternatives(document))

        prints()

    def test_no_more_examples_stand_on_a_page_than_wanted_and_all_stand_somewhere(self):
        for per_page in (0, 1, 2, 3, 5, 8):
            found = texts(made([item(p) for p in SUMS], per_page=per_page, form="problems", key="none"))
            counts = [page.count("mark") for page in found]
            self.assertLessEqual(max(counts), per_page or len(SUMS))
            self.assertEqual(sum(counts), len(SUMS))
            self.assertLessEqual(max(counts) - min(counts), 2, "pages are filled alike")
            for problem in SUMS:
                self.assertTrue(any(bare(problem.removesuffix(" ft")) in page for page in found), problem)

    def test_squares_fill_what_a_page_has_left_and_full_workings_leave_no_page_half_empty(self):
        for kind in ("sheet", "mistake", "shade", "estimate"):
            for per_page in (0, 1, 4):
                for one in greys(
                    made([item(p) for p in SUMS], kind=kind, form="problems", key="none", per_page=per_page)
                ):
                    lowest = max(y for y in range(one.height * 94 // 100) if min(one.row(y)) < 250)
                    self.assertGreater(lowest / one.height, 0.9, (kind, per_page))
        document = made([item(p) for p in SUMS * 3], form="full", key="none")
        for one in greys(document)[:-1]:
            lowest = max(y for y in range(one.height * 94 // 100) if min(one.row(y)) < 200)
            self.assertGreater(lowest / one.height, 0.6)

    def test_room_to_work_in_is_left_only_where_pupils_write(self):
        for faded, form, room in ((1, "faded", True), (0, "faded", False), (1, "full", False), (1, "problems", True)):
            (grid,) = parts([item("1/2 + 1/3", hide=faded)], form=form, key="none")
            self.assertEqual([one.room for one in grid.examples], [room], (faded, form))

    def test_large_print_has_no_small_letter_and_ordinary_print_no_small_fraction(self):
        def heights(document):
            return [bottom - top for page in places(document) for _, top, _, bottom in page]

        # Andika's line is 1.61 em high (its ascent and descent, in its `hhea` table).
        for large, least in ((True, 18), (False, 11)):
            document = made([item("7 1/4 - 3 5/6", hide=1)], key="none", large=large, name_line=False, form="faded")
            small = [one for one in heights(document) if one / 1.612 < least - 0.1]
            self.assertLessEqual(len(small), 3 if large else 5, small)  # the page's number, and the marks

    def test_greys_are_grey_and_clearly_ink_or_paper(self):
        data = handout.data_of(
            "P", parts([item(p) for p in SUMS], pictures=True, form="full", grey=True), Options(grey=True)
        )
        colours = set(re.findall(r"#([0-9a-fA-F]{6})", json.dumps(data)))
        self.assertGreater(len(colours), 2)
        for colour in colours:
            self.assertEqual(len({colour[i : i + 2] for i in (0, 2, 4)}), 1, colour)
            self.assertTrue(int(colour[:2], 16) <= 60 or int(colour[:2], 16) >= 232, colour)
        for one in greys(made([item("1/2 + 1/3")], grey=True, form="full", pictures=True)):
            self.assertLess(min(one.points), 70)

    def test_text_from_people_is_text_and_what_no_typeface_has_is_a_square(self):
        title = "O'Hara's <b>planks</b> #read(\"/etc/passwd\") *so* $1$ @x 漢"
        document = made([item("1/3 + 2/5")], title=title, form="full", pictures=True, key="none", class_name="#panic()")
        (first, *_) = texts(document)
        self.assertIn(re.sub(r"\s", "", title).replace("漢", "□"), first)
        self.assertIn("#panic()", first)
        facts = info(document)
        self.assertEqual((facts["Tagged"], facts["Title"]), ("yes", title.replace("漢", "□")))
        self.assertRegex(facts["fonts"], r"\+Andika-Regular yes")
        self.assertNotIn(b"root:", document)

    def test_slips_and_cards_fill_a_page_and_cut_outs_come_for_each_denominator(self):
        items = [item(p) for p in SUMS]
        (slip,) = texts(made(items, kind="slip", key="none", class_name="6 Heron"))
        self.assertEqual(slip.count("6Heron"), 3)
        self.assertEqual(slip.count("mark"), 3 * 4)
        (card,) = texts(made(items, kind="tick"))
        self.assertGreaterEqual(card.count("Ourchecklist"), 6)
        (cut,) = parts(items, kind="cut")
        dens = {2, 3, 4, 5, 6, 8, 12, 20}
        self.assertEqual((len(cut.strips), len(cut.circles)), (len(dens) + 1, len(dens) + 1))
        self.assertEqual({one.units for one in cut.strips}, {500})

    def test_no_strip_to_cut_out_lies_alone_on_a_page(self):
        for strips, wanted in ((9, [9]), (10, [10]), (11, [6, 5]), (14, [7, 7])):
            items = [item(f"1/{d} + 1/{d}") for d in range(2, strips + 1)]
            found = []
            for words in places(made(items, kind="cut")):
                rows = {round(top) for word, top, *_ in words[:-3] if word == "1"}  # without the number of the page
                if any(word == "whole" for word, *_ in words) and found:
                    break  # the circles
                found.append(len(rows))
            self.assertEqual(found, wanted)


class ContentTests(unittest.TestCase):
    """What pupils get, and what is kept for the teacher."""

    def test_pupils_get_no_answer_and_the_key_has_them_with_marks_and_wrong_answers(self):
        for key in ("pages", "long", "margin"):
            sheet, *rest = texts(made([item("7 1/4 - 3 5/6 ft")], form="problems", key=key))
            self.assertNotIn("3512", sheet)
            self.assertIn("Answer:3512ft", "".join(rest))
            self.assertIn("4712ft:turnedthefractionsround", "".join(rest))
            self.assertEqual("Whichfractionistakenaway?" in "".join(rest), key != "pages")
        without = texts(made([item("7 1/4 - 3 5/6 ft")], form="full", key="none"))
        self.assertIn("=3512", "".join(without))
        self.assertNotIn("turned", "".join(without))

    @given(st.sampled_from(sorted(ENTRIES)), st.integers(0, 9), st.booleans())
    @settings(max_examples=40)
    def test_the_key_has_each_step_its_points_and_the_wrong_answers_that_show(self, code, own, wrong):
        worked = work_text(ENTRIES[code].example)
        own_points = {step_keys(worked.working)[0]: own} if worked.working.steps else {}
        one = Item(worked, TeachersWords(), Fading(), own_points)
        grid, key = parts([one], form="problems", wrong_answers=wrong, key="long")
        (entry,) = key.entries
        awarded = [row.points for row in entry.rows]
        self.assertEqual(awarded, [points.points for points in one.worth()])
        self.assertEqual(grid.examples[0].head.marks, f"{sum(awarded)} mark{'' if sum(awarded) == 1 else 's'}")
        self.assertEqual(awarded[0], own if own_points else awarded[0])
        for row, step in zip(entry.rows, worked.working.steps, strict=False):
            said = written("said", one.voice.typeset(step.title), one.voice)
            self.assertEqual(plain(row.said), plain(said))
        shown = [likely for likely in worked.likely if likely.status != "hidden"]
        listed = [line for title, lines in entry.notes for line in lines if title == "They may write"]
        if len(shown) > 5:  # those that are met seldom are left out first
            usual = [likely for likely in shown if likely.entry.often > 1]
            seldom = [likely for likely in shown if likely.entry.often == 1][: max(0, 5 - len(usual))]
            shown = [likely for likely in shown if likely in usual or likely in seldom]
        self.assertEqual(len(listed), len(shown) if wrong else 0)
        for line, likely in zip(listed, shown, strict=False):
            self.assertIn(one.voice.said(likely.entry.name), plain(line))
            self.assertTrue(plain(line).endswith(one.voice.said(likely.entry.question)))

    def test_what_is_done_is_said_in_the_teachers_own_words_everywhere(self):
        own = TeachersWords(
            {"common-denominator 0 title": "All in <b>twelfths</b>"}, {"subtract title": "Cross <wholes> off"}
        )
        worked = work_text("7 1/4 - 3 5/6", Ways.of({"layout": "stacked", "say_whole": "one"}))
        key = texts(made_of := made([Item(worked, own, Fading(), {})], form="problems", key="long"))[-1]
        self.assertIn("Allin<b>twelfths</b>", key)
        self.assertIn("Cross<wholes>off", key)
        self.assertTrue(made_of)
        view = working_view(worked, own)
        self.assertEqual([s.title for s in view.steps][::2], ["All in <b>twelfths</b>", "Cross <wholes> off"])
        self.assertEqual([s.title_from for s in view.steps], ["example", "", "set"])
        self.assertEqual(view.steps[0].own_title, "Same size pieces first: twelfths.")
        self.assertEqual(view.sheet.moments[0].title, "All in <b>twelfths</b>")

    def test_somebody_goes_the_wanted_wrong_way_or_one_that_the_estimate_catches(self):
        one = item("7 1/4 - 3 5/6")
        self.assertEqual(wrong_way(one, "regroup-ten").likely.entry.code, "regroup-ten")
        for code in ("", "add-across"):  # not wanted, or not possible here
            self.assertTrue(wrong_way(one, code).likely.caught_by_estimate)
        sheet, key = parts([one, item("12/16")], kind="mistake", mistake="regroup-ten")
        (example,) = sheet.examples
        lines = [plain(block) for block in example.blocks if block.block == "written"]
        self.assertEqual(lines[1:4], ["=73/12−310/12", "=613/12−310/12", "=33/12"])
        self.assertFalse(
            any(
                piece.role for block in example.blocks[:4] for run in getattr(block, "runs", ()) for piece in run.pieces
            )
        )
        self.assertIn("Line 2 does not follow", plain(key.entries[0].notes[0][1][0]))

    def test_the_mistake_that_is_chosen_can_be_found(self):
        several = 0
        for problem in [problem for _, some in SETS for problem in some]:
            made = wrong_way(item(problem), "")
            if made is not None:
                several += len(made.working.lines) > 1
                self.assertNotEqual(value(made.working.lines[made.working.wrong]), work_text(problem).working.value)
        self.assertGreater(several, 10)

    def test_what_is_asked_of_a_number_alone_is_written_beside_it(self):
        for problem, target, asked in (
            ("5/6", "decimal", "Write as a decimal"), ("3 5/7", "improper", "Write as one fraction"),
            ("18/24", None, "Write in lowest terms"), ("17/5", None, "Write as a mixed number in lowest terms"),
        ):  # fmt: skip
            one = Item(work_text(problem, target=target), TeachersWords(), Fading(), {})
            (sheet, *_) = parts([one], form="problems")
            self.assertEqual(sheet.examples[0].head.label, asked)
            self.assertIn(asked, markdown("Planks", [one]))
            for version in ("3.0", "2.1"):
                with zipfile.ZipFile(io.BytesIO(qti("Planks", [one.worked], [1], version=version))) as package:
                    self.assertIn(f"{asked}: ", package.read("items/item-1.xml").decode())

    def test_the_usual_key_of_thirty_is_a_few_pages(self):
        items = [item(problem) for problem in (SUMS * 5)[:30]]
        count = len(texts(made(items, form="problems"))) - len(texts(made(items, form="problems", key="none")))
        self.assertLessEqual(count, 8)

    def test_what_would_not_show_is_not_among_what_they_may_write(self):
        one = item("9 - 4 2/3")  # cutting up one whole as one piece has the right value here
        self.assertIn("hidden", [way.status for way in one.worked.likely])
        _, key = parts([one])
        ((title, lines),) = key.entries[0].notes
        self.assertEqual(
            (title, len(lines)), ("They may write", sum(way.status != "hidden" for way in one.worked.likely))
        )

    def test_examples_stand_in_two_columns_where_an_even_number_from_four_on_is_wanted(self):
        for per_page, large, columns in (
            (0, False, 2),
            (0, True, 1),
            (1, False, 1),
            (2, False, 1),
            (4, False, 2),
            (5, False, 1),
            (8, True, 2),
        ):
            (grid,) = parts([item(p) for p in SUMS], per_page=per_page, large=large, key="none")
            self.assertEqual(grid.columns, columns, per_page)

    def test_an_example_stands_beside_one_like_it_whose_steps_are_blank(self):
        like = Numbered(1, item("7 1/4 - 3 5/6"), item("9 1/6 - 2 3/4"))
        pairs, key = handout.parts_of("P", [("", [like])], Options(kind="yours"))
        (pair,) = pairs.pairs
        self.assertEqual(plain(pair.yours.head.problem), "91/6−23/4")
        self.assertEqual([one.block for one in pair.yours.blocks], ["room"] * len(like.like.working.steps))
        self.assertIn("=3 5/12".replace(" ", ""), [plain(one).replace(" ", "") for one in pair.given.blocks])
        self.assertEqual(plain(key.entries[0].problem), "91/6−23/4")

    def test_what_pupils_fill_in_is_left_out_and_said_to_be_blank(self):
        faded = item(
            "7 1/4 - 3 5/6", hide=1, blanks=frozenset(["common-denominator 0 4", "common-denominator 0 line 0"])
        )
        document = made([faded], form="faded", key="none")
        (sheet,) = texts(document)
        self.assertIn("=7312−312", sheet)
        self.assertIn("equals seven and three twelfths minus three and blank over twelve", alternatives(document))
        self.assertNotIn("multiplesof4", sheet)
        self.assertIn("multiplesof6", sheet)
        self.assertNotIn("3512", sheet)

    def test_chains_and_missing_numbers_are_led_by_what_stands_before_them(self):
        document = made([item("2/7 = _/21 = 12/_"), item("5/8 + _ = 1 1/4")], form="full", key="none")
        self.assertNotIn("==", texts(document)[0])
        self.assertIn("blank equals one and one fourth minus five eighths", alternatives(document))

    def test_every_layout_is_on_paper_and_what_pupils_write_is_not(self):
        problem, answer = "52 1/4 - 17 5/6", "34512"
        for layout in LAYOUTS:
            full = item(problem, {"layout": layout})
            (sheet,) = texts(made([full], form="faded", key="none", fill=False, space=0))
            for number in (answer, "multiplesof6:6,12"):
                self.assertLessEqual(Counter(number), Counter(sheet), (layout, number))
            faded = replace(
                full, fading=Fading(hide=1, blanks=frozenset(["regroup 0 0", "common-denominator 0 line 1"]))
            )
            (covered,) = texts(made([faded], form="faded", key="none", fill=False, space=0))
            self.assertNotIn("multiplesof6", covered, layout)
            self.assertLess(covered.count("34"), sheet.count("34"), layout)
            self.assertLess(covered.count("51"), sheet.count("51"), layout)

    def test_boxes_stand_in_pairs_and_questions_are_numbered(self):
        def cells(layout, **fading):
            (grid,) = parts([item("7 1/4 - 3 5/6", {"layout": layout}, **fading)], form="faded", key="none")
            (boxes,) = [one for one in grid.examples[0].blocks if one.block == "boxes"]
            return boxes.questions, boxes.cells

        questions, four = cells("four-box")
        self.assertEqual((questions, [one.number for one in four]), (False, [0] * 4))
        questions, asked = cells("checklist")
        self.assertEqual((questions, [one.number for one in asked]), (True, list(range(1, len(asked) + 1))))
        self.assertIn("no: make them the same", [one.answer for one in asked])
        self.assertIn("take away", [one.answer for one in asked])
        _, covered = cells("checklist", hide=1)
        self.assertNotIn("take away", [one.answer for one in covered])  # it would tell what is to be filled in

    def test_the_page_to_read_escapes_all_text_and_needs_nothing_from_elsewhere(self):
        items = [item("1/3 + 2/5"), item("7 1/4 - 3 5/6 ft")]
        html = page("A <b>", numbered(items), within(DIST / "assets"))
        self.assertIn("A &lt;b&gt;", html)
        self.assertEqual(
            set(re.findall(r"""(?:src|href)=["'](\w+:)|url\("?(\w+:)""", html)), {("data:", ""), ("", "data:")}
        )
        self.assertNotIn("<script", html)
        self.assertEqual(html.count("@font-face"), 2)
        self.assertIn('<span class="hidden">seven and one fourth minus three and five sixths</span>', html)
        self.assertEqual(html.count('<span class="hidden">'), html.count('<span aria-hidden="true">'))


class SquaresTests(unittest.TestCase):
    """Sheets in the squares of an exercise book."""

    def test_a_sheet_on_paper_is_the_sheet_of_the_screen(self):
        for problem in ("7 1/4 - 3 5/6", "30.4 - 7.85", "1.25 × 0.48"):
            sheet = LAYOUTS["stacked"](work_text(problem).working).sheet
            drawn = squares(sheet)
            placed = [(x, text) for x, text in re.findall(r'<text x="(\d+)"[^>]*>(.)', drawn)]
            self.assertEqual(placed, [(str(10 * c.x + 5 * c.w), c.text[0]) for c in sheet.cells])
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
            self.assertEqual(float(text_of.get("x")), half * (cell.x + cell.w / 2))
            middle = float(text_of.get("y")) - 0.36 * size  # of a digit, which is as high as that twice
            self.assertAlmostEqual(middle, half * (cell.y + high / 2), delta=2)
            self.assertTrue(0.7 * half * high < size < 1.2 * half * high or cell.size == "small", (cell.size, size))
        frames = [[float(one.get(name)) for name in ("x", "y", "width", "height")] for one in drawn.iter(f"{SVG}rect")]
        blank = [[half * c.x + 1, half * c.y + 1, half * c.w - 2, 18] for c in seen if c.blank and c.size != "tall"]
        (fill,) = sheet.fills
        self.assertEqual(
            sorted(frames),
            sorted([*blank, [half * fill.x + 1, half * fill.y + 1, half * fill.w - 2, half * fill.h - 2]]),
        )
        hidden = [c for c in sheet.cells if c.at and sheet.moments[c.at - 1].hidden and c.role != "carried"]
        self.assertEqual((fill.x, fill.x + fill.w), (min(c.x for c in hidden), max(c.x + c.w for c in hidden)))
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
            self.assertEqual(right, half * (struck.x + struck.w) - 1)

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
