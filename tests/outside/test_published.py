"""Checks against facts from outside.

The source stands beside each; values are from memory unless a package has them.
"""

import re
import unittest
from fractions import Fraction

import sympy
from hypothesis import given

from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import value
from keen_slate.core.expressions.voice import OWN
from keen_slate.core.worked import work_text
from keen_slate.core.working.methods.common_denominator import least, listed_multiples
from tests import strategies

# Published: the 2/n table of the Rhind papyrus (about 1550 BC), as edited in the literature; from memory.
RHIND = {
    5: (3, 15), 7: (4, 28), 9: (6, 18), 11: (6, 66), 13: (8, 52, 104), 15: (10, 30), 17: (12, 51, 68),
    19: (12, 76, 114), 21: (14, 42), 23: (12, 276), 25: (15, 75), 27: (18, 54), 29: (24, 58, 174, 232),
    31: (20, 124, 155), 33: (22, 66), 35: (30, 42), 37: (24, 111, 296), 39: (26, 78), 41: (24, 246, 328),
    43: (42, 86, 129, 301), 45: (30, 90), 47: (30, 141, 470), 49: (28, 196), 51: (34, 102), 53: (30, 318, 795),
    55: (30, 330), 57: (38, 114), 59: (36, 236, 531), 61: (40, 244, 488, 610), 63: (42, 126), 65: (39, 195),
    67: (40, 335, 536), 69: (46, 138), 71: (40, 568, 710), 73: (60, 219, 292, 365), 75: (50, 150), 77: (44, 308),
    79: (60, 237, 316, 790), 81: (54, 162), 83: (60, 332, 415, 498), 85: (51, 255), 87: (58, 174),
    89: (60, 356, 534, 890), 91: (70, 130), 93: (62, 186), 95: (60, 380, 570), 97: (56, 679, 776), 99: (66, 198),
    101: (101, 202, 303, 606),
}  # fmt: skip


class PublishedTests(unittest.TestCase):
    def test_the_rhind_table_sums_exactly(self):
        for n, denominators in RHIND.items():
            worked = work_text(" + ".join(f"1/{d}" for d in denominators))
            self.assertEqual(text(worked.working.answer), f"2/{n}")

    def test_sums_of_the_common_core_standards(self):
        # Published: CCSS-M 5.NF.A.1: 2/3 + 5/4 = 8/12 + 15/12 = 23/12; from memory.
        steps = work_text("2/3 + 5/4").working.steps
        self.assertEqual([text(step.after) for step in steps][:2], ["8/12 + 15/12", "23/12"])
        # Published: CCSS-M 4.NF.B.3b: 2 1/8 = 1 + 1 + 1/8 = 8/8 + 8/8 + 1/8; from memory.
        self.assertEqual(text(work_text("8/8 + 8/8 + 1/8").working.answer), "2 1/8")
        # Published: CCSS-M 4.NF.C.5: 3/10 + 4/100 = 34/100; from memory.
        self.assertEqual(text(work_text("3/10 + 4/100").working.steps[1].after), "34/100")

    def test_the_naep_estimate(self):
        # Published: NAEP 1978, age 13: estimate 12/13 + 7/8; 2 is right of 1, 2, 19, 21; from memory.
        self.assertEqual(work_text("12/13 + 7/8").estimate.total, 2)

    def test_the_mistake_that_the_standards_want_recognised(self):
        # Published: CCSS-M 5.NF.A.2: 2/5 + 1/2 = 3/7 is wrong, because 3/7 < 1/2; from memory.
        worked = work_text("2/5 + 1/2")
        wrong = next(item for item in worked.likely if item.entry.code == "add-across")
        self.assertEqual(wrong.answer_value, Fraction(3, 7))
        self.assertLess(wrong.answer_value, Fraction(1, 2))

    def test_least_common_multiples_of_numbers_to_12(self):
        # Published: CCSS-M 6.NS.B.4 asks for these; the values are SymPy's.
        for a in range(1, 13):
            for b in range(1, 13):
                self.assertEqual(least((a, b)), sympy.ilcm(a, b))
                rows = [OWN.plain(row).split(": ")[1] for row in listed_multiples((a, b), least((a, b)))]
                shared = set.intersection(*({int(n) for n in row.split(", ")} for row in rows))
                self.assertEqual(shared, {sympy.ilcm(a, b)})  # the first that both rows reach, and no earlier one

    def test_greatest_common_factors_of_numbers_to_100(self):
        # Published: CCSS-M 6.NS.B.4 asks for these; the values are SymPy's.
        for a in range(1, 100):
            for b in range(a + 1, 101):
                steps = work_text(f"{a}/{b}").working.steps
                divided = steps[0].facts[0][1] if steps else 1
                self.assertEqual(divided, sympy.igcd(a, b))

    @given(strategies.add_subtract_problems)
    def test_answers_agree_with_sympy(self, expr):
        # Published: SymPy's own parser and exact rationals; a mixed number is written as a bracketed sum for it.
        python = re.sub(r"(\d+) (\d+/\d+)", r"(\1 + \2)", text(expr))
        expected = sympy.sympify(python, rational=True)
        answer = value(work_text(text(expr)).working.answer)
        self.assertEqual(sympy.Rational(answer.numerator, answer.denominator), expected)
