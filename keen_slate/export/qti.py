"""A set as a QTI 3.0 package (the open assessment standard of 1EdTech): an item for each example.

Written from the published structure as remembered, without its schema at hand; docs/formats.md says so.
"""

from __future__ import annotations

import xml.etree.ElementTree as ET
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from keen_slate.core.arithmetic.division import as_decimal
from keen_slate.core.diagnosing.answers import Explainer
from keen_slate.core.diagnosing.choices import choices
from keen_slate.core.documents.verdict import choice_views
from keen_slate.core.documents.working import answer_text, problem_text
from keen_slate.core.expressions.tree import Expr, Frac, Neg, mixed, ratio
from keen_slate.core.reading.problem import labelled
from keen_slate.core.reading.units import counted_in
from keen_slate.core.ways.voices import mark_of, voice_of
from keen_slate.core.worked import Worked

from .notation import NAMESPACE, mathml
from .packages import package

ITEM = "http://www.imsglobal.org/xsd/imsqtiasi_v3p0"
MANIFEST = "http://www.imsglobal.org/xsd/qti/qtiv3p0/imscp_v1p1"
_XML = "http://www.w3.org/XML/1998/namespace"
_RESPONSE, _SCORE, _FEEDBACK, _RIGHT = "RESPONSE", "SCORE", "FEEDBACK", "RIGHT"


@dataclass(frozen=True, slots=True)
class Judged:
    """An answer that is expected: its *texts*, the *identifier* of its feedback, and what the feedback says."""

    texts: tuple[str, ...]
    identifier: str
    said: str


def qti(title: str, examples: Sequence[Worked], points: Sequence[int], to_choose: bool = False) -> bytes:
    """The package: a manifest, a test, and an item for each example, worth its *points*; with four options *to_choose* from."""
    names = [f"item-{i + 1}" for i in range(len(examples))]
    items = {
        f"items/{name}.xml": _document(
            (choice_item if to_choose else item)(name, f"{title}: {i + 1}", worked, points[i]), ITEM
        )
        for i, (name, worked) in enumerate(zip(names, examples, strict=True))
    }
    manifest = _document(_manifest(names), MANIFEST)
    return package({"imsmanifest.xml": manifest, "test.xml": _document(_test(title, names), ITEM), **items})


def expected(worked: Worked) -> list[Judged]:
    """The right answer, with and without its label, then each likely wrong one that is written differently."""
    working = worked.working
    voice = voice_of(working.ways)
    label = working.problem.label
    right = tuple(right_spellings(worked))
    judged = [Judged(right, _RIGHT, "Right.")]
    taken = set(right)
    for found in worked.likely:
        bare = voice.text(found.wrong.answer)
        texts = [
            t
            for t in dict.fromkeys([bare, labelled(bare, label), labelled(bare, counted_in(label, found.wrong.answer))])
            if t not in taken
        ]
        if found.status == "hidden" or not texts:
            continue
        taken.update(texts)
        said = f"{voice.said(found.entry.reason)} {voice.said(found.entry.question)}"
        judged.append(Judged(tuple(texts), found.entry.code, said))
    return judged


def right_spellings(worked: Worked) -> list[str]:
    """The spellings of the right answer that are accepted, the usual one first: all that the core itself takes for right.

    A label may be written, with or without a space, or left to the page.
    """
    working = worked.working
    voice = voice_of(working.ways)
    explainer = Explainer(worked, voice.mark)
    label = working.problem.label
    numbers = [voice.text(one) for one in _forms(working.answer)]
    numbers += [f"{number}{'0' * more}" for number in numbers for more in (1, 2) if voice.mark in number]
    spelled = list(numbers)
    for number in numbers if label else []:
        spelled += [labelled(number, label), f"{number}{label}", f"{number} {label}"]
    spelled = [answer_text(working, voice), *spelled]
    spelled += [one.replace("-", "\u2212") for one in spelled if one.startswith("-")]
    kept = [one for one in dict.fromkeys(spelled) if _is_right(explainer, one)]
    return list(dict.fromkeys([voice.text(working.answer), *kept]))


def _is_right(explainer: Explainer, typed: str) -> bool:
    found = explainer.verdict(typed)
    return found.verdict == "right" or found.form_fault == "label-missing"


def _forms(answer: Expr) -> list[Expr]:
    """The same number in each form that a pupil may give it."""
    inner = answer.inner if isinstance(answer, Neg) else answer
    n, d = ratio(inner)
    forms: list[Expr] = [inner, mixed(Fraction(n, d)), Frac(n, d)]
    decimal = as_decimal(Fraction(n, d))
    forms += [decimal] if decimal is not None else []
    return [Neg(one) if isinstance(answer, Neg) else one for one in forms]


def item(identifier: str, title: str, worked: Worked, points: int) -> ET.Element:
    """One item: the problem, a box for the answer, and feedback for each answer that is expected."""
    judged = expected(worked)
    root = _root(identifier, title)
    response = ET.SubElement(root, "qti-response-declaration", _declared(_RESPONSE, "string"))
    correct = ET.SubElement(response, "qti-correct-response")
    ET.SubElement(correct, "qti-value").text = judged[0].texts[0]
    _outcomes(root)
    _body(root, worked)
    _processing(root, judged, points)
    for one in judged:
        _feedback(root, one.identifier, one.said)
    return root


def choice_item(identifier: str, title: str, worked: Worked, points: int) -> ET.Element:
    """One item: the problem, its four options in order, and feedback for each."""
    problem = worked.working.problem
    options = choice_views(choices(worked), problem.label, voice_of(worked.working.ways))
    root = _root(identifier, title)
    response = ET.SubElement(root, "qti-response-declaration", _declared(_RESPONSE, "identifier"))
    correct = ET.SubElement(response, "qti-correct-response")
    ET.SubElement(correct, "qti-value").text = next(one.label for one in options if one.right)
    _outcomes(root)
    body = ET.SubElement(root, "qti-item-body")
    _ask(body, worked)
    interaction = ET.SubElement(body, "qti-choice-interaction", {"response-identifier": _RESPONSE, "max-choices": "1"})
    condition = ET.SubElement(ET.SubElement(root, "qti-response-processing"), "qti-response-condition")
    for i, one in enumerate(options):
        ET.SubElement(interaction, "qti-simple-choice", {"identifier": one.label, "fixed": "true"}).text = one.answer
        branch = ET.SubElement(condition, "qti-response-if" if i == 0 else "qti-response-else-if")
        match = ET.SubElement(branch, "qti-match")
        ET.SubElement(match, "qti-variable", {"identifier": _RESPONSE})
        ET.SubElement(match, "qti-base-value", {"base-type": "identifier"}).text = one.label
        if one.right:
            _set(branch, _SCORE, "float", str(points))
        _set(branch, _FEEDBACK, "identifier", f"{_FEEDBACK}-{one.label}")
        said = "Right." if one.right else f"{', or '.join(one.names)}. {one.reason}".strip()
        _feedback(root, f"{_FEEDBACK}-{one.label}", said)
    return root


def _root(identifier: str, title: str) -> ET.Element:
    return ET.Element("qti-assessment-item", {
        "identifier": identifier, "title": title, "adaptive": "false", "time-dependent": "false", f"{{{_XML}}}lang": "en",
    })  # fmt: skip


def _outcomes(root: ET.Element) -> None:
    """The score, 0 to begin with, and which feedback is shown."""
    score = ET.SubElement(root, "qti-outcome-declaration", _declared(_SCORE, "float"))
    ET.SubElement(ET.SubElement(score, "qti-default-value"), "qti-value").text = "0"
    ET.SubElement(root, "qti-outcome-declaration", _declared(_FEEDBACK, "identifier"))


def _feedback(root: ET.Element, identifier: str, said: str) -> None:
    feedback = ET.SubElement(root, "qti-modal-feedback", {
        "outcome-identifier": _FEEDBACK, "identifier": identifier, "show-hide": "show",
    })  # fmt: skip
    ET.SubElement(ET.SubElement(feedback, "qti-content-body"), "p").text = said


def _ask(body: ET.Element, worked: Worked) -> None:
    """The problem: a story as it is told, another as MathML."""
    if worked.working.parts:
        for told in problem_text(worked.working, voice_of(worked.working.ways)).split("\n"):
            ET.SubElement(body, "p").text = told
    else:
        ET.SubElement(body, "p").append(_shown(worked))


def _shown(worked: Worked) -> ET.Element:
    """The problem as MathML, with its words."""
    problem = worked.working.problem
    shown = ET.fromstring(mathml(problem.expr, mark_of(worked.working.ways)))
    for one in shown.iter():  # in its own namespace without a prefix, which readers of HTML do not know
        one.tag = one.tag.removeprefix(f"{{{NAMESPACE}}}")
    shown.set("xmlns", NAMESPACE)
    shown.set("alttext", voice_of(worked.working.ways).words(problem.expr))
    return shown


def _declared(identifier: str, base: str) -> dict[str, str]:
    return {"identifier": identifier, "cardinality": "single", "base-type": base}


def _body(root: ET.Element, worked: Worked) -> None:
    problem = worked.working.problem
    body = ET.SubElement(root, "qti-item-body")
    _ask(body, worked)
    answer = ET.SubElement(body, "p")
    ET.SubElement(answer, "qti-text-entry-interaction", {"response-identifier": _RESPONSE, "expected-length": "12"})
    if problem.label:
        answer[0].tail = f" {problem.label}"


def _processing(root: ET.Element, judged: Sequence[Judged], points: int) -> None:
    condition = ET.SubElement(ET.SubElement(root, "qti-response-processing"), "qti-response-condition")
    for i, one in enumerate(judged):
        branch = ET.SubElement(condition, "qti-response-if" if i == 0 else "qti-response-else-if")
        tests = ET.SubElement(branch, "qti-or") if len(one.texts) > 1 else branch
        for written in one.texts:
            match = ET.SubElement(tests, "qti-string-match", {"case-sensitive": "false"})
            ET.SubElement(match, "qti-variable", {"identifier": _RESPONSE})
            ET.SubElement(match, "qti-base-value", {"base-type": "string"}).text = written
        if one.identifier == _RIGHT:
            _set(branch, _SCORE, "float", str(points))
        _set(branch, _FEEDBACK, "identifier", one.identifier)


def _set(branch: ET.Element, outcome: str, base: str, value: str) -> None:
    put = ET.SubElement(branch, "qti-set-outcome-value", {"identifier": outcome})
    ET.SubElement(put, "qti-base-value", {"base-type": base}).text = value


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


def _manifest(names: Sequence[str]) -> ET.Element:
    root = ET.Element("manifest", {"identifier": "keen-slate-set"})
    about = ET.SubElement(root, "metadata")
    ET.SubElement(about, "schema").text = "QTI Package"
    ET.SubElement(about, "schemaversion").text = "3.0.0"
    ET.SubElement(root, "organizations")
    resources = ET.SubElement(root, "resources")
    test = _resource(resources, "test", "imsqti_test_xmlv3p0", "test.xml")
    for name in names:
        ET.SubElement(test, "dependency", {"identifierref": name})
        _resource(resources, name, "imsqti_item_xmlv3p0", f"items/{name}.xml")
    return root


def _resource(resources: ET.Element, identifier: str, kind: str, address: str) -> ET.Element:
    found = ET.SubElement(resources, "resource", {"identifier": identifier, "type": kind, "href": address})
    ET.SubElement(found, "file", {"href": address})
    return found


def _document(root: ET.Element, namespace: str) -> bytes:
    root.set("xmlns", namespace)
    return bytes(ET.tostring(root, encoding="utf-8", xml_declaration=True))
