"""A school: who is invited comes in, its ways hold for all, its head lets in and takes out; and what ends, ends."""

import unittest
import uuid

from apiflask import APIFlask
from sqlalchemy import text
from sqlalchemy.orm import Session

from keen_slate.store.colleagues import school_named
from keen_slate.store.models import Teacher
from tests import support
from tests.web.test_door import Browser, app_of
from tools import keeper

WORDS = "four words in a row"


class SchoolTests(unittest.TestCase):
    app: APIFlask

    @classmethod
    def setUpClass(cls):
        cls.app = app_of(cls)

    def setUp(self):
        self.school = f"Wren Hollow {uuid.uuid4().hex}"
        self.head, self.teacher = self.made(head=True), self.made()
        self.heads, self.teachers = Browser(self.app, self.head), Browser(self.app, self.teacher)

    def made(self, head=False):
        made = support.new_teacher()
        with Session(support.engine()) as session, session.begin():
            found = session.get_one(Teacher, made)
            found.school_id, found.head = school_named(session, self.school).id, head
        return made

    def sql(self, said, **more):
        with support.engine().begin() as connection:
            found = connection.execute(text(said), more)
            return found.all() if found.returns_rows else None

    def invite(self, name="Yarrow O'Hara <b>", head=False):
        status, answer = self.heads.send("POST", "/api/school/invitations", {"name": name, "head": head})
        self.assertEqual(status, 201)
        self.assertIn("/invited/", answer["link"])
        return answer["link"].rsplit("/", 1)[1]

    def outside(self, path, **body):
        client = self.app.test_client()
        return client, client.post(path, json=body, base_url="http://127.0.0.1:8400")

    def join(self, link, address=None, password=WORDS, name="Yarrow O'Hara <b>"):
        address = address or f"{uuid.uuid4().hex}@wren.example"
        return self.outside("/api/join", link=link, name=name, address=address, password=password)

    def test_who_is_invited_comes_in_once_and_signs_in_by_her_password_afterwards(self):
        link = self.invite()
        for _ in range(2):  # looking uses nothing up
            self.assertEqual(
                self.outside("/api/invited", link=link)[1].json,
                {"school": self.school, "name": "Yarrow O'Hara <b>", "here": None},
            )
        self.assertEqual(
            [one["name"] for one in self.heads.send("GET", "/api/school")[1]["invitations"]], ["Yarrow O'Hara <b>"]
        )
        # What is refused uses nothing up either, and leaves nobody behind.
        before = self.sql("select count(*) from teacher")
        for more in ({"password": "short"}, {"address": "no address"}, {"name": " "}):
            self.assertEqual(self.join(link, **more)[1].status_code, 422, more)
        self.assertEqual(self.join("guessed")[1].status_code, 403)
        self.assertEqual(self.sql("select count(*) from teacher"), before)
        address = f"Yarrow.{uuid.uuid4().hex}@wren.example"
        client, joined = self.join(link, address)
        self.assertEqual(joined.status_code, 204)
        seen = client.get("/api/school", base_url="http://127.0.0.1:8400").json
        self.assertEqual(
            (seen["school"], seen["head"], seen["invitations"], seen["settings"]), (self.school, False, [], [])
        )
        self.assertIn(
            {"name": "Yarrow O'Hara <b>", "head": False, "here": True},
            [{k: v for k, v in one.items() if k != "id"} for one in seen["teachers"]],
        )
        for path, more in (
            ("/api/invited", {}),
            ("/api/join", {"name": "x", "address": "x@y.example", "password": WORDS}),
        ):
            self.assertEqual(self.outside(path, link=link, **more)[1].status_code, 403)
        self.assertEqual(self.outside("/api/sign-in", address=address.upper(), password=WORDS)[1].status_code, 204)
        # An address that somebody has is refused, and the invitation still good.
        again = self.invite("Reed")
        self.assertEqual(self.join(again, address)[1].status_code, 422)
        self.assertEqual(self.join(again)[1].status_code, 204)

    def test_a_head_invites_another_head(self):
        for head in (False, True):
            link = self.invite(head=head)
            invited = self.heads.send("GET", "/api/school")[1]["invitations"]
            self.assertEqual([one["head"] for one in invited], [head])
            client, _ = self.join(link)
            self.assertEqual(client.get("/api/school", base_url="http://127.0.0.1:8400").json["head"], head)

    def test_an_invitation_ends_by_itself_and_by_its_heads_word(self):
        old, withdrawn, good = self.invite("Old"), self.invite("Withdrawn"), self.invite("Good")
        self.sql("update invitation set made_at = now() - interval '7 days 1 minute' where name = 'Old'")
        there = {one["name"]: one["id"] for one in self.heads.send("GET", "/api/school")[1]["invitations"]}
        self.assertEqual(set(there), {"Withdrawn", "Good"})
        path = f"/api/school/invitations/{there['Withdrawn']}"
        self.assertEqual([self.heads.send("DELETE", path)[0] for _ in range(2)], [204, 404])
        for link, status in ((old, 403), (withdrawn, 403), (good, 204)):
            self.assertEqual(self.join(link)[1].status_code, status)

    def test_who_is_a_teacher_already_joins_as_herself(self):
        other = Browser(self.app, support.new_teacher())
        self.assertEqual(other.send("GET", "/api/school")[1]["school"], None)
        link = self.invite()
        self.assertEqual([other.send("POST", "/api/school/joined", {"link": link})[0] for _ in range(2)], [204, 403])
        self.assertEqual(other.send("GET", "/api/school")[1]["school"], self.school)

    def test_the_ways_of_the_school_hold_before_the_house_and_after_it_what_the_house_chose(self):
        def denominator(browser):
            set_id = browser.send("POST", "/api/sets", {"title": "x"})[1]
            added = browser.send(
                "POST", f"/api/sets/{set_id['id']}/examples", {"version": set_id["version"], "source": "5/6 + 3/4"}
            )[1]
            example = added["set"]["examples"][-1]["id"]
            working = browser.send("GET", f"/api/sets/{set_id['id']}/examples/{example}")[1]["working"]
            return working["steps"][0]["after"] == "20/24 + 18/24"

        version = self.heads.send("GET", "/api/school")[1]["version"]
        self.assertEqual([denominator(one) for one in (self.heads, self.teachers)], [False, False])
        change = {"ways": {"common_denominator": "product"}, "version": version}
        status, after = self.heads.send("PUT", "/api/school/ways", change)
        self.assertEqual((status, after["ways"]), (200, change["ways"]))
        self.assertEqual([denominator(one) for one in (self.heads, self.teachers)], [True, True])
        # What the head changed on an older look is refused; a name that is no setting, too.
        self.assertEqual(self.heads.send("PUT", "/api/school/ways", change)[0], 409)
        self.assertEqual(
            self.heads.send("PUT", "/api/school/ways", {"ways": {"x": "y"}, "version": version + 1})[0], 422
        )
        # What was changed is undone and done again, by the head alone, and only on what is there now.
        self.assertEqual((after["undo"], after["redo"]), ("Ways changed", None))
        self.assertEqual(self.teachers.send("GET", "/api/school")[1]["undo"], None)
        self.assertEqual(self.heads.send("POST", "/api/school/ways/undo", {"version": version})[0], 409)
        status, back = self.heads.send("POST", "/api/school/ways/undo", {"version": version + 1})
        self.assertEqual((status, back["ways"], back["undo"], back["redo"]), (200, {}, None, "Ways changed"))
        self.assertEqual([denominator(one) for one in (self.heads, self.teachers)], [False, False])
        self.assertEqual(self.heads.send("POST", "/api/school/ways/undo", {"version": version + 2})[0], 422)
        again = self.heads.send("POST", "/api/school/ways/redo", {"version": version + 2})[1]
        self.assertEqual((again["ways"], again["redo"]), (change["ways"], None))
        ways = self.teachers.send("GET", "/api/ways")[1]
        self.assertEqual((ways["school"], ways["house"]), (change["ways"], {}))
        self.teachers.send(
            "PUT", "/api/ways", {"house": {"common_denominator": "list-multiples"}, "version": ways["version"]}
        )
        self.assertEqual([denominator(one) for one in (self.heads, self.teachers)], [True, False])

    def test_a_head_lets_in_again_and_takes_out_and_the_teacher_reads_it(self):
        path = f"/api/school/teachers/{self.teacher}"
        status, answer = self.heads.send("POST", f"{path}/links")
        self.assertEqual(status, 201)
        self.assertEqual(self.outside("/api/enter", link=answer["link"].rsplit("/", 1)[1])[1].status_code, 204)
        set_id = self.teachers.send("POST", "/api/sets", {"title": "Planks"})[1]["id"]
        self.teachers.send("PUT", f"/api/sets/{set_id}/share", {"shared": True})
        self.assertEqual(self.heads.send("GET", "/api/colleagues/sets")[1]["total"], 1)
        self.assertEqual(self.heads.send("DELETE", path)[0], 204)
        self.assertEqual(self.heads.send("GET", "/api/colleagues/sets")[1]["total"], 0)
        self.assertEqual([one["here"] for one in self.heads.send("GET", "/api/school")[1]["teachers"]], [True])
        self.assertEqual(self.heads.send("POST", f"{path}/links")[0], 404)
        self.assertEqual(
            self.teachers.send("GET", f"/api/sets/{set_id}/share")[1],
            {"shared": False, "with_ids": None, "school": None, "colleagues": []},
        )
        log = [one["said"] for one in self.teachers.send("GET", "/api/account")[1]["log"]]
        name = self.sql("select name from teacher where id = :head", head=self.head)[0][0]
        self.assertEqual(log, [
            f"{name}, head of the school, took you out of it.", "You shared Planks.", "You came in by a link.",
            f"{name}, head of the school, made a link to come in as you.", "You came in by a link.",
        ])  # fmt: skip
        self.assertEqual(self.heads.send("DELETE", f"/api/school/teachers/{self.head}")[0], 404)

    def test_who_has_her_account_end_may_come_back_for_fourteen_days(self):
        set_id = self.teachers.send("POST", "/api/sets", {"title": "Planks"})[1]["id"]
        self.teachers.send("PUT", f"/api/sets/{set_id}/share", {"shared": True})
        elsewhere = Browser(self.app, self.teacher)
        status, _ = self.teachers.send("POST", "/api/account/leaving", {})
        self.assertEqual(
            [status, elsewhere.send("GET", "/api/account")[0], self.teachers.send("GET", "/api/account")[0]],
            [204, 401, 401],
        )
        self.assertEqual(self.heads.send("GET", "/api/colleagues/sets")[1]["total"], 0)  # not shared meanwhile
        back = Browser(self.app, self.teacher)
        ends = back.send("GET", "/api/account")[1]["leaves_at"]
        ((days,),) = self.sql("select extract(epoch from cast(:ends as timestamptz) - now()) / 86400", ends=ends)
        self.assertAlmostEqual(float(days), 14, 2)
        self.assertEqual(back.send("DELETE", "/api/account/leaving")[0], 204)
        self.assertEqual(
            (
                back.send("GET", "/api/account")[1]["leaves_at"],
                self.heads.send("GET", "/api/colleagues/sets")[1]["total"],
            ),
            (None, 1),
        )
        back.send("POST", "/api/account/leaving", {})
        last = Browser(self.app, self.teacher)
        self.sql("update teacher set leaves_at = now() - interval '1 second' where id = :who", who=self.teacher)
        self.assertEqual(last.send("GET", "/api/account")[0], 401)  # over is over, even before it is taken away
        Browser(self.app, self.head)  # whoever comes in next
        self.assertEqual(self.sql("select count(*) from teacher where id = :who", who=self.teacher), [(0,)])

    def test_the_account_ends_by_her_own_word_alone(self):
        address = f"{uuid.uuid4().hex}@wren.example"
        client, _ = self.join(self.invite(), address)
        token = client.get("/api/me", base_url="http://127.0.0.1:8400").json["csrf_token"]
        for now, status in ((None, 403), ("another one", 403), (WORDS, 204)):
            answer = client.post(
                "/api/account/leaving",
                json={"now": now},
                headers={"X-CSRF-Token": token},
                base_url="http://127.0.0.1:8400",
            )
            self.assertEqual(answer.status_code, status, now)

    def test_the_keeper_makes_a_head(self):
        def keep(*words):
            return keeper.keep(support.database_url(), "http://127.0.0.1:1", list(words))

        school, address = f"Fen {uuid.uuid4().hex}", f"{uuid.uuid4().hex}@fen.example"
        link = keep("head", school, address).rsplit("/", 1)[1]
        client, joined = self.join(link, address, name="Sedge")
        self.assertEqual(
            (joined.status_code, client.get("/api/school", base_url="http://127.0.0.1:8400").json["head"]), (204, True)
        )
        self.assertEqual(keep("head", self.school, address.upper()), f"Sedge is head of {self.school}.")
        self.assertRaisesRegex(keeper.KeeperError, "keeper head SCHOOL ADDRESS", keep, "head", school)
