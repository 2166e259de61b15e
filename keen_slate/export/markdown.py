"""A set as text to paste: Markdown with its formulas in LaTeX between dollar signs, for anything else."""

from __future__ import annotations

import re
from collections.abc import Sequence

from keen_slate.core.worked import Worked

from .notation import latex
from .outline import Entry, outline

# What Markdown, or HTML within it, would read as something else.
_SPECIAL = re.compile(r"[\\`*_{}\[\]<>()#+!|$-]")


def markdown(title: str, examples: Sequence[Worked]) -> str:
    """The set: a heading, then each problem with its working as one display, and its answer."""
    parts = [f"# {_plain(title)}"]
    parts += [_example(i + 1, entry) for i, entry in enumerate(outline(examples))]
    return "\n\n".join(parts) + "\n"


def _example(number: int, entry: Entry) -> str:
    mark = entry.voice.mark
    told = f" {_plain(' '.join(entry.story.split()))}" if entry.story else f" ${latex(entry.start, mark)}$"
    rows = [rf"& {latex(entry.start, mark)} \\"] if entry.story else []
    rows += [rf"{_sign(line.sign)}& {latex(line.expr, mark)} && \text{{{_said(line.said)}}} \\" for line in entry.lines]
    asked = f" {_plain(entry.asked)}" if entry.asked else ""
    display = "\n".join(["$$", r"\begin{aligned}", *rows, r"\end{aligned}", "$$"]) if rows else ""
    return "\n\n".join(filter(None, [f"**{number}.**{told}{asked}", display, _plain(entry.answer)]))


def _sign(sign: str) -> str:
    return sign.replace("_", r"\square ")


def _plain(text: str) -> str:
    """Words as they stand, whatever they look like."""
    return _SPECIAL.sub(lambda found: f"\\{found[0]}", text)


def _said(text: str) -> str:
    """Words within a formula."""
    return re.sub(r"[$%#&_{}\\^~]", lambda found: {"\\": r"\backslash "}.get(found[0], f"\\{found[0]}"), text)
