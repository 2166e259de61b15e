"""The drill, short: what was acknowledged before the primary fell is there once, and writes go on, with a replica that leads."""

import contextlib
import io
import re
import unittest

from bench.drill import drill


class DrillTests(unittest.TestCase):
    def test_nothing_is_lost_or_doubled_when_the_primary_falls(self):
        said = io.StringIO()
        with contextlib.redirect_stdout(said):
            good = drill(1, 16, "the primary's machine")
        told = said.getvalue()
        self.assertTrue(good, told)
        self.assertGreater(int(re.search(r"acknowledged changes: (\d+), lost: 0, doubled: 0", told)[1]), 8, told)
