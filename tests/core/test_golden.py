"""The golden workings: exactly what was read and kept. `python -m tools.golden` writes them anew, on purpose only."""

import unittest

from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.layouts.registry import LAYOUTS
from keen_slate.core.reading.kinds import KIND_NAMES
from keen_slate.core.ways.settings import SETTINGS, Ways
from keen_slate.core.worked import work_text
from keen_slate.core.working.step_kinds import STEP_KINDS
from tools.golden import DIRECTORY, Case, cases, rendered

KEPT = {path.name: cases(path.read_text(encoding="utf-8")) for path in sorted(DIRECTORY.glob("*.txt"))}
EVERY = [case for kept in KEPT.values() for case in kept]


class GoldenTests(unittest.TestCase):
    maxDiff = None

    def test_every_working_is_written_as_it_was_read(self):
        for name, kept in KEPT.items():
            for written in kept:
                with self.subTest(name, case=written.partition("\n\n")[0]):
                    self.assertEqual(rendered(Case.read(written)), written)

    def test_nothing_that_is_declared_is_missing_among_them(self):
        self.assertGreaterEqual(len(EVERY), 150)
        everything = "\n".join(EVERY)
        chosen = {pair for written in EVERY for pair in Case.read(written).settings().items()}
        codes = {(name, code) for name, one in SETTINGS.items() for code in one.codes if code != one.default}
        self.assertEqual(codes - chosen, set())
        self.assertEqual([kind for kind in STEP_KINDS if f"({kind})" not in everything], [])
        self.assertEqual([code for code in ENTRIES if f": {code} (" not in everything], [])
        self.assertEqual([code for code in LAYOUTS if f"layout   {code}" not in everything], [])
        every = [Case.read(written) for written in EVERY if "refused  " not in written]
        kinds = {work_text(one.problem, Ways.of(one.settings()), target=one.to).working.problem.kind for one in every}
        self.assertEqual(kinds, set(KIND_NAMES))
