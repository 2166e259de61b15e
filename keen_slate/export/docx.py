"""A set as an Office Open XML text (DOCX): every line of a working is an equation that can be edited.

Examples are headings that the program itself numbers, the answers a part of their own; all looks come from styles with
names.
"""

from __future__ import annotations

import io
import xml.etree.ElementTree as ET
from collections.abc import Sequence
from datetime import UTC, datetime

from docx import Document
from docx.document import Document as Text
from docx.enum.style import WD_STYLE_TYPE
from docx.oxml import parse_xml
from docx.oxml.ns import nsdecls
from docx.shared import Pt
from docx.text.paragraph import Paragraph

from keen_slate.core.expressions.tree import Expr
from keen_slate.core.expressions.voice import Voice

from .item import Item
from .omml import omml
from .outline import ROOM, Entry, outline

TYPE = "application/vnd.openxmlformats-officedocument.wordprocessingml.document"
EXAMPLE, LINE, ANSWER = "Example", "Line of a working", "Answer"
_LISTS = {EXAMPLE: 901, ANSWER: 902}  # numbers of our own lists, away from those of the template


def docx(title: str, items: Sequence[Item], author: str = "") -> bytes:
    """The document: a title, each problem under a heading with its working, the answers at the end."""
    made = Document()
    about = made.core_properties
    about.title, about.author, about.language = title, author, "en-US"
    about.created = about.modified = datetime(1980, 1, 1, tzinfo=UTC)  # tells no moment
    _declare(made)
    made.add_heading(title, level=0)
    entries = outline(items)
    for entry in entries:
        _example(made, entry)
    made.add_heading("Answers", level=1).paragraph_format.page_break_before = True
    for entry in entries:
        made.add_paragraph(entry.answer, ANSWER)
    out = io.BytesIO()
    made.save(out)
    return out.getvalue()


def _declare(made: Text) -> None:
    """Our styles, and the lists that number examples and answers."""
    line = made.styles.add_style(LINE, WD_STYLE_TYPE.PARAGRAPH)
    line.base_style = made.styles["Normal"]
    line.paragraph_format.left_indent, line.paragraph_format.space_after = Pt(28), Pt(4)
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


def _example(made: Text, entry: Entry) -> None:
    made.add_paragraph(entry.kind, EXAMPLE)
    if entry.story:
        made.add_paragraph(entry.story)
    first = made.add_paragraph(style=LINE)
    _written(first, entry.start, entry.voice)
    if entry.asked:
        first.add_run(f"  {entry.asked}")
    for line in entry.lines:
        # Before an equation, not in it: some programs take a sign without a left side away.
        paragraph = made.add_paragraph(f"{line.sign} ".lstrip(), LINE)
        _written(paragraph, line.expr, entry.voice)
        if line.said:
            paragraph.add_run(f"   {line.said}").italic = True


def _written(paragraph: Paragraph, expr: Expr | None, voice: Voice) -> None:
    """An equation, or the room in which pupils write it."""
    if expr is None:
        paragraph.add_run(ROOM)
    else:
        paragraph._p.append(parse_xml(ET.tostring(omml(expr, voice.mark))))
