"""A worked problem as a document: what the command line prints and the HTTP API returns.

`working_document` is the published format (docs/formats.md). `working_view` adds what a screen needs to
draw it: typeset pieces, rows in squares, figures.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from ..expressions.sentences import plain, spoken, typeset
from ..expressions.spoken import words
from ..expressions.text import exact, text
from ..expressions.tree import Equation, mixed
from ..expressions.typeset import Glyph, glyphs
from ..figures import choose, expose, number_line
from ..figures.choose import KIND_NAMES as PICTURE_NAMES
from ..figures.choose import Look
from ..figures.display import Figure, marks
from ..grading.features import Features
from ..judging.checks import caught_by, checks
from ..judging.estimate import Estimate
from ..judging.misconceptions import Found
from ..layouts.boxes import Box, checklist, four_box
from ..layouts.cells import Cell, Row
from ..layouts.columns import columns
from ..layouts.line import line
from ..layouts.stacked import stacked
from ..reading.kinds import KIND_NAMES
from ..reading.problem import labelled
from ..teaching.fading import Fading, cells_with_blanks, jotting_with_blanks
from ..teaching.points import marks as marks_of
from ..ways.vocabulary import mark_of, saying
from ..worked import Worked
from ..working.keys import step_keys
from ..working.proof import Working
from ..working.step import Step

Say = Callable[[str], str]

FORMAT = "keen-slate/working"
VERSION = 1


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
        "estimate": _estimate(worked.estimate, say) if worked.estimate else None,
        "misconceptions": [_found(found, problem.label, say) for found in worked.found],
        "features": {name: getattr(worked.features, name) for name in Features.__slots__},
        "surprises": [say(sentence) for sentence in worked.surprises],
    } | _answers(working)


def _answers(working: Working) -> dict[str, Any]:
    """The first answers of a problem with blanks, and how many there are (or at least are); nothing for other problems."""
    if not isinstance(working.problem.expr, Equation):
        return {}
    return {
        "answers": [text(answer) for answer in working.answers or (working.answer,)],
        "count": len(working.answers) if working.count is None else working.count,
        "counted": working.count is not None,
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
        "value": None if about.total is None else exact(about.total),
        "bound": None if about.bound is None else exact(about.bound),
        "low": None if about.low is None else exact(about.low),
        "high": None if about.high is None else exact(about.high),
        "within": about.within,
        "ties": list(about.ties),
        "text": say(f"{about.sentence} {plain(about.tie)}".strip()),
    }


def _found(found: Found, label: str | None, say: Say) -> dict[str, Any]:
    return {
        "code": found.entry.code,
        "answer": say(labelled(text(found.wrong.answer), label if found.wrong.labelled else None)),
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
    """What a teacher put in the place of the core's own: sentences, and the kind of picture of a step.

    *example* maps the key of a step (its kind, and the how-manieth of that kind from 0), *set* its kind alone; what
    is said aloud has " spoken" after it, a kind of picture " picture". A key stays with its step when the way of working changes.
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


def working_view(
    worked: Worked,
    edited: TeachersWords | None = None,
    fading: Fading | None = None,
    points: Mapping[str, int] | None = None,
) -> dict[str, Any]:
    """The document with typeset pieces, rows in squares and figures; *edited* sentences replace the core's own.

    What *fading* leaves to pupils is marked, *points* are a teacher's own marks by key.
    """
    fading = fading or Fading()
    working = worked.working
    say = saying(working.ways)
    view = working_document(worked)
    view["problem"] |= {
        "kind_name": say(KIND_NAMES[working.problem.kind]),
        "glyphs": in_words(glyphs(working.problem.expr, working.problem_roles), say),
    }
    label = working.problem.label
    before = label is not None and working.answer_text.lstrip("-").startswith(label)
    view["answer"] |= {"glyphs": in_words(glyphs(working.answer), say), "label_before": before}
    keys = step_keys(working)
    view |= _layout(working, keys, fading)
    view["marks"] = marks_of(working, keys, points or {})
    if working.answers:
        view["answer_glyphs"] = [glyphs(answer) for answer in working.answers]
    edited = edited or TeachersWords()
    look = Look.of(working)
    for i, (step, key, shown) in enumerate(zip(working.steps, keys, view["steps"], strict=True)):
        shown["key"] = key
        shown["hidden"] = fading.hides_step(i, len(keys))
        shown["pause"] = fading.pause == key
        shown["title_glyphs"] = in_words(typeset(step.title), say)
        shown["line_glyphs"] = [
            in_words(jotting_with_blanks(rich, f"{key} line {j}", fading), say) for j, rich in enumerate(step.lines)
        ]
        shown["line_hidden"] = [f"{key} line {j}" in fading.blanks for j in range(len(step.lines))]
        _put_teachers_words(shown, edited)
        _add_picture(step, shown, look, edited, say)
    if (about := worked.estimate) is not None:
        view["estimate"] |= {
            "glyphs": glyphs(mixed(about.total)) if about.total is not None else [],
            "sum_glyphs": glyphs(about.sum),
            "bound_glyphs": glyphs(mixed(about.bound)) if about.bound is not None else [],
            "low_glyphs": glyphs(mixed(about.low)) if about.low is not None else [],
            "high_glyphs": glyphs(mixed(about.high)) if about.high is not None else [],
            "tie_glyphs": typeset(about.tie),
        }
        view["estimate"]["figure"] = figure_out(_estimate_figure(worked, about), say)
    other_checks = checks(working)
    view["checks"] = [in_words(typeset(check.said), say) for check in other_checks]
    for found, shown in zip(worked.found, view["misconceptions"], strict=True):
        shown["name"] = say(found.entry.name)
        shown["glyphs"] = glyphs(found.wrong.answer, ("wrong",))
        shown["line_glyphs"] = [in_words(typeset(rich), say) for rich in found.wrong.lines]
        wrong = found.status == "reveals"
        shown["caught_by_check"] = caught_by(other_checks, working, found.answer_value) if wrong else None
    return view


_MOST_WRONG_POINTS = 4


def _estimate_figure(worked: Worked, about: Estimate) -> Figure | None:
    """The answer, the estimate with its bound, and the wrong answers inside or outside of it, on a number line."""
    if about.low is None or about.high is None:
        return None
    wrong = {one.answer_value: mixed(one.answer_value) for one in worked.found if one.status == "reveals"}
    shown = list(wrong.values())[:_MOST_WRONG_POINTS]
    return number_line.of_points(
        [(mixed(worked.working.value), "answer"), *[(n, "wrong") for n in shown]], (about.low, about.high)
    )


def _layout(working: Working, keys: list[str], fading: Fading) -> dict[str, Any]:
    """The layout that is chosen (`line` where it cannot be had), with its rows, its sheet or its boxes."""
    chosen = working.ways.layout
    sheet, boxes = None, []
    if chosen in ("four-box", "checklist") and working.problem.kind in ("add-subtract", "simplify"):
        boxes = four_box(working) if chosen == "four-box" else checklist(working)
    elif chosen == "stacked":
        sheet = stacked(working)
    if working.problem.kind == "decimal" and chosen in ("line", "stacked"):
        sheet = columns(working)
    if not fading.plain:
        sheet = None  # all lines of a sheet stand in one; what pupils fill in stands line by line
    if not working.steps or not (sheet or boxes):
        chosen, boxes = "line", []
    return {
        "layout": chosen,
        "rows": [_row(row, working, keys, fading) for row in line(working)],
        "sheet": replace(sheet, cells=_marked(sheet.cells, working)) if sheet else None,
        "boxes": [_box(box, working, keys, fading) for box in boxes],
    }


def _box(box: Box, working: Working, keys: list[str], fading: Fading) -> dict[str, Any]:
    say = saying(working.ways)
    rows = [_row(row, working, keys, fading) for row in box.rows]
    return {
        "title": say(box.title),
        "answer": say(box.answer),
        "hidden": any(row["hidden"] for row in rows),
        "rows": rows,
        "line_glyphs": [in_words(typeset(rich), say) for rich in box.jottings],
    }


def _marked(cells: tuple[Cell, ...], working: Working) -> tuple[Cell, ...]:
    """*cells* with the class's decimal mark."""
    if (mark := mark_of(working.ways)) == ".":
        return cells
    return tuple([replace(cell, text=mark) if cell.text == "." else cell for cell in cells])


def _row(row: Row, working: Working, keys: list[str], fading: Fading) -> dict[str, Any]:
    expr = working.problem.expr if row.step is None else working.steps[row.step].after
    key = "problem" if row.step is None else keys[row.step]
    cells = cells_with_blanks(_marked(row.cells, working), key, fading)
    hidden = row.step is not None and (fading.hides_step(row.step, len(keys)) or fading.hides_row(key))
    return {
        "key": key, "hidden": hidden, "step": row.step, "width": row.width, "height": row.height, "cells": cells, "rules": row.rules, "spoken": words(expr),
    }  # fmt: skip


def in_words(pieces: list[Glyph], say: Say) -> list[Glyph]:
    """*pieces* with their words in the class's vocabulary."""
    return [{**piece, "text": say(piece["text"])} if "text" in piece else piece for piece in pieces]


def figure_out(figure: Figure | None, say: Say) -> dict[str, Any] | None:
    """A figure as marks that a renderer only has to place."""
    if figure is None:
        return None
    placed = [replace(m, text=said) if m.text and (said := say(m.text)) != m.text else m for m in marks(figure)]
    return {
        "kind": figure.kind,
        "width": figure.width,
        "height": figure.height,
        "marks": placed,
        "alt": say(figure.alt),
        "acts": figure.acts,
        "note": figure.note,
    }


def picture_of(working: Working, index: int, edited: TeachersWords) -> Figure | None:
    """The picture of step number *index*, of the kind that the teacher chose; None where there is none."""
    if index >= len(working.steps):
        return None
    kind, _ = edited.find(working.steps[index].kind, step_keys(working)[index], " picture")
    return None if kind == "none" else choose.of_step(working.steps[index], Look.of(working), kind)


def exposure_of(worked: Worked, code: str) -> Figure | None:
    """The picture that shows why the answer of the misconception *code* is wrong; None where there is none."""
    wrong = next((found.wrong for found in worked.found if found.entry.code == code), None)
    return expose.of_wrong(worked.working, wrong.answer) if wrong else None


def _add_picture(step: Step, shown: dict[str, Any], look: Look, edited: TeachersWords, say: Say) -> None:
    kind, source = edited.find(step.kind, shown["key"], " picture")
    kinds = choose.offered(step, look)
    shown["pictures"] = [{"code": code, "name": PICTURE_NAMES[code]} for code in kinds]
    shown["picture_from"] = source
    shown["figure"] = None if kind == "none" else figure_out(choose.of_kinds(step, look, kinds, kind), say)


def _put_teachers_words(shown: dict[str, Any], edited: TeachersWords) -> None:
    for field_name, suffix in (("reason", ""), ("spoken", " spoken")):
        sentence, source = edited.find(shown["kind"], shown["key"], suffix)
        shown[f"own_{field_name}"] = shown[field_name]
        shown[f"{field_name}_from"] = source
        if sentence is not None:
            shown[field_name] = sentence
