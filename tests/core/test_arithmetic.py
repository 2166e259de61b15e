"""Decimals, products and quotients, order of operations, chains and missing numbers, against other ways to the same
value.
"""

import unittest
from decimal import Decimal, localcontext
from fractions import Fraction
from itertools import product as pairs_of

import sympy
from hypothesis import assume, example, given
from hypothesis import strategies as st

from keen_slate.core.arithmetic.columns import add_columns, partial_products, subtract_columns
from keen_slate.core.building.given import read_numbers
from keen_slate.core.building.levels import LEVELS, propose
from keen_slate.core.building.search import build
from keen_slate.core.documents.view import working_view
from keen_slate.core.documents.working import published
from keen_slate.core.errors import CoreError, LimitError, ReadError
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import (
    Blank,
    Bracket,
    Dec,
    Equation,
    Expr,
    Frac,
    Mixed,
    Neg,
    Power,
    Product,
    Sum,
    Whole,
    value,
)
from keen_slate.core.grading.features import features
from keen_slate.core.limits import PRINTED
from keen_slate.core.reading.reader import read
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text
from keen_slate.core.working.methods.order import number_in
from tests import strategies

places = st.text("0123456789", min_size=1, max_size=3)
ending_decimals = st.one_of(st.builds(Dec, st.integers(0, 999), places), st.integers(0, 99).map(Whole))
decimal_sums = st.tuples(
    st.lists(st.tuples(st.sampled_from("+-"), ending_decimals), min_size=2, max_size=6), st.booleans()
).filter(lambda t: any(isinstance(n, Dec) for _, n in t[0]))
factors = st.one_of(strategies.plain_numbers, strategies.decimals.filter(lambda d: len(d.period) < 2))
chains = st.lists(st.tuples(st.sampled_from("×÷"), st.one_of(factors, factors.map(Neg))), min_size=2, max_size=4)


def oracle(expr: Expr, ratio=Fraction):
    """The value built from the tree without the core's own evaluation: of `Fraction`s, or of another library's
    *ratio*s.
    """

    def of(inner):
        return oracle(inner, ratio)

    match expr:
        case Whole(n):
            return ratio(n, 1)
        case Frac(n, d):
            return ratio(n, d)
        case Mixed(w, n, d):
            return w + ratio(n, d)
        case Dec(w, digits, period):
            scale = 10 ** len(digits)
            number = w + ratio(int(digits or 0), scale)
            return number + (ratio(int(period), scale * (10 ** len(period) - 1)) if period else 0)
        case Neg(inner):
            return -of(inner)
        case Bracket(inner):
            return of(inner)
        case Power(base, exponent):
            return of(base) ** exponent
        case Sum(first, rest) | Product(first, rest):
            total = of(first)
            for operator, other in rest:
                total = {"+": total.__add__, "-": total.__sub__, "×": total.__mul__, "÷": total.__truediv__}[operator](
                    of(other)
                )
            return total
    raise AssertionError(expr)


def as_fraction(number) -> Fraction:
    return Fraction(int(number.p), int(number.q))


class Checked(unittest.TestCase):
    def worked(self, problem, expected=None, **ways):
        """The working of a text; every step compared with *expected*, every line read back."""
        working = work_text(problem, Ways.of(ways)).working
        for step in working.steps:
            if expected is not None:
                self.assertEqual(oracle(step.after), expected, (problem, text(step.after)))
            self.assertEqual(read(text(step.after), limits=PRINTED).text, text(step.after))
        if expected is not None:
            self.assertEqual(oracle(working.answer), expected)
        return working


class DecimalTests(Checked):
    @given(decimal_sums, st.sampled_from(["columns", "as-fractions"]))
    def test_sums_against_the_decimal_library(self, typed, way):
        numbers, minus_first = typed
        problem = ("-" if minus_first else "") + " ".join(f"{op} {text(n)}" for op, n in numbers)[2:]
        # Published: the General Decimal Arithmetic of Python's decimal module.
        signs = [-1 if minus_first else 1] + [1 if op == "+" else -1 for op, _ in numbers[1:]]
        total = sum(sign * Decimal(text(n)) for sign, (_, n) in zip(signs, numbers, strict=True))
        working = self.worked(problem, Fraction(total), decimal=way)
        answer = text(working.answer)
        self.assertFalse("." in answer and answer.endswith("0"), answer)
        self.assertNotEqual(answer, "-0")

    @given(ending_decimals, ending_decimals, st.sampled_from("×÷"), st.sampled_from(["columns", "as-fractions"]))
    def test_products_and_quotients_against_the_decimal_library(self, a, b, operator, way):
        assume(isinstance(a, Dec) or isinstance(b, Dec))
        assume(operator == "×" or value(b) != 0)
        exact = Fraction(text(a)) * Fraction(text(b)) if operator == "×" else Fraction(text(a)) / Fraction(text(b))
        try:
            working = self.worked(f"{text(a)} {operator} {text(b)}", exact, decimal=way)
        except LimitError as error:
            self.assertIn("digits", error.message)
            return
        if operator == "×":
            with localcontext() as context:
                context.prec = 40
                self.assertEqual(Decimal(text(working.answer)), Decimal(text(a)) * Decimal(text(b)))

    @given(st.lists(st.integers(0, 10**6), min_size=2, max_size=6))
    def test_columns_are_added_digit_by_digit(self, numbers):
        columns = add_columns(numbers)
        carry = 0
        for column in columns:
            self.assertEqual(column.carried, carry)
            total = sum(column.digits) + carry
            front = column is columns[-1] and not any(column.digits)
            self.assertEqual(total, column.written if front else column.written + 10 * column.carries)
            carry = column.carries
        self.assertEqual(int("".join(str(c.written) for c in reversed(columns))), sum(numbers))

    @given(st.integers(0, 10**7), st.integers(0, 10**7), st.booleans())
    @example(1000, 1, True)
    def test_columns_are_subtracted_digit_by_digit(self, a, b, at_once):
        a, b = max(a, b), min(a, b)
        columns = subtract_columns(a, b, at_once)
        tops = [c.above[-1] if c.above else c.top for c in columns]
        self.assertEqual(sum(top * 10**i for i, top in enumerate(tops)), a)  # exchanging keeps the number
        for column, top in zip(columns, tops, strict=True):
            self.assertTrue(0 <= top - column.bottom == column.written <= 9)
        self.assertEqual(sum(c.written * 10**i for i, c in enumerate(columns)), a - b)
        self.assertEqual(sum(partial_products(a, b)), a * b)
        ways_of_each = [
            (c.above, c.above[1:]) if c.above[:1] == (10,) and len(c.above) > 1 else (c.above,)
            for c in subtract_columns(a, b)
        ]
        for column, ways in zip(
            columns, ways_of_each, strict=True
        ):  # at once a zero is never a ten before it is a nine
            self.assertEqual(column.above, ways[-1] if at_once else ways[0])

    def test_what_is_written_in_the_squares(self):
        # Common practice: points under each other, filled zeros in another ink, exchanges across zeros above.
        view = working_view(work_text("30.4 - 7.85"))
        rows = {}
        for cell in view.sheet.cells:
            rows.setdefault(cell.y, {})[cell.x] = cell.text
        lines = ["".join(row.get(x, " ") for x in range(0, 14, 2)) for _, row in sorted(rows.items())]
        self.assertEqual(lines, ["  9 13  ", " 210 310 ", " 30.40 ", "− 7.85 ", " 22.55 "])

    def test_rungs_of_decimals(self):
        rungs = {
            "2.3 + 1.4": "D1", "9.5 + 3.4": "D1", "2.7 + 1.4": "D2", "5.62 - 1.28": "D2", "4.2 + 1.35": "D3",
            "6.4 - 2.15": "D4", "8.05 - 2.63": "D2", "8.03 - 2.67": "D5", "7 - 2.25": "D4", "1.2 + 3.4 + 0.5": "D6",
        }  # fmt: skip
        for problem, rung in rungs.items():
            self.assertEqual(features(work_text(problem).working).rung, rung, problem)

    def test_an_answer_drops_zeros_but_money_keeps_them(self):
        self.assertEqual(work_text("4.75 + 8.25").working.answer_text, "13")
        self.assertEqual([s.kind.code for s in work_text("4.75 + 8.25").working.steps], ["column-add", "drop-zeros"])
        self.assertEqual(work_text("$4.75 + $8.25").working.answer_text, "$13.00")

    def test_a_recurring_decimal_is_worked_in_fractions_and_says_so(self):
        worked = work_text("0.1[6] + 0.5")
        self.assertEqual(worked.working.answer_text, "0.[6]")
        self.assertIn("recurs", worked.surprises[0])


class ProductTests(Checked):
    @given(chains, st.sampled_from(["before", "after"]), st.sampled_from(["simplest-mixed", "simplest-improper"]))
    @example([("×", Frac(4, 4)), ("÷", Whole(2))], "before", "simplest-mixed")  # 4 fourths shared among 2
    def test_products_and_quotients_of_anything(self, chain, cancel, form):
        problem = " ".join(f"{op} {text(n)}" for op, n in chain)[2:]
        by_zero = any(op == "÷" and value(n) == 0 for op, n in chain[1:])
        try:
            expected = None if by_zero else oracle(read(problem).expr)
            working = self.worked(problem, expected, cancel=cancel, answer_form=form)
        except ReadError as error:
            self.assertTrue(by_zero and "divides by 0" in error.message)
            return
        except LimitError as error:
            self.assertTrue(error.hint)
            return
        self.assertFalse(by_zero)
        kinds = [step.kind.code for step in working.steps]
        # Everything was cancelled before; where pieces are shared out, nothing stands over one bar to be cancelled.
        if cancel == "before" and working.problem.kind == "multiply-divide" and "divide" not in kinds:
            self.assertNotIn("simplify", kinds)

    def test_golden_products(self):
        golden = {
            "3/4 × 2/9": ["1/2 × 1/3", "1/6"],
            "2/3 ÷ 4/9": ["2/3 × 9/4", "1/1 × 3/2", "3/2", "1 1/2"],
            "0.4 × 2 1/2": ["4/10 × 2 1/2", "4/10 × 5/2", "1/1 × 1/1", "1"],
            "6 ÷ 3/4": ["6/1 ÷ 3/4", "6/1 × 4/3", "2/1 × 4/1", "8"],
            "-1/2 × 3/5": ["-(1/2 × 3/5)", "-3/10"],
        }
        for problem, lines in golden.items():
            self.assertEqual([text(step.after) for step in work_text(problem).working.steps], lines, problem)


class OrderTests(Checked):
    @given(strategies.expressions, st.sampled_from(["fractions", "decimals"]))
    def test_order_against_sympy(self, expr, kinds):
        typed = text(expr)
        try:
            problem = read(typed)
        except CoreError:
            assume(False)
        try:
            expected = as_fraction(oracle(problem.expr, sympy.Rational))
            working = self.worked(typed, expected, mixed_kinds=kinds)
        except LimitError as error:
            self.assertTrue(error.hint)
            return
        if problem.kind == "order":
            self.assertIsNotNone(number_in(working.answer))

    @given(st.recursive(
        st.integers(1, 12).map(str),
        lambda inner: st.one_of(
            st.tuples(inner, st.sampled_from("+-×"), inner).map(" ".join),
            inner.map(lambda t: f"({t})" if " " in t else t),
            inner.map(lambda t: f"({t})^2" if " " in t else f"{t}^2"),
        ), max_leaves=6,
    ))  # fmt: skip
    def test_order_against_pythons_own(self, typed):
        assume(typed.count("^2^") == 0 and "^2)^" not in typed)
        try:
            working = self.worked(typed)
        except CoreError:
            return
        # Published: Python's own precedence is the mathematical one for these operators.
        self.assertEqual(working.value, eval(typed.replace("×", "*").replace("^", "**")))

    def test_one_operation_a_line_in_the_right_order(self):
        golden = {
            "0.5 (3 - 7 + 1/4)": [
                "0.5 × (-4 + 1/4)",
                "0.5 × (-4/1 + 1/4)",
                "0.5 × (-16/4 + 1/4)",
                "0.5 × (-15/4)",
                "5/10 × (-15/4)",
                "1/2 × (-15/4)",
                "-15/8",
                "-1 7/8",
            ],
            "1/2 + 1/3 × 6": [
                "1/2 + 1/3 × 6/1",
                "1/2 + 1/1 × 2/1",
                "1/2 + 2",
                "1/2 + 2/1",
                "1/2 + 4/2",
                "5/2",
                "2 1/2",
            ],
            "5/6 × 2 - 1/3 ÷ 1/2": [
                "5/6 × 2/1 - 1/3 ÷ 1/2",
                "5/3 × 1/1 - 1/3 ÷ 1/2",
                "5/3 - 1/3 ÷ 1/2",
                "5/3 - 1/3 × 2/1",
                "5/3 - 2/3",
                "3/3",
                "1",
            ],
            "24 ÷ 4 × 3": ["6 × 3", "18"],
            "9 - 4 + 3": ["5 + 3", "8"],
            "4 + 6 × 2 - 3^2": ["4 + 6 × 2 - 9", "4 + 12 - 9", "16 - 9", "7"],
            "-3^2 + (-3)^2": ["-9 + (-3)^2", "-9 + 9", "0"],
            "2 × ((1 + 2) × 3 - 4)": ["2 × (3 × 3 - 4)", "2 × (9 - 4)", "2 × 5", "10"],
            "-(2 - 5) × 3": ["-(-3) × 3", "3 × 3", "9"],
        }
        for problem, lines in golden.items():
            working = work_text(problem).working
            self.assertEqual([text(step.after) for step in working.steps], lines, problem)
        last = work_text("1/4 + 0.4 × 3", Ways.of({"cancel": "after"})).working
        multiplied = ["1/4 + 4/10 × 3", "1/4 + 4/10 × 3/1", "1/4 + 12/10", "5/20 + 24/20", "29/20", "1 9/20"]
        self.assertEqual([text(step.after) for step in last.steps], multiplied, "multiplied first, reduced last")
        for problem, ways, lines in (
            (
                "(1/2 + 1/3) × (3/4 - 1/2)",
                {"order_lines": "together"},
                ["(3/6 + 2/6) × (3/4 - 2/4)", "5/6 × 1/4", "5/24"],
            ),
            (
                "(2 + 3) × (7 - 9) - (1 + 1)^2",
                {"order_lines": "together"},
                ["5 × (-2) - (1 + 1)^2", "5 × (-2) - 2^2", "5 × (-2) - 4", "-10 - 4", "-14"],
            ),
            ("3 - 7 + 2", {"opposites": "plus"}, ["3 + (-7) + 2", "-4 + 2", "-2"]),
            (
                "2 × 1/4 + 2/5",
                {"one_bar": "yes"},
                ["2/1 × 1/4 + 2/5", "1/1 × 1/2 + 2/5", "1/2 + 2/5", "5/10 + 4/10", "(5 + 4)/10", "9/10"],
            ),
        ):
            self.assertEqual(
                [text(step.after) for step in work_text(problem, Ways.of(ways)).working.steps], lines, problem
            )
        stays = work_text("6.05 × 1/2 ÷ 4/8", Ways.of({"mixed_kinds": "decimals"})).working
        self.assertEqual([text(step.after) for step in stays.steps], ["6.05 × 0.5 ÷ 0.5", "3.025 ÷ 0.5", "6.05"])
        self.assertIn("Brackets first", published(work_text("2 (3 + 4) - 1"))["steps"][0]["title"])

    def test_the_kind_of_number_is_a_choice_and_a_decimal_without_end_is_said(self):
        self.assertEqual(work_text("1/4 + 0.5 × 3", Ways.of({"mixed_kinds": "decimals"})).working.answer_text, "1.75")
        endless = work_text("1/3 + 0.5 × 3", Ways.of({"mixed_kinds": "decimals"}))
        self.assertEqual(endless.working.answer_text, "1 5/6")
        self.assertIn("1/3 does not end as a decimal, so it is worked in fractions.", endless.surprises)
        with self.assertRaisesRegex(ReadError, "divides by 0"):
            work_text("3 ÷ (2 - 2) + 1")


class BlankTests(Checked):
    @given(
        st.integers(1, 30),
        st.integers(1, 30),
        st.lists(st.tuples(st.booleans(), st.integers(1, 60)), min_size=1, max_size=4),
    )
    def test_chains_are_filled_or_refused_with_a_reason(self, n, d, blanks):
        chain = f"{n}/{d} = " + " = ".join(f"_/{k}" if top else f"{k}/_" for top, k in blanks)
        number = Fraction(n, d)
        possible = all((number * k if top else k / number).denominator == 1 for top, k in blanks)
        try:
            answer = work_text(chain).working.answer
        except ReadError as error:
            self.assertFalse(possible)
            self.assertIn("No whole number does it", error.message)
            return
        self.assertTrue(possible)
        self.assertIsInstance(answer, Equation)
        for side in answer.sides:
            self.assertEqual(Fraction(side.num, side.den), number)

    @given(strategies.plain_numbers, st.sampled_from("+-"), strategies.plain_numbers, st.booleans())
    def test_one_missing_number_by_the_inverse(self, known, operator, found, blank_first):
        a, b = (found, known) if blank_first else (known, found)
        total = value(a) + value(b) if operator == "+" else value(a) - value(b)
        shown = (
            text(Frac(total.numerator, total.denominator)) if total >= 0 else f"-{-total.numerator}/{total.denominator}"
        )
        sides = f"_ {operator} {text(b)}" if blank_first else f"{text(a)} {operator} _"
        document = published(work_text(f"{sides} = {shown}"))
        self.assertEqual((Fraction(document["answer"]["value"]), document["count"]), (value(found), 1))
        self.assertEqual(document["steps"][0]["kind"], "inverse")
        self.assertEqual(document["steps"][-1]["after"], document["answer"]["text"])

    @given(
        st.lists(st.integers(1, 9), min_size=1, max_size=3),
        st.integers(1, 12),
        st.integers(4, 12),
        st.booleans(),
        st.booleans(),
        st.booleans(),
    )
    def test_blank_numerators_against_brute_force(self, dens, n, d, proper, different, lowest):
        total = Fraction(n, d)
        most = [min(int(total * den), den - 1 if proper else 10**6) for den in dens]
        wanted = [
            nums
            for nums in pairs_of(*[range(1, m + 1) for m in most])
            if sum(Fraction(k, den) for k, den in zip(nums, dens, strict=True)) == total
            and (not different or len(set(nums)) == len(nums))
            and (not lowest or all(Fraction(k, den).denominator == den for k, den in zip(nums, dens, strict=True)))
        ]
        ways = {
            name: "yes"
            for name, on in [("blank_proper", proper), ("blank_different", different), ("blank_lowest", lowest)]
            if on
        }
        try:
            document = published(work_text(" + ".join(f"_/{den}" for den in dens) + f" = {n}/{d}", Ways.of(ways)))
        except ReadError:
            # A lone blank over one denominator is a chain of equal fractions, to which the filters do not apply.
            self.assertTrue(not wanted or len(dens) == 1)
            return
        if len(dens) > 1:
            expected = [
                " + ".join(f"{k}/{den}" for k, den in zip(nums, dens, strict=True)) + f" = {n}/{d}" for nums in wanted
            ]
            self.assertEqual((document["answers"], document["count"]), (expected, len(expected)))

    def test_what_is_impossible_is_explained(self):
        for problem, said in [
            ("2/7 = _/20", "would have to be 5 5/7"), ("_/4 + _/6 = 1/5", "does not divide"),
            ("_/2 + _/3 = 1/6", "at least 1"),
            ("1/2 = _/_", "Both the numerator and the denominator are blank"),
            ("_/2 = 3/_", "Nothing in this chain is known"),
            ("1/2 = 2/3 = _/6", "not equal"), ("_ + _ = 1", "each is a numerator"),
        ]:  # fmt: skip
            with self.assertRaisesRegex(ReadError, said):
                work_text(problem)
        # Where one is taken away there would be no end of answers, so numerators are proper.
        answers = published(work_text("_/4 - _/6 = 1/12"))["answers"]
        self.assertEqual(answers, ["1/4 - 1/6 = 1/12", "3/4 - 4/6 = 1/12"])
        self.assertEqual(published(work_text("_/18 + _/9 + _/3 = 23/18"))["answers"][-1], "15/18 + 1/9 + 1/3 = 23/18")

    def test_a_blank_stays_a_blank_until_it_is_found(self):
        self.assertEqual(published(work_text("5/8 + _ = 1 1/4"))["answer"]["text"], "5/8")
        self.assertEqual(published(work_text("5.2 - _ = 1.75 m"))["answer"]["text"], "3.45 m")
        self.assertEqual(work_text("3/_ + 1/4 = 1").working.answer, Frac(3, 4))
        self.assertIsInstance(read("5/8 + _ = 1").expr.sides[0].rest[0][1], Blank)


class BuildingTests(unittest.TestCase):
    @given(
        st.lists(st.one_of(st.integers(1, 12).map(Whole), strategies.proper_fractions), min_size=3, max_size=4),
        st.integers(0, 40),
    )
    def test_every_way_is_right_and_as_short_as_brute_force_finds(self, numbers, goal):
        built = build(tuple(numbers), Whole(goal))
        target = Fraction(goal)
        fewest, best = shortest([(value(n),) for n in numbers], target)
        self.assertEqual(built.exact, best == target)
        self.assertEqual(abs(built.nearest - target), abs(best - target))
        for way in built.ways:
            self.assertEqual(oracle(read(text(way)).expr), built.nearest)
            used = [text(n) for n in leaves_of(way)]
            pool = [text(n) for n in numbers]
            for one in used:
                pool.remove(one)  # each at most once
            if built.exact:
                self.assertEqual(len(used), fewest)

    def test_what_is_proposed_is_of_its_level_and_the_same_for_a_seed(self):
        for seed in range(15):
            for level in LEVELS:
                built = propose(level, seed)
                self.assertTrue(built.exact)
                self.assertEqual(built, propose(level, seed))
                if level == "brackets":
                    self.assertTrue(all("(" in text(way) for way in built.ways))
                if level == "one-way":
                    self.assertEqual(len(built.ways), 1)

    def test_numbers_are_read_with_the_place_of_what_is_wrong(self):
        self.assertEqual([text(n) for n in read_numbers("0,5; 2 1/2; 3", ",")], ["0.5", "2 1/2", "3"])
        for typed, position in [("3, 1/0, 4", 5), ("3, 1 + 2, 4", 3), ("1, 2", 0), ("1,2,3,4,5,6,7", 0)]:
            with self.assertRaises(ReadError) as caught:
                read_numbers(typed)
            self.assertEqual(caught.exception.position, position)


def leaves_of(expr):
    if isinstance(expr, (Sum, Product)):
        return [leaf for part in (expr.first, *[other for _, other in expr.rest]) for leaf in leaves_of(part)]
    return leaves_of(expr.inner) if isinstance(expr, Bracket) else [expr]


def shortest(pool, target):
    """By brute force over all orders of combining two: how few numbers make *target*, and the nearest value."""
    best, fewest = None, None

    def visit(state, used):
        nonlocal best, fewest
        for number, count in state:
            if best is None or abs(number - target) < abs(best - target):
                best, fewest = number, count
            elif number == best:
                fewest = min(fewest, count)
        for i, (a, m) in enumerate(state):
            for j, (b, n) in enumerate(state):
                if i < j:
                    rest = [state[k] for k in range(len(state)) if k not in (i, j)]
                    made = {a + b, a * b, abs(a - b)} | ({a / b} if b else set()) | ({b / a} if a else set())
                    for number in made:
                        visit([*rest, (number, m + n)], used)

    visit([(number, 1) for (number,) in pool], 0)
    return fewest, best
