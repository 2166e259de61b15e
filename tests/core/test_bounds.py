"""Nothing that can be typed keeps the core for long: periods, blanks, searches with a deadline, nasty texts."""

import time
import unittest
from fractions import Fraction
from itertools import product
from math import gcd, lcm
from random import Random
from unittest import mock

from hypothesis import given
from hypothesis import strategies as st
from sympy import n_order

from bench.nasty import memory, worst
from keen_slate.core.arithmetic.division import decimal_length, long_division
from keen_slate.core.building.given import read_numbers, read_wanted
from keen_slate.core.building.search import build as build_number
from keen_slate.core.diagnosing.answers import diagnose
from keen_slate.core.diagnosing.mend import nearest
from keen_slate.core.errors import LimitError
from keen_slate.core.expressions.text import text
from keen_slate.core.grading.rungs import RUNGS
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.ladders import Impossible, build_or_why, counts_of, grids, read_spec
from keen_slate.core.ladders.options import is_within
from keen_slate.core.ladders.smallest import smallest
from keen_slate.core.ladders.spaces import space_of
from keen_slate.core.ladders.spec import TermLimits
from keen_slate.core.searching.deadline import EndedEarlyError, after_looks, until
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import answers_from, work_text
from keen_slate.core.working.methods.blanks import Blanks, counted, listed


@st.composite
def blanks(draw):
    dens = draw(st.lists(st.integers(1, 9), min_size=1, max_size=4))
    common = lcm(*dens) * draw(st.sampled_from((1, 1, 2, 3)))
    taken = tuple(draw(st.booleans()) for _ in dens)
    proper = tuple(t or draw(st.booleans()) for t in taken)
    steps = tuple(common // d for d in dens)
    total = draw(st.integers(-3, 2 * common + 3))
    return Blanks(steps, tuple(dens), total, proper, taken, draw(st.booleans()), draw(st.booleans()))


def by_trying(sought):
    """All answers, by trying every choice of numerators."""
    ranges = [
        range(1, d if proper else max(1, sought.total // step + 1))
        for step, d, proper in zip(sought.steps, sought.dens, sought.proper, strict=True)
    ]
    for tops in product(*ranges):
        counting = [d - n if t else n for n, d, t in zip(tops, sought.dens, sought.taken, strict=True)]
        lowest = all(gcd(n, d) == 1 for n, d in zip(tops, sought.dens, strict=True))
        if sum(n * s for n, s in zip(counting, sought.steps, strict=True)) != sought.total:
            continue
        if (lowest or not sought.lowest) and (len(set(tops)) == len(tops) or not sought.different):
            yield tops


class BlankTests(unittest.TestCase):
    @given(blanks())
    def test_blanks_are_listed_and_counted_as_by_trying(self, sought):
        expected = list(by_trying(sought))
        self.assertEqual(listed(sought), expected[:200])
        self.assertEqual(counted(sought), len(expected))
        self.assertEqual(listed(sought, 2, 3), expected[2:5])

    def test_a_hundred_thousand_answers_are_counted_and_a_few_carried(self):
        working = work_text("_/60 + _/60 + _/60 + _/60 = 84/60").working
        # Compositions of 84 into 4 parts: C(83, 3) (stars and bars; published in any textbook of combinatorics, from
        # memory).
        self.assertEqual((working.count, len(working.answers)), (91881, 200))
        more = answers_from("_/60 + _/60 + _/60 + _/60 = 84/60", Ways(), 200)
        self.assertEqual(
            (text(working.answers[199]), text(more[0])),
            ("1/60 + 3/60 + 39/60 + 41/60 = 84/60", "1/60 + 3/60 + 40/60 + 40/60 = 84/60"),
        )
        for answer, verdict in (("1/60 + 3/60 + 40/60 + 40/60 = 84/60", "right"),
            ("1/60 + 3/60 + 40/60 + 41/60 = 84/60", "unexplained"),
                                ("0/60 + 4/60 + 40/60 + 40/60 = 84/60", "right-value"),
                                ("", "unreadable")):  # fmt: skip
            self.assertEqual(diagnose("_/60 + _/60 + _/60 + _/60 = 84/60", answer).verdict, verdict, answer)

    def test_too_many_to_count_are_said_to_be_more(self):
        working = work_text("_/9990 + _/9900 + _/9960 + _/9720 = 2").working
        self.assertIsNone(working.count)
        self.assertIn("200 answers and more", [line[0] for line in working.steps[0].lines])


class PeriodTests(unittest.TestCase):
    @given(st.integers(1, 10**12))
    def test_periods_are_those_of_number_theory(self, den):
        # Published library: SymPy's multiplicative order.
        once, period = decimal_length(den, 24)
        rest = den
        for p in (2, 5):
            while rest % p == 0:
                rest //= p
        if once <= 24 and period <= 24:
            self.assertEqual(period, 0 if rest == 1 else n_order(10, rest))
        elif rest < 10**6:
            self.assertGreater(once + n_order(10, rest) if rest > 1 else once, 24)

    @given(st.integers(1, 999), st.integers(1, 999))
    def test_digits_are_those_of_the_quotient(self, num, den):
        num %= den
        try:
            once, period = long_division(num, den)
        except LimitError:
            return self.assertGreater(sum(decimal_length(den // gcd(num, den), 10**6)), 24)
        nines = 10 ** len(period) - 1 if period else 1
        whole = int(once or "0") * nines + int(period or "0")
        self.assertEqual(whole * den, num * 10 ** len(once) * nines)

    def test_a_long_period_is_refused_at_once(self):
        begun = time.process_time()
        with self.assertRaisesRegex(LimitError, "more than 24 digits before they recur"):
            work_text("4.481288 ÷ 76.434062")
        self.assertLess(time.process_time() - begun, 10)


class DeadlineTests(unittest.TestCase):
    everything = {
        "rungs": dict.fromkeys(RUNGS, 1), "targets": list(ENTRIES), "separate": True, "denominators": [2, 3, 4, 6, 12],
        "largest_whole": 12,
    }  # fmt: skip

    def test_a_ladder_of_everything_ends_with_what_it_has(self):
        with until(after_looks(16_000)):
            made = build_or_why(read_spec(self.everything))
        self.assertEqual([found.rung for found in made.problems], list(RUNGS))
        self.assertTrue(made.ended_early)
        shown = {code for found in made.problems for code in found.answers}
        self.assertEqual(set(made.not_revealed), set(ENTRIES) - shown)

    def test_a_wish_of_many_denominators_ends_with_a_ladder_of_few(self):
        spec = read_spec(
            {"from": "M1", "to": "M8", "steps": 8, "denominators": list(range(2, 59)),
                "largest_common_denominator": 3600,
             "targets": ["add-across", "regroup-ten", "carry-lost"], "separate": True}
        )  # fmt: skip
        with until(after_looks(600)):
            made = build_or_why(spec)
        self.assertTrue(made.ended_early)
        self.assertEqual([found.rung for found in made.problems], list(spec.slots))
        self.assertTrue(all(is_within(found, found.rung, spec.limits) for found in made.problems))
        self.assertEqual(made.not_revealed, ())

    def test_going_through_what_does_not_fit_ends_at_the_deadline(self):
        # Hundreds of millions of problems, hardly one within the limit: none is found however long one looks.
        limits = TermLimits(denominators=(7, 11, 13, 17), largest_whole=99, below=Fraction(1, 9999))
        for rung in ("M11", "D6"):
            with until(after_looks(5000)), self.assertRaises(EndedEarlyError):
                list(space_of(rung, limits).all())
        with mock.patch.object(grids, "_IN_VAIN", 1000), self.assertRaises(EndedEarlyError):
            list(space_of("M11", limits).all())  # by its own bound, where nobody has a clock
        self.assertEqual(space_of("M10", limits).count, 0)  # each mixed number alone is more

    def test_every_search_ends_at_its_deadline(self):
        spec = read_spec({"rungs": {"F7": 1, "O4": 1}, "denominators": [7, 11, 13]})
        worked = work_text("7 1/4 - 3 5/6")
        numbers = read_numbers("1/9999, 1/9998, 1/9997, 1/9995, 1/9993, 1/9991")
        with until(lambda: True):
            self.assertRaises(EndedEarlyError, counts_of, spec)
            self.assertRaises(EndedEarlyError, build_or_why, spec)
            self.assertRaises(EndedEarlyError, smallest, ("add-across",))
            self.assertIsNone(nearest(worked, "add-across"))
            built = build_number(numbers, read_wanted("5"))
            self.assertEqual((built.ended_early, built.ways), (True, (numbers[-1],)))
        with until(after_looks(3000)):
            found = smallest(tuple(ENTRIES)[:12])
        self.assertTrue(found.ended_early and found.problems and not found.proven)

    def test_what_rules_a_wish_out_may_stay_unknown(self):
        wish = {"rungs": {"F6": 1}, "denominators": [2, 4], "largest_common_denominator": 4}
        with until(after_looks(40)):
            made = build_or_why(read_spec(wish))
        self.assertEqual(made, Impossible("rungs", None, ended_early=True))
        self.assertEqual(build_or_why(read_spec({"rungs": {"F6": 1}, "denominators": [2, 4]})).nearest, [2, 3, 4])


class NastyTests(unittest.TestCase):
    def test_no_nasty_text_takes_seconds_or_a_hundred_megabytes(self):
        seed = Random().randrange(
            10**6
        )  # another share of all nasty texts each time; the seed is said where one is found
        before = memory()
        for name, (took, written, _) in worst(250, seed).items():
            self.assertLess(took, 4, f"{name} with {written!r}, seed {seed}")
        self.assertLess(memory() - before, 100, f"seed {seed}")
