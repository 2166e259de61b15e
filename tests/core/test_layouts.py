"""Layouts: what stands in the squares, read again as a pupil would read it."""

import unittest
from fractions import Fraction

from hypothesis import given
from hypothesis import strategies as st

from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import value
from keen_slate.core.expressions.voice import OWN
from keen_slate.core.layouts.cells import SQUARE
from keen_slate.core.layouts.checklist import checklist
from keen_slate.core.layouts.columns import columns_of
from keen_slate.core.layouts.four_box import four_box
from keen_slate.core.layouts.line import line
from keen_slate.core.layouts.stacked import stack_of
from keen_slate.core.reading.reader import read
from keen_slate.core.ways.settings import Ways
from keen_slate.core.working.methods import work
from tests import strategies
from tests.core.test_judging import RUNGS

typed_decimals = st.builds(
    lambda w, part: f"{w}.{part}", st.integers(0, 120), st.from_regex(r"[0-9]{1,3}", fullmatch=True)
)


def rows_of(sheet):
    """The lines of tall characters of a sheet from top to bottom: their text, and where the point stands (None without one)."""
    lines = {}
    for cell in sorted(sheet.cells, key=lambda c: (c.y, c.x)):
        if cell.size == "tall":
            lines.setdefault(cell.y, []).append(cell)
    return [
        ("".join(c.text for c in cells), next((c.x for c in cells if c.text == "."), None)) for cells in lines.values()
    ]


def number(row):
    return Fraction(row.lstrip("+−×"))


class LayoutTests(unittest.TestCase):
    @given(strategies.add_subtract_problems)
    def test_no_two_digits_share_a_square_and_bars_lie_between_their_numbers(self, expr):
        for row in line(work(read(text(expr)))):
            heights = {"tall": 2 * SQUARE, "half": SQUARE}
            taken: set[tuple[int, int]] = set()
            for cell in row.cells:
                area = {(cell.x + i, cell.y + j) for i in range(SQUARE) for j in range(heights[cell.size])}
                self.assertFalse(taken & area)
                taken |= area
                self.assertTrue(cell.y >= 0 and cell.y + heights[cell.size] <= row.height)
            for rule in row.rules:
                over = [c for c in row.cells if c.size == "half" and rule.x <= c.x < rule.x + rule.w]
                self.assertTrue(any(c.y + SQUARE == rule.y for c in over) and any(c.y == rule.y for c in over))

    @given(strategies.add_subtract_problems, strategies.all_ways)
    def test_a_stack_stays_on_its_sheet_and_no_two_digits_share_a_place(self, expr, ways):
        working = work(read(text(expr)), ways)
        sheet = stack_of(working)
        if sheet is None:
            return
        self.assertTrue(all(c.x >= 0 and c.x + SQUARE <= sheet.width and 0 <= c.y < sheet.height for c in sheet.cells))
        self.assertEqual(len({(c.x, c.y) for c in sheet.cells}), len(sheet.cells))

    @given(strategies.classroom_pairs, strategies.all_ways)
    def test_every_column_of_a_stack_has_the_same_value(self, expr, ways):
        from keen_slate.core.layouts.stacked import _column, _Stack

        working = work(read(text(expr)), ways)
        if not working.steps:
            return
        stack = _Stack(working, _column(working.problem.expr))
        for column in stack.columns:
            self.assertEqual(sum(sign * value(term) for sign, term in column), working.value)
        results, lines = stack._results()
        for number in results:
            self.assertEqual(value(number), working.value)
        self.assertTrue(results or lines)

    def test_a_golden_stack(self):
        sheet = stack_of(work(read("7 1/4 - 3 5/6")))
        self.assertEqual([(c.text, c.struck) for c in sheet.cells if c.struck], [("7", True), ("3", True)])
        above = {c.text: (c.x, c.y) for c in sheet.cells if c.role == "carried"}
        crossed = {c.text: (c.x, c.y) for c in sheet.cells if c.struck}
        self.assertEqual(above["6"][0], crossed["7"][0])
        self.assertLess(above["5"][1], crossed["3"][1])
        self.assertIn("The whole 7 is crossed out, 6 stands above it.", OWN.said(sheet.spoken))
        bars = [(rule.x, rule.w) for rule in sheet.rules if rule.w == 2 * SQUARE]
        self.assertEqual(len(set(bars)), 1)  # 3/12, 10/12 and 5/12 under each other

    def test_a_carried_whole_stands_above_the_column_of_wholes(self):
        sheet = stack_of(work(read("2 3/4 + 1 2/3"), Ways.of({"mixed_add": "fractions-first"})))
        above = next(c for c in sheet.cells if c.role == "carried")
        wholes = [c for c in sheet.cells if c.size == "tall" and c.text == "2" and c.x == above.x]
        self.assertTrue(above.text == "1" and wholes and above.y < wholes[0].y)
        self.assertIn("1 is carried to the wholes.", OWN.said(sheet.spoken))

    def test_boxes_and_questions_hold_every_step_once(self):
        for problem in RUNGS:
            working = work(read(problem))
            for laid in (four_box(working), checklist(working)):
                steps = [row.step for box in laid.boxes for row in box.rows if row.step is not None]
                self.assertEqual(steps, list(range(len(working.steps))), problem)

    @given(st.lists(typed_decimals, min_size=2, max_size=4), st.sampled_from("+-"))
    def test_decimals_in_columns_read_as_they_were_typed_and_add_up(self, numbers, operator):
        numbers = numbers if operator == "+" else sorted(numbers[:2], key=Fraction, reverse=True)
        sheet = columns_of(work(read(f" {operator} ".join(numbers))))
        *terms, result = rows_of(sheet)
        self.assertEqual([number(row) for row, _ in terms], [Fraction(n) for n in numbers])
        self.assertEqual(terms[-1][0][0], "+" if operator == "+" else "−")
        first, *rest = map(Fraction, numbers)
        self.assertEqual(number(result[0]), first + sum(rest) if operator == "+" else first - sum(rest))
        self.assertEqual(len({point for _, point in terms}), 1, "the points stand under each other")
        self.assertEqual(len({len(row.partition(".")[2]) for row, _ in terms}), 1, "zeros are filled in")
        places = {(c.x, c.y) for c in sheet.cells}
        self.assertEqual(len(places), len(sheet.cells))
        for cell in sheet.cells:
            self.assertTrue(0 <= cell.x <= sheet.width - SQUARE and 0 <= cell.y < sheet.height)
            if cell.struck:  # something stands above it instead
                self.assertTrue(any(c.x == cell.x and c.y < cell.y and c.size != "tall" for c in sheet.cells))
        typed = [digits for n in numbers for digits in [n.partition(".")[2]]]
        filled = sum(c.role == "carried" and c.size == "tall" and c.text == "0" for c in sheet.cells)
        longest = max(map(len, typed))
        self.assertLessEqual(filled, sum(longest - len(digits) for digits in typed))
        over = [c for c in sheet.cells if c.size != "tall" and len(c.text) > 1]
        self.assertEqual([c for c in over if c.size != "small"], [], "two digits share a square")
        (rule,) = sheet.rules
        self.assertEqual((rule.x, rule.w), (0, max(c.x for c in sheet.cells if c.size == "tall") + SQUARE))

    @given(typed_decimals, typed_decimals)
    def test_partial_products_add_up_to_the_product(self, one, other):
        sheet = columns_of(work(read(f"{one} × {other}")))
        (first, _), (second, _), *partial, (result, _) = rows_of(sheet)
        self.assertEqual((number(first), number(second)), (Fraction(one), Fraction(other)))
        self.assertEqual(number(result), Fraction(one) * Fraction(other))
        if partial:
            digits = sum(int(row) for row, _ in partial)
            self.assertEqual(digits, int(result.replace(".", "")))
