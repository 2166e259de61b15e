"""The shape of the house: a pure core, one direction of dependence between layers and between rooms, examples
that run.
"""

import ast
import doctest
import importlib
import pkgutil
import unittest
from collections import Counter
from functools import cache
from pathlib import Path

import keen_slate.core

CORE = Path(keen_slate.core.__file__).parent
PURE = {
    "__future__", "array", "bisect", "collections", "collections.abc", "contextlib", "contextvars", "dataclasses",
    "datetime", "difflib", "fractions",
    "functools", "html", "importlib", "itertools", "math", "pkgutil", "random", "re", "typing",
}  # fmt: skip
LAYERS = {"core": set(), "store": {"core"}, "export": {"core"}, "web": {"core", "store", "export"}}
# From the bottom: a room imports from itself and from those before it. Modules beside the rooms have their place, too.
ROOMS = (
    "limits", "days", "errors", "searching", "expressions", "arithmetic", "reading", "stories", "ways", "working",
    "judging", "grading", "worked",
    "diagnosing", "layouts", "figures", "teaching", "ladders", "sittings", "building", "documents",
)  # fmt: skip


def imports(source: str, module: str, is_package: bool = False) -> set[str]:
    """What *source*, the text of *module*, imports: modules, or names in modules, all spelled from the top."""
    found = set()
    here = module.split(".") if is_package else module.split(".")[:-1]
    for node in ast.walk(ast.parse(source)):
        if isinstance(node, ast.Import):
            found |= {name.name for name in node.names}
        if isinstance(node, ast.ImportFrom):
            start = here[: len(here) - node.level + 1] if node.level else []
            base = ".".join([*start, *((node.module or "").split("."))]).strip(".")
            found |= {f"{base}.{name.name}" for name in node.names}
    return found


@cache
def modules(directory: Path) -> tuple[tuple[str, set[str]], ...]:
    """Each module under *directory* of the package by its name, with what it imports."""
    found = []
    for path in sorted(directory.rglob("*.py")):
        parts = path.relative_to(CORE.parents[1]).with_suffix("").parts
        package = parts[-1] == "__init__"
        name = ".".join(parts[:-1] if package else parts)
        found.append((name, imports(path.read_text(encoding="utf-8"), name, package)))
    return tuple(found)


def parent(name: str) -> str:
    """The module that a *name* in it, or the package that a module in it, belongs to."""
    return name.rpartition(".")[0]


def layer_of(name: str) -> str | None:
    """The layer of a module of ours: the second part of its name."""
    parts = name.split(".")
    return parts[1] if parts[0] == "keen_slate" and len(parts) > 1 else None


def upwards(module: str, imported: set[str]) -> set[str]:
    """What a *module* of the core imports from rooms above its own."""
    room = [*module.split("."), ""][2]
    above = ROOMS[ROOMS.index(room) + 1 :] if room else ROOMS
    return {name for name in imported if name.startswith("keen_slate.core.") and name.split(".")[2] in above}


def circles(graph: dict[str, set[str]]) -> list[list[str]]:
    """The chains of imports that lead back to where they begin."""
    found: list[list[str]] = []
    done: set[str] = set()

    def walk(name: str, chain: list[str]) -> None:
        if name in chain:
            found.append([*chain[chain.index(name) :], name])
        elif name not in done:
            for other in graph[name]:
                walk(other, [*chain, name])
            done.add(name)

    for name in graph:
        walk(name, [])
    return found


class ShapeTests(unittest.TestCase):
    def test_the_core_imports_nothing_but_pure_standard_library(self):
        for name, imported in modules(CORE):
            others = {found for found in imported if not found.startswith("keen_slate.core")}
            self.assertEqual(
                {found for found in others if found not in PURE and parent(found) not in PURE}, set(), name
            )

    def test_no_layer_imports_a_higher_one(self):
        for layer, lower in LAYERS.items():
            for name, imported in modules(CORE.parent / layer):
                own = {found for found in map(layer_of, imported) if found in LAYERS}
                self.assertLessEqual(own, lower | {layer}, name)

    def test_no_room_of_the_core_imports_from_one_above_it(self):
        here = {path.stem for path in CORE.iterdir() if path.stem not in ("__init__", "__pycache__")}
        self.assertEqual(here, set(ROOMS))
        for name, imported in modules(CORE):
            self.assertEqual(upwards(name, imported), set(), name)

    def test_the_core_has_no_circles(self):
        found = dict(modules(CORE))
        graph = {
            name: {one if one in found else parent(one) for one in imported} & set(found) - {name}
            for name, imported in found.items()
        }
        self.assertEqual(circles(graph), [])

    def test_a_class_has_a_name_of_its_own(self):
        found = Counter(
            node.name
            for path in CORE.parent.rglob("*.py")
            for node in ast.parse(path.read_text(encoding="utf-8")).body
            if isinstance(node, ast.ClassDef)
        )
        self.assertEqual([name for name, times in found.items() if times > 1], [])

    def test_arrows_that_are_planted_are_seen(self):
        # The checks above can fail: on imports that climb within a room's own dots, and on a circle of two.
        planted = imports("from ..judging import estimate\nfrom .. import web", "keen_slate.core.reading.reader")
        self.assertEqual(
            upwards("keen_slate.core.reading.reader", planted),
            {"keen_slate.core.judging.estimate"},
        )
        self.assertIn("web", map(layer_of, imports("from ..web import app", "keen_slate.store.shelf")))
        self.assertEqual(circles({"a": {"b"}, "b": {"c"}, "c": {"a"}})[0], ["a", "b", "c", "a"])

    def test_examples_in_docstrings_hold(self):
        names = [
            m.name for m in pkgutil.walk_packages(keen_slate.__path__, "keen_slate.") if "migrations" not in m.name
        ]
        results = [doctest.testmod(importlib.import_module(name)) for name in names if not name.endswith("__main__")]
        self.assertEqual(sum(result.failed for result in results), 0)
        self.assertGreater(sum(result.attempted for result in results), 160)  # they were found and run
