"""What each operation owes, field by field: what a change touches and leaves, what goes out and comes in, whose it is,
what is pruned.
"""

import json
import re
import unittest
import unittest.mock
import uuid
from datetime import timedelta

from sqlalchemy import func, select, update
from sqlalchemy.orm import Session

from keen_slate.core.limits import MOST_EXAMPLES
from keen_slate.store import changes, history
from keen_slate.store.models import Answered, Change, Example, ExampleSet
from keen_slate.store.once import KEPT
from keen_slate.store.shelf import MOST_DAYS, Shelf
from keen_slate.web import create_app
from tests import support
from tests.web.test_api import Client
from tools.server import LiveServer

# For each field that can be changed: a value, and what is read back where that is not the same.
OF_SET = {
    "title": "Other planks", "ways": {"ties": "down"}, "words": {"regroup": "Open a plank."}, "note": "Bring the rope.",
    "objective": "Subtract across a whole.", "standards": ["5.NF.A.1", "our own"], "lesson_minutes": 45,
}  # fmt: skip
OF_EXAMPLE = {
    "ways": {"mixed_subtract": "improper"}, "words": {"regroup 0": "Saw one up.", "regroup 0 picture": "bars"},
    "note": "Ask Sedge.", "fading": {"hide": 1, "blanks": ["regroup 0 0"], "pause": "regroup 0"},
    "marks": {"answer": 4, "regroup 0": 2},
}  # fmt: skip
DERIVED = {"version", "changed_at", "undo", "redo", "seconds", "examples", "house"}
SHOWN = {
    "text", "spoken", "glyphs", "rung", "harder", "mark", "surprises", "steps", "planned_hide", "seconds", "points",
    "unreadable",
}  # fmt: skip


class ContractTests(unittest.TestCase):
    client: Client
    other: uuid.UUID
    server: LiveServer
    stranger: Client
    teacher: uuid.UUID

    @classmethod
    def setUpClass(cls):
        cls.teacher, cls.other = support.new_teacher(), support.new_teacher()
        cls.server = support.live_server()
        cls.client, cls.stranger = Client(cls.server, cls.teacher), Client(cls.server, cls.other)

    def setUp(self):
        self.set_id = str(support.new_set(self.teacher, "Planks", ["7 1/4 - 3 5/6", "1/2 + 1/3"]))
        self.path = f"/api/sets/{self.set_id}"

    def call(self, method, path, body=None, wanted=200):
        status, answer = self.client.call(method, path, body)
        self.assertEqual(status, wanted, (method, path, answer))
        return answer

    def get(self):
        return self.call("GET", self.path)

    def change_example(self, fields, wanted=200):
        now = self.get()
        example = f"{self.path}/examples/{now['examples'][0]['id']}"
        return self.call("PATCH", example, {"version": now["version"], **fields}, wanted)

    # What a change touches, and what it leaves -----------------------------------------------------------------------

    def test_each_field_of_a_set_is_changed_alone_and_comes_back_by_undo(self):
        for name, value in OF_SET.items():
            before = self.get()
            after = self.call("PATCH", self.path, {"version": before["version"], name: value})
            self.assertEqual(after[name], value)
            self.assertEqual(after["version"], before["version"] + 1)
            for other in set(before) - DERIVED - {name}:
                self.assertEqual(after[other], before[other], (name, other))
            undone = self.call("POST", f"{self.path}/undo", {"version": after["version"]})
            self.assertEqual(undone[name], before[name])
            self.call("POST", f"{self.path}/redo", {"version": undone["version"]})
        self.assertEqual({name: self.get()[name] for name in OF_SET}, OF_SET)
        cleared = self.call("PATCH", self.path, {"version": self.get()["version"], "lesson_minutes": 0})
        self.assertIsNone(cleared["lesson_minutes"])

    def test_each_field_of_an_example_is_changed_alone_and_comes_back_by_undo(self):
        for name, value in OF_EXAMPLE.items():
            before = self.get()
            after = self.change_example({name: value})["set"]
            one, old = after["examples"][0], before["examples"][0]
            self.assertEqual(one[name], value)
            self.assertEqual(after["examples"][1], before["examples"][1])
            for other in set(old) - SHOWN - {name}:
                self.assertEqual(one[other], old[other], (name, other))
            undone = self.call("POST", f"{self.path}/undo", {"version": after["version"]})
            self.assertEqual(undone["examples"][0][name], old[name])
            self.call("POST", f"{self.path}/redo", {"version": undone["version"]})

    def test_another_text_drops_what_was_kept_for_the_steps_of_the_old_one(self):
        self.change_example(OF_EXAMPLE)
        same = self.change_example({"source": "7 1/4 - 3 5/6"})["set"]["examples"][0]
        self.assertEqual({name: same[name] for name in OF_EXAMPLE}, OF_EXAMPLE)
        one = self.change_example({"source": "5 1/3 - 2 1/2"})["set"]["examples"][0]
        gone = {"words": {}, "fading": {"hide": 0, "blanks": [], "pause": None}, "marks": {}}
        self.assertEqual({name: one[name] for name in OF_EXAMPLE}, {**OF_EXAMPLE, **gone})

    def test_no_column_is_forgotten(self):
        """Each column of a set and an example is changed, undone, copied and brought in by the tests here, or named as
        left out.
        """
        self.assertEqual(set(OF_SET), set(history.SET_FIELDS))
        self.assertEqual({"source", "target", *OF_EXAMPLE}, set(history.EXAMPLE_FIELDS))
        of_set, of_example = ExampleSet.__table__.columns, Example.__table__.columns
        self.assertEqual(set(history.SET_FIELDS) | history.NOT_OF_SET, {column.name for column in of_set})
        self.assertEqual(
            {*history.EXAMPLE_FIELDS, *history.HAPPENED, *history.NOT_OF_EXAMPLE},
            {column.name for column in of_example},
        )

    def test_an_example_that_was_taken_off_comes_back_with_all_that_it_had(self):
        self.change_example(OF_EXAMPLE)
        example = self.get()["examples"][0]
        path = f"{self.path}/examples/{example['id']}"
        for seconds in (30, 12):
            self.call("POST", f"{path}/time", {"day": "2026-11-30", "seconds": seconds})
        whole = self.get()["examples"][0]
        self.assertEqual(whole["time_log"], [{"day": "2026-11-30", "seconds": 42}])
        now = self.call("DELETE", f"{path}?version={self.get()['version']}")
        undo = lambda: self.call("POST", f"{self.path}/undo", {"version": self.get()["version"]})  # noqa: E731
        redo = lambda: self.call("POST", f"{self.path}/redo", {"version": self.get()["version"]})  # noqa: E731
        self.assertEqual(len(now["examples"]), 1)
        self.assertEqual(undo()["examples"][0], whole)
        # What happens to it meanwhile is no change, and is there after all ways to and fro.
        self.call("POST", f"{path}/time", {"day": "2026-12-01", "seconds": 7})
        whole = self.get()["examples"][0]
        redo()
        self.assertEqual(undo()["examples"][0], whole)
        undo()
        self.assertEqual(self.get()["examples"][0]["time_log"], whole["time_log"])
        redo(), redo()
        self.assertEqual(undo()["examples"][0], whole)

    def test_one_that_was_added_shown_and_undone_is_added_again_with_its_times(self):
        added = self.call(
            "POST", f"{self.path}/examples", {"version": self.get()["version"], "source": "1/2 + 1/5"}, 201
        )
        path = f"{self.path}/examples/{added['example']['id']}"
        self.call("POST", f"{path}/time", {"day": "2026-11-30", "seconds": 30})
        self.call("POST", f"{self.path}/undo", {"version": self.get()["version"]})
        back = self.call("POST", f"{self.path}/redo", {"version": self.get()["version"]})
        self.assertEqual(back["examples"][-1]["time_log"], [{"day": "2026-11-30", "seconds": 30}])

    def test_a_form_to_convert_to_is_asked_for_and_taken_back(self):
        self.change_example({"source": "17/6", "target": "mixed"})
        self.assertEqual(self.get()["examples"][0]["target"], "mixed")
        self.assertIsNone(self.change_example({"target": ""})["set"]["examples"][0]["target"])

    def test_what_is_refused_changes_nothing(self):
        before = self.get()
        for fields in (
            {"source": "1/0"}, {"ways": {"ties": "sideways"}}, {"marks": {"answer": 21}}, {"fading": {"hide": -1}},
            {"words": {"no key!": "x"}}, {"target": "roman"}, {"unknown": 1}, {"note": "x" * 1001},
        ):  # fmt: skip
            self.change_example(fields, 422)
        for about in ({"title": " "}, {"ways": {"no": "such"}}, {"standards": ["x"] * 21}, {"lesson_minutes": 601}):
            self.call("PATCH", self.path, {"version": before["version"], **about}, 422)
        self.assertEqual(self.get(), before)

    # Out and in -------------------------------------------------------------------------------------------------------

    def test_a_set_that_goes_out_and_comes_in_keeps_every_field(self):
        self.call("PATCH", self.path, {"version": self.get()["version"], **OF_SET})
        self.change_example(OF_EXAMPLE)
        document = self.call("GET", f"{self.path}/set.json")
        brought = self.call("POST", "/api/sets/bring", document, 201)
        self.assertEqual({name: brought[name] for name in OF_SET}, OF_SET)
        one = brought["examples"][0]
        self.assertEqual({name: one[name] for name in OF_EXAMPLE}, OF_EXAMPLE)
        self.assertEqual([e["source"] for e in brought["examples"]], ["7 1/4 - 3 5/6", "1/2 + 1/3"])
        self.assertEqual(self.call("GET", f"/api/sets/{brought['id']}/set.json"), document)

    def test_a_copy_keeps_every_field_and_versions_keep_all_but_the_sentences(self):
        self.call("PATCH", self.path, {"version": self.get()["version"], **OF_SET})
        self.change_example(OF_EXAMPLE)
        copied = self.call("POST", f"{self.path}/copies", {"title": "A copy"}, 201)
        self.assertEqual({name: copied[name] for name in OF_SET}, {**OF_SET, "title": "A copy"})
        self.assertEqual({name: copied["examples"][0][name] for name in OF_EXAMPLE}, OF_EXAMPLE)
        made = self.call("POST", f"{self.path}/versions", {"count": 1, "seed": 3}, 201)["sets"][0]
        version = self.call("GET", f"/api/sets/{made['id']}")
        self.assertEqual(version["examples"][0]["words"], {})
        self.assertEqual(version["examples"][0]["marks"], OF_EXAMPLE["marks"])
        self.assertNotEqual(version["examples"][0]["source"], "7 1/4 - 3 5/6")

    # Whose it is ------------------------------------------------------------------------------------------------------

    def test_no_operation_on_a_set_lets_a_stranger_in(self):
        example = self.get()["examples"][0]["id"]
        bodies = {
            "copies": {"title": "x"}, "place": {"place": "bin"}, "versions": {"count": 1}, "show": {"shown": True},
            "share": {"shared": True},
            "undo": {"version": 1}, "redo": {"version": 1}, "judge": {"text": "1/2"},
            "problems": {"version": 1, "problems": ["1"]},
            "examples": {"version": 1, "source": "1/2"}, "fading": {"version": 1, "hides": {}}, "parallel": {"seed": 1},
            "time": {"day": "2026-03-02", "seconds": 5},
        }  # fmt: skip
        asked = 0
        spec = create_app({"SECRET_KEY": "x", "DATABASE_URL": None}).spec
        for path, operations in spec["paths"].items():
            if "{set_id}" not in path:
                continue
            real = (
                path.replace("{set_id}", self.set_id).replace("{example_id}", example).replace("{code}", "add-across")
            )
            for method in set(operations) & {"get", "post", "put", "patch", "delete"}:
                body = None if method in ("get", "delete") else bodies.get(real.rsplit("/", 1)[1], {"version": 1})
                query = "?version=1" if method == "delete" else ""
                status, answer = self.stranger.call(method.upper(), re.sub(r"\{.*?\}", "0", real) + query, body)
                self.assertEqual(status, 404, (method, path, answer))
                asked += 1
        self.assertGreater(asked, 25)

    def test_a_link_shows_one_set_of_one_teacher(self):
        address = self.call("PUT", f"{self.path}/show", {"shown": True})["show_address"]
        other = support.new_set(self.other, "Kites", ["1/2 + 1/4"])
        status, shown = self.stranger.call("PUT", f"/api/sets/{other}/show", {"shown": True})
        self.assertEqual(status, 200)
        mine, key = address.split("/")[2:]
        theirs = shown["show_address"].split("/")[2]
        with self.stranger.open(address) as page:
            text = page.read().decode()
        self.assertIn("Planks", text)
        self.assertNotIn("Kites", text)
        self.assertEqual(self.stranger.page(f"/show/{theirs}/{key}")[0], 404)
        again = self.call("PUT", f"{self.path}/show", {"shown": True})["show_address"]
        self.assertNotEqual(again, address)  # a new one; the old one is withdrawn
        status, text = self.stranger.page(f"/show/{mine}/{key}")
        self.assertEqual((status, "<h1>This is not shown any more</h1>" in text), (404, True))  # in words, to be read

    # What is pruned ---------------------------------------------------------------------------------------------------

    def test_a_history_keeps_its_last_changes_and_drops_what_was_undone(self):
        with unittest.mock.patch.object(changes, "MOST_CHANGES", 4), Session(support.engine()) as session:
            mine = Shelf(session, self.teacher)
            set_id = uuid.UUID(self.set_id)
            for number in range(7):
                version = mine.one_set(set_id).version
                mine.change_set(set_id, version, {"note": f"note {number}"})
            kept = session.scalars(select(Change.said).where(Change.set_id == set_id)).all()
            self.assertLessEqual(len(kept), 5)
            mine.undo(set_id, mine.one_set(set_id).version)
            mine.undo(set_id, mine.one_set(set_id).version)
            self.assertEqual(mine.one_set(set_id).note, "note 4")
            mine.change_set(set_id, mine.one_set(set_id).version, {"note": "another"})
            with self.assertRaises(changes.NoChangeError):
                mine.undo(set_id, mine.one_set(set_id).version, +1)

    def test_the_history_of_a_set_that_rests_is_thinned_and_of_no_other(self):
        old, new, theirs = (
            uuid.UUID(self.set_id),
            support.new_set(self.teacher, "New", []),
            support.new_set(support.new_teacher(), "Theirs", []),
        )
        numbers = {}
        with Session(support.engine()) as session:
            owner = session.scalars(select(ExampleSet.teacher_id).where(ExampleSet.id == theirs)).one()
            for teacher, set_id in ((self.teacher, old), (owner, theirs), (self.teacher, new)):
                shelf = Shelf(session, teacher)
                for number in range(14):
                    shelf.change_set(set_id, shelf.one_set(set_id).version, {"note": f"note {number}"})
                session.flush()
                rested = (
                    update(ExampleSet).where(ExampleSet.id == set_id).values(changed_at=func.now() - timedelta(days=91))
                )
                if set_id != new:
                    shelf.undo(set_id, shelf.one_set(set_id).version)  # can be done again, and stays so
                    session.flush()
                    session.execute(rested, execution_options={"synchronize_session": False})
            session.expire_all()
            mine = Shelf(session, self.teacher)
            for number in range(14, 18):
                mine.change_set(new, mine.one_set(new).version, {"note": f"note {number}"})
            for set_id in (old, new, theirs):
                found = select(Change.number).where(Change.set_id == set_id).order_by(Change.number)
                numbers[set_id] = session.scalars(found).all()
            self.assertEqual(numbers[old], list(range(13 - history.MOST_OF_OLD, 15)))
            self.assertEqual((numbers[new], numbers[theirs]), (list(range(19)), list(range(15))))
            for _ in range(history.MOST_OF_OLD):
                mine.undo(old, mine.one_set(old).version)
            self.assertEqual(mine.one_set(old).note, "note 2")
            self.assertRaises(changes.NoChangeError, mine.undo, old, mine.one_set(old).version)

    def test_answers_to_changes_are_kept_for_a_day(self):
        key = str(uuid.uuid4())
        body = {"version": self.get()["version"], "note": "once"}
        self.client.call("PATCH", self.path, body, Idempotency_Key=key)
        with Session(support.engine()) as session, session.begin():
            old = update(Answered).where(Answered.teacher_id == self.teacher)
            session.execute(old.values(made_at=func.now() - KEPT - timedelta(minutes=1)))
        sweeping = f"{str(uuid.uuid4())[:-2]}00"  # one key in so many has the old answers swept
        self.client.call("PATCH", self.path, {**body, "version": self.get()["version"]}, Idempotency_Key=sweeping)
        with Session(support.engine()) as session:
            kept = session.scalars(select(Answered.key).where(Answered.teacher_id == self.teacher)).all()
        self.assertNotIn(uuid.UUID(key), kept)

    def test_days_on_the_wall_are_summed_and_the_oldest_go(self):
        example = f"{self.path}/examples/{self.get()['examples'][0]['id']}/time"
        for day in range(1, MOST_DAYS + 4):
            self.call("POST", example, {"day": f"2026-01-{day % 28 + 1:02}", "seconds": 5})
        log = self.call("POST", example, {"day": "2026-03-01", "seconds": 7})["time_log"]
        log = self.call("POST", example, {"day": "2026-03-01", "seconds": 8})["time_log"]
        self.assertEqual((log[-1], len(log)), ({"day": "2026-03-01", "seconds": 15}, MOST_DAYS + 1))

    def test_a_set_takes_so_many_examples_and_no_more(self):
        many = {"version": self.get()["version"], "problems": [f"1/{n} + 1/3" for n in range(2, MOST_EXAMPLES)]}
        self.assertEqual(len(self.call("POST", f"{self.path}/problems", many, 201)["examples"]), MOST_EXAMPLES)
        status, answer = self.client.call(
            "POST", f"{self.path}/examples", {"version": self.get()["version"], "source": "1"}
        )
        self.assertEqual(status, 422, answer)
        self.assertIn(str(MOST_EXAMPLES), json.dumps(answer))
