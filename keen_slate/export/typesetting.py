"""Papers set by Typst: a template and plain data in, a PDF or pictures of its pages out.

Nothing is fetched, no other file is read.
"""

from __future__ import annotations

import json
from collections.abc import Sequence
from functools import cache
from pathlib import Path
from typing import Any, Literal

from fontTools.ttLib import TTFont
from typst import Compiler, Fonts

TEMPLATES = Path(__file__).parent / "templates"
FOLDER = "typefaces"  # of the built front end, where Andika lies as TrueType
_ALSO = frozenset("→≈≤≥√□▢✂\n")  # in the faces that Typst brings along, or drawn
_UNKNOWN = "□"


def pdf(template: str, data: dict[str, Any], typefaces: Path) -> bytes:
    """The PDF that *template* makes of *data*: tagged, its typefaces within it, checked for PDF/UA-1 by Typst.

    *typefaces* is the folder of the TrueType files. Raises `typst.TypstError` where the check fails: a fault in the
    template.
    """
    made = _compiler(str(typefaces)).compile(
        TEMPLATES / template, sys_inputs=_inputs(data, typefaces), pdf_standards=["ua-1"]
    )
    assert isinstance(made, bytes), "one document is made"
    return made


def pages(
    template: str, data: dict[str, Any], typefaces: Path, kind: Literal["svg", "png"] = "svg", dots: float = 84
) -> list[bytes]:
    """Each page of the same paper as a picture; *dots* to the inch where it is a PNG."""
    made = _compiler(str(typefaces)).compile(
        TEMPLATES / template, format=kind, ppi=dots, sys_inputs=_inputs(data, typefaces)
    )
    assert made is not None, "pictures are made"
    return [made] if isinstance(made, bytes) else made


def drawings(some: Sequence[tuple[str, float]], typefaces: Path, dots: float = 220) -> list[bytes]:
    """Drawings (SVG, with their widths in millimetres) as PNG pictures, for programs that draw no SVG."""
    data = {"drawings": [{"svg": svg, "width": width} for svg, width in some]}
    return pages("drawings.typ", data, typefaces, "png", dots) if some else []


@cache
def _compiler(typefaces: str) -> Compiler:
    """Kept with what it has set already: most of a page stays as it was."""
    fonts = Fonts(include_system_fonts=False, font_paths=[typefaces])
    return Compiler(root=TEMPLATES, font_paths=fonts)


def _inputs(data: dict[str, Any], typefaces: Path) -> dict[str, str]:
    return {"data": printable(json.dumps(data, ensure_ascii=False), typefaces)}


def printable(text: str, typefaces: Path) -> str:
    """*text* with a square for each character that no typeface has: a page with letters missing would say nothing of
    it.
    """
    unknown = {ord(one) for one in set(text) - _ALSO} - covered(str(typefaces))
    return text.translate(dict.fromkeys(unknown, _UNKNOWN)) if unknown else text


@cache
def covered(typefaces: str) -> frozenset[int]:
    """The characters that the typeface has."""
    found: set[int] = set(range(32, 127))
    for path in Path(typefaces).glob("*-400.ttf"):
        with TTFont(path) as font:
            found |= font.getBestCmap().keys()
    return frozenset(found)
