"""Style, types, then all tests with unittest; the last line counts them.

python -m tools.run_tests [PATTERN ...]    only the tests whose name holds one of the patterns, without the checks
"""

from __future__ import annotations

import subprocess
import sys
import unittest
import warnings
from pathlib import Path

from hypothesis import HealthCheck, settings

ROOT = Path(__file__).resolve().parents[1]
CHECKS = (
    ("ruff check", ["ruff", "check", "--quiet", "."]),
    ("ruff format", ["ruff", "format", "--quiet", "--check", "."]),
    ("mypy", ["mypy", "--no-error-summary"]),
)


class Checks(unittest.TestCase):
    """Style and types are tests like the others."""

    def test_style_and_types(self) -> None:
        for name, command in CHECKS:
            with self.subTest(name):
                done = subprocess.run(
                    [sys.executable, "-m", *command], cwd=ROOT, capture_output=True, text=True, check=False
                )
                self.assertEqual(done.returncode, 0, f"\n{done.stdout}{done.stderr}")


def main(patterns: list[str]) -> int:
    """Run the tests; returns 1 when one failed or none ran."""
    # The same examples every time, so that a run can be repeated; no deadline, for machines differ.
    settings.register_profile(
        "slate", derandomize=True, deadline=None, database=None, max_examples=300,
        suppress_health_check=[HealthCheck.too_slow],
    )  # fmt: skip
    settings.load_profile("slate")
    loader = unittest.TestLoader()
    if patterns:
        loader.testNamePatterns = [f"*{pattern}*" for pattern in patterns]
    suite = unittest.TestSuite([loader.discover(str(ROOT / "tests"), top_level_dir=str(ROOT))])
    if not patterns:
        suite.addTests(loader.loadTestsFromTestCase(Checks))
    warnings.simplefilter("error")
    result = unittest.TextTestRunner(verbosity=2, warnings="error").run(suite)
    failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
    failed = len({str(test) for test, _ in result.failures + result.errors}) if failed else 0
    skipped = len(result.skipped)
    passed = result.testsRun - failed - skipped
    sys.stdout.flush()
    sys.stderr.flush()
    print(f"{passed} passed, {failed} failed" + (f", {skipped} skipped" if skipped else ""), flush=True)
    return 1 if failed or passed == 0 else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
