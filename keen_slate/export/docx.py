"""A set as an Office Open XML text (DOCX): every line of a working is an equation that can be edited."""

from __future__ import annotations

import io
import xml.etree.ElementTree as ET
from collections.abc import Sequence
from datetime import UTC, datetime

from docx import Document
from docx.document import Document as Text
from docx.oxml import parse_xml
from docx.text.paragraph import Paragraph

from keen_slate.core.expressions.tree import Expr
from keen_slate.core.expressions.voice import Voice
from keen_slate.core.worked import Worked

from .omml import omml
from .outline import Entry, outline

TYPE = "application/vnd.openxmlformats-officedocument.wordprocessingml.document"


def docx(title: str, examples: Sequence[Worked]) -> bytes:
    """The document: a heading, then each problem with its working and its answer."""
    made = Document()
    made.core_properties.title = title
    made.core_properties.author = ""
    made.core_properties.created = made.core_properties.modified = datetime(1980, 1, 1, tzinfo=UTC)  # tells no moment
    made.add_heading(title, level=1)
    for i, entry in enumerate(outline(examples)):
        _example(made, i + 1, entry)
    out = io.BytesIO()
    made.save(out)
    return out.getvalue()


def _example(made: Text, number: int, entry: Entry) -> None:
    first = made.add_paragraph()
    first.add_run(f"{number}.  ").bold = True
    if entry.story:
        first.add_run(entry.story)
        first = made.add_paragraph()
    _equation(first, entry.start, entry.voice)
    if entry.asked:
        first.add_run(f"  {entry.asked}")
    for line in entry.lines:
        # Before an equation, not in it: some programs take a sign without a left side away.
        paragraph = made.add_paragraph(f"{line.sign} ".lstrip())
        _equation(paragraph, line.expr, entry.voice)
        paragraph.add_run(f"   {line.said}").italic = True
    made.add_paragraph(entry.answer)


def _equation(paragraph: Paragraph, expr: Expr, voice: Voice) -> None:
    paragraph._p.append(parse_xml(ET.tostring(omml(expr, voice.mark))))
