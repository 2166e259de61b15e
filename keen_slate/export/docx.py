"""A set as an Office Open XML text (DOCX): every line of a working is an equation that can be edited.

Examples are headings that the program itself numbers, the answers a part of their own, pictures have captions, squares
and boxes are tables; all looks come from styles with names.
"""

from __future__ import annotations

import io
import xml.etree.ElementTree as ET
from collections.abc import Iterator, Sequence
from datetime import UTC, datetime
from pathlib import Path

from docx import Document
from docx.document import Document as Text
from docx.enum.style import WD_STYLE_TYPE
from docx.oxml import parse_xml
from docx.oxml.ns import nsdecls
from docx.shared import Mm, Pt, RGBColor
from docx.table import Table, _Cell
from docx.text.paragraph import Paragraph

from keen_slate.core.expressions.tree import Expr
from keen_slate.core.expressions.voice import Voice

from .docx_table import squares, told
from .item import Item
from .omml import omml
from .outline import ROOM, TextBox, TextEntry, TextLine, TextPicture, outline
from .typesetting import drawings

TYPE = "application/vnd.openxmlformats-officedocument.wordprocessingml.document"
EXAMPLE, LINE, ANSWER, JOTTING, CAPTION = "Example", "Line of a working", "Answer", "Jotting", "Caption"
_LISTS = {EXAMPLE: 901, ANSWER: 902}  # numbers of our own lists, away from those of the template


def docx(title: str, items: Sequence[Item], author: str = "", typefaces: Path | None = None) -> bytes:
    """The document: a title, each problem under a heading with its working, the answers at the end.

    With pictures where the folder of the *typefaces* is given that their labels are set in.
    """
    return _DocxWriter(title, items, author, typefaces).file()


class _DocxWriter:
    def __init__(self, title: str, items: Sequence[Item], author: str, typefaces: Path | None) -> None:
        self.made = Document()
        about = self.made.core_properties
        about.title, about.author, about.language = title, author, "en-US"
        about.created = about.modified = datetime(1980, 1, 1, tzinfo=UTC)  # tells no moment
        _declare(self.made)
        entries = outline(items, pictures=typefaces is not None)
        every = [(one.svg, one.width) for entry in entries for one in entry.drawings]
        self.pictures: Iterator[bytes] = iter(drawings(every, typefaces) if typefaces else [])
        self.figures = 0
        self.made.add_heading(title, level=0)
        for entry in entries:
            self._example(entry)
        self.made.add_heading("Answers", level=1).paragraph_format.page_break_before = True
        for entry in entries:
            self.made.add_paragraph(entry.answer, ANSWER)

    def file(self) -> bytes:
        out = io.BytesIO()
        self.made.save(out)
        return out.getvalue()

    def _example(self, entry: TextEntry) -> None:
        self.made.add_paragraph(entry.kind, EXAMPLE)
        if entry.table:
            self._table(told(entry.table))
        if entry.story:
            self.made.add_paragraph(entry.told)
        for drawing in entry.models:
            self._drawing(drawing)
        first = self.made.add_paragraph(style=LINE)
        _written(first, entry.start, entry.voice)
        if entry.asked:
            first.add_run(f"  {entry.asked}")
        if entry.grid is not None:
            self._table(squares(entry.grid))
        elif entry.parts:
            self._parts(entry)
        first.paragraph_format.keep_with_next = entry.in_table
        for jotting in entry.jottings:
            self.made.add_paragraph(jotting, JOTTING)
        for line in entry.lines:
            if not entry.in_table:
                _line(self.made.add_paragraph(style=LINE), line, entry.voice)
            if line.drawing is not None:
                self._drawing(line.drawing)

    def _table(self, xml: str) -> Table:
        """A table, with an empty line behind it that keeps it from what follows."""
        element = parse_xml(xml)
        behind = self.made.add_paragraph()
        behind.paragraph_format.space_after = Pt(2)
        behind._p.addprevious(element)
        return Table(element, self.made._body)

    def _parts(self, entry: TextEntry) -> None:
        """Boxes, two beside each other."""
        made = self.made.add_table((len(entry.parts) + 1) // 2, 2, "Table Grid")
        cells = [cell for row in made.rows for cell in row.cells]
        for cell, part in zip(cells, entry.parts, strict=False):
            _part(cell, part, entry.voice)
        self.made.add_paragraph()

    def _drawing(self, drawing: TextPicture) -> None:
        holder = self.made.add_paragraph()
        holder.paragraph_format.keep_with_next = True
        picture = holder.add_run().add_picture(io.BytesIO(next(self.pictures)), width=Mm(min(drawing.width, 150)))
        picture._inline.docPr.set("descr", drawing.alt)
        self.figures += 1
        caption = self.made.add_paragraph("Figure ", CAPTION)
        field = f'<w:fldSimple {nsdecls("w")} w:instr=" SEQ Figure "><w:r><w:t>{self.figures}</w:t></w:r></w:fldSimple>'
        caption._p.append(parse_xml(field))
        caption.add_run(f". {drawing.caption}")


def _declare(made: Text) -> None:
    """Our styles, and the lists that number examples and answers."""
    for name, indent in ((LINE, 28), (JOTTING, 42)):
        line = made.styles.add_style(name, WD_STYLE_TYPE.PARAGRAPH)
        line.base_style = made.styles["Normal"]
        line.paragraph_format.left_indent, line.paragraph_format.space_after = Pt(indent), Pt(4)
    made.styles[CAPTION].font.color.rgb = RGBColor(0x3C, 0x48, 0x50)
    numbering = made.part.numbering_part.element
    for name, base in ((EXAMPLE, "Heading 1"), (ANSWER, "Normal")):
        style = made.styles.add_style(name, WD_STYLE_TYPE.PARAGRAPH)
        style.base_style = made.styles[base]
        number = _LISTS[name]
        style.element.get_or_add_pPr().append(
            parse_xml(f'<w:numPr {nsdecls("w")}><w:numId w:val="{number}"/></w:numPr>')
        )
        counted = (
            f'<w:abstractNum {nsdecls("w")} w:abstractNumId="{number}"><w:multiLevelType w:val="singleLevel"/>'
            f'<w:lvl w:ilvl="0"><w:start w:val="1"/><w:numFmt w:val="decimal"/><w:pStyle w:val="{name}"/>'
            '<w:lvlText w:val="%1."/><w:lvlJc w:val="left"/><w:pPr><w:ind w:left="560" '
            'w:hanging="560"/></w:pPr></w:lvl></w:abstractNum>'
        )
        numbering.insert(0, parse_xml(counted))  # those come before the lists that use them
        numbering.append(
            parse_xml(f'<w:num {nsdecls("w")} w:numId="{number}"><w:abstractNumId w:val="{number}"/></w:num>')
        )


def _part(cell: _Cell, part: TextBox, voice: Voice) -> None:
    cell.paragraphs[0].add_run(part.title).bold = True
    for line in part.lines:
        _line(cell.add_paragraph(style=LINE), line, voice)
    for jotting in part.jottings:
        cell.add_paragraph(jotting, JOTTING)


def _line(paragraph: Paragraph, line: TextLine, voice: Voice) -> None:
    # The sign stands before an equation, not in it: some programs take a sign without a left side away.
    paragraph.add_run(f"{line.sign} ".lstrip())
    _written(paragraph, line.expr, voice)
    if line.said:
        paragraph.add_run(f"   {line.said}").italic = True


def _written(paragraph: Paragraph, expr: Expr | None, voice: Voice) -> None:
    """An equation, or the room in which pupils write it."""
    if expr is None:
        paragraph.add_run(ROOM)
    else:
        paragraph._p.append(parse_xml(ET.tostring(omml(expr, voice.mark))))
