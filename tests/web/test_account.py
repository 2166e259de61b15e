"""A password of one's own: who comes in by it, who does not, and what is left of a try."""

import threading
import unittest
import uuid
from unittest import mock

from apiflask import APIFlask
from argon2 import PasswordHasher
from sqlalchemy import text

from keen_slate.store import accounts
from keen_slate.web import account
from tests import support
from tests.web.test_door import Browser, app_of

GOOD = "seven planks and a half"


def sql(statement, **given):
    with support.engine().begin() as connection:
        return connection.execute(text(statement), given)


class AccountTests(unittest.TestCase):
    app: APIFlask

    @classmethod
    def setUpClass(cls):
        cls.app = app_of(cls)

    def setUp(self):
        self.teacher = support.new_teacher()
        self.browser = Browser(self.app, self.teacher)
        self.address = f"{uuid.uuid4().hex}@wren.example"
        self.remote = f"fd00::{uuid.uuid4().hex[:4]}"  # tries are counted by where they come from, too

    def keep(self, password=GOOD, browser=None, **more):
        body = {"address": self.address, "password": password} | more
        status, answer = (browser or self.browser).send("PUT", "/api/account/password", body)
        return status, answer and answer["error"]["message"]

    def sign_in(self, password=GOOD, address=None, remote=None, app=None):
        http = (app or self.app).test_client()
        answer = http.post(
            "/api/sign-in", json={"address": address or self.address, "password": password}, base_url=self.browser.base,
            environ_base={"REMOTE_ADDR": remote or self.remote},
        )  # fmt: skip
        return answer.status_code, answer.json and answer.json["error"]["message"], http

    def me(self, http):
        return http.get("/api/me", base_url=self.browser.base).status_code

    def test_who_came_by_a_link_names_a_password_and_comes_in_by_it(self):
        other, kept = Browser(self.app, self.teacher), self.browser.cookie().value
        self.assertEqual(self.keep()[0], 204)
        self.assertNotEqual(self.browser.cookie().value, kept)  # a sign-in of its own, the old one has ended
        self.assertEqual([self.me(self.browser.http), self.me(other.http)], [200, 401])
        for address in (self.address, f" {self.address.upper()} "):
            status, _, http = self.sign_in(address=address)
            self.assertEqual((status, self.me(http)), (204, 200), address)
        told = http.get("/api/account", base_url=self.browser.base).json
        self.assertEqual((told["address"], told["asks_now"], len(told["sign_ins"])), (self.address, True, 3))
        self.assertEqual([one["here"] for one in told["sign_ins"]].count(True), 1)

    def test_a_wrong_password_and_an_unknown_address_are_told_alike_and_take_the_same_work(self):
        self.keep()
        with mock.patch.object(accounts, "_HASHER", mock.Mock(wraps=accounts._HASHER)) as hasher:
            accounts._nobodys()  # made once in a process
            hasher.reset_mock()
            answers = [
                self.sign_in("seven planks and a third")[:2],
                self.sign_in(address=f"no-{self.address}")[:2],
                self.sign_in(address="no address at all")[:2],
            ]
        self.assertEqual(answers, [(403, account.WRONG)] * 3)
        self.assertEqual([name for name, *_ in hasher.method_calls], ["verify"] * 3)

    def test_what_others_would_guess_is_refused_with_its_reason(self):
        for password, said in (
            ("7planks", "10 characters or more"),
            ("aaaaabbbbbaaaaa", "again and again"),
            ("1q2w3e4r5t", "try this one first"),
            ("QwertyUiop", "try this one first"),
            (self.address.upper(), "try this one first"),
        ):
            status, message = self.keep(password)
            self.assertEqual(status, 422, password)
            self.assertIn(said, message)
        self.assertEqual(self.sign_in("1q2w3e4r5t")[0], 403)
        for address in ("", "sedge", "sedge@", "@wren.example", "a b@wren.example", f"{'a' * 250}@b.example"):
            self.assertEqual(self.keep(address=address)[0], 422, address)

    def test_the_present_password_is_asked_for_but_not_right_after_a_link(self):
        self.keep()
        self.assertEqual(self.keep("nine planks and a half")[0], 403)
        self.assertEqual(self.keep("nine planks and a half", now="nine planks")[0], 403)
        self.browser.token = self.browser.http.get("/api/me", base_url=self.browser.base).json["csrf_token"]
        self.assertEqual(self.keep("nine planks and a half", now=GOOD)[0], 204)
        forgotten = Browser(self.app, self.teacher)  # by a new link
        self.assertEqual(self.keep("ten planks and a half", forgotten)[0], 204)
        late = Browser(self.app, self.teacher)
        sql("update sign_in set made_at = now() - interval '61 minutes' where teacher_id = :id", id=self.teacher)
        self.assertEqual(self.keep("eleven planks, a half", late), (403, "The present password is another one."))
        self.assertEqual([self.sign_in(one)[0] for one in (GOOD, "ten planks and a half")], [403, 204])

    def test_an_address_is_one_teachers(self):
        self.keep()
        second = Browser(self.app, support.new_teacher())
        self.assertEqual(self.keep("other planks, a third", second)[0], 422)
        self.assertEqual(self.sign_in()[0], 204)
        self.assertEqual(self.keep("other planks, a third", second, address=f"2{self.address}")[0], 204)

    def test_tries_are_counted_over_all_processes_and_end_by_themselves(self):
        self.keep()
        apps, said = [self.app, app_of(type(self))], []

        def guess(number):
            for i in range(6):
                said.append(self.sign_in(f"{number} planks and {i}", app=apps[number % 2])[0])

        threads = [threading.Thread(target=guess, args=(number,)) for number in range(6)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join(120)
        self.assertEqual((said.count(403), said.count(429)), (accounts.OF_ACCOUNT, 36 - accounts.OF_ACCOUNT))
        self.assertEqual(self.sign_in()[:2], (429, account.TOO_MANY))  # the right one, too
        self.assertEqual(self.sign_in(remote="fd00::1:1")[0], 429)
        sql("update tries set since = since - interval '15 minutes'")
        self.assertEqual(self.sign_in()[0], 204)
        self.assertEqual(
            [self.sign_in("wrong planks")[0] for _ in range(accounts.OF_ACCOUNT)], [403] * accounts.OF_ACCOUNT
        )
        self.assertEqual(self.sign_in()[0], 429)

    def test_one_place_of_the_network_tries_so_many_addresses_and_no_more(self):
        with mock.patch.object(accounts, "FROM_ADDRESS", 5):
            said = [self.sign_in(address=f"{i}{self.address}")[0] for i in range(7)]
            self.assertEqual(said, [403] * 5 + [429] * 2)
            self.keep()
            self.assertEqual(self.sign_in(remote="fd00::1:2")[0], 204)

    def test_a_password_is_kept_anew_when_its_parameters_rise_and_nothing_else_is_kept_of_it(self):
        with mock.patch.object(accounts, "_HASHER", PasswordHasher(time_cost=1, memory_cost=8192)):
            key = str(uuid.uuid4())
            body = {"address": self.address, "password": GOOD}
            self.assertEqual(self.browser.send("PUT", "/api/account/password", body, Idempotency_Key=key)[0], 204)
        kept = lambda: sql("select password from account where address = :at", at=self.address).scalar()  # noqa: E731
        weak = kept()
        self.assertTrue(weak.startswith("$argon2id$") and "m=8192,t=1" in weak)
        self.assertEqual(sql("select count(*) from answered where teacher_id = :id", id=self.teacher).scalar(), 0)
        self.assertEqual(self.sign_in()[0], 204)
        self.assertNotEqual(kept(), weak)
        self.assertEqual(self.sign_in()[0], 204)
        self.assertFalse(accounts._HASHER.check_needs_rehash(kept()))

    def test_each_browser_can_be_signed_out(self):
        others = [Browser(self.app, self.teacher) for _ in range(3)]
        stranger = Browser(self.app, support.new_teacher())
        ids = [one["id"] for one in others[0].send("GET", "/api/account")[1]["sign_ins"] if one["here"]]
        self.assertEqual(stranger.send("DELETE", f"/api/account/sign-ins/{ids[0]}")[0], 404)
        self.assertEqual(self.browser.send("DELETE", f"/api/account/sign-ins/{ids[0]}")[0], 204)
        self.assertEqual([self.me(one.http) for one in others], [401, 200, 200])
        for strange in ("%" * 16, "_" * 16):
            self.assertEqual(self.browser.send("DELETE", f"/api/account/sign-ins/{strange}")[0], 404)
        self.assertEqual(self.browser.send("DELETE", "/api/account/sign-ins")[0], 204)
        self.assertEqual([self.me(one.http) for one in others], [401] * 3)
        self.assertEqual([self.me(self.browser.http), self.me(stranger.http)], [200, 200])

    def test_only_a_page_of_ours_signs_in(self):
        self.keep()
        body = {"address": self.address, "password": GOOD}
        for origin, status in (("http://evil.example", 403), ("null", 403), (self.browser.base, 204)):
            answer = self.app.test_client().post(
                "/api/sign-in", json=body, headers={"Origin": origin}, base_url=self.browser.base,
                environ_base={"REMOTE_ADDR": self.remote},
            )  # fmt: skip
            self.assertEqual((answer.status_code, "Set-Cookie" in answer.headers), (status, status == 204), origin)
