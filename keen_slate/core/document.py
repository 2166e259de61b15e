"""A worked problem as a document: what the command line prints and the HTTP API returns.

`working_document` is the published format (docs/formats.md). `working_view` adds what a screen needs to
draw it: typeset pieces, rows in squares, figures.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Mapping
from dataclasses import asdict, dataclass, field
from fractions import Fraction
from typing import Any

from .estimate import Estimate, estimate, mixed
from .features import Features, features
from .figures import bars
from .figures.display import Figure
from .kinds import KIND_NAMES
from .layouts.boxes import Box, checklist, four_box
from .layouts.cells import Row
from .layouts.line import line
from .layouts.stacked import stacked
from .lexing import DecimalMark
from .methods import work
from .methods.single import converting
from .misconceptions import Found, find
from .reading import labelled, read
from .surprises import surprises
from .vocabulary import saying
from .ways import Ways
from .wording import Glyph, glyphs, plain, spoken, text, typeset, words
from .working import Step, Working

Say = Callable[[str], str]

FORMAT = "keen-slate/working"
VERSION = 1


@dataclass(frozen=True, slots=True)
class Worked:
    """A working with everything that is derived from it."""

    working: Working
    estimate: Estimate
    found: list[Found]
    features: Features
    surprises: list[str]


def work_text(
    source: str, ways: Ways | None = None, mark: DecimalMark | None = None, target: str | None = None
) -> Worked:
    """Read *source* and work it in *ways*; with a *target*, convert it to that form. Raises `CoreError`.

    The decimal *mark* is that of the *ways*, unless one is given (stored texts have a point).

    >>> work_text("1/2 + 1/3").working.answer_text
    '5/6'
    """
    ways = ways or Ways()
    problem = read(source, mark or mark_of(ways))
    working = work(converting(problem, target) if target else problem, ways)
    about = estimate(working)
    found = find(working, about)
    facts = features(working)
    return Worked(working, about, found, facts, surprises(working, facts, found))


def mark_of(ways: Ways) -> DecimalMark:
    """The decimal mark that the class writes."""
    return "," if ways.decimal_mark == "comma" else "."


def exact(number: Fraction) -> str:
    """A value as "n/d" in lowest terms, wholes as "n/1".

    >>> exact(Fraction(-6, 4)), exact(Fraction(3))
    ('-3/2', '3/1')
    """
    return f"{number.numerator}/{number.denominator}"


def step_spoken(step: Step, say: Say) -> str:
    """What the teacher says at a step: its title in the class's words (*say*), and its result in words."""
    return f"{say(spoken(step.title))} That makes {words(step.after)}."


def _steps(working: Working, say: Say) -> list[dict[str, Any]]:
    # Each step begins with the text that the one before it ended in.
    before = say(text(working.problem.expr))
    shown = []
    for step in working.steps:
        shown.append(_step(step, before, say))
        before = shown[-1]["after"]
    return shown


def working_document(worked: Worked) -> dict[str, Any]:
    """The published document of a worked problem; values as exact fractions in text."""
    working, problem = worked.working, worked.working.problem
    say = saying(working.ways)
    return {
        "format": FORMAT,
        "version": VERSION,
        "problem": {"text": say(problem.text), "kind": problem.kind, "label": problem.label},
        "answer": {"text": say(working.answer_text), "value": exact(working.value)},
        "methods": working.ways.as_dict(),
        "steps": _steps(working, say),
        "estimate": _estimate(worked.estimate, say),
        "misconceptions": [_found(found, problem.label, say) for found in worked.found],
        "features": {name: getattr(worked.features, name) for name in Features.__slots__},
        "surprises": [say(sentence) for sentence in worked.surprises],
    }


def _step(step: Step, before: str, say: Say) -> dict[str, Any]:
    return {
        "kind": step.kind,
        "title": say(plain(step.title)),
        "before": before,
        "after": say(text(step.after)),
        "reason": say(plain(step.reason)),
        "spoken": step_spoken(step, say),
        "lines": [say(plain(rich)) for rich in step.lines],
    }


def _estimate(about: Estimate, say: Say) -> dict[str, Any]:
    return {
        "rule": about.rule,
        "rounded": [say(text(number)) for number in about.rounded],
        "value": exact(about.total),
        "bound": exact(about.bound),
        "within": about.within,
        "ties": list(about.ties),
        "text": say(f"{about.sentence} {plain(about.tie)}".strip()),
    }


def _found(found: Found, label: str | None, say: Say) -> dict[str, Any]:
    return {
        "code": found.entry.code,
        "answer": say(labelled(text(found.wrong.answer), label)),
        "value": exact(found.answer_value),
        "status": found.status,
        "caught_by_estimate": found.caught_by_estimate,
        "same_as": list(found.same_as),
        "lines": [say(plain(rich)) for rich in found.wrong.lines],
        "reason": say(found.entry.reason),
        "question": say(found.entry.question),
    }


# What a screen needs besides -------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class TeachersWords:
    """Sentences that a teacher put in the place of the core's own.

    *example* maps the key of a step (its kind, and the how-manieth of that kind from 0), *set* its kind alone; what
    is said aloud has " spoken" after it. A key stays with its step when the way of working changes.
    """

    example: Mapping[str, str] = field(default_factory=dict)
    set: Mapping[str, str] = field(default_factory=dict)

    def find(self, kind: str, key: str, suffix: str) -> tuple[str | None, str]:
        """The teacher's sentence and where it comes from: "example", "set", or "" where there is none."""
        if (sentence := self.example.get(key + suffix)) is not None:
            return sentence, "example"
        if (sentence := self.set.get(kind + suffix)) is not None:
            return sentence, "set"
        return None, ""


def working_view(worked: Worked, edited: TeachersWords | None = None) -> dict[str, Any]:
    """The document with typeset pieces, rows in squares and figures; *edited* sentences replace the core's own."""
    working = worked.working
    say = saying(working.ways)
    view = working_document(worked)
    view["problem"] |= {
        "kind_name": say(KIND_NAMES[working.problem.kind]),
        "glyphs": in_words(glyphs(working.problem.expr, working.problem_roles), say),
    }
    view["answer"] |= {"glyphs": in_words(glyphs(working.answer), say)}
    view |= _layout(working)
    seen: Counter[str] = Counter()
    for step, shown in zip(working.steps, view["steps"], strict=True):
        shown["key"] = f"{step.kind} {seen[step.kind]}"
        seen[step.kind] += 1
        _add_to_step(step, shown, say)
        _put_teachers_words(shown, edited or TeachersWords())
    about = worked.estimate
    view["estimate"] |= {
        "glyphs": glyphs(mixed(about.total)),
        "sum_glyphs": glyphs(about.sum),
        "bound_glyphs": glyphs(mixed(about.bound)),
        "tie_glyphs": typeset(about.tie),
    }
    for found, shown in zip(worked.found, view["misconceptions"], strict=True):
        shown["name"] = say(found.entry.name)
        shown["glyphs"] = glyphs(found.wrong.answer, ("wrong",))
        shown["line_glyphs"] = [in_words(typeset(rich), say) for rich in found.wrong.lines]
    return view


def _layout(working: Working) -> dict[str, Any]:
    """The layout that is chosen (`line` where it cannot be had), with its rows, its sheet or its boxes."""
    chosen = working.ways.layout
    sheet = stacked(working) if chosen == "stacked" else None
    boxes = four_box(working) if chosen == "four-box" else checklist(working) if chosen == "checklist" else []
    if not working.steps or (chosen == "stacked" and sheet is None):
        chosen, boxes = "line", []
    return {
        "layout": chosen,
        "rows": [_row(row, working) for row in line(working)],
        "sheet": asdict(sheet) if sheet else None,
        "boxes": [_box(box, working) for box in boxes],
    }


def _box(box: Box, working: Working) -> dict[str, Any]:
    say = saying(working.ways)
    return {
        "title": say(box.title),
        "answer": say(box.answer),
        "rows": [_row(row, working) for row in box.rows],
        "line_glyphs": [in_words(typeset(rich), say) for rich in box.jottings],
    }


def _row(row: Row, working: Working) -> dict[str, Any]:
    expr = working.problem.expr if row.step is None else working.steps[row.step].after
    drawn = asdict(row) | {"spoken": words(expr)}
    if (mark := mark_of(working.ways)) != ".":
        for cell in drawn["cells"]:
            cell["text"] = mark if cell["text"] == "." else cell["text"]
    return drawn


def in_words(pieces: list[Glyph], say: Say) -> list[Glyph]:
    """*pieces* with their words in the class's vocabulary."""
    return [{**piece, "text": say(piece["text"])} if "text" in piece else piece for piece in pieces]


def _figure(figure: Figure, say: Say) -> dict[str, Any]:
    drawn = asdict(figure)
    for shape in drawn["shapes"]:
        shape["text"] = say(shape["text"])
    return drawn | {"alt": say(figure.alt)}


def _add_to_step(step: Step, shown: dict[str, Any], say: Say) -> None:
    figure = bars.of_step(step)
    shown["title_glyphs"] = in_words(typeset(step.title), say)
    shown["line_glyphs"] = [in_words(typeset(rich), say) for rich in step.lines]
    shown["figure"] = _figure(figure, say) if figure else None
    shown["figure_note"] = None if figure else bars.note(step)


def _put_teachers_words(shown: dict[str, Any], edited: TeachersWords) -> None:
    for field_name, suffix in (("reason", ""), ("spoken", " spoken")):
        sentence, source = edited.find(shown["kind"], shown["key"], suffix)
        shown[f"own_{field_name}"] = shown[field_name]
        shown[f"{field_name}_from"] = source
        if sentence is not None:
            shown[field_name] = sentence
