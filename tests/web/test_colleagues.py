"""Schools: what colleagues share is read and copied, and nobody else reaches it."""

import unittest
import uuid

from apiflask import APIFlask
from sqlalchemy import text
from sqlalchemy.orm import Session

from keen_slate.store.accounts import keep
from keen_slate.store.colleagues import school_named
from keen_slate.store.models import Teacher
from tests import support
from tests.web.test_door import Browser, app_of
from tools import keeper

PLANKS = ["7 1/4 - 3 5/6 ft", "9 - 4 2/3 ft"]
NOBODY, OWNER, COLLEAGUE, ELSEWHERE, ALONE = "nobody", "the owner", "a colleague", "another school", "no school"
# What each may do with a set that is shared; common practice: who may not, cannot tell it from one that is not there.
MATRIX = {
    ("GET", "/api/sets/{set}/share"): {NOBODY: 401, OWNER: 200, COLLEAGUE: 404, ELSEWHERE: 404, ALONE: 404},
    ("PUT", "/api/sets/{set}/share"): {NOBODY: 401, OWNER: 200, COLLEAGUE: 404, ELSEWHERE: 404, ALONE: 404},
    ("GET", "/api/sets/{set}"): {NOBODY: 401, OWNER: 200, COLLEAGUE: 404, ELSEWHERE: 404, ALONE: 404},
    ("PATCH", "/api/sets/{set}"): {NOBODY: 401, OWNER: 200, COLLEAGUE: 404, ELSEWHERE: 404, ALONE: 404},
    ("PUT", "/api/sets/{set}/place"): {NOBODY: 401, OWNER: 200, COLLEAGUE: 404, ELSEWHERE: 404, ALONE: 404},
    ("GET", "/api/colleagues/sets"): dict.fromkeys([OWNER, COLLEAGUE, ELSEWHERE, ALONE], 200) | {NOBODY: 401},
    ("GET", "/shared/{owner}/{set}"): {
        NOBODY: 404, OWNER: 404, COLLEAGUE: 200, ELSEWHERE: 404, ALONE: 404,
    },
    ("POST", "/api/colleagues/{owner}/sets/{set}/copies"): {
        NOBODY: 401, OWNER: 404, COLLEAGUE: 201, ELSEWHERE: 404, ALONE: 404,
    },
}  # fmt: skip
BODIES = {
    "/api/sets/{set}/share": {"shared": True},
    "/api/sets/{set}/place": {"place": "shelf"},
    "/api/sets/{set}": {"version": 1, "title": "x"},
}


class ColleaguesTests(unittest.TestCase):
    app: APIFlask

    @classmethod
    def setUpClass(cls):
        cls.app = app_of(cls)

    def setUp(self):
        self.school, other = f"Wren Hollow {uuid.uuid4().hex}", f"Marsh End {uuid.uuid4().hex}"
        self.owner = self.teacher(self.school, {"common_denominator": "product"})
        self.browsers = {
            NOBODY: None, OWNER: Browser(self.app, self.owner), COLLEAGUE: Browser(self.app, self.teacher(self.school)),
            ELSEWHERE: Browser(self.app, self.teacher(other)), ALONE: Browser(self.app, self.teacher(None)),
        }  # fmt: skip
        self.set_id = str(support.new_set(self.owner, "Planks <b>", PLANKS))

    def teacher(self, school, ways=None):
        made = support.new_teacher()
        with Session(support.engine()) as session, session.begin():
            found = session.get_one(Teacher, made)
            found.name, found.ways = f"Teacher {made.hex[:6]}", ways or {}
            found.school_id = school_named(session, school).id if school else None
        return made

    def ask(self, who, method, path, body=None):
        path = path.replace("{set}", self.set_id).replace("{owner}", str(self.owner))
        browser = self.browsers[who]
        if browser is None:
            http, headers = self.app.test_client(), {}
            if method != "GET":  # without a sign-in no token is right: that is told first
                return 401 if http.open(path, method=method, json=body).status_code in (401, 403) else 0, None
            return http.open(path, method=method, headers=headers).status_code, None
        answer = browser.http.open(
            path, method=method, json=body, headers={"X-CSRF-Token": browser.token}, base_url=browser.base
        )
        return answer.status_code, answer.json if answer.mimetype == "application/json" else answer.get_data(True)

    def share(self, shared=True):
        self.assertEqual(self.ask(OWNER, "PUT", "/api/sets/{set}/share", {"shared": shared})[0], 200)

    def theirs(self, who, search=""):
        found = self.ask(who, "GET", f"/api/colleagues/sets?search={search}")[1]
        self.assertEqual(found["total"], len(found["sets"]))
        return [one["set"]["id"] for one in found["sets"]]

    def test_what_is_shared_is_reached_by_colleagues_alone(self):
        self.share()
        for (method, path), expected in MATRIX.items():
            for who, status in expected.items():
                body = None if method == "GET" or path.endswith("copies") else BODIES[path]
                self.assertEqual(self.ask(who, method, path, body)[0], status, (who, method, path))
        for who in self.browsers:
            if who != NOBODY:
                self.assertEqual(self.theirs(who), [self.set_id] if who == COLLEAGUE else [], who)

    def test_it_is_read_as_it_is_now_and_withdrawn_at_once(self):
        page = "/shared/{owner}/{set}"
        self.assertEqual((self.ask(COLLEAGUE, "GET", page)[0], self.theirs(COLLEAGUE)), (404, []))
        self.share()
        self.share()  # twice is once
        _, html = self.ask(COLLEAGUE, "GET", page)
        # As the owner's class works: nobody else's finds it by what the denominators make together.
        self.assertEqual(["Planks &lt;b&gt;" in html, "multiples of" in html], [True, False])
        version = self.ask(OWNER, "GET", "/api/sets/{set}")[1]["version"]
        self.ask(OWNER, "PATCH", "/api/sets/{set}", {"version": version, "title": "Boards"})
        self.assertTrue("Boards" in self.ask(COLLEAGUE, "GET", page)[1])
        self.assertEqual([self.theirs(COLLEAGUE, words) for words in ("boards 4%202/3", "rope")], [[self.set_id], []])
        with support.engine().begin() as connection:  # a colleague's look writes nothing in what is the owner's
            asked = text("update example set summary = null, summary_key = null where teacher_id = :owner")
            connection.execute(asked, {"owner": self.owner})
        self.theirs(COLLEAGUE)
        with support.engine().begin() as connection:
            asked = text("select count(summary) from example where teacher_id = :owner")
            self.assertEqual(connection.execute(asked, {"owner": self.owner}).scalar(), 0)
        self.ask(OWNER, "PUT", "/api/sets/{set}/place", {"place": "bin"})
        self.assertEqual((self.ask(COLLEAGUE, "GET", page)[0], self.theirs(COLLEAGUE)), (404, []))
        self.ask(OWNER, "PUT", "/api/sets/{set}/place", {"place": "shelf"})
        self.assertEqual(self.theirs(COLLEAGUE), [self.set_id])
        self.share(False)
        self.assertEqual((self.ask(COLLEAGUE, "GET", page)[0], self.theirs(COLLEAGUE)), (404, []))
        self.assertEqual(self.ask(COLLEAGUE, "POST", "/api/colleagues/{owner}/sets/{set}/copies")[0], 404)

    def test_a_copy_is_ones_own_and_says_where_it_came_from(self):
        self.share()
        version = self.ask(OWNER, "GET", "/api/sets/{set}")[1]["version"]
        changes = {"version": version, "note": "For Monday.", "ways": {"ties": "down"}}
        self.assertEqual(self.ask(OWNER, "PATCH", "/api/sets/{set}", changes)[0], 200)
        status, copy = self.ask(COLLEAGUE, "POST", "/api/colleagues/{owner}/sets/{set}/copies")
        self.assertEqual((status, [one["source"] for one in copy["examples"]]), (201, PLANKS))
        self.assertRegex(copy["note"], r"^Taken from Teacher \w{6} on \d+ \w+ \d{4}\. For Monday\.$")
        found = self.ask(COLLEAGUE, "GET", "/api/sets?search=taken%20monday")[1]["sets"]
        self.assertEqual([one["id"] for one in found], [copy["id"]])
        self.assertEqual(copy["ways"], {"ties": "down"})  # of the set; the house's are those of who took it
        self.share(False)
        self.assertEqual(self.ask(COLLEAGUE, "GET", f"/api/sets/{copy['id']}")[0], 200)
        self.assertEqual(self.ask(OWNER, "GET", f"/api/sets/{copy['id']}")[0], 404)

    def test_it_is_worked_in_ones_own_ways_beside_theirs(self):
        self.share()
        shown = self.ask(COLLEAGUE, "GET", "/api/colleagues/{owner}/sets/{set}")[1]
        self.assertEqual(([one["spoken"] for one in shown["examples"]][1], shown["title"]), (
            "nine minus four and two thirds", "Planks <b>"))  # fmt: skip
        version = self.ask(OWNER, "GET", "/api/sets/{set}")[1]["version"]
        changes = {
            "version": version,
            "ways": {"mixed_subtract": "count-back"},
            "words": {"count-up title": "Up we go"},
        }
        self.ask(OWNER, "PATCH", "/api/sets/{set}", changes)
        path = "/api/colleagues/{owner}/sets/{set}/examples/"
        found = self.ask(COLLEAGUE, "GET", f"{path}{shown['examples'][0]['id']}/beside")[1]["beside"]
        # As the set says there (count back), with the house's denominators; here as nobody chose anything.
        self.assertEqual([sentence.partition(":")[0] for sentence in found["said"][:-1]], [
            "Finding a common denominator", "Subtracting mixed numbers"])  # fmt: skip
        self.assertEqual(self.ask(COLLEAGUE, "GET", f"{path}{uuid.uuid4()}/beside")[0], 404)

    def test_a_set_is_shared_with_one_colleague_alone(self):
        third = self.teacher(self.school)
        self.browsers["third"] = Browser(self.app, third)
        chosen = str(self.browsers[COLLEAGUE].cookie().value[:32])
        body = {"shared": True, "with_ids": [str(uuid.UUID(chosen))]}
        status, told = self.ask(OWNER, "PUT", "/api/sets/{set}/share", body)
        self.assertEqual((status, told["with_ids"], len(told["colleagues"])), (200, body["with_ids"], 2))
        page, copies = "/shared/{owner}/{set}", "/api/colleagues/{owner}/sets/{set}/copies"
        for who, read in ((COLLEAGUE, True), ("third", False), (ELSEWHERE, False)):
            self.assertEqual(self.ask(who, "GET", page)[0], 200 if read else 404, who)
            self.assertEqual(self.theirs(who), [self.set_id] if read else [], who)
            self.assertEqual(self.ask(who, "POST", copies)[0], 201 if read else 404, who)
        # Another choice holds at once; with nobody in particular it is everybody's.
        self.ask(OWNER, "PUT", "/api/sets/{set}/share", {"shared": True, "with_ids": [str(third)]})
        self.assertEqual((self.theirs(COLLEAGUE), self.theirs("third")), ([], [self.set_id]))
        self.share()
        self.assertEqual((self.theirs(COLLEAGUE), self.theirs("third")), ([self.set_id], [self.set_id]))
        elsewhere = str(uuid.UUID(self.browsers[ELSEWHERE].cookie().value[:32]))
        for wrong in ([], [elsewhere], [str(self.owner)], [str(uuid.uuid4())]):
            self.assertEqual(
                self.ask(OWNER, "PUT", "/api/sets/{set}/share", {"shared": True, "with_ids": wrong})[0], 422
            )

    def test_who_is_in_no_school_shares_with_nobody(self):
        self.set_id = self.ask(ALONE, "POST", "/api/sets", {"title": "Rope"})[1]["id"]
        status, answer = self.ask(ALONE, "PUT", "/api/sets/{set}/share", {"shared": True})
        self.assertEqual((status, answer["error"]["message"][:26]), (422, "You are in no school here,"))
        self.assertEqual(
            self.ask(ALONE, "GET", "/api/sets/{set}/share")[1],
            {"shared": False, "with_ids": None, "school": None, "colleagues": []},
        )

    def test_the_keeper_makes_schools_and_lets_their_teachers_in(self):
        def keep_(*words):
            return keeper.keep(support.database_url(), "http://127.0.0.1:1", list(words))

        school, name, address = (
            f"Fen {uuid.uuid4().hex}",
            f"O'Hara <b> {uuid.uuid4().hex[:8]}",
            f"{uuid.uuid4().hex}@a.b",
        )
        self.assertEqual(keep_("school", school), keep_("school", f" {school} "))
        link = keep_("teacher", school, name)
        http = self.app.test_client()
        answer = http.post("/api/enter", json={"link": link.partition("/enter/")[2]}, base_url="http://127.0.0.1:8400")
        self.assertEqual(answer.status_code, 204)
        self.assertEqual(http.get("/api/colleagues/sets", base_url="http://127.0.0.1:8400").json["school"], school)
        with Session(support.engine()) as session, session.begin():
            teacher = session.query(Teacher).filter_by(name=name).one()
            keep(session, teacher.id, address, "seven planks and a half")
        self.assertIn(f"{school}\t{name}\t{address}", keep_("list").splitlines())
        self.assertIn("/enter/", keep_("reset", address.upper()))
        for words in (
            (),
            ("reset", "guessed@a.b"),
            ("school",),
            ("school", " "),
            ("teacher", school),
            ("school", "x" * 121),
        ):
            self.assertRaises(keeper.KeeperError, keep_, *words)
