"""A set as a QTI package (the open assessment standard of 1EdTech), of version 3.0 or 2.1: an item for each example
that can be one.

Written from the published structure as remembered, without its schema at hand; docs/formats.md says so.
"""

from __future__ import annotations

import xml.etree.ElementTree as ET
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Literal

from keen_slate.core.documents.working import problem_text
from keen_slate.core.ways.voices import voice_of
from keen_slate.core.worked import Worked

from .packages import package
from .qti_items import any_item

Version = Literal["3.0", "2.1"]
LEFT_OUT = "left-out.txt"


@dataclass(frozen=True, slots=True)
class Kind:
    """How a version spells its documents: their namespaces, the types of its resources, and how a tree of 3.0 is turned
    into its own.
    """

    item: str
    manifest: str
    schema: str
    schema_version: str
    of_item: str
    of_test: str
    turned: Callable[[ET.Element], ET.Element]


def _camel(name: str) -> str:
    first, *rest = name.removeprefix("qti-").split("-")
    return first + "".join([part.capitalize() for part in rest])


def _older(root: ET.Element) -> ET.Element:
    """A tree of 3.0 as 2.1 has it: its own elements in camel case, without a prefix, and no body within a feedback."""
    made = ET.Element(_camel(root.tag) if root.tag.startswith("qti-") else root.tag)
    ours = root.tag.startswith("qti-")
    made.attrib.update(
        {
            _camel(name.removeprefix("aria-")) if ours and "}" not in name else name: value
            for name, value in root.attrib.items()
        }
    )
    made.text, made.tail = root.text, root.tail
    for child in root:
        turned = _older(child)
        if child.tag == "qti-content-body":
            made.extend(list(turned))
        else:
            made.append(turned)
    return made


KINDS: dict[Version, Kind] = {
    "3.0": Kind(
        "http://www.imsglobal.org/xsd/imsqtiasi_v3p0", "http://www.imsglobal.org/xsd/qti/qtiv3p0/imscp_v1p1",
        "QTI Package", "3.0.0", "imsqti_item_xmlv3p0", "imsqti_test_xmlv3p0", lambda root: root,
    ),
    "2.1": Kind(
        "http://www.imsglobal.org/xsd/imsqti_v2p1", "http://www.imsglobal.org/xsd/imscp_v1p1",
        "QTIv2.1 Package", "1.0.0", "imsqti_item_xmlv2p1", "imsqti_test_xmlv2p1", _older,
    ),
}  # fmt: skip


def qti(
    title: str, examples: Sequence[Worked], points: Sequence[int], to_choose: bool = False, version: Version = "3.0"
) -> bytes:
    """The package: a manifest, a test, and an item for each example, worth its *points*; with four options *to_choose*
    from.

    Examples that can be no item, for they have many answers, are named in a text that lies beside.
    """
    kind = KINDS[version]
    made = [
        (f"item-{i}", any_item(f"item-{i}", f"{title}: {i}", worked, points[i - 1], to_choose))
        for i, worked in enumerate(examples, 1)
    ]
    names = [name for name, item in made if item is not None]
    items = {f"items/{name}.xml": _document(kind.turned(item), kind.item) for name, item in made if item is not None}
    left_out = [
        f"{i}. {problem_text(worked.working, voice_of(worked.working.ways))}"
        for i, worked in enumerate(examples, 1) if made[i - 1][1] is None
    ]  # fmt: skip
    more = {LEFT_OUT: ("\n".join(["Not among the items, for they have more than one answer:", *left_out, ""])).encode()}
    manifest = _document(_manifest(names, kind, bool(left_out)), kind.manifest)
    test = _document(kind.turned(_test(title, names)), kind.item)
    return package({"imsmanifest.xml": manifest, "test.xml": test, **items, **(more if left_out else {})})


def _test(title: str, names: Sequence[str]) -> ET.Element:
    root = ET.Element("qti-assessment-test", {"identifier": "test", "title": title})
    part = ET.SubElement(root, "qti-test-part", {
        "identifier": "part", "navigation-mode": "nonlinear", "submission-mode": "individual",
    })  # fmt: skip
    section = ET.SubElement(
        part, "qti-assessment-section", {"identifier": "section", "title": title, "visible": "true"}
    )
    for name in names:
        ET.SubElement(section, "qti-assessment-item-ref", {"identifier": f"ref-{name}", "href": f"items/{name}.xml"})
    return root


def _manifest(names: Sequence[str], kind: Kind, some_left_out: bool) -> ET.Element:
    root = ET.Element("manifest", {"identifier": "keen-slate-set"})
    about = ET.SubElement(root, "metadata")
    ET.SubElement(about, "schema").text = kind.schema
    ET.SubElement(about, "schemaversion").text = kind.schema_version
    ET.SubElement(root, "organizations")
    resources = ET.SubElement(root, "resources")
    test = _resource(resources, "test", kind.of_test, "test.xml")
    for name in names:
        ET.SubElement(test, "dependency", {"identifierref": name})
        _resource(resources, name, kind.of_item, f"items/{name}.xml")
    if some_left_out:
        _resource(resources, "left-out", "webcontent", LEFT_OUT)
    return root


def _resource(resources: ET.Element, identifier: str, kind: str, address: str) -> ET.Element:
    found = ET.SubElement(resources, "resource", {"identifier": identifier, "type": kind, "href": address})
    ET.SubElement(found, "file", {"href": address})
    return found


def _document(root: ET.Element, namespace: str) -> bytes:
    root.set("xmlns", namespace)
    return bytes(ET.tostring(root, encoding="utf-8", xml_declaration=True))
