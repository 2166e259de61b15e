"""The main way in a second engine: Debian's Firefox, driven by what somebody else wrote to the W3C's WebDriver BiDi."""

import json
import subprocess
import unittest
from pathlib import Path

from tests import support

ROOT = Path(__file__).resolve().parents[2]


class FirefoxTests(unittest.TestCase):
    def test_a_set_is_begun_typed_shown_and_printed(self):
        server = support.live_server()
        link = server.link(support.new_teacher())
        script = (ROOT / "tests/outside/firefox.mjs").read_text(encoding="utf-8")
        done = subprocess.run(
            ["node", "--input-type=module", "-", link, server.address], input=script, cwd=ROOT / "frontend",
            capture_output=True, text=True, timeout=300, check=False,
        )  # fmt: skip
        self.assertEqual(done.returncode, 0, done.stderr[-2000:])
        seen = json.loads(done.stdout)
        self.assertEqual(seen["complaints"], [])
        self.assertEqual(seen["pencil"], "In pencil. Enter inks it.")
        self.assertEqual((seen["square"], seen["wall"], seen["pages"]), (22, "three and five twelfths", True))
        self.assertIn("about", seen["estimate"])
