"""Small faults seeded in a room, one at a time, and which of them its tests let live.

./slate mutate ROOM [COUNT] [SEED]     ROOM: a package below keen_slate, like core/stories
./slate mutate FILE:LINE ...           every fault of a line, like core/stories/words.py:49

A fault is a comparison, a sign, a condition or a number changed by one step in one place. It is made in memory: no file
is touched. The examples in the docstrings of its module are tried first. What lives though it changes nothing is named,
with its reason, in tests/equivalent.txt ("file | the line as it is | reason").
"""

from __future__ import annotations

import ast
import doctest
import importlib
import importlib.abc
import importlib.machinery
import importlib.util
import multiprocessing
import os
import random
import signal
import sys
import unittest
from collections.abc import Iterator, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from types import ModuleType

from tools.run_tests import SEED, prepare

ROOT = Path(__file__).resolve().parents[1]
EQUIVALENT = ROOT / "tests/equivalent.txt"
EXAMPLES = 60  # of each random test, a fault
LIMIT = 300  # seconds for the tests of one fault; what hangs is found
# The tests of each room, the quickest to see a fault first.
TESTS = {
    "core/arithmetic": ("core.test_arithmetic", "core.test_single", "core.test_layouts", "core.test_golden"),
    "core/building": ("core.test_arithmetic", "core.test_cli"),
    "core/diagnosing": ("core.test_boundaries", "core.test_explaining", "core.test_checking", "core.test_golden"),
    "core/documents": (
        "core.test_golden",
        "core.test_working",
        "core.test_single",
        "core.test_stories",
        "core.test_ladders",
    ),
    "core/expressions": ("core.test_arithmetic", "core.test_reading", "core.test_golden", "core.test_judging"),
    "core/figures": ("core.test_boundaries", "core.test_golden", "core.test_figures"),
    "core/grading": ("core.test_boundaries", "core.test_judging", "core.test_golden", "core.test_arithmetic"),
    "core/judging": (
        "core.test_boundaries",
        "core.test_golden",
        "core.test_judging",
        "core.test_explaining",
        "core.test_beliefs",
    ),
    "core/ladders": ("core.test_ladders",),
    "core/layouts": ("core.test_layouts", "core.test_golden"),
    "core/reading": ("core.test_reading", "core.test_golden", "core.test_bounds"),
    "core/searching": ("core.test_ladders", "core.test_cli"),
    "core/sittings": ("core.test_boundaries", "core.test_sittings", "core.test_beliefs"),
    "core/stories": ("core.test_boundaries", "core.test_ordinary", "core.test_certain", "core.test_stories"),
    "core/teaching": (
        "core.test_teaching",
        "core.test_boundaries",
        "core.test_layouts",
        "core.test_explaining",
        "core.test_figures",
    ),
    "core/ways": ("core.test_golden", "core.test_working", "core.test_layouts", "core.test_judging"),
    "core/working": ("core.test_boundaries", "core.test_golden", "core.test_single", "core.test_working"),
    "export": ("export",),
    "store": ("store",),
}
_FLIPPED: dict[type[ast.cmpop], type[ast.cmpop]] = {
    ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
    ast.In: ast.NotIn,
    ast.NotIn: ast.In, ast.Is: ast.IsNot, ast.IsNot: ast.Is,
}  # fmt: skip
_SIGNS: dict[type[ast.operator], type[ast.operator]] = {
    ast.Add: ast.Sub,
    ast.Sub: ast.Add,
    ast.Mult: ast.Add,
    ast.BitOr: ast.BitAnd,
    ast.BitAnd: ast.BitOr,
}


@dataclass(frozen=True, slots=True)
class Fault:
    """A fault: its *module*, the place of its node among all nodes of it, and its line."""

    module: str
    path: Path
    node: int
    line: int


def faults(room: str) -> list[Fault]:
    """Every fault that can be seeded in the modules of a *room*."""
    found = []
    folder = ROOT / "keen_slate" / room
    for path in sorted(folder.rglob("*.py")) if folder.is_dir() else [folder.with_suffix(".py")]:
        module = ".".join(path.relative_to(ROOT).with_suffix("").parts).removesuffix(".__init__")
        tree = ast.parse(path.read_text(encoding="utf-8"))
        told = _annotations(tree)
        for i, node in enumerate(ast.walk(tree)):
            if _changed(node, check=True) and id(node) not in told:
                found.append(Fault(module, path, i, getattr(node, "lineno", 0)))
    return found


def _annotations(tree: ast.AST) -> set[int]:
    """The nodes of annotations, of what a class is decorated with, of *strict* and *maxsize*: nothing is calculated
    there.
    """
    inside: set[int] = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.keyword) and node.arg in ("strict", "maxsize"):
            inside.add(id(node.value))
        decorators = node.decorator_list if isinstance(node, ast.ClassDef) else []
        for part in (getattr(node, "annotation", None), getattr(node, "returns", None), *decorators):
            if part is not None:
                inside |= {id(one) for one in ast.walk(part)}
    return inside


def _changed(node: ast.AST, check: bool = False) -> bool:
    """Change a node to the fault beside it; whether there is one (only that, where it is a *check*)."""
    match node:
        case ast.Compare(ops=[op]) if type(op) in _FLIPPED:
            if not check:
                node.ops = [_FLIPPED[type(op)]()]
        case ast.BoolOp():
            if not check:
                node.op = ast.And() if isinstance(node.op, ast.Or) else ast.Or()
        case ast.UnaryOp(op=ast.Not()):
            if not check:
                node.op, node.operand = ast.Not(), ast.UnaryOp(ast.Not(), node.operand)
        case ast.BinOp(op=op) if type(op) in _SIGNS:
            if not check:
                node.op = _SIGNS[type(op)]()
        case ast.Constant(value=bool() as truth):
            if not check:
                node.value = not truth
        case ast.Constant(value=int() as number):
            if not check:
                node.value = number + 1
        case _:
            return False
    return True


class _Seeded(importlib.abc.MetaPathFinder, importlib.abc.Loader):
    """Imports one module with its fault."""

    def __init__(self, fault: Fault) -> None:
        self.fault = fault

    def find_spec(self, name: str, path: object = None, target: object = None) -> importlib.machinery.ModuleSpec | None:
        if name != self.fault.module:
            return None
        return importlib.util.spec_from_file_location(name, self.fault.path, loader=self)

    def create_module(self, spec: importlib.machinery.ModuleSpec) -> None:
        return None

    def exec_module(self, module: ModuleType) -> None:
        tree = ast.parse(self.fault.path.read_text(encoding="utf-8"))
        node = next(one for i, one in enumerate(ast.walk(tree)) if i == self.fault.node)
        _changed(node)
        exec(compile(ast.fix_missing_locations(tree), str(self.fault.path), "exec"), module.__dict__)


def _run(fault: Fault | None, tests: Sequence[str]) -> None:
    """Run tests with a fault, or with none; the exit status is 0 where all pass."""
    signal.alarm(LIMIT)
    quiet = os.open(os.devnull, os.O_WRONLY)
    os.dup2(quiet, 1)
    os.dup2(quiet, 2)
    os.environ[SEED] = "1"  # the same cases for each fault
    prepare(EXAMPLES)
    if fault is not None:
        sys.meta_path.insert(0, _Seeded(fault))
    try:
        suite = unittest.TestSuite([_load(name) for name in tests])
        if fault is not None and fault.module.startswith("keen_slate.core"):
            examples = doctest.testmod(importlib.import_module(fault.module))
            if examples.failed:
                os._exit(1)
        passed = unittest.TextTestRunner(failfast=True).run(suite).wasSuccessful()
    except BaseException:
        passed = False
    os._exit(0 if passed else 1)


def _load(name: str) -> unittest.TestSuite:
    """The tests of a module, or of a folder, below tests."""
    folder = ROOT / "tests" / name
    if folder.is_dir():
        return unittest.defaultTestLoader.discover(str(folder), top_level_dir=str(ROOT))
    return unittest.defaultTestLoader.loadTestsFromName(f"tests.{name}")


def lives(fault: Fault | None, tests: Sequence[str]) -> bool:
    """Whether no test sees a fault; with none, whether the tests pass."""
    process = multiprocessing.get_context("spawn").Process(target=_run, args=(fault, tests))
    process.start()
    process.join(LIMIT + 30)
    if process.is_alive():
        process.kill()
    return process.exitcode == 0


def _equivalent() -> Iterator[tuple[str, str]]:
    lines = EQUIVALENT.read_text(encoding="utf-8").splitlines() if EQUIVALENT.exists() else []
    for line in lines:
        if line and line[0] != "#":
            path, code, _ = line.split(" | ", 2)
            yield path, code.strip()


def _tried(chosen: Sequence[Fault], tests: Sequence[str]) -> int:
    """Seed each fault, print those that live as they are found; how many of them change something."""
    known = set(_equivalent())
    counted = 0
    with ThreadPoolExecutor(os.cpu_count()) as pool:
        for fault, alive in zip(chosen, pool.map(lambda one: lives(one, tests), chosen), strict=True):
            if not alive:
                continue
            line = fault.path.read_text(encoding="utf-8").splitlines()[fault.line - 1].strip()
            where = str(fault.path.relative_to(ROOT / "keen_slate"))
            same = (where, line) in known
            counted += not same
            print(f"lives  {where}:{fault.line}  {line}{'  (changes nothing)' if same else ''}", flush=True)
    return counted


def _of_lines(places: Sequence[str]) -> int:
    """Seed every fault of some lines, each called FILE:LINE; 0 where all die."""
    counted = 0
    for place in places:
        path, _, number = place.removeprefix("keen_slate/").rpartition(":")
        room = next((one for one in TESTS if path.startswith(f"{one}/")), "")
        if not room or not number.isdecimal():
            print(f"Which line? {place} is none of a room.")
            return 2
        chosen = [one for one in faults(room) if one.path == ROOT / "keen_slate" / path and one.line == int(number)]
        living = _tried(chosen, TESTS[room])
        counted += living
        print(f"{place}: {len(chosen) - living} of {len(chosen)} die or change nothing", flush=True)
    return 1 if counted else 0


def main(arguments: Sequence[str]) -> int:
    """Seed faults in a room and print those that live; 0 where nine in ten die."""
    if arguments and ":" in arguments[0]:
        return _of_lines(arguments)
    room = arguments[0].strip("/").removeprefix("keen_slate/") if arguments else ""
    if room not in TESTS:
        print(f"Which room? One of {', '.join(TESTS)}.")
        return 2
    count = int(arguments[1]) if len(arguments) > 1 else 60
    seed = arguments[2] if len(arguments) > 2 else "1"
    tests = TESTS[room]
    if not lives(None, tests):
        print(f"{room}: its tests fail without a fault.")
        return 2
    every = faults(room)
    chosen = random.Random(seed).sample(every, min(count, len(every)))
    print(f"{room}: {len(chosen)} of {len(every)} faults, seed {seed}, by {', '.join(tests)}", flush=True)
    counted = _tried(chosen, tests)
    print(f"{room}: {len(chosen) - counted} of {len(chosen)} die or change nothing")
    return 0 if counted * 10 <= len(chosen) else 1


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
