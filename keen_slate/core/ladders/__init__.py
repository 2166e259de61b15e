"""Ladders built to order: from rungs, limits and misconceptions wanted to a set of problems.

`spec` reads what is wanted, `fractions`, `several`, `decimals` and `order` know every candidate of their rungs,
`options` works candidates, `cover` finds few that reveal much, `build` chooses, `impossible` says what rules a set out.
"""

from __future__ import annotations

from .build import Ladder, build, counts_of
from .impossible import Impossible, build_or_why
from .spec import Spec, read_spec

__all__ = ["Impossible", "Ladder", "Spec", "build", "build_or_why", "counts_of", "read_spec"]
