"""MathML and LaTeX, read back by general means: what was printed is the same expression."""

import re
import unittest
import xml.etree.ElementTree as ET

from hypothesis import given
from hypothesis import strategies as st

from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import ratio
from keen_slate.core.reading.reader import read
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text
from keen_slate.export.markdown import markdown
from keen_slate.export.notation import latex, mathml, problem_latex, problem_mathml, working_latex, working_mathml
from keen_slate.export.starmath import starmath
from tests import strategies
from tests.support_core import as_item

SPACE = "{http://www.w3.org/1998/Math/MathML}"
SIGNS = {"\u2212": "-", "\u00d7": "×", "\u00f7": "÷"}


def from_mathml(node):
    """The input notation that a MathML tree spells, told from its elements alone."""
    name, inner = node.tag.removeprefix(SPACE), list(node)
    if name == "mfrac":
        return f" {from_mathml(inner[0])}/{from_mathml(inner[1])} "
    if name == "msup":
        return f"{from_mathml(inner[0])}^{from_mathml(inner[1])}"
    if name == "mover":
        return f"[{from_mathml(inner[0])}]"
    if name == "mi":
        return "_"
    if name in ("mn", "mo"):
        written = SIGNS.get(node.text, node.text)
        return f" {written} " if written in ("=", "+", "×", "÷") else written
    return "".join(map(from_mathml, inner))


def from_latex(written):
    """The input notation that LaTeX of these few commands spells."""
    for pattern, spelled in (
        (r"\\frac\{([^{}]*)\}\{([^{}]*)\}", r" \1/\2 "), (r"\\overline\{(\d+)\}", r"[\1]"), (r"\\left\(", "("),
        (r"\\right\)", ")"),
        (r"\\times", "×"), (r"\\div", "÷"), (r"\\square", "_"), (r"[{}]", ""),
    ):  # fmt: skip
        written = re.sub(pattern, spelled, written)
    return written


def tight(written):
    """One space between a whole and its fraction, none where it does not matter."""
    written = re.sub(r"\s+", " ", written).strip()
    written = re.sub(r"(?<=[(^\[]) | (?=[)\]^])", "", written)
    return re.sub(r"(?<=\d) (?=\[)", "", written)


class NotationTests(unittest.TestCase):
    @given(
        st.one_of(strategies.classroom_pairs, strategies.add_subtract_problems, strategies.chains, strategies.equations)
    )
    def test_what_was_printed_is_the_same_expression(self, expr):
        for spelled in (from_mathml(ET.fromstring(mathml(expr))), from_latex(latex(expr))):
            self.assertEqual(re.sub(r"\s", "", spelled), re.sub(r"\s", "", text(expr)))

    @given(strategies.expressions)
    def test_every_kind_of_expression_has_the_same_value_when_it_is_read_again(self, expr):
        try:
            expected = ratio(read(text(expr)).expr)
        except (ValueError, ZeroDivisionError):
            return  # past the limits of what can be typed
        for spelled in (from_mathml(ET.fromstring(mathml(expr))), from_latex(latex(expr))):
            n, d = ratio(read(tight(spelled)).expr)
            self.assertEqual(n * expected[1], d * expected[0], spelled)

    def test_an_equation_has_no_second_equals_sign_and_a_blank_leads_to_its_calculation(self):
        chain, missing = work_text("2/7 = _/21 = 12/_").working, work_text("5/8 + _ = 1 1/4").working
        for made in (working_latex(chain), working_mathml(chain)):
            self.assertFalse(re.search(r"= ?\{\} &|<mtr><mtd><mo>=", made), made)
        self.assertIn(r"\square ={} & 1\frac{1}{4} - \frac{5}{8}", working_latex(missing))
        self.assertIn("<mtd><mrow><mi>□</mi><mo>=</mo></mrow></mtd>", working_mathml(missing))

    def test_the_class_writes_its_decimals_and_labels(self):
        comma = Ways.of({"decimal_mark": "comma"})
        working = work_text("3.75 + 2.6 ft", comma, ".").working
        self.assertEqual(problem_latex(working), r"3{,}75 + 2{,}6\,\text{ft}")
        self.assertEqual("".join(ET.fromstring(problem_mathml(working)).itertext()), "3,75+2,6ft")
        for made in (
            working_latex(working),
            working_mathml(working),
            mathml(working.answer, ","),
            starmath(working.answer, ","),
        ):
            self.assertIn("6,35", made.replace("{,}", ","))
            self.assertNotIn("6.35", made)

    @given(strategies.classroom_pairs)
    def test_a_set_as_text_has_every_line_as_a_formula(self, expr):
        worked = [work_text(text(expr) + " m", Ways.of({"decimal_mark": "comma"}), "."), work_text("3.75 + 2.6 $")]
        made = markdown("A $5 *set* <b>", list(map(as_item, worked)))
        self.assertTrue(made.startswith("# A \\$5 \\*set\\* \\<b\\>\n"))
        found = re.findall(r"(?<!\\)(?<!\$)\$([^$\n]+)\$|& (.*?) && \\text", made)
        wanted = [e for one in worked for e in (one.working.start, *[step.after for step in one.working.steps])]
        self.assertEqual(
            [re.sub(r"\s", "", from_latex(a or b).replace(",", ".")) for a, b in found],
            [re.sub(r"\s", "", text(e)) for e in wanted],
        )
        self.assertEqual(made.count("\n$$\n"), 2 * sum(bool(one.working.steps) for one in worked))

    def test_a_working_has_a_row_for_each_line(self):
        working = work_text("7 1/4 - 3 5/6").working
        rows = ET.fromstring(working_mathml(working)).findall(f".//{SPACE}mtr")
        self.assertEqual(
            [re.sub(r"\s", "", from_mathml(row[1])) for row in rows],
            ["71/4-35/6", "73/12-310/12", "615/12-310/12", "35/12"],
        )
        self.assertEqual(working_latex(working).count("={} &"), 3)
