"""Misconceptions about the numerators and denominators of fractions that are added or subtracted."""

from __future__ import annotations

from ..numbers import Frac, Mixed, Whole
from ..wording import Rich
from .registry import Case, Wrong, misconception


@misconception(
    "add-across",
    name="combined tops and combined bottoms",
    reason="Sees separate whole numbers above and below the bars, not sizes of pieces.",
    question="Do two halves make two fourths? What happens to the size of the pieces?",
    kinds=("add-subtract",),
)
def add_across(case: Case) -> Wrong | None:
    if case.fractions < 2 or case.answer_value < 0:
        return None
    signs = [sign for sign, _ in case.terms]
    fractions = [
        (s, n, d)
        for s, t, (_, n, d) in zip(signs, (t for _, t in case.terms), case.parts, strict=True)
        if not isinstance(t, Whole)
    ]
    whole = sum(s * w for s, (w, _, _) in zip(signs, case.parts, strict=True))
    top = sum(s * n for s, n, _ in fractions)
    bottom = sum(s * d for s, _, d in fractions)
    if bottom <= 0 or top < 0 or whole < 0:
        return None
    lines: list[Rich] = []
    if any(w for w, _, _ in case.parts):
        lines.append(
            (f"wholes: {_chain([(s, w) for s, (w, _, _) in zip(signs, case.parts, strict=True) if w])} = {whole}",)
        )
    lines.append((f"tops: {_chain([(s, n) for s, n, _ in fractions])} = {top}",))
    lines.append((f"bottoms: {_chain([(s, d) for s, _, d in fractions])} = {bottom}",))
    return Wrong(Mixed(whole, top, bottom) if whole else Frac(top, bottom), tuple(lines))


def _chain(numbers: list[tuple[int, int]]) -> str:
    """The written sum of signed whole numbers, like 5 - 3."""
    (sign, first), *rest = numbers
    return f"{'-' if sign < 0 else ''}{first}" + "".join([f" {'+' if s > 0 else '-'} {n}" for s, n in rest])
