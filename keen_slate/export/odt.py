"""A set as an OpenDocument text: every line of a working is a formula that can be edited.

Examples are headings that the program itself numbers, the answers a list of their own, pictures have captions, squares
and boxes are tables; all looks come from styles with names.
"""

from __future__ import annotations

import xml.etree.ElementTree as ET
from collections.abc import Iterator, Sequence
from pathlib import Path

from keen_slate.core.expressions.tree import Expr
from keen_slate.core.expressions.typeset import glyphs
from keen_slate.core.expressions.voice import Voice

from .item import Item
from .notation import mathml_with
from .odt_table import DIGITS, boxes, cell_styles, squares, told
from .opendocument import made, name, spaces, within, written
from .outline import ROOM, TextBox, TextEntry, TextLine, TextPicture, outline
from .packages import package
from .starmath import starmath
from .typesetting import drawings

TYPE = "application/vnd.oasis.opendocument.text"
_FORMULA = "application/vnd.oasis.opendocument.formula"
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
<style:style style:name="Start" style:family="paragraph" style:parent-style-name="Line">
<style:paragraph-properties fo:margin-left="1cm" fo:margin-bottom="0.15cm" fo:keep-with-next="always"/></style:style>
<style:style style:name="Jotting" style:family="paragraph" style:parent-style-name="Standard">
<style:paragraph-properties fo:margin-left="1.5cm" fo:margin-bottom="0.15cm"/><style:text-properties fo:color="#3c4850"/></style:style>
<style:style style:name="Picture" style:family="paragraph" style:parent-style-name="Standard">
<style:paragraph-properties fo:margin-top="0.2cm" fo:keep-with-next="always"/></style:style>
<style:style style:name="Caption" style:family="paragraph" style:parent-style-name="Standard" style:class="extra">
<style:paragraph-properties fo:margin-bottom="0.3cm"/><style:text-properties fo:font-size="10pt" fo:font-weight="bold" fo:color="#3c4850"/></style:style>
<style:style style:name="Heading_20_of_20_a_20_box" style:display-name="Heading of a box" style:family="paragraph" style:parent-style-name="Standard"><style:text-properties fo:font-weight="bold"/></style:style>
<style:style style:name="Square" style:family="paragraph" style:parent-style-name="Standard">
<style:paragraph-properties fo:text-align="center"/><style:text-properties fo:font-size="2pt"/></style:style>
{digits}
<style:style style:name="Formula" style:family="graphic">
<style:graphic-properties style:vertical-pos="middle" style:vertical-rel="text" text:anchor-type="as-char"/></style:style>
<text:outline-style style:name="Outline"><text:outline-level-style text:level="1" style:num-format="1" style:num-suffix=". "/></text:outline-style>
<text:list-style style:name="Key" style:display-name="Answers"><text:list-level-style-number text:level="1" style:num-format="1" style:num-suffix=". "/></text:list-style>
</office:styles></office:document-styles>"""


def odt(title: str, items: Sequence[Item], author: str = "", typefaces: Path | None = None) -> bytes:
    """The document: a title, each problem under a heading with its working, the answers at the end.

    With pictures where the folder of the *typefaces* is given that their labels are set in.
    """
    return _OdtWriter(title, items, author, typefaces).file()


class _OdtWriter:
    def __init__(self, title: str, items: Sequence[Item], author: str, typefaces: Path | None) -> None:
        self.title, self.author = title, author
        self.formulas: list[bytes] = []
        self.pictures: list[bytes] = []
        self.root = made("office:document-content", {"office:version": "1.3"})
        self.styles = cell_styles(within(self.root, "office:automatic-styles"))
        self.body = within(within(self.root, "office:body"), "office:text")
        counted = {"text:display-outline-level": "0", "text:name": "Figure"}
        within(within(self.body, "text:sequence-decls"), "text:sequence-decl", counted)
        entries = outline(items, pictures=typefaces is not None)
        every = [(one.svg, one.width) for entry in entries for one in entry.drawings]
        self.drawn: Iterator[bytes] = iter(drawings(every, typefaces) if typefaces else [])
        self._paragraph(self.body, title, "Title")
        for entry in entries:
            self._example(entry)
        self._heading("Answers", "Answers").set(name("text:is-list-header"), "true")
        key = within(self.body, "text:list", {"text:style-name": "Key"})
        for entry in entries:
            within(within(key, "text:list-item"), "text:p", said=entry.answer)

    def file(self) -> bytes:
        """All parts of the package; the type stands first and plain, so that it is known by its first bytes."""
        whole = {
            "mimetype": TYPE.encode(),
            "content.xml": written(self.root),
            "styles.xml": _STYLES.format(spaces=spaces(), digits=DIGITS).encode(),
            "meta.xml": self._meta(),
            **{f"Object {i}/content.xml": one for i, one in enumerate(self.formulas, 1)},
            **{f"Pictures/{i}.png": one for i, one in enumerate(self.pictures, 1)},
            "META-INF/manifest.xml": self._manifest(),
        }
        return package(whole, plain=("mimetype",))

    def _example(self, entry: TextEntry) -> None:
        self._heading(entry.kind, "Example")
        if entry.table:
            self.body.append(told(entry.table, self.styles))
        if entry.story:
            self._paragraph(self.body, entry.told, "Standard")
        for drawing in entry.models:
            self._drawing(drawing)
        asked = f"  {entry.asked}" if entry.asked else ""
        self._line(self.body, "", entry.start, asked, entry.voice, "Start" if entry.in_table else "Line")
        if entry.grid is not None:
            self.body.append(squares(entry.grid, self.styles))
        elif entry.parts:
            self._boxes(entry)
        for jotting in entry.jottings:
            self._paragraph(self.body, jotting, "Jotting")
        for line in entry.lines:
            if not entry.in_table:
                self._line_of(self.body, line, entry.voice)
            if line.drawing is not None:
                self._drawing(line.drawing)

    def _boxes(self, entry: TextEntry) -> None:
        table, cells = boxes(len(entry.parts))
        for cell, part in zip(cells, entry.parts, strict=False):
            self._part(cell, part, entry.voice)
        self.body.append(table)

    def _part(self, cell: ET.Element, part: TextBox, voice: Voice) -> None:
        self._paragraph(cell, part.title, "Heading_20_of_20_a_20_box")
        for line in part.lines:
            self._line_of(cell, line, voice)
        for jotting in part.jottings:
            self._paragraph(cell, jotting, "Jotting")

    def _line_of(self, parent: ET.Element, line: TextLine, voice: Voice) -> None:
        self._line(parent, f"{line.sign} ".lstrip(), line.expr, f"   {line.said}" if line.said else "", voice)

    def _line(
        self, parent: ET.Element, before: str, expr: Expr | None, behind: str, voice: Voice, style: str = "Line"
    ) -> None:
        """A line with its formula, or with the room in which pupils write it."""
        if expr is None:
            self._paragraph(parent, f"{before}{ROOM}{behind}", style)
            return
        line = self._paragraph(parent, before, style)
        self._formula(line, expr, voice)
        line[-1].tail = behind

    def _heading(self, said: str, style: str) -> ET.Element:
        return within(self.body, "text:h", {"text:outline-level": "1", "text:style-name": style}, said)

    def _paragraph(self, parent: ET.Element, said: str, style: str) -> ET.Element:
        first, *others = said.splitlines() or [""]
        found = within(parent, "text:p", {"text:style-name": style}, first)
        for other in others:
            within(found, "text:line-break").tail = other
        return found

    def _meta(self) -> bytes:
        root = made("office:document-meta", {"office:version": "1.3"})
        meta = within(root, "office:meta")
        for key, said in (
            ("dc:title", self.title),
            ("meta:initial-creator", self.author),
            ("dc:creator", self.author),
            ("dc:language", "en-US"),
        ):
            if said:
                within(meta, key, said=said)
        return written(root)

    def _formula(self, line: ET.Element, expr: Expr, voice: Voice) -> None:
        self.formulas.append(mathml_with(expr, voice.mark, starmath(expr, voice.mark)).encode())
        number = len(self.formulas)
        width, height = _size(expr)
        frame = _frame(line, f"Formula {number}", "Formula", width / 100, height / 100)
        within(frame, "draw:object", _link(f"./Object {number}"))
        within(frame, "svg:desc", said=voice.text(expr))

    def _drawing(self, drawing: TextPicture) -> None:
        made_of = next(self.drawn)
        self.pictures.append(made_of)
        number = len(self.pictures)
        width = min(drawing.width, 150) / 10
        high = width * int.from_bytes(made_of[20:24], "big") / int.from_bytes(made_of[16:20], "big")  # as its head says
        frame = _frame(self._paragraph(self.body, "", "Picture"), f"Picture {number}", "Formula", width, high)
        within(frame, "draw:image", _link(f"Pictures/{number}.png"))
        within(frame, "svg:desc", said=drawing.alt)
        caption = self._paragraph(self.body, "Figure ", "Caption")
        values = {"text:ref-name": f"refFigure{number}", "text:name": "Figure", "text:formula": "ooow:Figure+1"}
        within(caption, "text:sequence", {**values, "style:num-format": "1"}, str(number)).tail = f". {drawing.caption}"

    def _manifest(self) -> bytes:
        root = made("manifest:manifest", {"manifest:version": "1.3"})
        entries = [("/", TYPE), *[(f"{part}.xml", "text/xml") for part in ("content", "styles", "meta")]]
        for i in range(1, len(self.formulas) + 1):
            entries += [(f"Object {i}/", _FORMULA), (f"Object {i}/content.xml", "text/xml")]
        entries += [(f"Pictures/{i}.png", "image/png") for i in range(1, len(self.pictures) + 1)]
        for path, kind in entries:
            within(root, "manifest:file-entry", {"manifest:full-path": path, "manifest:media-type": kind})
        return written(root)


def _frame(line: ET.Element, called: str, style: str, width: float, height: float) -> ET.Element:
    """What stands in a *line* as a letter does, so many centimetres wide and high."""
    return within(line, "draw:frame", {
        "draw:name": called, "text:anchor-type": "as-char", "draw:style-name": style,
        "svg:width": f"{width:.2f}cm", "svg:height": f"{height:.2f}cm",
    })  # fmt: skip


def _link(to: str) -> dict[str, str]:
    return {"xlink:href": to, "xlink:type": "simple", "xlink:show": "embed", "xlink:actuate": "onLoad"}


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
