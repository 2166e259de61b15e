"""Classes on a real PostgreSQL: cells entered by two at once, what is removed and forgotten, teachers kept apart, a
class brought from a file.
"""

import threading
import unittest
import uuid
import zlib
from datetime import date, timedelta

from sqlalchemy import text
from sqlalchemy.orm import Session

from keen_slate.core.limits import MOST_PUPILS
from keen_slate.store.classes import ClassError, Classes
from keen_slate.store.forgetting import forget
from keen_slate.store.models import SchoolClass, Sitting
from keen_slate.store.shelf import NotFoundError, Shelf
from keen_slate.store.sittings import Entered, Sittings
from tests import support

QUESTIONS = [{"source": "7 1/4 - 3 5/6", "target": None, "ways": {}, "points": {}, "labels": False}] * 3


class ClassTests(unittest.TestCase):
    def setUp(self):
        self.teacher = support.new_teacher()
        self.session = self.enterContext(Session(support.engine()))
        self.classes = Classes(self.session, self.teacher)
        self.sittings = Sittings(self.session, self.teacher)
        self.heron = self.classes.add("Heron", ["Sedge", "Alder"])
        self.sedge, self.alder = [pupil.id for pupil in self.classes.pupils(self.heron.id)]
        self.sat = self.sittings.bring(self.heron.id, "Planks", QUESTIONS, date(2026, 11, 12), "quiz")
        self.session.commit()

    def entered(self):
        self.session.expire_all()
        return {(row.pupil_id, row.number): (row.written, row.counter) for row in self.sittings.answers([self.sat.id])}

    def test_the_last_entry_of_a_cell_holds_and_all_are_in_the_log(self):
        for written in ("4 7/12", "3 5/12"):
            self.sittings.enter(self.sat.id, [Entered(self.sedge, 0, written), Entered(self.alder, 2, None)])
        self.sittings.enter(self.sat.id, [Entered(self.alder, 2, None, gone=True)])
        self.assertEqual(self.entered(), {(self.sedge, 0): ("3 5/12", 3)})
        emptied = [self.sittings.emptied(self.sat.id, since) for since in (4, 5)]
        self.assertEqual(emptied, [[(self.alder, 2)], []])
        log = [(row.counter, row.written, row.gone, row.made_by) for row in self.sittings.log(self.sat.id)]
        self.assertEqual(log[0], (5, None, True, "teacher"))
        self.assertEqual([row[0] for row in log], [5, 4, 3, 2, 1])
        self.assertEqual([row.written for row in self.sittings.answers([self.sat.id], since=2)], ["3 5/12"])

    def test_two_who_enter_at_once_lose_nothing(self):
        errors = []
        sat = self.sat.id

        def enter(pupil, numbers):
            try:
                for i in range(20):
                    with Session(support.engine()) as session, session.begin():
                        Sittings(session, self.teacher).enter(sat, [Entered(pupil, n, str(i)) for n in numbers])
            except Exception as error:
                errors.append(error)

        both = [
            threading.Thread(target=enter, args=one)
            for one in ((self.sedge, [0, 1]), (self.alder, [0, 1]), (self.sedge, [2]))
        ]
        for one in both:
            one.start()
        for one in both:
            one.join()
        self.assertEqual(errors, [])
        found = self.entered()
        self.assertEqual({cell: written for cell, (written, _) in found.items()}, dict.fromkeys(found, "19"))
        self.assertEqual(len(found), 5)
        counters = [row.counter for row in self.sittings.log(self.sat.id)]
        self.assertEqual(counters, list(range(100, 0, -1)))  # every entry has a number of its own

    def test_who_is_not_in_the_class_is_passed_over(self):
        stranger = self.classes.add("Kestrel", ["Moss"])
        (moss,) = self.classes.pupils(stranger.id)
        self.sittings.enter(
            self.sat.id, [Entered(moss.id, 0, "1"), Entered(uuid.uuid4(), 0, "1"), Entered(self.sedge, 3, "1")]
        )
        self.assertEqual(self.entered(), {})

    def test_aliases_are_told_apart_and_sixty_are_enough(self):
        for aliases, said in (
            (["sedge"], "two pupils called sedge"),
            (["Ling", "LING"], "two pupils"),
            ([str(i) for i in range(MOST_PUPILS - 1)], "61"),
        ):
            with self.assertRaisesRegex(ClassError, said):
                self.classes.add_pupils(self.heron.id, aliases)
        with self.assertRaisesRegex(ClassError, "two pupils called ALDER"):
            self.classes.change_pupil(self.heron.id, self.sedge, {"alias": "ALDER"})
        self.classes.change_pupil(self.heron.id, self.sedge, {"alias": "SEDGE", "here": False})
        self.assertEqual(
            [(one.alias, one.here) for one in self.classes.pupils(self.heron.id)], [("SEDGE", False), ("Alder", True)]
        )

    def test_another_teacher_finds_nothing_of_it(self):
        other = support.new_teacher()
        classes, sittings = Classes(self.session, other), Sittings(self.session, other)
        self.assertEqual(classes.all(), [])
        for look in (
            lambda: classes.one(self.heron.id), lambda: classes.remove(self.heron.id),
            lambda: sittings.one(self.sat.id),
            lambda: sittings.enter(self.sat.id, [Entered(self.sedge, 0, "1")]), lambda: sittings.remove(self.sat.id),
            lambda: classes.remove_pupil(self.heron.id, self.sedge),
        ):  # fmt: skip
            self.assertRaises(NotFoundError, look)
        self.assertEqual(sittings.answers([self.sat.id]), [])

    def test_old_sittings_are_forgotten_with_all_that_was_in_them(self):
        self.sittings.remove(self.sat.id)
        today = date.today()
        other = self.classes.add("Wren", ["Moss"])
        days = {"day": today - timedelta(days=365 + 1), "stays": today - timedelta(days=364)}
        sat = {
            name: self.sittings.bring(self.heron.id, name, QUESTIONS, day, "quiz").id for name, day in days.items()
        } | {"wren": self.sittings.bring(other.id, "wren", QUESTIONS, date(2020, 1, 2), "quiz").id}  # fmt: skip
        for one in (sat["day"], sat["stays"]):
            self.sittings.enter(one, [Entered(self.sedge, 0, "1")])
        self.classes.change(self.heron.id, {"forget_months": 12})
        self.session.get_one(SchoolClass, (self.teacher, self.heron.id)).known = {"said": "of both"}
        forget(support.desk_url())  # what other tests have left
        self.session.commit()
        self.assertEqual(forget(support.desk_url()), 1)
        self.session.expire_all()
        self.assertEqual([one.title for one in self.sittings.of_class(self.heron.id)], ["stays"])
        self.assertEqual([one.title for one in self.sittings.of_class(other.id)], ["wren"])
        self.assertIsNone(self.session.get_one(SchoolClass, (self.teacher, self.heron.id)).known)
        self.assertEqual([one.sitting_id for one in self.sittings.answers(list(sat.values()))], [sat["stays"]])

    def test_what_is_kept_beside_answers_goes_with_the_rules_and_with_a_pupil(self):
        self.sittings.enter(self.sat.id, [Entered(self.sedge, 0, "4 7/12")])
        self.sittings.move(self.sat.id, {str(self.sedge): ["add-across"], str(self.alder): []})
        self.sittings.keep_known(self.sat, {"judged": ["4 7/12"]})
        self.session.commit()
        self.session.expire_all()
        self.assertEqual(self.sittings.known(self.sat), {"judged": ["4 7/12"]})
        before = self.sittings.one(self.sat.id)
        stale = Sitting(teacher_id=self.teacher, id=before.id, counter=before.counter)  # as another request has it
        self.classes.remove_pupil(self.heron.id, self.sedge)
        self.sittings.keep_known(stale, {"judged": ["4 7/12"]})  # made before she was removed: not kept again
        self.session.commit()
        self.session.expire_all()
        now = self.sittings.one(self.sat.id)
        self.assertEqual((now.known, now.moves, self.entered()), (None, {str(self.alder): []}, {}))
        self.sittings.keep_known(now, {"judged": []})
        now.known_key = "other rules"
        self.session.flush()
        self.assertEqual(self.sittings.known(now), {})

    def test_a_set_may_change_or_go_and_the_record_stays(self):
        set_id = support.new_set(self.teacher, "Boards", ["1/2 + 1/3"])
        shelf = Shelf(self.session, self.teacher)
        sat = self.sittings.add(self.heron.id, shelf.one_set(set_id), QUESTIONS, date(2026, 11, 12), "homework")
        self.sittings.enter(sat.id, [Entered(self.sedge, 0, "1")])
        shelf.put(set_id, "bin")
        shelf.empty_bin()
        self.session.commit()
        self.session.expire_all()
        kept = self.sittings.one(sat.id)
        self.assertEqual((kept.title, kept.questions, len(self.sittings.answers([sat.id]))), ("Boards", QUESTIONS, 1))
        with self.assertRaisesRegex(ClassError, "no example yet"):
            self.sittings.add(self.heron.id, shelf.add_set("Empty"), [], date(2026, 11, 12), "quiz")


def left_of(words, teacher):
    """The tables that hold one of some *words* in a row of a teacher's, compressed ones opened."""
    found = []
    with Session(support.engine()) as session:
        tables = session.scalars(
            text("select table_name from information_schema.tables where table_schema = 'public'")
        ).all()
        for table in set(tables) - {
            "alembic_version",
            "tries",
            "challenge",
            "begun",
            "school",
            "invitation",
            "school_change",
        }:  # nobody's rows
            key = "id" if table == "teacher" else "teacher_id"
            rows = session.execute(text(f"select * from {table} where {key} = :teacher"), {"teacher": teacher}).all()
            found += [(table, word) for row in rows for word in words if word in _plain(row)]
    return found


def _plain(row):
    return " ".join(zlib.decompress(one).decode() if isinstance(one, (bytes, memoryview)) else str(one) for one in row)
