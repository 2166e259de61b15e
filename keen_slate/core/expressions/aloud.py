"""Typeset pieces -> words for reading aloud: what stands there, blanks among it, and nothing that does not."""

from __future__ import annotations

from collections.abc import Sequence

from .spoken import OPERATOR_WORDS, POWERS, cardinal, decimal_words, fraction_words, over_words
from .typeset import Glyph

BOX = "▢"  # what pupils fill in
_BLANKS = frozenset(["_", BOX])
_SIGNS = {
    **OPERATOR_WORDS, "−": OPERATOR_WORDS["-"], "=": "equals", "(": "open bracket,", ")": ", close bracket",
    **dict.fromkeys(_BLANKS, "blank"),
}  # fmt: skip


def aloud(pieces: Sequence[Glyph]) -> str:
    """*pieces* as they are read aloud, its terms still in angle brackets; words stay as they are.

    >>> mixed = [Glyph("number", "7"), Glyph("fraction", top="1", bottom="4")]
    >>> aloud([*mixed, Glyph("operator", "−"), Glyph("number", "▢")])
    'seven and one <fourth> minus blank'
    """
    said: list[str] = []
    for i, piece in enumerate(pieces):
        before = pieces[i - 1] if i else None
        after = pieces[i + 1] if i + 1 < len(pieces) else None
        said.append(_piece(piece, before, after))
    return " ".join("".join(said).split()).replace(" ,", ",")


def _piece(piece: Glyph, before: Glyph | None, after: Glyph | None) -> str:
    if piece.kind == "words":
        return piece.text or ""
    if piece.kind == "fraction":
        return f"{' and ' if _is_whole(before) else ' '}{_fraction(piece)} "
    if piece.kind == "recurring":
        return f" {_digits(piece.text or '')} recurring "
    if piece.kind == "power":
        exponent = piece.text or ""
        return (
            " to the power blank "
            if exponent in _BLANKS
            else f" {POWERS.get(int(exponent)) or f'to the power {cardinal(int(exponent))}'} "
        )
    if piece.kind == "operator":
        return f" {_signs(piece.text or '')} "
    return f" {_number(piece.text or '', recurs=after is not None and after.kind == 'recurring')} "


def _is_whole(piece: Glyph | None) -> bool:
    """Whether a fraction that follows is a part of a mixed number."""
    return piece is not None and piece.kind == "number" and ((piece.text or "").isdigit() or piece.text in _BLANKS)


def _signs(text: str) -> str:
    """One sign or several, as in "_ =": each in words; others stay as they are."""
    return " ".join([_SIGNS.get(one, one) for one in text.split()])


def _number(text: str, recurs: bool) -> str:
    if text.isdigit():
        return cardinal(int(text))
    if text == "−":
        return "negative"
    if text in _SIGNS:
        return _SIGNS[text]
    whole, _, places = text.replace(",", ".").partition(".")
    if not whole.isdigit() or not (places.isdigit() or (recurs and not places)):
        return text
    if recurs:
        return f"{cardinal(int(whole))} point {_digits(places)}"
    return decimal_words(int(whole), places)


def _digits(text: str) -> str:
    return " ".join(
        ["blank" if digit in _BLANKS else cardinal(int(digit)) if digit.isdigit() else digit for digit in text]
    )


def _fraction(piece: Glyph) -> str:
    top, bottom = piece.top or "", piece.bottom or ""
    if top.isdigit() and bottom.isdigit():
        return fraction_words(int(top), int(bottom))
    if {top, bottom} & _BLANKS and (top.isdigit() or bottom.isdigit() or {top, bottom} <= _BLANKS):
        return over_words(int(top) if top.isdigit() else None, int(bottom) if bottom.isdigit() else None)
    return f"{_part(top)} over {_part(bottom)}"


def _part(text: str) -> str:
    """A top or bottom that is itself a calculation, as in 3 × 2."""
    return " ".join([cardinal(int(one)) if one.isdigit() else _signs(one) for one in text.split()])
