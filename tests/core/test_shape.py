"""The shape of the core: pure, one direction of dependence, documented with examples that run."""

import ast
import doctest
import importlib
import pkgutil
import unittest
from pathlib import Path

import keen_slate.core

CORE = Path(keen_slate.core.__file__).parent
ALLOWED = {
    "__future__", "array", "ast", "bisect", "collections", "collections.abc", "contextlib", "contextvars", "dataclasses", "fractions", "functools", "html", "importlib",
    "itertools", "math", "pkgutil", "random", "re", "typing",
}  # fmt: skip
LAYERS = {"core": set(), "store": {"core"}, "export": {"core"}, "web": {"core", "store", "export"}}


def imports_of(path: Path) -> set[str]:
    found = set()
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Import):
            found |= {name.name for name in node.names}
        if isinstance(node, ast.ImportFrom) and node.level == 0:
            found.add(node.module or "")
    return found


class ShapeTests(unittest.TestCase):
    def test_the_core_imports_nothing_but_pure_standard_library(self):
        for path in CORE.rglob("*.py"):
            self.assertLessEqual(imports_of(path), ALLOWED, path)

    def test_the_core_does_no_floating_point_arithmetic(self):
        for path in CORE.rglob("*.py"):
            for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
                self.assertFalse(isinstance(node, ast.Constant) and isinstance(node.value, float), path)
                self.assertFalse(isinstance(node, ast.BinOp) and isinstance(node.op, ast.Div), path)
                self.assertFalse(isinstance(node, ast.Name) and node.id == "float", path)

    def test_no_layer_imports_a_higher_one(self):
        for layer, lower in LAYERS.items():
            for path in (CORE.parent / layer).rglob("*.py"):
                own = {name.split(".")[1] for name in imports_of(path) if name.startswith("keen_slate.")}
                self.assertLessEqual(own, lower | {layer}, path)

    def test_examples_in_docstrings_hold(self):
        names = [m.name for m in pkgutil.walk_packages(keen_slate.core.__path__, "keen_slate.core.")]
        results = [doctest.testmod(importlib.import_module(name)) for name in names]
        self.assertEqual(sum(result.failed for result in results), 0)
        self.assertGreater(sum(result.attempted for result in results), 20)  # they were found and run
