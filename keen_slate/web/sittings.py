"""Sittings: what a class wrote to a set on a day, judged; what happened; what comes next."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import timedelta
from itertools import zip_longest
from typing import Any
from uuid import UUID

from apiflask import APIBlueprint

from keen_slate.core.days import day_of
from keen_slate.core.diagnosing.faults import is_code
from keen_slate.core.documents.about_cell import about_cell, points_for
from keen_slate.core.documents.cells import (
    PupilView,
    cell_view,
    cell_views,
    code_names,
    question_view,
    tally_view,
)
from keen_slate.core.documents.sitting import group_view, happened_view
from keen_slate.core.errors import ReadError
from keen_slate.core.sittings.answers import Answers
from keen_slate.core.sittings.day import read_day
from keen_slate.core.sittings.holding import Held, believe, mixed_up
from keen_slate.core.stories.any_text import read_any
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import mark_of, voice_of
from keen_slate.export import answers_table
from keen_slate.store.classes import Classes
from keen_slate.store.models import Pupil, Sitting
from keen_slate.store.shelf import NotFoundError, Shelf
from keen_slate.store.sittings import Entered, Sittings

from . import heavy, session, sittings_tasks
from .desk import shelf
from .given import given
from .over_time import year_of
from .sat import answers_of, as_seen, keep_judged, question_of, snapshot
from .schemas.sets import SetOut
from .schemas.sittings import (
    AboutCellOut,
    BringAnswersIn,
    BroughtRow,
    BroughtTable,
    ChangesOut,
    ChangesQuery,
    EntriesIn,
    EntryIn,
    EntryLogLine,
    GroupSetIn,
    HappenedOut,
    LogOut,
    MovesIn,
    NextOut,
    Place,
    SittingChange,
    SittingIn,
    SittingOut,
)
from .sets import set_view

blueprint = APIBlueprint("sittings", __name__, url_prefix="/api")


class SittingDesk:
    """A sitting with its class and its answers, on the desk of its teacher. Raises `NotFoundError`."""

    def __init__(self, mine: Shelf, sitting_id: UUID) -> None:
        self.mine = mine
        self.store = Sittings(mine.session, mine.teacher_id)
        self.classes = Classes(mine.session, mine.teacher_id)
        self.sitting: Sitting = self.store.one(sitting_id)
        self.everybody: list[Pupil] = self.classes.pupils(self.sitting.class_id)
        rows = self.store.answers([sitting_id])
        wrote = {row.pupil_id for row in rows}
        # Who has left stays where she wrote something.
        self.pupils = [pupil for pupil in self.everybody if pupil.here or pupil.id in wrote]
        self.answers: Answers = answers_of(self.store, self.sitting, self.pupils, rows)
        session.about_class(self.sitting.class_id)

    @property
    def ways(self) -> Ways:
        """The ways in which the sitting is spoken of: those of its first problem."""
        return self.answers.asked[0].question.ways

    @property
    def seen(self) -> dict[str, PupilView]:
        """The pupils as screens show them, by what they are called in its answers."""
        return {str(one.id): as_seen(one) for one in self.pupils}

    def out(self) -> SittingOut:
        """It as the API shows it."""
        one = self.sitting
        return SittingOut(
            id=one.id, class_id=one.class_id, class_name=self.classes.one(one.class_id).name, set_id=self._set_id(),
            title=one.title, day=one.day, kind=one.kind, counter=one.counter, mark=mark_of(self.ways),
            labels=self.answers.asked[0].question.labels,
            questions=[question_view(asked.question, asked.points) for asked in self.answers.asked],
            pupils=[*self.seen.values()], cells=[*cell_views(self.answers)], tally=tally_view(self.answers),
        )  # fmt: skip

    def _set_id(self) -> UUID | None:
        """The set, as long as it is there."""
        one = self.sitting.set_id
        return one if one is not None and self.mine.has_set(one) else None

    def held(self) -> Held:
        """What the pupils hold by this sitting alone, in the groups that they were moved to."""
        return believe(self.answers.asked, self.answers.given, self.sitting.moves)


@blueprint.post("/classes/<uuid:class_id>/sittings")
@blueprint.input(SittingIn)
@blueprint.output(SittingOut, status_code=201)
def add_sitting(class_id: UUID, json_data: SittingIn) -> SittingOut:
    """A set given to a class: its examples are kept as they are now."""
    with shelf() as mine:
        session.about_class(Classes(mine.session, mine.teacher_id).one(class_id).id)
        example_set = mine.one_set(json_data.set_id)
        questions = snapshot(given(example_set, mine.house_ways()))
        store = Sittings(mine.session, mine.teacher_id)
        made = store.add(class_id, example_set, questions, read_day(json_data.day), json_data.kind)
        return SittingDesk(mine, made.id).out()


@blueprint.get("/sittings/<uuid:sitting_id>")
@blueprint.output(SittingOut)
def get_sitting(sitting_id: UUID) -> SittingOut:
    """A sitting with every answer judged."""
    with shelf() as mine:
        desk = SittingDesk(mine, sitting_id)
        keep_judged(desk.store, desk.sitting)
        return desk.out()


@blueprint.patch("/sittings/<uuid:sitting_id>")
@blueprint.input(SittingChange)
@blueprint.output(SittingOut)
def change_sitting(sitting_id: UUID, json_data: SittingChange) -> SittingOut:
    """Another day or kind."""
    with shelf() as mine:
        store = Sittings(mine.session, mine.teacher_id)
        sitting = store.one(sitting_id)
        if json_data.labels is not None:
            sitting = store.count_labels(sitting_id, json_data.labels)
        sitting.day = read_day(json_data.day) if json_data.day else sitting.day
        sitting.kind = json_data.kind or sitting.kind
        mine.session.flush()
        return SittingDesk(mine, sitting_id).out()


@blueprint.delete("/sittings/<uuid:sitting_id>")
@blueprint.output({}, status_code=204)
def remove_sitting(sitting_id: UUID) -> str:
    """Take a sitting away with all that was written in it, for good."""
    with shelf() as mine:
        store = Sittings(mine.session, mine.teacher_id)
        session.about_class(store.one(sitting_id).class_id)
        store.remove(sitting_id)
    return ""


# What they wrote ------------------------------------------------------------------------------------------------------


@blueprint.put("/sittings/<uuid:sitting_id>/answers")
@blueprint.input(EntriesIn)
@blueprint.output(ChangesOut)
def enter(sitting_id: UUID, json_data: EntriesIn) -> ChangesOut:
    """Enter cells; all of them or none.

    The last entry of a cell holds; what others entered meanwhile comes back with it.
    """
    for entry in json_data.entries:
        if strange := [code for code in entry.word.codes if not is_code(code)]:
            raise ReadError(f"There is no misconception {strange[0]!r}.", 0, 0, "Take one of the catalogue.")
    with shelf() as mine:
        store = Sittings(mine.session, mine.teacher_id)
        questions = store.one(sitting_id).questions
        entered = [
            Entered(one.pupil_id, one.number, one.written, _word(one, questions), one.gone) for one in json_data.entries
        ]
        store.enter(sitting_id, entered)
        return _changes(SittingDesk(mine, sitting_id), json_data.since)


@blueprint.get("/sittings/<uuid:sitting_id>/changes")
@blueprint.input(ChangesQuery, location="query")
@blueprint.output(ChangesOut)
def changes(sitting_id: UUID, query_data: ChangesQuery) -> ChangesOut:
    """What was entered after the entry of a number, here or elsewhere."""
    with shelf() as mine:
        store = Sittings(mine.session, mine.teacher_id)
        now = store.one(sitting_id).counter
        if now == query_data.since:
            return ChangesOut(counter=now, cells=[], gone=[], tally=None)
        return _changes(SittingDesk(mine, sitting_id), query_data.since)


def _word(entry: EntryIn, questions: Sequence[dict[str, Any]]) -> dict[str, Any]:
    """The teacher's word as it is kept; what steps are worth is counted here."""
    word = entry.word
    if word.steps is not None and entry.number < len(questions):
        word = word.model_copy(update={"points": points_for(question_of(questions[entry.number]), word.steps)})
    return word.model_dump(exclude_defaults=True)


def _changes(desk: SittingDesk, since: int) -> ChangesOut:
    there = {pupil.id for pupil in desk.pupils}
    rows = sorted(desk.store.answers([desk.sitting.id], since), key=lambda row: row.counter)
    filled = {(row.pupil_id, row.number) for row in rows}
    gone = set(desk.store.emptied(desk.sitting.id, since)) - filled
    return ChangesOut(
        counter=desk.sitting.counter,
        cells=[cell_view(desk.answers, str(row.pupil_id), row.number) for row in rows if row.pupil_id in there],
        gone=[Place(pupil_id=pupil, number=number) for pupil, number in gone],
        tally=tally_view(desk.answers),
    )


@blueprint.get("/sittings/<uuid:sitting_id>/log")
@blueprint.output(LogOut)
def log(sitting_id: UUID) -> LogOut:
    """Who entered what and when, the last entry first; a thousand at most."""
    with shelf() as mine:
        desk = SittingDesk(mine, sitting_id)
        aliases = {pupil.id: pupil.alias for pupil in desk.everybody}
        return LogOut(
            lines=[
                EntryLogLine(
                    alias=aliases[one.pupil_id], number=one.number, written=one.written, gone=one.gone,
                    made_by=one.made_by, made_at=one.made_at.isoformat(),
                )
                for one in desk.store.log(sitting_id)
            ]
        )  # fmt: skip


@blueprint.get("/sittings/<uuid:sitting_id>/answers/<uuid:pupil_id>/<int:number>")
@blueprint.output(AboutCellOut)
def about(sitting_id: UUID, pupil_id: UUID, number: int) -> AboutCellOut:
    """All that is known of an answer and of the pupil who gave it."""
    key = str(pupil_id)
    with shelf() as mine:
        sitting = Sittings(mine.session, mine.teacher_id).one(sitting_id)
        year = year_of(mine, sitting.class_id)
    answers = next(found for one, found in zip(year.sittings, year.answers, strict=True) if one.id == sitting_id)
    if key not in answers.cells or number >= len(answers.asked):
        raise NotFoundError("This pupil or problem is not in the sitting any more.")
    return AboutCellOut(about_cell(year.seen, answers, key, number))


@blueprint.post("/sittings/<uuid:sitting_id>/read")
@blueprint.input(BringAnswersIn)
@blueprint.output(BroughtTable)
def read_table(sitting_id: UUID, json_data: BringAnswersIn) -> BroughtTable:
    """A table of answers, its columns and lines matched; nothing is entered by asking."""
    with shelf() as mine:
        desk = SittingDesk(mine, sitting_id)
        texts = [question_view(one.question, 0).text for one in desk.answers.asked]
        found = answers_table.read(json_data.text, texts, {one.alias: str(one.id) for one in desk.pupils})
    return BroughtTable(
        columns=list(found.columns),
        questions=list(found.questions),
        rows=[
            BroughtRow(
                line=row.line, alias=row.alias, pupil_id=UUID(row.pupil) if row.pupil else None,
                written=list(row.written), why=row.why,
            )
            for row in found.rows
        ],
        said=list(found.said),
    )  # fmt: skip


# What happened --------------------------------------------------------------------------------------------------------


@blueprint.get("/sittings/<uuid:sitting_id>/happened")
@blueprint.output(HappenedOut)
def what_happened(sitting_id: UUID) -> HappenedOut:
    """What happened in a sitting, by misconception and by problem."""
    with shelf() as mine:
        desk = SittingDesk(mine, sitting_id)
    return HappenedOut(happened_view(desk.answers, desk.seen))


# Next -----------------------------------------------------------------------------------------------------------------


@blueprint.get("/sittings/<uuid:sitting_id>/next")
@blueprint.output(NextOut)
def what_next(sitting_id: UUID) -> NextOut:
    """Groups for what comes next, each with what to show, what to ask, and a ladder built to order."""
    return _next(sitting_id)


def _next(sitting_id: UUID) -> NextOut:
    with shelf() as mine:
        desk = SittingDesk(mine, sitting_id)
        year_returns = desk.classes.one(desk.sitting.class_id).returns
        held = desk.held()
        apart = [mixed_up(held, group) for group in held.groups]
    made = heavy.run(sittings_tasks.next_of, held.groups, desk.answers.asked, apart)
    pupils, moves = desk.seen, desk.sitting.moves
    grouped = {key for group in held.groups for key in group.pupils} | set(held.unclear)
    return NextOut(
        groups=[
            group_view(group, made[i], apart[i], desk.answers.asked, pupils, moves)
            for i, group in enumerate(held.groups)
        ],
        unclear=[pupils[key] for key in held.unclear],
        absent=[pupil for key, pupil in pupils.items() if key not in grouped],
        returns=[desk.sitting.day + timedelta(days=days) for days in year_returns],
    )


@blueprint.put("/sittings/<uuid:sitting_id>/groups")
@blueprint.input(MovesIn)
@blueprint.output(NextOut)
def move(sitting_id: UUID, json_data: MovesIn) -> NextOut:
    """Put pupils into other groups by hand."""
    with shelf() as mine:
        moves = {str(pupil): codes for pupil, codes in json_data.moves.items()}
        Sittings(mine.session, mine.teacher_id).move(sitting_id, moves)
    return _next(sitting_id)


@blueprint.post("/sittings/<uuid:sitting_id>/sets")
@blueprint.input(GroupSetIn)
@blueprint.output(SetOut, status_code=201)
def make_set(sitting_id: UUID, json_data: GroupSetIn) -> SetOut:
    """A set of a group's ladder, as it was shown, with a note of where it came from. It names no pupil and no class."""
    wish = json_data
    with shelf() as mine:
        desk = SittingDesk(mine, sitting_id)
        asked = zip_longest(wish.problems, wish.targets[: len(wish.problems)])
        fields = [{"source": read_any(problem).text, "target": target} for problem, target in asked]
        stored = desk.sitting.questions[0].get("ways", {})
        day = day_of(desk.sitting.day)
        note = f"the {_KIND[desk.sitting.kind]} of {day}, {desk.sitting.title}."
        about_ = code_names(wish.codes, voice_of(desk.ways))
        return set_of_group(mine, about_, fields, stored, wish.pupils, desk.sitting.title, note)


def set_of_group(
    mine: Shelf,
    held: Sequence[str],
    fields: Sequence[Mapping[str, Any]],
    ways: Mapping[str, str],
    pupils: int,
    of: str,
    after: str,
) -> SetOut:
    """A set of some *fields* of examples for a group; *held* is what it holds, the note tells what it came *after*."""
    title = f"{' and '.join(held)[:60] or 'Ready to go on'}: after {of}"
    house = mine.house_ways()
    about = {
        "ways": {name: code for name, code in ways.items() if house.get(name) != code},
        "note": f"Made for {'1 pupil' if pupils == 1 else f'{pupils} pupils'} after {after}",
    }
    return set_view(mine, mine.add_set(title[0].upper() + title[1:120], fields, about=about))


_KIND = {"board": "lesson at the board", "quiz": "quiz", "homework": "homework", "warm-up": "warm-up"}
