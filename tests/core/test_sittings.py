"""A class's answers: each judged as elsewhere, the teacher's word above it, what happened counted, what comes next
built about it.
"""

import unittest
from collections import Counter
from datetime import date
from unittest import mock

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from keen_slate.core.diagnosing.answers import diagnose
from keen_slate.core.errors import CoreError, ReadError
from keen_slate.core.expressions.text import text
from keen_slate.core.grading.rungs import RUNGS
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.sittings import judge, question
from keen_slate.core.sittings.answers import AnswerCell, Answers
from keen_slate.core.sittings.day import read_day
from keen_slate.core.sittings.following import following, next_rung
from keen_slate.core.sittings.happened import happened
from keen_slate.core.sittings.holding import Group, believe
from keen_slate.core.sittings.judge import TeachersWord, best_codes, judged
from keen_slate.core.sittings.question import Question, asked_of, explainer_of
from keen_slate.core.sittings.stand_in import StandIn, answers
from keen_slate.core.ways.settings import Ways
from tests import strategies

PLANKS = ("6 5/8 - 2 1/8 ft", "9 - 4 2/3 ft", "8 1/5 - 3 4/5 ft", "7 1/4 - 3 5/6 ft", "10 1/6 - 4 9/10 ft")
HABITS = {"a": "smaller-from-larger", "b": "whole-not-reduced", "c": "not-simplified", "d": None}


def sat(problems, wrote, words=None, labels=True):
    """The answers to *problems*: a list of texts for each pupil, with a word of the teacher's for some (pupil,
    number).
    """
    questions = [Question(problem, labels=labels) for problem in problems]
    cells = {
        pupil: [
            None
            if one == "-"
            else AnswerCell(one, judged(questions[i], one), (words or {}).get((pupil, i), TeachersWord()))
            for i, one in enumerate(row)
        ]
        for pupil, row in wrote.items()
    }
    return Answers([asked_of(one) for one in questions], cells)


def stand_ins(problems, each=4, seed=5, shows=100):
    pupils = [
        StandIn(f"{name}{i}", (code,) if code else (), shows, 0) for name, code in HABITS.items() for i in range(each)
    ]
    wrote = {pupil.alias: [] for pupil in pupils}
    for one in answers(pupils, problems, seed):
        wrote[one.pupil].append(one.answer)
    return sat(problems, wrote)


class JudgedTests(unittest.TestCase):
    @settings(max_examples=120)
    @given(strategies.classroom_pairs, strategies.all_ways, st.data())
    def test_an_answer_is_judged_as_the_bench_judges_it_and_is_kept_whole(self, expr, ways, data):
        problem = text(expr)
        try:
            worked = explainer_of(Question(problem, ways)).worked
        except CoreError:
            assume(False)
        likely = [text(one.wrong.answer) for one in worked.likely] + [
            worked.working.answer_text,
            "1 1/97",
            "seven",
            " ",
        ]
        typed = data.draw(st.sampled_from(likely))
        found = judged(Question(problem, ways), typed)
        if not typed.strip():
            return self.assertEqual(found, judge.BLANK)
        verdict = diagnose(problem, typed, ways)
        self.assertEqual((found.word, found.value, found.fault), (verdict.verdict, verdict.value, verdict.form_fault))
        self.assertEqual(found.explanations, tuple((one.rank, one.codes) for one in verdict.explanations))
        self.assertEqual(judge.kept(found.plain()), found)
        asked = asked_of(Question(problem, ways))
        self.assertEqual(question.kept(asked.question, asked.plain()), asked)
        if found.word == "right":
            self.assertEqual(found.points, asked.points)
        elif found.word == "right-value":
            self.assertEqual(found.points, asked.points - 1)
        else:
            self.assertEqual(found.points, 0)

    @settings(max_examples=60)
    @given(strategies.classroom_pairs, st.data())
    def test_a_working_earns_the_steps_that_it_has_come_to(self, expr, data):
        asked = Question(text(expr))
        try:
            working = explainer_of(asked).working
        except CoreError:
            assume(False)
        assume(len(working.steps) > 1)
        shown = data.draw(st.integers(1, len(working.steps) - 1))
        lines = [text(step.after) for step in working.steps[:shown]]
        assume(text(working.steps[shown - 1].after) != text(working.answer))
        with_a_wrong_end = "\n".join([*lines, "99 1/97"])
        best = max(i + 1 for i, step in enumerate(working.steps) if text(step.after) in lines)
        self.assertEqual(judged(asked, with_a_wrong_end).points, best)
        self.assertEqual(judged(asked, "99 1/97").points, 0)  # an answer alone shows no step
        self.assertEqual(judged(asked, "98 1/89\n99 1/97").points, 0)  # nor do lines that have come to none

    def test_labels_count_where_they_are_asked_for(self):
        for typed, counted, not_counted in (
            ("3 5/12", "right-value", "right"), ("3 5/12 ft", "right", "right"),
            ("3 5/12 m", "right-value", "right-value"),
            ("4 7/12", "explained", "explained"), ("3 10/24", "right-value", "right-value"),
        ):  # fmt: skip
            with self.subTest(typed):
                self.assertEqual(judged(Question(PLANKS[3]), typed).word, counted)
                self.assertEqual(judged(Question(PLANKS[3], labels=False), typed).word, not_counted)

    def test_a_decimal_comma_is_the_pupils_too(self):
        asked = Question("3.75 + 2.68", Ways.of({"decimal_mark": "comma"}))
        self.assertEqual((judged(asked, "6,43").word, judged(asked, "6.43").word), ("right", "unreadable"))

    def test_ties_go_to_what_the_pupil_and_then_the_class_did_before(self):
        # Common practice, as the rules have it: how often this pupil, then this class, did it before.
        tied = judge.Judged("explained", ((1, ("add-across",)), (1, ("regroup-ten",)), (2, ("left-improper",))))
        self.assertEqual(best_codes(tied, {}, {}), ("add-across",))
        self.assertEqual(best_codes(tied, {}, {"regroup-ten": 1}), ("regroup-ten",))
        self.assertEqual(best_codes(tied, {"add-across": 1}, {"regroup-ten": 9}), ("add-across",))
        self.assertEqual(best_codes(tied, {"left-improper": 9}, {"left-improper": 9}), ("add-across",))  # ranks first
        self.assertEqual(best_codes(tied, {}, {}, TeachersWord(codes=("x",))), ("x",))


class HappenedTests(unittest.TestCase):
    def test_what_happened_is_counted(self):
        wrote = {
            "a": ["4 4/8", "5 2/3", "5 3/5", "4 7/12", "-"],
            "b": ["4 1/2", "4 1/3", "", "4 7/12", None],
            "c": ["4 1/2", "4 1/3", "4 2/5", "3 5/12", "what?"],
        }
        found = happened(sat(PLANKS, wrote, labels=False))
        turned = next(one for one in found.codes if one.code == "smaller-from-larger")
        self.assertEqual(dict(turned.pupils), {"a": (2, 3), "b": (3,)})
        self.assertEqual(
            (turned.did, turned.could, found.pupils), (3, 6, 3)
        )  # three problems show it; blanks, away: none
        self.assertEqual(
            (found.problems[4].wrong, found.problems[4].commonest), (1, None)
        )  # what cannot be read is wrong
        last = found.problems[3]
        self.assertEqual((last.right, last.value, last.wrong, last.blank), (1, 0, 2, 0))
        self.assertEqual((last.commonest, last.times, last.codes), ("4 7/12 ft", 2, ("smaller-from-larger",)))
        self.assertEqual(
            [(one.right, one.value, one.blank) for one in found.problems[:3]], [(2, 1, 0), (2, 0, 0), (1, 0, 1)]
        )
        order = happened(
            sat(("4 + 6 × 2 - 5", "2 + 3 × 1"), {"a": ["15", "5"]})
        ).problems  # from left to right: 15, and 5
        self.assertEqual([one.hides for one in order], [(), ("left-to-right",)])

    def test_a_teachers_word_changes_what_is_counted(self):
        taken = judged(Question(PLANKS[3]), "3 5/12 ft")
        self.assertEqual(judge.word_of(taken, TeachersWord(right=False)), "unexplained")
        self.assertEqual(judge.word_of(taken, TeachersWord(right=False, codes=("regroup-ten",))), "explained")
        wrote = {"a": ["4 1/2", "4 1/3", "5 3/5", "4 7/12", "99"]}
        words = {
            ("a", 2): TeachersWord(right=True),
            ("a", 3): TeachersWord(codes=("regroup-ten",)),
            ("a", 4): TeachersWord(points=3),
        }
        answered = sat(PLANKS, wrote, words, labels=False)
        self.assertEqual(
            [cell.said for cell in answered.cells["a"]], ["right", "right", "right", "explained", "unexplained"]
        )
        self.assertEqual([one.code for one in happened(answered).codes], ["regroup-ten"])
        self.assertEqual(answered.points("a"), sum(one.points for one in answered.asked[:3]) + 3)

    @settings(max_examples=30)
    @given(st.integers(0, 10_000), st.integers(40, 100))
    def test_each_answer_is_counted_once(self, seed, shows):
        answered = stand_ins(PLANKS, seed=seed, shows=shows)
        found = happened(answered)
        for one in found.problems:
            self.assertEqual(one.right + one.value + one.wrong + one.blank, len(answered.cells))
        for held in found.codes:
            self.assertEqual(held.did, sum(len(numbers) for _, numbers in held.pupils))
            self.assertLessEqual(held.did, held.could)
        counts = Counter(code for row in answered.cells for i in range(len(PLANKS)) for code in answered.codes(row, i))
        self.assertEqual({one.code: one.did for one in found.codes}, {k: n for k, n in counts.items() if k in ENTRIES})


class FollowingTests(unittest.TestCase):
    def test_a_ladder_shows_what_its_group_holds(self):
        answered = stand_ins(PLANKS)
        held = believe(answered.asked, answered.given)
        self.assertEqual(len(held.groups), 4)
        for i, group in enumerate(held.groups):
            found = following(group, answered.asked, seed=i)
            made = [asked_of(one) for one in found.ladder]
            sources = [one.question.source for one in made]
            self.assertTrue(made and not set(sources) & set(PLANKS))
            for code in group.codes:
                if not ENTRIES[code].on_form:
                    self.assertTrue(any(one.can_show(code) for one in made), (code, sources))
            self.assertTrue(all(source.endswith("ft") for source in sources))  # as all of the set
            self.assertNotIn(found.check.source, sources)
            if not group.codes:
                self.assertEqual({one.rung for one in made}, {next_rung(["M9"])})

    def test_what_no_ladder_can_be_built_for_gets_problems_like_its_own(self):
        stories = ("A plank is 3 1/4 m long. Alder saws 1 2/3 m off. How long is what is left?",)
        answered = sat(stories, {"a": ["4 11/12 m"], "b": ["4 11/12 m"]})
        group = believe(answered.asked, answered.given).groups[0]
        found = following(group, answered.asked)
        self.assertTrue(found.ladder)
        self.assertEqual({asked_of(one).rung for one in found.ladder}, {answered.asked[0].rung})

    def test_what_is_like_those_of_the_groups_rungs_is_like_the_last_four_of_them(self):
        told = "A plank is {} m long. Alder saws {} m off. How long is what is left?"
        stories = [told.format(f"{n} 1/4", "1 2/3") for n in range(3, 9)]
        other = "A rope is 12 1/2 m long. Fern cuts off 3 3/4 m and then 2 2/3 m more. How much rope is left?"
        asked = [asked_of(Question(one)) for one in (*stories, other)]
        group = Group((), ("a",), None, (asked[0].rung,), (3, 4))
        with mock.patch("keen_slate.core.sittings.following._parallel", side_effect=lambda model, *_: model):
            found = following(group, asked).ladder
            self.assertNotEqual(asked[0].rung, asked[-1].rung)
            self.assertEqual([one.source for one in found], stories[-4:])

    def test_the_next_rung_is_of_the_same_family_if_there_is_one(self):
        for rung, onwards in (("V2", "V3"), ("N2", "N3"), ("F7", "F8"), ("F9", "V1"), ("D6", "V3"), ("O4", "O4")):
            self.assertEqual(next_rung([rung]), onwards)

    @given(st.lists(st.sampled_from([*RUNGS, "S1", ""]), max_size=5))
    def test_the_next_rung_is_higher_than_all_that_was_asked(self, rungs):
        order = list(RUNGS)
        known = [order.index(rung) for rung in rungs if rung in RUNGS]
        found = next_rung(rungs)
        self.assertEqual(found is None, not known)
        if known and max(known) < len(order) - 1:
            self.assertGreater(order.index(found), max(known))


class DayTests(unittest.TestCase):
    @given(st.dates(date(1990, 1, 1), date(2060, 1, 1)), st.sampled_from(
        ["{d.day} {d:%B} {d.year}", "{d:%B} {d.day}, {d.year}", "{d:%a} {d.day} {d:%b} {d.year}",
            "{d.day}.{d.month}.{d.year}", "{d:%Y-%m-%d}"]
    ))  # fmt: skip
    def test_a_day_is_read_in_each_spelling(self, day, spelling):
        self.assertEqual(read_day(spelling.format(d=day)), day)

    @given(st.integers(1, 12), st.integers(1, 12))
    def test_a_day_that_can_be_two_is_refused(self, a, b):
        if a == b:
            return self.assertEqual(read_day(f"{a}/{b}/2026"), date(2026, a, b))
        with self.assertRaisesRegex(ReadError, "can be"):
            read_day(f"{a}/{b}/2026")

    @settings(max_examples=200)
    @given(st.text(max_size=30))
    def test_anything_else_is_refused_in_words(self, typed):
        try:
            self.assertIsInstance(read_day(typed, date(2026, 11, 26)), date)
        except ReadError as error:
            self.assertTrue(error.message and error.hint)
