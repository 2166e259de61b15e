"""Words that tempt to the wrong operation: "more" where it is subtracted, "left" where it is added.

Common practice of teaching.
"""

from __future__ import annotations

import re

from ..expressions.tree import Sum
from .story import Story
from .words import SMALLER, TOTAL

_MORE = re.compile(
    r"\b(?:more|longer|taller|higher|heavier|wider|deeper|farther|further|bigger|larger|older|thicker|added|another)\b",
    re.I,
)
_LESS = re.compile(r"\b(?:left|away|off|used|spent|gave|lost|cut|took)\b", re.I)


def tempting_word(story: Story) -> str | None:
    """The word of a story of one calculation that points to another operation than the right one; None where none does.

    >>> from .reading import read_story
    >>> tempting_word(read_story("Sedge has 3 m. That is 1/2 m more than Alder has. How much has Alder?").story)
    'more'
    """
    expr = story.steps[0].expr
    if len(story.steps) > 1 or not isinstance(expr, Sum):
        return None
    operators = {operator for operator, _ in expr.rest}
    looked_for = (_MORE, TOTAL) if operators == {"-"} else (SMALLER, _LESS) if operators == {"+"} else ()
    found = [match for pattern in looked_for if (match := pattern.search(story.text)) is not None]
    return found[0].group().lower() if found else None
