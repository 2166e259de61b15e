"""What CONTRIBUTING.md says is enough to add something, done in a scratch copy of the core: nothing else is touched."""

import shutil
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

import keen_slate

PACKAGE = Path(keen_slate.__file__).parent
MISCONCEPTION = """
from ...expressions.tree import Whole
from .registry import Case, Wrong, misconception

@misconception("always-seven", name="writes seven", reason="Likes sevens.", question="Why seven?",
              kinds=("add-subtract",), example="1/2 + 1/3")
def always_seven(case: Case) -> Wrong | None:
    return Wrong(Whole(7), ((Whole(7),),))
"""
LAYOUT = """
from .rows import rows_of
from .registry import Box, Laid, layout

@layout("one-box")
def one_box(working):
    return Laid(boxes=(Box("All of it", "", rows_of(working, list(range(len(working.steps))), 30), ()),))
"""
FIGURE = """    "half-circles": _pieces("circles", "half circles"),
    "bars": _pieces("bars", "strips"),"""
SETTING = """    shout: str = _setting("look", "1/2 + 1/3", "Loudness", {"no": "quiet", "yes": "loud"},
                          terms={"yes": {"whole": "WHOLE"}})
    layout: str = _setting("""


class GrowingTests(unittest.TestCase):
    def setUp(self):
        directory = tempfile.TemporaryDirectory()
        self.addCleanup(directory.cleanup)
        self.root = Path(directory.name)
        self.core = self.root / "keen_slate" / "core"
        shutil.copytree(PACKAGE / "core", self.core, ignore=shutil.ignore_patterns("__pycache__"))
        shutil.copy(PACKAGE / "cli.py", self.root / "keen_slate" / "cli.py")
        shutil.copytree(PACKAGE / "commands", self.root / "keen_slate" / "commands")
        (self.root / "keen_slate" / "__init__.py").touch()

    def edit(self, path, old, new):
        file = self.core / path
        before = file.read_text(encoding="utf-8")
        self.assertEqual(before.count(old), 1, f"{path} has one place for it")
        file.write_text(before.replace(old, new), encoding="utf-8")

    def says(self, expression):
        """What an *expression* about a worked problem is, in the scratch copy."""
        code = (
            "from keen_slate.core.worked import work_text\nfrom keen_slate.core.ways.settings import *\n"
            "from keen_slate.core.documents.view import working_view\n"
            f"print({expression})"
        )
        done = subprocess.run(
            [sys.executable, "-c", code], cwd=self.root, capture_output=True, text=True, check=False, env={}
        )
        self.assertEqual(done.returncode, 0, done.stderr)
        return done.stdout.strip()

    def test_a_misconception_is_a_function_in_a_file_that_is_found(self):
        (self.core / "judging/misconceptions/sevens.py").write_text(MISCONCEPTION, encoding="utf-8")
        shown = self.says("[(m.code, m.status) for m in working_view(work_text('1/2 + 1/3')).misconceptions]")
        self.assertIn("('always-seven', 'reveals')", shown)

    def test_a_setting_is_a_field(self):
        self.edit("ways/settings.py", "    layout: str = _setting(", SETTING)
        shown = self.says("working_view(work_text('3 - 1/4', ways=Ways.of({'shout': 'yes'}))).misconceptions")
        self.assertIn("WHOLE", shown)
        self.assertEqual(self.says("SETTINGS['shout'].default, Ways().as_dict()['shout']"), "no no")

    def test_a_layout_is_a_module_and_its_code(self):
        (self.core / "layouts/one_box.py").write_text(LAYOUT, encoding="utf-8")
        self.edit("ways/settings.py", '"line": "line by line",', '"line": "line by line", "one-box": "one box",')
        view = "working_view(work_text('1/2 + 1/3', ways=Ways.of({'layout': 'one-box'})))"
        self.assertEqual(
            self.says(f"({view}.layout, [box.title for box in {view}.boxes])"), "('one-box', ['All of it'])"
        )

    def test_a_kind_of_picture_is_an_entry(self):
        self.edit("figures/choose.py", '    "bars": _pieces("bars", "strips"),', FIGURE)
        self.assertIn("half-circles", self.says("working_view(work_text('1/2 + 1/3')).steps[0].pictures"))
