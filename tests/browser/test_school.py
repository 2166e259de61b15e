"""A school in the real page: an invitation, its head's ways, a teacher's account that goes out as a file, ends and is
kept.
"""

import re
import uuid

from playwright.sync_api import expect
from sqlalchemy import text
from sqlalchemy.orm import Session

from keen_slate.store.colleagues import school_named
from keen_slate.store.models import Teacher
from tests import support
from tests.browser.test_bench import PageTests
from tools.browser import come_in


class SchoolPageTests(PageTests):
    head: uuid.UUID
    school: str
    problems = ("7 1/4 - 3 5/6", "2 3/4 + 1 2/3")

    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.school = f"Wren Hollow {uuid.uuid4().hex[:6]}"
        head = support.new_teacher("O'Hara")
        with Session(support.engine()) as session, session.begin():
            for teacher in (cls.teacher, head):
                session.get_one(Teacher, teacher).school_id = school_named(session, cls.school).id
            session.get_one(Teacher, head).head = True
        cls.head = head

    def as_head(self):
        second = self.browser.new_context()
        self.addCleanup(second.close)
        come_in(second.request, self.server.link(self.head))
        page = second.new_page()
        page.goto(f"{self.server.address}/school")
        page.wait_for_selector(".way .row")
        return page

    def test_who_is_invited_comes_in_with_a_password_of_her_own(self):
        head = self.as_head()
        head.get_by_label("Invite a teacher called").fill("Yarrow <b>")
        head.keyboard.press("Enter")
        link = head.locator(".made code").inner_text()
        expect(head.locator("li", has_text="Yarrow <b>")).to_contain_text("invited until")
        third = self.browser.new_context()
        self.addCleanup(third.close)
        page = third.new_page()
        for _ in range(2):  # looking uses nothing up
            page.goto(link)
            expect(page.locator("h1")).to_have_text(f"{self.school} invites you")
        self.assertEqual(self.unfair(page), [])
        page.get_by_label("Address (e-mail)").fill(f"{uuid.uuid4().hex}@wren.example")
        page.get_by_label("New password").fill("short")
        page.keyboard.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("10 characters or more")
        page.get_by_label("New password").fill("four words in a row")
        page.keyboard.press("Enter")
        page.wait_for_selector("text=My account")
        page.goto(f"{self.server.address}/school")
        expect(page.locator("li", has_text="Yarrow <b>")).to_contain_text("you")
        expect(page.locator(".way")).to_have_count(0)  # its head's to choose
        page.goto(link)
        expect(page.locator("h1")).to_contain_text("This invitation was used or withdrawn")
        head.reload()
        head.get_by_label("Take out of the school: Yarrow <b>").click()
        head.get_by_role("button", name="Take out of the school").last.click()
        expect(head.locator("li", has_text="Yarrow <b>")).to_have_count(0)

    def test_the_ways_of_the_school_are_told_from_those_for_all_sets(self):
        head = self.as_head()
        head.get_by_role("radio", name="all improper").first.click()
        expect(head.locator(".differs")).to_contain_text("The school: all improper; usual: wholes first.")
        self.page.locator(".step[data-id]").nth(1).click()
        self.page.reload()
        self.page.wait_for_selector(".paper .row[aria-label='fifty-three twelfths']")
        self.open_ways()
        said = self.page.locator(".differs").first
        expect(said).to_have_text("The school: all improper; usual: wholes first.")
        self.page.get_by_role("button", name="for all sets", exact=True).click()
        self.page.get_by_role("radio", name="wholes first", exact=False).first.click()
        expect(said).to_contain_text("All sets: wholes first; the school: all improper.")
        self.page.wait_for_selector(".row[aria-label='three plus seventeen twelfths']")
        said.get_by_role("button", name="Put it back").click()
        self.page.wait_for_selector(".paper .row[aria-label='fifty-three twelfths']")
        head.locator(".differs").get_by_role("button", name="Put it back").click()
        expect(head.locator(".differs")).to_have_count(0)
        self.assertEqual(self.unfair(head), [])
        for button, count in (("Undo", 1), ("Redo", 0), ("Undo", 1), ("Undo", 0)):
            head.get_by_role("button", name=button, exact=True).click()
            expect(head.locator(".differs")).to_have_count(count)
        expect(head.get_by_role("button", name="Undo", exact=True)).to_be_disabled()

    def test_a_passkey_lets_one_in_without_a_password_until_it_is_taken_away(self):
        named = self.server.address.replace("127.0.0.1", "localhost")  # none belongs to an address of digits
        second = self.browser.new_context()
        self.addCleanup(second.close)
        come_in(second.request, self.server.link(self.teacher).replace("127.0.0.1", "localhost"))
        page = second.new_page()
        device = second.new_cdp_session(page)
        device.send("WebAuthn.enable")
        kind = {"protocol": "ctap2", "transport": "internal", "hasResidentKey": True, "hasUserVerification": True}
        options = kind | {"isUserVerified": True, "automaticPresenceSimulation": True}
        there = device.send("WebAuthn.addVirtualAuthenticator", {"options": options})["authenticatorId"]
        page.goto(f"{named}/account")
        page.get_by_label("A new one, called").fill("Phone <b>")
        page.click("text=Add a passkey")
        key = page.locator("ul > li", has_text="Phone <b>")
        expect(key).to_contain_text("not used yet")
        self.assertEqual(self.unfair(page), [])
        page.get_by_label("A new one, called").fill("Again")
        page.click("text=Add a passkey")
        expect(page.get_by_role("alert")).to_contain_text("No passkey was made")  # this device has one
        second.clear_cookies()
        page.goto(f"{named}/door")
        page.click("text=Sign in by a passkey")
        page.wait_for_selector(".sheets h2")
        page.goto(f"{named}/account")
        expect(key).to_contain_text("last used")
        expect(page.locator(".log")).to_contain_text("You came in by a passkey.")
        # Whoever holds the device but cannot show that she is its owner stays outside.
        second.clear_cookies()
        device.send("WebAuthn.setUserVerified", {"authenticatorId": there, "isUserVerified": False})
        page.goto(f"{named}/door")
        page.click("text=Sign in by a passkey")
        expect(page.get_by_role("button", name="Sign in by a passkey")).to_be_enabled()
        expect(page.locator("h1")).to_have_text("Sign in")
        device.send("WebAuthn.setUserVerified", {"authenticatorId": there, "isUserVerified": True})
        page.click("text=Sign in by a passkey")
        page.wait_for_selector(".sheets h2")
        page.goto(f"{named}/account")
        page.get_by_label("Take away the passkey Phone <b>").click()
        page.get_by_role("button", name="Take away").last.click()
        expect(key).to_have_count(0)
        second.clear_cookies()
        page.goto(f"{named}/door")
        page.click("text=Sign in by a passkey")
        expect(page.get_by_role("alert")).to_contain_text("does not let you in here")

    def test_everything_goes_out_and_in_and_an_account_that_ends_may_be_kept(self):
        page = self.page
        page.goto(f"{self.server.address}/account")
        with page.expect_download() as saved:
            page.click("text=Save it")
        page.set_input_files("input[type=file]", {"name": "x.zip", "mimeType": "application/zip", "buffer": b"PK"})
        expect(page.get_by_role("alert")).to_contain_text("This is no file of a whole desk")
        whole = saved.value.path().read_bytes()
        page.set_input_files("input[type=file]", {"name": "x.zip", "mimeType": "application/zip", "buffer": whole})
        expect(page.get_by_role("status").first).to_contain_text(
            re.compile("Brought in: [1-9] sets?, 0 classes, 0 scenarios.")
        )
        expect(page.locator(".log")).to_contain_text("You brought in a file of everything.")
        page.click("text=End my account >> nth=-1")
        page.get_by_role("button", name="End it").click()
        page.wait_for_selector("h1 >> text=Sign in")
        come_in(self.context.request, self.server.link(self.teacher))
        page.goto(f"{self.server.address}/account")
        page.wait_for_selector("h2 >> text=All that is yours goes on")
        self.assertEqual(self.unfair(), [])
        page.click("text=Keep my account")
        expect(page.locator("text=All that is yours goes on")).to_have_count(0)
        with support.engine().connect() as connection:
            leaves = connection.execute(text("select leaves_at from teacher where id = :who"), {"who": self.teacher})
            self.assertIsNone(leaves.scalar())
