"""Who reaches what: every operation of the API asked by every kind of caller, with the rows of one teacher in its
address.

The table is common practice: who may not reach a thing cannot tell it from one that is not there (404); only of what is
a head's to do is it said that it is (403).
"""

import unittest
import uuid

from apiflask import APIFlask
from sqlalchemy import text
from sqlalchemy.orm import Session

from keen_slate.store.colleagues import Colleagues, school_named
from keen_slate.store.models import Base, Teacher
from tests import support
from tests.web.operations import asked, known_provider, operations_of, rows_for
from tests.web.test_door import Browser, app_of

NOBODY, PAST, OWNER, COLLEAGUE, HEAD, ELSEWHERE, ALONE = KINDS = (
    "nobody", "signed out", "the owner", "a colleague", "the head", "another school", "no school",
)  # fmt: skip
REACHED = "reached"
# Each rule: what an operation answers to each kind of caller. Who is not in is told so, or that her page has lost its
# token.
OUTSIDE = {NOBODY: 401, PAST: 401}
OPEN = dict.fromkeys(KINDS, REACHED)
BY_SECRET = dict.fromkeys(KINDS, 403)  # with a secret that nobody was given
ONES_OWN = OUTSIDE | dict.fromkeys((OWNER, COLLEAGUE, HEAD, ELSEWHERE, ALONE), REACHED)
BY_ID = OUTSIDE | {OWNER: REACHED} | dict.fromkeys((COLLEAGUE, HEAD, ELSEWHERE, ALONE), 404)
NOBODYS_ID = OUTSIDE | dict.fromkeys((OWNER, COLLEAGUE, HEAD, ELSEWHERE, ALONE), 404)
SHARED = OUTSIDE | {COLLEAGUE: REACHED, HEAD: REACHED} | dict.fromkeys((OWNER, ELSEWHERE, ALONE), 404)
HEADS = OUTSIDE | {HEAD: REACHED} | dict.fromkeys((OWNER, COLLEAGUE, ELSEWHERE, ALONE), 403)
NOBODYS_OF_HEAD = HEADS | {HEAD: 404}
SIGNED_IN_BY_SECRET = BY_SECRET | OUTSIDE

RULES = {
    "POST /api/enter": BY_SECRET,
    "POST /api/sign-in": BY_SECRET,
    "POST /api/invited": BY_SECRET,
    "POST /api/join": BY_SECRET,
    "POST /api/passkey/options": OPEN,
    "POST /api/forgotten": OPEN,
    "GET /api/way-in": OPEN,
    "POST /api/passkey/sign-in": BY_SECRET,
    "POST /api/provider/options": OPEN,
    "POST /api/provider/sign-in": BY_SECRET,
    "POST /api/provider/join": BY_SECRET,
    "POST /api/account/identities": SIGNED_IN_BY_SECRET,
    "DELETE /api/account/identities/{named}": NOBODYS_ID,
    "POST /api/account/passkeys": SIGNED_IN_BY_SECRET,
    "DELETE /api/account/passkeys/{named}": NOBODYS_ID,
    "POST /api/school/joined": SIGNED_IN_BY_SECRET,
    "PUT /api/school/ways": HEADS,
    "POST /api/school/ways/undo": HEADS,
    "POST /api/school/ways/redo": HEADS,
    "POST /api/school/invitations": HEADS,
    "DELETE /api/school/invitations/{named}": NOBODYS_OF_HEAD,
    "POST /api/school/teachers/{teacher_id}/links": HEADS,
    "DELETE /api/school/teachers/{teacher_id}": HEADS,
    "DELETE /api/account/sign-ins/{named}": NOBODYS_ID,
    "POST /api/colleagues/{teacher_id}/sets/{set_id}/copies": SHARED,
    "GET /api/colleagues/{teacher_id}/sets/{set_id}": SHARED,
    "GET /api/colleagues/{teacher_id}/sets/{set_id}/examples/{example_id}/beside": SHARED,
}
# By the names in the address: those of rows are their owner's, the rest is everybody's own.
OF_ROWS = ("set_id", "example_id", "class_id", "sitting_id", "pupil_id")
NOT_A_TEACHERS = {"tries", "challenge", "begun", "school", "school_change", "invitation"}
ENDS_THE_SIGN_IN = ("POST /api/leave", "POST /api/account/leaving", "PUT /api/account/password")


def rule_of(operation):
    """The row of an operation in the table. Raises `KeyError` for an address with a name that no rule knows."""
    if operation in RULES:
        return RULES[operation]
    names = {part.strip("{}") for part in operation.split("/") if part.startswith("{")}
    if names & set(OF_ROWS):
        return BY_ID
    if names - {"code", "index", "number"}:
        raise KeyError(operation)
    return ONES_OWN


class ReachTests(unittest.TestCase):
    app: APIFlask
    operations: list[str]

    @classmethod
    def setUpClass(cls):
        cls.app = app_of(cls, PROVIDER=known_provider())
        cls.operations = operations_of(cls.app)

    def setUp(self):
        self.school, other = f"Wren {uuid.uuid4().hex}", f"Marsh {uuid.uuid4().hex}"
        self.owner = self.teacher(self.school)
        self.ids = rows_for(self.owner)
        with Session(support.engine()) as session, session.begin():
            Colleagues(session, session.get_one(Teacher, self.owner)).share(self.ids["set_id"], True)
        self.browsers = {
            OWNER: Browser(self.app, self.owner), COLLEAGUE: Browser(self.app, self.teacher(self.school)),
            HEAD: Browser(self.app, self.teacher(self.school, head=True)),
            ELSEWHERE: Browser(self.app, self.teacher(other)),
            ALONE: Browser(self.app, self.teacher(None)), PAST: Browser(self.app, self.teacher(self.school)),
        }  # fmt: skip
        with Session(support.engine()) as session, session.begin():  # as a sign-in that was ended elsewhere
            session.execute(text("delete from tries"))  # of other tests, for the same address
            past = self.browsers[PAST].cookie().value[:32]
            session.execute(text("delete from sign_in where teacher_id = :past"), {"past": uuid.UUID(past)})

    @staticmethod
    def teacher(school, head=False):
        made = support.new_teacher()
        with Session(support.engine()) as session, session.begin():
            found = session.get_one(Teacher, made)
            found.school_id, found.head = school_named(session, school).id if school else None, head
        return made

    def ask(self, who, operation):
        """What *who* is answered, as the table has it."""
        method, path, body = asked(operation, self.ids)
        browser = self.browsers.get(who)
        http = browser.http if browser else self.app.test_client()
        answer = http.open(
            path, method=method, json=body, headers={"X-CSRF-Token": browser.token if browser else "guessed"},
            base_url="http://127.0.0.1:8400",
        )  # fmt: skip
        status = answer.status_code
        if status == 403 and who == NOBODY and answer.json["error"]["message"].startswith("This page has lost"):
            return 401  # a change without a sign-in has no token either; that is looked at first
        return status if status in (401, 403, 404) or status >= 500 else REACHED

    def owned(self):
        """All that is the owner's, but what says that it is used."""
        rows = {}
        with support.engine().connect() as connection:
            for table in sorted(set(Base.metadata.tables) - NOT_A_TEACHERS):
                key = "id" if table == "teacher" else "teacher_id"
                found = connection.execute(text(f"select * from {table} where {key} = :owner"), {"owner": self.owner})
                rows[table] = sorted([str(row) for row in found])
        return rows

    def test_every_operation_has_its_row(self):
        for operation in self.operations:
            self.assertEqual(set(rule_of(operation)), set(KINDS), operation)
        self.assertEqual(set(RULES) - set(self.operations), set())
        self.assertRaises(KeyError, rule_of, "GET /api/schools/{school_id}")

    def test_everybody_reaches_what_the_table_says_and_nobody_elses_asking_changes_anything(self):
        wrong = {}
        before = self.owned()
        for operation in self.operations:
            if operation in ENDS_THE_SIGN_IN or operation == "DELETE /api/school/teachers/{teacher_id}":
                continue
            rule = rule_of(operation)
            # What is everybody's own is asked by one of them, for it names nobody's rows.
            for who in (NOBODY, PAST, ALONE) if rule is ONES_OWN else (NOBODY, PAST, ELSEWHERE, ALONE, COLLEAGUE):
                if (found := self.ask(who, operation)) != rule[who]:
                    wrong[operation, who] = found
        self.assertEqual(self.owned(), before)
        for operation in self.operations:
            rule = rule_of(operation)
            if rule is ONES_OWN or operation == "DELETE /api/school/teachers/{teacher_id}":
                continue
            if (found := self.ask(HEAD, operation)) != rule[HEAD]:
                wrong[operation, HEAD] = found
        after = self.owned()
        # A head makes a link by which a teacher comes in again, and the log says so.
        self.assertEqual({name for name in before if before[name] != after[name]}, {"entry_link", "log_line"})
        self.assertEqual(wrong, {})

    def test_the_owner_reaches_it(self):
        wrong = {}

        # What takes away comes last, the whole after its parts.
        def late(operation):
            return (
                operation.startswith("DELETE"), operation == "DELETE /api/classes/{class_id}",
                "/sittings/{" in operation,
            )  # fmt: skip

        for operation in sorted(self.operations, key=late):
            if operation in ENDS_THE_SIGN_IN:
                continue
            if (found := self.ask(OWNER, operation)) != rule_of(operation)[OWNER]:
                wrong[operation] = found
        self.assertEqual(wrong, {})

    def test_what_ends_a_sign_in_ends_ones_own(self):
        for operation in ENDS_THE_SIGN_IN:
            before = self.owned()
            self.assertEqual([self.ask(who, operation) for who in (NOBODY, PAST)], [401, 401], operation)
            self.assertEqual(self.ask(ALONE, operation), REACHED)
            self.assertEqual(self.owned(), before)
            self.browsers[ALONE] = Browser(self.app, self.teacher(None))
        self.assertEqual([self.ask(who, "DELETE /api/school/teachers/{teacher_id}") for who in KINDS if who != HEAD], [
            HEADS[who] for who in KINDS if who != HEAD
        ])  # fmt: skip
        self.assertEqual(self.ask(HEAD, "DELETE /api/school/teachers/{teacher_id}"), REACHED)
        self.assertEqual(self.ask(HEAD, "DELETE /api/school/teachers/{teacher_id}"), 404)
