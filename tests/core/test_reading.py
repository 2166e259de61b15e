"""The reader: what is written reads back the same; what cannot be read is refused with a place and a remedy."""

import re
import unittest
from fractions import Fraction
from pathlib import Path

from hypothesis import example, given

import keen_slate
from keen_slate.core.errors import CoreError, LimitError, ReadError
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import Dec, Equation, Frac, Mixed, Neg, Whole, value
from keen_slate.core.limits import MAX_CHARACTERS
from keen_slate.core.reading.lexing import VULGAR
from keen_slate.core.reading.reader import read
from keen_slate.core.worked import work_text
from tests import strategies

# Each refused text with the position, the length, and the reason as a comment.
REFUSED = [
    ("", 0, 0),  # nothing there
    ("   ", 0, 0),  # nothing to see
    ("2_1/3", 1, 1),  # the underscore is a blank, not a joint
    ("2&1/3", 1, 1),
    ("2  1/3", 3, 3),  # two spaces: two numbers
    ("2 3", 2, 1),
    ("1/2 1/3", 4, 3),
    ("1/ 2", 1, 1),  # neither a fraction nor a division
    ("1 /2", 2, 1),
    ("1.5/2", 3, 1),  # the bar stands between whole numbers
    ("1/2.5", 3, 1),
    ("1/-2", 2, 1),
    ("1/2/3", 3, 1),
    ("(1)/2", 3, 2),
    ("1/(2)", 1, 1),
    ("1/0", 2, 1),
    ("_/_ = 1/2", 0, 3),
    ("3 ÷ 0", 4, 1),
    ("3 ÷ (2 - 2)", 4, 7),
    ("6 ÷ 2(3)", 5, 3),  # ambiguous
    ("2/3^2", 0, 5),
    ("2^3^2", 3, 1),
    ("2^7", 2, 1),
    ("2^-1", 2, 1),
    ("0^0", 0, 3),
    ("3 + × 4", 4, 1),  # two operators
    ("3 - - 4", 4, 1),
    ("7 - --2", 5, 1),
    ("+", 1, 0),  # the number is missing at the end
    ("5 +", 3, 0),
    ("2x", 2, 0),
    ("× 3", 0, 1),
    ("(1 + 2", 0, 1),
    ("1 + 2)", 5, 1),
    ("()", 1, 1),
    ("5.", 1, 1),
    ("1.2.3", 3, 1),
    ("1,5", 1, 1),  # a comma, where the mark is a point
    ("0.[]", 2, 2),
    ("0.1234567", 2, 7),
    ("1000000", 0, 7),
    ("1/10000", 2, 5),
    ("1" * 201, 200, 1),
    ("٣ + 1", 0, 1),  # another script's digit
    ("２/3", 0, 1),  # a full-width digit
    ("2²", 1, 1),
    ("1 ft + 2 in", 9, 2),  # two labels
    ("1 ft + 2", 2, 2),  # a label on some numbers only
    ("ft", 0, 2),
    ("1/2 = 2/4", 0, 9),  # nothing is missing
    ("_ + 1", 0, 5),  # nothing says what it makes
    ("1\n+ 2", 1, 1),
    (" + ".join(["1"] * 13), 48, 1),  # 13 numbers
    ("<b>1</b>", 0, 1),
    ("0.83...", 2, 2),  # nothing repeats
    ("0.375 to fraction", 6, 11),
    ("17/5 as a mixed number", 5, 17),
]

READ = [
    ("2⅓", "2 1/3"),
    ("2 ⅓ + ½", "2 1/3 + 1/2"),
    ("+1/2 − 1/3", "1/2 - 1/3"),
    ("7 - -2", "7 - -2"),
    ("2 x 3 * 4", "2 × 3 × 4"),
    ("1 / 2", "1 ÷ 2"),
    (".5 + 9.60", "0.5 + 9.60"),
    ("0.1[6]", "0.1[6]"),
    ("0.1666...", "0.1[6]"),
    ("0.1616… + 1", "0.[16] + 1"),
    ("0.5 (3 - 7 + 1/4)", "0.5 × (3 - 7 + 1/4)"),
    ("41 3/8%", "41 3/8%"),
    ("5 ft - 3 3/8 ft", "5 - 3 3/8 ft"),
    ("$3.20", "$3.20"),
    ("2/7 = _/21 = 12/_", "2/7 = _/21 = 12/_"),
]

KINDS = [
    ("3 10/4", "simplify"),
    ("2/7 = _/21 = 12/_", "equivalent"),
    ("5 1/6 - 2 3/4", "add-subtract"),
    ("30.4 - 7.85", "decimal"),
    ("0.4 × 2 1/2", "multiply-divide"),
    ("0.5 (3 - 7 + 1/4)", "order"),
    ("4 + 6 × 2", "order"),
    ("9 - 4 + 3", "order"),
    ("_/18 + _/9 + _/3 = 23/18", "missing"),
    ("5/8 + _ = 1 1/4", "missing"),
]


class ReadingTests(unittest.TestCase):
    def test_refused_texts_are_refused_in_their_place_with_a_remedy(self):
        for typed, position, length in REFUSED:
            with self.subTest(typed=typed), self.assertRaises(ReadError) as caught:
                read(typed)
            error = caught.exception
            self.assertEqual((error.position, error.length), (position, length), f"{typed!r}: {error.message}")
            self.assertTrue(error.message.endswith(".") and error.hint.endswith("."))

    def test_ambiguous_texts_are_refused_with_the_two_spellings_that_are_not(self):
        for typed, first, second in [("6 ÷ 2(3)", "6 ÷ (2 × 3)", "6 ÷ 2 × 3"), ("2/3^2", "(2/3)^2", "2 ÷ 3^2")]:
            with self.assertRaises(ReadError) as caught:
                read(typed)
            self.assertEqual(caught.exception.hint, f"Write {first} or {second}.")
            self.assertNotEqual(value(read(first).expr), value(read(second).expr))

    def test_whole_messages(self):
        with self.assertRaises(ReadError) as caught:
            read("2_1/3")
        self.assertEqual(
            caught.exception.as_dict(),
            {
                "message": "“_” does not join a whole number and a fraction here.",
                "position": 1,
                "length": 1,
                "hint": "Write a mixed number with one space: 2 1/3.",
            },
        )

    def test_spellings_are_read_and_written_in_one_notation(self):
        for typed, written in READ:
            with self.subTest(typed=typed):
                self.assertEqual(read(typed).text, written)
                self.assertEqual(read(written), read(typed))

    def test_a_power_binds_closer_than_its_sign(self):
        self.assertEqual(value(read("-3^2").expr), -9)
        self.assertEqual(value(read("(-3)^2").expr), 9)

    def test_kinds_are_told_from_the_text(self):
        for typed, kind in KINDS:
            self.assertEqual((typed, read(typed).kind), (typed, kind))

    def test_the_decimal_mark_is_a_setting(self):
        self.assertEqual(read("3,25", mark=",").expr, Dec(3, "25"))
        with self.assertRaisesRegex(ReadError, "the decimal mark here is “,”"):
            read("3.25", mark=",")

    def test_a_number_past_the_limits_on_the_way_is_refused_before_it_is_computed(self):
        with self.assertRaises(LimitError):
            read("(" * 45 + "9^6" + ")^6" * 45)  # would have more digits than there are atoms

    def test_every_vulgar_fraction_has_the_value_that_unicode_gives_it(self):
        # Published: the Unicode Character Database, as shipped with Python (unicodedata.numeric).
        import unicodedata

        for char, (num, den) in VULGAR.items():
            self.assertEqual(Fraction(unicodedata.numeric(char)).limit_denominator(10), Fraction(num, den))

    @given(strategies.expressions)
    def test_every_expression_reads_back_the_same(self, expr):
        try:
            self.assertEqual(read(text(expr)).expr, expr)
        except LimitError:
            self.assertGreater(max(abs(value(expr).numerator), value(expr).denominator), 10**11)
        except ReadError as error:
            self.assertRegex(error.message, "0\\^0|numbers; this is one too many")

    @given(strategies.equations)
    def test_every_equation_with_a_blank_reads_back_the_same(self, expr):
        self.assertEqual(read(text(expr)).expr, expr)

    @given(strategies.chains)
    def test_every_chain_reads_back_the_same(self, expr):
        problem = read(text(expr))
        self.assertEqual((problem.expr, problem.kind), (expr, "equivalent"))

    @given(strategies.texts)
    @example("0/")
    @example("3 1/")
    @example("1.")
    def test_any_text_is_read_or_refused_within_its_bounds(self, typed):
        try:
            problem = read(typed)
        except CoreError as error:
            self.assertTrue(0 <= error.position <= len(typed))
            self.assertTrue(0 <= error.length <= len(typed) - error.position)
        else:
            self.assertEqual(read(problem.text), problem)

    def test_the_longest_text_and_deepest_brackets_are_read(self):
        depth = (MAX_CHARACTERS - 3) // 2
        problem = read("(" * depth + "1/2" + ")" * depth)
        self.assertEqual(value(problem.expr), Fraction(1, 2))
        for opened in (depth + 1, MAX_CHARACTERS):
            with self.assertRaisesRegex(ReadError, f"Brackets may stand {depth} deep; this is one too many."):
                read("(" * opened)

    def test_forms_are_kept(self):
        self.assertEqual(read("4/8").expr, Frac(4, 8))
        self.assertEqual(read("-2 1/2").expr, Neg(Mixed(2, 1, 2)))
        self.assertEqual(read("_ = 3").expr.__class__, Equation)
        self.assertEqual(read("7").expr, Whole(7))


class HelpTests(unittest.TestCase):
    def test_what_help_tells_to_type_is_read(self):
        told = (Path(keen_slate.__file__).parents[1] / "frontend/src/bench/help.ts").read_text(encoding="utf-8")
        examples = re.findall(r"example: '([^']+)'", told)
        self.assertGreater(len(examples), 8)
        for one in examples:
            self.assertTrue(work_text(one).working.problem.text, one)
        self.assertEqual((read("6 : 2").text, read("2 1/2 * 3").text), ("6 ÷ 2", "2 1/2 × 3"))
