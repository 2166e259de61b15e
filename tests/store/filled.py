"""Rows of one teacher in every table, so that a test over all tables looks at something in each."""

from __future__ import annotations

import uuid
from datetime import date

from sqlalchemy.orm import Session

from keen_slate.store import accounts, doors
from keen_slate.store.classes import Classes
from keen_slate.store.colleagues import Colleagues, school_named
from keen_slate.store.house import House
from keen_slate.store.models import Answered, Identity, Invitation, LogLine, OwnScenario, Passkey, SchoolChange, Teacher
from keen_slate.store.shelf import Shelf
from keen_slate.store.sittings import Entered, Sittings
from tests import support

PROBLEMS = [{"source": "7 1/4 - 3 5/6 ft"}, {"source": "9 - 4 2/3 ft"}]


def filled(school: str, head: bool = False) -> uuid.UUID:
    """A teacher of *school* with rows in every table; two sets on the shelf, the first of them shared, as one in the
    bin is.
    """
    made = support.new_teacher()
    with Session(support.engine()) as session, session.begin():
        teacher = session.get_one(Teacher, made)
        teacher.school_id = school_named(session, school).id
        teacher.head = head
        doors.begin(session, made, by_link=True)
        doors.new_link(session, made)
        accounts.keep(session, made, f"{made.hex}@wren.example", "a long enough one")
        House(session, made).put(1, {"ties": "down"})
        shelf = Shelf(session, made)
        sets = [shelf.add_set(title, PROBLEMS) for title in ("Planks", "Boards", "Rope")]
        shelf.change_set(sets[0].id, 1, {"note": "For Monday."})
        for one in (sets[0], sets[2]):
            Colleagues(session, teacher).share(one.id, True)
        shelf.put(sets[2].id, "bin")
        Colleagues(session, teacher).share(
            sets[1].id, True, [uuid.uuid4()]
        )  # with one alone, who is none of the test's
        classes, sittings = Classes(session, made), Sittings(session, made)
        heron = classes.add("Heron", ["Sedge"])
        (sedge,) = classes.pupils(heron.id)
        sat = sittings.bring(heron.id, "Planks", [{"source": "1/2 + 1/3"}], date(2026, 11, 12), "quiz")
        sittings.enter(sat.id, [Entered(sedge.id, 0, "4 7/12")])
        session.add_all([
            Answered(teacher_id=made, key=uuid.uuid4(), status=200, body=b"x"),
            Passkey(teacher_id=made, id="x", public_key=b"x", count=0, name="Phone"),
            Identity(hashed=uuid.uuid4().hex, teacher_id=made, name="sedge@wren.example"),
            OwnScenario(teacher_id=made, code="boats", document={}),
            LogLine(teacher_id=made, id=uuid.uuid4(), said="Signed in."),
            Invitation(school_id=teacher.school_id, secret=uuid.uuid4().hex, name="Yarrow"),
        ])  # fmt: skip
        session.merge(SchoolChange(school_id=teacher.school_id, number=0, said="", after={}))
    return made
