"""python -m tools.golden: write the golden workings anew, on purpose. Read the difference before it is kept.

A file in tests/golden/ holds cases one after the other. Each begins with what is worked (`problem`, and `to` and `ways`
where they are needed); what follows is what the core makes of it, in plain text. A new case is its first lines; this
tool writes the rest.
"""

from __future__ import annotations

import json
import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from pathlib import Path

from keen_slate.core.documents.figure import FigureView
from keen_slate.core.documents.view import MisconceptionView, SheetView, StepView, WorkingView, working_view
from keen_slate.core.errors import CoreError
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.voice import OWN
from keen_slate.core.figures.expose import of_wrong
from keen_slate.core.ladders import Impossible, build_or_why, read_spec
from keen_slate.core.layouts.cells import SQUARE, Cell, Rule
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import Worked, work_text

DIRECTORY = Path(__file__).resolve().parents[1] / "tests/golden"
_BETWEEN = "\n\n" + "=" * 8 + "\n\n"
_CROSSED = "\u0338"  # over a digit that is crossed out
_WIDE = 34  # before the words of a line
_DRAWN = 30  # before what is said of a drawn line


@dataclass(frozen=True, slots=True)
class Case:
    """A problem, the form that it is converted to, the ways it is worked in."""

    problem: str
    to: str | None
    ways: str

    @classmethod
    def read(cls, written: str) -> Case:
        """The case that begins the text *written*."""
        given = dict(re.findall(r"^(problem|to|ways) +(.*)$", written.split("\n\n")[0], re.MULTILINE))
        return cls(given["problem"], given.get("to"), given.get("ways", ""))

    def settings(self) -> dict[str, str]:
        """Its ways, name to code."""
        return dict(pair.split("=") for pair in self.ways.split())

    def head(self) -> str:
        """Its first lines."""
        lines = [f"problem  {self.problem}"]
        lines += [f"to       {self.to}"] if self.to else []
        lines += [f"ways     {self.ways}"] if self.ways else []
        return "\n".join(lines)


def cases(file: str) -> list[str]:
    """The cases of a golden *file*, each as it is written there."""
    return file.rstrip("\n").split(_BETWEEN)


def file_of(written: Iterable[str]) -> str:
    """A golden file of cases."""
    return _BETWEEN.join(written) + "\n"


def rendered(case: Case) -> str:
    """The case with what the core makes of it."""
    try:
        worked = work_text(case.problem, Ways.of(case.settings()), target=case.to)
        view = working_view(worked)
    except CoreError as error:
        return f"{case.head()}\n\nrefused  {error.message} {error.hint}"
    blocks = [
        case.head(), _lines(view), _story(view), _estimate(view), _layout(view), _pictures(view), _wrong(view),
        _below(worked), _remarks(view),
    ]  # fmt: skip
    return "\n\n".join([block for block in blocks if block])


def _lines(view: WorkingView) -> str:
    lines = [f"  {view.problem.text}"]
    for step in view.steps:
        lines.append(f"{_sign(view, step)} {step.after}".ljust(_WIDE) + f" {step.title} ({step.kind})")
        lines += [f"      {jotting}" for jotting in step.lines]
        lines.append(f"      because: {step.reason}")
    lines.append(f"answer   {view.answer.text}, worth {view.answer.value}; said at the end: {_said(view)}")
    if view.answers:
        lines.append(
            f"answers  {'; '.join(view.answers[:12])}{' ...' if len(view.answers) > 12 else ''} ({view.count})"
        )
    return "\n".join(lines)


def _story(view: WorkingView) -> str:
    """How a story is read: its situation, each number with what it is, each calculation with its model, the
    sentence.
    """
    story = view.story
    if story is None:
        return ""
    lines = [f"told     {story.situation}, {story.unknown} unknown: {story.calculation}"]
    for one in story.quantities:
        needed = "" if one.needed else ", not needed"
        lines.append(
            f"number   {one.text}: {one.name or 'no name'}, {one.role}, {one.times} times, ink "
            f"{one.ink or 'none'}{needed}"
        )
    for part in story.calculations:
        lines.append(
            f"find     {part.finds}: {part.text} [{part.rung}]; {part.model.alt if part.model else 'no model'}"
        )
    return "\n".join([*lines, f"says     {story.answer}"])


def _sign(view: WorkingView, step: StepView) -> str:
    if step.kind == "then":
        return " "
    if view.problem.kind in ("missing", "equivalent"):
        return " " if "=" in step.after else "_ ="
    return "="


def _said(view: WorkingView) -> str:
    return view.steps[-1].spoken if view.steps else "nothing"


def _estimate(view: WorkingView) -> str:
    about = view.estimate
    lines = [f"estimate {about.text} [{about.rule}: {', '.join(about.rounded)}]"] if about else []
    if about and about.figure:
        lines.append(f"         {about.figure.alt}")
    return "\n".join([*lines, *[f"check    {_text(check)}" for check in view.checks]])


def _text(pieces: Iterable[object]) -> str:
    said = []
    for piece in pieces:
        text, top, bottom = (getattr(piece, name) for name in ("text", "top", "bottom"))
        said.append(text if text is not None else f" {_in_brackets(top)}/{_in_brackets(bottom)} ")
    return re.sub(r" +([.,:])", r"\1", re.sub(" +", " ", "".join(said))).strip()


def _in_brackets(number: str) -> str:
    return f"({number})" if " " in number else number


# What is written on the paper, in characters --------------------------------------------------------------------------


def _layout(view: WorkingView) -> str:
    if view.sheet is not None:
        drawing = drawn(view.sheet.cells, view.sheet.rules)
        moments = "\n".join(_moments(view.sheet))
        return f"layout   {view.layout}\n{drawing}\n         {view.sheet.spoken}\n{moments}"
    if not view.boxes:
        return ""
    lines = [f"layout   {view.layout}"]
    for box in view.boxes:
        lines.append(f"  [{box.title}] {box.answer}".rstrip())
        lines += [f"      {_text(jotting.glyphs)}" for jotting in box.jottings]
        for row in box.rows:
            lines.append(drawn(row.cells, row.rules, indent=6))
    return "\n".join(lines)


def _moments(sheet: SheetView) -> Iterator[str]:
    """What is done moment by moment: what comes to the paper, and what is crossed out."""
    for at, moment in enumerate(sheet.moments, 1):
        written = "".join([cell.text for cell in sheet.cells if cell.at == at])
        struck = "".join([cell.text for cell in sheet.cells if cell.struck_at == at])
        does = [f"writes {written}"] * bool(written) + [f"crosses out {struck}"] * bool(struck)
        yield f"    {at:2}. {moment.title} {', '.join(does)} (step {moment.step})"


def drawn(cells: Iterable[Cell], rules: Iterable[Rule], indent: int = 4) -> str:
    """Cells and rules as characters, a square wide and half a square high each; empty lines are left out.

    Behind each line stands its height on the paper in half squares, and the inks of its cells (the first letter, `.`
    for none; `'` after it: small; `>` before it: half a square to the right).
    """
    rows: dict[int, list[tuple[int, str, str]]] = {}
    for rule in rules:
        inks = [rule.role[:1] or "."] + [""] * (rule.w // SQUARE - 1)
        rows.setdefault(rule.y - 1, []).extend([(rule.x + i * SQUARE, "-", ink) for i, ink in enumerate(inks)])
    for cell in cells:
        y = cell.y + 1 if cell.size == "tall" else cell.y
        mark = cell.text + (_CROSSED if cell.struck else "")
        ink = ">" * (cell.x % SQUARE) + (cell.role[:1] or ".") + "'" * (cell.size == "small")
        rows.setdefault(y, []).append((cell.x, mark, ink))
    return "\n".join([" " * indent + _row(y, sorted(rows[y])) for y in sorted(rows)])


def _row(y: int, marks: list[tuple[int, str, str]]) -> str:
    places: dict[int, str] = {}
    for x, mark, _ in marks:  # a point between two squares stands before the digit in the second
        places[(x + 1) // SQUARE] = places.get((x + 1) // SQUARE, "") + mark
    line = "".join([places.get(x, " ") for x in range(max(places) + 1)])
    return f"{line:<{_DRAWN}}| {y:2} {''.join([ink for _, _, ink in marks])}"


# Pictures, wrong answers, remarks -------------------------------------------------------------------------------------


def _pictures(view: WorkingView) -> str:
    shown: Iterator[tuple[StepView, FigureView]] = (
        (step, step.figure) for step in view.steps if step.figure is not None
    )
    return "\n".join([f"{figure.kind} at {step.key}: {figure.alt} {figure.note}".rstrip() for step, figure in shown])


def _wrong(view: WorkingView) -> str:
    return "\n".join([_wrong_line(one) for one in view.misconceptions])


def _below(worked: Worked) -> str:
    """The picture in which the wrong answer that shows best lies below the right one."""
    shown = [one for one in worked.likely if one.status == "reveals"][:1]
    figures = [of_wrong(worked.working, one.wrong.answer) for one in shown]
    return "\n".join([f"below    {figure.kind}: {OWN.said(figure.alt)}" for figure in figures if figure])


def _marks(view: WorkingView) -> str:
    *steps, answer = view.marks
    return (
        f"marks    {' + '.join([str(one.points) for one in steps] or ['0'])}, and {answer.points} for the answer: "
        f"{answer.loses}"
    )


def _wrong_line(one: MisconceptionView) -> str:
    caught = ["caught by the estimate"] if one.caught_by_estimate else []
    caught += [one.caught_by_check] if one.caught_by_check else []
    same = f", same as {', '.join(one.same_as)}" if one.same_as else ""
    ends = f" [{'; '.join(caught)}]" if caught else ""
    return f"wrong    {one.answer}: {one.code} ({one.status}{same}): {'; '.join(one.lines)}{ends}"


def _remarks(view: WorkingView) -> str:
    seen = view.features
    lines = [f"surprise {sentence}" for sentence in view.surprises] + [_marks(view)]
    lines.append(
        f"features rung {seen.rung}, {seen.terms} numbers, denominators {seen.denominators} {seen.common_denominator} "
        f"used {seen.used_denominator}, largest {seen.largest_number}, carries {seen.carries}, regroups "
        f"{seen.regroups}, "
        f"across zeros {seen.across_zeros}, simplified by {seen.simplify_by}, large facts {seen.large_facts}"
    )
    return "\n".join(lines)


# Ladders --------------------------------------------------------------------------------------------------------------

LADDERS = DIRECTORY / "ladders.json"


def built(wish: dict[str, object]) -> list[str]:
    """The problems of the ladder that a *wish* leads to, or what rules it out, in a line each."""
    made = build_or_why(read_spec(wish))
    if isinstance(made, Impossible):
        return [f"not possible: {made.limit}, nearest {made.nearest}"]
    return [f"{text(one.expr)} [{one.rung}] {' '.join(one.answers)}" for one in made.problems]


if __name__ == "__main__":
    ladders = [
        {"wish": one["wish"], "problems": built(one["wish"])} for one in json.loads(LADDERS.read_text(encoding="utf-8"))
    ]
    LADDERS.write_text(json.dumps(ladders, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")
    for path in sorted(DIRECTORY.glob("*.txt")):
        kept = cases(path.read_text(encoding="utf-8"))
        path.write_text(file_of([rendered(Case.read(case)) for case in kept]), encoding="utf-8")
