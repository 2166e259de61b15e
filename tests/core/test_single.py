"""Lone numbers: simplified, tidied, converted; decimals against long division done another way."""

import unittest
from decimal import Decimal, localcontext
from fractions import Fraction

import sympy
from hypothesis import given
from hypothesis import strategies as st

from keen_slate.core.arithmetic.division import MOST_PLACES, long_division
from keen_slate.core.documents.view import working_view
from keen_slate.core.documents.working import published
from keen_slate.core.errors import LimitError, ReadError
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import Neg, value
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text
from tests import strategies


def answer(typed, target=None):
    return work_text(typed, target=target).working.answer_text


class SingleTests(unittest.TestCase):
    @given(st.one_of(strategies.plain_numbers, strategies.decimals), st.booleans())
    def test_every_form_keeps_the_value_and_every_document_can_be_made(self, number, negative):
        expr = Neg(number) if negative else number
        for target in (None, "improper", "mixed", "fraction", "decimal"):
            try:
                worked = work_text(text(expr), target=target)
            except LimitError:
                self.assertEqual(target, "decimal")
                continue
            self.assertEqual(value(worked.working.answer), value(expr))
            self.assertEqual(published(worked)["problem"]["kind"], "convert" if target else "simplify")

    def test_forms(self):
        for typed, target, expected in [
            ("3 10/4", None, "5 1/2"), ("9.60", None, "9.6"), ("13.00", None, "13"), ("$13.00", None, "$13.00"),
            ("-18/12", None, "-1 1/2"), ("-0", None, "0"), ("1/2", None, "1/2"), ("4 3/7", "improper", "31/7"),
            ("23/9", "mixed", "2 5/9"), ("7", "improper", "7/1"), ("0.1[6]", "fraction", "1/6"),
            ("2.5", "fraction", "2 1/2"), ("3/4", "decimal", "0.75"), ("3/12", "decimal", "0.25"),
            ("5/6", "decimal", "0.8[3]"), ("2 1/7", "decimal", "2.[142857]"), ("41 3/8%", "decimal", "41.375%"),
        ]:  # fmt: skip
            self.assertEqual((typed, answer(typed, target)), (typed, expected))

    def test_a_class_that_writes_a_comma_types_and_sees_commas(self):
        ways = Ways.of({"decimal_mark": "comma"})
        view = working_view(work_text("5/6", ways, target="decimal"))
        self.assertEqual(view.answer.text, "0,8[3]")
        self.assertEqual([cell.text for cell in view.rows[1].cells], ["=", "0,8", "3"])
        view = working_view(work_text("9,60", ways))
        self.assertEqual((view.problem.text, view.answer.text), ("9,60", "9,6"))
        self.assertRaises(ReadError, work_text, "9.60", ways)

    def test_nothing_to_do_is_said_with_no_steps(self):
        worked = work_text("1/2")
        self.assertEqual((worked.working.steps, worked.surprises), ((), ["There is nothing to do."]))

    def test_only_a_single_number_is_converted_to_a_form_that_exists(self):
        self.assertRaises(ReadError, answer, "1/2 + 1/3", "decimal")
        self.assertRaises(ReadError, answer, "1/2", "roman")

    def test_the_period_of_a_prime_divides_the_prime_less_one(self):
        # Published: the period of 1/p divides p - 1 (Fermat); the order of 10 modulo p is SymPy's.
        for p in sympy.primerange(7, 2000):
            order = sympy.n_order(10, p)
            self.assertEqual((p - 1) % order, 0)
            if order <= MOST_PLACES:
                before, period = long_division(1, p)
                self.assertEqual((before, len(period)), ("", order))
                self.assertEqual(Fraction(int(period), 10**order - 1), Fraction(1, p))
            else:
                self.assertRaises(LimitError, long_division, 1, p)

    def test_the_inch_table_of_sixty_fourths(self):
        # Published: the usual table of inch fractions to 64ths; each value recomputed by `decimal`.
        for n in range(1, 64):
            with localcontext() as context:
                context.prec = 12
                self.assertEqual(answer(f"{n}/64", "decimal"), str((Decimal(n) / 64).normalize()))
