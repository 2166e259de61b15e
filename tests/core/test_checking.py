"""Fair checking: no true line is called wrong, however the working is cut and ordered; a line with a changed number is
found.
"""

import re
import unittest
from random import Random

from keen_slate.core.diagnosing.answers import Explainer
from keen_slate.core.diagnosing.lines import check_lines, read_line
from keen_slate.core.diagnosing.wrong_working import wrong_working
from keen_slate.core.errors import CoreError
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import value
from keen_slate.core.expressions.voice import OWN
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text
from tests.core.test_certain import SEED
from tests.strategies import CODES
from tests.support_core import sweep

COUNT = sweep(500, 20_000)
WHOLES = (0, 0, 1, 2, 3, 4, 5, 7, 9, 12)


def number(dice):
    """A number as in a classroom: a small whole, a fraction, a mixed number, in lowest terms or not; a decimal."""
    whole, bottom = dice.choice(WHOLES), dice.choice((2, 3, 4, 5, 6, 8, 9, 10, 12))
    if dice.random() < 0.15:
        return f"{whole}.{dice.choice(('5', '25', '75', '4', '06'))}"
    if dice.random() < 0.15:
        return str(whole + 1)
    return f"{whole} {dice.randrange(1, bottom)}/{bottom}" if whole else f"{dice.randrange(1, bottom)}/{bottom}"


def problem(dice):
    a, b, c = number(dice), number(dice), number(dice)
    kind = dice.randrange(8)
    if kind < 3:
        return f"{a} + {b}"
    if kind < 5:
        return f"{a} - {b}"
    return (f"{a} + {b} + {c}", f"{a} × {b}", f"{a} ÷ {b}")[kind - 5]


def worked(dice):
    """A problem that can be worked, in ways drawn at random."""
    while True:
        ways = Ways.of({name: dice.choice(codes) for name, codes in CODES.items()} | {"decimal_mark": "point"})
        try:
            made = work_text(problem(dice), ways)
        except CoreError:
            continue
        if made.working.steps and made.working.value >= 0:
            return made


def pieces(rich):
    """A jotting as a line, where it is one that can be read: numbers and signs alone."""
    said = OWN.plain(rich)
    return said if "=" in said and all(read_line(piece.strip(), ".") for piece in said.split("=")) else None


def seen(line):
    """The whole numbers that stand in a line."""
    return set(re.findall(r"\d+", line))


def printed(dice, made):
    """The lines of a working as a pupil might write them: jottings before or after their line, or not at all; lines
    joined or cut.
    """
    lines = []
    for step in made.working.steps:
        jottings = [line for rich in step.lines if (line := pieces(rich)) and dice.random() < 0.6]
        whole = text(step.after)
        dice.shuffle(jottings)
        for line in jottings:
            parts = line.split(" = ")
            if len(parts) > 2 and dice.random() < 0.5:  # cut in two
                cut = dice.randrange(1, len(parts) - 1)
                lines += [" = ".join(parts[: cut + 1]), " = ".join(parts[cut:])]
            elif (
                len(parts) == 2
                and re.search(" [-+] ", parts[0])
                and seen(parts[0]) <= seen(text(step.before))
                and made.working.ways.mixed_subtract != "same-difference"  # what is added to both stands in no line
                and dice.random() < 0.4
            ):
                lines += parts
            else:
                lines.append(line)
        lines.append(f"= {whole}" if lines and dice.random() < 0.2 else whole)
    return lines


def changed(dice, line):
    """A line with one number changed so that it is false; None where there is none to change."""
    spots = list(re.finditer(r"\d+", line))
    dice.shuffle(spots)
    for spot in spots:
        other = f"{line[: spot.start()]}{int(spot.group()) + dice.choice((1, 2, 3))}{line[spot.end() :]}"
        before, after = (
            [read_line(piece.strip(), ".") for piece in one.removeprefix("=").split("=")] for one in (line, other)
        )
        if all(before) and all(after) and [value(one.expr) for one in before] != [value(one.expr) for one in after]:
            return other
    return None


class FairTests(unittest.TestCase):
    def told(self, problem, *lines):
        checked = check_lines(Explainer(work_text(problem), "."), list(lines))
        signs = ["s" if one.side else "?" if one.equal is None else "=" if one.equal else "x" for one in checked.lines]
        codes = [one.codes for one in checked.lines if one.equal is False]
        return "".join(signs), codes[0] if codes else (), checked.answer

    def test_a_part_is_worked_on_lines_of_its_own(self):
        for problem, lines, expected in (
            ("2 3/10 + 4 1/5", ["2 + 4 = 6", "3/10 + 1/5", "3/10 + 2/10", "5/10", "6 5/10", "6 1/2"],
                ("ssss==", (), "right")),
            ("3 1/6 + 2 3/4", ["3 + 2 = 5", "1/6 + 3/4 = 4/10", "5 4/10"], ("sx=", ("add-across",), "explained")),
            ("7 1/4 - 3 5/6", ["7 1/4 = 6 5/4", "6 5/4 = 6 15/12", "15/12 - 10/12", "5/12", "6 - 3 = 3", "3 5/12"],
                ("sssss=", (), "right")),
            ("1/4 + 2/5", ["(5 + 8)/20", "13/20"], ("==", (), "right")),
            ("7 2/9 - 2 5/9", ["6 1 2/9 - 2 5/9", "6 11/9 - 2 5/9", "4 6/9", "4 2/3"], ("====", (), "right")),
            ("2/9 + 3/9 + 2/9", ["2 + 3", "5", "5 + 2 = 7", "7/9"], ("sss=", (), "right")),
            ("8 - (1 1/4 + 2 2/3)", ["1 1/4 + 2 2/3", "1 3/12 + 2 8/12", "3 11/12", "8 - 3 11/12", "4 1/12"],
                ("sss==", (), "right")),
            ("5 1/6 - 2 3/4", ["2 + 3 = 5", "5 + 15 = 20", "2 5/12"], ("ss=", (),
                "right")),  # counting on, true in itself
            ("2 1/4 + 3 1/2", ["5 + 1 = 6", "6"], ("sx", ("scaled-by-adding",), "explained")),
            ("1/2 + 1/3", ["2/5"], ("x", ("add-across",), "explained")),
            ("2 3/4 + 1 2/3", ["7/3 + 1", "4 5/12"], ("xx", (), "right")),
            ("2 1/2 × 1 1/3", ["2 1/2 = 6/2", "1 1/3 = 4/3", "24/6", "4"],
                ("xs==", (), "explained")),  # the mistake goes on, the rest follows
            ("3 1/6 + 2 3/4", ["3 + 2 = 6", "1/6 + 3/4 = 11/12", "6 11/12"], ("xs=", (), "explained")),
            ("3 1/6 + 2 3/4", ["3 + 2 = 5", "1/6 + 3/4 = 11/12", "5 + 11/12", "5 11/12"], ("ss==", (), "right")),
            ("3 1/6 + 2 3/4", ["3 + 2 = 5", "1/6 + 3/4 = 11/12", "11/12"], ("ssx", ("whole-lost",), "explained")),
            ("3 1/6 + 2 3/4", ["7 + 9", "5 11/12"], ("xx", (), "right")),
            ("3 1/6 + 2 3/4", ["3 + 2", "5"], ("sx", (), "explained")),
            ("3 1/6 + 2 3/4", ["7 + 9 = 16", "5 11/12"], ("s=", (), "right")),  # true in itself
            ("9 - 4 2/3", ["9 = 8 3/3", "8 3/3", "- 4 2/3", "-----", "4 1/3"], ("ssss=", (), "right")),
            ("9 - 4 2/3", ["9", "- 4 2/3", "-----", "5 2/3"], ("sssx", ("fraction-brought-down",), "explained")),
            ("3 1/4 + 2 1/2 + 1 1/4", ["3 1/4", "+ 2 1/2", "---", "5 3/4", "+ 1 1/4", "---", "7"],
                ("ssssss=", (), "right")),
        ):  # fmt: skip
            with self.subTest(problem, lines=lines):
                self.assertEqual(self.told(problem, *lines), expected)

    def test_no_line_that_the_core_prints_is_called_wrong(self):
        dice = Random(SEED)
        for _ in range(COUNT):
            made = worked(dice)
            lines = printed(dice, made)
            checked = check_lines(Explainer(made, "."), lines)
            self.assertIsNone(checked.first_wrong, (SEED, made.working.problem.text, made.working.ways, lines))

    def test_a_changed_number_is_found_in_its_line(self):
        dice = Random(SEED)
        found = tried = 0
        while tried < COUNT:
            made = worked(dice)
            lines = printed(dice, made)
            i = dice.randrange(len(lines))
            wrong = changed(dice, lines[i])
            if wrong is None:
                continue
            tried += 1
            found += check_lines(Explainer(made, "."), [*lines[:i], wrong, *lines[i + 1 :]]).first_wrong == i
        self.assertGreaterEqual(found, 0.97 * tried, (SEED, found, tried))

    def test_a_likely_wrong_working_has_one_line_that_does_not_follow(self):
        dice = Random(SEED)
        written = 0
        for _ in range(COUNT // 10):
            made = worked(dice)
            explainer = Explainer(made, ".")
            for likely in made.likely:
                found = wrong_working(made, likely)
                if found is None:
                    continue
                written += 1
                checked = check_lines(explainer, [text(line) for line in found.lines])
                false = [i for i, line in enumerate(checked.lines) if line.equal is False]
                self.assertEqual(false, [found.wrong], (SEED, made.working.problem.text, likely.entry.code))
                self.assertEqual(value(found.lines[-1]), likely.answer_value)
        self.assertGreater(written, COUNT // 10)

    def test_a_wrong_working_is_written_as_a_pupil_writes_it(self):
        for problem, code, lines in (
            ("7 1/4 - 3 5/6", "smaller-from-larger", ["7 3/12 - 3 10/12", "4 7/12"]),
            ("7 1/4 - 3 5/6", "regroup-ten", ["7 3/12 - 3 10/12", "6 13/12 - 3 10/12", "3 3/12"]),
            ("2 3/4 + 1 5/6", "carry-lost", ["3 + 3/4 + 5/6", "3 + 9/12 + 10/12", "3 + 19/12", "3 7/12"]),
            ("1/4 + 2/5", "top-not-scaled", ["1/20 + 2/20", "3/20"]),
            ("1/4 + 2/5", "added-common-bottoms", ["5/20 + 8/20", "13/40"]),
            ("12.4 - 6.75", "column-smaller-from-larger", ["12.40 - 6.75", "14.35"]),
        ):  # fmt: skip
            made = work_text(problem)
            likely = next(one for one in made.likely if one.entry.code == code)
            self.assertEqual([text(line) for line in wrong_working(made, likely).lines], lines, (problem, code))
