"""A set as an OpenDocument text: every line of a working is a formula that can be edited.

Examples are headings that the program itself numbers, the answers a list of their own; all looks come from styles with
names.
"""

from __future__ import annotations

import xml.etree.ElementTree as ET
from collections.abc import Sequence

from keen_slate.core.expressions.tree import Expr
from keen_slate.core.expressions.typeset import glyphs
from keen_slate.core.expressions.voice import Voice

from .item import Item
from .notation import mathml_with
from .outline import ROOM, Entry, outline
from .packages import package
from .starmath import starmath

TYPE = "application/vnd.oasis.opendocument.text"
_FORMULA = "application/vnd.oasis.opendocument.formula"
_OASIS = "urn:oasis:names:tc:opendocument:xmlns:"
SPACES = {
    "office": f"{_OASIS}office:1.0", "text": f"{_OASIS}text:1.0", "draw": f"{_OASIS}drawing:1.0",
    "manifest": f"{_OASIS}manifest:1.0",
    "svg": f"{_OASIS}svg-compatible:1.0", "xlink": "http://www.w3.org/1999/xlink", "style": f"{_OASIS}style:1.0",
    "fo": f"{_OASIS}xsl-fo-compatible:1.0", "meta": f"{_OASIS}meta:1.0", "dc": "http://purl.org/dc/elements/1.1/",
}  # fmt: skip
_DIGIT, _BAR, _OPERATOR = 21, 10, 56  # hundredths of a centimetre
_STYLES = """\
<?xml version="1.0" encoding="UTF-8"?>
<office:document-styles {spaces} office:version="1.3"><office:styles>
<style:default-style style:family="paragraph"><style:text-properties fo:language="en" fo:country="US" fo:font-size="12pt"/></style:default-style>
<style:style style:name="Standard" style:family="paragraph" style:class="text"/>
<style:style style:name="Title" style:family="paragraph" style:parent-style-name="Standard" style:class="chapter">
<style:paragraph-properties fo:margin-bottom="0.5cm"/><style:text-properties fo:font-size="22pt" fo:font-weight="bold"/></style:style>
<style:style style:name="Example" style:family="paragraph" style:parent-style-name="Standard" style:default-outline-level="1" style:class="text">
<style:paragraph-properties fo:margin-top="0.6cm" fo:margin-bottom="0.2cm" fo:keep-with-next="always"/>
<style:text-properties fo:font-size="14pt" fo:font-weight="bold"/></style:style>
<style:style style:name="Answers" style:family="paragraph" style:parent-style-name="Example" style:class="text">
<style:paragraph-properties fo:break-before="page"/></style:style>
<style:style style:name="Line" style:display-name="Line of a working" style:family="paragraph" style:parent-style-name="Standard">
<style:paragraph-properties fo:margin-left="1cm" fo:margin-bottom="0.15cm"/></style:style>
<style:style style:name="Formula" style:family="graphic">
<style:graphic-properties style:vertical-pos="middle" style:vertical-rel="text" text:anchor-type="as-char"/></style:style>
<text:outline-style style:name="Outline"><text:outline-level-style text:level="1" style:num-format="1" style:num-suffix=". "/></text:outline-style>
<text:list-style style:name="Key" style:display-name="Answers"><text:list-level-style-number text:level="1" style:num-format="1" style:num-suffix=". "/></text:list-style>
</office:styles></office:document-styles>"""


def odt(title: str, items: Sequence[Item], author: str = "") -> bytes:
    """The document: a title, each problem under a heading with its working, the answers at the end."""
    return _Writer(title, items, author).file()


class _Writer:
    def __init__(self, title: str, items: Sequence[Item], author: str) -> None:
        self.title, self.author = title, author
        for prefix, address in SPACES.items():
            ET.register_namespace(prefix, address)
        self.formulas: list[bytes] = []
        self.root = ET.Element(_name("office:document-content"), {_name("office:version"): "1.3"})
        self.body = ET.SubElement(ET.SubElement(self.root, _name("office:body")), _name("office:text"))
        self._paragraph(title, "Title")
        entries = outline(items)
        for entry in entries:
            self._example(entry)
        self._heading("Answers", "Answers").set(_name("text:is-list-header"), "true")
        key = ET.SubElement(self.body, _name("text:list"), {_name("text:style-name"): "Key"})
        for entry in entries:
            ET.SubElement(ET.SubElement(key, _name("text:list-item")), _name("text:p")).text = entry.answer

    def file(self) -> bytes:
        """All parts of the package; the type stands first and plain, so that it is known by its first bytes."""
        parts = {f"Object {i + 1}/content.xml": made for i, made in enumerate(self.formulas)}
        whole = {
            "mimetype": TYPE.encode(),
            "content.xml": _bytes(self.root),
            "styles.xml": _STYLES.format(spaces=_spaces()).encode(),
            "meta.xml": self._meta(),
            **parts,
            "META-INF/manifest.xml": self._manifest(),
        }
        return package(whole, plain=("mimetype",))

    def _example(self, entry: Entry) -> None:
        self._heading(entry.kind, "Example")
        if entry.story:
            self._paragraph(entry.story, "Standard")
        self._line("", entry.start, f"  {entry.asked}" if entry.asked else "", entry.voice)
        for one in entry.lines:
            self._line(f"{one.sign} ".lstrip(), one.expr, f"   {one.said}" if one.said else "", entry.voice)

    def _line(self, before: str, expr: Expr | None, behind: str, voice: Voice) -> None:
        """A line with its formula, or with the room in which pupils write it."""
        if expr is None:
            self._paragraph(f"{before}{ROOM}{behind}", "Line")
            return
        line = self._paragraph(before, "Line")
        self._formula(line, expr, voice)
        line[-1].tail = behind

    def _heading(self, said: str, style: str) -> ET.Element:
        found = ET.SubElement(
            self.body, _name("text:h"), {_name("text:outline-level"): "1", _name("text:style-name"): style}
        )
        found.text = said
        return found

    def _paragraph(self, said: str, style: str) -> ET.Element:
        found = ET.SubElement(self.body, _name("text:p"), {_name("text:style-name"): style})
        found.text = said
        return found

    def _meta(self) -> bytes:
        root = ET.Element(_name("office:document-meta"), {_name("office:version"): "1.3"})
        meta = ET.SubElement(root, _name("office:meta"))
        for name, said in (
            ("dc:title", self.title),
            ("meta:initial-creator", self.author),
            ("dc:creator", self.author),
            ("dc:language", "en-US"),
        ):
            if said:
                ET.SubElement(meta, _name(name)).text = said
        return _bytes(root)

    def _formula(self, line: ET.Element, expr: Expr, voice: Voice) -> None:
        self.formulas.append(mathml_with(expr, voice.mark, starmath(expr, voice.mark)).encode())
        number = len(self.formulas)
        width, height = _size(expr)
        frame = ET.SubElement(line, _name("draw:frame"), {
            _name("draw:name"): f"Formula {number}", _name("text:anchor-type"): "as-char",
            _name("draw:style-name"): "Formula",
            _name("svg:width"): f"{width / 100:.2f}cm", _name("svg:height"): f"{height / 100:.2f}cm",
        })  # fmt: skip
        link = {"href": f"./Object {number}", "type": "simple", "show": "embed", "actuate": "onLoad"}
        ET.SubElement(frame, _name("draw:object"), {_name(f"xlink:{name}"): value for name, value in link.items()})
        ET.SubElement(frame, _name("svg:desc")).text = voice.text(expr)

    def _manifest(self) -> bytes:
        root = ET.Element(_name("manifest:manifest"), {_name("manifest:version"): "1.3"})
        entries = [("/", TYPE), *[(f"{name}.xml", "text/xml") for name in ("content", "styles", "meta")]]
        for i in range(len(self.formulas)):
            entries += [(f"Object {i + 1}/", _FORMULA), (f"Object {i + 1}/content.xml", "text/xml")]
        for path, kind in entries:
            ET.SubElement(root, _name("manifest:file-entry"), {
                _name("manifest:full-path"): path, _name("manifest:media-type"): kind,
            })  # fmt: skip
        return _bytes(root)


def _name(prefixed: str) -> str:
    prefix, name = prefixed.split(":")
    return f"{{{SPACES[prefix]}}}{name}"


def _size(expr: Expr) -> tuple[int, int]:
    """About the width and the height of a formula in twelve points, in hundredths of a centimetre; an office program
    sets it anew.
    """
    pieces = glyphs(expr)
    widths = [
        _BAR + _DIGIT * max(len(one.top or ""), len(one.bottom or ""))
        if one.kind == "fraction"
        else _OPERATOR
        if one.kind == "operator"
        else _DIGIT * max(1, len(one.text or ""))
        for one in pieces
    ]
    return max(_DIGIT, sum(widths)), 95 if any(one.kind == "fraction" for one in pieces) else 46


def _spaces() -> str:
    return " ".join([f'xmlns:{prefix}="{address}"' for prefix, address in SPACES.items()])


def _bytes(root: ET.Element) -> bytes:
    return bytes(ET.tostring(root, encoding="utf-8", xml_declaration=True))
