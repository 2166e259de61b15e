"""The store on a real PostgreSQL: migrations, teachers kept apart, and changes that never overwrite each other."""

import threading
import unittest
import uuid

from alembic import command
from sqlalchemy import inspect, select
from sqlalchemy.orm import Session
from sqlalchemy.orm.exc import StaleDataError

from keen_slate.core.limits import MOST_EXAMPLES
from keen_slate.core.stories.any_text import read_any
from keen_slate.store import demo
from keen_slate.store.changes import NoChangeError
from keen_slate.store.database import migrate, migration_config, open_engine
from keen_slate.store.models import ExampleSet
from keen_slate.store.shelf import (
    FullSetError,
    NotFoundError,
    OrderError,
    Shelf,
    StaleSetError,
    fields_of,
    teacher_named,
)
from tests import support


class MigrationTests(unittest.TestCase):
    def test_tables_go_up_down_and_up_again_and_match_the_models(self):
        url = support.empty_database()
        migrate(url)
        command.check(migration_config(url))  # raises when the models have something that no migration makes
        command.downgrade(migration_config(url), "base")
        engine = open_engine(url)
        self.assertEqual(inspect(engine).get_table_names(), ["alembic_version"])
        migrate(url)
        self.assertEqual(
            sorted(inspect(engine).get_table_names()),
            [
                "account",
                "alembic_version",
                "answer",
                "answered",
                "begun",
                "challenge",
                "change",
                "entry",
                "entry_link",
                "example",
                "example_set",
                "house_change",
                "identity",
                "invitation",
                "log_line",
                "own_scenario",
                "passkey",
                "pupil",
                "school",
                "school_change",
                "school_class",
                "share",
                "sign_in",
                "sitting",
                "teacher",
                "tries",
            ],
        )
        engine.dispose()

    def test_what_was_written_before_searches_had_a_place_is_found(self):
        url = support.empty_database()
        migrate(url)
        engine = open_engine(url)
        with Session(engine) as session, session.begin():
            teacher = teacher_named(session, "Sedge").id
            Shelf(session, teacher).add_set("Über Planks", [{"source": "7 1/4 - 3 5/6", "note": "Saw Twice"}])
            before = session.scalar(select(ExampleSet.searched))
        command.downgrade(migration_config(url), "0009")
        migrate(url)
        with Session(engine) as session:
            self.assertEqual(session.scalar(select(ExampleSet.searched)), before)
            self.assertEqual(Shelf(session, teacher).count("shelf", "über twice 5/6"), 1)
        engine.dispose()

    def test_every_key_and_index_is_led_by_the_teacher(self):
        tables = inspect(support.engine())
        # Who signs in is looked up by an address or an identity, who is invited is no teacher yet, and wrong tries are
        # nobody's.
        before_the_door = {"account", "identity", "invitation", "school_change", "begun", "challenge", "tries"}
        for table in set(tables.get_table_names()) - {"alembic_version", "school", "teacher"} - before_the_door:
            self.assertEqual(tables.get_pk_constraint(table)["constrained_columns"][0], "teacher_id")
            for index in tables.get_indexes(table):
                self.assertEqual(index["column_names"][0], "teacher_id")

    def test_the_demo_is_loaded_once(self):
        url = support.empty_database()
        migrate(url)
        engine = open_engine(url)
        for _ in range(2):
            with Session(engine) as session, session.begin():
                teacher = demo.load(session)
        with Session(engine) as session:
            sets = Shelf(session, teacher).sets()
            loaded = {found.title: tuple(example.source for example in found.examples) for found in sets}
            told = {title: tuple(read_any(problem).text for problem in problems) for title, problems in demo.SETS}
            self.assertEqual((len(sets), loaded), (len(demo.SETS), told))
        engine.dispose()


class ShelfTests(unittest.TestCase):
    def setUp(self):
        self.teacher = support.new_teacher()
        self.set_id = support.new_set(self.teacher, "O'Hara <b>planks</b>", ["1/2 + 1/3", "2/3 - 1/6", "3 - 1/4"])

    def shelf(self, teacher=None):
        session = Session(support.engine(), expire_on_commit=False)
        self.addCleanup(session.close)
        return session, Shelf(session, teacher or self.teacher)

    def test_what_is_stored_comes_back_in_order(self):
        session, shelf = self.shelf()
        found = shelf.one_set(self.set_id)
        self.assertEqual(found.title, "O'Hara <b>planks</b>")
        self.assertEqual([e.source for e in found.examples], ["1/2 + 1/3", "2/3 - 1/6", "3 - 1/4"])
        order = [e.id for e in reversed(found.examples)]
        shelf.change_set(self.set_id, found.version, {}, order)
        session.commit()
        _, again = self.shelf()
        self.assertEqual([e.id for e in again.one_set(self.set_id).examples], order)

    def test_one_teacher_never_sees_the_sets_of_another(self):
        _, other = self.shelf(support.new_teacher())
        self.assertEqual(list(other.sets()), [])
        example_id = self.shelf()[1].one_set(self.set_id).examples[0].id
        for attempt in (
            lambda: other.one_set(self.set_id),
            lambda: other.example(self.set_id, example_id),
            lambda: other.change_set(self.set_id, 1, {"title": "mine"}),
            lambda: other.remove_example(self.set_id, example_id, 1),
        ):
            self.assertRaises(NotFoundError, attempt)

    def test_a_change_on_an_old_version_changes_nothing(self):
        session, shelf = self.shelf()
        version = shelf.one_set(self.set_id).version
        shelf.change_set(self.set_id, version, {"title": "new title"})
        session.commit()
        _, late = self.shelf()
        for attempt in (
            lambda: late.change_set(self.set_id, version, {"title": "late title"}),
            lambda: late.add_examples(self.set_id, version, [{"source": "1/2 + 1/5"}]),
        ):
            self.assertRaises(StaleSetError, attempt)
        self.assertEqual(self.shelf()[1].one_set(self.set_id).title, "new title")

    def test_two_changes_at_the_same_moment_cannot_both_win(self):
        version = self.shelf()[1].one_set(self.set_id).version
        barrier, outcomes = threading.Barrier(2), []

        def change(title):
            try:
                with Session(support.engine()) as session, session.begin():
                    shelf = Shelf(session, self.teacher)
                    found = shelf.one_set(self.set_id)
                    self.assertEqual(found.version, version)
                    barrier.wait(10)  # both have read before either writes
                    shelf.change_set(self.set_id, version, {"title": title})
                outcomes.append(title)
            except (StaleDataError, StaleSetError):
                outcomes.append("refused")

        threads = [threading.Thread(target=change, args=(title,)) for title in ("first", "second")]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join(20)
        self.assertEqual(outcomes.count("refused"), 1)
        self.assertIn(self.shelf()[1].one_set(self.set_id).title, outcomes)

    def test_every_change_can_be_undone_and_done_again_by_another_session(self):
        def now():
            with Session(support.engine()) as session:
                found = Shelf(session, self.teacher).one_set(self.set_id)
            return found.title, found.note, [(e.id, e.source, e.ways, e.fading, e.marks) for e in found.examples]

        def change(what):
            with Session(support.engine()) as session, session.begin():
                shelf = Shelf(session, self.teacher)
                found = shelf.one_set(self.set_id)
                before = found.version
                what(shelf, found)
                self.assertEqual(found.version, before + 1)

        first = self.shelf()[1].one_set(self.set_id).examples[0].id
        changes = [
            lambda shelf, s: shelf.change_set(s.id, s.version, {"title": "Rope"}),
            lambda shelf, s: shelf.remove_example(s.id, first, s.version),
            lambda shelf, s: shelf.add_examples(s.id, s.version, [{"source": "1/7 + 2/7"}, {"source": "1/9 + 2/9"}], 1),
            lambda shelf, s: shelf.change_set(s.id, s.version, {}, [e.id for e in reversed(s.examples)]),
            lambda shelf, s: shelf.change_examples(s.id, s.version, {s.examples[0].id: {"fading": {"hide": 2},
                "marks": {"answer": 3}}}),
            lambda shelf, s: shelf.change_set(s.id, s.version, {"note": "with strips"}),
        ]  # fmt: skip
        states = [now()]
        for what in changes:
            change(what)
            states.append(now())
        self.assertEqual(len({repr(state) for state in states}), len(states))
        for state in reversed(states[:-1]):
            change(lambda shelf, s: shelf.undo(s.id, s.version))
            self.assertEqual(now(), state)
        with self.assertRaises(NoChangeError):  # the set as it began cannot be undone
            while True:
                change(lambda shelf, s: shelf.undo(s.id, s.version))
        for _ in states[1:]:
            change(lambda shelf, s: shelf.undo(s.id, s.version, +1))
        self.assertEqual(now(), states[-1])
        change(lambda shelf, s: shelf.undo(s.id, s.version))
        change(lambda shelf, s: shelf.change_set(s.id, s.version, {"title": "Other"}))
        _, shelf = self.shelf()
        self.assertEqual(shelf.history(shelf.one_set(self.set_id)).said(), ("Renamed", None))

    def test_sets_are_found_by_words_and_lie_in_one_place(self):
        teacher = support.new_teacher()
        rope = support.new_set(teacher, "Rope 100%", ["1/2 + 1/3"])
        support.new_set(teacher, "Planks_", ["7 1/4 - 3 5/6 ft"])
        _, shelf = self.shelf(teacher)
        for words, titles in (
            ("rope", ["Rope 100%"]),
            ("3 5/6", ["Planks_"]),
            ("%", ["Rope 100%"]),
            ("_", ["Planks_"]),
            ("rope 5/6", []),
        ):
            self.assertEqual([s.title for s in shelf.sets(search=words)], titles, words)
        # What is looked for is what stands there now: after a change, after its undoing, in other letters.
        found = shelf.one_set(rope)
        shelf.change_set(rope, found.version, {"note": "FÜR Übung", "standards": ["5.NF.A.1"]})
        self.assertEqual([s.title for s in shelf.sets(search="übung 5.nf 1/3")], ["Rope 100%"])
        self.assertEqual((shelf.count("shelf", "für"), shelf.count("shelf", "1/2\n")), (1, 1))
        shelf.undo(rope, found.version)
        self.assertEqual(shelf.sets(search="übung"), [])
        shelf.add_examples(rope, found.version, [{"source": "5 - 2 1/4"}])
        self.assertEqual(shelf.count("shelf", "2 1/4"), 1)
        shelf.put(rope, "bin")
        self.assertEqual([s.title for s in shelf.sets()], ["Planks_"])
        self.assertEqual(shelf.counts(), {"shelf": 1, "archive": 0, "bin": 1})
        copy = shelf.add_set("Copy", map(fields_of, shelf.one_set(rope).examples), shelf.one_set(rope))
        self.assertEqual([e.source for e in copy.examples], ["1/2 + 1/3", "5 - 2 1/4"])
        self.assertEqual((shelf.empty_bin(), shelf.counts()["bin"]), (1, 0))

    def test_an_order_must_name_every_example_once(self):
        _, shelf = self.shelf()
        found = shelf.one_set(self.set_id)
        ids = [e.id for e in found.examples]
        for order in (ids[:2], [ids[0], ids[0], ids[1]], [*ids, uuid.uuid4()]):
            self.assertRaises(OrderError, shelf.change_set, self.set_id, found.version, {}, order)

    def test_a_full_set_takes_no_more(self):
        teacher = support.new_teacher()
        set_id = support.new_set(teacher, "full", ["1/2 + 1/3"] * MOST_EXAMPLES)
        _, shelf = self.shelf(teacher)
        version = shelf.one_set(set_id).version
        self.assertRaises(FullSetError, shelf.add_examples, set_id, version, [{"source": "1/2 + 1/3"}])

    def test_a_committed_change_survives_a_power_cut_of_the_database(self):
        # A server with its safety on, for the shared one of the tests has it off for speed.
        import tempfile
        from pathlib import Path

        from tools.postgres import LocalPostgres

        with tempfile.TemporaryDirectory() as directory:
            Path(directory).chmod(0o755)
            server = LocalPostgres(Path(directory) / "postgres")
            self.addCleanup(server.remove)
            url = server.start(55600)
            migrate(url)
            engine = open_engine(url)
            with Session(engine) as session, session.begin():
                teacher = demo.load(session)
            server.stop("immediate")
            server.start(55600)
            with Session(engine) as session:  # the engine notices its dead connections by itself
                self.assertEqual(len(Shelf(session, teacher).sets()), len(demo.SETS))
            engine.dispose()
            server.remove()
