"""A story as its published document, and as a screen needs it: its text in pieces, quantities, models, the answer as a
sentence.
"""

from __future__ import annotations

import re
from dataclasses import asdict, dataclass
from typing import Any

from ..expressions.text import exact
from ..expressions.text import text as write
from ..expressions.tree import Dec, Expr, Frac, Mixed, Product, value
from ..expressions.typeset import Glyph, Role, roles_for
from ..expressions.voice import Voice
from ..expressions.walks import leaves
from ..figures.bar_model import models_of
from ..figures.display import Figure
from ..grading.rungs import rung_of
from ..ladders.stories import Made
from ..reading.problem import CURRENCY, labelled
from ..stories.naming import name_of, table_rows
from ..stories.reading import Understood
from ..stories.story import SITUATIONS, UNKNOWNS, Story, StoryStep, story_of, told_text
from ..stories.understood import Reading
from ..stories.untold import untold_in
from ..teaching.fading import Fading
from ..ways.voices import voice_of
from ..worked import Worked, work_out
from ..working.proof import Working
from ..working.step_kinds import THEN
from .figure import FigureView, figure_view
from .working import published as published_working

FORMAT = "keen-slate/story"
VERSION = 1


@dataclass(frozen=True, slots=True)
class QuantityView:
    """A number of the text: what it is of, how it is told, its label, what it is in the calculation, how often it is
    there; its pieces and its ink, and itself as a *number* in the input notation.
    """

    name: str
    text: str
    unit: str | None
    role: str
    times: int
    needed: bool
    number: str
    glyphs: tuple[Glyph, ...]
    ink: Role


@dataclass(frozen=True, slots=True)
class StoryPiece:
    """A piece of the text; *quantity* is the index of the number that it tells, None for what stands around them."""

    glyphs: tuple[Glyph, ...]
    quantity: int | None
    asks: bool


@dataclass(frozen=True, slots=True)
class CalculationView:
    """A calculation: what it *finds*, itself and its result, its *rung*, and the index of its first step. *told* is as
    in the braces.

    *numbers* counts what its model is labelled with, what is found among them.
    """

    finds: str
    text: str
    glyphs: tuple[Glyph, ...]
    result: tuple[Glyph, ...]
    rung: str
    first_step: int
    told: str
    hidden: bool
    numbers: int
    model: FigureView | None
    model_hidden: bool


@dataclass(frozen=True, slots=True)
class UntoldView:
    """A number of the calculation that stands in no text, and what it is."""

    number: str
    name: str


@dataclass(frozen=True, slots=True)
class TableRow:
    """A row of the table in which quantities are told."""

    name: str
    quantity: int


@dataclass(frozen=True, slots=True)
class StoryView:
    """A story as a screen needs it.

    *source* has its *calculation* in braces, *numbers* is all of it as a bare calculation, *sentence* has `_` for the
    answer.
    """

    text: str
    source: str
    numbers: str
    calculation: str
    pieces: tuple[StoryPiece, ...]
    table: tuple[TableRow, ...]
    quantities: tuple[QuantityView, ...]
    situation: str
    situation_name: str
    unknown: str
    unknown_name: str
    calculations: tuple[CalculationView, ...]
    untold: tuple[UntoldView, ...]
    sentence: str
    answer: str
    answer_glyphs: tuple[Glyph, ...]
    answer_hidden: bool


def published(worked: Worked, reading: Reading | None = None) -> dict[str, Any]:
    """The document of a worked story as plain values, with a working of each calculation.

    Where its *reading* is not certain, it has the doubts and the readings, and no answer.
    """
    certain = reading is None or reading.certain
    working = worked.working
    story = story_of(working.problem)
    assert story is not None, "only stories are published so"
    voice = voice_of(working.ways)
    rows = table_rows(story.text, story.quantities)
    return {
        "format": FORMAT,
        "version": VERSION,
        "text": told_text(story, voice),
        "situation": story.situation,
        "unknown": story.unknown,
        "quantities": [_plain_quantity(one) for one in _quantities(story, voice)],
        "table": [{"name": name, "amount": story.quantities[i].text} for name, i in rows] or None,
        "steps": [
            {
                "problem": labelled(voice.text(part.problem.expr), part.problem.label),
                "uses": [_use_name(story, i, k) for k in range(len(step.uses))],
                "finds": step.finds,
                "label": step.label,
            }
            for i, (step, part) in enumerate(zip(story.steps, working.parts, strict=True))
        ],
        "untold": [{"number": number, "name": name} for number, name in untold_in(story)],
        "answer": {"text": answer_line(working), "value": exact(working.value), "label": working.answer_label}
        if certain
        else None,
        "working": [published_working(work_out(part.problem, part.ways)) for part in working.parts],
        "certain": certain,
        "doubts": [asdict(one) for one in reading.doubts] if reading else [],
        "readings": [
            {
                "situation": one.situation,
                "unknown": one.unknown,
                "calculation": one.calculation(voice),
                "value": exact(value(one.whole)),
                "text": voice.text(one.whole),
            }
            for one in (() if reading is None or certain else reading.readings)
        ],
    }


def _plain_quantity(one: QuantityView) -> dict[str, Any]:
    return {
        "name": one.name,
        "text": one.number,
        "unit": one.unit,
        "role": one.role,
        "times": one.times,
        "needed": one.needed,
    }


def _use_name(story: Story, i: int, k: int) -> str:
    use = story.steps[i].uses[k]
    if use.kind == "found":
        return story.name_of(use)
    if use.kind in ("units", "untold"):
        return use.kind
    return name_of(story.text, story.quantities[use.index]) or story.quantities[use.index].text


def answer_line(working: Working) -> str:
    """The answer as a sentence."""
    story = story_of(working.problem)
    assert story is not None, "only a story is answered in a sentence"
    if (first := story.first_step) is not None:
        part = working.parts[first]
        said = story.first_line(labelled(voice_of(working.ways).text(part.answer), part.problem.label))
        return f"a) {said} b) {_last_line(working, story)}"
    return _last_line(working, story)


def _last_line(working: Working, story: Story) -> str:
    """The sentence that answers the only question, or the last."""
    if (clock := _clock(working, story)) is not None:
        return story.answer_line(clock, working.value).replace("..", ".")
    return story.answer_line(
        labelled(voice_of(working.ways).text(_spoken_of(working)), working.answer_label), working.value
    )


_ASKS_CLOCK = re.compile(r"\b(?:what|which) time\b|\bwhen (?:does|did|do|must|will|should|is|was)\b", re.I)


def _clock(working: Working, story: Story) -> str | None:
    """The answer as a time of the clock, where that is asked for."""
    begin, end = story.question
    if not _ASKS_CLOCK.search(story.text[begin:end]) or not any(one.clock for one in story.quantities):
        return None
    minutes = working.value * 60 % 1440
    if working.answer_label not in ("hours", "hour") or minutes.denominator != 1:
        return None
    hour, minute = divmod(int(minutes), 60)
    half = re.search(r"\b[ap]\.?m\b", story.text) is not None
    return f"{(hour - 1) % 12 + 1}:{minute:02d} {'p.m.' if hour >= 12 else 'a.m.'}" if half else f"{hour}:{minute:02d}"


def _spoken_of(working: Working) -> Expr:
    """The answer as it is said: money that ends after cents has two decimal places."""
    cents = working.value * 100
    whole = working.value.denominator == 1 and not isinstance(working.answer, Dec)
    label = working.answer_label
    if label is None or label not in CURRENCY or whole or cents.denominator != 1 or cents < 0:
        return working.answer
    return Dec(int(cents) // 100, f"{int(cents) % 100:02d}")


def answer_glyphs(working: Working) -> tuple[Glyph, ...]:
    """The answer sentence, its number typeset."""
    story = story_of(working.problem)
    assert story is not None, "only a story is answered in a sentence"
    voice, label = voice_of(working.ways), working.answer_label or ""
    before, _, after = story.answer_line("\0", working.value).partition("\0")
    if (clock := _clock(working, story)) is not None:
        return (Glyph("words", (before + clock + after).replace("..", ".")),)
    money = bool(label) and labelled("1", label).startswith(label)
    begin = _first_glyphs(working, story)
    first = Glyph("words", ("b) " if begin else "") + before + (label if money else ""))
    last = Glyph("words", ("" if money or not label else labelled("", label)) + after)
    return (*begin, *[one for one in (first,) if one.text], *voice.glyphs(_spoken_of(working), ("answer",)), last)


def _first_glyphs(working: Working, story: Story) -> tuple[Glyph, ...]:
    """The answer to the first of two questions, its number typeset; nothing where one is asked."""
    if story.first_step is None:
        return ()
    part = working.parts[story.first_step]
    before, _, after = story.first_line("\0").partition("\0")
    label = part.problem.label or ""
    money = bool(label) and labelled("1", label).startswith(label)
    ahead, behind = (label, "") if money or not label else ("", labelled("", label))
    return (
        Glyph("words", f"a) {before}{ahead if money else ''}"), *voice_of(working.ways).glyphs(part.answer, ("answer",
        )),
        Glyph("words", f"{behind}{after} "),
    )  # fmt: skip


# The view ------------------------------------------------------------------------------------------------------------


def story_view(working: Working, fading: Fading) -> StoryView | None:
    """What a screen needs of a story; None for another problem."""
    story = story_of(working.problem)
    if story is None:
        return None
    voice = voice_of(working.ways)
    quantities = _quantities(story, voice)
    return StoryView(
        text=told_text(story, voice),
        source=f"{told_text(story, voice)} {{{story.calculation(voice)}}}",
        numbers=labelled(voice.text(working.problem.expr), working.problem.label),
        calculation=story.calculation(voice),
        pieces=tuple(_pieces(story, quantities, voice)),
        table=tuple([TableRow(name, i) for name, i in table_rows(story.text, story.quantities)]),
        quantities=quantities,
        situation=story.situation,
        situation_name=SITUATIONS[story.situation][0],
        unknown=story.unknown,
        unknown_name=UNKNOWNS[story.unknown],
        calculations=_calculations(story, working, voice, fading),
        untold=tuple([UntoldView(number.replace(".", voice.mark), name) for number, name in untold_in(story)]),
        sentence=story.sentence,
        answer=answer_line(working),
        answer_glyphs=answer_glyphs(working),
        answer_hidden=fading.hides_row("sentence 0"),
    )


def _pieces(story: Story, quantities: tuple[QuantityView, ...], voice: Voice) -> list[StoryPiece]:
    """The text in pieces, without the rows of its table; numbers in digits typeset, those in words as they are told."""
    lines = {i for _, i in table_rows(story.text, story.quantities)}
    begin, end = story.question
    done: list[StoryPiece] = []
    at = 0
    spans = [(one.start, one.end, i) for i, one in enumerate(story.quantities)]
    for start, stop, i in [*spans, (len(story.text), len(story.text), None)]:
        for piece_start, piece_stop in ((at, min(max(at, begin), start)), (min(max(at, begin), start), start)):
            if piece_start < piece_stop:
                words = story.text[piece_start:piece_stop]
                done.append(StoryPiece((Glyph("words", words),), None, begin <= piece_start < end))
        if i is not None:
            done.append(StoryPiece(_told(story, i, quantities[i], voice), i, begin <= start < end))
        at = stop
    return _without_rows(done, lines)


def _told(story: Story, i: int, view: QuantityView, voice: Voice) -> tuple[Glyph, ...]:
    one = story.quantities[i]
    before, after = story.text[one.start : one.number_end], story.text[one.number_end : one.end]
    if before[:1].isalpha() or (isinstance(one.number, (Frac, Mixed)) and one.number_end == one.end and one.label):
        return (Glyph("words", one.text, role=view.ink),)
    sign = before[0] if before[0] in "$€£" else ""
    inner = [Glyph("words", sign, role=view.ink)] if sign else []
    return (*inner, *voice.glyphs(one.number, (view.ink,)), *([Glyph("words", after, role=view.ink)] if after else []))


def _without_rows(pieces: list[StoryPiece], rows: set[int]) -> list[StoryPiece]:
    """The pieces without those of table rows: the name before an amount goes with it."""
    done: list[StoryPiece] = []
    for piece in pieces:
        if piece.quantity in rows:
            if done and done[-1].quantity is None:
                last = done.pop()
                kept = (last.glyphs[0].text or "").rpartition("\n")[0]
                if kept.strip():
                    done.append(StoryPiece((Glyph("words", kept),), None, last.asks))
            continue
        done.append(piece)
    return done


def _quantities(story: Story, voice: Voice) -> tuple[QuantityView, ...]:
    names = {i: name for name, i in table_rows(story.text, story.quantities)}
    inks, roles, times = _uses(story)
    return tuple([
        QuantityView(
            name=names.get(i) or name_of(story.text, one),
            text=one.text,
            unit=one.label,
            role=roles.get(i, "not needed" if i in story.unneeded else "other"),
            times=times.get(i, 1),
            needed=i not in story.unneeded,
            number=voice.text(one.number),
            glyphs=tuple(voice.glyphs(one.number, (inks.get(i, ""),))),
            ink=inks.get(i, ""),
        )
        for i, one in enumerate(story.quantities)
    ])  # fmt: skip


def _uses(story: Story) -> tuple[dict[int, Role], dict[int, str], dict[int, int]]:
    """Of each quantity that is used: its ink, what it is in its calculation, how often it is there."""
    inks: dict[int, Role] = {}
    roles: dict[int, str] = {}
    times: dict[int, int] = {}
    for step in story.steps:
        names = _role_names(step, story)
        first = step.uses[0]
        times_many = isinstance(step.expr, Product) and step.expr.rest[0][0] == "×"
        many = times_many and first.kind == "quantity" and story.quantities[first.index].is_count
        for k, (use, ink) in enumerate(zip(step.uses, roles_for(len(step.uses)), strict=True)):
            if use.kind != "quantity" or use.index in inks:
                continue
            inks[use.index], roles[use.index] = ink, names[k]
            if k and many:
                times[use.index] = int(value(story.quantities[first.index].number))
    return inks, roles, times


_ROLES = {
    "add-to": ("start", "change"), "take-from": ("start", "change"), "put-together": ("part", "part"),
    "compare": ("larger", "smaller"),
    "part-of": ("part", "whole"),
}  # fmt: skip
# Where something else than usual is unknown.
_CHANGED = {
    ("add-to", "start"): ("result", "change"), ("add-to", "change"): ("result", "start"),
    ("take-from", "start"): ("result", "change"),
    ("take-from", "change"): ("start", "result"), ("put-together", "part"): ("total", "part"),
    ("compare", "smaller"): ("larger", "difference"), ("compare", "larger"): ("smaller", "difference"),
}  # fmt: skip


def _role_names(step: StoryStep, story: Story) -> list[str]:
    """What each number of a calculation is."""
    named = _CHANGED.get((story.situation, story.unknown)) or _ROLES.get(story.situation, ("term", "term"))
    if isinstance(step.expr, Product):
        named = _roles_of_product(step.expr, story)
    return [named[min(k, 1)] for k in range(len(step.uses))]


def _roles_of_product(expr: Product, story: Story) -> tuple[str, str]:
    of_something = [one.number for one in story.quantities if isinstance(one.number, Frac) and one.label is None]
    if story.situation == "part-of" or expr.first in of_something:
        return "part", "whole"
    if expr.rest[0][0] == "×":
        return "times", "size"
    return "amount", "groups" if story.unknown != "number" else "size"


def _calculations(story: Story, working: Working, voice: Voice, fading: Fading) -> tuple[CalculationView, ...]:
    starts = [0, *[i + 1 for i, step in enumerate(working.steps) if step.kind is THEN]]
    models = models_of(story, working, model_blanks(fading))
    return tuple([
        CalculationView(
            finds=story.steps[i].finds,
            text=labelled(voice.text(part.problem.expr), part.problem.label),
            glyphs=_as_spoken(story, i, part, voice),
            result=_with_sign(tuple(voice.glyphs(part.answer)), part.problem.label),
            rung=rung_of(part),
            first_step=starts[i],
            told=story.spelled(i, voice),
            hidden=fading.hides_row(f"calculation {i}"),
            numbers=len(leaves(part.problem.expr)) + 1,
            model=_view(models[i], voice),
            model_hidden=fading.hides_row(f"model {i}"),
        )
        for i, part in enumerate(working.parts)
    ])  # fmt: skip


def _with_sign(glyphs: tuple[Glyph, ...], label: str | None) -> tuple[Glyph, ...]:
    """A number's pieces, with the sign of money before them."""
    return (
        (Glyph("words", label, role=glyphs[0].role), *glyphs)
        if label is not None and label in CURRENCY and glyphs
        else glyphs
    )


def _as_spoken(story: Story, i: int, part: Working, voice: Voice) -> tuple[Glyph, ...]:
    """A calculation with the sign of money before each number that is money: 2 × $7.25."""
    waiting = list(voice.glyphs(part.problem.expr, part.problem_roles))
    done: list[Glyph] = []
    for leaf, use in zip(leaves(part.problem.expr), story.steps[i].uses, strict=True):
        while waiting and waiting[0].kind in ("operator", "words"):
            done.append(waiting.pop(0))
        count = 2 if isinstance(leaf, Mixed) else 1
        label = (
            story.quantities[use.index].label
            if use.kind == "quantity"
            else story.steps[use.index].label
            if use.kind == "found"
            else None
        )
        done += _with_sign(tuple(waiting[:count]), label)
        waiting = waiting[count:]
    return (*done, *waiting)


def _view(figure: Figure | None, voice: Voice) -> FigureView | None:
    return None if figure is None else figure_view(figure, voice)


def model_blanks(fading: Fading) -> list[tuple[int, int]]:
    """The numbers of models that pupils write, from the keys of blanks: "model 0 cell 1"."""
    found = [key.split() for key in fading.blanks if key.startswith("model ")]
    return [(int(parts[1]), int(parts[3])) for parts in found if len(parts) == 4 and parts[2] == "cell"]


def made_document(made: Made) -> dict[str, Any]:
    """Stories that were made, as plain values; each with its rung, and what its wrong answers reveal."""
    return {
        "stories": [
            published(worked)
            | {
                "rung": worked.features.rung,
                "source": worked.working.problem.text,
                "reveals": [one.entry.code for one in worked.likely if one.status == "reveals"],
            }
            for worked in made.stories
        ],
        "not_revealed": list(made.not_revealed),
    }


def understood_document(found: Understood) -> dict[str, Any]:
    """What was understood of a story that cannot be worked: its numbers."""
    return {
        "quantities": [
            {"name": name_of(found.text, one), "text": write(one.number), "unit": one.label, "told": one.text}
            for one in found.quantities
        ]
    }
