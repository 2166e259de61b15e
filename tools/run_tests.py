"""Style, types, then all tests with unittest, some of a class at a time; the last line counts them.

python -m tools.run_tests [PATTERN ...]    only the tests whose name holds one of the patterns, without the checks
python -m tools.run_tests --all ...        every sweep whole, which takes about twice as long

Random tests draw other cases with each version of the files, the same for the same ones, so that a run can be repeated.
The seed is printed; KEEN_SLATE_SEED=... draws others.
"""

from __future__ import annotations

import faulthandler
import io
import multiprocessing
import os
import subprocess
import sys
import time
import unittest
import warnings
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor, as_completed
from dataclasses import dataclass
from pathlib import Path
from random import randrange

from hypothesis import HealthCheck, core, settings

ROOT = Path(__file__).resolve().parents[1]
FRONT_END = ROOT / "frontend"
CHECKS = (
    ("ruff check", ["ruff", "check", "--quiet", "."]),
    ("ruff format", ["ruff", "format", "--quiet", "--check", "."]),
    ("mypy", ["mypy", "--no-error-summary"]),
)
# What takes longest begins first, so that no core waits for it at the end.
FIRST = ("tests.browser", "tests.web", "tools", "tests.core")
SLOWEST = 10
SEED = "KEEN_SLATE_SEED"
LONGEST = 30 * 60  # seconds for some tests of a class: what hangs says where, and ends the run
TOGETHER = 7  # tests of a class that run one after the other: what a class sets up is set up for so many


class Checks(unittest.TestCase):
    """Style and types are tests like the others."""

    def run_one(self, command: list[str], directory: Path) -> None:
        """Run a checker; what it says is the failure."""
        done = subprocess.run(command, cwd=directory, capture_output=True, text=True, check=False)
        self.assertEqual(done.returncode, 0, f"\n{done.stdout}{done.stderr}")

    def test_style_and_types(self) -> None:
        for name, command in CHECKS:
            with self.subTest(name):
                self.run_one([sys.executable, "-m", *command], ROOT)

    def test_style_of_the_front_end(self) -> None:
        for script in ("lint", "format"):
            with self.subTest(script):
                self.run_one(["npm", "run", "--silent", script], FRONT_END)

    def test_composables_and_stores_of_the_front_end(self) -> None:
        self.run_one(["npm", "run", "--silent", "unit"], FRONT_END)


@dataclass(frozen=True, slots=True)
class Ran:
    """What became of some tests of a class: what was written, how many ran, which failed, which were skipped, how long
    each took.
    """

    output: str
    count: int
    failed: frozenset[str]
    skipped: int
    seconds: dict[str, float]


class _Timed(unittest.TextTestResult):
    def startTest(self, test: unittest.TestCase) -> None:
        self.begun = time.monotonic()
        super().startTest(test)

    def stopTest(self, test: unittest.TestCase) -> None:
        self.seconds = getattr(self, "seconds", {}) | {test.id(): time.monotonic() - self.begun}
        super().stopTest(test)


def run_some(names: list[str]) -> Ran:
    """Run the tests called *names*, of one class."""
    faulthandler.dump_traceback_later(LONGEST, exit=True)
    stream = io.StringIO()
    warnings.simplefilter("error")
    suite = unittest.TestLoader().loadTestsFromNames(names)
    runner = unittest.TextTestRunner(stream, verbosity=2, warnings="error", resultclass=_Timed)  # type: ignore[arg-type]
    result = runner.run(suite)
    faulthandler.cancel_dump_traceback_later()
    bad = {str(test) for test, _ in (*result.failures, *result.errors)} | {str(t) for t in result.unexpectedSuccesses}
    # A subtest that fails is a failure of its test.
    failed = frozenset(name.split(" [")[0].split(" (<")[0] for name in bad)
    return Ran(stream.getvalue(), result.testsRun, failed, len(result.skipped), getattr(result, "seconds", {}))


def _seed() -> str:
    """A number for the application and its tests as they are committed; one by chance where that is not known."""
    command = ["git", "rev-parse", "HEAD:keen_slate", "HEAD:tests"]
    trees = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=False).stdout.split()
    return str(int(trees[0][:8], 16) ^ int(trees[1][:8], 16) if len(trees) == 2 else randrange(10**9))


def prepare(examples: int = 0) -> None:
    """Settle what holds in every process that runs tests: the seed of the run, how many *examples* of each law (as many
    as the run is to have, unless said), no deadlines, for machines differ.
    """
    examples = examples or (300 if os.environ.get("KEEN_SLATE_ALL") else 120)
    if SEED not in os.environ:  # once: the processes that are started have it from here
        os.environ[SEED] = _seed()
    core.global_force_seed = int(os.environ[SEED])  # type: ignore[assignment]
    settings.register_profile(
        "slate", deadline=None, database=None, max_examples=examples, suppress_health_check=[HealthCheck.too_slow]
    )
    settings.load_profile("slate")


def _tests(suite: unittest.TestSuite) -> Iterator[unittest.TestCase]:
    for part in suite:
        if isinstance(part, unittest.TestSuite):
            yield from _tests(part)
        else:
            yield part


def _units(patterns: list[str]) -> list[list[str]]:
    """The names of the tests, some of a class together, the long ones first."""
    loader = unittest.TestLoader()
    if patterns:
        loader.testNamePatterns = [f"*{pattern}*" for pattern in patterns]
    suite = unittest.TestSuite([loader.discover(str(ROOT / "tests"), top_level_dir=str(ROOT))])
    by_class: dict[str, list[str]] = {}
    for test in _tests(suite):
        by_class.setdefault(test.id().rsplit(".", 1)[0], []).append(test.id())
    if not patterns:
        by_class["tools.run_tests.Checks"] = [
            f"tools.run_tests.Checks.{name}" for name in loader.getTestCaseNames(Checks)
        ]

    def rank(names: list[str]) -> tuple[int, int]:
        place = next((i for i, begin in enumerate(FIRST) if names[0].startswith(begin)), len(FIRST))
        return place, -len(names)

    units = [
        names[i::parts] for names in by_class.values() for parts in [-(-len(names) // TOGETHER)] for i in range(parts)
    ]
    return sorted(units, key=rank)


def main(patterns: list[str]) -> int:
    """Run the tests; returns 1 when one failed or none ran."""
    if "--all" in patterns:
        patterns = [pattern for pattern in patterns if pattern != "--all"]
        os.environ["KEEN_SLATE_ALL"] = "1"
    prepare()
    done: list[Ran] = []
    at_once = 1 + (os.cpu_count() or 1)  # where one waits for what starts or ends, the others have its core
    with ProcessPoolExecutor(at_once, multiprocessing.get_context("spawn"), initializer=prepare) as pool:
        for future in as_completed([pool.submit(run_some, names) for names in _units(patterns)]):
            done.append(future.result())
            print(done[-1].output, flush=True)
    slow = sorted([pair for ran in done for pair in ran.seconds.items()], key=lambda pair: -pair[1])[:SLOWEST]
    print("\n".join(["The slowest:", *[f"  {seconds:6.1f} s  {name}" for name, seconds in slow]]))
    failed = frozenset().union(*[ran.failed for ran in done])
    skipped = sum(ran.skipped for ran in done)
    passed = sum(ran.count for ran in done) - len(failed) - skipped
    for name in sorted(failed):
        print(f"FAILED {name}")
    print(f"Random cases: {SEED}={os.environ[SEED]}")
    print(f"{passed} passed, {len(failed)} failed" + (f", {skipped} skipped" if skipped else ""), flush=True)
    return 1 if failed or passed <= 0 else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
