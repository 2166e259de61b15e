"""A set as text to paste: Markdown with its formulas in LaTeX between dollar signs, for anything else."""

from __future__ import annotations

import re
from collections.abc import Sequence

from keen_slate.core.expressions.tree import Expr

from .item import Item
from .notation import latex
from .outline import TextEntry, outline

_ROOM = r"\underline{\hspace{6em}}"  # for what pupils write
# What Markdown, or HTML within it, would read as something else.
_SPECIAL = re.compile(r"[\\`*_{}\[\]<>()#+!|$-]")


def markdown(title: str, items: Sequence[Item]) -> str:
    """The set: a heading, then each problem under its own with its working as one display; the answers at the end."""
    entries = outline(items)
    parts = [f"# {_plain(title)}"]
    parts += [_example(i + 1, entry) for i, entry in enumerate(entries)]
    parts += ["## Answers", "\n".join([f"{i}. {_plain(entry.answer)}" for i, entry in enumerate(entries, 1)])]
    return "\n\n".join(parts) + "\n"


def _example(number: int, entry: TextEntry) -> str:
    def formula(expr: Expr | None) -> str:
        return latex(expr, entry.voice.mark) if expr is not None else _ROOM

    told = _plain(" ".join(entry.story.split())) if entry.story else f"${formula(entry.start)}$"
    rows = [rf"& {formula(entry.start)} \\"] if entry.story else []
    rows += [rf"{_sign(line.sign)}& {formula(line.expr)} && \text{{{_said(line.said)}}} \\" for line in entry.lines]
    asked = f" {_plain(entry.asked)}" if entry.asked else ""
    display = "\n".join(["$$", r"\begin{aligned}", *rows, r"\end{aligned}", "$$"]) if rows else ""
    return "\n\n".join(filter(None, [f"## {number}. {_plain(entry.kind)}", f"{told}{asked}", display]))


def _sign(sign: str) -> str:
    return sign.replace("_", r"\square ")


def _plain(text: str) -> str:
    """Words as they stand, whatever they look like."""
    return _SPECIAL.sub(lambda found: f"\\{found[0]}", text)


def _said(text: str) -> str:
    """Words within a formula."""
    return re.sub(r"[$%#&_{}\\^~]", lambda found: {"\\": r"\backslash "}.get(found[0], f"\\{found[0]}"), text)
