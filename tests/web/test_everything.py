"""All that a teacher has goes out as one file, and is the same where it comes in again."""

import io
import unittest
import zipfile

from apiflask import APIFlask
from sqlalchemy.orm import Session

from keen_slate.export.desk_document import unpacked
from keen_slate.store import demo_classes
from keen_slate.store.classes import Classes
from keen_slate.store.demo import SETS
from keen_slate.store.shelf import Shelf
from keen_slate.store.sittings import Sittings
from tests import support
from tests.export.test_desk_document import BOATS, FILE
from tests.web.test_door import Browser, app_of


class EverythingTests(unittest.TestCase):
    app: APIFlask

    @classmethod
    def setUpClass(cls):
        cls.app = app_of(cls)

    def browser(self):
        return Browser(self.app, support.new_teacher())

    def saved(self, browser):
        answer = browser.http.get("/api/account/everything.zip", base_url=browser.base)
        self.assertEqual((answer.status_code, answer.mimetype), (200, "application/zip"))
        return answer.data

    def bring(self, browser, file):
        answer = browser.http.post(
            "/api/account/everything", data=file, headers={"X-CSRF-Token": browser.token}, base_url=browser.base
        )
        return answer.status_code, answer.json

    def test_it_goes_out_and_comes_in_the_same_with_its_stories_answers_and_places(self):
        teacher = support.new_teacher()
        with Session(support.engine()) as session, session.begin():
            shelf = Shelf(session, teacher)
            for title, problems in SETS:
                shelf.add_set(title, [{"source": problem} for problem in problems])
            demo_classes.load(session, teacher)
            sets = shelf.sets()
            heron = Classes(session, teacher).all()[0].school_class
            sittings = Sittings(session, teacher)
            sat = sittings.of_class(heron.id)[0]
            moved = Classes(session, teacher).pupils(heron.id)[:2]
            sittings.move(sat.id, {str(moved[0].id): ["smaller-from-larger"], str(moved[1].id): []})
            self.assertTrue(sat.set_id)
            named = [one.alias for one in moved]
            shelf.change_set(
                sets[0].id, 1, {"note": "<b>For Monday</b>", "ways": {"ties": "down"}, "standards": ["5.NF.A.1"]}
            )
            shelf.change_examples(sets[0].id, 2, {sets[0].examples[0].id: {"marks": {"answer": 3}, "note": "slowly"}})
            shelf.put(sets[1].id, "archive")
            shelf.put(sets[2].id, "bin")
        here, there = Browser(self.app, teacher), self.browser()
        here.send("PUT", "/api/ways", {"house": {"common_denominator": "product"}, "version": 1})
        self.assertEqual(here.send("PUT", "/api/stories/scenarios/boats", BOATS)[0], 200)
        file = self.saved(here)
        status, brought = self.bring(there, file)
        self.assertEqual((status, brought["left"], brought["ways"], brought["scenarios"]), (201, [], True, 1))
        self.assertEqual((brought["sets"], brought["classes"] > 0), (len(sets), True))
        first, second = unpacked(file), unpacked(self.saved(there))
        second.name = first.name
        self.assertEqual(second, first)
        (moves,) = [one.moves for found in first.classes for one in found.sittings if one.moves]
        self.assertEqual(
            {one.pupil: one.codes for one in moves},
            {named[0]: ["smaller-from-larger"], named[1]: []},
        )
        of_sets = [one.set for found in first.classes for one in found.sittings]
        self.assertEqual((set(of_sets) <= set(first.sets), len(of_sets) > 1), (True, True))
        self.assertEqual(sum(len(one.answers) for found in first.classes for one in found.sittings) > 50, True)
        self.assertIn(
            "You brought in a file of everything.", [one["said"] for one in there.send("GET", "/api/account")[1]["log"]]
        )

    def test_what_is_there_stays(self):
        here = self.browser()
        here.send("POST", "/api/sets", {"title": "Mine"})
        here.send("PUT", "/api/ways", {"house": {"common_denominator": "product"}, "version": 1})
        other = BOATS | {"name": "Another yard"}
        self.assertEqual(here.send("PUT", "/api/stories/scenarios/boats", other)[0], 200)
        for again in (1, 2):
            status, brought = self.bring(here, FILE)
            self.assertEqual((status, brought["ways"], brought["sets"]), (201, False, 4))
            desk = unpacked(self.saved(here))
            self.assertEqual(desk.ways, {"common_denominator": "product"})
            self.assertEqual(len(desk.sets), 1 + 4 * again)
            # The other one keeps its code; the one that was brought in is there once, under a code of its own.
            self.assertEqual(
                {one["code"]: one["name"] for one in desk.scenarios},
                {"boats": "Another yard", "boats-2": "A boat yard"},
            )

    def test_a_part_that_is_broken_is_left_out_and_a_wrong_file_changes_nothing(self):
        here = self.browser()
        before = self.saved(here)
        for file in (b"", b"PK nothing", FILE[:-40]):
            status, answer = self.bring(here, file)
            self.assertEqual((status, "whole desk" in answer["error"]["message"]), (422, True))
        self.assertEqual(self.saved(here), before)
        packed = io.BytesIO(FILE)
        with zipfile.ZipFile(packed, "a") as zipped:
            zipped.writestr("sets/shelf/00009-broken.json", "{")
        status, brought = self.bring(here, packed.getvalue())
        self.assertEqual((status, len(brought["left"]), brought["sets"]), (201, 1, 4))
        self.assertRegex(brought["left"][0], "^sets/shelf/00009-broken.json: The file is not JSON")
