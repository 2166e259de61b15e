"""What pupils hold: the posterior against the formula written out, what is no evidence, groups, and answers that come
from a file.
"""

import contextlib
import io
import json
import tempfile
import unittest
from datetime import date, timedelta
from fractions import Fraction
from itertools import combinations
from pathlib import Path
from random import Random

from hypothesis import given, settings
from hypothesis import strategies as st

from bench.answers import CODES, identifiable, make_pupils, revealing_set, written_by
from keen_slate import cli
from keen_slate.core.judging.beliefs import Evidence, Given, Priors, Seen, beliefs, beliefs_of_class
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.sittings.holding import believe, given_by
from keen_slate.core.sittings.judge import NO_WORD, TeachersWord, judged
from keen_slate.core.sittings.judge import given_of as as_given
from keen_slate.core.sittings.over_time import SittingAnswers, due, over_time, warm_up
from keen_slate.core.sittings.question import Question, asked_of, explainer_of

A, B, C, FORM = "smaller-from-larger", "add-across", "regroup-ten", "not-simplified"


def asked(*problems):
    return [asked_of(Question(problem)) for problem in problems]


def held_by(problems, wrote, moves=None):
    there = asked(*problems)
    return believe(there, {alias: given_by(there, answers) for alias, answers in wrote.items()}, moves)


def given_of(problem, written, word=NO_WORD):
    return as_given(judged(Question(problem), written), asked_of(Question(problem)).seen, word)


VALUES = st.integers(0, 4).map(Fraction)
SEEN = st.builds(
    lambda right, reveals, forms, slips: Seen(right, {c: v for c, v in reveals.items() if v != right}, forms,
        frozenset(slips) - {right}),
    VALUES, st.dictionaries(st.sampled_from([A, B, C]), VALUES), st.dictionaries(st.just(FORM), st.just("2/4")),
    st.lists(VALUES, max_size=3),
)  # fmt: skip
GIVEN = st.one_of(
    st.none(), st.builds(Given, st.one_of(st.none(), VALUES), st.sampled_from(["1", "2/4"]), st.booleans())
)


def written_out(problems, answers):
    """The posterior of each code by the formula in the model's words, in fractions; common practice, no published
    figures.
    """
    s, e = Fraction(3, 4), Fraction(8, 100)
    there = [(seen, answer) for seen, answer in zip(problems, answers, strict=True) if answer is not None]

    def writes(code, seen, answer):
        form = answer.value == seen.right and seen.forms.get(code) == answer.written
        return form or (answer.value is not None and seen.reveals.get(code) == answer.value)

    codes = [code for code in (A, B, C, FORM) if any(writes(code, seen, answer) for seen, answer in there)]
    held = dict.fromkeys(codes, Fraction(0))
    total = Fraction(0)
    for size in range(4):
        for chosen in combinations(codes, size):
            weight = Fraction(1)
            for code in codes:
                prior = {1: Fraction(3, 100), 2: Fraction(6, 100), 3: Fraction(12, 100)}[ENTRIES[code].often]
                weight *= prior if code in chosen else 1 - prior
            for seen, answer in there:
                acting = [code for code in chosen if code in seen.reveals]
                plain = 1 - e if answer.value == seen.right else e / (len(seen.slips) + 1)
                mixed = sum(seen.reveals[code] == answer.value for code in acting)
                weight *= s * Fraction(mixed, len(acting)) + (1 - s) * plain if acting else plain
                if answer.value == seen.right and seen.forms:
                    acting = [code for code in chosen if code in seen.forms]
                    plain = e if answer.form_fault else 1 - e
                    mixed = sum(seen.forms[code] == answer.written for code in acting)
                    weight *= s * Fraction(mixed, len(acting)) + (1 - s) * plain if acting else plain
            total += weight
            for code in chosen:
                held[code] += weight
    return {code: weight / total for code, weight in held.items()}


class BeliefTests(unittest.TestCase):
    @settings(max_examples=150)
    @given(st.lists(st.tuples(SEEN, GIVEN), max_size=6))
    def test_the_posterior_is_that_of_the_formula_exactly(self, pairs):
        problems, answers = [seen for seen, _ in pairs], [answer for _, answer in pairs]
        self.assertEqual({one.code: one.belief for one in beliefs(problems, answers)}, written_out(problems, answers))

    def test_blanks_and_pupils_who_were_away_are_no_evidence(self):
        problem = "7 1/4 - 3 5/6"
        seen = asked_of(Question(problem)).seen
        shown = given_of(problem, "4 7/12")
        self.assertEqual((given_of(problem, ""), given_of(problem, None)), (None, None))
        alone = beliefs([seen], [shown])
        self.assertEqual(beliefs([seen, seen, seen], [shown, None, None]), alone)
        (found,) = [one for one in alone if one.code == A]
        self.assertEqual((found.could, found.did), ((0,), (0,)))
        right = given_of(problem, "3 5/12")
        weaker = [one.belief for one in beliefs([seen] * 3, [shown, right, right]) if one.code == A]
        self.assertLess(weaker[0], found.belief)  # where it could have shown and did not

    def test_a_class_moves_the_weight_of_a_code(self):
        seen = asked_of(Question("1/2 + 1/3")).seen
        once = {"one": [given_of("1/2 + 1/3", "2/5")]}
        many = once | {f"other {i}": [given_of("1/2 + 1/3", "2/5")] for i in range(9)}
        first = beliefs_of_class({alias: Evidence([seen], answers) for alias, answers in once.items()})["one"][0].belief
        self.assertGreater(
            beliefs_of_class({alias: Evidence([seen], answers) for alias, answers in many.items()})["one"][0].belief,
            first,
        )
        self.assertGreater(Priors({B: Fraction(1)}, 20).of(B), Priors().of(B))

    def test_a_stand_in_class_is_found_again(self):
        both = found = true = 0
        for seed in range(3):
            problems, pupils = revealing_set(16, seed), make_pupils(seed)
            wrote = written_by(pupils, problems, seed)
            fair = identifiable([one.seen for one in asked(*problems)])
            held = held_by(problems, wrote)
            for pupil in pupils:
                likely = {one.code for one in held.beliefs[pupil.alias] if one.word in ("likely", "very likely")} & fair
                both, found, true = (
                    both + len(likely & set(pupil.habits)),
                    found + len(likely),
                    true + len(fair & set(pupil.habits)),
                )
            grouped = [alias for group in held.groups for alias in group.pupils]
            self.assertEqual(sorted([*grouped, *held.unclear]), sorted(wrote))  # everybody in one group, or to be asked
            self.assertLessEqual(len(held.groups), 4)
            self.assertTrue(all(len(group.pupils) > 1 for group in held.groups if group.codes))
            self.assertTrue(
                all(group.show is None or set(group.codes) & set(CODES + tuple(ENTRIES)) for group in held.groups)
            )
        self.assertGreaterEqual(2 * both / (found + true), 0.93)

    def test_codes_that_a_set_cannot_tell_apart_are_named(self):
        worked = explainer_of(Question("3 1/2 - 1 1/4")).worked
        same = next(one for one in worked.likely if one.status == "reveals" and one.same_as)
        held = held_by(["3 1/2 - 1 1/4"], {"Sedge": [str(same.answer_value)]})
        self.assertIn(tuple(sorted((same.entry.code, same.same_as[0]))), held.cannot_tell["Sedge"])

    def test_what_a_teacher_says_of_an_answer_counts_before_what_the_core_says(self):
        problem = "7 1/4 - 3 5/6"
        seen = [asked_of(Question(problem)).seen] * 4
        own = [given_of(problem, "4 7/12")] * 3
        picked = given_of(problem, "9 9/12", TeachersWord(codes=(C,)))  # nothing known here leads to it
        found = {one.code: one for one in beliefs(seen, [*own, picked])}
        self.assertEqual((found[C].did, found[A].did), ((3,), (0, 1, 2)))
        self.assertGreater(found[C].belief, Priors().of(C))
        other = given_of(problem, "9 9/12", TeachersWord(codes=("left-to-right",)))  # it could not even show here
        (strange,) = [one for one in beliefs(seen, [other]) if one.code == "left-to-right"]
        self.assertEqual((strange.could, strange.did), ((0,), (0,)))
        self.assertGreater(strange.belief, Priors().of("left-to-right"))
        waved = [given_of(problem, "4 7/12", TeachersWord(right=True))] * 4
        self.assertEqual(beliefs(seen, waved), [])
        self.assertIsNone(given_of(problem, "3 5/12", TeachersWord(right=False)).value)

    def test_who_is_mostly_wrong_without_a_reason_is_to_be_asked_and_a_pupil_stays_where_she_was_moved(self):
        turned, right = [*TURNED], [*RIGHT]
        wrote = {"a": turned, "b": turned, "c": right, "d": ["99 1/97", "98 1/89", "97 1/83"]}
        held = held_by(BORROWS, wrote)
        self.assertEqual(([group.pupils for group in held.groups], held.unclear), ([("a", "b"), ("c",)], ("d",)))
        codes = held.groups[0].codes
        moved = held_by(BORROWS, wrote, {"d": codes, "b": (), "c": ("add-across",), "nobody": ()})
        self.assertEqual([group.pupils for group in moved.groups], [("a", "d"), ("c", "b")])
        self.assertEqual(moved.unclear, ())


BORROWS = ("7 1/4 - 3 5/6", "5 1/3 - 2 3/4", "9 1/2 - 4 7/8")  # one rung
TURNED, RIGHT = ("4 7/12", "3 5/12", "5 3/8"), ("3 5/12", "2 7/12", "4 5/8")


def on(day):
    return date(2026, 11, 2) + timedelta(days=day)


def sitting(day, problems, wrote):
    there = asked(*problems)
    return SittingAnswers(on(day), tuple(there), {"Sedge": given_by(there, wrote)})


class OverTimeTests(unittest.TestCase):
    def sat(self, *sittings, today):
        return over_time([sitting(day, BORROWS, wrote) for day, wrote in sittings], on(today))

    def again(self, *sittings, today):
        return [one.source for one in warm_up(self.sat(*sittings, today=today), asked(*BORROWS), on(today))]

    def test_what_was_likely_and_has_not_shown_in_three_chances_is_no_longer_held(self):
        before = self.sat((0, TURNED), (7, RIGHT[:2]), today=8)
        self.assertEqual(before.no_longer["Sedge"], ())
        self.assertIn(A, [one.code for one in before.held.beliefs["Sedge"]])
        after = self.sat((9, RIGHT), (0, TURNED), (7, RIGHT[:2]), today=9)  # in whatever order they are told
        (gone,) = [one for one in after.no_longer["Sedge"] if one.code == A]
        self.assertEqual((gone.last, gone.on, gone.chances), (on(0), on(9), 5))
        self.assertNotIn(A, [one.code for one in after.held.beliefs["Sedge"]])
        again = self.sat((0, TURNED), (7, RIGHT), (9, TURNED[:1]), today=9)
        self.assertNotIn(A, [one.code for one in again.no_longer["Sedge"]])
        slipped = self.sat(
            (0, (TURNED[0], *RIGHT[1:])), (0, RIGHT), (7, RIGHT), today=9
        )  # once in six: it was not likely
        self.assertEqual(slipped.no_longer["Sedge"], ())

    def test_a_right_value_in_a_wrong_form_reaches_no_rung(self):
        self.assertTrue(self.sat((0, ["3 5/12"]), (7, ["3 5/12"]), today=8).reached["Sedge"])
        self.assertFalse(self.sat((0, ["3 10/24"]), (7, ["3 10/24"]), today=8).reached["Sedge"])

    def test_a_later_sitting_is_not_seen_yet(self):
        self.assertEqual(self.sat((0, TURNED), (7, RIGHT), today=6).no_longer["Sedge"], ())

    @settings(max_examples=80)
    @given(st.lists(st.tuples(st.integers(0, 9), st.booleans()), min_size=1, max_size=8))
    def test_a_rung_is_reached_by_right_answers_on_two_days(self, answers):
        answers.sort(key=lambda one: one[0])
        sittings = [sitting(day, BORROWS[:1], ["3 5/12" if right else "1"]) for day, right in answers]
        (rung,) = {one.rung for one in asked(*BORROWS)}
        found = [(one.rung, one.on) for one in over_time(sittings, on(9)).reached["Sedge"]]
        ends = [answers[i:] for i in range(len(answers)) if all(right for _, right in answers[i:])]
        two = [sorted({day for day, _ in end})[1] for end in ends[:1] if len({day for day, _ in end}) > 1]
        self.assertEqual(found, [(rung, on(day)) for day in two])

    @settings(max_examples=200)
    @given(st.lists(st.integers(0, 40), max_size=6), st.integers(0, 40))
    def test_what_was_won_comes_back_on_its_days_until_it_was_asked(self, days, today):
        waiting = False
        for day in range(today + 1):  # a calendar gone through day by day: 2, 7 and 21 days are common practice
            waiting = (waiting or day in (2, 7, 21)) and day not in days
        self.assertEqual(due(on(0), [on(day) for day in days if day <= today], on(today)), waiting)

    def test_a_warm_up_asks_what_is_due_with_other_numbers(self):
        self.assertEqual(self.again((0, TURNED), (7, RIGHT), today=8), [])
        made = self.again((0, TURNED), (7, RIGHT), today=9)
        found = self.sat((0, TURNED), (7, RIGHT), today=9)
        (back,) = [one for one in found.come_back if one.what == A]
        self.assertEqual(back.pupils, ("Sedge",))
        self.assertTrue(0 < len(made) <= 3 and not set(made) & set(BORROWS))
        for one, problem in zip(found.come_back, asked(*made), strict=False):
            self.assertTrue(problem.is_about(one.what))
        self.assertNotEqual(self.again((0, TURNED), (7, RIGHT), today=10), made)
        own = over_time([sitting(0, BORROWS, TURNED), sitting(7, BORROWS, RIGHT)], on(8), returns=(1,))
        self.assertTrue(own.come_back)  # the days are a setting


class BelieveCommandTests(unittest.TestCase):
    def run_with(self, given_value):
        with tempfile.TemporaryDirectory() as directory:
            file = Path(directory) / "class.json"
            file.write_text(given_value if isinstance(given_value, str) else json.dumps(given_value), encoding="utf-8")
            out, err = io.StringIO(), io.StringIO()
            with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
                status = cli.main(["believe", str(file), "--json"])
            return status, json.loads(out.getvalue() or err.getvalue())

    def test_a_class_from_a_file(self):
        problems = ["7 1/4 - 3 5/6", "5 1/3 - 2 3/4", "9 1/2 - 4 7/8", "1/2 + 1/3"]
        pupils = {
            "Sedge": ["4 7/12", "3 5/12", "5 3/8", "5/6"],
            "Alder": ["4 7/12", "3 5/12", "", "5/6"],
            "Reed": ["3 5/12", "2 7/12", "4 5/8", None],
        }
        status, found = self.run_with({"ways": {}, "problems": problems, "pupils": pupils, "aliases_seen": True})
        first = found["pupils"]["Sedge"]["beliefs"][0]
        self.assertEqual((status, first["code"], first["shown"], first["chances"]), (0, A, 3, 3))
        self.assertGreater(first["belief"], 0.9)
        self.assertEqual(
            [(group["codes"], group["pupils"]) for group in found["groups"]],
            [([A], ["Sedge", "Alder"]), ([], ["Reed"])],
        )
        self.assertEqual(found["groups"][0]["ladder"]["targets"], [A])
        self.assertEqual(found["groups"][0]["question"], ENTRIES[A].question)

    def test_sittings_from_a_file(self):
        sittings = [
            {"day": str(on(day)), "problems": list(BORROWS), "pupils": {"Sedge": list(wrote), "Reed": list(RIGHT)}}
            for day, wrote in ((7, RIGHT), (0, TURNED))
        ]
        status, found = self.run_with({"sittings": sittings, "today": str(on(9))})
        gone = {"code": A, "last": str(on(0)), "on": str(on(7)), "chances": 3}
        self.assertEqual((status, gone in found["no_longer"]["Sedge"], found["no_longer"]["Reed"]), (0, True, []))
        self.assertEqual([one["on"] for one in found["reached"]["Reed"]], [str(on(7))])
        self.assertTrue(found["come_back"] and found["warm_up"] and found["groups"])

    def test_what_is_no_class_is_refused(self):
        problems = ["1/2 + 1/3"]
        sat = {"day": "2026-11-02", "problems": problems, "pupils": {}}
        bad = ["", "[]", {"problems": []}, {"problems": problems, "pupils": []},
            {"problems": problems, "pupils": {"x": ["1", "2"]}},
               {"problems": problems, "pupils": {"x": [1]}}, {"problems": problems, "pupils": {}, "more": 1},
               {"problems": ["1/0"], "pupils": {}},
               {"problems": problems, "pupils": {}, "ways": {"ties": "sideways"}},
               {"sittings": []}, {"sittings": [sat], "problems": problems}, {"sittings": [sat | {"day": "soon"}]},
               {"sittings": [{"day": "2026-11-02"}]},
               {"sittings": [sat], "today": 3}, {"sittings": [sat | {"more": 1}]}, {"sittings": ["a"]},
               {"sittings": [sat | {"day": None}]}]  # fmt: skip
        for one in bad:
            status, said = self.run_with(one)
            self.assertEqual(status, 2, one)
            self.assertTrue(said["error"]["message"] and said["error"]["hint"], one)

    @settings(max_examples=40)
    @given(st.lists(st.one_of(st.none(), st.text(max_size=8)), max_size=2), st.integers(0, 99))
    def test_any_answer_can_be_given(self, wrote, seed):
        shuffled = Random(seed).sample(wrote, len(wrote))
        status, found = self.run_with(
            {"problems": ["2 1/3 - 1 1/2", "0.5 + 0.25"], "pupils": {"a": wrote, "b": shuffled}}
        )
        self.assertEqual((status, set(found["pupils"])), (0, {"a", "b"}))
