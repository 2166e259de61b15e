"""A drawing among jottings as a standalone SVG file."""

from __future__ import annotations

from html import escape

from ..expressions.typeset import Drawing
from ..working.sketches import DIGIT, RING
from .inks import INK

_FONT = "Andika, 'DejaVu Sans', sans-serif"
_SIZE = 17


def sketch_svg(drawing: Drawing, alt: str) -> str:
    """The *drawing*; each digit stands in a place of its own."""
    texts = "".join(
        [
            f'<text x="{text.x}" y="{text.y}" textLength="{len(text.text) * DIGIT}">{escape(text.text)}</text>'
            for text in drawing.texts
        ]
    )
    lines = "".join([f'<path d="M{a} {b}L{c} {d}"/>' for a, b, c, d in drawing.lines])
    rings = "".join([f'<ellipse cx="{x}" cy="{y}" rx="{side}" ry="{RING}"/>' for x, y, side in drawing.rings])
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="-1 0 {drawing.width + 2} {drawing.height}" '
        f'width="{drawing.width + 2}" '
        f'height="{drawing.height}" role="img"><title>{escape(alt)}</title>'
        f'<g font-family="{_FONT}" font-size="{_SIZE}" fill="{INK}">{texts}</g>'
        f'<g fill="none" stroke="{INK}" stroke-width="1.4">{lines}{rings}</g></svg>\n'
    )
