"""The HTTP API over a real server process and a real database."""

import http.cookiejar
import json
import re
import unittest
import urllib.error
import urllib.request
import uuid

from hypothesis import given, settings

from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.web import create_app, door
from keen_slate.web.handouts import numbers_in
from tests import strategies, support
from tests.pdf_reader import texts
from tools.server import LiveServer


class Client:
    """A browser's worth of HTTP: cookies and the token, and nothing else. It comes in by a link."""

    def __init__(self, server, teacher) -> None:
        self.address = server.address
        self.cookies = http.cookiejar.CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.cookies))
        self.token, link = "", server.link(teacher).partition("/enter/")[2]
        request = urllib.request.Request(
            f"{self.address}/api/enter", json.dumps({"link": link}).encode(), {"Content-Type": "application/json"}
        )
        self.opener.open(request, timeout=60).close()
        self.token = self.call("GET", "/api/me")[1]["csrf_token"]

    def open(self, path):
        return self.opener.open(self.address + path, timeout=60)

    def page(self, path):
        """The status and the text of a page."""
        try:
            with self.open(path) as response:
                return response.status, response.read().decode()
        except urllib.error.HTTPError as error:
            with error:
                return error.code, error.read().decode()

    def call(self, method, path, body=None, token=None, **more):
        headers = {
            "Content-Type": "application/json",
            "X-CSRF-Token": getattr(self, "token", "") if token is None else token,
        } | {name.replace("_", "-"): value for name, value in more.items()}
        data = body if isinstance(body, bytes) else None if body is None else json.dumps(body).encode()
        request = urllib.request.Request(self.address + path, data, headers, method=method)
        try:
            with self.opener.open(request, timeout=60) as response:
                return response.status, json.load(response)
        except urllib.error.HTTPError as error:
            with error:
                return error.code, json.load(error)


class ApiTests(unittest.TestCase):
    client: Client
    server: LiveServer
    teacher: uuid.UUID

    @classmethod
    def setUpClass(cls):
        cls.teacher = support.new_teacher()
        cls.server = support.live_server()
        cls.client = Client(cls.server, cls.teacher)

    def setUp(self):
        self.set_id = str(support.new_set(self.teacher, "Planks", ["1/2 + 1/3", "2/3 - 1/6"]))

    def call(self, *arguments, **more):
        return self.client.call(*arguments, **more)

    def get_set(self):
        return self.call("GET", f"/api/sets/{self.set_id}")[1]

    def put_house(self, ways):
        version = self.call("GET", "/api/ways")[1]["version"]
        return self.call("PUT", "/api/ways", {"house": ways, "version": version})

    def add(self, source, version, **more):
        return self.call("POST", f"/api/sets/{self.set_id}/examples", {"version": version, "source": source, **more})

    def test_a_set_begins_with_problems_and_is_called_after_what_it_begins_with(self):
        for body, count, title in (
            ({"standard": "5.NF.A.1"}, 8, "Add and subtract with unlike denominators, mixed numbers too"),
            (
                {"between": {"first": "M5", "last": "M9", "problems": 5}},
                5,
                "Mixed numbers are subtracted to a whole cut",
            ),
            ({"problems": ["1/2 + 1/3", "5/6 - 1/4"], "title": "O'Hara <b>"}, 2, "O'Hara <b>"),
        ):
            status, made = self.call("POST", "/api/starts", {"seed": 3, **body})
            self.assertEqual((status, len(made["examples"])), (201, count))
            self.assertTrue(made["title"].startswith(title), made["title"])
            again = self.call("POST", "/api/starts", {"seed": 3, **body})[1]
            self.assertEqual([e["text"] for e in again["examples"]], [e["text"] for e in made["examples"]])
            about = made["standards"][0] if made["standards"] else made["title"].replace(" ", "%20").replace("<b>", "")
            found = self.call("GET", f"/api/sets?search={about}")[1]["sets"]
            self.assertIn(made["id"], [one["id"] for one in found], about)
        for wrong, said in (
            ({"standard": "9.XX"}, "no such standard"),
            ({"between": {"first": "M9", "last": "M5"}}, "a first and a last rung"),
            ({"problems": ["1/0"]}, "0"), ({"between": {"first": "ZZ", "last": "M5"}}, "a first and a last rung"),
        ):  # fmt: skip
            status, refused = self.call("POST", "/api/starts", wrong)
            self.assertEqual(status, 422, body)
            self.assertIn(said, refused["error"]["message"])
        lines = self.call("POST", "/api/starts/judge", {"text": "1/2 + 1/3\n1/0"})[1]["lines"]
        self.assertEqual([line["verdict"] for line in lines], ["read", "unreadable"])

    def test_the_shelf_tells_how_a_set_climbs_and_when_it_was_shown_and_is_put_in_order(self):
        teacher = support.new_teacher()
        mine = Client(self.server, teacher)
        ids = [str(support.new_set(teacher, title, problems)) for title, problems in (
            ("b", ["1/2 + 1/3", "2/7 + 3/7", "5/6 + 3/4"]), ("A", ["2/7 + 3/7"]), ("c", []))]  # fmt: skip
        shown = mine.call("GET", f"/api/sets/{ids[1]}")[1]["examples"][0]["id"]
        mine.call("POST", f"/api/sets/{ids[1]}/examples/{shown}/time", {"day": "2026-11-12", "seconds": 9})
        sets = {one["title"]: one for one in mine.call("GET", "/api/sets")[1]["sets"]}
        self.assertEqual((sets["b"]["stair"], sets["c"]["stair"]), ([3, 1, 2], []))
        self.assertEqual(sets["b"]["climb"], ["the denominators share no factor", "the denominators share a factor"])
        self.assertEqual((sets["A"]["shown_on"], sets["b"]["shown_on"]), ("2026-11-12", None))
        for order, first in (("changed", "c"), ("title", "A"), ("shown", "A")):
            self.assertEqual(mine.call("GET", f"/api/sets?order={order}")[1]["sets"][0]["title"], first, order)

    def test_every_way_of_every_setting_is_shown_in_the_words_of_the_set(self):
        self.call("PATCH", f"/api/sets/{self.set_id}", {"version": 1, "ways": {"say_regroup": "exchange"}})
        known = self.call("GET", "/api/ways")[1]
        shown = {}
        for group in known["groups"]:
            answer = self.call("GET", f"/api/ways/shown?group={group['code']}&set_id={self.set_id}")[1]
            shown |= {one["name"]: one["ways"] for one in answer["settings"]}
        self.assertEqual(set(shown), {one["name"] for one in known["settings"]})
        for setting in known["settings"]:
            ways = shown[setting["name"]]
            self.assertEqual([way["code"] for way in ways], [one["code"] for one in setting["codes"]])
            pieces = {json.dumps({k: v for k, v in way.items() if k not in ("code", "name")}) for way in ways}
            self.assertGreater(len(pieces), len(ways) // 2, setting["name"])  # they can be told apart by looking
        said = json.dumps(shown["mixed_subtract"] + shown["say_whole"])
        self.assertIn("exchange", said)
        self.assertNotIn("so regroup", said)

    def test_a_preview_is_the_working_that_the_example_will_have(self):
        ways = {"say_regroup": "borrow"}
        preview = self.call("POST", "/api/preview", {"text": "7 1/4 - 3 5/6", "ways": ways})[1]
        self.call("PATCH", f"/api/sets/{self.set_id}", {"version": 1, "ways": ways})
        added = self.add("7 1/4 - 3 5/6", 2)[1]["example"]["working"]
        self.assertEqual(preview["working"], added)
        self.assertEqual(added["noticed"], [{"said": "Needs borrowing.", "step": 1}])
        self.assertEqual(added["steps"][1]["kind"], "regroup")

    def test_a_problem_is_worked_with_all_that_a_screen_needs(self):
        status, worked = self.call("POST", "/api/work", {"text": "7 1/4 - 3 5/6", "ways": {"ties": "down"}})
        self.assertEqual((status, worked["answer"]["text"]), (200, "3 5/12"))
        self.assertEqual([row["step"] for row in worked["rows"]], [None, 0, 1, 2])
        self.assertEqual(worked["steps"][1]["figure"]["kind"], "circles")
        self.assertEqual(
            worked["problem"]["glyphs"][1],
            {"kind": "fraction", "text": None, "top": "1", "bottom": "4", "role": "first"},
        )

    def test_a_text_that_cannot_be_read_is_422_with_the_error_object(self):
        status, body = self.call("POST", "/api/work", {"text": "1/0"})
        self.assertEqual((status, body["error"]["position"], body["error"]["length"]), (422, 2, 1))

    @given(strategies.texts)
    @settings(max_examples=60)
    def test_any_text_gets_a_working_or_a_refusal(self, typed):
        status, body = self.call("POST", "/api/work", {"text": typed})
        self.assertIn((status, "error" in body), [(200, False), (422, True)])

    def test_requests_of_another_form_are_refused_in_words(self):
        bad = [
            b"{",
            b"[]",
            b"null",
            b'{"text": 5}',
            b'{"text": "1/2", "more": 1}',
            b'{"ways": {}}',
            b"\xff",
            b'{"text": "' + b"1" * 900 + b'"}',
        ]
        for body in bad:
            status, answer = self.call("POST", "/api/work", body)
            self.assertIn(status, (400, 422), body)
            self.assertTrue(answer["error"]["message"], body)
        status, _ = self.call("POST", "/api/work", b"x" * 600_000)
        self.assertEqual(status, 413)

    def test_a_set_grows_changes_and_shrinks(self):
        status, body = self.add("7 1/4 - 3 5/6 ft", self.get_set()["version"], position=0)
        self.assertEqual((status, body["example"]["working"]["answer"]["text"]), (201, "3 5/12 ft"))
        self.assertEqual([e["rung"] for e in body["set"]["examples"]], ["M8", "F6", "F4"])
        example, version = body["example"]["id"], body["set"]["version"]
        path = f"/api/sets/{self.set_id}/examples/{example}"
        status, body = self.call(
            "PATCH", path, {"version": version, "words": {"regroup 0": "Cut <b>one</b> plank up."}}
        )
        self.assertEqual((status, body["example"]["working"]["steps"][1]["reason"]), (200, "Cut <b>one</b> plank up."))
        order = [e["id"] for e in reversed(body["set"]["examples"])]
        status, body = self.call(
            "PATCH", f"/api/sets/{self.set_id}", {"version": body["set"]["version"], "order": order}
        )
        self.assertEqual((status, [e["id"] for e in body["examples"]]), (200, order))
        status, body = self.call("DELETE", f"{path}?version={body['version']}")
        self.assertEqual((status, len(body["examples"])), (200, 2))
        self.assertEqual(self.call("GET", path)[0], 404)

    def test_ways_of_house_set_and_example_each_outweigh_the_one_before(self):
        body = self.add("7 1/4 - 3 5/6", self.get_set()["version"])[1]
        example, version = body["example"]["id"], body["set"]["version"]
        path = f"/api/sets/{self.set_id}/examples/{example}"
        kinds = lambda: [step["kind"] for step in self.call("GET", path)[1]["working"]["steps"]]  # noqa: E731
        self.addCleanup(lambda: self.put_house({}))
        status, ways = self.put_house({"mixed_subtract": "same-difference"})
        self.assertEqual((status, ways["house"]), (200, {"mixed_subtract": "same-difference"}))
        self.assertIn("shift-both", kinds())
        set_ways = {"version": version, "ways": {"mixed_subtract": "count-back"}}
        status, body = self.call("PATCH", f"/api/sets/{self.set_id}", set_ways)
        self.assertEqual((status, body["ways"]), (200, {"mixed_subtract": "count-back"}))
        self.assertIn("count-back", kinds())
        own = {"version": body["version"], "ways": {"mixed_subtract": "improper"}}
        status, body = self.call("PATCH", path, own)
        self.assertIn("to-improper", kinds())
        self.assertTrue([w for w in body["example"]["other_ways"] if w["code"] == "improper" and w["current"]])
        for bad in (
            {"mixed_subtract": "magic"}, {"colour": "blue"}, {"checklist": "enough Are there enough?"},
            {"checklist": "ever: Why?"},
        ):  # fmt: skip
            self.assertEqual(self.put_house(bad)[0], 422)
            self.assertEqual(self.call("PATCH", path, {"version": body["set"]["version"], "ways": bad})[0], 422)
        self.assertIn("to-improper", kinds())

    def test_a_decimal_typed_with_a_comma_is_kept_when_the_class_changes_its_mark(self):
        ways = {"version": self.get_set()["version"], "ways": {"decimal_mark": "comma"}}
        version = self.call("PATCH", f"/api/sets/{self.set_id}", ways)[1]["version"]
        self.assertEqual(self.add("9.60", version)[0], 422)
        body = self.add("9,60", version)[1]
        self.assertEqual((body["set"]["examples"][-1]["text"], body["set"]["examples"][-1]["source"]), ("9,60", "9.60"))
        ways = {"version": body["set"]["version"], "ways": {}}
        self.assertEqual(self.call("PATCH", f"/api/sets/{self.set_id}", ways)[1]["examples"][-1]["text"], "9.60")

    def test_a_problem_that_cannot_be_worked_is_not_stored(self):
        before = self.get_set()
        for source in ("1/0", "2/7 = _/20", "5 +", "1/2 + 1/3 ft - 1 in"):
            status, body = self.add(source, before["version"])
            self.assertEqual(status, 422)
            self.assertTrue(body["error"]["hint"])
        self.assertEqual(self.get_set(), before)

    def test_a_number_is_built_from_others(self):
        status, body = self.call("POST", "/api/building", {"numbers": "3, 1/2, 4", "wanted": "10"})
        self.assertEqual(
            (status, body["exact"], [w["text"] for w in body["ways"]]), (200, True, ["3 ÷ 1/2 + 4", "(3 - 1/2) × 4"])
        )
        status, body = self.call("POST", "/api/building", {"numbers": "3, 1/0, 4", "wanted": "10"})
        self.assertEqual((status, body["error"]["position"]), (422, 5))
        proposal = self.call("POST", "/api/building/new", {"level": "brackets", "seed": 5})[1]
        again = self.call("POST", "/api/building", {"numbers": proposal["numbers"], "wanted": proposal["wanted"]})[1]
        self.assertEqual(again["ways"], proposal["ways"])

    def test_what_a_pupil_wrote_is_explained(self):
        body = {"text": "7 1/4 - 3 5/6", "answer": "4 7/12"}
        status, told = self.call("POST", "/api/diagnose", body)
        self.assertEqual(
            (status, told["verdict"], told["explanations"][0]["names"]),
            (200, "explained", ["turned the fractions round"]),
        )
        self.assertEqual(self.call("POST", "/api/diagnose", body | {"ways": {"ties": "sideways"}})[0], 422)
        told = self.call("POST", "/api/check", {"text": "7 1/4 - 3 5/6", "lines": ["7 3/12 - 3 10/12", "= 4 7/12"]})[1]
        self.assertEqual((told["first_wrong"], told["lines"][1]["codes"]), (1, ["smaller-from-larger"]))
        self.assertEqual(len(self.call("GET", "/api/misconceptions")[1]["entries"]), len(ENTRIES))
        mended = self.call("POST", "/api/mend", {"text": "9 - 4 2/3", "code": "regroup-one"})[1]
        self.assertEqual(mended["text"], "9 - 4 1/3")
        reveals = self.call("GET", f"/api/sets/{self.set_id}/reveals")[1]
        self.assertEqual(len(reveals["problems"]), len(self.get_set()["examples"]))

    def test_a_picture_is_a_file_of_its_own(self):
        example = self.get_set()["examples"][0]["id"]
        path = f"/api/sets/{self.set_id}/examples/{example}/steps/0/picture.svg"
        with self.client.open(path) as response:
            self.assertEqual(response.headers["Content-Type"], "image/svg+xml; charset=utf-8")
            self.assertTrue(response.read().startswith(b"<svg"))
        with self.assertRaises(urllib.error.HTTPError):
            self.client.open(path.replace("steps/0", "steps/99"))

    def test_a_change_on_an_old_version_is_409_with_the_set_as_it_is(self):
        version = self.get_set()["version"]
        self.assertEqual(self.add("1/2 + 1/5", version)[0], 201)
        status, body = self.add("1/2 + 1/7", version)
        self.assertEqual(status, 409)
        self.assertEqual([e["text"] for e in body["set"]["examples"]], ["1/2 + 1/3", "2/3 - 1/6", "1/2 + 1/5"])
        self.assertEqual(self.add("1/2 + 1/7", body["set"]["version"])[0], 201)

    def test_what_was_changed_can_be_undone_after_the_server_was_killed(self):
        before = self.get_set()
        self.assertEqual((before["undo"], before["redo"]), (None, None))
        change = {
            "version": before["version"],
            "objective": "unlike pieces",
            "standards": ["5.NF.A.1"],
            "lesson_minutes": 20,
        }
        changed = self.call("PATCH", f"/api/sets/{self.set_id}", change)[1]
        renamed = self.call("PATCH", f"/api/sets/{self.set_id}", {"version": changed["version"], "title": "Rope"})
        self.assertEqual(renamed[0], 200)
        # What is set for all sets meanwhile is no change of this one: undoing here leaves it alone.
        self.addCleanup(lambda: self.put_house({}))
        self.assertEqual(self.put_house({"ties": "down"})[0], 200)
        self.server.kill()
        self.server.start()
        for expected in (changed, before):
            undone = self.call("POST", f"/api/sets/{self.set_id}/undo", {"version": self.get_set()["version"]})[1]
            self.assertEqual(undone["house"], {"ties": "down"})
            for name in ("title", "objective", "standards", "lesson_minutes", "examples"):
                self.assertEqual(undone[name], expected[name], name)
        status, body = self.call("POST", f"/api/sets/{self.set_id}/undo", {"version": undone["version"]})
        self.assertEqual((status, body["error"]["message"]), (422, "There is nothing more to undo."))
        again = self.call("POST", f"/api/sets/{self.set_id}/redo", {"version": undone["version"]})[1]
        self.assertEqual((again["objective"], again["redo"]), ("unlike pieces", "Renamed"))
        self.assertEqual(self.call("POST", f"/api/sets/{self.set_id}/redo", {"version": undone["version"]})[0], 409)

    def test_a_faded_example_says_what_pupils_fill_in(self):
        found = self.get_set()
        first = found["examples"][0]
        path = f"/api/sets/{self.set_id}/examples/{first['id']}"
        fading = {"hide": 1, "blanks": ["common-denominator 0 2", "common-denominator 0 line 0 2"], "pause": "add 0"}
        change = {"version": found["version"], "fading": fading, "marks": {"answer": 3}}
        working = self.call("PATCH", path, change)[1]["example"]["working"]
        self.assertEqual([row["hidden"] for row in working["rows"]], [False, False, True])
        blank = [(cell["text"], cell["unit"]) for cell in working["rows"][1]["cells"] if cell["blank"]]
        self.assertEqual(blank, [("2", 2)])  # 3/6 + 2/6: the numerator of the second fraction
        self.assertEqual([step["pause"] for step in working["steps"]], [False, True])
        self.assertEqual([mark["points"] for mark in working["marks"]], [1, 1, 3])
        after = self.get_set()
        self.assertEqual((after["examples"][0]["points"], after["examples"][0]["fading"]), (5, fading))
        self.assertEqual([e["planned_hide"] for e in after["examples"]], [0, 1])
        hides = {example["id"]: example["planned_hide"] for example in after["examples"]}
        planned = self.call("PUT", f"/api/sets/{self.set_id}/fading", {"version": after["version"], "hides": hides})[1]
        self.assertEqual([e["fading"]["hide"] for e in planned["examples"]], [0, 1])
        self.assertEqual(planned["examples"][0]["fading"]["blanks"], fading["blanks"])
        for wrong in ({"hide": 100}, {"blanks": ["<b>"]}, {"pause": "x"}, {"hide": -1}):
            self.assertEqual(self.call("PATCH", path, {"version": planned["version"], "fading": wrong})[0], 422)
        self.assertEqual(planned["seconds"], 180 + 40 + 10 * (3 + 4))

    def test_sets_are_copied_put_away_and_found_and_come_in_versions(self):
        title = f"Rope {uuid.uuid4().hex}"
        copy = self.call("POST", f"/api/sets/{self.set_id}/copies", {"title": title})[1]
        self.assertEqual([e["source"] for e in copy["examples"]], ["1/2 + 1/3", "2/3 - 1/6"])
        versions = self.call("POST", f"/api/sets/{copy['id']}/versions", {"count": 2})[1]["sets"]
        self.assertEqual([v["title"] for v in versions], [f"{title} (B)", f"{title} (C)"])
        self.assertEqual(len({json.dumps(v["first"]) for v in versions}), 2)
        self.assertEqual({tuple(v["rungs"]) for v in versions}, {("F6", "F4")})
        found = self.call("GET", f"/api/sets?search={title.split()[1]}")[1]
        self.assertEqual(len(found["sets"]), 3)
        self.call("PUT", f"/api/sets/{copy['id']}/place", {"place": "archive"})
        self.call("PUT", f"/api/sets/{versions[0]['id']}/place", {"place": "bin"})
        self.assertEqual(self.call("GET", "/api/sets?place=archive")[1]["sets"][0]["title"], title)
        self.assertEqual(self.call("DELETE", "/api/sets/bin")[1]["gone"], 1)
        self.assertEqual(self.call("GET", f"/api/sets/{versions[0]['id']}")[0], 404)

    def test_a_ladder_is_counted_built_swapped_and_taken(self):
        spec = {"from": "M1", "to": "M4", "steps": 4, "avoid": ["negatives"], "seed": 5}
        counted = self.call("POST", "/api/ladders/count", {"spec": spec, "set_id": self.set_id})[1]
        self.assertEqual(list(counted["counts"]), ["M1", "M2", "M3", "M4"])
        built = self.call("POST", "/api/ladders", {"spec": spec})[1]
        texts = [problem["text"] for problem in built["problems"]]
        self.assertEqual([problem["rung"] for problem in built["problems"]], ["M1", "M2", "M3", "M4"])
        kept = [texts[0], None, *texts[2:]]
        swapped = self.call("POST", "/api/ladders", {"spec": spec, "kept": kept, "shunned": [texts[1]]})[1]
        same = [problem["text"] == text for problem, text in zip(swapped["problems"], texts, strict=True)]
        self.assertEqual(same, [True, False, True, True])
        version = self.get_set()["version"]
        taken = self.call("POST", f"/api/sets/{self.set_id}/problems", {"version": version, "problems": texts})[1]
        self.assertEqual([e["source"] for e in taken["examples"]], ["1/2 + 1/3", "2/3 - 1/6", *texts])
        self.assertEqual((taken["undo"], taken["examples"][2]["mark"]), ("4 examples added", None))
        status, _ = self.call(
            "POST", f"/api/sets/{self.set_id}/problems", {"version": taken["version"], "problems": ["1/5 + 2/5", "1/0"]}
        )
        self.assertEqual((status, len(self.get_set()["examples"])), (422, 6))  # all or none
        no = self.call("POST", "/api/ladders", {"spec": {"rungs": {"F6": 1}, "denominators": [2, 4]}})[1]["impossible"]
        self.assertEqual((no["limit"], no["nearest"]), ("denominators", [2, 3, 4]))
        status, body = self.call("POST", "/api/ladders/count", {"spec": {"rungs": {"F1": 1}, "largest_whole": "x"}})
        self.assertEqual((status, body["error"]["message"]), (422, "largest_whole is a whole number from 0 to 999."))
        few = self.call("POST", "/api/ladders/smallest", {"codes": ["add-across", "top-not-scaled"]})[1]
        self.assertEqual((few["proven"], len(few["problems"]), few["not_separated"]), (True, 1, []))

    def test_a_climb_is_proposed_and_one_like_an_example_is_found(self):
        set_id = str(support.new_set(self.teacher, "Mixed up", ["7 1/4 - 3 5/6", "2/7 + 3/7", "1/4 + 1/6"]))
        ids = [e["id"] for e in self.call("GET", f"/api/sets/{set_id}")[1]["examples"]]
        proposed = self.call("GET", f"/api/sets/{set_id}/climb")[1]
        self.assertEqual(proposed, {"order": [ids[1], ids[2], ids[0]], "moves": [ids[0]]})
        like = self.call("POST", f"/api/sets/{set_id}/examples/{ids[0]}/parallel", {"seed": 1})[1]
        self.assertEqual(
            (like["different"], self.call("POST", "/api/work", {"text": like["text"]})[1]["features"]["rung"]),
            ([], "M8"),
        )

    def test_every_file_of_a_set_comes_as_what_it_is(self):
        kinds = {
            "set.json": b"{",
            "problems.csv": b"\xef\xbb\xbfnumber",
            "problems.tsv": b"\xef\xbb\xbfnumber\tproblem",
            "problems.xlsx": b"PK",
            "set.html": b"<!doctype",
            "set.odt": b"PK",
            "set.docx": b"PK",
            "set.docx?pictures=true": b"PK",
            "set.md": b"# Planks",
            "qti.zip": b"PK",
            "handout.pdf": b"%PDF",
        }
        for name, begins in kinds.items():
            with self.client.open(f"/api/sets/{self.set_id}/{name}") as response:
                self.assertIn('filename="planks.', response.headers["Content-Disposition"], name)
                self.assertTrue(response.read().startswith(begins), name)
        version = self.get_set()["version"]
        self.call(
            "PATCH", f"/api/sets/{self.set_id}", {"version": version, "ways": {"checklist": "always: Is <b> a plank?"}}
        )
        for path, asked in ((f"sets/{self.set_id}", "Is <b> a plank?"), ("ways", "Are the pieces the same size?")):
            with self.client.open(f"/api/{path}/checklist.pdf") as response:
                (card,) = texts(response.read())
            self.assertGreaterEqual(card.count(asked.replace(" ", "")), 6, card)
        query = f"/api/sets/{self.set_id}/handout?kind=mistake&only="
        self.assertEqual(self.call("GET", query + "1")[1]["left_out"], [])
        self.assertTrue(self.call("GET", query)[1]["pages"][0].startswith("<svg"))
        self.assertEqual(numbers_in(" 3, 8-5,", 9), {3, 5, 6, 7, 8})
        for only, said in (("9999", "There is no example 9999"), ("1, x", "“x” names no example")):
            status, body = self.call("GET", query + only.replace(" ", "%20"))
            self.assertEqual((status, body["error"]["message"][: len(said)]), (422, said))
        status, body = self.call("POST", "/api/sets/bring", b"[" * (6 * 1024 * 1024))
        self.assertEqual((status, body["error"]["message"]), (422, "The file is larger than 5 MB."))
        status, body = self.call(
            "POST",
            "/api/sets/bring",
            b'{"format": "keen-slate/set", "version": 1, "title": "x", "examples": [{"problem": "1/0"}]}',
        )
        self.assertEqual((status, body["error"]["message"][:20]), (422, "examples[0].problem:"))

    def test_a_link_to_show_is_read_by_anybody_until_it_is_withdrawn(self):
        def read(address):
            try:
                with urllib.request.urlopen(self.server.address + address) as response:
                    return response.status, response.read().decode(errors="replace"), dict(response.headers)
            except urllib.error.HTTPError as error:
                with error:
                    return error.code, "", {}

        address = self.call("PUT", f"/api/sets/{self.set_id}/show", {"shown": True})[1]["show_address"]
        status, html, headers = read(address)
        self.assertEqual((status, "<h1>Planks</h1>" in html), (200, True))
        self.assertEqual(re.findall(r"<script.*?>", html), ['<script src="/still.js" defer>'])  # it sees a withdrawal
        nonce = headers["Content-Security-Policy"].split("'nonce-")[1].split("'")[0]
        self.assertIn(f'<style nonce="{nonce}">', html)
        faces = [part.split('"')[0] for part in html.split('url("')[1:] if part.startswith("/assets")]
        self.assertEqual([read(face)[0] for face in faces], [200, 200])
        other = self.call("PUT", f"/api/sets/{self.set_id}/show", {"shown": True})[1]["show_address"]
        self.assertEqual((read(address)[0], read(other)[0]), (404, 200))  # a new link ends the old one
        self.call("PUT", f"/api/sets/{self.set_id}/place", {"place": "bin"})
        self.assertEqual(read(other)[0], 404)
        self.call("PUT", f"/api/sets/{self.set_id}/place", {"place": "shelf"})
        gone = self.call("PUT", f"/api/sets/{self.set_id}/show", {"shown": False})[1]["show_address"]
        self.assertEqual((gone, read(other)[0], read(other[:-1] + "x")[0], read("/show/x/y")[0]), (None, 404, 404, 200))

    def test_changes_need_the_token_of_the_session(self):
        for token in ("", "guessed", "ünicode".encode().decode("latin-1")):
            status, body = self.call("POST", "/api/sets", {"title": "x"}, token=token)
            self.assertEqual((status, body["error"]["message"]), (403, "This page has lost its place. Load it again."))

    def test_unknown_sets_and_addresses_are_404_and_titles_are_checked(self):
        self.assertEqual(self.call("GET", f"/api/sets/{uuid.uuid4()}")[0], 404)
        self.assertEqual(self.call("GET", "/api/nowhere")[0], 404)
        for title in ("", "   ", "x" * 121):
            self.assertEqual(self.call("POST", "/api/sets", {"title": title})[0], 422)
        status, body = self.call("POST", "/api/sets", {"title": " O'Hara's <b>set</b> "})
        self.assertEqual((status, body["title"]), (201, "O'Hara's <b>set</b>"))

    def test_what_was_answered_survives_a_kill_of_the_server(self):
        version = self.get_set()["version"]
        self.assertEqual(self.add("1/2 + 1/9", version)[0], 201)
        self.server.kill()
        self.server.start()
        self.assertEqual(self.get_set()["examples"][-1]["text"], "1/2 + 1/9")

    def test_the_page_is_served_with_a_strict_policy(self):
        with urllib.request.urlopen(self.server.address + "/bench/any/where") as response:
            policy, html = response.headers["Content-Security-Policy"], response.read().decode()
        self.assertIn("script-src 'self';", policy)
        self.assertNotIn("unsafe", policy)
        nonce = policy.split("'nonce-")[1].split("'")[0]
        self.assertIn(f'content="{nonce}"', html)


class OtherApiTests(unittest.TestCase):
    def test_a_database_that_is_gone_is_told_in_words(self):
        # Nothing listens on port 1 of loopback.
        config = {
            "SECRET_KEY": "x",
            "DATABASE_URL": "postgresql+psycopg://u:p@127.0.0.1:1/x",
        }
        app = create_app(config)
        with app.app_context():
            name = door.cookie_name()
        client = app.test_client()
        client.set_cookie(name, uuid.uuid4().hex + "secret")
        answer = client.get("/api/sets")
        self.assertEqual(answer.status_code, 503)
        self.assertEqual(answer.json["error"]["message"], "The records cannot be reached right now.")

    def test_the_openapi_document_names_each_model_once(self):
        app = create_app({"SECRET_KEY": "x", "DATABASE_URL": None})
        with app.app_context():
            schemas = app.spec["components"]["schemas"]
        self.assertIn("WorkingOut", schemas)
        self.assertFalse([name for name in schemas if "." in name])
        references = {part.split('"')[0] for part in json.dumps(app.spec).split("#/components/schemas/")[1:]}
        self.assertLessEqual(references, set(schemas))
