"""A sitting as a screen needs it: what happened in it, what comes next for a group."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

from ..expressions.typeset import Glyph
from ..expressions.voice import Voice
from ..grading.rungs import ALL_RUNGS
from ..judging.misconceptions.registry import ENTRIES
from ..reading.kinds import Target
from ..sittings.answers import Answers
from ..sittings.following import Following, next_rung
from ..sittings.happened import MAIN, OfCode, OfProblem, happened
from ..sittings.holding import Group
from ..sittings.question import Asked, Question, explainer_of
from ..ways.voices import voice_of
from .cells import PupilView, code_names, question_about, question_view, written_glyphs
from .figure import FigureView, exposure_of, figure_view

Pupils = Mapping[str, PupilView]


@dataclass(frozen=True, slots=True)
class PupilDidView:
    """A pupil who showed a misconception, with the numbers of the problems."""

    id: str
    alias: str
    numbers: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class CodeHappenedView:
    """A misconception: who showed it, and in how many answers it *did* and *could* show."""

    code: str
    name: str
    question: str
    pupils: tuple[PupilDidView, ...]
    did: int
    could: int


@dataclass(frozen=True, slots=True)
class ProblemHappenedView:
    """How a problem went; *hides* are misconceptions seen in this sitting that give its right answer."""

    glyphs: tuple[Glyph, ...]
    right: int
    value: int
    wrong: int
    blank: int
    commonest: tuple[Glyph, ...]
    times: int
    name: str
    hides: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class HappenedView:
    """What happened in a sitting: the *main* misconceptions come first in *codes*."""

    pupils: int
    main: int
    codes: tuple[CodeHappenedView, ...]
    problems: tuple[ProblemHappenedView, ...]


@dataclass(frozen=True, slots=True)
class NextProblemView:
    """A problem for what comes next, asked for in the form *target* if it is a lone number."""

    text: str
    target: Target | None
    glyphs: tuple[Glyph, ...]


@dataclass(frozen=True, slots=True)
class GroupView:
    """A group and what comes next for it; without codes it is ready to go on, to the rung *onwards*."""

    codes: tuple[str, ...]
    names: tuple[str, ...]
    pupils: tuple[PupilView, ...]
    moved: tuple[str, ...]
    show: tuple[Glyph, ...]
    show_wrong: tuple[Glyph, ...]
    show_lines: tuple[tuple[Glyph, ...], ...]
    figure: FigureView | None
    question: str
    ladder: tuple[NextProblemView, ...]
    check: NextProblemView | None
    tells_from: tuple[str, ...]
    onwards: str


def happened_view(answers: Answers, pupils: Pupils) -> HappenedView:
    """What happened, in the class's words: those of the first problem."""
    found = happened(answers)
    voice = voice_of(answers.asked[0].question.ways)
    return HappenedView(
        found.pupils,
        MAIN,
        tuple([_of_code(one, pupils, voice) for one in found.codes]),
        tuple([_of_problem(*pair, voice) for pair in zip(answers.asked, found.problems, strict=True)]),
    )


def _of_code(one: OfCode, pupils: Pupils, voice: Voice) -> CodeHappenedView:
    entry = ENTRIES[one.code]
    did = [PupilDidView(key, pupils[key].alias, numbers) for key, numbers in one.pupils]
    return CodeHappenedView(
        one.code, voice.said(entry.name), voice.said(entry.question), tuple(did), one.did, one.could
    )


def _of_problem(asked: Asked, one: OfProblem, voice: Voice) -> ProblemHappenedView:
    return ProblemHappenedView(
        glyphs=question_view(asked.question, 0).glyphs,
        right=one.right,
        value=one.value,
        wrong=one.wrong,
        blank=one.blank,
        commonest=written_glyphs(one.commonest, True, asked.question.ways) if one.commonest else (),
        times=one.times,
        name=", then ".join(code_names(one.codes, voice)),
        hides=code_names(one.hides, voice),
    )


def group_view(
    group: Group, next_up: Following, apart: Sequence[str], asked: Sequence[Asked], pupils: Pupils,
    moved: Collection[str],
) -> GroupView:  # fmt: skip
    """A *group* and what is *next up* for it, after what was *asked*; *apart* are codes that its own could not be told
    from, *moved* the pupils who were put there by hand.
    """
    voice = voice_of(asked[0].question.ways)
    shown = asked[group.show].question if group.show is not None else None
    worked = explainer_of(shown).worked if shown is not None else None
    shows = worked.likely if worked is not None else ()
    likely = next((one for one in shows if one.entry.code in group.codes and one.status != "hidden"), None)
    figure = exposure_of(worked, likely.entry.code) if worked is not None and likely else None
    onwards = None if group.codes else next_rung([one.rung for one in asked])
    return GroupView(
        codes=tuple(group.codes),
        names=code_names(group.codes, voice),
        pupils=tuple([pupils[key] for key in group.pupils]),
        moved=tuple([key for key in group.pupils if key in moved]),
        show=question_view(shown, 0).glyphs if shown else (),
        show_wrong=tuple(voice.glyphs(likely.wrong.answer, ("wrong",))) if likely else (),
        show_lines=tuple([tuple(voice.typeset(line)) for line in likely.wrong.lines]) if likely else (),
        figure=figure_view(figure, voice) if figure else None,
        question=question_about(group.codes, voice),
        ladder=tuple([next_problem(one) for one in next_up.ladder]),
        check=next_problem(next_up.check) if next_up.check else None,
        tells_from=code_names([code for code in apart if code in next_up.targets], voice),
        onwards=voice.said(ALL_RUNGS[onwards]) if onwards else "",
    )


def next_problem(question: Question) -> NextProblemView:
    """A problem for what comes next."""
    return NextProblemView(question.source, question.target, question_view(question, 0).glyphs)
