"""What pupils hold: the posterior against the formula written out, what is no evidence, groups, and answers that come from a file."""

import contextlib
import io
import json
import tempfile
import unittest
from fractions import Fraction
from itertools import combinations
from pathlib import Path
from random import Random

from hypothesis import given, settings
from hypothesis import strategies as st

from bench.answers import CODES, identifiable, make_pupils, revealing_set
from bench.classroom import answers as class_answers
from keen_slate import cli
from keen_slate.core.diagnosing.holding import believe, given_of, seen_of
from keen_slate.core.judging.beliefs import Given, Priors, Seen, beliefs, beliefs_of_class
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text

A, B, C, FORM = "smaller-from-larger", "add-across", "regroup-ten", "not-simplified"
VALUES = st.integers(0, 4).map(Fraction)
SEEN = st.builds(
    lambda right, reveals, forms, slips: Seen(right, {c: v for c, v in reveals.items() if v != right}, forms, frozenset(slips) - {right}),
    VALUES, st.dictionaries(st.sampled_from([A, B, C]), VALUES), st.dictionaries(st.just(FORM), st.just("2/4")), st.lists(VALUES, max_size=3),
)  # fmt: skip
GIVEN = st.one_of(
    st.none(), st.builds(Given, st.one_of(st.none(), VALUES), st.sampled_from(["1", "2/4"]), st.booleans())
)


def written_out(problems, answers):
    """The posterior of each code by the formula in the model's words, in fractions; common practice, no published figures."""
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
        worked = work_text("7 1/4 - 3 5/6")
        seen = seen_of(worked)
        shown = given_of(worked, "4 7/12")
        self.assertEqual((given_of(worked, ""), given_of(worked, None)), (None, None))
        alone = beliefs([seen], [shown])
        self.assertEqual(beliefs([seen, seen, seen], [shown, None, None]), alone)
        (found,) = [one for one in alone if one.code == A]
        self.assertEqual((found.could, found.did), ((0,), (0,)))
        right = given_of(worked, "3 5/12")
        weaker = [one.belief for one in beliefs([seen] * 3, [shown, right, right]) if one.code == A]
        self.assertLess(weaker[0], found.belief)  # where it could have shown and did not

    def test_a_class_moves_the_weight_of_a_code(self):
        seen = seen_of(work_text("1/2 + 1/3"))
        once = {"one": [given_of(work_text("1/2 + 1/3"), "2/5")]}
        many = once | {f"other {i}": [given_of(work_text("1/2 + 1/3"), "2/5")] for i in range(9)}
        first = beliefs_of_class([seen], once)["one"][0].belief
        self.assertGreater(beliefs_of_class([seen], many)["one"][0].belief, first)
        self.assertGreater(Priors({B: Fraction(1)}, 20).of(B), Priors().of(B))

    def test_a_stand_in_class_is_found_again(self):
        both = found = true = 0
        for seed in range(3):
            problems, pupils = revealing_set(16, seed), make_pupils(seed)
            wrote = {one.alias: [] for one in pupils}
            for one in class_answers(pupils, problems, seed):
                wrote[one.pupil].append(one.answer)
            fair = identifiable([seen_of(work_text(one)) for one in problems])
            held = believe(problems, wrote, Ways())
            for pupil in pupils:
                likely = {one.code for one in held.beliefs[pupil.alias] if one.word in ("likely", "very likely")} & fair
                both, found, true = (
                    both + len(likely & set(pupil.habits)),
                    found + len(likely),
                    true + len(fair & set(pupil.habits)),
                )
            grouped = [alias for group in held.groups for alias in group.pupils]
            self.assertEqual(sorted(grouped), sorted(wrote))  # everybody in one group
            self.assertLessEqual(len(held.groups), 4)
            self.assertTrue(all(len(group.pupils) > 1 for group in held.groups if group.codes))
            self.assertTrue(
                all(group.show is None or set(group.codes) & set(CODES + tuple(ENTRIES)) for group in held.groups)
            )
        self.assertGreaterEqual(2 * both / (found + true), 0.93)

    def test_codes_that_a_set_cannot_tell_apart_are_named(self):
        worked = work_text("3 1/2 - 1 1/4")
        same = next(one for one in worked.likely if one.status == "reveals" and one.same_as)
        held = believe(["3 1/2 - 1 1/4"], {"Sedge": [str(same.answer_value)]}, Ways())
        self.assertIn(tuple(sorted((same.entry.code, same.same_as[0]))), held.cannot_tell["Sedge"])


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

    def test_what_is_no_class_is_refused(self):
        problems = ["1/2 + 1/3"]
        bad = ["", "[]", {"problems": []}, {"problems": problems, "pupils": []}, {"problems": problems, "pupils": {"x": ["1", "2"]}},
               {"problems": problems, "pupils": {"x": [1]}}, {"problems": problems, "pupils": {}, "more": 1}, {"problems": ["1/0"], "pupils": {}},
               {"problems": problems, "pupils": {}, "ways": {"ties": "sideways"}}]  # fmt: skip
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
