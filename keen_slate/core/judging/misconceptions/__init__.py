"""The answers pupils are likely to give: one small function and its words an entry, found by being there.

A new entry is a function with the decorator `registry.misconception` in one of this package's modules.
"""

from __future__ import annotations

from importlib import import_module
from pkgutil import iter_modules

from .registry import LikelyAnswer, likely_answers

for _module in iter_modules(__path__):
    import_module(f"{__name__}.{_module.name}")

__all__ = ["LikelyAnswer", "likely_answers"]
