"""The store on a real PostgreSQL: migrations, teachers kept apart, and changes that never overwrite each other."""

import threading
import unittest
import uuid

from alembic import command
from sqlalchemy import inspect
from sqlalchemy.orm import Session
from sqlalchemy.orm.exc import StaleDataError

from keen_slate.store import demo
from keen_slate.store.database import migrate, migration_config, open_engine
from keen_slate.store.shelf import MOST_EXAMPLES, FullSetError, NotFoundError, OrderError, Shelf, StaleSetError
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
            sorted(inspect(engine).get_table_names()), ["alembic_version", "example", "example_set", "teacher"]
        )
        engine.dispose()

    def test_every_key_and_index_is_led_by_the_teacher(self):
        tables = inspect(support.engine())
        for table in ("example_set", "example"):
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
            self.assertEqual((len(sets), loaded), (len(demo.SETS), dict(demo.SETS)))
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
        shelf.change_set(self.set_id, found.version, None, order)
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
            lambda: other.change_set(self.set_id, 1, "mine", None),
            lambda: other.remove_example(self.set_id, example_id, 1),
        ):
            self.assertRaises(NotFoundError, attempt)

    def test_a_change_on_an_old_version_changes_nothing(self):
        session, shelf = self.shelf()
        version = shelf.one_set(self.set_id).version
        shelf.change_set(self.set_id, version, "new title", None)
        session.commit()
        _, late = self.shelf()
        for attempt in (
            lambda: late.change_set(self.set_id, version, "late title", None),
            lambda: late.add_example(self.set_id, version, "1/2 + 1/5", None, {}, {}),
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
                    shelf.change_set(self.set_id, version, title, None)
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

    def test_an_order_must_name_every_example_once(self):
        _, shelf = self.shelf()
        found = shelf.one_set(self.set_id)
        ids = [e.id for e in found.examples]
        for order in (ids[:2], [ids[0], ids[0], ids[1]], [*ids, uuid.uuid4()]):
            self.assertRaises(OrderError, shelf.change_set, self.set_id, found.version, None, order)

    def test_a_full_set_takes_no_more(self):
        teacher = support.new_teacher()
        set_id = support.new_set(teacher, "full", ["1/2 + 1/3"] * MOST_EXAMPLES)
        _, shelf = self.shelf(teacher)
        version = shelf.one_set(set_id).version
        self.assertRaises(FullSetError, shelf.add_example, set_id, version, "1/2 + 1/3", None, {}, {})

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
