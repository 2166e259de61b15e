"""Our formulas in programs that somebody else wrote: KaTeX, strictly, and MathJax read the LaTeX, the Speech Rule
Engine the MathML.
"""

import json
import re
import subprocess
import unittest
import xml.etree.ElementTree as ET
from pathlib import Path

from keen_slate.core.expressions.spoken import cardinal
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.voice import OWN
from keen_slate.core.worked import work_text
from keen_slate.export.notation import latex, mathml, working_latex
from keen_slate.store.demo import SETS
from tests.export.test_notation import from_mathml
from tests.outside.test_office import MORE

FRONT_END = Path(__file__).parents[2] / "frontend"
SCRIPT = Path(__file__).with_name("formulas.cjs")
FORMULA = re.compile(r"<math.*?</math>", re.DOTALL)


def read_by_others(formulas, lines):
    asked = json.dumps({"latex": formulas, "mathml": lines})
    done = subprocess.run(["node", SCRIPT, FRONT_END], input=asked, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr[-2000:]
    return json.loads(done.stdout)


def tight(written):
    return re.sub(r"[\s{}\u2061-\u2064]", "", written).replace("□", "_")


def spelled(read):
    """The input notation that the MathML of another program spells; what it keeps of the LaTeX beside is left out."""
    root = ET.fromstring(FORMULA.search(read)[0])
    for parent in root.iter():
        for child in [one for one in parent if one.tag.endswith("annotation")]:
            parent.remove(child)
    return tight(from_mathml(root))


class FormulaTests(unittest.TestCase):
    def test_latex_and_mathml_mean_there_what_they_mean_here(self):
        worked = [work_text(problem).working for _, some in SETS for problem in some] + [
            work_text(problem).working for problem in MORE
        ]
        lines = [expr for one in worked for expr in (one.start, *[step.after for step in one.steps])]
        for mark in (".", ","):
            wanted = [tight(text(expr).replace(".", mark)) for expr in lines]
            found = read_by_others([latex(expr, mark) for expr in lines], [mathml(expr, mark) for expr in lines])
            for reader in ("katex", "mathjax"):
                self.assertEqual([spelled(one) for one in found[reader]], wanted, (reader, mark))
            heard = 0
            for expr, spoken in zip(lines, found["spoken"], strict=True):
                ours = OWN.words(expr)
                if re.fullmatch(r"(?:\d+ )?\d/\d(?: [+-] (?:\d+ )?\d/\d)*", text(expr)):
                    heard += 1
                    said = re.sub(r"\d+", lambda found: cardinal(int(found[0])), spoken)
                    self.assertEqual(said, ours)
            self.assertGreater(heard, 20)  # of one digit: larger ones it reads as "ten over twelve"

    def test_a_whole_working_is_one_display_in_both(self):
        worked = [work_text(problem).working for _, some in SETS for problem in some]
        found = read_by_others([working_latex(one) for one in worked], [])
        for reader in ("katex", "mathjax"):
            for one, read in zip(worked, found[reader], strict=True):
                self.assertNotIn("merror", read)
                self.assertEqual(len(re.findall("<mtr", read)), 1 + len(one.steps), (reader, text(one.start)))
