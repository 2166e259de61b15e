"""Likely wrong answers, each by a second definition; estimates and checks; what a pupil wrote, explained."""

import csv
import io
import json
import random
import subprocess
import unittest
from dataclasses import replace
from fractions import Fraction
from math import lcm
from typing import get_args

from hypothesis import assume, given
from hypothesis import strategies as st

from keen_slate.core.diagnosing.answers import VerdictWord, diagnose
from keen_slate.core.diagnosing.catalogue import as_markdown, catalogue
from keen_slate.core.diagnosing.choices import choices
from keen_slate.core.diagnosing.estimates import judge_estimate
from keen_slate.core.diagnosing.lines import check
from keen_slate.core.diagnosing.mend import nearest
from keen_slate.core.diagnosing.revealing import reveal
from keen_slate.core.documents.working import published
from keen_slate.core.errors import CoreError
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import Equation, Whole, mixed, value
from keen_slate.core.expressions.voice import OWN
from keen_slate.core.expressions.walks import leaves
from keen_slate.core.judging.checks import QUICK, checks, holds
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.sittings.stand_in import answers, make_class
from keen_slate.core.ways.settings import SETTINGS, Ways
from keen_slate.core.worked import work_text
from keen_slate.core.working.step_kinds import STEP_KINDS
from tests import strategies
from tools.application import ROOT
from tools.tables import FORMATS, renewed

digits = st.integers(0, 9999)
pairs = st.tuples(
    st.integers(1, 9), st.integers(1, 11), st.integers(2, 12), st.integers(0, 8), st.integers(1, 11), st.integers(2, 12)
)


def found_in(problem, code, **ways):
    """The entry *code* as it applies to a problem; None where it does not."""
    return next((f for f in work_text(problem, Ways.of(ways)).likely if f.entry.code == code), None)


def written(problem, code, **ways):
    found = found_in(problem, code, **ways)
    return found and text(found.wrong.answer)


class TableTests(unittest.TestCase):
    def test_examples_of_the_trade(self):
        # Common practice, except: published error patterns in column subtraction (Brown and Burton 1978, "smaller from
        # larger", "0 - n = n", borrowing without paying), from memory.
        table = {
            ("7.2 + 1.56", "right-aligned"): "2.28", ("3.9 + 2.4", "parts-as-wholes"): "5.13",
            ("4.75 + 2.68", "column-carry-lost"): "6.33", ("9.4 - 4.16", "dropped-digit"): "5.36",
            ("6.42 - 2.57", "column-smaller-from-larger"): "4.15", ("9.30 - 4.18", "regroup-not-paid"): "5.22",
            ("8.05 - 2.63", "zero-minus-digit"): "6.62", ("0.3 × 0.2", "point-as-in-adding"): "0.6",
            ("4 + 6 × 2", "left-to-right"): "20", ("24 ÷ 4 × 3", "multiply-before-divide"): "2",
            ("9 - 4 + 3", "add-before-subtract"): "2", ("5 × (2 + 3)", "brackets-ignored"): "13",
            ("7^2 + 1", "power-as-times"): "15",
            ("7 1/4 - 3 5/6", "smaller-from-larger"): "4 7/12", ("7 1/4 - 3 5/6", "regroup-ten"): "3 3/12",
            ("7 1/4 - 3 5/6", "regroup-one"): "3 6/12", ("7 1/4 - 3 5/6", "whole-not-reduced"): "4 5/12",
            ("9 - 4 2/3", "fraction-brought-down"): "5 2/3", ("9 - 4 2/3", "regrouped-brought-down"): "4 2/3",
            ("9 - 2/3", "fraction-brought-down"): "9 2/3", ("2/5 × 3/5", "kept-common-bottom"): "6/5",
            ("1/2 × 1/3", "kept-common-bottom"): "6/6", ("2 1/2 × 3 1/3", "parts-separately"): "6 1/6",
            ("4 ÷ 2/3", "flipped-first"): "1/6", ("4 ÷ 2/3", "not-flipped"): "2 2/3",
            ("3 5/8 + 2 7/8", "left-improper-part"): "5 12/8", ("3 5/8 + 2 7/8", "carry-lost"): "5 1/2",
            ("3 5/8 + 2 7/8", "whole-lost"): "1/2", ("3 5/8 + 2 7/8", "quotient-remainder-swapped"): "9 1/8",
            ("5/6 + 5/6", "quotient-remainder-swapped"): "4 1/6", ("5/6 + 5/6", "left-improper"): "10/6",
            ("3 10/4", "carry-lost"): "3 1/2", ("3 10/4", "own-whole-forgotten"): "2 1/2",
            ("3 5/8 + 2 7/8", "own-whole-forgotten"): "1 1/2",
            ("7 × 1 2/3", "only-whole-multiplied"): "7 2/3", ("2 3/4 × 4", "only-whole-multiplied"): "8 3/4",
            ("3/4 × 4", "only-whole-multiplied"): None,
            ("3 1/2 - 1 1/4", "added-for-subtracted"): "4 3/4", ("5.2 - 3.9", "added-for-subtracted"): "9.1",
            ("3 1/2 + 1 1/4", "added-for-subtracted"): None,
            ("3 1/2 + 1 1/4", "subtracted-for-added"): "2 1/4", ("1/4 + 1/4", "subtracted-for-added"): "0",
            ("1/4 + 3/4", "subtracted-for-added"): None,
            ("1/2 - 3/4 - 1/8", "sign-lost"): "3/8", ("-2/3 × 1/2", "sign-lost"): "1/3", ("3 - 7", "sign-lost"): None,
            ("7/8 - 1/8", "sign-lost"): None,
            ("(3 + 1/2) × 2", "stopped-after-bracket"): "3 1/2", ("2 × (3.5 - 1.25)", "stopped-after-bracket"): "2.25",
            ("(1 + 2) × (3 + 4)", "stopped-after-bracket"): None, ("5 - 11 + 1/2", "add-before-subtract"): "-6 1/2",
            ("1/2 - 1/4 + 1/2", "add-before-subtract"): None,
            ("5/12 + 1/4", "half-simplified"): "4/6", ("5/24 + 7/24", "half-simplified"): "6/12",
        }  # fmt: skip
        for (problem, code), answer in table.items():
            self.assertEqual(written(problem, code), answer, (problem, code))
        # CCSS-M 5.NF.A.2 (published, from memory): 2/5 + 1/2 = 3/7 is seen to be wrong, because 3/7 < 1/2.
        worked = work_text("2/5 + 1/2")
        self.assertEqual(written("2/5 + 1/2", "add-across"), "3/7")
        self.assertFalse(holds(checks(worked.working)[0], worked.working, Fraction(3, 7)))
        self.assertIsNone(found_in("9 1/2 - 4 1/3", "regroup-ten"))  # nothing has to be regrouped
        self.assertIsNone(found_in("7 1/10 - 3 3/10", "regroup-ten"))  # ten is right for tenths
        self.assertEqual(found_in("9 - 4 2/3", "regroup-one").status, "hidden")
        self.assertIsNone(found_in("8.03 - 2.67", "zero-minus-digit"))  # such a column would have to lend as well

    def test_the_improper_way_has_its_own_errors(self):
        codes = {f.entry.code for f in work_text("7 1/4 - 3 5/6", Ways.of({"mixed_subtract": "improper"})).likely}
        self.assertIn("whole-added-to-top", codes)
        self.assertFalse(
            codes & {"regroup-ten", "smaller-from-larger", "whole-not-reduced", "carry-lost", "left-improper-part"}
        )
        self.assertEqual(written("2 1/3 + 1 1/2", "whole-added-to-top", mixed_add="improper"), "2")
        working = work_text("4 3/7", target="improper")
        self.assertEqual({f.entry.code: text(f.wrong.answer) for f in working.likely},
                         {"whole-added-to-top": "7/7", "times-top-plus-bottom": "19/7"})  # fmt: skip


class PupilsEstimateTests(unittest.TestCase):
    def judged(self, problem, estimate, **ways):
        found = judge_estimate(work_text(problem, Ways.of(ways)), estimate)
        return found.verdict, found.codes

    def test_a_pupils_estimate_is_told_from_each_way_it_can_go_wrong(self):
        cases = [
            ("7 1/4 - 3 5/6", "3 1/2", "fits", ()), ("7 1/4 - 3 5/6", "3", "fits", ()),  # a tie goes either way
            ("7 1/4 - 3 5/6", "11 1/2", "explained", ("estimate-operation",)),
            ("4 5/6 + 2 1/10", "3", "explained", ("whole-forgotten",)),  # 1 + 2
            ("4 5/6 + 2 1/10", "6 1/2", "explained", ("truncated", "wrong-benchmark")),  # 4 1/2 + 2, in either way
            ("5/12 + 5/12", "1/2", "explained", ("wrong-benchmark",)),
            ("1/6 + 1/6", "1/2", "explained", ("rounded-after", "wrong-benchmark")),
            ("4 1/3 + 2 5/8", "7", "fits", ()), ("4 5/6 + 2 3/5", "6", "explained",
                ("truncated",)),  # halves and wholes; cut off to wholes
            ("4 5/6 + 2 1/10", "7 1/4", "near", ()), ("4 5/6 + 2 1/10", "20", "too-far", ()),
            ("4 5/6 + 2 1/10", "much", "unreadable", ()),
            ("3.9 + 2.8", "5", "explained", ("truncated",)), ("3.9 × 2.1", "8", "fits", ()),
            ("3.9 × 2.1", "30", "too-far", ()),
        ]  # fmt: skip
        for problem, estimate, verdict, codes in cases:
            with self.subTest(problem, estimate=estimate):
                found = self.judged(problem, estimate)
                self.assertEqual(found[0], verdict)
                self.assertLessEqual(set(codes), set(found[1]))
                self.assertEqual(bool(codes), bool(found[1]))
        # NAEP 1978, age 13 (from memory): 12/13 + 7/8 is about 2; 1, 19 and 21 were the other choices.
        choices = {choice: self.judged("12/13 + 7/8", choice)[0] for choice in ("1", "2", "19", "21")}
        self.assertEqual({c for c, verdict in choices.items() if verdict == "fits"}, {"2"})
        self.assertEqual({choices["19"], choices["21"]}, {"too-far"})

    @given(strategies.classroom_pairs, strategies.all_ways)
    def test_the_classs_own_estimate_always_fits_and_the_answer_is_never_too_far(self, expr, ways):
        worked = work_text(text(expr), replace(ways, decimal_mark="point"))
        assume(worked.estimate is not None)
        total = worked.estimate.total if worked.estimate.total is not None else worked.estimate.low
        self.assertEqual(judge_estimate(worked, text(mixed(total))).verdict, "fits")
        self.assertNotEqual(judge_estimate(worked, text(mixed(worked.working.value))).verdict, "too-far")

    def test_an_estimate_that_is_the_answer_says_so_and_offers_the_coarser_rule(self):
        found = judge_estimate(work_text("3 3/4 + 1 3/4"), "5 1/2")
        self.assertIn("gives the answer itself away. To the nearest <whole> it is about ", found.reason[0])
        self.assertEqual(found.reason[1], Whole(6))


class ChoiceTests(unittest.TestCase):
    @given(strategies.problems)
    def test_one_of_four_is_right_and_all_have_different_values(self, expr):
        try:
            worked = work_text(text(expr))
        except CoreError:
            return
        found = choices(worked)
        if not found:
            self.assertTrue(isinstance(worked.working.answer, Equation) or len(worked.working.answers) > 1)
            return
        values = [value(one.answer) for one in found]
        self.assertEqual(values, sorted(set(values)))
        self.assertEqual([one.label for one in found], list("ABCD"[: len(found)]))
        (right,) = [one for one in found if one.right]
        self.assertEqual((right.answer, right.codes), (worked.working.answer, ()))
        likely = {one.entry.code: one.answer_value for one in worked.likely if one.status == "reveals"}
        for one in found:
            for code in () if one.right else one.codes:
                self.assertTrue(code.startswith("slip-") or likely[code] == value(one.answer))
        shown = {likely[code] for one in found for code in one.codes if code in likely}
        self.assertEqual(len(shown), min(3, len(set(likely.values()))), "likely answers come before slips")

    def test_the_command_line_says_what_each_option_tells(self):
        done = subprocess.run(
            [str(ROOT / "slate"), "choices", "7 1/4 - 3 5/6 ft", "--json"], capture_output=True, text=True, check=True
        )
        options = json.loads(done.stdout)["options"]
        self.assertEqual([one["answer"] for one in options], ["3 3/12 ft", "3 5/12 ft", "4 5/12 ft", "4 7/12 ft"])
        self.assertEqual([one.get("right", False) for one in options], [False, True, False, False])
        self.assertEqual(options[3]["codes"], ["smaller-from-larger"])


class SideCalculationTests(unittest.TestCase):
    def told(self, problem, *lines):
        checked = check(problem, list(lines))
        signs = "".join(
            "s" if one.side else "?" if one.equal is None else "=" if one.equal else "x" for one in checked.lines
        )
        return signs, checked.first_wrong, checked.answer

    def test_what_is_true_on_the_side_and_used_is_no_wrong_line(self):
        for problem, lines, expected in (
            ("2 1/4 + 3 1/2", ["1/4 + 1/2 = 3/4", "2 + 3 = 5", "5 3/4"], ("ss=", None, "right")),
            ("1/3 + 5/12", ["1/3 = 4/12", "4/12 + 5/12", "9/12", "3/4"], ("s===", None, "right")),
            (
                "2 1/4 + 3 1/2",
                ["1/4 + 1/2 = 2/6", "5 2/6"],
                ("x=", 0, "explained"),
            ),  # not true; what follows goes on with it
            ("2 1/4 + 3 1/2", ["7 - 1 = 6", "5 3/4"], ("s=", None, "right")),  # true, and used nowhere
            ("1/2 + 1/3", ["1 + 4 = 5"], ("x", 0, "unexplained")),  # the last line is the answer
            ("2.75 + 1.48", ["2.75", "+ 1.48", "------", "4.23"], ("sss=", None, "right")),
            ("2.75 + 1.48", ["2.75", "+1.48", "----", "3.13"], ("sssx", 3, "explained")),
            ("9.30 - 4.18", ["9.30", "−4.18", "___", "5.12"], ("sss=", None, "right")),
            ("5/8 + _ = 1 1/4", ["_ = 1 1/4 - 5/8", "_ = 5/8", "5/8 + 5/8 = 1 1/4"], ("===", None, "right")),
            ("5/8 + _ = 1 1/4", ["5/8 + 5/8 = 1 1/4"], ("=", None, "right")),
            ("5/8 + _ = 1 1/4", ["3/8 + 7/8 = 1 1/4"], ("x", 0, "unexplained")),  # another equation
        ):
            with self.subTest(problem, lines=lines):
                self.assertEqual(self.told(problem, *lines), expected)

    def test_only_the_answer_is_judged_for_its_form(self):
        checked = check("2 3/4 + 1 2/3", ["3 17/12", "4 5/12"])
        self.assertEqual([line.faults for line in checked.lines], [(), ()])
        self.assertEqual(check("2 3/4 + 1 2/3", ["3 17/12"]).lines[0].faults, ("improper-part",))
        self.assertEqual(check("2.75 + 1.48", ["2.75", "+1.48", "----", "3.13"]).lines[3].faults, ())


class SecondDefinitionTests(unittest.TestCase):
    @given(pairs, st.sampled_from("+-"))
    def test_fractions(self, numbers, operator):
        w1, n1, d1, w2, n2, d2 = numbers
        n1, n2 = n1 % d1 or 1, n2 % d2 or 1
        problem = f"{w1} {n1}/{d1} {operator} " + (f"{w2} {n2}/{d2}" if w2 else f"{n2}/{d2}")
        worked = work_text(problem)
        if worked.working.value < 0:
            return
        common, sign = lcm(d1, d2), 1 if operator == "+" else -1
        a, b, whole = n1 * common // d1, n2 * common // d2, w1 + sign * w2
        expected = {
            "add-across": whole + Fraction(n1 + sign * n2, d1 + sign * d2)
            if d1 + sign * d2 > 0 and n1 + sign * n2 >= 0
            else None
        }
        if d1 != d2:
            expected["top-not-scaled"] = whole + Fraction(n1 + sign * n2, common) if n1 + sign * n2 >= 0 else None
            expected["scaled-by-adding"] = whole + Fraction(n1 + common - d1 + sign * (n2 + common - d2), common)
            expected["added-common-bottoms"] = whole + Fraction(a + b, 2 * common) if sign > 0 else None
            larger = Fraction(n1 + sign * n2, max(d1, d2))
            expected["kept-larger-bottom"] = whole + larger if common not in (d1, d2) and larger >= 0 else None
        if sign < 0 and a < b:
            expected["smaller-from-larger"] = whole + Fraction(b - a, common)
            expected["regroup-ten"] = whole - 1 + Fraction(abs(a + 10 - b), common) if common != 10 else None
            expected["regroup-one"] = whole - 1 + Fraction(abs(a + 1 - b), common)
            expected["whole-not-reduced"] = whole + Fraction(a + common - b, common)
        found = {f.entry.code: f.answer_value for f in worked.likely}
        for code, answer in expected.items():
            if answer is not None and answer < 0:
                answer = None
            if code == "scaled-by-adding" and n1 + common - d1 + sign * (n2 + common - d2) < 0:
                answer = None
            self.assertEqual(found.get(code), answer, (problem, code))

    @given(digits, digits, st.integers(1, 3))
    def test_columns_by_strings(self, a, b, places):
        a, b = max(a, b), min(a, b)

        def point(n):
            return f"{n // 10**places}.{n % 10**places:0{places}}"

        found = {f.entry.code: f.answer_value for f in work_text(f"{point(a)} - {point(b)}").likely}
        top, bottom = str(a).zfill(5), str(b).zfill(5)
        smaller = int("".join(str(abs(int(t) - int(u))) for t, u in zip(top, bottom, strict=True)))
        unpaid = int("".join(str((int(t) - int(u)) % 10) for t, u in zip(top, bottom, strict=True)))
        needs = any(t < u for t, u in zip(top, bottom, strict=True))
        for code, n in [("column-smaller-from-larger", smaller), ("regroup-not-paid", unpaid)]:
            self.assertEqual(found.get(code), Fraction(n, 10**places) if needs else None, (a, b, code))
        found = {f.entry.code: f.answer_value for f in work_text(f"{point(a)} + {point(b)}").likely}
        short = max(len(str(a)), len(str(b)), places + 1)  # a zero before the point is a column, too
        x, y = str(a).zfill(short), str(b).zfill(short)
        lost = int(
            str(int(x[0]) + int(y[0])) + "".join(str((int(t) + int(u)) % 10) for t, u in zip(x[1:], y[1:], strict=True))
        )
        carried = any(int(x[i:]) + int(y[i:]) >= 10 ** (short - i) for i in range(1, short))
        self.assertEqual(found.get("column-carry-lost"), Fraction(lost, 10**places) if carried else None, (a, b))
        before, after = a // 10**places + b // 10**places, a % 10**places + b % 10**places
        whole = Fraction(f"{before}.{after}") if after >= 10**places else None
        self.assertEqual(found.get("parts-as-wholes"), whole)

    @given(st.lists(st.tuples(st.sampled_from("+-×"), st.integers(1, 12)), min_size=3, max_size=5))
    def test_left_to_right(self, chain):
        problem = " ".join(f"{op} {n}" for op, n in chain)[2:]
        worked = work_text(problem)
        total = chain[0][1]
        for op, n in chain[1:]:
            total = total + n if op == "+" else total - n if op == "-" else total * n
        found = next((f for f in worked.likely if f.entry.code == "left-to-right"), None)
        if found is not None:
            self.assertEqual(found.answer_value, total)
        else:
            self.assertTrue(total == worked.working.value or total < 0 <= worked.working.value)

    @given(strategies.classroom_pairs, strategies.all_ways)
    def test_every_wrong_answer_is_told_for_what_it_is(self, expr, ways):
        worked = work_text(text(expr), ways)
        right = worked.working.value
        for found in worked.likely:
            verdict = diagnose(text(expr), text(found.wrong.answer), ways)
            if found.status == "reveals":
                self.assertNotEqual(found.answer_value, right)
                self.assertEqual(verdict.verdict, "explained")
                self.assertIn(found.entry.code, [code for one in verdict.explanations for code in one.codes])
                caught = worked.estimate is not None and worked.estimate.catches(found.answer_value)
                self.assertEqual(found.caught_by_estimate, caught)
            elif found.status == "form":
                self.assertEqual((found.answer_value, verdict.verdict), (right, "right-value"))
            else:
                self.assertEqual(found.answer_value, right)
        self.assertEqual(diagnose(text(expr), worked.working.answer_text, ways).verdict, "right")


class EstimateTests(unittest.TestCase):
    @given(
        strategies.add_subtract_problems, st.sampled_from(["half", "whole", "between"]), st.sampled_from(["up", "down"])
    )
    def test_a_right_answer_is_never_caught(self, expr, rule, ties):
        worked = work_text(text(expr), Ways.of({"estimate": rule, "ties": ties}))
        assume(worked.estimate is not None)
        self.assertEqual(worked.estimate.rule, rule)
        self.assertTrue(worked.estimate.within)
        self.assertFalse(worked.estimate.catches(worked.working.value))
        for one in checks(worked.working):
            self.assertTrue(holds(one, worked.working, worked.working.value))

    def test_the_check_in_decimals_writes_each_number_as_it_is(self):
        said = [OWN.plain(one.said) for one in checks(work_text("0.12345 + 0.00005 + 1/2").working)]
        self.assertIn("In decimals: 0.12345 + 0.00005 + 0.5 = 0.6235.", said)

    def test_rules_and_what_they_say(self):
        # Published: NAEP 1978, age 13: 12/13 + 7/8 is about 2 (of 1, 2, 19, 21); from memory.
        self.assertEqual(work_text("12/13 + 7/8").estimate.total, 2)
        between = published(work_text("3 1/4 + 2 5/6", Ways.of({"estimate": "between"})))["estimate"]
        self.assertEqual((between["low"], between["high"], between["value"]), ("5/1", "7/1", None))
        self.assertEqual(work_text("30.4 - 7.85").estimate.rule, "whole")
        order = published(work_text("3.9 × 2 + 1.2"))["estimate"]
        self.assertEqual((order["value"], order["bound"], order["within"]), ("9/1", None, None))
        said = [one.code for one in checks(work_text("1/2 + 3/4").working)]
        self.assertEqual(said, ["more-than-each", "beside-one", "inverse", "decimals"])
        self.assertTrue(set(QUICK) < {"more-than-each", "less-than-start", "beside-one", "inverse", "decimals"})


class DiagnoseTests(unittest.TestCase):
    def test_verdicts(self):
        for problem, answer, verdict, more in [
            ("7 1/4 - 3 5/6", "3 5/12", "right", None), ("7 1/4 - 3 5/6", " 41/12 ", "right-value", "improper"),
            ("7 1/4 - 3 5/6", "2 17/12", "right-value", "improper-part"),
            ("1/2 + 1/3", "10/12", "right-value", "not-lowest-terms"),
            ("1/2 + 1/2", "2/2", "right-value", "whole-as-fraction"), ("1/2 + 1/4", "0.75", "right-value",
                "decimal-for-fraction"),
            ("0.5 + 0.25", "3/4", "right-value", "fraction-for-decimal"), ("0.5 + 0.25", "0.750", "right", None),
            ("5 3/8 - 2 1/8 ft", "3 1/4", "right-value", "label-missing"),
            ("5 3/8 - 2 1/8 ft", "3 1/4 m", "right-value", "label-wrong"),
            ("1/2 + 1/3", "", "unreadable", None), ("1/2 + 1/3", "about one", "unreadable", None),
            ("1/2 + 1/3", "5/0", "unreadable", None),
            ("1/2 + 1/3", "1/2 1/3", "unreadable", None), ("1/2 + 1/3", "3/6 + 2/6", "unreadable", None),
            ("1/2 + 1/3", "999", "unexplained", None), ("5/8 + _ = 1 1/4", "5/8", "right", None),
            ("_/8 + _/4 = 7/8", "1/8 + 3/4 = 7/8", "right", None),
        ]:  # fmt: skip
            found = diagnose(problem, answer)
            self.assertEqual((found.verdict, found.form_fault), (verdict, more), (problem, answer))

    def test_same_form_first_then_fewer_kinds_ties_as_ties_two_together_then_slips(self):
        tie = diagnose("8.05 - 2.63", "6.62").explanations
        self.assertEqual(
            [(one.rank, one.codes[0]) for one in tie], [(1, "column-smaller-from-larger"), (1, "zero-minus-digit")]
        )
        # 5 + 2 = 7 and 9/12 + 10/12 done as 11/12 + 11/12 = 22/12, then tidied to 10/12 without the whole: 7 5/6.
        two = diagnose("5 3/4 + 2 5/6", "7 5/6").explanations
        self.assertEqual([(one.rank, one.codes) for one in two], [(1, ("scaled-by-adding", "carry-lost"))])
        both = diagnose("2 1/3 ÷ 1 1/2", "2 1/2").explanations
        self.assertEqual([one.codes for one in both], [("times-top-plus-bottom", "not-flipped")])
        slip = diagnose("7/12 + 1/6", "10/12").explanations[0]
        self.assertTrue(slip.codes[0].startswith("slip-"))
        swapped = diagnose("4.75 + 2.68", "7.34").explanations
        self.assertIn("slip-swapped", [one.codes[0] for one in swapped])

    @given(
        st.sampled_from(["7 1/4 - 3 5/6", "30.4 - 7.85", "4 + 6 × 2", "2/7 = _/21", "_ + 1/2 = 3"]), strategies.texts
    )
    def test_any_text_gets_a_verdict(self, problem, answer):
        self.assertIn(
            diagnose(problem, answer).verdict, ("right", "right-value", "explained", "unexplained", "unreadable")
        )
        checked = check(problem, answer.splitlines())
        self.assertEqual(len(checked.lines), len(answer.splitlines()))

    def test_a_class_is_understood(self):
        problems = [entry.example for entry in ENTRIES.values()] + [
            "5/6 + 7/8",
            "12 1/8 - 9 3/4",
            "6.4 - 2.15",
            "3 + 4 × 5 - 2",
        ]
        told = hits = 0
        for one in answers(make_class([f"pupil {i}" for i in range(60)], 6), problems, 6):
            verdict = diagnose(one.problem, one.answer)
            if one.code is None:
                self.assertEqual(verdict.verdict, "right", one)
            elif verdict.verdict != "right" and not one.code.startswith("slip-"):
                told += 1
                hits += any(one.code in found.codes for found in verdict.explanations if found.rank == 1)
        self.assertGreater(told, 200)
        self.assertGreaterEqual(hits, 0.97 * told)  # the goal; the bench prints it for 20,000 answers, by code

    def test_a_written_working(self):
        checked = check("7 1/4 - 3 5/6", ["7 3/12 - 3 10/12", "= 6 15/12 - 3 10/12", "4 5/12"])
        self.assertEqual([line.equal for line in checked.lines], [True, True, False])
        self.assertEqual((checked.first_wrong, checked.answer), (2, "explained"))
        first = check("1/4 + 2/3", ["1/12 + 2/12", "3/12"])
        self.assertEqual(first.first_wrong, 0)
        across = check("7 1/4 - 3 5/6", ["7 3/12 - 3 10/12", "4 7/12"]).lines[1]
        self.assertEqual(across.codes, ("smaller-from-larger",))
        misuse = check("5 + 3 + 2", ["5 + 3 = 8 + 2 = 10"])
        self.assertEqual(
            (misuse.lines[0].equal, misuse.lines[0].faults, misuse.answer), (True, ("equals-sign-misused",), "right")
        )
        self.assertEqual(check("2 3/4 + 1 5/6", ["3 19/12"]).lines[0].faults, ("improper-part",))
        self.assertIsNone(check("1/2 + 1/3", ["hm?"]).lines[0].equal)


class RevealingTests(unittest.TestCase):
    @given(strategies.classroom_pairs)
    def test_the_nearest_problem_does_what_it_is_for(self, expr):
        worked = work_text(text(expr))
        hidden = [f.entry.code for f in worked.likely if f.status == "hidden"]
        alike = [(f.entry.code, f.same_as[0]) for f in worked.likely if f.status == "reveals" and f.same_as]
        if not hidden and not alike:
            return
        code, other = (hidden[0], None) if hidden else alike[0]
        mended = nearest(worked, code, other)
        if mended is None:
            return
        shown = {f.entry.code: f for f in mended.likely}
        self.assertEqual(shown[code].status, "reveals")
        if other in shown:
            self.assertNotEqual(shown[code].answer_value, shown[other].answer_value)

    def test_what_a_set_reveals(self):
        found = reveal([work_text("8.05 - 2.63"), work_text("9 - 4 2/3")])
        statuses = {row.code: row.statuses for row in found.rows}
        self.assertEqual(statuses["regroup-one"], (None, "hidden"))
        self.assertIn(("column-smaller-from-larger", "zero-minus-digit"), found.alike)
        added = reveal([work_text("8.05 - 2.63"), work_text("9 - 4 2/3"), *found.add])
        self.assertEqual(added.alike, ())
        self.assertTrue(reveal([work_text("7 1/4 - 3 1/6")]).wrong >= 0)


class CatalogueTests(unittest.TestCase):
    def test_the_document_is_what_the_code_makes_and_every_example_shows_its_entry(self):
        self.assertEqual((ROOT / "docs/misconceptions.md").read_text(encoding="utf-8"), as_markdown())
        formats = FORMATS.read_text(encoding="utf-8")
        self.assertEqual(formats, renewed(formats))
        for code in (*STEP_KINDS, *SETTINGS, "M1 to M11", "`story`"):
            self.assertIn(code, formats)
        for shown in catalogue():
            self.assertIn(shown.likely.status, ("reveals", "form"), shown.entry.code)
            self.assertTrue(shown.entry.question.endswith("?"))


class CommandTests(unittest.TestCase):
    def run_slate(self, *arguments, given_in=""):
        return subprocess.run(
            [ROOT / "slate", *arguments], input=given_in, capture_output=True, text=True, timeout=60, check=False
        )

    def test_a_batch_keeps_its_rows_and_columns(self):
        dice = random.Random(3)
        rows = [
            (
                str(i),
                dice.choice(["1/2+1/3", "7 1/4 - 3 5/6", "what?"]),
                dice.choice(["2/5", "5/6", "4 7/12", "no", '"']),
                "O'Hara, <b>",
            )
            for i in range(40)
        ]
        source = io.StringIO()
        csv.writer(source).writerows([("id", "problem", "answer", "name"), *rows])
        done = self.run_slate("diagnose", "--batch", "-", given_in=source.getvalue())
        out = list(csv.reader(io.StringIO(done.stdout)))
        self.assertEqual(out[0], ["id", "problem", "answer", "name", "verdict", "codes"])
        self.assertEqual([tuple(row[:4]) for row in out[1:]], rows)
        told = {(row[1], row[2]): tuple(row[4:]) for row in out[1:]}
        self.assertEqual(told.get(("1/2+1/3", "2/5"), ("explained", "add-across")), ("explained", "add-across"))
        self.assertEqual(
            {verdict for (problem, _), (verdict, _) in told.items() if problem == "what?"}, {"problem-unreadable"}
        )
        refused = self.run_slate("diagnose", "--batch", "-", given_in="a,b\n1,2\n")
        self.assertEqual((refused.returncode, refused.stdout), (2, ""))
        self.assertIn("problem", json.loads(refused.stderr)["error"]["message"])

    def test_documents_and_signs(self):
        said = json.loads(self.run_slate("diagnose", "-3/4 + 1/2", "-2/8", "--json").stdout)
        self.assertEqual(
            (said["verdict"], said["form_fault"], said["value"]), ("right-value", "not-lowest-terms", "-1/4")
        )
        lines = json.loads(
            self.run_slate("check", "7 1/4 - 3 5/6", "--json", given_in="7 3/12 - 3 10/12\n4 7/12\n").stdout
        )
        self.assertEqual(
            (lines["first_wrong"], lines["lines"][1]["codes"], lines["answer"]),
            (1, ["smaller-from-larger"], "explained"),
        )
        self.assertEqual(self.run_slate("diagnose", "1/0", "5").returncode, 2)


class FilledTests(unittest.TestCase):
    def test_what_is_filled_into_blanks_is_right_asked_otherwise_or_explained(self):
        for problem, written in {
            "2/3 = _/12": {"8": "right", "8/12": "right", "2/3 = 8/12": "right", "11": "chain-added",
                "11/12": "chain-added", "9": None},
            "_/4 = 6/8 = 9/_": {"3, 12": "right", "2, 11": "chain-added", "3": None, "3, 12, 5": None},
            "_/2 + _/3 = 13/6": {"1, 5": "right", "3 and 2": "right", "1/2, 5/3": "right", "6, 7": "top-not-scaled",
                "1, 1": None},
        }.items():  # fmt: skip
            for answer, expected in written.items():
                verdict = diagnose(problem, answer)
                codes = [code for one in verdict.explanations for code in one.codes]
                right = [verdict.verdict] if verdict.verdict == "right" else codes
                self.assertEqual(right, [expected] if expected else [], (problem, answer))
        fault = diagnose("_/4 + _/4 = 1", "2, 2", Ways.of({"blank_different": "yes"}))
        self.assertEqual((fault.verdict, fault.form_fault), ("right-value", "blank-equal"))
        for problem, asked, answer, wanted in (
            ("_/4 + _/4 = 6/4", {"blank_proper": "yes"}, "3, 3", None),
            ("_/4 + _/4 = 6/4", {"blank_proper": "yes"}, "1, 5", "blank-improper"),
            ("_/4 + _/3 = 11/12", {"blank_lowest": "yes"}, "1, 2", None),
            ("_/6 + _/3 = 5/6", {"blank_lowest": "yes"}, "3, 1", "not-lowest-terms"),
            ("_/2 + _/3 = 7/3", {}, "0, 7", "blank-zero"), ("_/2 + _/3 = 13/6", {}, "1, 5", None),
        ):  # fmt: skip
            self.assertEqual(diagnose(problem, answer, Ways.of(asked)).form_fault, wanted, (problem, answer))
        for other in ("3/4 = 9/12", "2/3 = _/12", "2/3 = 8/12 = 4/6", "2/3 ="):
            self.assertEqual(diagnose("2/3 = _/12", other).verdict, "unexplained", other)
        for unreadable in ("", "x", "what?"):
            self.assertEqual(diagnose("2/3 = _/12", unreadable).verdict, "unreadable")

    @given(st.integers(1, 9), st.integers(2, 9), st.integers(2, 9), st.integers(2, 9), st.text(max_size=12))
    def test_every_answer_of_a_problem_with_blanks_is_right_as_numbers_too(self, n, d, e, k, noise):
        problem = f"_/{d} + _/{e} = {n}/{d * e}"
        try:
            answers = work_text(problem).working.answers
        except CoreError:
            return
        for answer in answers[:k]:
            tops = [str(term.num) for term in leaves(answer.sides[0])]
            self.assertEqual(diagnose(problem, ", ".join(tops)).verdict, "right")
            self.assertEqual(diagnose(problem, text(answer)).verdict, "right")
        self.assertIn(diagnose(problem, noise).verdict, get_args(VerdictWord))

    def test_a_unit_word_is_said_in_the_number_that_the_answer_has(self):
        for problem, answer, taken in (
            ("1/2 + 1/2 yards", "1 yard", "1 yards"), ("3/4 + 3/4 foot", "1 1/2 feet", "1 1/2 foot"),
            ("1/2 + 1/2 yd", "1 yd", "1 yd"),
        ):  # fmt: skip
            self.assertEqual(work_text(problem).working.answer_text, answer)
            self.assertEqual([diagnose(problem, one).verdict for one in (answer, taken)], ["right", "right"])
        self.assertEqual(diagnose("1/2 + 1/2 yards", "1 metre").form_fault, "label-wrong")
