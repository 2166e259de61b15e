"""Typeset pieces as HTML. All text from people is escaped here."""

from __future__ import annotations

import base64
from collections.abc import Iterable
from html import escape

from keen_slate.core.expressions.typeset import Glyph, JottingGlyph
from keen_slate.core.figures.sketch import sketch_svg

# How the pieces stand on paper.
MATH_STYLE = """.operator { padding: 0 0.25em; }
.fr { display: inline-block; vertical-align: middle; text-align: center; font-size: 0.8em; line-height: 1.12; margin: 0 0.1em; }
.fr .top, .fr .bottom { display: block; padding: 0 0.15em; }
.fr .top { border-bottom: 1.1pt solid; }
.recurring { border-top: 1pt solid; }
.power { font-size: 0.65em; vertical-align: super; }"""


def math(pieces: Iterable[Glyph]) -> str:
    """Pieces as HTML; a fraction stands upright."""
    return "".join([_piece(piece) for piece in pieces])


def image(kind: str, drawn: str, alt: str) -> str:
    """An SVG that is *drawn*, as an image of a *kind* (its classes)."""
    address = base64.b64encode(drawn.encode()).decode()
    return f'<img class="{kind}" src="data:image/svg+xml;base64,{address}" alt="{escape(alt, quote=True)}">'


def _piece(piece: Glyph) -> str:
    ink = f" r-{piece.role}" if piece.role else ""
    if isinstance(piece, JottingGlyph) and piece.drawing is not None:
        address = base64.b64encode(sketch_svg(piece.drawing, piece.text or "").encode()).decode()
        alt = escape(piece.text or "", quote=True)
        return f'<img class="sketch" src="data:image/svg+xml;base64,{address}" alt="{alt}">'
    if piece.kind == "fraction":
        top, bottom = escape(piece.top or ""), escape(piece.bottom or "")
        return f'<span class="fr{ink}"><span class="top">{top}</span><span class="bottom">{bottom}</span></span>'
    return f'<span class="{piece.kind}{ink}">{escape(piece.text or "")}</span>'
