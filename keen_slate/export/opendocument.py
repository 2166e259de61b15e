"""Elements of an OpenDocument file, by the prefixes that the standard uses."""

from __future__ import annotations

import xml.etree.ElementTree as ET
from collections.abc import Mapping

_OASIS = "urn:oasis:names:tc:opendocument:xmlns:"
SPACES = {
    "office": f"{_OASIS}office:1.0", "text": f"{_OASIS}text:1.0", "draw": f"{_OASIS}drawing:1.0",
    "table": f"{_OASIS}table:1.0", "manifest": f"{_OASIS}manifest:1.0",
    "svg": f"{_OASIS}svg-compatible:1.0", "xlink": "http://www.w3.org/1999/xlink", "style": f"{_OASIS}style:1.0",
    "fo": f"{_OASIS}xsl-fo-compatible:1.0", "meta": f"{_OASIS}meta:1.0", "dc": "http://purl.org/dc/elements/1.1/",
}  # fmt: skip
for _prefix, _address in SPACES.items():
    ET.register_namespace(_prefix, _address)


def name(prefixed: str) -> str:
    """A prefixed name in full.

    >>> name("text:p")
    '{urn:oasis:names:tc:opendocument:xmlns:text:1.0}p'
    """
    prefix, local = prefixed.split(":")
    return f"{{{SPACES[prefix]}}}{local}"


def made(prefixed: str, values: Mapping[str, str] | None = None, said: str | None = None) -> ET.Element:
    """An element with its attributes, and the text *said* in it."""
    element = ET.Element(name(prefixed), {name(key): value for key, value in (values or {}).items()})
    element.text = said
    return element


def within(
    parent: ET.Element, prefixed: str, values: Mapping[str, str] | None = None, said: str | None = None
) -> ET.Element:
    """The same as the last child of *parent*."""
    element = made(prefixed, values, said)
    parent.append(element)
    return element


def written(root: ET.Element) -> bytes:
    """*root* as a part of the file."""
    return bytes(ET.tostring(root, encoding="utf-8", xml_declaration=True))


def spaces() -> str:
    """All prefixes as they are declared at the beginning of a part."""
    return " ".join([f'xmlns:{prefix}="{address}"' for prefix, address in SPACES.items()])
