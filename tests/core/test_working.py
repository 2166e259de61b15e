"""Workings: every step equal, the right answer in the right form, and the proof that cannot be passed by."""

import unittest
from dataclasses import replace
from fractions import Fraction
from math import gcd, lcm

from hypothesis import example, given

from keen_slate.core.documents.working import published
from keen_slate.core.errors import LimitError, SettingError
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import Expr, Frac, Mixed, Neg, OverBar, Sum, Whole
from keen_slate.core.expressions.voice import OWN
from keen_slate.core.expressions.walks import leaves
from keen_slate.core.limits import PRINTED
from keen_slate.core.reading.reader import read
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text
from keen_slate.core.working.methods import work
from keen_slate.core.working.proof import UnequalStepError
from tests import strategies


def exact_sum(expr: Expr) -> Fraction:
    """The value, found with nothing but `fractions.Fraction`: the oracle for the core's own evaluation."""
    if isinstance(expr, Sum):
        return exact_sum(expr.first) + sum((1 if o == "+" else -1) * exact_sum(t) for o, t in expr.rest)
    if isinstance(expr, Neg):
        return -exact_sum(expr.inner)
    if isinstance(expr, Whole):
        return Fraction(expr.n)
    if isinstance(expr, Frac):
        return Fraction(expr.num, expr.den)
    if isinstance(expr, Mixed):
        return expr.whole + Fraction(expr.num, expr.den)
    if isinstance(expr, OverBar):
        return exact_sum(expr.top) / expr.den
    return exact_sum(expr.inner)


class WorkingTests(unittest.TestCase):
    def assert_form(self, answer: Expr, form: str) -> None:
        number = answer.inner if isinstance(answer, Neg) else answer
        if isinstance(number, Mixed):
            self.assertTrue(0 < number.num < number.den and number.whole > 0)
            self.assertNotEqual(form, "simplest-improper")
        if isinstance(number, Frac):
            self.assertGreater(number.num % number.den, 0)  # a whole value is written as a whole
            self.assertTrue(form not in ("simplest-mixed", "mixed-as-left") or number.num < number.den)
        if isinstance(number, (Mixed, Frac)) and form.startswith("simplest"):
            self.assertEqual(gcd(number.num, number.den), 1)
        self.assertNotEqual(answer, Neg(Whole(0)))

    @given(strategies.add_subtract_problems, strategies.all_ways)
    def test_every_step_is_equal_and_the_answer_right_and_in_form(self, expr, ways):
        working = work(read(text(expr)), ways)
        expected = exact_sum(expr)
        here = working.problem.expr
        for step in working.steps:
            self.assertEqual(step.before, here)
            self.assertEqual(exact_sum(step.after), expected)
            self.assertEqual(len(step.roles), len(leaves(step.after)))
            here = step.after
        self.assertEqual(here, working.answer)
        self.assertEqual(exact_sum(working.answer), expected)
        self.assert_form(working.answer, ways.answer_form)

    @given(strategies.add_subtract_problems)
    def test_everything_that_is_printed_reads_back(self, expr):
        document = published(work_text(text(expr)))
        for step in document["steps"]:
            self.assertEqual(read(step["after"], limits=PRINTED).text, step["after"])
        self.assertEqual(Fraction(document["answer"]["value"]), exact_sum(expr))
        for found in document["misconceptions"]:
            self.assertEqual(exact_sum(read(found["answer"], limits=PRINTED).expr), Fraction(found["value"]))

    def test_a_wrong_step_cannot_be_returned(self):
        working = work(read("7 1/4 - 3 5/6"))
        wrong = replace(working.steps[1], after=read("6 14/12 - 3 10/12").expr)
        with self.assertRaises(UnequalStepError):
            replace_steps(working, (working.steps[0], wrong, working.steps[2]))
        with self.assertRaises(UnequalStepError):
            replace_steps(working, working.steps[1:])
        with self.assertRaises(UnequalStepError):
            replace_steps(working, working.steps[:-1])

    def test_golden_workings(self):
        golden = {
            "7 1/4 - 3 5/6": ["7 3/12 - 3 10/12", "6 15/12 - 3 10/12", "3 5/12"],
            "2 3/4 + 1 2/3": ["3 + 3/4 + 2/3", "3 + 9/12 + 8/12", "3 + 17/12", "3 + 1 5/12", "4 5/12"],
            "9 - 4 2/3": ["8 3/3 - 4 2/3", "4 1/3"],
            "5 7/9 - 2 4/9": ["3 3/9", "3 1/3"],  # nothing is regrouped where nothing has to be
            "2/3 - 5 1/4": ["8/12 - 5 3/12", "-(5 3/12 - 8/12)", "-(4 15/12 - 8/12)", "-4 7/12"],
            "3/4 - -1/2": ["3/4 + 1/2", "3/4 + 2/4", "5/4", "1 1/4"],
            "2 5/2 + 1/2": ["4 1/2 + 1/2", "4 + 1/2 + 1/2", "4 + 2/2", "4 + 1", "5"],
            "1/2 + 2/3 - 3/4": ["6/12 + 8/12 - 9/12", "14/12 - 9/12", "5/12"],
            "3 1/2 - 3 1/2": ["0"],
        }
        for problem, lines in golden.items():
            self.assertEqual([text(step.after) for step in work(read(problem)).steps], lines, problem)

    def test_one_denominator_fits_and_only_one_fraction_changes(self):
        step = work(read("2/3 + 1/6")).steps[0]
        self.assertEqual((step.kind.code, text(step.after), len(step.lines)), ("common-denominator", "4/6 + 1/6", 1))

    def test_numbers_past_the_limits_are_refused_in_words(self):
        huge = " + ".join(f"1/{d}" for d in (9973, 9967, 9949, 9941))
        with self.assertRaises(LimitError):
            work(read(huge))
        self.assertEqual(work(read("1/9973 + 1/9967 + 1/9949")).used_denominator, 9973 * 9967 * 9949)
        with self.assertRaises(SettingError):
            Ways.of({"colour": "blue"})

    def test_what_a_teacher_writes_among_her_ways_is_read_or_refused_in_its_place(self):
        for name, typed, position, length in (
            ("split", "9, four, 1", 3, 4), ("split", "9, 0", 3, 1), ("split", "²", 0, 1), ("split", "1 " * 13, 0, 26),
            ("order_words", "Inside <b> first", 7, 1), ("order_words", "x" * 141, 0, 141),
            ("asks", "What > now?", 5, 1),
        ):  # fmt: skip
            with self.subTest(typed=typed), self.assertRaises(SettingError) as caught:
                Ways.of({name: typed})
            self.assertEqual((caught.exception.position, caught.exception.length), (position, length))
            self.assertTrue(caught.exception.hint.endswith("."))

    def test_money_stands_beside_only_where_everything_is_whole_cents(self):
        for problem, said in (
            ("1 1/4 + 1/2", "in money: $1.25 + $0.50 = $1.75"), ("1/4 - 3/4", "in money: $0.25 - $0.75 = (-$0.50)"),
            ("1/3 + 1/6", None), ("2 + 3", None), ("5/4", None),
        ):  # fmt: skip
            steps = work_text(problem, Ways(money_beside="yes")).working.steps
            lines = [OWN.plain(line) for step in steps for line in step.lines]
            self.assertEqual([line for line in lines if "money" in line], [said] if said else [], problem)

    @given(strategies.large_problems)
    @example(read("0 0/166 + 0 0/781 + 0 0/2501 + 0 0/3093").expr)  # of terms that can be simplified
    def test_what_is_worked_fits_the_limits_and_what_is_not_is_refused_in_the_cores_own_words(self, expr):
        # Nothing is refused whose answer fits, and the common denominator of its terms in lowest terms.
        typed, expected = text(expr), exact_sum(expr)
        common = lcm(*[Fraction(one.num, one.den).denominator for one in leaves(expr) if isinstance(one, Mixed)])
        try:
            self.assertEqual(exact_sum(work_text(typed).working.answer), expected)
        except LimitError as error:
            self.assertTrue(error.hint)
            self.assertGreaterEqual(max(abs(expected.numerator), common), 10**12)


def replace_steps(working, steps):
    """The working with other steps, built anew and so proven anew."""
    return type(working)(working.problem, working.ways, steps, working.answer, working.raw, working.used_denominator)
