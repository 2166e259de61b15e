"""A class over HTTP: cells judged, what happened, what comes next, what is left of it when it is removed, and what
cannot be.
"""

import csv
import io
import json
import re
import unittest
import urllib.request
import uuid
from datetime import date, timedelta

from sqlalchemy import text

from keen_slate.core.diagnosing.answers import diagnose
from keen_slate.core.sittings.question import Question, asked_of
from keen_slate.store.forgetting import forget
from tests import support
from tests.pdf_reader import texts
from tests.store.test_classes import left_of
from tests.web.test_api import Client
from tools.server import LiveServer

PLANKS = ["7 1/4 - 3 5/6 ft", "8 1/5 - 3 4/5 ft", "9 - 4 2/3 ft", "10 1/6 - 4 9/10 ft"]
RIGHT = ["3 5/12", "4 2/5", "4 1/3", "5 4/15"]
TURNED = ["4 7/12", "5 3/5", "4 1/3", "6 22/30"]
ALIASES = ["Sedge", "Alder", "Yarrow", "O'Hara's <b>"]


class AnswersTests(unittest.TestCase):
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
        self.set_id = str(support.new_set(self.teacher, "Planks", PLANKS))
        self.heron = self.call("POST", "/api/classes", {"name": "Heron", "aliases": ALIASES}, 201)
        self.pupils = {one["alias"]: one["id"] for one in self.heron["pupils"]}
        self.sat = self.sitting("2026-11-12")

    def call(self, method, path, body=None, wanted=200, client=None):
        status, answer = (client or self.client).call(method, path, body)
        self.assertEqual(status, wanted, (method, path, answer))
        return answer

    def sitting(self, day, kind="quiz"):
        body = {"set_id": self.set_id, "day": day, "kind": kind}
        return self.call("POST", f"/api/classes/{self.heron['id']}/sittings", body, 201)

    def enter(self, wrote, sitting=None, since=0, **more):
        entries = [
            {"pupil_id": self.pupils[alias], "number": i, "written": one} | more
            for alias, row in wrote.items()
            for i, one in enumerate(row)
            if one != "-"
        ]
        path = f"/api/sittings/{(sitting or self.sat)['id']}/answers"
        return self.call("PUT", path, {"entries": entries, "since": since})

    def cells(self, sitting=None):
        found = self.call("GET", f"/api/sittings/{(sitting or self.sat)['id']}")
        aliases = {one["id"]: one["alias"] for one in found["pupils"]}
        return {(aliases[cell["pupil_id"]], cell["number"]): cell for cell in found["cells"]}

    def test_cells_come_back_judged_as_they_are_entered(self):
        made = self.enter(
            {"Sedge": [*TURNED[:3], "6 22/30"], "Alder": ["3 10/24", "", None, "two"], "Yarrow": ["99 1/97"]}
        )
        said = {(one["pupil_id"], one["number"]): (one["said"], one["name"]) for one in made["cells"]}
        sedge, alder = self.pupils["Sedge"], self.pupils["Alder"]
        self.assertEqual(said[sedge, 0], ("explained", "turned the fractions round"))
        self.assertEqual(said[alder, 0], ("right-value", "not in lowest terms"))
        self.assertEqual([said[alder, i][0] for i in (1, 2, 3)], ["blank", "away", "unreadable"])
        self.assertEqual(said[self.pupils["Yarrow"], 0], ("unexplained", "not explained"))
        self.assertEqual(made["counter"], 9)
        for (alias, number), cell in self.cells().items():
            if alias == "Sedge":
                self.assertEqual(cell["said"], diagnose(PLANKS[number], f"{cell['written']} ft").verdict)
        tally = made["tally"]
        self.assertEqual((tally["answered"], tally["right"]), ([3, 1, 1, 2], [1, 0, 1, 0]))
        self.assertEqual(tally["points"][alder], asked_of(Question(PLANKS[0])).points - 1)

    def test_two_pages_see_each_others_entries_and_the_last_one_holds(self):
        first = self.enter({"Sedge": ["1"]})
        second = self.enter({"Sedge": ["2"], "Alder": ["3"]}, since=0)
        self.assertEqual({one["written"] for one in second["cells"]}, {"2", "3"})
        path = f"/api/sittings/{self.sat['id']}/changes?since="
        seen = self.call("GET", path + str(first["counter"]))
        self.assertEqual([one["written"] for one in seen["cells"]], ["2", "3"])
        self.assertEqual(self.call("GET", path + str(seen["counter"]))["tally"], None)
        self.enter({"Sedge": ["2"]}, gone=True)
        after = self.call("GET", path + str(seen["counter"]))
        self.assertEqual((after["gone"], after["cells"]), ([{"pupil_id": self.pupils["Sedge"], "number": 0}], []))
        log = self.call("GET", f"/api/sittings/{self.sat['id']}/log")["lines"]
        self.assertEqual(
            [(one["alias"], one["written"], one["gone"]) for one in log][:2],
            [("Sedge", "2", True), ("Alder", "3", False)],
        )

    def test_a_word_of_the_teachers_stands_above_and_can_be_taken_back(self):
        path = f"/api/sittings/{self.sat['id']}/answers"
        at = {"pupil_id": self.pupils["Sedge"], "number": 0, "written": "4 7/12"}

        def say(word):
            return self.call("PUT", path, {"entries": [at | {"word": word}], "since": 0})["cells"][0]

        self.assertEqual((say({"right": True})["said"], say({"right": True})["overruled"]), ("right", True))
        self.assertEqual(say({"codes": ["regroup-ten"]})["name"], "regrouped ten, as in whole numbers")
        self.assertEqual(say({"points": 2})["points"], 2)
        about = self.call("GET", f"{path}/{at['pupil_id']}/0")
        keys = [one["key"] for one in about["points"]][:2]
        self.assertEqual(say({"steps": keys})["points"], sum(one["points"] for one in about["points"][:2]))
        self.assertEqual(say({})["said"], "explained")
        for word in ({"codes": ["nosuch"]}, {"points": -1}, {"codes": ["a"] * 4}, {"other": 1}):
            self.call("PUT", path, {"entries": [at | {"word": word}]}, 422)

    def test_all_that_is_known_of_an_answer(self):
        again = self.sitting("2026-11-19")
        self.enter({"Sedge": TURNED, "Alder": RIGHT})
        self.enter({"Sedge": ["7 3/12 - 3 10/12\n4 7/12", *RIGHT[1:]]}, again)
        about = self.call("GET", f"/api/sittings/{again['id']}/answers/{self.pupils['Sedge']}/0")
        self.assertEqual(about["explanations"][0]["codes"], ["smaller-from-larger"])
        self.assertEqual((about["checked"]["first_wrong"], about["figure"] is None), (1, False))
        (held,) = [one for one in about["holds"] if one["code"] == "smaller-from-larger"]
        self.assertEqual((held["shown"], held["chances"], held["seen"]), (4, 6, [True, True, True, True, False, False]))
        self.assertEqual(about["class_on_it"], [{"name": "turned the fractions round", "pupils": 1}])
        self.call("GET", f"/api/sittings/{again['id']}/answers/{uuid.uuid4()}/0", wanted=404)
        self.call("GET", f"/api/sittings/{again['id']}/answers/{self.pupils['Sedge']}/9", wanted=404)

    def test_units_count_when_a_teacher_says_so(self):
        self.enter({"Sedge": RIGHT})
        self.assertEqual(self.cells()["Sedge", 0]["said"], "right")
        changed = self.call(
            "PATCH", f"/api/sittings/{self.sat['id']}", {"labels": True, "day": "14.11.2026", "kind": "homework"}
        )
        self.assertEqual(
            (changed["cells"][0]["said"], changed["cells"][0]["name"]), ("right-value", "left the label off")
        )
        self.assertEqual(
            (changed["day"], changed["kind"], changed["questions"][0]["answer"]),
            ("2026-11-14", "homework", "3 5/12 ft"),
        )

    def test_groups_are_made_moved_and_become_sets(self):
        self.enter({"Sedge": TURNED, "Alder": RIGHT, "Yarrow": TURNED})
        path = f"/api/sittings/{self.sat['id']}"
        found = self.call("GET", f"{path}/next")
        self.assertEqual([one["names"] for one in found["groups"]], [["turned the fractions round"], []])
        self.assertEqual([one["alias"] for one in found["absent"]], [ALIASES[3]])
        self.assertEqual(found["returns"], ["2026-11-14", "2026-11-19", "2026-12-03"])
        turned, ready = found["groups"]
        self.assertTrue(turned["ladder"] and turned["figure"] and turned["check"] and ready["onwards"])
        moves = {self.pupils["Yarrow"]: []}
        moved = self.call("PUT", f"{path}/groups", {"moves": moves})
        self.assertEqual(
            [[one["alias"] for one in group["pupils"]] for group in moved["groups"]], [["Sedge"], ["Alder", "Yarrow"]]
        )
        self.assertEqual(moved["groups"][1]["moved"], [self.pupils["Yarrow"]])
        back = self.call("PUT", f"{path}/groups", {"moves": {self.pupils["Yarrow"]: None}})
        self.assertEqual([one["alias"] for one in back["groups"][0]["pupils"]], ["Sedge", "Yarrow"])
        body = {"codes": turned["codes"], "pupils": 2, "problems": [one["text"] for one in turned["ladder"]]}
        made = self.call("POST", f"{path}/sets", body, 201)
        self.assertEqual([one["source"] for one in made["examples"]], body["problems"])
        self.assertEqual(made["note"], "Made for 2 pupils after the quiz of 12 November 2026, Planks.")
        self.assertIn("turned the fractions round", made["title"].lower())
        self.call("POST", f"{path}/sets", body | {"problems": ["1/0 +"]}, 422)

    def test_a_class_says_what_comes_next_after_all_that_it_wrote(self):
        again = self.sitting("2026-11-19")
        self.enter({"Sedge": TURNED, "Alder": RIGHT, "Yarrow": TURNED, ALIASES[3]: ["1/97", "2/97", "3/97", "5/97"]})
        path = f"/api/classes/{self.heron['id']}"

        def told():
            page = self.call("GET", f"{path}/over-time")
            aliases = {one["id"]: one["alias"] for one in page["pupils"]}
            groups = [(one["names"], [aliases[who] for who in one["pupils"]]) for one in page["groups"]]
            return page, groups, [aliases[who] for who in page["unclear"]]

        page, groups, unclear = told()
        turned = ["turned the fractions round"]
        self.assertEqual((groups, unclear), ([(turned, ["Sedge", "Yarrow"]), ([], ["Alder"])], [ALIASES[3]]))
        self.assertTrue(page["groups"][0]["question"].endswith("?"))
        self.assertEqual(page["groups"][1]["question"], "")
        self.enter({"Sedge": RIGHT}, again)  # three chances without it: she is ready, whatever the first sitting says
        self.call("PATCH", f"{path}/pupils/{self.pupils['Alder']}", {"here": False})
        _, groups, _ = told()
        self.assertEqual(groups, [(turned, ["Yarrow"]), ([], ["Sedge"])])
        (paper,) = texts(self.client.open(f"{path}/class.pdf").read())
        for words in ("Groupsnow", "readytogoon", "Tobeasked"):
            self.assertIn(words, paper)
        made = self.call("POST", f"{path}/sets", {"codes": page["groups"][0]["codes"]}, 201)
        self.assertEqual(made["title"], "Turned the fractions round: after Planks")
        self.assertEqual(
            made["note"], "Made for 1 pupil after what was written until 19 November 2026, Planks the last."
        )
        shown = self.call("GET", f"/api/sets/{made['id']}/reveals")["rows"]
        self.assertIn("reveals", next(one for one in shown if one["code"] == "smaller-from-larger")["statuses"])
        gone = self.call("POST", f"{path}/sets", {"codes": ["regroup-ten"]}, 422)
        self.assertIn("This group is no more", gone["error"]["message"])
        own = self.call("GET", f"{path}/pupils/{self.pupils['Yarrow']}/over-time")
        self.assertIn(page["groups"][0]["question"], [one["question"] for one in own["pupil"]["holds"]])
        for alias, wanted in (("Yarrow", (False, False)), ("Sedge", (True, False)), (ALIASES[3], (False, True))):
            found = self.call("GET", f"{path}/pupils/{self.pupils[alias]}/over-time")
            self.assertEqual((found["ready"], found["unclear"]), wanted, alias)

    def test_what_happened_the_pages_and_the_papers_tell_the_same(self):
        again = self.sitting("2026-11-19")
        self.enter({"Sedge": TURNED, "Alder": RIGHT})
        self.enter({"Sedge": RIGHT, "Alder": RIGHT}, again)
        happened = self.call("GET", f"/api/sittings/{self.sat['id']}/happened")
        (turned,) = [one for one in happened["codes"] if one["code"] == "smaller-from-larger"]
        self.assertEqual([(one["alias"], one["numbers"]) for one in turned["pupils"]], [("Sedge", [0, 1, 3])])
        path = f"/api/classes/{self.heron['id']}"
        page = self.call("GET", f"{path}/over-time")
        sedge = next(one for one in page["pupils"] if one["alias"] == "Sedge")
        self.assertEqual([one["code"] for one in sedge["no_longer"]], ["smaller-from-larger"])
        alder = next(one for one in page["pupils"] if one["alias"] == "Alder")
        self.assertEqual(
            ({one["on"] for one in alder["reached"]}, alder["right"], alder["answered"]), ({"2026-11-19"}, 8, 8)
        )
        code = next(one for one in page["codes"] if one["code"] == "smaller-from-larger")
        self.assertEqual([(one["did"], one["pupils"]) for one in code["sittings"]], [(turned["did"], 1), (0, 0)])
        own = self.call("GET", f"{path}/pupils/{self.pupils['Sedge']}/over-time")
        self.assertEqual([len(one["answers"]) for one in own["sittings"]], [4, 4])
        for paper, word in (
            (f"{path}/class.pdf", "Sedge"),
            (f"/api/sittings/{self.sat['id']}/happened.pdf", "turned the fractions round"),
            (f"{path}/pupils/{self.pupils['Sedge']}/pupil.pdf", "turned the fractions round"),
        ):
            (only,) = texts(self.client.open(paper).read())
            self.assertIn(re.sub(r"\s", "", word), only)

    def test_today_brings_back_what_was_mastered(self):
        today = date(2026, 11, 21)
        again = self.sitting(str(today - timedelta(days=2)))
        self.enter({"Sedge": TURNED, "Alder": RIGHT})
        self.enter({"Sedge": RIGHT, "Alder": RIGHT}, again)
        (found,) = [
            one for one in self.call("GET", f"/api/today?day={today}")["classes"] if one["class_id"] == self.heron["id"]
        ]
        self.assertIn(("smaller-from-larger", 1), [(one["what"], one["pupils"]) for one in found["back"]])
        self.assertTrue(0 < len(found["problems"]) <= 3)
        texts = [one["text"] for one in found["problems"]]
        self.assertFalse(set(texts) & set(PLANKS))
        made = self.call("POST", "/api/warm-ups", {"day": str(today), "problems": texts}, 201)
        self.assertEqual([one["source"] for one in made["examples"]], texts)
        earlier = f"/api/today?day={today - timedelta(days=1)}"
        self.assertNotIn(self.heron["id"], [one["class_id"] for one in self.call("GET", earlier)["classes"]])
        changed = self.call("PATCH", f"/api/classes/{self.heron['id']}", {"returns": [9, 1, 9]})
        self.assertEqual(changed["returns"], [1, 9])  # the days are a setting
        self.assertIn(self.heron["id"], [one["class_id"] for one in self.call("GET", earlier)["classes"]])

    def test_a_page_that_was_looked_at_follows_what_is_entered(self):
        page = f"/api/classes/{self.heron['id']}/over-time"

        def right():
            sedge, *_ = self.call("GET", page)["pupils"]
            return sedge["right"], [held["code"] for held in sedge["holds"]]

        self.assertEqual(right(), (0, []))
        self.enter({"Sedge": RIGHT})
        self.assertEqual(right(), (4, []))
        self.enter({"Sedge": TURNED})
        self.assertEqual(right(), (1, ["smaller-from-larger"]))
        self.call("PATCH", f"/api/sittings/{self.sat['id']}", {"day": "2026-11-10"})
        self.assertEqual(self.call("GET", page)["sittings"][0]["day"], "2026-11-10")

    def test_a_class_that_was_looked_at_is_there_at_once_after_a_restart(self):
        self.enter({"Sedge": TURNED})
        page = f"/api/classes/{self.heron['id']}/over-time"
        seen = self.call("GET", page)
        with support.engine().begin() as connection:  # a mark in what is kept, to be seen where it is what is shown
            kept = (
                "update school_class set known = jsonb_set(known, '{page,1,name}', '\"As it was kept\"') where id = :id"
            )
            connection.execute(text(kept), {"id": self.heron["id"]})
        self.server.stop()
        self.server.start()
        self.assertEqual(self.call("GET", page), seen | {"name": "As it was kept"})
        self.enter({"Sedge": RIGHT})
        self.assertEqual(self.call("GET", page)["name"], "Heron")  # and not where something has changed

    def test_what_was_met_stands_beside_what_may_be_written(self):
        self.enter({"Sedge": TURNED, "Alder": RIGHT})
        met = {one["code"]: one for one in self.call("GET", f"/api/sets/{self.set_id}/met")["met"]}
        self.assertEqual((met["smaller-from-larger"]["did"], met["smaller-from-larger"]["of"]), (1, 2))
        rows = self.call("GET", f"/api/sets/{self.set_id}/reveals?class_id={self.heron['id']}")["rows"]
        self.assertEqual((rows[0]["code"], rows[0]["holders"]), ("smaller-from-larger", 1))

    def test_of_ways_that_tie_the_one_that_the_class_showed_before_comes_first(self):
        # The ranking of the rules (common practice): form, kinds, then how often pupil and class did it before.
        asked = {"text": "3 1/2 - 1 1/4", "answer": "2", "set_id": self.set_id}

        def first():
            found = self.call("POST", "/api/diagnose", asked)["explanations"]
            self.assertEqual({one["rank"] for one in found}, {1})  # a tie stays a tie
            return found[0]["codes"]

        self.assertEqual(first(), ["top-not-scaled"])
        self.enter({"Sedge": ["4 4/2"], "Alder": ["4 4/2"]})
        self.assertEqual(first(), ["across-turned-round"])

    def test_a_table_is_looked_at_and_entered_and_comes_back_from_the_csv(self):
        read = self.call(
            "POST", f"/api/sittings/{self.sat['id']}/read", {"text": "alias,2,1\nSEDGE,5 3/5,4 7/12\nMoss,1,2"}
        )
        self.assertEqual((read["questions"], read["rows"][0]["pupil_id"]), ([None, 1, 0], self.pupils["Sedge"]))
        self.assertEqual((read["rows"][1]["pupil_id"], read["rows"][1]["why"]), (None, "No pupil is called Moss."))
        self.assertEqual(self.cells(), {})  # nothing is entered by asking
        self.enter({"Sedge": TURNED, ALIASES[3]: [None, "", "= 5", "5 1/2\n5 4/15"]})
        table = self.client.open(f"/api/sittings/{self.sat['id']}/answers.csv").read().decode("utf-8-sig")
        rows = list(csv.reader(io.StringIO(table)))
        self.assertEqual(
            rows[1][:5], ["Sedge", "'4 7/12", "turned the fractions round", "'5 3/5", "turned the fractions round"]
        )
        again = self.call("POST", f"/api/sittings/{self.sat['id']}/read", {"text": table})
        self.assertEqual(again["rows"][3]["written"], ["away", "", "= 5", "5 1/2\n5 4/15"])
        self.call("POST", f"/api/sittings/{self.sat['id']}/read", {"text": 'a,"b'}, 422)

    def test_a_class_comes_back_from_its_document(self):
        self.enter({"Sedge": TURNED, ALIASES[3]: [None, ""]})
        self.enter({"Alder": ["1"]}, word={"right": True, "points": 2})
        kept = self.client.open(f"/api/classes/{self.heron['id']}/class.json").read()
        made = self.call("POST", "/api/classes/bring", kept, 201)
        again = self.client.open(f"/api/classes/{made['id']}/class.json").read()
        self.assertEqual(json.loads(again), json.loads(kept))
        (sat,) = made["sittings"]
        self.assertEqual(
            {one["made_by"] for one in self.call("GET", f"/api/sittings/{sat['id']}/log")["lines"]}, {"file"}
        )
        before = len(self.call("GET", "/api/classes")["classes"])
        broken = json.loads(kept)
        broken["sittings"][0]["answers"][-1]["pupil"] = "Nobody"
        self.call("POST", "/api/classes/bring", json.dumps(broken).encode(), 422)
        self.assertEqual(len(self.call("GET", "/api/classes")["classes"]), before)

    def test_nothing_is_left_of_a_class_or_a_pupil_that_is_removed(self):
        words = [f"alias{uuid.uuid4().hex[:8]}", f"7{uuid.uuid4().int % 10**8} 1/2", f"class{uuid.uuid4().hex[:8]}"]
        made = self.call("POST", "/api/classes", {"name": words[2], "aliases": [words[0], "Moss"]}, 201)
        body = {"set_id": self.set_id, "day": "2026-11-12", "kind": "quiz"}
        sat = self.call("POST", f"/api/classes/{made['id']}/sittings", body, 201)
        key = str(uuid.uuid4())
        entry = {"pupil_id": made["pupils"][0]["id"], "number": 0, "written": words[1]}
        self.client.call("PUT", f"/api/sittings/{sat['id']}/answers", {"entries": [entry, entry]}, Idempotency_Key=key)
        self.client.call("PATCH", f"/api/classes/{made['id']}", {"returns": [3]}, Idempotency_Key=str(uuid.uuid4()))
        self.call("GET", f"/api/sittings/{sat['id']}")
        self.call("GET", f"/api/classes/{made['id']}/over-time")
        self.call("POST", f"/api/sittings/{sat['id']}/sets", {"codes": [], "pupils": 1, "problems": ["1/2 + 1/3"]}, 201)
        where = {table for table, _ in left_of(words, self.teacher)}
        self.assertLessEqual({"pupil", "answer", "entry", "sitting", "answered", "school_class"}, where)
        self.remove(f"/api/classes/{made['id']}/pupils/{made['pupils'][0]['id']}")
        self.assertEqual({word for _, word in left_of(words, self.teacher)}, {words[2]})  # the class is still there
        self.remove(f"/api/classes/{made['id']}")
        self.assertEqual(left_of(words, self.teacher), [])
        self.call("GET", f"/api/sittings/{sat['id']}", wanted=404)

    def remove(self, path):
        request = urllib.request.Request(
            self.client.address + path, None, {"X-CSRF-Token": self.client.token}, method="DELETE"
        )
        with self.client.opener.open(request, timeout=60) as response:
            self.assertEqual(response.status, 204)

    def test_what_cannot_be_is_said_in_a_sentence(self):
        sat, heron = f"/api/sittings/{self.sat['id']}", f"/api/classes/{self.heron['id']}"
        entry = {"pupil_id": self.pupils["Sedge"], "number": 0, "written": "1"}
        for method, path, body, said in (
            ("POST", "/api/classes", {"name": "Two", "aliases": ["Moss", "moss"]}, "two pupils called moss"),
            ("POST", "/api/classes", {"name": "Many", "aliases": [str(i) for i in range(200)]},
                "holds 60 pupils; these would make 200"),
            ("POST", f"{heron}/pupils", {"aliases": ["Sedge"]}, "two pupils called Sedge"),
            ("POST", f"{heron}/sittings", {"set_id": self.set_id, "day": "11/12/2026", "kind": "quiz"},
                "11 December or 12 November"),
            ("POST", f"{heron}/sittings", {"set_id": self.set_id, "day": "someday", "kind": "quiz"}, "is no day"),
            ("PUT", f"{sat}/answers", {"entries": [entry | {"written": "1" * 501}]}, "500"),
            ("PUT", f"{sat}/answers", {"entries": []}, "at least 1"),
            ("PATCH", heron, {"returns": [0]}, "greater than or equal to 1"),
        ):  # fmt: skip
            with self.subTest(said):
                error = self.call(method, path, body, 422)["error"]
                self.assertRegex(f"{error['message']} {error['hint']}", said)
        hint = self.call("POST", f"{heron}/pupils", {"aliases": ["Rose Thornby"]}, 201)["pupils"][-1]
        self.assertTrue(hint["full_name"])  # a hint, no refusal
        for path in (sat, heron, f"{heron}/over-time", f"{sat}/next"):
            self.call("GET", path, wanted=404, client=self.stranger)
        self.call("PUT", f"{sat}/answers", {"entries": [entry]}, 404, self.stranger)

    def test_a_class_forgets_when_it_is_told_to(self):
        old = self.sitting("2020-01-02")
        changed = self.call("PATCH", f"/api/classes/{self.heron['id']}", {"forget_months": 12})
        self.assertEqual(len(changed["sittings"]), 2)  # saying so alone takes nothing away, nor does looking
        self.assertEqual(len(self.call("GET", f"/api/classes/{self.heron['id']}")["sittings"]), 2)
        forget(support.desk_url())
        kept = self.call("GET", f"/api/classes/{self.heron['id']}")["sittings"]
        self.assertEqual([one["id"] for one in kept], [self.sat["id"]])
        self.call("GET", f"/api/sittings/{old['id']}", wanted=404)
