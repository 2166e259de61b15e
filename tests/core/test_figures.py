"""Pictures: exact parts, inside the frame, labels apart, what is seen told truly, one list for two renderers."""

import random
import re
import unittest
import xml.etree.ElementTree as ET
from fractions import Fraction
from itertools import combinations, pairwise

from hypothesis import example, given, settings
from hypothesis import strategies as st

from keen_slate.core.documents.figure import figure_view
from keen_slate.core.errors import CoreError
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import Neg, Sum, Whole, value
from keen_slate.core.expressions.voice import MARK, OWN
from keen_slate.core.figures import choose, expose
from keen_slate.core.figures.display import DIGIT_WIDTH, WIDTH, marks, seen
from keen_slate.core.figures.inks import INKS, PAPER
from keen_slate.core.figures.scenes import Joining, Shown, Taking, in_blocks, largest, scene_of
from keen_slate.core.figures.svg import svg
from keen_slate.core.figures.to_shade import KINDS, circles_to_cut, strips_to_cut, to_shade
from keen_slate.core.limits import MOST_PARTS, MOST_WHOLES
from keen_slate.core.reading.reader import read
from keen_slate.core.teaching.sentences import TeachersWords
from keen_slate.core.worked import work_text
from keen_slate.core.working.step_kinds import PUT_SIGN, REORDER
from tests import strategies
from tests.support_core import sweep, viewed

SVG = "{http://www.w3.org/2000/svg}"
PIECES = ("bars", "circles", "grid")


def place_before(shape):
    """The shape's coordinates before the action (turns are the fourth and fifth of a sector)."""
    dx, dy, turn = shape.moved
    at = list(shape.at)
    at[0], at[1] = at[0] + dx, at[1] + dy
    if shape.shape == "sector":
        at[3], at[4] = at[3] + turn, at[4] + turn
    return tuple(at)


def area(shape, at):
    """The share of its whole that a part covers: exact."""
    return at[4] - at[3] if shape.shape == "sector" else at[2] * at[3]


def whole_area(shape):
    return 1 if shape.shape == "ring" else shape.at[2] * shape.at[3]


def box(shape, at):
    """Left, top, right, bottom of a shape; of text by the width that the core reckons with."""
    if shape.shape == "text":
        length = len(shape.text.replace(MARK, "."))
        width = DIGIT_WIDTH * length if length < 9 else 10 * length
        left = at[0] - {"start": 0, "middle": width // 2, "end": width}[shape.anchor]
        return left, at[1] - 16, left + width, at[1] + 3
    if shape.shape == "rect":
        return at[0], at[1], at[0] + at[2], at[1] + at[3]
    if shape.shape in ("ring", "sector", "spoke"):
        r = at[2] if shape.shape != "spoke" else max(at[3], at[5])
        return at[0] - r, at[1] - r, at[0] + r, at[1] + r
    if shape.shape == "comb":
        x, step, count, y1, y2 = at
        return x, y1, x + step * (count - 1), y2
    if shape.shape == "arc":
        return min(at[:2]), at[2] - at[3], max(at[:2]), at[2]
    return min(at[0], at[2]), min(at[1], at[3]), max(at[0], at[2]), max(at[1], at[3])


def overlap(a, b):
    return a[0] < b[2] and b[0] < a[2] and a[1] < b[3] and b[1] < a[3]


class FigureTests(unittest.TestCase):
    def assert_sound(self, figure, problem):
        wholes = [s for s in figure.shapes if s.look == "whole" and figure.kind in PIECES]
        sizes = {whole_area(s) if s.shape == "rect" else s.at[2] for s in wholes if s.at[-1] != 24}
        self.assertLessEqual(len(sizes), 1, problem)  # every whole is of one size
        for state in ("before", "after"):
            boxes = []
            for shape in seen(figure, state):
                at = place_before(shape) if state == "before" else shape.at
                left, top, right, bottom = box(shape, at)
                self.assertTrue(0 <= left <= right <= WIDTH and 0 <= top <= bottom <= figure.height, (problem, shape))
                if shape.shape == "text":
                    boxes.append((left, top, right, bottom, shape.text))
                    for arc in [s for s in seen(figure, state) if s.shape == "arc"]:
                        under = box(arc, arc.at)  # no label stands where a jump passes
                        self.assertFalse(overlap((left, top, right, bottom), under), (problem, state, shape.text))
            for a, b in combinations(boxes, 2):
                self.assertFalse(overlap(a, b), (problem, figure.kind, state, a, b))

    def test_nothing_leaves_the_frame_and_no_label_meets_another_in_hundreds_of_problems(self):
        dice = random.Random(4)
        drawn = set()
        for _ in range(sweep(350, 700)):
            most = dice.choice([9, 12, 30, 400])
            terms = []
            for _ in range(dice.choice([1, 2, 2, 2, 3, 4])):
                d = dice.randint(2, most)
                whole = f"{dice.choice([0, 0, 1, 3, dice.randint(0, most)])} "
                terms.append(f"{whole.replace('0 ', '') if whole == '0 ' else whole}{dice.randint(0, d + 3)}/{d}")
            problem = " ".join([terms[0], *[f"{dice.choice('+-')} {term}" for term in terms[1:]]])
            ways = {name: dice.choice(choose_from) for name, choose_from in WAYS.items()}
            working = work_text(problem, strategies.Ways.of(ways)).working
            look = choose.Look.of(working)
            for step in working.steps:
                for kind in choose.offered(choose.StepSeen.of(step, look)):
                    figure = choose.of_step(step, look, kind)
                    self.assertEqual(figure.kind, kind)
                    drawn.add(kind)
                    self.assert_sound(figure, problem)
            for asked in (None, *choose.FIGURE_KINDS):
                self.assert_sound(choose.of_problem(working, asked), problem)
        self.assertEqual(drawn, set(choose.FIGURE_KINDS) - {"place-value"})  # every kind for fractions was among them

    @given(strategies.classroom_pairs, strategies.all_ways)
    def test_shaded_areas_are_the_numbers_exactly(self, expr, ways):
        working = work_text(text(expr), ways).working
        look = choose.Look.of(working)
        for step in working.steps:
            scene = scene_of(step)
            if scene is None:
                continue
            for kind in [k for k in choose.offered(choose.StepSeen.of(step, look)) if k in PIECES]:
                figure = choose.of_step(step, look, kind)
                one = next((whole_area(s) for s in figure.shapes if s.look == "whole" and s.at[-1] != 24), None)
                for state in ("before", "after"):
                    shown = list(seen(figure, state))
                    blocks = {s.at: s for s in shown if s.look == "block"}  # many wholes, with their number
                    parts = [s for s in shown if s.look == "part" and s.at not in blocks]
                    total = sum((Fraction(area(s, s.at)) for s in parts), Fraction(0)) / one if parts else Fraction(0)
                    total += sum(
                        int(s.text)
                        for s in shown
                        if s.shape == "text"
                        and s.anchor == "middle"
                        and any(overlap(box(s, s.at), box(b, b.at)) for b in blocks.values())
                    )
                    self.assertEqual(total, self.amount_of(scene, state), (text(expr), step.kind.code, kind, state))
                    crossed = [s for s in shown if s.look == "cross"]
                    self.assertTrue(state == "after" or not crossed)
                    self.assert_parts_lie_apart(figure, state)

    def amount_of(self, scene, state):
        def size(amount):
            return amount.wholes + Fraction(amount.num, amount.den)

        match scene:
            case Shown(rows):
                return sum((size(row[state == "after"]) for row in rows), Fraction(0))
            case Joining(pairs, total):
                self.assertEqual(sum(size(a) for a, _ in pairs), size(total))
                return size(total)
            case Taking(start, _, _):
                return size(start)

    def assert_parts_lie_apart(self, figure, state):
        """No part lies on another one: rectangles by their boxes, sectors of one circle by their turns."""
        parts = [place_before(s) if state == "before" else s.at for s in seen(figure, state) if s.look == "part"]
        if figure.kind == "circles":
            for a, b in combinations(parts, 2):
                if a[:3] == b[:3]:
                    turns = sorted([(a[3] % 1, a[4] - a[3]), (b[3] % 1, b[4] - b[3])])
                    self.assertLessEqual(turns[0][0] + turns[0][1], turns[1][0] + (turns[1][0] == turns[0][0]))
        else:
            boxes = [(x, y, x + w, y + h) for x, y, w, h in parts]
            self.assertFalse(any(overlap(a, b) for a, b in combinations(boxes, 2)))

    @given(strategies.classroom_pairs)
    def test_cuts_make_equal_parts(self, expr):
        working = work_text(text(expr)).working
        look = choose.Look.of(working)
        for step in working.steps:
            if "bars" not in choose.offered(choose.StepSeen.of(step, look)):
                continue
            figure = choose.of_step(step, look, "bars")
            for state in ("before", "after"):
                shown = list(seen(figure, state))
                for whole in [s for s in shown if s.look == "whole"]:
                    x, y, w, _ = whole.at
                    cuts = {
                        s.at[0] for s in shown if s.look in ("thick", "thin") and s.at[1] == y and x < s.at[0] < x + w
                    }
                    edges = [x, *sorted(cuts), x + w]
                    self.assertEqual(len({b - a for a, b in pairwise(edges)}), 1)

    @given(strategies.classroom_pairs, st.sampled_from(KINDS))
    def test_a_picture_to_shade_has_the_same_wholes_and_cuts_and_nothing_on_them(self, expr, kind):
        working = work_text(text(expr)).working
        figure, full = to_shade(working, kind), choose.of_problem(working, kind)
        self.assert_sound(figure, text(expr))
        self.assertEqual(figure.kind, full.kind)
        self.assertFalse([s for s in figure.shapes if s.look in ("part", "jump", "dot", "cross") or s.role])
        if figure.kind != "number-line":
            for look in ("whole", "thick", "thin"):
                drawn = [[s.at for s in one.shapes if s.look == look and s.when != "after"] for one in (figure, full)]
                self.assertEqual(*drawn)

    @given(st.sets(st.integers(1, 40), max_size=6))
    def test_pieces_to_cut_out_are_equal_parts_of_one_whole_with_their_labels_inside(self, dens):
        wanted = [1, *sorted(d for d in dens if 1 < d <= MOST_PARTS)]
        for figures, noun in ((strips_to_cut(dens), "strip"), (circles_to_cut(dens), "circle")):
            self.assertEqual(len(figures), len(wanted))
            self.assertEqual(len({(s.shape, s.at[2:]) for f in figures for s in f.shapes if s.look == "whole"}), 1)
            for figure, den in zip(figures, wanted, strict=True):
                self.assertIn(noun, figure.alt)
                self.assertEqual(
                    sum(s.look == "thick" for s in figure.shapes), {"strip": den - 1, "circle": den}[noun] * (den > 1)
                )
                self.assert_sound(figure, den)
                if noun == "strip":
                    cuts = sorted({s.at[0] for s in figure.shapes if s.look == "thick"} | {0, figure.width})
                    self.assertEqual({b - a for a, b in pairwise(cuts)}, {Fraction(figure.width, den)})
                    for label in [s for s in figure.shapes if s.text == str(den)]:
                        left, _, right, _ = box(label, label.at)
                        self.assertEqual(sum(a <= left and right <= b for a, b in pairwise(cuts)), 1)

    @given(strategies.classroom_pairs)
    def test_both_renderers_get_one_list_and_a_file_is_small(self, expr):
        worked = work_text(text(expr))
        look = choose.Look.of(worked.working)
        for step in worked.working.steps:
            figure = choose.of_step(step, look)
            if figure is None:
                continue
            for state in ("before", "after"):
                document = ET.fromstring(svg(figure, state))  # well formed
                group = document.find(f"{SVG}g")
                wanted = [m for m in figure_view(figure, OWN).marks if m.when in ("", state)]
                self.assertEqual(len(group), len(wanted))
                for element, mark in zip(group, wanted, strict=True):
                    self.assertEqual(element.get("d") or element.text, mark.d or mark.text)
                    self.assertEqual(element.get("class"), mark.look)
            self.assertLess(len(svg(figure, "both")), 30_000)

    def test_a_full_picture_is_under_30_kb(self):
        working = work_text("3 23/24 - 1/24").working
        look = choose.Look.of(working)
        for kind in ("bars", "circles"):
            self.assertLess(len(svg(choose.of_step(working.steps[0], look, kind))), 30_000)
        # Four wholes, all of them cut into 24 parts, all shaded.
        improper = work_text("96/24 - 1/24").working
        figure = choose.of_step(improper.steps[0], choose.Look.of(improper), "circles")
        self.assertEqual(sum(s.look == "part" for s in figure.shapes), 96)
        self.assertLess(len(svg(figure)), 30_000)

    def test_actions_are_as_they_are_done_by_hand(self):
        # Common practice: thin new cuts over the thick old ones; what moves is crossed off where it was.
        recut = self.figure("2/3 + 1/6", 0, "bars")
        self.assertEqual(self.count(recut, "before", "thin"), 0)
        self.assertEqual((self.count(recut, "after", "thick"), self.count(recut, "after", "thin")), (2, 3))
        add = self.figure("5/6 + 3/4", 1, "bars")
        moving = [s for s in add.shapes if any(s.moved)]
        self.assertEqual((len(moving), self.count(add, "after", "cross")), (9, 9))
        self.assertEqual(sum(s.at[0] >= 252 for s in moving), 7)  # 2 fill the gap of the first strip, 7 start a new one
        regroup = self.figure("7 1/4 - 3 5/6", 1, "circles")
        carried = [s for s in seen(regroup, "after") if s.role == "carried"]
        self.assertEqual([s.at[4] - s.at[3] for s in carried], [Fraction(1, 12)] * 12)
        take = self.figure("7 1/4 - 3 5/6", 2, "bars")
        self.assertEqual(self.count(take, "after", "cross"), 13)  # 3 wholes and 10 twelfths
        grid = self.figure("1/3 + 3/4", 0, "grid")
        self.assertEqual(
            [s.at[2] * 3 == s.at[3] for s in seen(grid, "before") if s.role == "first" and s.look == "part"], [True]
        )
        self.assertEqual(sum(s.look == "part" for s in seen(grid, "after")), 4 + 9)
        joined = self.figure("2/6 + 2/6", 1, "bars")
        self.assertEqual((self.count(joined, "before", "thin"), self.count(joined, "after", "thin")), (3, 0))

    def figure(self, problem, step, kind, **ways):
        working = work_text(problem, strategies.Ways.of(ways)).working
        return choose.of_step(working.steps[step], choose.Look.of(working), kind)

    def count(self, figure, state, look):
        return sum(s.look == look for s in seen(figure, state))

    def test_jumps_land_where_the_numbers_are(self):
        for problem, way in [
            ("7 1/4 - 3 5/6", "count-back"),
            ("7 1/4 - 3 5/6", "same-difference"),
            ("1/4 - 3/4", "regroup"),
        ]:
            working = work_text(problem, strategies.Ways.of({"mixed_subtract": way})).working
            look = choose.Look.of(working)
            for step in working.steps:
                if "number-line" not in choose.offered(choose.StepSeen.of(step, look)):
                    continue
                figure = choose.of_step(step, look, "number-line")
                ticks = {
                    s.text.replace("−", "-"): s.at[0]
                    for s in figure.shapes
                    if s.shape == "text" and s.anchor == "middle" and s.role == ""
                }
                (low, x0), (high, x1) = min(ticks.items(), key=lambda t: t[1]), max(ticks.items(), key=lambda t: t[1])
                arcs = [s for s in seen(figure, "after") if s.shape == "arc"]
                at = [int(low) + (Fraction(a.at[1]) - x0) * (int(high) - int(low)) / (x1 - x0) for a in arcs]
                if at and step.kind is not PUT_SIGN:
                    self.assertEqual(at[-1], value(step.after))

    @given(strategies.classroom_pairs, strategies.all_ways)
    def test_every_step_has_a_picture_and_past_24_parts_it_says_why_it_is_a_line(self, expr, ways):
        working = work_text(text(expr), ways).working
        look = choose.Look.of(working)
        for step in working.steps:
            scene, kinds = scene_of(step), choose.offered(choose.StepSeen.of(step, look))
            figure = choose.of_step(step, look)
            if scene is not None:
                parts, wholes = largest(in_blocks(scene).scene if look.wholes > MOST_WHOLES else scene)
                helps = parts <= MOST_PARTS and wholes <= MOST_WHOLES
                self.assertEqual("bars" in kinds, helps)
                if not helps and figure:
                    self.assertIn(figure.kind, ("number-line",))
                    self.assertEqual("number line" in figure.note, parts > MOST_PARTS)
            self.assertTrue(
                figure is not None or step.kind is REORDER or not choose.offered(choose.StepSeen.of(step, look)),
                step.kind,
            )

    @given(strategies.classroom_pairs)
    def test_a_wrong_answer_lies_below_the_right_one(self, expr):
        worked = work_text(text(expr))
        for found in worked.likely:
            figure = expose.of_wrong(worked.working, found.wrong.answer)
            if figure is None:
                self.assertTrue(isinstance(worked.working.answer, Neg))
                continue
            self.assert_sound(figure, text(expr))
            if figure.kind == "bars":
                one = whole_area(next(s for s in figure.shapes if s.look == "whole" and s.at[-1] != 24))
                shaded = (
                    sum(Fraction(area(s, s.at)) for s in figure.shapes if s.look == "part" and s.role == "wrong") / one
                )
                self.assertEqual(shaded, value(found.wrong.answer))

    @given(st.integers(1, 9999), st.integers(1, 9999), st.integers(1, 3))
    def test_a_wrong_decimal_has_the_counters_of_its_digits(self, a, b, places):
        a, b = sorted((a, b), reverse=True)
        problem = f"{a // 10**places}.{a % 10**places:0{places}} - {b // 10**places}.{b % 10**places:0{places}}"
        for found in work_text(problem).likely:
            figure = expose.of_wrong(work_text(problem).working, found.wrong.answer)
            if figure is None or figure.kind != "place-value":
                continue
            self.assert_sound(figure, problem)
            counters = sum(s.role == "wrong" and s.look == "part" for s in figure.shapes)
            digits = re.sub(r"\D", "", text(found.wrong.answer))
            self.assertEqual(counters, sum(map(int, digits)), problem)

    def test_a_decimal_that_becomes_a_fraction_has_a_chart_of_its_places_on_wish(self):
        for typed, counters in (("0.375", 15), ("2.04", 6), ("0.[6]", None), ("10.123456", None)):
            working = work_text(typed, target="fraction").working
            look = choose.Look.of(working)
            kinds = choose.offered(choose.StepSeen.of(working.steps[0], look))
            self.assertEqual("place-value" in kinds, counters is not None, typed)
            if counters is not None:
                figure = choose.of_step(working.steps[0], look, "place-value")
                self.assert_sound(figure, typed)
                self.assertEqual(sum(shape.look == "part" for shape in figure.shapes), counters)

    @given(st.lists(st.integers(0, 99999), min_size=2, max_size=4), st.integers(1, 3), st.sampled_from("+-"))
    def test_counters_show_the_digits_and_ten_make_one(self, numbers, places, operator):
        numbers = sorted(numbers[:2], reverse=True) if operator == "-" else numbers
        problem = f" {operator} ".join(f"{n // 10**places}.{n % 10**places:0{places}}" for n in numbers)
        working = work_text(problem).working
        step = working.steps[0]
        if "place-value" not in choose.offered(choose.StepSeen.of(step, choose.Look.of(working))):
            self.assertTrue(max(numbers) >= 10**6 or sum(numbers) >= 10**6)
            return
        figure = choose.of_step(step, choose.Look.of(working))
        self.assertEqual(figure.kind, "place-value")
        self.assert_sound(figure, problem)
        before, after = [list(seen(figure, state)) for state in ("before", "after")]
        counters, crosses = [sum(s.look == look for s in after) for look in ("part", "cross")]
        shown = numbers if operator == "+" else numbers[:1]
        self.assertEqual(sum(s.look == "part" for s in before), sum(int(d) for n in shown for d in str(n)))
        result = sum(numbers) if operator == "+" else numbers[0] - numbers[1]
        self.assertEqual(counters - crosses, sum(int(d) for d in str(result)))

    @given(strategies.expressions)
    @example(read("16 × 21 × 30 - 0").expr)  # five digits were wider than the block that they stand in
    def test_pictures_of_every_kind_of_problem_are_sound(self, expr):
        try:
            working = work_text(text(expr)).working
        except CoreError:
            return
        look = choose.Look.of(working)
        for step in working.steps:
            for kind in choose.offered(choose.StepSeen.of(step, look)):
                self.assert_sound(choose.of_step(step, look, kind), text(expr))

    def test_a_missing_part_is_an_empty_bar_as_long_as_it_is(self):
        figure = self.figure("5/8 + _ = 1 1/4", 0, None)
        blank = next(s for s in figure.shapes if s.look == "blank")
        self.assertEqual((figure.kind, blank.at[2]), ("part-whole", Fraction(WIDTH, 2)))
        filled = self.figure("_/18 + _/9 + _/3 = 23/18", 0, None)
        wide = [s.at[2] * Fraction(23, 18) / WIDTH for s in seen(filled, "after") if s.look == "part"]
        self.assertEqual(wide, [Fraction(23, 18), Fraction(1, 18), Fraction(5, 9), Fraction(2, 3)])

    def test_alternative_text_says_what_is_seen(self):
        self.assertEqual(
            self.figure("7/12 + 11/12", 0, "bars").alt,
            "A strip for <one whole>, and below it strips as long. 7 twelfths: a strip cut into 12 equal parts, 7 of "
            "them shaded. "
            "11 twelfths: a strip cut into 12 equal parts, 11 of them shaded. Then all of them stand in the first row, "
            "2 strips, each cut into 12 equal parts, 18 of the parts shaded; below, what moved is crossed off.",
        )
        alt = OWN.said(self.figure("7 1/4 - 3", 0, "number-line").alt)
        self.assertIn("a jump back of three from seven and one fourth", alt)

    def test_a_teacher_chooses_the_picture_of_a_step_and_none_at_all(self):
        worked = work_text("1/3 + 3/4")
        key = "common-denominator 0 picture"
        for chosen, kind in [
            ("grid", "grid"),
            ("none", None),
            ("no such kind", "circles"),
            ("part-whole", "part-whole"),
        ]:
            figure = viewed(worked, TeachersWords({key: chosen}))["steps"][0]["figure"]
            self.assertEqual(figure and figure["kind"], kind)

    @settings(max_examples=30)
    @given(st.fractions(0, 3, max_denominator=24))
    def test_rounding_happens_only_on_paper(self, number):
        expr = Sum(Whole(1), (("+", read(str(number)).expr),)) if number else Whole(1)
        figure = choose.of_problem(work_text(text(expr)).working, "bars")
        exact = [s for s in figure.shapes if s.shape == "rect" and s.look == "part"]
        drawn = [m for m in marks(figure) if m.look == "part"]
        for shape, mark in zip(exact, drawn, strict=True):
            x, y, w, h = map(Fraction, re.fullmatch(r"M(\S+) (\S+)h(\S+)v(\S+)h-\3z", mark.d).groups())
            for a, b in zip((x, y, w, h), shape.at, strict=True):
                self.assertLessEqual(abs(a - b), Fraction(1, 200))


WAYS = {
    name: codes for name, codes in strategies.CODES.items() if name.startswith(("mixed", "common", "to_", "simplify"))
}

# Published: simulation of dichromacy after Machado, Oliveira and Fernandes (2009), severity 1.0; matrices from memory.
SIGHT = {
    "normal": ((1, 0, 0), (0, 1, 0), (0, 0, 1)),
    "protan": ((0.152286, 1.052583, -0.204868), (0.114503, 0.786281, 0.099216), (-0.003882, -0.048116, 1.051998)),
    "deutan": ((0.367322, 0.860646, -0.227968), (0.280085, 0.672501, 0.047413), (-0.011820, 0.042940, 0.968881)),
    "tritan": ((1.255528, -0.076749, -0.178779), (-0.078411, 0.930809, 0.147602), (0.004733, 0.691367, 0.303900)),
}
# Those that meet in nearly every picture; the later terms are told by their hatch as well.
MAIN = ("first", "second", "third", "carried", "wrong", "answer")


def linear(colour):
    channels = [int(colour[i : i + 2], 16) / 255 for i in (1, 3, 5)]
    return [c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in channels]


def lab(rgb):
    """CIE 1976 L*a*b* of linear sRGB under D65 (published: IEC 61966-2-1 and CIE 15; from memory)."""
    r, g, b = [min(1, max(0, c)) for c in rgb]
    xyz = (
        (0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.95047,
        0.2126 * r + 0.7152 * g + 0.0722 * b,
        (0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.08883,
    )
    x, y, z = [t ** (1 / 3) if t > 0.008856 else 7.787 * t + 16 / 116 for t in xyz]
    return 116 * y - 16, 500 * (x - y), 200 * (y - z)


def contrast(a, b):
    """Published: WCAG 2.2, contrast ratio of two colours."""
    light, dark = sorted([0.2126 * r + 0.7152 * g + 0.0722 * b for r, g, b in map(linear, (a, b))], reverse=True)
    return (light + 0.05) / (dark + 0.05)


def hatch_pixels(path, width, samples=20):
    """Which of samples² points of a tile the hatch covers."""
    segments, x, y = [], 0.0, 0.0
    for command, numbers in re.findall(r"([MlLhv])([^MlLhv]*)", path):
        values = [float(n) for n in re.findall(r"-?\d*\.?\d+", numbers)]
        pairs = (
            [(v, 0) for v in values]
            if command == "h"
            else [(0, v) for v in values]
            if command == "v"
            else list(zip(values[::2], values[1::2], strict=True))
        )
        for dx, dy in pairs:
            if command == "M":
                x, y = dx, dy
                continue
            segments.append((x, y, x + dx, y + dy))
            x, y = x + dx, y + dy

    def near(px, py):
        for x1, y1, x2, y2 in segments:
            length = (x2 - x1) ** 2 + (y2 - y1) ** 2
            t = max(0, min(1, ((px - x1) * (x2 - x1) + (py - y1) * (y2 - y1)) / length))
            if (px - x1 - t * (x2 - x1)) ** 2 + (py - y1 - t * (y2 - y1)) ** 2 <= (width / 2) ** 2:
                return True
        return False

    step = 10 / samples
    return [[near((i + 0.5) * step, (j + 0.5) * step) for i in range(samples)] for j in range(samples)]


class InkTests(unittest.TestCase):
    def test_main_roles_are_told_apart_by_all_common_kinds_of_sight(self):
        for kind, matrix in SIGHT.items():
            seen_as = {
                role: lab([sum(a * b for a, b in zip(row, linear(INKS[role].colour), strict=True)) for row in matrix])
                for role in MAIN
            }
            for a, b in combinations(MAIN, 2):
                difference = sum((p - q) ** 2 for p, q in zip(seen_as[a], seen_as[b], strict=True)) ** 0.5
                # Common practice: a difference of 10 is seen at a glance (2.3 is the just noticeable one).
                self.assertGreater(difference, 10, (kind, a, b))

    def test_hatches_are_told_apart_without_colour(self):
        tiles = {role: hatch_pixels(ink.hatch, float(ink.width)) for role, ink in INKS.items()}
        for a, b in combinations(tiles, 2):
            least = min(
                sum(tiles[a][j][i] != tiles[b][(j + dy) % 20][(i + dx) % 20] for j in range(20) for i in range(20))
                for dx in range(0, 20, 2)
                for dy in range(0, 20, 2)
            )
            self.assertGreater(least, 40, (a, b))  # a tenth of the tile differs, however they are shifted

    def test_words_in_every_ink_are_readable_on_paper(self):
        for ink in INKS.values():
            self.assertGreaterEqual(contrast(ink.colour, PAPER), 4.5)
            self.assertGreaterEqual(contrast(INKS["answer"].colour, ink.tint), 4.5)
