"""What docs/security.md names as shown by a test is a test that is there."""

import re
import unittest
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]


class SecurityDocTests(unittest.TestCase):
    def test_every_test_that_is_named_is_there(self):
        named = set(re.findall(r"`(?:tests/\w+/)?(test_\w+)(?:\.py)?`", (ROOT / "docs/security.md").read_text()))
        files = list((ROOT / "tests").rglob("test_*.py"))
        there = {path.stem for path in files} | {name for path in files for name in re.findall(r"def (test_\w+)",
            path.read_text())}  # fmt: skip
        self.assertGreater(len(named), 15)
        self.assertEqual(named - there, set())
