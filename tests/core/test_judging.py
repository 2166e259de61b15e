"""Estimates, likely wrong answers, features and rungs, words: against a second definition wherever there is one."""

import ast
import re
import unittest
from dataclasses import replace
from fractions import Fraction
from pathlib import Path

from hypothesis import given
from hypothesis import strategies as st

import keen_slate.core
from keen_slate.core.expressions.aloud import aloud
from keen_slate.core.expressions.spoken import cardinal, ordinal, words
from keen_slate.core.expressions.terms import parts, signed_terms
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import Frac, Mixed, Whole, value
from keen_slate.core.expressions.typeset import glyphs
from keen_slate.core.expressions.voice import OWN
from keen_slate.core.grading.compare import other_ways
from keen_slate.core.judging.checks import checks, holds
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.judging.slips import slips
from keen_slate.core.reading.reader import read
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text
from keen_slate.core.working.methods import work
from tests import strategies
from tests.support_core import viewed

# One problem a rung, made for this test from the descriptions of the rungs.
RUNGS = {
    "1/5 + 2/5": "F1", "3/8 + 1/8": "F2", "4/5 + 3/5": "F3", "2/3 + 1/6": "F4", "5/6 - 3/4": "F5", "3/4 + 2/5": "F6",
    "1/9 + 4/9 + 5/9": "F7", "1/2 + 1/4 + 1/8": "F8", "1/2 + 1/3 + 1/4": "F9", "6 5/9 = 5 _/9": "E5",
    "2 1/5 + 1 2/5": "M1", "2 4/5 + 1 2/5": "M2", "2 1/4 + 1 1/3": "M3", "2 3/4 + 2/3": "M4",
    "6 5/8 - 2 1/8": "M5", "6 5/8 - 2": "M5", "9 - 4 2/3": "M6", "9 - 2/3": "M6", "8 1/5 - 3 4/5": "M7",
    "7 1/4 - 3 5/6": "M8", "10 1/6 - 4 9/10": "M9", "1/2 - 1/2": "F1", "3 + 2 1/2": "M1", "2 5/2 + 1 1/3": "M3",
    "5/4 + 1/4": "F3", "1 1/2 + 1 1/2 + 1": "M10", "4 1/2 - 1 1/3 + 2": "M11", "2/3 = _/12": "E1",
    "1/2 = _/4 = 3/_": "E2",
    "5/8 + _ = 1 1/4": "E3", "_/2 + _/3 = 13/6": "E4", "6/9": "N1", "8/12": "N2", "3 6/8": "N3", "3 9/8": "N4",
    "17/6": "V1",
    "3.25": "V3", "0.[6]": "V4", "2/3 × 6": "P1", "2/3 × 4/5": "P2", "2 1/2 × 2/5": "P3", "2/3 ÷ 4": "P4",
    "0.3 × 0.2": "P5",
    "7.2 ÷ 0.9": "P6", "-1/2 + 3/4": "O4", "9.75 - 4.3": "D3", "47 + 31": "W1", "47 + 38": "W2", "52 - 9": "W2",
    "7 × 8": "W3",
}  # fmt: skip


def found(problem: str, **ways: str) -> dict[str, tuple[str, str]]:
    worked = work_text(problem, Ways.of(ways))
    return {item.entry.code: (text(item.wrong.answer), item.status) for item in worked.likely}


class EstimateTests(unittest.TestCase):
    @given(strategies.add_subtract_problems, st.sampled_from(["up", "down"]))
    def test_each_term_is_rounded_to_the_nearest_half_and_the_bound_holds(self, expr, ties):
        about = work_text(text(expr), Ways.of({"ties": ties})).estimate
        if about is None:  # it would be the problem itself
            self.assertTrue(all((2 * value(term)).denominator == 1 for _, term in signed_terms(expr)))
            return
        for i, ((_, term), rounded) in enumerate(zip(signed_terms(expr), about.rounded, strict=True)):
            distance = abs(value(term) - value(rounded))
            self.assertEqual((value(rounded) * 2).denominator, 1)
            self.assertLessEqual(distance, Fraction(1, 4))
            self.assertEqual(i in about.ties, distance == Fraction(1, 4))
            if i in about.ties:  # by size: up is away from 0, down towards it
                self.assertEqual(abs(value(rounded)) > abs(value(term)), ties == "up")
        self.assertEqual(about.bound, Fraction(len(about.rounded), 4))
        self.assertTrue(about.within)

    def test_a_factor_below_one_goes_to_a_part_and_never_to_zero(self):
        told = {  # common practice; nothing is said where the estimate would be the problem itself
            "0.6 × 2.5": ("0.5 × 2.5", Fraction(5, 4)), "3 1/4 × 1/9": ("3 1/2 × 1/10", Fraction(7, 20)),
            "36 × 0.04": ("36 × 0.1", Fraction(18, 5)),
            "7/8 × 40": ("1 × 40", Fraction(40)), "3/4 ÷ 1/9": ("3/4 ÷ 1/10", Fraction(15, 2)),
            "0.3 × 12.4 + 0.3": ("0.25 × 12 + 0", Fraction(3)),
            "5/8 × 3 1/3": ("3/4 × 3 1/2", Fraction(21, 8)),
        }  # fmt: skip
        for problem, (joined, total) in told.items():
            with self.subTest(problem):
                about = work_text(problem).estimate
                self.assertEqual((text(about.sum), about.total), (joined, total))
        self.assertEqual(work_text("5/8 × 4", Ways.of({"ties": "down"})).estimate.total, 2)
        for problem in ("18 ÷ 3 × 2", "5 - 11 + 1/2", "1/2", "7", "1/2 + 2 1/2", "1/4 × 8"):
            self.assertIsNone(work_text(problem).estimate, problem)

    def test_the_sentence_of_a_tie_says_what_the_other_choice_gives(self):
        about = work_text("7 1/4 - 3 5/6").estimate
        self.assertEqual(
            OWN.plain(about.sentence), "About 3 1/2, from 7 1/2 - 4. 3 5/12 is at most 1/2 away. Reasonable."
        )
        self.assertEqual(OWN.plain(about.tie), "7 1/4 is a tie: it could go down, to about 3.")


class BoundaryTests(unittest.TestCase):
    """Where a decision turns: the value itself, and those beside it."""

    def test_a_slip_in_adding_is_one_or_ten_of_a_unit(self):
        for problem, answer, units in [
            ("1/6 + 1/4", Fraction(5, 12), (1, 12)),
            ("3.9 + 2.45", Fraction(127, 20), (1, 10, 100)),
        ]:
            made = {slip.value for slip in slips(work_text(problem).working) if slip.code == "slip-addition"}
            self.assertEqual(made, {answer + Fraction(off, unit) for off in (1, -1, 10, -10) for unit in units})

    def test_a_sum_is_told_to_be_below_at_or_above_one_and_why(self):
        for problem, told, holding in [
            ("1/4 + 2/3", "below 1, because together they do not fill a <whole>.", 3),
            ("1/4 + 3/4", "exactly 1, because together they fill a <whole>.", 4),
            ("1/2 + 3/4", "above 1, because together they are more than a <whole>.", 5),
            ("5/8 + 3/4", "above 1, because both are more than a half.", 5),
            ("1/3 + 1/4", "below 1, because both are less than a half.", 3),
        ]:
            worked = work_text(problem)
            (one,) = [check for check in checks(worked.working) if check.code == "beside-one"]
            self.assertEqual("".join(map(str, one.said)), f"Is it above or below 1? It is {told}")
            held = [quarters for quarters in (3, 4, 5) if holds(one, worked.working, Fraction(quarters, 4))]
            self.assertEqual(held, [holding], problem)

    def test_what_would_be_written_below_one_piece_or_below_zero_is_not_likely(self):
        self.assertEqual(found("5/10 = _/6")["chain-added"], ("1/6", "reveals"))
        self.assertNotIn("chain-added", found("4/8 = _/4"))
        self.assertEqual(found("6/4 = 3/_")["chain-added"], ("3/1", "reveals"))
        self.assertNotIn("chain-added", found("4/2 = 2/_"))
        self.assertEqual(found("1.25 - 12.5 + 12.5").get("right-aligned"), None)
        self.assertEqual(found("3.5 - 0.35")["right-aligned"], ("0.00", "reveals"))  # 35 - 35
        self.assertNotIn("right-aligned", found("3.5 - 0.36"))


class MisconceptionTests(unittest.TestCase):
    @given(strategies.classroom_pairs)
    def test_add_across_is_the_mediant_beside_the_combined_wholes(self, expr):
        (_, a), (sign, b) = signed_terms(expr)
        (w1, n1, d1), (w2, n2, d2) = parts(a), parts(b)
        found_here = found(text(expr)).get("add-across")
        whole, top, bottom = w1 + sign * w2, n1 + sign * n2, d1 + sign * d2
        applies = not any(isinstance(t, Whole) for t in (a, b)) and bottom > 0 <= top and whole >= 0
        if not applies or value(expr) < 0:
            self.assertIsNone(found_here)
        else:
            wrong = whole + Fraction(top, bottom)
            self.assertEqual(value(read(found_here[0]).expr), wrong)
            self.assertEqual(found_here[1], "hidden" if wrong == value(expr) else "reveals")

    @given(strategies.classroom_pairs)
    def test_smaller_from_larger_applies_exactly_where_a_whole_has_to_be_cut_up(self, expr):
        (_, a), (sign, b) = signed_terms(expr)
        (w1, _, _), (w2, _, _) = parts(a), parts(b)
        fractions = [value(t) - parts(t)[0] for t in (a, b)]
        applies = (
            sign < 0 <= value(expr) and not any(isinstance(t, Whole) for t in (a, b)) and fractions[0] < fractions[1]
        )
        found_here = found(text(expr)).get("smaller-from-larger")
        self.assertEqual(found_here is not None, applies)
        if applies:
            self.assertEqual(value(read(found_here[0]).expr), w1 - w2 + fractions[1] - fractions[0])

    @given(strategies.add_subtract_problems)
    def test_forms_have_the_right_value_and_a_form_that_is_not_the_answers(self, expr):
        worked = work_text(text(expr))
        for item in worked.likely:
            if item.entry.on_form:
                self.assertEqual((item.answer_value, item.status), (value(expr), "form"))
                self.assertNotEqual(item.wrong.answer, worked.working.answer)

    def test_published_errors(self):
        # Published: CCSS-M 5.NF.A.2, from memory: 2/5 + 1/2 = 3/7 is recognised as wrong because 3/7 < 1/2.
        self.assertEqual(found("2/5 + 1/2")["add-across"], ("3/7", "reveals"))
        self.assertEqual(found("7 1/4 - 3 5/6")["smaller-from-larger"], ("4 7/12", "reveals"))
        three = found("2 5/6 + 1 2/3 + 1/2")
        self.assertEqual(
            (three["add-across"], three["left-improper-part"]), (("3 8/11", "reveals"), ("3 12/6", "form"))
        )
        self.assertEqual(found("3/8 + 1/8")["not-simplified"], ("4/8", "form"))

    def test_a_form_that_the_house_accepts_is_hidden(self):
        self.assertEqual(found("3/8 + 1/8").get("not-simplified"), ("4/8", "form"))
        self.assertNotIn("not-simplified", found("3/8 + 1/8", answer_form="any-equal"))  # it is the answer
        self.assertEqual(found("2 3/4 + 2/3", answer_form="any-equal")["left-improper-part"][1], "form")

    def test_the_estimate_catches_what_lies_past_its_bound(self):
        about = work_text("7 1/4 - 3 5/6").estimate
        self.assertTrue(about.catches(Fraction(55, 12)))
        self.assertFalse(about.catches(about.total + about.bound))

    def test_every_entry_speaks(self):
        for entry in ENTRIES.values():
            self.assertTrue(entry.reason.endswith(".") and entry.question.endswith("?"), entry.code)


class FeatureTests(unittest.TestCase):
    def test_each_rung(self):
        self.assertEqual({problem: work_text(problem).features.rung for problem in RUNGS}, RUNGS)

    def test_features_of_a_regrouping(self):
        facts = work_text("7 1/4 - 3 5/6").features
        self.assertEqual(
            (facts.terms, facts.denominators, facts.common_denominator, facts.largest_number, facts.steps),
            (2, "shares-factor", 12, 15, 3),
        )
        self.assertEqual((facts.carries, facts.regroups, facts.simplify_by, facts.negatives), (0, 1, 1, False))

    def test_small_steps_and_one_large_one_simplify_by_the_same(self):
        for code in ("greatest-factor", "small-steps", "primes"):
            facts = work_text("12/36 + 12/36", Ways.of({"simplify": code})).features
            self.assertEqual((facts.simplify_by, facts.rung), (12, "F2"))

    def test_surprises_are_told(self):
        self.assertEqual(work_text("7 1/4 - 3 5/6").surprises, ["Needs <regrouping>."])
        self.assertEqual(work_text("1/4 - 2 + 3").surprises[0], "Passes below zero on the way, with the method chosen.")
        self.assertIn("The <least common denominator> is 84.", work_text("5/12 + 3/7").surprises)


class OtherWaysTests(unittest.TestCase):
    @given(strategies.classroom_pairs, strategies.all_ways)
    def test_every_way_listed_is_what_working_that_way_gives(self, expr, ways):
        problem = read(text(expr))
        for way in other_ways(work(problem, ways)):
            there = work(problem, replace(ways, **{way.setting: way.code}))
            self.assertEqual((way.steps, way.largest), (len(there.steps), there.largest_number))
            self.assertEqual(way.current, getattr(ways, way.setting) == way.code)

    def test_golden_workings_of_other_ways(self):
        golden = {
            ("7 1/4 - 3 5/6", "mixed_subtract=improper"): ["29/4 - 23/6", "87/12 - 46/12", "41/12", "3 5/12"],
            ("7 1/4 - 3 5/6", "mixed_subtract=below-zero"): [
                "7 3/12 - 3 10/12", "4 + 3/12 - 10/12", "4 - 7/12", "3 12/12 - 7/12", "3 5/12",
            ],
            ("7 1/4 - 3 5/6", "mixed_subtract=count-back"): [
                "7 3/12 - 3 10/12", "4 3/12 - 10/12", "4 3/12 - 3/12 - 7/12", "4 - 7/12", "3 5/12",
            ],
            ("7 1/4 - 3 5/6", "mixed_subtract=same-difference"): ["7 3/12 - 3 10/12", "7 5/12 - 4", "3 5/12"],
            ("9 - 4 2/3", "mixed_subtract=improper"): ["9/1 - 14/3", "27/3 - 14/3", "13/3", "4 1/3"],
            ("2 3/4 + 1 2/3", "mixed_add=fractions-first"): [
                "2 9/12 + 1 8/12", "2 + 1 + 17/12", "2 + 1 + 1 + 5/12", "4 + 5/12", "4 5/12",
            ],
            ("2 3/4 + 1 2/3", "mixed_add=improper"): ["11/4 + 5/3", "33/12 + 20/12", "53/12", "4 5/12"],
            ("5/12 + 7/18", "common_denominator=product"): ["90/216 + 84/216", "174/216", "29/36"],
            ("7/9 + 2/5 + 2/9", "spot_wholes=yes"): ["1 + 2/5", "1 2/5"],
            ("6/8 + 1/4", "reduce_first=yes"): ["3/4 + 1/4", "4/4", "1"],
            ("12/36 + 12/36", "simplify=small-steps"): ["24/36", "12/18", "6/9", "2/3"],
        }  # fmt: skip
        for (problem, setting), lines in golden.items():
            working = work(read(problem), Ways.of(dict([setting.split("=")])))
            self.assertEqual([text(step.after) for step in working.steps], lines, (problem, setting))

    def test_a_way_whose_numbers_grow_past_the_limits_is_unfit_and_another_is_used(self):
        problem = read(" + ".join(f"1/{d}" for d in (1000, 2000, 4000, 8000, 500)))
        working = work(problem, Ways.of({"common_denominator": "product"}))
        self.assertEqual((working.ways.common_denominator, working.used_denominator), ("list-multiples", 8000))
        self.assertRegex(working.notes[0], "more than 12 digits; this way has smaller ones")
        self.assertIn(("product", None), [(way.code, way.largest) for way in other_ways(work(problem))])

    def test_a_way_that_does_not_fit_says_so_and_another_is_used(self):
        working = work(read("40 1/4 - 30 3/4"), Ways.of({"mixed_subtract": "count-back"}))
        self.assertEqual(working.notes, ("Counting back would take 32 jumps, so this is <regrouped>.",))
        self.assertIn("regroup", [step.kind.code for step in working.steps])


CORE = Path(keen_slate.core.__path__[0])


def sentences(path):
    """The texts of several words in a module, but for what documents it and for refusals, which speak the core's own
    words.
    """
    tree = ast.parse(path.read_text(encoding="utf-8"))
    left_out = set()
    for node in ast.walk(tree):
        is_text = isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant)
        says_why = isinstance(node, ast.FunctionDef) and node.name == "_none"  # what is refused, and what to do
        if is_text or says_why or isinstance(node, ast.Raise):
            left_out |= {id(one) for one in ast.walk(node)}
    texts = [one for one in ast.walk(tree) if isinstance(one, ast.Constant) and isinstance(one.value, str)]
    return [one.value for one in texts if id(one) not in left_out and " " in one.value.strip()]


class WordTests(unittest.TestCase):
    def test_the_class_hears_its_own_words_in_every_sentence(self):
        ways = Ways.of({"say_regroup": "borrow", "say_whole": "one", "say_numerator": "top", "layout": "checklist"})
        for problem in ("7 1/4 - 3 5/6", "2 3/4 + 1 2/3", "9 - 4 2/3"):
            view = viewed(work_text(problem, ways))
            said = [s[key] for s in view["steps"] for key in ("title", "reason", "spoken")]
            said += [line for s in view["steps"] for line in s["lines"]]
            said += [s["figure"]["alt"] for s in view["steps"] if s["figure"]] + view["surprises"]
            said += [box[key] for box in view["boxes"] for key in ("title", "answer")]
            said += [m[key] for m in view["misconceptions"] for key in ("name", "reason", "question")]
            whole_text = "\n".join(said)
            self.assertIsNone(re.search(r"regroup|numerator|denominator|\bwholes\b", whole_text))
            self.assertIn("borrow" if "-" in problem and "+" not in problem else "ones", whole_text)

    def test_no_sentence_of_a_working_names_a_term_in_the_cores_own_words_alone(self):
        # A term that a class may call something else stands between angle brackets wherever a sentence about a working
        # is written.
        bare = re.compile(
            r"\b(regroup\w*|numerators?|denominators?|mixed numbers?|lowest terms|fourths?|wholes)\b", re.I
        )
        found = []
        for room in ("working", "judging", "layouts", "figures", "teaching", "diagnosing"):
            for path in sorted(set((CORE / room).rglob("*.py")) - {CORE / "working/proof.py"}):  # it only refuses
                found += [(path.name, said) for said in sentences(path) if bare.search(re.sub(r"<[^<>]*>", "", said))]
        self.assertEqual(found, [])

    @given(st.one_of(strategies.expressions, strategies.equations, strategies.chains))
    def test_typeset_pieces_are_read_aloud_as_the_expression_is(self, expr):
        for mark in (".", ","):
            self.assertEqual(aloud(glyphs(expr, (), mark)), words(expr))

    def test_numbers_in_words(self):
        # Common practice in American classrooms: no "and" inside a number.
        spoken = {
            Frac(3, 4): "three fourths", Frac(8, 31): "eight thirty-firsts", Frac(1, 2): "one half",
            Mixed(2, 3, 5): "two and three fifths", Frac(37, 60): "thirty-seven sixtieths",
            Frac(1, 100): "one hundredth", Frac(1, 200): "one two-hundredth", Frac(5, 9999): (
                "five nine-thousand-nine-hundred-ninety-ninths"
            ),
        }  # fmt: skip
        self.assertEqual({number: OWN.words(number) for number in spoken}, spoken)
        self.assertEqual(words(read("0.418").expr), "four hundred eighteen thousandths")
        self.assertEqual((ordinal(101), cardinal(1234)), ("one hundred first", "one thousand two hundred thirty-four"))

    def test_ordinals_to_9999_are_all_different_and_end_as_ordinals_do(self):
        every = [ordinal(n) for n in range(1, 10_000)]
        self.assertEqual(len(set(every)), 9_999)
        for n, word in enumerate(every, start=1):
            endings = {1: "first", 2: "second", 3: "third"}
            units = n % 100 if 10 <= n % 100 <= 19 else n % 10
            self.assertTrue(word.endswith(endings.get(units, "th")), word)
