"""The names under which a teacher's additions are kept, as patterns: of steps, of what is said of them, of blanks, of
marks.

A step is named by its kind and the how-manieth of that kind, from 0; so its name stays when others come or go.
"""

from __future__ import annotations

from collections import Counter

from .proof import Working

STEP = r"[a-z-]{1,40} [0-9]{1,2}"
STEP_KEY = rf"^{STEP}$"
WORDS_KEY = r"^[a-z-]{1,40}( [0-9]{1,2})?( spoken| picture| title)?$"
BLANK_KEY = rf"^(problem|{STEP})( row|( cell)? [0-9]{{1,3}}| line [0-9]{{1,2}}( [0-9]{{1,2}})?)$"
MARK_KEY = rf"^(answer|{STEP})$"


def step_keys(working: Working) -> list[str]:
    """A key for each step that stays when others come or go: its kind, and the how-manieth of that kind."""
    seen: Counter[str] = Counter()
    keys = []
    for step in working.steps:
        keys.append(f"{step.kind.code} {seen[step.kind.code]}")
        seen[step.kind.code] += 1
    return keys
