"""The classes of the teacher at the desk: pupils under aliases, what they hold over time, what comes back today."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import date
from uuid import UUID

from apiflask import APIBlueprint

from keen_slate.core.days import day_of
from keen_slate.core.documents.over_time import PupilPage, called, pupil_page
from keen_slate.core.documents.sitting import next_problem
from keen_slate.core.sittings.holding import mixed_up
from keen_slate.core.stories.any_text import read_any
from keen_slate.store.classes import ClassError, Classes
from keen_slate.store.models import SchoolClass
from keen_slate.store.shelf import Shelf

from . import heavy, session, sittings_tasks
from .desk import shelf
from .over_time import KeptYear, class_page, warm_up, year_of
from .sat import as_seen
from .schemas.classes import (
    BackOut,
    ClassChange,
    ClassesOut,
    ClassIn,
    ClassOut,
    ClassSummary,
    GroupNowIn,
    OverTimeOut,
    PupilChange,
    PupilPageOut,
    PupilsIn,
    TodayOut,
    TodayQuery,
    TodaysOut,
    WarmUpIn,
)
from .schemas.sets import SetOut
from .sets import set_view
from .sittings import set_of_group

blueprint = APIBlueprint("classes", __name__, url_prefix="/api")


@contextmanager
def classes() -> Iterator[tuple[Shelf, Classes]]:
    """The classes of the teacher at the desk, with her shelf."""
    with shelf() as mine:
        yield mine, Classes(mine.session, mine.teacher_id)


@blueprint.get("/classes")
@blueprint.output(ClassesOut)
def list_classes() -> ClassesOut:
    """The classes by name."""
    with classes() as (_, mine):
        return ClassesOut(
            classes=[
                ClassSummary(
                    id=one.school_class.id, name=one.school_class.name, pupils=one.pupils, sittings=one.sittings,
                    last=one.last,
                )
                for one in mine.all()
            ]
        )  # fmt: skip


@blueprint.post("/classes")
@blueprint.input(ClassIn)
@blueprint.output(ClassOut, status_code=201)
def add_class(json_data: ClassIn) -> ClassOut:
    """A new class."""
    with classes() as (shelf_, mine):
        made = mine.add(json_data.name, json_data.aliases)
        session.about_class(made.id)
        return class_view(shelf_, made)


@blueprint.get("/classes/<uuid:class_id>")
@blueprint.output(ClassOut)
def get_class(class_id: UUID) -> ClassOut:
    """A class with its pupils and sittings."""
    with classes() as (shelf_, mine):
        return class_view(shelf_, mine.one(class_id))


@blueprint.patch("/classes/<uuid:class_id>")
@blueprint.input(ClassChange)
@blueprint.output(ClassOut)
def change_class(class_id: UUID, json_data: ClassChange) -> ClassOut:
    """Change the name of a class, the days on which things come back, or when it forgets."""
    session.about_class(class_id)
    changes = json_data.model_dump(exclude_none=True)
    if "returns" in changes:
        changes["returns"] = sorted(set(changes["returns"]))
    if changes.get("forget_months") == 0:
        changes["forget_months"] = None
    with classes() as (shelf_, mine):
        return class_view(shelf_, mine.change(class_id, changes))


@blueprint.delete("/classes/<uuid:class_id>")
@blueprint.output({}, status_code=204)
def remove_class(class_id: UUID) -> str:
    """Take a class away with all that its pupils wrote, for good."""
    with classes() as (_, mine):
        mine.remove(class_id)
    return ""


# Pupils ---------------------------------------------------------------------------------------------------------------


@blueprint.post("/classes/<uuid:class_id>/pupils")
@blueprint.input(PupilsIn)
@blueprint.output(ClassOut, status_code=201)
def add_pupils(class_id: UUID, json_data: PupilsIn) -> ClassOut:
    """Further pupils of a class."""
    session.about_class(class_id)
    with classes() as (shelf_, mine):
        found = mine.one(class_id)
        mine.add_pupils(class_id, json_data.aliases)
        return class_view(shelf_, found)


@blueprint.patch("/classes/<uuid:class_id>/pupils/<uuid:pupil_id>")
@blueprint.input(PupilChange)
@blueprint.output(ClassOut)
def change_pupil(class_id: UUID, pupil_id: UUID, json_data: PupilChange) -> ClassOut:
    """Another alias, or whether a pupil is still here; her answers stay."""
    session.about_class(class_id)
    with classes() as (shelf_, mine):
        mine.change_pupil(class_id, pupil_id, json_data.model_dump(exclude_none=True))
        return class_view(shelf_, mine.one(class_id))


@blueprint.delete("/classes/<uuid:class_id>/pupils/<uuid:pupil_id>")
@blueprint.output({}, status_code=204)
def remove_pupil(class_id: UUID, pupil_id: UUID) -> str:
    """Take a pupil away with all that she wrote, for good."""
    with classes() as (_, mine):
        mine.remove_pupil(class_id, pupil_id)
    return ""


def class_view(mine: Shelf, found: SchoolClass) -> ClassOut:
    """A class as the API shows it."""
    year = year_of(mine, found.id)
    return ClassOut(
        id=found.id, name=found.name, returns=found.returns, forget_months=found.forget_months or 0,
        pupils=[as_seen(one) for one in year.pupils],
        sittings=[*reversed(class_page(year).sittings)],
    )  # fmt: skip


# Over time ------------------------------------------------------------------------------------------------------------


@blueprint.get("/classes/<uuid:class_id>/over-time")
@blueprint.output(OverTimeOut)
def over_time(class_id: UUID) -> OverTimeOut:
    """A class over all its sittings."""
    with shelf() as mine:
        return OverTimeOut(class_page(year_of(mine, class_id)))


@blueprint.post("/classes/<uuid:class_id>/sets")
@blueprint.input(GroupNowIn)
@blueprint.output(SetOut, status_code=201)
def make_group_set(class_id: UUID, json_data: GroupNowIn) -> SetOut:
    """A set built to order for a group as it stands after all that the class wrote. It names no pupil and no class."""
    with shelf() as mine:
        year = year_of(mine, class_id)
    held, asked = year.over.held, year.asked
    group = next((one for one in held.groups if list(one.codes) == json_data.codes), None)
    if group is None:
        raise ClassError("This group is no more: something else was entered meanwhile.", "Look at the class again.")
    (made,) = heavy.run(sittings_tasks.next_of, [group], asked, [mixed_up(held, group)])
    problems = [*made.ladder, *([made.check] if made.check else [])]
    if not problems:
        raise ClassError("No problem could be built for this group.", "Build a ladder from the Shelf.")
    fields = [{"source": one.source, "target": one.target} for one in problems]
    here = {str(pupil.id) for pupil in year.pupils if pupil.here}
    last, day = year.sittings[-1], max(one.day for one in year.sittings)
    after = f"what was written until {day_of(day)}, {last.title} the last."
    names = [called(code, year.voice) for code in group.codes]
    with shelf() as mine:
        ways = year.sittings[0].questions[0].get("ways", {})
        return set_of_group(mine, names, fields, ways, len(here & set(group.pupils)), last.title, after)


@blueprint.get("/classes/<uuid:class_id>/pupils/<uuid:pupil_id>/over-time")
@blueprint.output(PupilPageOut)
def pupil_over_time(class_id: UUID, pupil_id: UUID) -> PupilPageOut:
    """A pupil over all sittings of her class."""
    with shelf() as mine:
        return PupilPageOut(pupil_of(mine, class_id, pupil_id))


def pupil_of(mine: Shelf, class_id: UUID, pupil_id: UUID) -> PupilPage:
    """A pupil over all sittings of her class. Raises `NotFoundError`."""
    one = Classes(mine.session, mine.teacher_id).pupil(class_id, pupil_id)
    return pupil_page(year_of(mine, class_id).seen, as_seen(one))


@blueprint.get("/today")
@blueprint.input(TodayQuery, location="query")
@blueprint.output(TodaysOut)
def today(query_data: TodayQuery) -> TodaysOut:
    """What comes back today in each class, with a warm-up made of it; classes in which nothing does are left out."""
    with classes() as (shelf_, mine):
        years = [year_of(shelf_, one.school_class.id) for one in mine.all() if one.sittings]
    found = [_today(year, query_data.day) for year in years]
    return TodaysOut(classes=[one for one in found if one is not None])


def _today(year: KeptYear, day: date) -> TodayOut | None:
    over = year.on(day)
    if not over.come_back:
        return None
    problems = warm_up(year, day)
    return TodayOut(
        class_id=year.school_class.id,
        name=year.school_class.name,
        back=[
            BackOut(what=one.what, name=called(one.what, year.voice), pupils=len(one.pupils)) for one in over.come_back
        ],
        problems=[next_problem(one) for one in problems],
    )  # fmt: skip


@blueprint.post("/warm-ups")
@blueprint.input(WarmUpIn)
@blueprint.output(SetOut, status_code=201)
def make_warm_up(json_data: WarmUpIn) -> SetOut:
    """A set of the problems of a warm-up, as they were shown."""
    wish = json_data
    targets = [*wish.targets, *[None] * len(wish.problems)]
    with shelf() as mine:
        fields = [
            {"source": read_any(problem).text, "target": target}
            for problem, target in zip(wish.problems, targets, strict=False)
        ]
        about = {"note": "Made of what comes back today."}
        return set_view(mine, mine.add_set(f"Warm-up, {wish.day.day} {wish.day:%B}", fields, about=about))
