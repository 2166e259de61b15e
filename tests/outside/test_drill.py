"""The drill, short: what was acknowledged before the primary fell is there once, and writes go on, with a replica that
leads.
"""

import re
import subprocess
import sys
import unittest

from tools.application import ROOT


class DrillTests(unittest.TestCase):
    def test_nothing_is_lost_or_doubled_when_the_primary_falls(self):
        command = [sys.executable, "-m", "bench", "drill", "1", "16", "the primary's machine"]
        done = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, timeout=600, check=False)
        told = done.stdout + done.stderr
        self.assertEqual(done.returncode, 0, told)
        self.assertGreater(int(re.search(r"acknowledged changes: (\d+), lost: 0, doubled: 0", told)[1]), 8, told)
