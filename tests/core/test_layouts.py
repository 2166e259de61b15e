"""Layouts: what stands in the squares, read again as a pupil would read it."""

import re
import unittest
from collections import Counter
from dataclasses import replace
from fractions import Fraction
from itertools import combinations
from math import prod

from hypothesis import example, given
from hypothesis import strategies as st

from keen_slate.core.arithmetic.primes import prime_factors
from keen_slate.core.documents.view import working_view
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import value
from keen_slate.core.layouts.cells import SQUARE
from keen_slate.core.layouts.checklist import checklist
from keen_slate.core.layouts.columns import columns_of
from keen_slate.core.layouts.four_box import BOXED, four_box
from keen_slate.core.layouts.rows import line
from keen_slate.core.layouts.sheet import PROBLEM
from keen_slate.core.layouts.stacked import Column, _Stack, _terms, stack_of
from keen_slate.core.reading.reader import read
from keen_slate.core.teaching.fading import Fading, sheet_with_blanks
from keen_slate.core.ways.checklist import HANGS_ON
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import voice_of
from keen_slate.core.worked import work_text
from keen_slate.core.working.keys import BLANK_KEY, step_keys
from keen_slate.core.working.methods import work
from keen_slate.core.working.sketches import DIGIT, ROW, factor_tree, long_division
from tests import strategies
from tests.core.test_judging import RUNGS

typed_decimals = st.builds(
    lambda w, part: f"{w}.{part}", st.integers(0, 120), st.from_regex(r"[0-9]{1,3}", fullmatch=True)
)


def rows_of(sheet):
    """The lines of tall characters of a sheet from top to bottom: their text, and where the point stands (None without
    one).
    """
    lines = {}
    for cell in sorted(sheet.cells, key=lambda c: (c.y, c.x)):
        if cell.size == "tall":
            lines.setdefault(cell.y, []).append(cell)
    rows = [
        ("".join(c.text for c in cells), next((c.x for c in cells if c.text == "."), None)) for cells in lines.values()
    ]
    return [row for row in rows if row[0][0] != "="]  # lines that follow the columns


def number(row):
    return Fraction(row.lstrip("+−×"))


class LayoutTests(unittest.TestCase):
    @given(typed_decimals, typed_decimals)
    def test_new_numbers_with_two_digits_never_stand_squeezed_side_by_side(self, a, b):
        sheet = columns_of(work(read(f"{a} - {b}")))
        wide = [cell for cell in sheet.cells if cell.size == "small" and len(cell.text) > 1]
        for one, other in combinations(wide, 2):
            if abs(one.x - other.x) <= SQUARE:
                self.assertGreaterEqual(abs(one.y - other.y), SQUARE, (one, other))

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
    def test_every_column_and_result_of_a_stack_has_the_same_value(self, expr, ways):
        working = work(read(text(expr)), ways)
        if not working.steps:
            return
        stack = _Stack(working, Column(PROBLEM, _terms(working.problem.expr)))
        for column in stack.columns:
            self.assertEqual(sum(sign * value(term) for sign, term in column.terms), working.value)
        for one in stack.results:
            self.assertEqual(value(one.number), working.value)
        self.assertTrue(stack.results or stack.lines)

    @given(st.one_of(strategies.classroom_pairs, strategies.sums_of(strategies.decimals, most=3)), strategies.all_ways)
    def test_a_sheet_is_written_moment_by_moment_and_each_does_something(self, expr, ways):
        working = work(read(text(expr)), replace(ways, decimal_mark="point"))
        sheet = stack_of(working) or columns_of(working)
        if sheet is None:
            return
        for at, moment in enumerate(sheet.moments, 1):
            self.assertTrue(any(at in (c.at, c.struck_at) for c in sheet.cells), moment)
            self.assertLess(moment.step, len(working.steps))
        steps = [moment.step for moment in sheet.moments]
        self.assertEqual(steps, sorted(steps))
        for cell in sheet.cells:
            self.assertLessEqual(cell.at, len(sheet.moments))
            self.assertEqual(cell.struck, cell.struck_at > 0)
            if cell.struck:
                self.assertGreater(cell.struck_at, cell.at)
                over = [c for c in sheet.cells if c.at >= cell.struck_at and c.y < cell.y and c.role == "carried"]
                self.assertTrue(
                    over or working.steps[sheet.moments[cell.struck_at - 1].step].after, "something new above"
                )
        keys = step_keys(working)
        self.assertTrue(all(re.match(BLANK_KEY, c.key) for c in sheet.cells if c.key))
        named = sorted({c.key for c in sheet.cells if c.key})
        faded = sheet_with_blanks(sheet, keys, Fading(blanks=frozenset(named[:1])))
        self.assertEqual({c.key for c in faded.cells if c.blank}, set(named[:1]))
        last = sheet_with_blanks(sheet, keys, Fading(hide=1))
        self.assertEqual([m.hidden for m in last.moments], [m.step == len(keys) - 1 for m in sheet.moments])
        self.assertEqual(len(last.fills), int(any(m.hidden for m in last.moments)))

    def test_a_number_that_changes_is_crossed_out_once_and_others_never(self):
        for problem, struck in (
            ("7 1/4 - 3 5/6", "73"),
            ("9 - 4 2/3", "9"),
            ("7 3/4 - 3 1/4", ""),
            ("52 1/4 - 17 3/4", "2151"),  # of the wholes only the digit that changes
        ):
            sheet = stack_of(work(read(problem)))
            crossed = sorted([c for c in sheet.cells if c.struck], key=lambda c: c.struck_at)
            self.assertEqual("".join(c.text for c in crossed), struck, problem)

    def test_boxes_and_questions_hold_every_step_once(self):
        for problem in RUNGS:
            working = work(read(problem))
            for laid in (four_box(working), checklist(working)):
                if laid is None:
                    self.assertNotIn(working.problem.kind, BOXED)
                    continue
                steps = [row.step for box in laid.boxes for row in box.rows if row.step is not None]
                self.assertEqual(steps, list(range(len(working.steps))), problem)

    @given(strategies.classroom_pairs, strategies.all_ways, st.lists(st.sampled_from(sorted(HANGS_ON)), max_size=8))
    def test_a_class_s_own_questions_are_asked_every_time_in_their_order(self, expr, ways, hooks):
        asked = [f"Question {i}: <whole>?" for i, _ in enumerate(hooks)]
        listed = "\n".join([f"{hook}: {asks}" for hook, asks in zip(hooks, asked, strict=True)])
        working = work(read(text(expr)), replace(ways, checklist=listed, decimal_mark="point"))
        laid = checklist(working)
        if not hooks or not working.steps:
            return
        self.assertEqual([box.title for box in laid.boxes if box.quoted], asked)
        self.assertEqual([box.heading(voice_of(ways)) for box in laid.boxes if box.quoted], asked, "never reworded")
        steps = [row.step for box in laid.boxes for row in box.rows if row.step is not None]
        self.assertEqual(steps, list(range(len(working.steps))))

    def test_own_questions_are_answered_yes_or_no(self):
        listed = (
            "always: What is asked?\nsame-size: Same size?\nboth-change: Do both change?\nenough: Enough?\nlowest: "
            "Done?"
        )
        for problem, answers in (
            ("7 1/4 - 3 5/6", ["", "no", "yes", "no", "take away", "yes"]),
            ("7 3/4 - 3 1/4", ["", "yes", "no", "yes", "take away", "no"]),
            ("3/4 - 1/4", ["", "yes", "no", "yes", "take away", "no"]),
            ("1/2 + 1/6", ["", "no", "no", "nothing is taken away", "add the <numerators>", "no"]),
        ):
            boxes = checklist(work(read(problem), Ways.of({"checklist": listed}))).boxes
            self.assertEqual([box.answer for box in boxes], answers, problem)
        early = checklist(
            work(read("3/4 - 1/4"), Ways.of({"checklist": "lowest: Done?\nadd: Added?\nsubtract: Taken away?"}))
        ).boxes
        self.assertEqual([box.answer for box in early[:3]], ["no", "no", "yes"], "asked too early, and still true")

    @given(st.lists(typed_decimals, min_size=2, max_size=4), st.sampled_from("+-"))
    @example(["0.0", "0.00"], "+")
    @example(["0.10", "0.1"], "-")
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
        self.assertEqual(filled, sum(longest - len(digits) for digits in typed))
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


class SketchTests(unittest.TestCase):
    @given(st.integers(2, 99_999), st.integers(2, 999))
    def test_a_long_division_reads_as_one_that_was_worked(self, num, den):
        sketch = long_division(num, den)
        if isinstance(sketch, str):
            return
        rows = {}
        for one in sketch.drawing.texts:
            rows.setdefault(one.y, []).append((one.x, one.text))
        (_, quotient), *below = [sorted(rows[y])[-1] for y in sorted(rows)]
        (start, dividend), *worked = below
        self.assertEqual((quotient, dividend, sorted(rows[2 * ROW])[0][1]), (str(num // den), str(num), str(den)))
        left, _, right, _ = sketch.drawing.lines[0]
        self.assertTrue(left < start and start + DIGIT * len(dividend) == right, "under the bar")
        column = lambda x, digits: (x - start) // DIGIT + len(digits)  # noqa: E731  # where a row ends in the dividend
        here = 0
        for (x, product), (y, left) in zip(worked[::2], worked[1::2], strict=True):
            done = column(x, product)
            self.assertEqual(int(product) % den, 0)
            self.assertLess(int(dividend[:done]) - here - int(product), den)
            here = (here + int(product)) * 10 ** (column(y, left) - done)
            self.assertEqual(
                int(dividend[: column(y, left)]) - here, int(left), "what is left, with what was brought down"
            )
        self.assertEqual(int(worked[-1][1]), num % den)
        self.assertEqual(column(*worked[-1]), len(dividend))

    @given(st.integers(2, 9_999), st.integers(2, 9_999))
    def test_a_factor_tree_splits_into_primes_and_rings_what_is_shared(self, a, b):
        shared = list((Counter(prime_factors(a)) & Counter(prime_factors(b))).elements())
        tree = factor_tree(a, shared)
        if isinstance(tree, str):
            return
        drawing = tree.drawing
        numbers = {(t.x + DIGIT * len(t.text) // 2, t.y): int(t.text) for t in drawing.texts}
        for left, right in zip(drawing.lines[::2], drawing.lines[1::2], strict=True):
            ends = [
                min(numbers, key=lambda at: abs(at[0] - x) + abs(at[1] - y)) for x, y in (left[:2], left[2:], right[2:])
            ]
            node, *parts = [numbers[end] for end in ends]
            self.assertEqual(node, prod(parts))
        ringed = [
            numbers[min(numbers, key=lambda at: abs(at[0] - x) + abs(at[1] - 5 - y))] for x, y, _ in drawing.rings
        ]
        self.assertEqual(sorted(ringed), shared)
        for one, other in combinations(drawing.texts, 2):
            apart = (
                one.y != other.y or one.x + DIGIT * len(one.text) < other.x or other.x + DIGIT * len(other.text) < one.x
            )
            self.assertTrue(apart, tree.said)
        self.assertTrue(all(t.x >= 0 and t.x + DIGIT * len(t.text) <= drawing.width for t in drawing.texts))


class LabelTests(unittest.TestCase):
    def test_a_label_stands_where_its_kind_stands(self):
        # Common practice: a sign of money before its number, behind a minus; % and ° against it; a word after a space.
        for problem, written in (
            ("30 1/8 + 28 1/2 %", "58 5/8%"), ("$4.75 + $12.60", "$17.35"), ("$1.25 - $3.50", "-$2.25"),
            ("1 1/2 + 2 ft", "3 1/2 ft"), ("1/4 - 3/4 °", "-1/2°"),
        ):  # fmt: skip
            view = working_view(work_text(problem))
            for pieces, said in (
                (view.answer.labelled, view.answer.text),
                *[(one.glyphs, one.answer) for one in view.choices],
            ):
                shown = ["".join(filter(None, (one.text, one.top and f" {one.top}/{one.bottom}"))) for one in pieces]
                self.assertEqual("".join(shown).replace("−", "-").replace("- ", "-").strip(), said)
            self.assertEqual(view.answer.text, written)
