"""Typeset pieces as HTML. All text from people is escaped here."""

from __future__ import annotations

from collections.abc import Iterable
from html import escape

from keen_slate.core.expressions.typeset import Glyph


def math(pieces: Iterable[Glyph]) -> str:
    """Pieces as HTML; a fraction stands upright."""
    return "".join([_piece(piece) for piece in pieces])


def _piece(piece: Glyph) -> str:
    ink = f" r-{piece.role}" if piece.role else ""
    if piece.kind == "fraction":
        top, bottom = escape(piece.top or ""), escape(piece.bottom or "")
        return f'<span class="fr{ink}"><span class="top">{top}</span><span class="bottom">{bottom}</span></span>'
    return f'<span class="{piece.kind}{ink}">{escape(piece.text or "")}</span>'
