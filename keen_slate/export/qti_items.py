"""Items of QTI 3.0: a problem with a box for its answer, with four options, or with a box for each blank."""

from __future__ import annotations

import xml.etree.ElementTree as ET
from collections.abc import Sequence

from keen_slate.core.diagnosing.choices import choices
from keen_slate.core.documents.asked import form_that_counts, task_of
from keen_slate.core.documents.verdict import ChoiceView, choice_views
from keen_slate.core.documents.working import problem_text
from keen_slate.core.expressions.tree import Equation
from keen_slate.core.ways.voices import mark_of, voice_of
from keen_slate.core.worked import Worked

from .expected import RIGHT, ExpectedAnswer, Gap, expected, gaps
from .notation import NAMESPACE, mathml

_XML = "http://www.w3.org/XML/1998/namespace"
_RESPONSE, _SCORE, _FEEDBACK = "RESPONSE", "SCORE", "FEEDBACK"


def any_item(identifier: str, title: str, worked: Worked, points: int, to_choose: bool) -> ET.Element | None:
    """The item of a problem; None where none can judge its answers: there are many, or no options to choose from."""
    if to_choose:
        options = choice_views(choices(worked), worked.working.problem.label, voice_of(worked.working.ways))
        return choice_item(identifier, title, worked, points, options) if options else None
    if isinstance(worked.working.answer, Equation) or len(worked.working.answers) > 1:
        blanks = gaps(worked)
        return gap_item(identifier, title, worked, points, blanks) if blanks else None
    return item(identifier, title, worked, points)


def item(identifier: str, title: str, worked: Worked, points: int) -> ET.Element:
    """One item: the problem, a box for the answer, and feedback for each answer that is expected."""
    judged = expected(worked)
    root = _root(identifier, title)
    _response(root, _RESPONSE, "string", judged[0].texts[0])
    _outcomes(root)
    body = _body(root, worked)
    answer = ET.SubElement(body, "p")
    answer.text = f"{_prompt(worked)}: "
    _entry(answer, _RESPONSE, "Answer")
    if worked.working.problem.label:
        answer[0].tail = f" {worked.working.problem.label}"
    condition = _condition(root)
    for i, one in enumerate(judged):
        branch = _branch(condition, i)
        _matches(branch, _RESPONSE, one.texts, one.pattern)
        _judge(branch, one, points)
    for one in judged:
        _feedback(root, one.identifier, one.said)
    return root


def gap_item(identifier: str, title: str, worked: Worked, points: int, wanted: Sequence[Gap]) -> ET.Element:
    """One item: the equation, a box for each of its blanks in their order (what is *wanted* in each), and feedback
    where all are right.
    """
    root = _root(identifier, title)
    names = [f"{_RESPONSE}{i + 1}" for i in range(len(wanted))]
    for name, gap in zip(names, wanted, strict=True):
        _response(root, name, "string", gap.texts[0])
    _outcomes(root)
    body = _body(root, worked)
    for i, name in enumerate(names):
        answer = ET.SubElement(body, "p")
        called = f"Blank {i + 1}" if len(names) > 1 else "The blank"
        answer.text = f"{called}: "
        _entry(answer, name, called)
    branch = _branch(_condition(root), 0)
    every = ET.SubElement(branch, "qti-and") if len(names) > 1 else branch
    for name, gap in zip(names, wanted, strict=True):
        _matches(every, name, gap.texts, gap.pattern)
    right = ExpectedAnswer((), "", RIGHT, "Right.")
    _judge(branch, right, points)
    _feedback(root, right.identifier, right.said)
    return root


def choice_item(identifier: str, title: str, worked: Worked, points: int, options: Sequence[ChoiceView]) -> ET.Element:
    """One item: the problem, its *options* in order, and feedback for each."""
    root = _root(identifier, title)
    _response(root, _RESPONSE, "identifier", next(one.label for one in options if one.right))
    _outcomes(root)
    body = _body(root, worked)
    interaction = ET.SubElement(body, "qti-choice-interaction", {"response-identifier": _RESPONSE, "max-choices": "1"})
    ET.SubElement(interaction, "qti-prompt").text = "Which one is right?"
    condition = _condition(root)
    for i, one in enumerate(options):
        ET.SubElement(interaction, "qti-simple-choice", {"identifier": one.label, "fixed": "true"}).text = one.answer
        branch = _branch(condition, i)
        _match(branch, "qti-match", _RESPONSE, "identifier", one.label)
        if one.right:
            _set(branch, _SCORE, "float", str(points))
        _set(branch, _FEEDBACK, "identifier", f"{_FEEDBACK}-{one.label}")
        said = "Right." if one.right else f"One way to this answer: {', or '.join(one.names)}. {one.reason}".strip()
        _feedback(root, f"{_FEEDBACK}-{one.label}", said)
    return root


# The parts of an item, in the order that the standard gives them -----------------------------------------------------


def _root(identifier: str, title: str) -> ET.Element:
    return ET.Element("qti-assessment-item", {
        "identifier": identifier, "title": title, "adaptive": "false", "time-dependent": "false",
        f"{{{_XML}}}lang": "en",
    })  # fmt: skip


def _response(root: ET.Element, name: str, base: str, right: str) -> None:
    response = ET.SubElement(root, "qti-response-declaration", _declared(name, base))
    ET.SubElement(ET.SubElement(response, "qti-correct-response"), "qti-value").text = right


def _outcomes(root: ET.Element) -> None:
    """The score, 0 to begin with, and which feedback is shown."""
    score = ET.SubElement(root, "qti-outcome-declaration", _declared(_SCORE, "float"))
    ET.SubElement(ET.SubElement(score, "qti-default-value"), "qti-value").text = "0"
    ET.SubElement(root, "qti-outcome-declaration", _declared(_FEEDBACK, "identifier"))


def _declared(identifier: str, base: str) -> dict[str, str]:
    return {"identifier": identifier, "cardinality": "single", "base-type": base}


def _body(root: ET.Element, worked: Worked) -> ET.Element:
    """The problem: a story as it is told, another as MathML."""
    body = ET.SubElement(root, "qti-item-body")
    if worked.working.parts:
        for told in problem_text(worked.working, voice_of(worked.working.ways)).split("\n"):
            ET.SubElement(body, "p").text = told
    else:
        shown = ET.SubElement(body, "p")
        if task := voice_of(worked.working.ways).said(task_of(worked.working)):
            shown.text = f"{task}: "
        shown.append(_shown(worked))
    return body


def _shown(worked: Worked) -> ET.Element:
    """The problem as MathML, with its words."""
    problem = worked.working.problem
    shown = ET.fromstring(mathml(problem.expr, mark_of(worked.working.ways)))
    for one in shown.iter():  # in its own namespace without a prefix, which readers of HTML do not know
        one.tag = one.tag.removeprefix(f"{{{NAMESPACE}}}")
    shown.set("xmlns", NAMESPACE)
    shown.set("alttext", voice_of(worked.working.ways).words(problem.expr))
    return shown


def _prompt(worked: Worked) -> str:
    """What stands before the box for the answer: the form in which it counts, where form counts."""
    form = form_that_counts(worked.working)
    return voice_of(worked.working.ways).said(f"Answer, {form}" if form else "Answer")


def _entry(answer: ET.Element, name: str, called: str) -> None:
    """A box for an answer, with the name that a screen reader says."""
    box = {"response-identifier": name, "expected-length": "12", "aria-label": called}
    ET.SubElement(answer, "qti-text-entry-interaction", box)


def _condition(root: ET.Element) -> ET.Element:
    return ET.SubElement(ET.SubElement(root, "qti-response-processing"), "qti-response-condition")


def _branch(condition: ET.Element, i: int) -> ET.Element:
    return ET.SubElement(condition, "qti-response-if" if i == 0 else "qti-response-else-if")


def _matches(branch: ET.Element, name: str, texts: Sequence[str], pattern: str) -> None:
    """One of *texts*, or what has the *pattern*: readers that know no patterns have the usual spellings."""
    tests = ET.SubElement(branch, "qti-or") if len(texts) + bool(pattern) > 1 else branch
    for written in texts:
        _match(tests, "qti-string-match", name, "string", written).set("case-sensitive", "true")
    if pattern:
        match = ET.SubElement(tests, "qti-pattern-match", {"pattern": pattern})
        ET.SubElement(match, "qti-variable", {"identifier": name})


def _match(branch: ET.Element, kind: str, name: str, base: str, value: str) -> ET.Element:
    match = ET.SubElement(branch, kind)
    ET.SubElement(match, "qti-variable", {"identifier": name})
    ET.SubElement(match, "qti-base-value", {"base-type": base}).text = value
    return match


def _judge(branch: ET.Element, one: ExpectedAnswer, points: int) -> None:
    if one.identifier == RIGHT:
        _set(branch, _SCORE, "float", str(points))
    _set(branch, _FEEDBACK, "identifier", one.identifier)


def _set(branch: ET.Element, outcome: str, base: str, value: str) -> None:
    put = ET.SubElement(branch, "qti-set-outcome-value", {"identifier": outcome})
    ET.SubElement(put, "qti-base-value", {"base-type": base}).text = value


def _feedback(root: ET.Element, identifier: str, said: str) -> None:
    feedback = ET.SubElement(root, "qti-modal-feedback", {
        "outcome-identifier": _FEEDBACK, "identifier": identifier, "show-hide": "show",
    })  # fmt: skip
    ET.SubElement(ET.SubElement(feedback, "qti-content-body"), "p").text = said
