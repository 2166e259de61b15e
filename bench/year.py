"""What a teacher and a year come to, in rows and bytes: forty weeks of sets, changes and sittings, made through the
store.

./slate bench year [TEACHERS]: so many teachers (3), each with three sets a week of eight examples and thirty changes,
and a sitting of 26 pupils by 8 questions, every tenth answer written anew.
"""

from __future__ import annotations

import random
import uuid
from collections.abc import Sequence
from datetime import date, timedelta

from sqlalchemy import Engine, text
from sqlalchemy.orm import Session

from bench.load import problem
from keen_slate.store.classes import Classes
from keen_slate.store.database import migrate, open_engine
from keen_slate.store.models import Teacher
from keen_slate.store.shelf import Shelf
from keen_slate.store.sittings import Entered, Sittings
from tools.throw_away import database

WEEKS, SETS, EXAMPLES, CHANGES, PUPILS = 40, 3, 8, 30, 26
SCHOOLS = (1_000, 100_000, 10_000_000)


def report(teachers: int) -> None:
    """Print rows and bytes for a teacher and year, by table, and what so many teachers of `SCHOOLS` come to."""
    with database() as records:
        migrate(records.url)
        engine = open_engine(records.url)
        before = _sizes(engine)
        for i in range(teachers):
            a_year(engine, random.Random(i))
        after = _sizes(engine)
        engine.dispose()
    rows, sizes = 0.0, 0.0
    for table, (count, size) in sorted(after.items(), key=lambda one: -one[1][1]):
        more, larger = (count - before[table][0]) / teachers, (size - before[table][1]) / teachers
        rows, sizes = rows + more, sizes + larger
        if more:
            print(f"year: {table:14} {more:9,.0f} rows {larger / 1024:10,.0f} kB")
    print(f"year: a teacher and year: {rows:,.0f} rows, {sizes / 1024**2:.1f} MB with indexes")
    for count in SCHOOLS:
        print(f"year: {count:10,} teachers: {count * sizes / 1024**3:12,.0f} GB a year")


def _sizes(engine: Engine) -> dict[str, tuple[int, int]]:
    """Rows, and bytes with indexes and what is stored aside, of each table, after what is gone was swept up."""
    with engine.connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
        connection.execute(text("vacuum full"))
        tables = connection.execute(text("select tablename from pg_tables where schemaname = 'public'")).scalars().all()
        return {
            table: (
                connection.execute(text(f"select count(*) from {table}")).scalar_one(),
                connection.execute(text("select pg_total_relation_size(:table)"), {"table": table}).scalar_one(),
            )
            for table in tables
        }


def a_year(engine: Engine, dice: random.Random) -> None:
    """A teacher's year."""
    teacher = uuid.uuid4()
    with Session(engine) as session, session.begin():
        session.add(Teacher(id=teacher, name="A teacher"))
        session.flush()
        made = Classes(session, teacher).add("Heron", [f"Pupil {i}" for i in range(PUPILS)])
        class_id, pupils = made.id, [one.id for one in Classes(session, teacher).pupils(made.id)]
    day = date(2026, 9, 7)
    for week in range(WEEKS):
        problems = [[problem(dice) for _ in range(EXAMPLES)] for _ in range(SETS)]
        for one in problems:
            _a_set(engine, teacher, one, dice)
        _a_sitting(engine, teacher, class_id, pupils, problems[0], day + timedelta(days=7 * week), dice)


def _a_set(engine: Engine, teacher: uuid.UUID, problems: Sequence[str], dice: random.Random) -> None:
    with Session(engine) as session, session.begin():
        made = Shelf(session, teacher).add_set("Planks and ropes", [{"source": one} for one in problems])
        set_id = made.id
    for _ in range(CHANGES):
        with Session(engine) as session, session.begin():
            shelf = Shelf(session, teacher)
            found = shelf.one_set(set_id)
            example = dice.choice(found.examples)
            fields = dice.choice(
                ({"source": problem(dice)}, {"note": "Ask Sedge first."}, {"fading": {"hide": dice.randint(0, 3)}})
            )
            shelf.change_examples(set_id, found.version, {example.id: fields})


def _a_sitting(
    engine: Engine, teacher: uuid.UUID, class_id: uuid.UUID, pupils: Sequence[uuid.UUID], problems: Sequence[str],
    day: date,
    dice: random.Random,
) -> None:  # fmt: skip
    with Session(engine) as session, session.begin():
        sittings = Sittings(session, teacher)
        sitting = sittings.bring(class_id, "Planks", [{"source": one} for one in problems], day, "quiz")
        for pupil in pupils:
            written = [f"{dice.randint(1, 9)} {dice.randint(1, 11)}/12" for _ in problems]
            sittings.enter(sitting.id, [Entered(pupil, i, one) for i, one in enumerate(written)])
            again = [i for i in range(len(problems)) if dice.random() < 0.1]
            if again:
                sittings.enter(sitting.id, [Entered(pupil, i, "1/2") for i in again])
