"""Ladders built to order, against plain enumeration with the core's own workings and against brute force."""

import json
import unittest
from collections import Counter
from dataclasses import replace
from fractions import Fraction
from functools import cache, reduce
from itertools import combinations, pairwise, product
from math import gcd, lcm
from operator import le, or_
from random import randrange
from unittest import mock

from hypothesis import example, given, settings
from hypothesis import strategies as st

from keen_slate.core.documents.ladder import ladder_document
from keen_slate.core.documents.plain import plainly
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import Dec, Frac, Mixed, Sum, Whole, make, value
from keen_slate.core.expressions.voice import OWN
from keen_slate.core.expressions.walks import leaves
from keen_slate.core.grading.features import features
from keen_slate.core.grading.rungs import RUNGS
from keen_slate.core.grading.standards import STANDARDS
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.ladders import Impossible, build, build_or_why, decimals, fractions, grids, read_spec
from keen_slate.core.ladders.build import NoLadderError, _Builder
from keen_slate.core.ladders.climb import climb, jump_between
from keen_slate.core.ladders.options import awkward, copy_key, distance, height, option
from keen_slate.core.ladders.parallel import parallel
from keen_slate.core.ladders.shapes import SHAPES
from keen_slate.core.ladders.smallest import smallest
from keen_slate.core.ladders.spaces import space_of
from keen_slate.core.ladders.spec import AVOIDED, SpecError, TermLimits, between
from keen_slate.core.ladders.starts import CLIMBS, climbs_for, wishes_for
from keen_slate.core.ladders.why import why
from keen_slate.core.ladders.written import is_written_within
from keen_slate.core.reading.problem import Problem
from keen_slate.core.reading.reader import read
from keen_slate.core.searching.cover import fewest
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text
from keen_slate.core.working.methods import work
from tests.support_core import sweep
from tools.golden import LADDERS, built

# Denominators of every relation, small enough to work every problem there is.
DENOMINATORS = (2, 4, 6, 9)
WHOLES = 2
LIMITS = st.builds(
    TermLimits,
    st.just(DENOMINATORS), st.sampled_from([None, 6, 12, 18, 36]), st.just(WHOLES),
    st.sampled_from([None, Fraction(1), Fraction(3, 2), Fraction(3)]), st.frozensets(st.sampled_from(sorted(AVOIDED))),
    st.sampled_from([frozenset("+-"), frozenset("+×"), frozenset("-")]), st.booleans(),
)  # fmt: skip


def option_of(problem):
    return option(read(problem).expr, Ways())


def blemishes(last, one):
    """What speaks against a problem (common practice), found from its numbers; and how far it stands from the *last*
    one.
    """
    numbers = [text(number) for number in leaves(one.expr)]
    parts = [n for n in leaves(one.expr) if isinstance(n, (Frac, Mixed))]
    dens = [n.den for n in parts]
    alone = (
        len(numbers) - len(set(numbers)),
        isinstance(one.expr, Sum) and text(one.expr.first) == text(one.expr.rest[0][1]) and one.expr.rest[0][0] == "-",
        len(set(dens)) > 1 and any(gcd(n.num, n.den) > 1 for n in parts),
        value(one.expr) < 0,
        one.features.negatives,
        not one.answers,
        lcm(*dens) > 24,
        one.features.large_facts > 0,
    )
    if last is None:
        return alone
    same = set(numbers) & {text(number) for number in leaves(last.expr)}
    before = [n.den for n in leaves(last.expr) if isinstance(n, (Frac, Mixed))]
    return (*alone, distance(last, one), len(same), bool(dens) and sorted(dens) == sorted(before))


@cache
def two_terms():
    """Every sum and difference of two fractions, mixed numbers and wholes, with its features and value."""
    parts = [(w, n, d) for w in range(WHOLES + 1) for d in DENOMINATORS for n in range(1, d)]
    numbers = [make(*part) for part in parts] + [Whole(n) for n in range(1, WHOLES + 1)]
    return [
        seen(Sum(a, ((o, b),)), "add-subtract")
        for a, b, o in product(numbers, numbers, "+-")
        if o == "-"
        or (not isinstance(a, Whole) and not isinstance(b, Whole))  # what only has to be joined is not built
    ]


@cache
def three_fractions():
    numbers = [Frac(n, d) for d in (2, 3, 9) for n in range(1, d)]
    return [
        seen(Sum(a, ((o, b), (p, c))), "add-subtract")
        for a, b, c, o, p in product(numbers, numbers, numbers, "+-", "+-")
    ]


def seen(expr, kind):
    working = work(Problem(expr, None, kind))
    return features(working), working.value, expr


def keeps(limits, found):
    """The limits, looked at the long way."""
    seen, answer, expr = found
    if not {o for o, _ in expr.rest} <= limits.operations:
        return False
    if limits.lowest_terms and any(gcd(n.num, n.den) > 1 for n in leaves(expr) if isinstance(n, (Frac, Mixed))):
        return False
    avoided = {
        "negatives": seen.negatives, "simplification": seen.simplify_by > 1, "whole-answers": seen.whole_answer,
        "large-pictures": (seen.common_denominator or 1) > 24, "large-facts": seen.large_facts > 0,
    }  # fmt: skip
    return (
        answer != 0
        and (limits.below is None or answer < limits.below)
        and (limits.largest_common is None or (seen.common_denominator or 1) <= limits.largest_common)
        and not any(avoided[name] for name in limits.avoid)
    )


def limits_of(problem, spec_limits):
    """Denominators, wholes and least common denominator of a problem as it is typed."""
    numbers = leaves(problem.expr)
    dens = [n.den for n in numbers if isinstance(n, (Frac, Mixed))]
    wholes = [n.n if isinstance(n, Whole) else n.whole for n in numbers if not isinstance(n, Frac)]
    return set(dens) <= set(spec_limits.denominators), max(wholes, default=0), lcm(*dens)


SPECS = st.fixed_dictionaries(
    {
        "rungs": st.dictionaries(st.sampled_from([r for r in RUNGS if r[0] in "FM"]), st.integers(1, 2), min_size=1,
            max_size=4),
        "denominators": st.just([2, 3, 4, 6, 8, 12]), "largest_whole": st.integers(3, 12),
        "seed": st.integers(0, 2**53),
        "largest_common_denominator": st.sampled_from([None, 24, 60]),
        "answer_below": st.sampled_from([None, 9, "7 1/2"]),
        "avoid": st.lists(st.sampled_from(["negatives", "large-facts", "large-pictures"]), unique=True),
        "targets": st.lists(st.sampled_from(["add-across", "top-not-scaled", "regroup-ten", "carry-lost"]),
            unique=True),
        "separate": st.booleans(),
    }
)  # fmt: skip


class CountTests(unittest.TestCase):
    @given(LIMITS)
    @settings(max_examples=30)
    def test_counts_of_two_terms_are_those_of_plain_enumeration(self, limits):
        expected = Counter(found[0].rung for found in two_terms() if keeps(limits, found))
        rungs = fractions.RUNGS
        self.assertEqual(
            {r: space_of(r, limits).count for r in rungs}, {r: expected[r] for r in rungs}, "counted and enumerated"
        )

    @given(LIMITS)
    @settings(max_examples=30)
    def test_counts_of_three_fractions_are_those_of_plain_enumeration(self, limits):
        limits = replace(limits, denominators=(2, 3, 9), largest_whole=2)
        stays = [f for f in three_fractions() if f[2].rest[0][0] == "+" or value(f[2].first) >= value(f[2].rest[0][1])]
        expected = Counter(f[0].rung for f in stays if keeps(limits, f))  # none passes below zero on its way
        for rung in ("F7", "F8", "F9"):
            space = space_of(rung, limits)
            self.assertEqual((space.count, len(list(space.all()))), (expected[rung], expected[rung]), rung)

    def test_counts_of_decimals_are_those_of_plain_enumeration(self):
        parts = ("", "5", "08", "99")
        numbers = [(w, part) for w in range(11) for part in parts]
        found = [
            seen(Sum(decimals._write(*a), ((o, decimals._write(*b)),)), "decimal")
            for a, b, o in product(numbers, numbers, "+-")
            if a[1] or b[1]
        ]
        limits = [
            TermLimits(largest_whole=10),
            TermLimits(largest_whole=10, below=Fraction(21, 2), avoid=frozenset(["negatives", "whole-answers"])),
        ]
        with mock.patch.object(decimals, "parts_of", lambda _: parts):
            decimals._shapes.cache_clear()
            self.addCleanup(decimals._shapes.cache_clear)
            for limit in limits:
                expected = Counter(one[0].rung for one in found if keeps(limit, one))
                for rung in decimals.RUNGS:
                    self.assertEqual(space_of(rung, limit).count, expected[rung], (rung, limit))

    @given(st.sampled_from(list(RUNGS)), st.randoms(use_true_random=False))
    def test_what_is_drawn_stands_on_its_rung(self, rung, dice):
        drawn = space_of(rung, TermLimits(denominators=(2, 3, 4, 6, 12), largest_whole=12)).draw(dice)
        self.assertEqual(option(drawn, Ways(), rung).rung, rung)

    @given(st.sampled_from(grids.RUNGS), st.fixed_dictionaries({}, optional={
        "operations": st.sampled_from([["+"], ["+", "-"], ["×", "÷"], ["+", "-", "×", "÷"]]),
        "lowest_terms": st.just(True),
        "places": st.sampled_from([1, 3, [2]]), "answer_below": st.sampled_from([2, "7 1/2"]),
        "denominators": st.just([2, 4, 6, 9, 25]), "largest_whole": st.sampled_from([3, 400]),
        "seed": st.integers(0, 9),
    }))  # fmt: skip
    @example("M10", {"operations": ["×", "÷"], "lowest_terms": True})  # it went through all sums for nothing
    @example("M10", {"answer_below": 2})  # the same: three mixed numbers are more than 3
    @settings(max_examples=40)
    def test_the_other_rungs_are_built_within_their_limits(self, rung, wish):
        spec = read_spec({"rungs": {rung: 2}, **wish})
        try:
            problems = build(spec).problems
        except NoLadderError:
            return self.assertTrue(wish)
        self.assertEqual([one.rung for one in problems], [rung, rung])
        for one in problems:
            self.assertEqual(work_text(text(one.expr), target=one.target).features.rung, rung)
            self.assertTrue(is_written_within(one.expr, spec.limits) and one.right < (spec.limits.below or 10**9))

    @given(
        st.sampled_from(list(SHAPES)),
        st.sampled_from(["F4", "M5", "M7", "P1", "P3", "P4", "O2", "V3"]),
        st.integers(0, 99),
    )
    @settings(max_examples=40)
    def test_a_shape_is_kept_to_or_ruled_out(self, only, rung, seed):
        spec = read_spec({"rungs": {rung: 2}, "only": only, "seed": seed, "denominators": [2, 4, 5, 8]})
        try:
            problems = build(spec).problems
        except NoLadderError:
            why = build_or_why(spec)
            return self.assertEqual((why.limit, why.nearest), ("only", None))
        for one in problems:
            self.assertTrue(SHAPES[only].has(one.expr))


# What the standards say of the numbers is from memory; published: CCSS-M (2010), national curriculum in England (2013).
ASKS = {
    "4.NF.B.3c": lambda e: len({n.den for n in leaves(e) if isinstance(n, (Frac, Mixed))}) == 1,
    "4.NF.C.5": lambda e: {n.den for n in leaves(e)} == {10, 100} and e.rest[0][0] == "+",
    "4.NF.C.6": lambda e: isinstance(e, Frac) and e.den in (10, 100),
    "5.NF.B.7": lambda e: e.rest[0][0] == "÷" and sorted(1 if isinstance(n, Frac) else 0 for n in leaves(e)) == [0, 1]
    and all(n.num == 1 for n in leaves(e) if isinstance(n, Frac)),
    "6.NS.A.1": lambda e: e.rest[0][0] == "÷" and not any(isinstance(n, Whole) for n in leaves(e)),
    "7.NS.A.1": lambda e: value(e) < 0,
    "England, Year 5 (multiplying)": lambda e: sum(isinstance(n, Whole) for n in leaves(e)) == 1,
    "England, Year 6 (multiplying)": lambda e: e.rest[0][0] == "×" or isinstance(e.rest[0][1], Whole),
}  # fmt: skip


class StartTests(unittest.TestCase):
    def test_every_standard_has_a_graded_set_of_problems_that_it_asks_for(self):
        seed = randrange(10**6)
        for standard in STANDARDS:
            with self.subTest(standard.code, seed=seed):
                made = [build(read_spec(wish)) for wish in wishes_for(standard, seed)]
                problems = [one for ladder in made for one in ladder.problems]
                self.assertEqual(len(problems), 8)
                self.assertEqual(len({copy_key(one.expr) for one in problems}), 8)
                if standard.code in ASKS:
                    for one in problems:
                        self.assertTrue(ASKS[standard.code](one.expr), text(one.expr))
                else:
                    leads_to = {"M7"} if "M8" in standard.rungs else set()
                    self.assertLessEqual({one.rung for one in problems}, set(standard.rungs) | leads_to)
                # What is built climbs by our own judgement.
                self.assertEqual([m for a, b in pairwise(problems) if (m := jump_between(a.footing, b.footing))], [])

    @given(st.sampled_from(sorted(RUNGS)), st.integers(0, 2**53))
    @settings(max_examples=40)
    def test_the_problems_of_a_rung_climb(self, rung, seed):
        found = build(read_spec({"rungs": {rung: 4}, "seed": seed})).problems
        self.assertEqual([jump_between(a.footing, b.footing) for a, b in pairwise(found)], [None] * 3)
        self.assertEqual([height(one) for one in found], sorted(height(one) for one in found))

    def test_climbs_that_suit_a_title_can_be_built_in_the_order_of_their_rungs(self):
        for one in CLIMBS:
            rungs = list(between(one.first, one.last, 8))
            self.assertEqual((rungs[0], rungs[-1]), (one.first, one.last))
            self.assertNotIn("<", OWN.said(one.name))  # a class says it in its own words
            words = " ".join(sorted(one.words))
            self.assertIn(one, climbs_for(words, len(CLIMBS)))
            self.assertEqual(len(climbs_for(words)), 3)
        self.assertEqual(climbs_for("Boardwalk: what is left over")[0].name, "Subtracting <mixed numbers>")


class BuildTests(unittest.TestCase):
    @given(SPECS)
    @settings(max_examples=sweep(20, 40))
    def test_a_ladder_keeps_its_wish_or_says_what_to_change(self, given_spec):
        spec = read_spec(given_spec)
        made = build_or_why(spec)
        if isinstance(made, Impossible):
            changed = given_spec | {made.limit: made.nearest}
            self.assertNotIsInstance(build_or_why(read_spec(changed)), Impossible)
            return
        for here, before in zip(made.problems, [None, *made.problems], strict=False):  # why it stands there is true
            said = why(here, before, made.reveals)
            if before is not None:
                self.assertEqual(said.startswith("now "), here.rung != before.rung)
            self.assertEqual("shows" in said, bool(set(here.answers) & set(made.reveals)))
        document = plainly(ladder_document(made, spec))
        self.assertEqual(document, plainly(ladder_document(build(read_spec(given_spec)), spec)))
        self.assertEqual([p["features"]["rung"] for p in document["problems"]], list(spec.slots))
        worked = [work_text(p["text"]) for p in document["problems"]]
        self.assertEqual(len({copy_key(w.working.problem.expr) for w in worked}), len(worked))
        for one, shown in zip(worked, document["problems"], strict=True):
            allowed, whole, common = limits_of(one.working.problem, spec.limits)
            self.assertTrue(allowed and whole <= spec.limits.largest_whole)
            self.assertTrue(keeps(spec.limits, (one.features, one.working.value, one.working.problem.expr)))
            self.assertLessEqual(common, spec.limits.largest_common or common)
            revealed = {f.entry.code: f.answer_value for f in one.likely if f.status == "reveals"}
            self.assertEqual(set(shown["reveals"]), set(revealed))
        self.assertLessEqual(set(spec.targets), set(document["reveals"]))
        for a, b in combinations(spec.targets, 2):
            answers = [
                ({f.entry.code: f.answer_value for f in w.likely if f.status == "reveals"}, w.working.value)
                for w in worked
            ]
            apart = any(found.get(a, right) != found.get(b, right) for found, right in answers)
            self.assertEqual([a, b] not in document["not_separated"], apart)

    @given(st.lists(st.integers(0, 63), min_size=4, max_size=12), st.lists(st.integers(0, 63), min_size=4, max_size=12))
    def test_no_fewer_problems_of_the_pools_would_do_what_is_wanted(self, low, high):
        masks = (low, high)
        builder = _Builder(read_spec({"rungs": {"F6": 2, "M7": 2}}), {}, ())
        builder.pools = {
            rung: pool[: len(does)] for (rung, pool), does in zip(builder.pools.items(), masks, strict=True)
        }
        pools = [
            (one, bits)
            for pool, does in zip(builder.pools.values(), masks, strict=True)
            for one, bits in zip(pool, does, strict=True)
        ]
        builder.masks = {id(one): bits for one, bits in pools}

        def does_all(some):
            return (
                not 63 & ~reduce(or_, [bits for _, bits in some], 0)
                and Counter(o.rung for o, _ in some) <= builder.free
            )

        chosen = builder._assign(63)
        least = next((size for size in range(5) if any(map(does_all, combinations(pools, size)))), None)
        self.assertEqual(chosen and len(chosen), least)
        self.assertTrue(chosen is None or does_all([(one, builder.mask(one)) for one in chosen]))

    @given(st.integers(0, 2**40), st.sampled_from(["F3", "F6", "M4", "D3"]), st.integers(2, 4))
    @settings(max_examples=15)
    def test_each_problem_is_the_best_of_those_left(self, seed, rung, count):
        builder = _Builder(read_spec({"rungs": {rung: count}, "seed": seed}), {}, ())
        left = list(builder.pools[rung])
        last = None
        for best in builder._filled([])[0]:
            better = [one for one in left if all(map(le, blemishes(last, one), blemishes(last, best)))]
            self.assertLessEqual({blemishes(last, one) for one in better}, {blemishes(last, best)})
            self.assertGreater(len(left), count, "there was something to choose from")
            left.remove(best)
            last = best

    def test_what_a_teacher_would_rather_not_pick_weighs_as_much_as_she_minds(self):
        # Common practice: each left one is picked before the right one.
        better_first = [
            ("3/4 - 1/6", "3/4 - 3/4"), ("3/4 + 1/6", "3/4 + 3/4"), ("2/3 + 1/6", "4/6 + 1/9"),
            ("3/4 - 1/6", "1/6 - 3/4"),
            ("3/4 + 3/4", "1/6 - 3/4"), ("2/3 + 1/6", "7/13 + 5/17"), ("7/13 + 5/17", "3/4 - 3/4 + 1/2"),
            ("4/6 + 1/6", "4/6 + 1/9"),
        ]  # fmt: skip
        for better, worse in better_first:
            self.assertLess(awkward(option_of(better)), awkward(option_of(worse)), (better, worse))
        self.assertEqual(awkward(option_of("3/4 - 1/6")), 0)

    def test_ladders_are_built_as_they_were_read(self):
        for one in json.loads(LADDERS.read_text(encoding="utf-8")):
            with self.subTest(one["wish"]):
                self.assertEqual(built(one["wish"]), one["problems"])

    def test_kept_problems_stay_and_shunned_ones_do_not_come_back(self):
        spec = read_spec({"from": "M1", "to": "M6", "steps": 6, "seed": 3, "avoid": ["negatives"]})
        first = build(spec)
        kept = {i: p.expr for i, p in enumerate(first.problems) if i != 2}
        swapped = build(spec, kept, [first.problems[2].expr])
        same = [a.expr == b.expr for a, b in zip(first.problems, swapped.problems, strict=True)]
        self.assertEqual(same, [True, True, False, True, True, True])
        self.assertEqual(swapped.problems[2].rung, "M3")

    def test_the_nearest_limit_is_the_nearest(self):
        cases = [
            ({"rungs": {"M4": 1}, "denominators": [3, 4], "largest_common_denominator": 3},
                "largest_common_denominator", 12),
            ({"rungs": {"M1": 1}, "answer_below": 1}, "answer_below", 2),
            ({"rungs": {"M7": 1}, "largest_whole": 0}, "largest_whole", 1),
            ({"rungs": {"F6": 2}, "denominators": [2, 4, 8]}, "denominators", [2, 3, 4, 8]),
            ({"rungs": {"F2": 1}, "avoid": ["simplification", "negatives"]}, "avoid", ["negatives"]),
            ({"rungs": {"F1": 1}, "targets": ["add-across", "carry-lost"]}, "targets", ["add-across"]),
        ]  # fmt: skip
        for wish, limit, nearest in cases:
            found = build_or_why(read_spec(wish))
            self.assertEqual(found, Impossible(limit, nearest), wish)
            self.assertTrue(found.said.endswith("."))
        self.assertNotEqual(Impossible("rungs", None).said, Impossible("rungs", None, of="stories").said)

    def test_a_wish_that_cannot_be_understood_is_met_with_a_sentence(self):
        wrong = [  # no object; a key, rung, code or label that does not exist; a count, a number, a list that is none
            [], {"rungs": {}}, {"rungs": {"D1": 1}, "places": 10**12}, {"rungs": {"F0": 1}}, {"rungs": {"F1": 99}},
            {"rungs": {"F1": True}}, {"rung": 1}, {"from": "M1", "to": "F1"},
            {"rungs": {"F1": 1}, "denominators": [1]}, {"rungs": {"F1": 1}, "denominators": []},
            {"rungs": {"F1": 1}, "avoid": ["x"]},
            {"rungs": {"F1": 1}, "targets": "add-across"}, {"rungs": {"F1": 1}, "answer_below": "1/0"},
            {"rungs": {"F1": 1}, "label": "<b>"},
            {"rungs": {"F1": 1}, "largest_whole": 1000}, {"rungs": {"F1": 1}, "separate": 1},
            {"rungs": {"F1": 1}, "seed": "x"},
        ]  # fmt: skip
        for wish in wrong:
            with self.assertRaises(SpecError, msg=wish) as caught:
                read_spec(wish)
            self.assertTrue(caught.exception.message and caught.exception.hint, wish)

    @given(st.recursive(st.none() | st.booleans() | st.integers() | st.text(max_size=5),
        lambda inner: st.lists(inner, max_size=3) | st.dictionaries(
            st.sampled_from(["rungs", "from", "to", "steps", "denominators", "avoid", "targets", "label", "F1", "x"]),
        inner, max_size=4)))  # fmt: skip
    def test_any_json_is_read_or_refused(self, given_spec):
        try:
            read_spec(given_spec)
        except SpecError as error:
            self.assertTrue(error.hint)


class CoverTests(unittest.TestCase):
    @given(st.lists(st.integers(0, 255), max_size=9), st.integers(0, 255))
    def test_no_fewer_would_do(self, masks, wanted):
        reach = 0
        for mask in masks:
            reach |= mask & wanted

        def covers(chosen):
            bits = 0
            for mask in chosen:
                bits |= mask
            return bits & reach == reach

        cover = fewest(masks, wanted)
        self.assertTrue(cover.fewest and covers(masks[i] for i in cover.chosen))
        least = next(size for size in range(len(masks) + 1) if any(covers(c) for c in combinations(masks, size)))
        self.assertEqual(len(cover.chosen), least)

    def test_a_smallest_revealing_set_reveals_and_separates_all_and_no_fewer_problems_do(self):
        codes = ["add-across", "added-common-bottoms", "top-not-scaled", "carry-lost", "smaller-from-larger",
            "regroup-ten", "fraction-brought-down"]  # fmt: skip
        found = smallest(codes)
        self.assertEqual((found.proven, found.not_revealed, found.not_separated), (True, (), ()))
        worked = [work_text(text(one.expr)) for one in found.problems]
        shown = [{f.entry.code: f.answer_value for f in w.likely if f.status == "reveals"} for w in worked]
        self.assertLessEqual(set(codes), set().union(*shown))
        for a, b in combinations(codes, 2):
            self.assertTrue(
                any(s.get(a, w.working.value) != s.get(b, w.working.value) for s, w in zip(shown, worked, strict=True))
            )
        others = {frozenset(set(codes) & {f.entry.code for f in work_text(text(e)).likely if f.status == "reveals"})
                  for r in ("F6", "M3", "M4", "M6", "M7", "M8") for e in list(space_of(r,
                      TermLimits((2, 3, 4, 5), None, 3)).typical())[:150]}  # fmt: skip
        self.assertFalse([pair for pair in combinations(others, len(worked) - 1) if set(codes) <= set().union(*pair)])

    def test_problems_of_kinds_that_are_not_gone_through_are_not_called_proven(self):
        found = smallest(["flipped-first", "parts-separately"])
        self.assertFalse(found.proven)
        self.assertEqual(found.not_revealed, ())


class ClimbTests(unittest.TestCase):
    @given(st.lists(st.sampled_from(["F1", "F4", "M2", "D1", None]), max_size=6))
    def test_it_never_steps_back_and_moves_as_few_as_can_be(self, rungs):
        found = climb(rungs)
        self.assertEqual(sorted(found.order), list(range(len(rungs))))
        heights = []
        for rung in rungs:
            heights.append(list(RUNGS).index(rung) if rung else heights[-1] if heights else 0)
        climbed = [heights[at] for at in found.order]
        self.assertEqual(climbed, sorted(heights))
        stay = [at for at in found.order if at not in found.moves]
        self.assertEqual(stay, sorted(stay))
        fewest_moves = min(
            size for size in range(len(rungs) + 1) for gone in combinations(range(len(rungs)), size)
            if (left := [heights[i] for i in range(len(rungs)) if i not in gone]) == sorted(left)
        )  # fmt: skip
        self.assertEqual(len(found.moves), fewest_moves)


class ParallelTests(unittest.TestCase):
    def assert_as_hard(self, worked, other):
        recurs, places = [], []
        for one in (worked, other):
            (answer,) = leaves(one.working.answer)[-1:]
            recurs.append(isinstance(answer, Dec) and bool(answer.period))
            places.append(len(answer.places) if isinstance(answer, Dec) else 0)
        self.assertEqual(recurs[0], recurs[1], (worked.working.problem.text, other.working.problem.text))
        self.assertLessEqual(places[1], places[0], (worked.working.problem.text, other.working.problem.text))
        small, large = sorted([worked.working.largest_number, other.working.largest_number])
        self.assertLessEqual(large, max(2 * small, 12))

    @given(st.sampled_from(sorted(RUNGS)), st.integers(0, 2**32))
    @settings(max_examples=60)
    def test_a_version_of_a_problem_of_any_rung_is_as_hard(self, rung, seed):
        (problem,) = build(read_spec({"rungs": {rung: 1}, "seed": seed})).problems
        worked = work_text(text(problem.expr), target=problem.target)
        found = parallel(worked, seed)
        if found is not None:
            self.assert_as_hard(worked, work_text(found.worked.working.problem.text, target=problem.target))
            self.assertTrue(found.worked.features.rung == rung or "rung" in found.different)

    @given(st.sampled_from([entry.example for entry in ENTRIES.values()]), st.integers(0, 9))
    @settings(max_examples=30)
    def test_it_is_alike_in_all_that_it_says_and_has_other_numbers(self, source, seed):
        worked = work_text(source)
        found = parallel(worked, seed)
        again = work_text(found.worked.working.problem.text)
        self.assertNotEqual(copy_key(again.working.problem.expr), copy_key(worked.working.problem.expr))
        self.assertEqual(again.working.problem.kind, worked.working.problem.kind)
        shown = [{f.entry.code for f in w.likely if f.status == "reveals"} for w in (worked, again)]
        self.assertEqual(shown[0] ^ shown[1], set(found.different) & set(ENTRIES))
        if not worked.working.parts:
            self.assert_as_hard(worked, again)
        if not found.different:
            for name in ("rung", "denominators", "steps", "carries", "regroups", "negatives", "whole_answer"):
                self.assertEqual(getattr(worked.features, name), getattr(again.features, name), name)
