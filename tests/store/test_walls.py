"""The second wall: what the database itself lets a request reach, with no query that names its teacher."""

import unittest
import uuid
from datetime import UTC, datetime, timedelta

from sqlalchemy import Engine, inspect, text
from sqlalchemy.exc import ProgrammingError
from sqlalchemy.orm import Session

from keen_slate.store import walls
from keen_slate.store.colleagues import school_named
from keen_slate.store.database import SchemaError, let_in, open_engine
from keen_slate.store.models import Base, ExampleSet, Invitation, Share, Teacher
from keen_slate.store.shelf import NotFoundError, Shelf
from tests import support
from tests.store.filled import filled
from tools.postgres import USER

NOBODYS = {"tries", "challenge", "begun"}  # counts under hashes, and numbers; everything else is somebody's
HEADS = ("invitation", "school_change")
TABLES = sorted(set(Base.metadata.tables) - NOBODYS)
# What one colleague sees of another: common practice; her name, what she shares, and the school that they are in.
OF_A_COLLEAGUE = {"teacher": 1, "share": 2, "example_set": 1, "example": 2}


class WallTests(unittest.TestCase):
    alone: uuid.UUID
    colleague: uuid.UUID
    desk: Engine
    head: uuid.UUID
    other_school: str
    owner: uuid.UUID
    school: str
    schools: dict[uuid.UUID, uuid.UUID | None]
    stranger: uuid.UUID

    @classmethod
    def setUpClass(cls):
        cls.desk = open_engine(support.desk_url())
        cls.addClassCleanup(cls.desk.dispose)
        cls.school, cls.other_school = f"Wren {uuid.uuid4().hex}", f"Marsh {uuid.uuid4().hex}"
        cls.owner = filled(cls.school)
        cls.colleague = filled(cls.school)
        cls.head = filled(cls.school, head=True)
        cls.stranger = filled(cls.other_school)
        cls.alone = support.new_teacher()
        cls.schools = {one: cls.school_of(one) for one in (cls.owner, cls.stranger)}

    def at_desk(self, teacher=None, **more):
        """A session as the application has it, for *teacher*."""
        session = Session(self.desk)
        self.addCleanup(session.close)
        if teacher is not None:
            walls.reach(session, walls.TEACHER, teacher)
        for what, value in more.items():
            walls.reach(session, what, value)
        return session

    def rows_of(self, session, owner):
        """How many rows of the teacher *owner* there are in each table, as *session* sees it."""
        counts = {}
        for table in TABLES:
            key = {"teacher": "id", "school": "id", **dict.fromkeys(HEADS, "school_id")}.get(table, "teacher_id")
            value = self.schools[owner] if table in ("school", *HEADS) else owner
            asked = text(f"select count(*) from {table} where {key} = :value")
            counts[table] = session.execute(asked, {"value": value}).scalar()
        return counts

    @staticmethod
    def school_of(teacher):
        with Session(support.engine()) as session:
            return session.get_one(Teacher, teacher).school_id

    def test_every_table_has_the_wall(self):
        tables = text("select relname, relrowsecurity from pg_class where relname = any(:names) and relkind = 'r'")
        with support.engine().connect() as connection:
            walled = dict(connection.execute(tables, {"names": TABLES}).all())
        self.assertEqual(walled, dict.fromkeys(TABLES, True))

    def test_each_table_shows_what_is_ones_own_and_what_is_shared_and_nothing_else(self):
        with Session(support.engine()) as session:
            everything = self.rows_of(session, self.owner)
        self.assertEqual([table for table, count in everything.items() if not count], [])  # each is looked at
        nothing = dict.fromkeys(TABLES, 0)
        own = everything | dict.fromkeys(HEADS, 0)
        of_school = {"school": 1}
        seen = {
            "herself": (self.at_desk(self.owner), own),
            "a colleague": (self.at_desk(self.colleague), nothing | OF_A_COLLEAGUE | of_school),
            "the head": (
                self.at_desk(self.head),
                nothing | OF_A_COLLEAGUE | of_school | {table: everything[table] for table in HEADS},
            ),
            "another school": (self.at_desk(self.stranger), nothing),
            "no school": (self.at_desk(self.alone), nothing),
            "nobody": (self.at_desk(), nothing),
            "a teacher who is not there": (self.at_desk(uuid.uuid4()), nothing),
        }
        for who, (session, expected) in seen.items():
            with self.subTest(who):
                self.assertEqual(self.rows_of(session, self.owner), expected)

    def test_nobody_writes_in_what_is_anothers(self):
        for who in (self.colleague, self.head, self.stranger, self.alone):
            for table in TABLES:
                if table in ("teacher", "school", *HEADS):
                    continue
                asked = {"owner": self.owner}
                with self.at_desk(who) as session:
                    change = text(f"update {table} set teacher_id = teacher_id where teacher_id = :owner")
                    changed = session.execute(change, asked)
                    gone = session.execute(text(f"delete from {table} where teacher_id = :owner"), asked)
                self.assertEqual((changed.rowcount, gone.rowcount), (0, 0), table)
        session = self.at_desk(self.stranger)
        session.add(ExampleSet(teacher_id=self.owner, id=uuid.uuid4(), title="x", version=1))
        with self.assertRaisesRegex(ProgrammingError, "row-level security"):
            session.flush()

    def test_the_first_wall_taken_out_the_second_holds(self):
        with Session(support.engine()) as session:
            theirs = [one.id for one in Shelf(session, self.owner).sets()]
        self.assertEqual(len(theirs), 2)
        # A shelf that asks in the name of another: what a forgotten filter comes to.
        forgetful = Shelf(self.at_desk(self.stranger), self.owner)
        self.assertEqual((list(forgetful.sets()), forgetful.counts()["shelf"]), ([], 0))
        with self.assertRaises(NotFoundError):
            forgetful.one_set(theirs[0])

    def test_what_decides_who_reaches_what_is_not_the_applications_to_change(self):
        school = self.school_of(self.owner)
        for said in (
            f"update teacher set school_id = '{school}' where id = keen_slate_me()",
            "update teacher set head = true where id = keen_slate_me()",
            "update school set name = 'x'",
            "delete from alembic_version",
            "alter table example_set disable row level security",
            "set role keen_slate_app",
        ):
            with self.subTest(said), self.assertRaisesRegex(ProgrammingError, "permission denied|must be owner"):
                self.at_desk(self.stranger).execute(text(said))
        new = uuid.uuid4()
        for more in ({"school_id": school}, {"head": True}):
            session = self.at_desk(new)
            session.add(Teacher(id=new, name="x", **more))
            with self.assertRaisesRegex(ProgrammingError, "row-level security"):
                session.flush()

    def test_an_address_a_key_and_a_link_open_one_thing_each(self):
        address = f"{self.owner.hex}@wren.example"
        self.assertEqual(
            self.rows_of(self.at_desk(address=address), self.owner), dict.fromkeys(TABLES, 0) | {"account": 1}
        )
        with Session(support.engine()) as session, session.begin():
            shelf = Shelf(session, self.owner)
            key = shelf.show(shelf.sets()[-1].id, True).show_key
            invited = Invitation(school_id=self.school_of(self.stranger), secret=uuid.uuid4().hex, name="Reed")
            session.add(invited)
            secret = invited.secret
        shown = self.rows_of(self.at_desk(shown=key), self.owner)
        self.assertEqual((shown["example_set"], shown["teacher"], shown["school"], shown["share"], shown["answer"]),
            (1, 1, 1, 0, 0))  # fmt: skip
        seen = self.at_desk(link=secret).execute(
            text("select (select count(*) from invitation), (select name from school)")
        )
        self.assertEqual(tuple(seen.one()), (1, self.other_school))

    def test_what_was_said_ends_with_its_transaction(self):
        engine = open_engine(support.desk_url())
        self.addCleanup(engine.dispose)
        with Session(engine) as session:
            walls.reach(session, walls.TEACHER, self.owner)
            before = session.execute(text("select pg_backend_pid(), count(*) from school_class")).one()
            session.commit()
            again = session.execute(text("select pg_backend_pid(), count(*) from school_class")).one()
        with Session(engine) as session:
            other = session.execute(text("select pg_backend_pid(), count(*) from school_class")).one()
        self.assertEqual(before, again)  # the session says it anew
        self.assertEqual((other[0], other[1]), (before[0], 0))  # the same connection, for somebody else

    def test_a_school_is_joined_by_its_invitation_alone_and_left_by_its_heads_word(self):
        with Session(support.engine()) as session, session.begin():
            school = school_named(session, self.school)
            for age, secret in ((0, "new" + self.alone.hex), (8, "old" + self.alone.hex)):
                session.add(Invitation(school_id=school.id, secret=secret, name="x"))
                session.flush()
                session.execute(
                    text("update invitation set made_at = now() - make_interval(days => :age) where secret = :secret"),
                    {"age": age, "secret": secret},
                )
        joining = text("select keen_slate_join(:secret)")
        for teacher, secret, joined in (
            (self.alone, "guessed", False), (self.alone, "old" + self.alone.hex, False),
            (None, "new" + self.alone.hex, False),
        ):  # fmt: skip
            session = self.at_desk(teacher)
            self.assertIs(session.execute(joining, {"secret": secret}).scalar(), joined)
            session.rollback()
        new = filled(self.other_school)
        with self.at_desk(new) as session:
            self.assertIs(session.execute(joining, {"secret": "new" + self.alone.hex}).scalar(), True)
            self.assertIs(session.execute(joining, {"secret": "new" + self.alone.hex}).scalar(), False)  # once
            session.commit()
        self.assertEqual(self.school_of(new), self.schools[self.owner])
        dismissing = text("select keen_slate_dismiss(:other)")
        for who, other, done in (
            (self.colleague, new, False), (self.stranger, new, False), (self.head, self.head, False),
            (self.head, self.stranger, False), (self.head, new, True), (self.head, new, False),
        ):  # fmt: skip
            session = self.at_desk(who)
            self.assertIs(session.execute(dismissing, {"other": other}).scalar(), done)
            session.commit()
        self.assertEqual((self.school_of(new), self.school_of(self.stranger)), (None, self.schools[self.stranger]))
        with Session(support.engine()) as session:
            self.assertEqual(session.query(Share).filter_by(teacher_id=new).count(), 0)  # what was shared stays behind

    def test_whose_way_back_is_over_is_gone_from_every_table(self):
        leaving = filled(f"Pond {uuid.uuid4().hex}")
        self.schools[leaving] = None
        with Session(support.engine()) as session, session.begin():
            session.get_one(Teacher, leaving).leaves_at = datetime.now(UTC) - timedelta(minutes=1)
        with self.at_desk() as session:
            session.execute(text("select keen_slate_forget()"))
            session.commit()
        with Session(support.engine()) as session:
            left = self.rows_of(session, leaving)
            staying = self.rows_of(session, self.owner)
        self.assertEqual({table for table, count in left.items() if count}, set())
        self.assertTrue(all(staying.values()))

    def test_the_application_is_let_in_only_where_the_wall_holds_for_it(self):
        url = support.database_url()
        for role in (USER, "keen_slate", "nobody at all"):
            with self.subTest(role), self.assertRaisesRegex(SchemaError, "Make a role that owns nothing"):
                let_in(url, role)
        self.assertEqual(inspect(self.desk).dialect.name, "postgresql")
