"""Handouts: what stands on their pages as data for the template, and the pages themselves."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path
from typing import Any

from keen_slate.core.documents.plain import plainly
from keen_slate.core.figures.inks import INKS

from . import typesetting
from .grey import grey
from .paper.kinds import KINDS
from .paper.options import Options
from .paper.parts import Numbered, PageMaterial, Part, is_empty, numbers_on

TEMPLATE = "handout.typ"
Version = tuple[str, Sequence[Numbered]]  # its letter ("" where there is one version only), its examples


def parts_of(title: str, versions: Sequence[Version], options: Options) -> list[Part]:
    """What the handout is made of: the pupils' pages of all versions, then what is for the teacher."""
    made = [
        part
        for letter, items in versions
        for part in KINDS[options.kind](PageMaterial(title, letter, tuple(items), options))
    ]
    there = [part for part in made if not is_empty(part)]
    return sorted(there, key=lambda part: part.part in ("key", "copy"))


def data_of(title: str, parts: Sequence[Part], options: Options) -> dict[str, Any]:
    """The same as plain values, for the template."""
    look = {
        name: getattr(options, name)
        for name in ("paper", "space", "fill", "name_line", "large", "wide", "class_name", "date", "minutes")
    }
    look["inks"] = {role: grey(ink.colour) if options.grey else ink.colour for role, ink in INKS.items()}
    data: dict[str, Any] = {"title": title, "look": look, "parts": plainly(tuple(parts))}
    return _greyed(data) if options.grey else data


def _greyed(value: Any) -> Any:
    """All drawings in greys."""
    if isinstance(value, dict):
        return {name: _greyed(one) for name, one in value.items()}
    if isinstance(value, list):
        return [_greyed(one) for one in value]
    return grey(value) if isinstance(value, str) and value.startswith("<svg") else value


def pdf(title: str, versions: Sequence[Version], options: Options, typefaces: Path) -> bytes:
    """The handout as a PDF; *typefaces* is the folder of its typeface."""
    return pdf_of(title, parts_of(title, versions, options), options, typefaces)


def pdf_of(title: str, parts: Sequence[Part], options: Options, typefaces: Path) -> bytes:
    """The PDF of these *parts*."""
    return typesetting.pdf(TEMPLATE, data_of(title, parts, options), typefaces)


def pages(
    title: str, versions: Sequence[Version], options: Options, typefaces: Path
) -> tuple[list[bytes], frozenset[int]]:
    """Its pages as SVG pictures, and the numbers of the examples that are on them."""
    parts = parts_of(title, versions, options)
    made = typesetting.pages(TEMPLATE, data_of(title, parts, options), typefaces)
    return made, frozenset([number for part in parts for number in numbers_on(part)])
