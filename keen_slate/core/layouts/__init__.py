"""What is written where. In: a `Working`. Out: rows and sheets of cells in the squares of the paper; screens and paper
only place them.

Each module with a layout registers it; all modules here are found by being here.
"""

from importlib import import_module
from pkgutil import iter_modules

for module in iter_modules(__path__):
    import_module(f"{__name__}.{module.name}")
