"""The class next door: nothing that a class writes is lost, and what is said of the two is true."""

import unittest
from dataclasses import replace
from fractions import Fraction

from hypothesis import given, settings

from keen_slate.core.documents.next_door import next_door
from keen_slate.core.expressions.text import text
from keen_slate.core.teaching.sentences import TeachersWords
from keen_slate.core.ways.settings import SETTINGS, Ways
from keen_slate.core.worked import work_out, work_text
from tests.strategies import all_ways, classroom_pairs
from tests.support_core import sweep

PLANKS = "7 1/4 - 3 5/6"


def beside(problem, theirs, mine, target=None):
    """What is shown of a *problem* in the two ways, and both workings."""
    there = work_text(problem, theirs, ".", target)
    return next_door(there, TeachersWords(), mine), there, work_out(there.working.problem, mine)


def said(problem, theirs, mine, target=None):
    return beside(problem, Ways.of(theirs), Ways.of(mine), target)[0].said


class NextDoorTests(unittest.TestCase):
    @settings(max_examples=sweep(50, 300))
    @given(classroom_pairs, all_ways, all_ways)
    def test_every_line_of_both_stands_in_its_order_and_alike_only_where_it_is(self, expr, theirs, mine):
        view, there, here = beside(text(expr), theirs, mine)
        for side, worked in (("theirs", there), ("mine", here)):
            steps = [getattr(pair, side).step for pair in view.beside if getattr(pair, side)]
            self.assertEqual([step.key.split()[0] for step in steps], [one.kind.code for one in worked.working.steps])
        left, right = (iter(one.working.steps) for one in (there, here))
        for pair in view.beside:
            ends = [text(next(steps).after) if one else None
                    for one, steps in ((pair.theirs, left), (pair.mine, right))]  # fmt: skip
            self.assertEqual(pair.same, ends[0] == ends[1])
            self.assertTrue(pair.theirs or pair.mine)
        named = [sentence.partition(":")[0] for sentence in view.said[:-1]]
        differ = [
            one for name, one in SETTINGS.items() if getattr(theirs, name) != getattr(mine, name)
        ]  # what is named is a setting in which both differ
        self.assertLessEqual(len(named), len(differ))

    @given(classroom_pairs, all_ways)
    def test_a_class_beside_itself_is_alike(self, expr, ways):
        view, there, _ = beside(text(expr), ways, ways)
        self.assertEqual(view.said, ("Both classes write it alike.",))
        self.assertEqual([pair.same for pair in view.beside], [True] * len(there.working.steps))
        self.assertEqual([pair.theirs for pair in view.beside], [pair.mine for pair in view.beside])

    @settings(max_examples=sweep(50, 300))
    @given(classroom_pairs, all_ways, all_ways)
    def test_what_is_not_named_makes_no_difference(self, expr, theirs, mine):
        """Where no setting is named the two are written alike, one by one; and the answers are one number."""
        view, there, here = beside(text(expr), theirs, mine)
        self.assertEqual(Fraction(there.working.value), Fraction(here.working.value))
        for name, one in SETTINGS.items():
            if getattr(theirs, name) == getattr(mine, name):
                continue
            other = replace(theirs, **{name: getattr(mine, name)})
            changed = [(step.after, step.title) for step in work_out(there.working.problem, other).working.steps]
            if changed != [(step.after, step.title) for step in there.working.steps]:
                titles = {sentence.partition(":")[0].lower() for sentence in view.said}
                self.assertTrue(any(one.title.split("<")[0].strip().lower() in title for title in titles), name)

    def test_the_differences_are_said_as_a_teacher_would(self):
        """Wording: common practice."""
        self.assertEqual(
            said(PLANKS, {"mixed_subtract": "count-back", "ties": "down"}, {"decimal_mark": "comma"}),
            ("Subtracting mixed numbers: next door count back; in your class regroup.",
             "Rounding a tie in an estimate: next door down; in your class up.",
             "Both end in 3 5/12, in 5 lines there and 3 here."),
        )  # fmt: skip
        self.assertEqual(
            said("5/6 + 2/3", {"answer_form": "simplest-improper", "say_simplest": "simplest-form"}, {})[-1],
            "They end in 3/2, your class in 1 1/2, which is the same number; in 3 lines there and 4 here.",
        )
        # The sentences are in the words of who reads them.
        self.assertEqual(
            said("1.5 + 0.75", {}, {"decimal_mark": "comma", "decimal": "as-fractions"})[-1][:16], "Both end in 2,25"
        )
        self.assertEqual(
            said("_/4 + _/4 = 1", {}, {"blank_different": "yes"})[-1],
            "3 answers next door, 2 in your class.",
        )

    def test_what_one_class_cannot_work_is_said_and_the_other_still_shown(self):
        there = work_text("1/6007 + 1/6011 + 1/6029", Ways.of({"common_denominator": "named"}), ".")
        for ways in (Ways(), Ways.of({"common_denominator": "prime-factors"})):
            view = next_door(there, TeachersWords(), ways)
            if view.mine is None:
                self.assertRegex(view.said[0], r"^Your class cannot work it: .+\.$")
                self.assertEqual(len(view.beside), len(there.working.steps))
