"""Our text file opened by an office program that somebody else wrote, and saved as another kind: every formula is still the same."""

import io
import re
import subprocess
import tempfile
import unittest
import xml.etree.ElementTree as ET
import zipfile
from pathlib import Path

from keen_slate.core.expressions.text import text
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text
from keen_slate.export.odt import odt
from keen_slate.store.demo import SETS

OMML = "{http://schemas.openxmlformats.org/officeDocument/2006/math}"
# Of every kind that the demo has not: recurring decimals, brackets, powers, numbers below zero.
MORE = (
    "1/3 + 0.5",
    "3.25 ÷ 0.3",
    "0.1[6] + 1/2",
    "2 (1/2 - 3)^2",
    "-2 1/2 + 1/3",
    "1/2 - 3/4",
    "_/2 + _/3 = 13/6",
    "15/18",
)


def spelled(node):
    """The input notation that a formula of the office program's own kind spells, told from its elements alone."""
    name = node.tag.removeprefix(OMML)
    if name == "f":
        return f" {spelled(node.find(f'{OMML}num')).strip()}/{spelled(node.find(f'{OMML}den')).strip()} "
    if name == "sSup":
        return f"{spelled(node.find(f'{OMML}e'))}^{spelled(node.find(f'{OMML}sup'))}"
    if name == "d":
        return f"({''.join(map(spelled, node.findall(f'{OMML}e')))})"
    if name in ("bar", "acc", "groupChr"):
        return f"[{''.join(map(spelled, node.findall(f'{OMML}e')))}]"
    return (node.text or "") if name == "t" else "".join(map(spelled, node))


def tight(written):
    for theirs, ours in (("\u2212", "-"), ("□", "_"), ("\u2215", "/")):
        written = written.replace(theirs, ours)
    return re.sub(r"[\s{}]", "", written)


class OfficeTests(unittest.TestCase):
    def test_every_formula_is_still_the_same_after_an_office_program_has_saved_it(self):
        problems = [problem for _, some in SETS for problem in some] + list(MORE)
        for ways, mark in ((Ways(), "."), (Ways.of({"decimal_mark": "comma"}), ",")):
            worked = [work_text(problem, ways, mark=".") for problem in problems]
            wanted = [e for one in worked for e in (one.working.start, *[step.after for step in one.working.steps])]
            with tempfile.TemporaryDirectory() as directory:
                made = Path(directory) / "set.odt"
                made.write_bytes(odt("All kinds", worked))
                profile = f"-env:UserInstallation=file://{directory}/profile"
                command = ["soffice", profile, "--headless", "--convert-to", "docx", "--outdir", directory, str(made)]
                subprocess.run(command, check=True, capture_output=True, timeout=180)
                saved = zipfile.ZipFile(io.BytesIO((Path(directory) / "set.docx").read_bytes()))
            document = ET.fromstring(saved.read("word/document.xml"))
            found = [tight(spelled(formula)) for formula in document.iter(f"{OMML}oMath")]
            self.assertEqual(found, [tight(text(expr).replace(".", mark)) for expr in wanted])
