"""The typeface of papers as TrueType, made from the front end's packages: python -m tools.typefaces FOLDER."""

from __future__ import annotations

import sys
from pathlib import Path

from fontTools.ttLib import TTFont

_FILES = Path(__file__).parent.parent / "frontend/node_modules/@fontsource/andika/files"
# Each part of the typeface becomes a family of its own: Typst looks for a character in one family after the other.
FAMILIES = {"latin": "Andika", "latin-ext": "Andika Extended", "cyrillic": "Andika Cyrillic"}
WEIGHTS = {400: "Regular", 700: "Bold"}
_FAMILY, _FULL, _POSTSCRIPT, _TYPOGRAPHIC = 1, 4, 6, 16  # name ids of the OpenType specification


def main(folder: Path) -> None:
    """Write all files into *folder*."""
    folder.mkdir(parents=True, exist_ok=True)
    for part, family in FAMILIES.items():
        for weight, style in WEIGHTS.items():
            with TTFont(_FILES / f"andika-{part}-{weight}-normal.woff2") as font:
                font.flavor = None
                names = {
                    _FAMILY: family, _TYPOGRAPHIC: family, _FULL: f"{family} {style}",
                    _POSTSCRIPT: f"{family.replace(' ', '')}-{style}",
                }  # fmt: skip
                for name in font["name"].names:
                    name.string = names.get(name.nameID, name.toUnicode())
                font.save(folder / f"{part}-{weight}.ttf")


if __name__ == "__main__":
    main(Path(sys.argv[1]))
