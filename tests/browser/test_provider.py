"""The school's own sign-in in the real page: there and back, by an invitation, by one's account, and in vain."""

import uuid
from threading import Thread

from playwright.sync_api import expect
from sqlalchemy.orm import Session

from keen_slate.store import school as schools
from keen_slate.store.colleagues import school_named
from tests import support
from tests.browser.test_bench import PageTests
from tools.application import listen
from tools.browser import come_in
from tools.server import LiveServer
from tools.stand_in_provider import NAME, StandInProvider

SEDGE, ALDER = "sedge@wren.example", "alder <b>@wren.example"


class ProviderPageTests(PageTests):
    own: LiveServer
    problems = ("1/2 + 1/3",)

    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        listening = listen(0)
        cls.addClassCleanup(listening.close)
        stand_in = StandInProvider([SEDGE, ALDER], listening)
        Thread(target=stand_in.server.serve_forever, daemon=True).start()
        cls.addClassCleanup(stand_in.server.shutdown)
        cls.own = LiveServer(support.database_url(), support.desk_url(), more=stand_in.environment)
        cls.addClassCleanup(cls.own.stop)

    def new_page(self, path, teacher=None):
        context = self.browser.new_context()
        self.addCleanup(context.close)
        if teacher:
            come_in(context.request, self.own.link(teacher))
        page = context.new_page()
        page.goto(self.own.address + path)
        return page

    def test_by_an_invitation_and_then_at_the_door(self):
        with Session(support.engine()) as session, session.begin():
            school = school_named(session, f"Wren {uuid.uuid4().hex}")
            link = schools.invite(session, school.id, "Yarrow")
        page = self.new_page(f"/invited/{link}")
        expect(page.get_by_label("Your name")).to_have_value("Yarrow")
        self.assertEqual(self.unfair(page), [])
        page.click(f"text=Come in by {NAME}")
        page.click("text=Nobody of these")
        expect(page.locator("h1")).to_have_text("You did not sign in there.")
        self.assertEqual(page.url, f"{self.own.address}/come-back")  # nothing of it stays in the address
        self.assertEqual(self.unfair(page), [])
        page.click("text=Back")
        page.get_by_label("Your name").fill("Yarrow <b>")
        page.click(f"text=Come in by {NAME}")
        page.click(f"text={SEDGE}")
        page.wait_for_selector("text=My account")
        page.context.clear_cookies()
        page.goto(f"{self.own.address}/door")
        self.assertEqual(self.unfair(page), [])
        page.click(f"text=Sign in by {NAME}")
        page.click(f"text={SEDGE}")
        page.click("text=My account")
        expect(page.locator("ul > li", has_text=SEDGE)).to_contain_text("last used")
        # What came back once is no use again, in this browser or another one.
        page.goto(f"{self.own.address}/come-back?code=guessed&state=guessed")
        expect(page.locator("h1")).to_have_text("Nobody went to a sign-in from this tab.")

    def test_from_ones_account_and_taken_away_again(self):
        page = self.new_page("/account", self.teacher)
        page.click(f"text=Sign in by {NAME} from now on")
        page.click(f"text={ALDER}")
        kept = page.locator("ul > li", has_text=ALDER)
        expect(kept).to_contain_text("not used yet")
        self.assertEqual(self.unfair(page), [])
        page.get_by_label(f"Take away the sign-in {ALDER}").click()
        page.get_by_role("button", name="Take away").last.click()
        expect(kept).to_have_count(0)
        page.context.clear_cookies()
        page.goto(f"{self.own.address}/door")
        page.click(f"text=Sign in by {NAME}")
        page.click(f"text={ALDER}")
        expect(page.locator("h1")).to_have_text("Nobody here comes in by this sign-in.")
