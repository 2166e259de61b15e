"""A set as an OpenDocument text: every line of a working is a formula that can be edited."""

from __future__ import annotations

import xml.etree.ElementTree as ET
from collections.abc import Sequence

from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import Expr
from keen_slate.core.expressions.voice import Voice
from keen_slate.core.worked import Worked

from .notation import mathml_with
from .outline import Entry, outline
from .packages import package
from .starmath import starmath

TYPE = "application/vnd.oasis.opendocument.text"
_FORMULA = "application/vnd.oasis.opendocument.formula"
_OASIS = "urn:oasis:names:tc:opendocument:xmlns:"
SPACES = {
    "office": f"{_OASIS}office:1.0", "text": f"{_OASIS}text:1.0", "draw": f"{_OASIS}drawing:1.0", "manifest": f"{_OASIS}manifest:1.0",
    "svg": f"{_OASIS}svg-compatible:1.0", "xlink": "http://www.w3.org/1999/xlink",
}  # fmt: skip


def odt(title: str, examples: Sequence[Worked]) -> bytes:
    """The document: a heading, then each problem with its working and its answer."""
    return _Writer(title, examples).file()


class _Writer:
    def __init__(self, title: str, examples: Sequence[Worked]) -> None:
        for prefix, address in SPACES.items():
            ET.register_namespace(prefix, address)
        self.formulas: list[bytes] = []
        self.root = ET.Element(_name("office:document-content"), {_name("office:version"): "1.3"})
        self.body = ET.SubElement(ET.SubElement(self.root, _name("office:body")), _name("office:text"))
        self._heading(1, title)
        for i, entry in enumerate(outline(examples)):
            self._example(i + 1, entry)

    def file(self) -> bytes:
        """All parts of the package; the type stands first and plain, so that it is known by its first bytes."""
        parts = {f"Object {i + 1}/content.xml": made for i, made in enumerate(self.formulas)}
        whole = {
            "mimetype": TYPE.encode(),
            "content.xml": _bytes(self.root),
            **parts,
            "META-INF/manifest.xml": self._manifest(),
        }
        return package(whole, plain=("mimetype",))

    def _example(self, number: int, entry: Entry) -> None:
        line = self._paragraph(f"{number}.  {entry.story}")
        if entry.story:
            line = self._paragraph("")
        self._formula(line, entry.start, entry.voice)
        if entry.asked:
            line[-1].tail = f"  {entry.asked}"
        for one in entry.lines:
            line = self._paragraph(f"{one.sign} ".lstrip())
            self._formula(line, one.expr, entry.voice)
            line[-1].tail = f"   {one.said}"
        self._paragraph(entry.answer)

    def _heading(self, level: int, said: str) -> None:
        ET.SubElement(self.body, _name("text:h"), {_name("text:outline-level"): str(level)}).text = said

    def _paragraph(self, said: str) -> ET.Element:
        found = ET.SubElement(self.body, _name("text:p"))
        found.text = said
        return found

    def _formula(self, line: ET.Element, expr: Expr, voice: Voice) -> None:
        self.formulas.append(mathml_with(expr, voice.mark, starmath(expr, voice.mark)).encode())
        number = len(self.formulas)
        frame = ET.SubElement(line, _name("draw:frame"), {
            _name("draw:name"): f"Formula {number}", _name("text:anchor-type"): "as-char",
            _name("svg:width"): f"{max(1, len(text(expr))) * 0.21:.2f}cm", _name("svg:height"): "0.95cm",
        })  # fmt: skip
        link = {"href": f"./Object {number}", "type": "simple", "show": "embed", "actuate": "onLoad"}
        ET.SubElement(frame, _name("draw:object"), {_name(f"xlink:{name}"): value for name, value in link.items()})
        ET.SubElement(frame, _name("svg:desc")).text = voice.text(expr)

    def _manifest(self) -> bytes:
        root = ET.Element(_name("manifest:manifest"), {_name("manifest:version"): "1.3"})
        entries = [("/", TYPE), ("content.xml", "text/xml")]
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


def _bytes(root: ET.Element) -> bytes:
    return bytes(ET.tostring(root, encoding="utf-8", xml_declaration=True))
