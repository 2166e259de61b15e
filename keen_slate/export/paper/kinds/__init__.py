"""The kinds of page: a module each, found by being there."""

from importlib import import_module
from pkgutil import iter_modules

from ..parts import KINDS

for _module in iter_modules(__path__):
    import_module(f"{__name__}.{_module.name}")

__all__ = ["KINDS"]
