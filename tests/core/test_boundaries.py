"""Named limits and small decisions, each just where it holds, just below and just past it.

Values without a source are common practice.
"""

import unittest
from dataclasses import replace
from datetime import date, timedelta
from fractions import Fraction
from types import SimpleNamespace
from unittest import mock

from keen_slate.core.diagnosing.answers import Explainer, diagnose
from keen_slate.core.diagnosing.choices import choices
from keen_slate.core.diagnosing.estimates import judge_estimate
from keen_slate.core.diagnosing.lines import check
from keen_slate.core.diagnosing.over_zero import taken_across
from keen_slate.core.errors import ReadError
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.voice import OWN
from keen_slate.core.figures.display import Shape, path
from keen_slate.core.grading.surprises import surprises
from keen_slate.core.judging.beliefs import Belief, Evidence, Given
from keen_slate.core.judging.slips import slips
from keen_slate.core.sittings.day import read_day
from keen_slate.core.sittings.following import wish_of
from keen_slate.core.sittings.holding import Group, holding
from keen_slate.core.sittings.judge import TeachersWord, checked_of, judged, word_of
from keen_slate.core.sittings.over_time import Back, SittingAnswers, over_time, warm_up
from keen_slate.core.sittings.question import Question, asked_of
from keen_slate.core.stories.words import third_person
from keen_slate.core.teaching.minutes import own_time, seconds
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text

A, B, C, D, E, F = (
    "smaller-from-larger", "add-across", "regroup-ten", "carry-lost", "whole-not-reduced", "not-simplified"
)  # fmt: skip
HUNDREDTH = Fraction(1, 100)
PROBLEMS = ("7 1/4 - 3 5/6", "5 1/3 - 2 3/4", "9 1/2 - 4 7/8", "6 5/8 - 2 1/8")


def lines_of(problem, **ways):
    steps = work_text(problem, Ways.of(ways)).working.steps
    return [text(step.after) for step in steps], [OWN.plain(line) for step in steps for line in step.lines]


def belief(code, how):
    return Belief(code, Fraction(how), (0, 1, 2, 3), (0,))


class BeliefBoundaries(unittest.TestCase):
    asked = tuple(asked_of(Question(problem)) for problem in PROBLEMS)

    def held(self, pupils, moves=None):
        """Groups and who is in none, of pupils each with so many of four answers right and these beliefs."""
        given = {
            alias: [Given(one.seen.right if i < right else Fraction(-1), "") for i, one in enumerate(self.asked)]
            for alias, (right, *_) in pupils.items()
        }
        found = {alias: [belief(code, how) for code, how in every] for alias, (_, *every) in pupils.items()}
        return holding(self.asked, given, found, moves or {})

    def groups(self, pupils):
        held = self.held(pupils)
        return {frozenset(group.codes): set(group.pupils) for group in held.groups}, set(held.unclear)

    def test_a_belief_is_said_in_the_word_whose_bound_it_reaches(self):
        bounds = (
            (Fraction(9, 10), "very likely", "likely"),
            (Fraction(7, 10), "likely", "perhaps"),
            (Fraction(4, 10), "perhaps", ""),
        )
        for bound, at, below in bounds:  # fmt: skip
            self.assertEqual((belief(A, bound).word, belief(A, bound - HUNDREDTH).word), (at, below))

    def test_what_is_spoken_of_is_perhaps_held_at_least(self):
        held = self.held({"a": (2, (A, "4/10"), (B, "39/100"))})
        self.assertEqual([one.code for one in held.beliefs["a"]], [A])

    def test_who_is_in_which_group_at_the_bounds(self):
        self.assertEqual(self.groups({"a": (3,), "b": (2,)}), ({frozenset(): {"a"}}, {"b"}))  # three of four is ready
        likely = {"a": (3, (A, "7/10")), "b": (0, (A, "9/10"))}
        self.assertEqual(self.groups(likely), ({frozenset([A]): {"a", "b"}}, set()))
        less = {"a": (3, (A, "69/100")), "b": (2, (A, "4/10"), (B, "4/10")), "c": (2, (A, "39/100"))}
        self.assertEqual(self.groups(less), ({frozenset(): {"a"}, frozenset([A]): {"b"}}, {"c"}))

    def test_four_groups_at_most_that_of_the_ready_among_them_and_two_pupils_in_each(self):
        pairs = {f"{code}{i}": (0, (code, "8/10")) for code in (A, B, C, D) for i in range(2)}
        self.assertEqual(len(self.groups(pairs)[0]), 4)
        found, _ = self.groups({**pairs, "ready": (4,)})
        self.assertEqual((len(found), found[frozenset()]), (4, {"ready"}))
        alone, _ = self.groups(
            {"a": (0, (A, "8/10")), "b": (0, (A, "8/10"), (B, "8/10")), "c": (0, (A, "8/10"), (B, "8/10"))}
        )
        self.assertEqual(alone, {frozenset([A]): {"a", "b", "c"}})  # one goes to those with whom she shares most
        self.assertEqual(len(self.groups({"a": (0, (A, "8/10"))})[0]), 1)  # unless there is nobody else

    def test_the_smallest_group_goes_where_most_is_shared_and_then_to_the_larger(self):
        one = {"x": (0, (A, "8/10"), (B, "8/10"))}
        near = {f"n{i}": (0, (A, "8/10"), (B, "8/10"), (C, "8/10")) for i in range(2)}
        far = {f"f{i}": (0, (A, "8/10")) for i in range(3)}
        found, _ = self.groups({**one, **near, **far})
        self.assertEqual(found, {frozenset([A, B]): {"x", "n0", "n1"}, frozenset([A]): {"f0", "f1", "f2"}})
        strangers = {
            "x": (0, (E, "8/10")),
            **{f"c{i}": (0, (C, "8/10")) for i in range(2)},
            **{f"d{i}": (0, (D, "8/10")) for i in range(3)},
        }
        self.assertEqual(self.groups(strangers)[0][frozenset([D])], {"x", "d0", "d1", "d2"})

    def test_codes_that_cannot_be_told_apart_are_named_from_a_tenth_on(self):
        def held(other):
            return self.held({"a": (0, (A, "8/10"), ("never-met", "1/10"), ("never-seen", other))}).cannot_tell["a"]

        with mock.patch.dict("keen_slate.core.sittings.holding.ENTRIES"):
            self.assertIn(("never-met", "never-seen"), held("1/10"))
            self.assertNotIn(("never-met", "never-seen"), held("9/100"))

    def test_a_group_is_shown_the_problem_that_shows_most_and_gets_the_rungs_that_went_wrong(self):
        (group, *_), _ = self.held({"a": (2, (A, "8/10")), "b": (3, (A, "8/10"))}).groups, ()
        shows = [sum(one.can_show(A) for _ in (A,)) for one in self.asked]
        self.assertEqual(group.show, shows.index(max(shows)))
        # a is wrong in the third and the fourth, b in the fourth: what went wrong oftener comes first
        self.assertEqual(group.rungs, (self.asked[3].rung, self.asked[2].rung))

    def test_a_group_gets_three_rungs_those_that_went_wrong_most_before_others(self):
        asked = [
            asked_of(Question(one)) for one in ("1/5 + 2/5", "2/3 + 1/6", "3/4 + 2/5", "7 1/4 - 3 5/6", "8 1/4 - 3 5/6")
        ]
        given = {
            "a": [Given(Fraction(-1), "")] * 5,
            "b": [*[Given(one.seen.right, "") for one in asked[:4]], Given(Fraction(-1), "")],
        }
        found = {alias: [belief(A, "8/10")] for alias in given}
        self.assertEqual(holding(asked, given, found, {}).groups[0].rungs, ("M8", "F1", "F4"))

    def test_a_group_wishes_for_two_problems_of_a_rung_and_who_is_ready_for_four(self):
        holds, ready = [Group(codes, ("a",), None, ("M8",), (1, 2, 99, 100)) for codes in ((A, F), ())]
        wish = {"rungs": {"M8": 2}, "targets": [A], "lowest_terms": True, "seed": 3, "denominators": [2, 99]}
        self.assertEqual(wish_of(holds, self.asked, (), 3), wish)  # what is seen in the form is no target
        self.assertEqual(wish_of(holds, self.asked, (B, A), 3), wish | {"targets": [A, B], "separate": True})
        self.assertEqual(wish_of(ready, self.asked)["rungs"], {"M8": 4})
        self.assertIsNone(wish_of(replace(holds, rungs=("S1",)), self.asked))
        self.assertNotIn("denominators", wish_of(replace(holds, denominators=(1, 100)), self.asked))

    def test_a_group_without_wrong_answers_of_its_own_gets_three_rungs_that_show_what_it_holds(self):
        several = [asked_of(Question(one)) for one in ("1/5 + 2/5", "2/3 + 1/6", "3/4 + 2/5", "5/6 + 1/4", "4/5 + 3/5")]
        shows = list(dict.fromkeys(one.rung for one in several if one.can_show(B)))
        self.assertGreater(len(shows), 3)
        wish = wish_of(Group((B,), ("a",), None, (), ()), several)
        self.assertEqual(list(wish["rungs"]), shows[:3])

    def test_a_warm_up_has_three_problems_at_most(self):
        asked = [
            asked_of(Question(one)) for one in ("1/5 + 2/5", "2/3 + 1/6", "3/4 + 2/5", "7 1/4 - 3 5/6", "12.4 - 6.75")
        ]
        due = SimpleNamespace(come_back=[Back(one.rung, ("a",)) for one in asked])
        self.assertEqual(len(warm_up(due, asked, date(2026, 11, 12))), 3)
        self.assertEqual(len(warm_up(SimpleNamespace(come_back=due.come_back[:2]), asked, date(2026, 11, 12))), 2)

    def test_a_word_of_the_teachers_stands_above_the_cores(self):
        wrong, form = judged(Question("7 1/4 - 3 5/6"), "4 7/12"), judged(Question("7 1/4 - 3 5/6"), "3 10/24")
        told = [
            [word_of(one, word) for one in (wrong, form)]
            for word in (TeachersWord(), TeachersWord(codes=(A,)), TeachersWord(right=True), TeachersWord(right=False))
        ]
        self.assertEqual(
            told,
            [
                ["explained", "right-value"],
                ["explained", "right-value"],
                ["right", "right"],
                ["unexplained", "unexplained"],
            ],
        )

    def test_a_working_is_checked_where_more_than_an_answer_is_written(self):
        sums, fills = Question("2/3 + 1/6"), Question("2/3 = _/12")
        written = {
            "5/6": False,
            "= 5/6": False,
            "": False,
            "4/6 + 1/6 = 5/6": True,
            "4/6 + 1/6\n5/6": True,
            "5/6\n\n": False,
        }
        self.assertEqual({one: checked_of(sums, one) is not None for one in written}, written)
        self.assertIsNone(checked_of(fills, "2/3 = 8/12"))

    def test_a_day_in_numbers_is_read_in_the_order_that_its_marks_tell(self):
        for typed, day in (
            ("5/13/2026", (2026, 5, 13)), ("13/5/2026", (2026, 5, 13)), ("5.6.2026", (2026, 6, 5)),
            ("5/5/2026", (2026, 5, 5)), ("12.11.26", (2026, 11, 12)),
        ):  # fmt: skip
            self.assertEqual(read_day(typed), date(*day), typed)
        for typed in ("5.13.2026", "5/6/2026", "12 Mo 2026", "12 Xyz 2026", "31 June 2026", "soon"):
            with self.assertRaises(ReadError) as caught:
                read_day(typed)
            self.assertEqual((caught.exception.position, caught.exception.length), (0, 0))

    def test_what_was_likely_is_no_longer_held_from_the_third_chance_without_it(self):
        def gone(chances, before):
            days = [SittingAnswers(date(2026, 11, 2) + timedelta(days=i), (self.asked[0],),
                {"a": (Given(self.asked[0].seen.right, "3 5/12"),)})
                    for i in range(1 + chances)]  # fmt: skip
            found = Belief(A, Fraction(1, 2), tuple(range(1 + chances)), (0,))
            with (
                mock.patch("keen_slate.core.sittings.over_time.beliefs_of_class", return_value={"a": [found]}),
                mock.patch.object(Evidence, "until", return_value=[Belief(A, Fraction(before), (0,), (0,))]),
            ):
                return [one.chances for one in over_time(days, date(2026, 11, 28)).no_longer["a"]]

        self.assertEqual((gone(3, "7/10"), gone(2, "7/10"), gone(3, "69/100")), ([3], [], []))


class EstimateBoundaries(unittest.TestCase):
    def test_an_estimate_is_near_up_to_its_bound(self):
        cases = (
            # 8.9 × 3.1 is about 9 × 3 = 27: from half as much to twice as much
            ("8.9 × 3.1", "13.5", "near"), ("8.9 × 3.1", "13.4", "too-far"), ("8.9 × 3.1", "54", "near"),
            ("8.9 × 3.1", "54.1", "too-far"),
            # two numbers to the nearest half: the answer 6 14/15 is off by 1/2 at most
            ("4 5/6 + 2 1/10", "7 13/30", "near"), ("4 5/6 + 2 1/10", "7 14/30", "too-far"),
            ("4 5/6 + 2 1/10", "6 13/30", "near"), ("4 5/6 + 2 1/10", "6 12/30", "too-far"),
        )  # fmt: skip
        for problem, typed, verdict in cases:
            self.assertEqual(judge_estimate(work_text(problem), typed).verdict, verdict, (problem, typed))
        between = work_text("4 5/6 + 2 1/10", Ways.of({"estimate": "between"}))
        found = [judge_estimate(between, typed).verdict for typed in ("5 9/10", "6", "8", "8 1/10")]
        self.assertEqual(found, ["too-far", "fits", "fits", "too-far"])


class SurpriseBoundaries(unittest.TestCase):
    def test_a_denominator_surprises_past_what_a_picture_shows_and_past_sixty(self):
        for problem, said in (
            ("1/8 + 1/12", None), ("1/4 + 1/14", "28: too many parts for a picture."),
            ("1/12 + 1/15", "60: too many parts for a picture."), ("1/7 + 1/9", "63."),
        ):  # fmt: skip
            found = [one for one in work_text(problem).surprises if "denominator" in one]
            self.assertEqual(found, [f"The <least common denominator> is {said}"] if said else [], problem)

    def test_a_fact_surprises_past_twelve_times_twelve(self):
        large = {
            problem: any("12 × 12" in one for one in work_text(problem).surprises)
            for problem in ("5/12 + 1/144", "2/3 + 1/36", "2/3 + 1/39", "3/13 + 4/13", "1/2 + 1/26")
        }
        self.assertEqual(list(large.values()), [False, False, True, False, True])

    def test_each_surprise_stands_beside_the_line_that_it_comes_from(self):
        for problem, wanted in (
            ("7 1/4 - 3 5/6", {"Needs <regrouping>.": 1}), ("12.05 - 8.36", {"Needs <regrouping> 3 times.": 0}),
            ("5/12 + 3/7", {"The <least common denominator> is 84.": 0}),
            ("1/4 - 2 + 3", {"Passes below zero on the way, with the method chosen.": 0}),
            ("2/39 + 1/3", {"Needs a multiplication fact beyond 12 × 12.": 0}),
        ):  # fmt: skip
            worked = work_text(problem)
            found = {one.said: one.step for one in surprises(worked.working, worked.features, worked.likely)}
            self.assertEqual({said: found.get(said) for said in wanted}, wanted, problem)


class WorkingBoundaries(unittest.TestCase):
    def test_terms_that_make_a_whole_are_looked_for_where_others_are_left(self):
        for problem, lines in (
            ("1/4 + 3/4", ["4/4", "1"]), ("1/6 + 2/6 + 3/6", ["6/6", "1"]), ("1/6 + 1/4 + 3/4", ["1/6 + 1", "1 1/6"]),
            ("1/6 + 2/6 + 3/6 + 1/5", ["1 + 1/5", "1 1/5"]), ("2 + 3 + 1/5", ["5 + 1/5", "5 1/5"]),
        ):  # fmt: skip
            self.assertEqual(lines_of(problem, spot_wholes="yes")[0], lines, problem)

    def test_each_jump_is_written_up_to_twelve(self):
        self.assertEqual(lines_of("3 - 2/5", mixed_subtract="count-back")[1], ["3 → 2 4/5 → 2 3/5"])
        (twelve,) = lines_of("5 - 12/13", mixed_subtract="count-back")[1]
        self.assertEqual((twelve.count("→"), twelve[:12], twelve[-6:]), (12, "5 → 4 12/13 ", "4 1/13"))
        self.assertEqual(lines_of("5 - 13/14", mixed_subtract="count-back"), (["4 1/14"], []))

    def test_an_answer_past_one_stands_in_the_form_that_is_asked_for(self):
        for problem, improper, mixed in (
            ("3/4 + 3/4", "3/2", "1 1/2"), ("1/4 + 3/4", "1", "1"), ("2 - 1/2", "3/2", "1 1/2"),
            ("1/4 + 1/4", "1/2", "1/2"), ("2 1/2 - 1/2", "2", "2"),
        ):  # fmt: skip
            found = [lines_of(problem, answer_form=form)[0][-1] for form in ("simplest-improper", "simplest-mixed")]
            self.assertEqual(found, [improper, mixed])

    def test_long_division_begins_at_the_ones_and_has_a_line_a_digit(self):
        for problem, lines in (
            ("1.5 ÷ 4", ["1 ÷ 4 = 0 remainder 1", "15 ÷ 4 = 3 remainder 3", "30 ÷ 4 = 7 remainder 2", "20 ÷ 4 = 5"]),
            ("12.6 ÷ 3", ["12 ÷ 3 = 4", "6 ÷ 3 = 2"]), ("0.06 ÷ 4", ["6 ÷ 4 = 1 remainder 2", "20 ÷ 4 = 5"]),
            ("7.2 ÷ 0.9", ["72 ÷ 9 = 8"]),
        ):  # fmt: skip
            self.assertEqual(lines_of(problem)[1], lines, problem)


class SmallDecisions(unittest.TestCase):
    def test_a_slip_of_counting_is_one_or_ten_of_a_piece_or_a_whole(self):
        for problem, right, piece in (
            ("1/4 + 3/8", Fraction(5, 8), Fraction(1, 8)),
            ("3 + 4/5", Fraction(19, 5), Fraction(1, 5)),
        ):
            found = {one.value - right for one in slips(work_text(problem).working) if one.code == "slip-addition"}
            self.assertEqual(
                found, {sign * times * unit for sign in (1, -1) for times in (1, 10) for unit in (1, piece)}
            )

    def test_a_slip_says_of_what_there_are_too_many_or_too_few(self):
        said = {
            one.value: OWN.plain(one.line)
            for one in slips(work_text("1/4 + 3/8").working)
            if one.code == "slip-addition"
        }
        wanted = {
            Fraction(3, 4): "1 too many of 1/8",
            Fraction(1, 2): "1 too few of 1/8",
            Fraction(-75, 8): "10 too few of 1",
        }
        self.assertEqual({value: said[value] for value in wanted}, wanted)

    def test_of_what_makes_the_same_the_one_in_the_written_form_comes_first_then_the_one_of_fewer_kinds(self):
        for problem, answer, codes in (
            ("2/3 + 1/6", "3/6", ["top-not-scaled", "subtracted-for-added"]),
            ("2/3 + 1/6", "1/2", ["subtracted-for-added", "top-not-scaled"]),
            ("2/3 + 1/6", "6/12", ["top-not-scaled", "subtracted-for-added"]),
            ("3/4 + 1/4", "4/8", ["add-across", "subtracted-for-added"]),
        ):  # fmt: skip
            found = diagnose(problem, answer).explanations
            self.assertEqual([(one.rank, *one.codes) for one in found], list(enumerate(codes, 1)), (problem, answer))

    def test_tops_from_tops_and_bottoms_from_bottoms_may_come_to_nothing_below(self):
        for problem, typed, lines in (
            ("7/8 - 1/4 - 2/4", "4/0", ["7 - 1 - 2 = 4", "8 - 4 - 4 = 0"]),
            ("1/4 + 2/4 - 1/8", "2/0", ["1 + 2 - 1 = 2", "4 + 4 - 8 = 0"]),
            ("3 5/6 - 1 3/6", "2 2/0", ["5 - 3 = 2", "6 - 6 = 0"]), ("5/6 - 3/6", "3/0", None),
            ("5/6 - 3/6", "1 2/0", None), ("5/6 - 2/3", "3/3", None),
        ):  # fmt: skip
            found = taken_across(work_text(problem).working, typed)
            self.assertEqual(found and [OWN.plain(line) for line in found], lines, (problem, typed))

    def test_an_option_is_written_as_the_answer_is(self):
        for problem, wanted in (("0.5 - 0.125", r"-?\d+(\.\d{1,6})?"), ("1/4 + 3/8", r"-?(\d+|\d+ \d+/\d+|\d+/\d+)")):
            made = choices(work_text(problem))
            self.assertEqual((len(made), [one.right for one in made].count(True)), (4, 1))
            for one in made:
                self.assertRegex(text(one.answer), f"^{wanted}$")

    def test_a_label_counts_only_where_labels_do(self):
        explainer = Explainer(work_text("7 1/4 - 3 5/6 ft"), ".")
        said = {
            typed: [explainer.verdict(typed, labels).verdict for labels in (True, False)]
            for typed in ("3 5/12 ft", "3 5/12", "3 5/12 m", "what")
        }
        self.assertEqual(
            said,
            {
                "3 5/12 ft": ["right"] * 2,
                "3 5/12": ["right-value", "right"],
                "3 5/12 m": ["right-value"] * 2,
                "what": ["unreadable"] * 2,
            },
        )

    def test_a_working_is_checked_in_the_ways_of_its_class(self):
        lines = ["6/4", "3/2"]
        improper = Ways.of({"answer_form": "simplest-improper"})
        self.assertEqual(
            [check("3/4 + 3/4", lines, ways).answer for ways in (improper, None)], ["right", "right-value"]
        )

    def test_what_has_no_single_answer_has_no_options_and_what_explains_comes_first(self):
        self.assertEqual([choices(work_text(problem)) for problem in ("2/3 = _/12", "_/4 + _/2 = 5/4")], [(), ()])
        (over_zero,) = diagnose("3/4 - 1/4", "2/0").explanations
        (tops,) = diagnose("_/2 + _/3 = 5/6", "2/2 + 3/3 = 5/6").explanations
        self.assertEqual(
            [(one.rank, one.codes) for one in (over_zero, tops)], [(1, ("add-across",)), (1, ("top-not-scaled",))]
        )
        self.assertEqual(diagnose("_/2 + _/3 = 5/6", "2/2 + 2/3 = 5/6").explanations, ())

    def test_verbs_after_he_and_she(self):
        bases = "buy play carry try reach pass fix go say lay be have fetch mix"
        forms = "buys plays carries tries reaches passes fixes goes says lays is has fetches mixes"
        self.assertEqual(" ".join(map(third_person, bases.split())), forms)

    def test_a_glance_is_less_than_half_a_minute(self):
        self.assertEqual((own_time([95, 30]), own_time([95, 29]), own_time([29]), own_time([])), (30, 95, None, None))
        self.assertEqual(seconds(["a", "a", "b"], [0, 2, 1]), [180, 60, 190])

    def test_a_sector_goes_the_long_way_round_past_a_half(self):
        flags = [path(Shape("sector", "part", (0, 0, 10, Fraction(1, 8),
            Fraction(1, 8) + size))).split("A")[1].split()[3:5]
                 for size in (Fraction(49, 100), Fraction(1, 2), Fraction(51, 100))]  # fmt: skip
        self.assertEqual(flags, [["0", "1"], ["0", "1"], ["1", "1"]])

    def test_a_column_of_numbers_is_one_calculation_only_with_a_number_above_its_signs(self):
        def wrong(lines):
            return check("3 1/4 + 2 1/2", lines.split("; ")).first_wrong

        self.assertIsNone(wrong("3 1/4; + 2 1/2; -----; 5 3/4"))
        self.assertEqual(wrong("3 1/4; + 2 1/2; -----; 5 1/4"), 3)
        self.assertEqual(wrong("3 1/4; + 2 1/4; -----; 5 3/4"), 3)  # the result is right, and the column false
        self.assertEqual(wrong("3 1/4 + 2 1/4; -----; 5 1/2"), 0)  # one line above a rule is a line of its own
        self.assertIsNone(wrong("3 1/4 + 2 1/2 = 3 1/4 + 2 2/4; 3 1/4; + 2 2/4; =====; 5 3/4"))
