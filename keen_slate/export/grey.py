"""Colours as greys that a photocopier keeps apart: what is dark becomes darker, what is light lighter."""

from __future__ import annotations

import re

_COLOUR = re.compile(r"#([0-9a-f]{6}|[0-9a-f]{3})\b", re.IGNORECASE)
_MIDDLE = 150  # below it is ink, from it on paper
_DARKEST, _LIGHTEST = 60, 232


def grey(drawn: str) -> str:
    """*drawn* (an SVG document, or a colour) with each colour as a grey of its luminance, clearly ink or clearly paper.

    >>> grey("#0b63a5"), grey("#fcfbf5"), grey("#fff")
    ('#3c3c3c', '#fbfbfb', '#ffffff')
    """
    return _COLOUR.sub(_grey, drawn)


def _grey(found: re.Match[str]) -> str:
    digits = found.group(1)
    if len(digits) == 3:
        digits = "".join([2 * digit for digit in digits])
    red, green, blue = (int(digits[i : i + 2], 16) for i in (0, 2, 4))
    bright = round(0.2126 * red + 0.7152 * green + 0.0722 * blue)  # Rec. 709, from memory
    value = min(bright, _DARKEST) if bright < _MIDDLE else max(bright, _LIGHTEST)
    return f"#{value:02x}{value:02x}{value:02x}"
