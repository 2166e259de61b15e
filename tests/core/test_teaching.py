"""What a teacher leaves to pupils, says in her own words, gives points for."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from keen_slate.core.expressions.aloud import BOX
from keen_slate.core.expressions.sentences import Scaled
from keen_slate.core.expressions.tree import Frac
from keen_slate.core.expressions.typeset import glyphs
from keen_slate.core.expressions.voice import OWN
from keen_slate.core.layouts.cells import NUMBER_HEIGHT, SQUARE
from keen_slate.core.layouts.registry import LAYOUTS
from keen_slate.core.layouts.rows import expression_row
from keen_slate.core.teaching.fading import (
    Fading,
    cells_with_blanks,
    glyphs_with_blanks,
    jotting_with_blanks,
    sheet_with_blanks,
)
from keen_slate.core.teaching.points import points_of
from keen_slate.core.teaching.sentences import TeachersWords
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text
from keen_slate.core.working.keys import step_keys
from tests import strategies


def numbers(pieces):
    """The numbers of a written line, from left to right, a fraction as two."""
    found = []
    for piece in pieces:
        if piece.kind == "fraction":
            found += [piece.top, piece.bottom]
        elif piece.kind in ("number", "power", "recurring"):
            found.append(piece.text)
    return found


class FadingTests(unittest.TestCase):
    @given(strategies.expressions, st.data())
    def test_a_blank_takes_away_its_own_number_and_no_other(self, expr, data):
        pieces = glyphs(expr)
        shown = numbers(pieces)
        if not shown:
            return
        at = data.draw(st.integers(0, len(shown) - 1))
        left = numbers(glyphs_with_blanks(pieces, "add 0", Fading(blanks=frozenset({f"add 0 {at}", "add 1 0"}))))
        self.assertEqual(left, [*shown[:at], BOX, *shown[at + 1 :]])
        self.assertEqual(glyphs_with_blanks(pieces, "add 0", Fading()), list(pieces))

    @given(strategies.expressions)
    def test_the_numbers_of_a_line_are_counted_alike_in_squares_and_as_pieces(self, expr):
        working = work_text("1/2 + 1/3").working  # any: only its ways and label matter
        row = expression_row(None, expr, (), "", working)
        written = {}
        for cell in row.cells:
            if cell.unit >= 0:
                written[cell.unit] = written.get(cell.unit, "") + cell.text
        self.assertEqual(
            [written[unit] for unit in sorted(written)], [one.strip() for one in numbers(glyphs(expr)) if one.strip()]
        )
        self.assertEqual(sorted(written), list(range(len(written))))
        for unit in written:
            left = cells_with_blanks(row.cells, "add 0", Fading(blanks=frozenset({f"add 0 {unit}"})))
            self.assertEqual({cell.unit for cell in left if cell.blank}, {unit})
        self.assertFalse(any(cell.blank for cell in cells_with_blanks(row.cells, "add 0", Fading(hide=2))))

    def test_each_number_of_a_jotting_can_be_a_blank_and_keeps_its_key(self):
        line = ("1/4 = ", Scaled(1, 4, "×", 3), " = ", Frac(3, 12))
        plain = jotting_with_blanks(line, "k", Fading(), OWN)
        self.assertEqual(
            [(one.key, one.blank) for one in plain], [(None, False), ("k 1", False), (None, False), ("k 3", False)]
        )
        faded = jotting_with_blanks(line, "k", Fading(blanks=frozenset({"k 1", "k 3"})), OWN)
        self.assertEqual(
            [(one.text, one.top, one.bottom, one.blank) for one in faded],
            [
                ("1/4 = ", None, None, False),
                (None, f"1 × {BOX}", f"4 × {BOX}", True),
                (" = ", None, None, False),
                (BOX, None, None, True),
            ],
        )

    def test_nothing_is_left_out_where_nothing_is_hidden_and_nothing_blank(self):
        kinds = Fading(), Fading(hide=1), Fading(blanks=frozenset({"add 0 0"})), Fading(pause="add 0")
        self.assertEqual([one.plain for one in kinds], [True, False, False, True])
        self.assertEqual(
            [Fading(blanks=frozenset({"add 0 row"})).hides_row(key) for key in ("add 0", "add 1")], [True, False]
        )

    def test_each_line_that_is_hidden_has_a_frame_about_what_is_written_there(self):
        for problem in ("7 1/4 - 3 5/6", "2 3/4 + 1 2/3", "5/6 - 3/4", "12.05 - 8.36"):
            working = work_text(problem, Ways.of({"layout": "stacked"})).working
            sheet, keys = LAYOUTS["stacked"](working).sheet, step_keys(working)
            hidden = sheet_with_blanks(sheet, keys, Fading(hide=1))
            self.assertEqual({moment.step for moment in hidden.moments if moment.hidden}, {len(keys) - 1}, problem)
            (frame,) = hidden.fills
            own = [
                c for c in sheet.cells if c.at and sheet.moments[c.at - 1].step == len(keys) - 1 and c.role != "carried"
            ]
            edges = [
                (c.x, c.y, c.x + c.w, c.y + (NUMBER_HEIGHT if c.size == "tall" else SQUARE)) for c in own
            ]  # it reaches to the outermost of them on every side, and no farther
            around = (frame.x, frame.y, frame.x + frame.w, frame.y + frame.h)
            self.assertEqual(
                around,
                tuple([pick(side) for pick, side in zip((min, min, max, max), zip(*edges, strict=True), strict=True)]),
            )
            self.assertEqual(sheet_with_blanks(sheet, keys, Fading()), sheet)


class TeachersWordsTests(unittest.TestCase):
    def test_the_words_of_an_example_come_before_those_of_its_set(self):
        said = TeachersWords(
            {"regroup 0": "Break one up.", "add 1 title": "Then"}, {"regroup": "Take one.", "add title": "Now"}
        )
        self.assertEqual(said.find("regroup", "regroup 0", ""), ("Break one up.", "example"))
        self.assertEqual(said.find("regroup", "regroup 1", ""), ("Take one.", "set"))
        self.assertEqual(said.find("add", "add 1", " title"), ("Then", "example"))
        self.assertEqual(said.find("add", "add 0", " title"), ("Now", "set"))
        self.assertEqual(said.find("add", "add 0", ""), (None, ""))


class PointsTests(unittest.TestCase):
    def points(self, problem, edited=None, **ways):
        working = work_text(problem, Ways.of(ways)).working
        keys = step_keys(working)
        return points_of(working, keys, edited or {}), keys

    def test_each_step_and_the_answer_is_worth_one_until_a_teacher_says_otherwise(self):
        given_points, keys = self.points("7 1/4 - 3 5/6", {"regroup 0": 3, "answer": 0})
        self.assertEqual(
            [(one.key, one.points) for one in given_points],
            [*[(key, 3 if key == "regroup 0" else 1) for key in keys], ("answer", 0)],
        )

    def test_what_loses_the_points_of_an_answer(self):
        mixed = "Lost for a wrong value, for a form that is not accepted (a <mixed number> in <lowest terms>)"
        for problem, ways, loses in (
            ("7 1/4 - 3 5/6", {}, f"{mixed}."), ("7 1/4 - 3 5/6 ft", {}, f"{mixed}, and for a missing ft."),
            ("12.05 - 8.36", {}, "Lost for a wrong value."),
            ("2/3 = _/12", {}, "Lost for a wrong value."), ("2.5 - 1.25 m", {},
                "Lost for a wrong value, and for a missing m."),
            ("3/4 + 3/4", {"answer_form": "simplest-improper"},
                "Lost for a wrong value, for a form that is not accepted (a fraction in <lowest terms>)."),
        ):  # fmt: skip
            self.assertEqual(self.points(problem, **ways)[0][-1].loses, loses, problem)
