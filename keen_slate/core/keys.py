"""The names under which a teacher's additions are kept, as patterns: of steps, of what is said of them, of blanks, of marks.

A step is named by its kind and the how-manieth of that kind, from 0; so its name stays when others come or go.
"""

from __future__ import annotations

STEP = r"[a-z-]{1,40} [0-9]{1,2}"
STEP_KEY = rf"^{STEP}$"
WORDS_KEY = r"^[a-z-]{1,40}( [0-9]{1,2})?( spoken| picture)?$"
BLANK_KEY = rf"^(problem|{STEP})( row| [0-9]{{1,3}}| line [0-9]{{1,2}}( [0-9]{{1,2}})?)$"
MARK_KEY = rf"^(answer|{STEP})$"
