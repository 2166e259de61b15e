"""The Wall in the real page: driven by keys as a clicker sends them, large enough for the back of a room."""

import re

from playwright.sync_api import expect
from sqlalchemy.orm import Session

from keen_slate.store.shelf import Shelf
from tests.browser.test_bench import PageTests
from tests.support import engine

# The height of a capital letter or digit of the typeface, as a share of the font's size: measured in the page.
DIGIT = """
    () => [...document.querySelectorAll('.wall .cell')].filter(c => /\\d/.test(c.textContent)).map(c => {
      const style = getComputedStyle(c), pen = document.createElement('canvas').getContext('2d')
      pen.font = `${style.fontSize} ${style.fontFamily}`
      const seen = pen.measureText(c.textContent)
      const height = seen.actualBoundingBoxAscent + seen.actualBoundingBoxDescent
      return [c.className.includes('tall'), parseFloat(style.fontSize), height]
    })
"""


class WallTests(PageTests):
    problems = ("7 1/4 - 3 5/6 ft", "2/7 + 3/7", "1/2 + 1/3 + 1/4 + 1/5 + 1/6 + 1/7 - 1/8")

    def setUp(self):
        super().setUp()
        self.page.click(".top >> text=Wall")
        self.rows = self.page.locator(".wall .line .row")
        expect(self.rows).to_have_count(1)

    def press(self, *keys):
        for key in keys:
            self.page.keyboard.press(key)

    def foot(self):
        return self.page.locator(".foot")

    def test_a_clicker_reveals_line_by_line_and_goes_on_to_the_next_example(self):
        expect(self.page.locator(".cover")).to_have_text("What would you write next?")
        self.assertEqual(self.page.locator(".wall figure").count(), 0)
        self.press("PageDown")
        expect(self.rows).to_have_count(2)
        expect(self.page.locator(".wall figure svg")).to_have_count(1)  # the picture belongs to the line
        self.press("PageDown", "PageDown")
        expect(self.rows.nth(3)).to_have_attribute("aria-label", "three and five twelfths")
        expect(self.page.locator(".cover")).to_have_count(0)
        expect(self.page.locator("p.label")).to_contain_text("ft")
        self.press("PageUp")
        expect(self.rows).to_have_count(3)
        self.press("Space", "Space")
        expect(self.page.locator(".cover")).to_have_text("Next example")  # said before it comes
        expect(self.foot()).to_contain_text("1 of 3")
        self.press("Backspace")
        expect(self.page.locator(".cover")).to_have_count(0)
        self.press("Space", "Space")
        expect(self.foot()).to_contain_text("2 of 3")
        expect(self.rows).to_have_count(1)
        self.press("Backspace")
        expect(self.foot()).to_contain_text("1 of 3")
        expect(self.rows).to_have_count(4)  # back where it ended

    def test_it_resumes_after_a_reload_and_logs_the_time(self):
        self.press("Space", "Space", "d")
        expect(self.rows).to_have_count(3)
        self.page.wait_for_timeout(1500)
        self.page.reload()
        expect(self.rows).to_have_count(3)
        expect(self.page.locator(".wall")).to_have_attribute("data-light", "true")
        self.page.wait_for_timeout(2300)
        with self.page.expect_response(lambda answer: answer.url.endswith("/time") and answer.request.method == "POST"):
            self.press("n")
        expect(self.foot()).to_contain_text("2 of 3")
        with Session(engine()) as session:
            log = Shelf(session, self.teacher).one_set(self.set_id).examples[0].time_log
        self.assertEqual(len(log), 1)
        self.assertIn(log[0]["seconds"], range(1, 10))

    def test_a_wrong_answer_is_a_question_and_then_resolved(self):
        self.press("w")
        expect(self.page.locator(".wrong .full").last).to_contain_text("4")
        expect(self.page.locator(".wrong .row")).to_have_attribute(
            "aria-label", "seven and one fourth minus three and five sixths"
        )  # the problem stays in view
        lines = self.page.locator(".wrong .full")
        size = "e => parseFloat(getComputedStyle(e).fontSize)"
        self.assertGreaterEqual(lines.first.evaluate(size), 800 / 14)  # as large as a right line
        expect(self.page.locator(".cover")).to_have_text("Is this right? How do you know?")
        self.assertEqual(self.page.locator(".wrong .why").count(), 0)
        expect(self.page.locator(".wrong svg")).to_have_count(1)  # what exposes it comes at the same press
        expect(self.page.locator(".wrong .full [data-role=wrong]")).to_have_count(
            0
        )  # which line is wrong is not told yet
        self.press("Space")
        expect(self.page.locator(".wrong .full [data-role=wrong]").first).to_be_visible()
        expect(self.page.locator(".wrong .why").first).to_contain_text("smaller numerator")
        expect(self.page.locator(".wrong svg")).to_have_count(1)
        self.press("Space")
        expect(self.rows).to_have_count(1)

    def test_blanks_are_asked_for_and_filled_by_the_next_press(self):
        with Session(engine()) as session, session.begin():
            shelf = Shelf(session, self.teacher)
            found = shelf.one_set(self.set_id)
            fading = {"hide": 1, "blanks": ["common-denominator 0 4"], "pause": "regroup 0"}
            shelf.change_examples(found.id, found.version, {found.examples[0].id: {"fading": fading}})
        self.page.reload()
        expect(self.rows).to_have_count(1)
        self.press("Space")
        expect(self.page.locator(".wall [data-blank=true]").first).to_have_text("")
        expect(self.page.locator(".cover")).to_have_text("What belongs in the blank?")
        self.press("Space")
        expect(self.page.locator(".wall [data-blank=true]").first).to_have_text("10")
        expect(self.page.locator(".cover")).to_have_text("Try it yourself first.")
        self.press("Space", "Space")
        expect(self.rows.nth(3)).to_have_attribute("aria-label", "three and five twelfths")

    def test_numerals_are_a_fourteenth_of_the_screen_or_more_and_long_workings_scroll(self):
        for width, height in ((1280, 800), (1920, 1080)):
            self.page.set_viewport_size({"width": width, "height": height})
            for example in range(3):
                self.press("End")
                self.still()
                for tall, font, digit in self.page.evaluate(DIGIT):
                    self.assertGreaterEqual(font, height / 14)
                    if tall:
                        self.assertGreaterEqual(digit, height / 14)
                last = self.page.locator("li.line[data-current=true]")
                box = last.bounding_box()
                self.assertGreaterEqual(box["y"], 0)
                self.assertLessEqual(box["y"] + box["height"], height)
                if example < 2:
                    self.press("n")
                    expect(self.foot()).to_contain_text(f"{example + 2} of 3")
            self.press("p")
            expect(self.foot()).to_contain_text("2 of 3")
            self.press("p")
            expect(self.foot()).to_contain_text("1 of 3")

    def test_a_phone_holds_the_whole_line(self):
        self.page.set_viewport_size({"width": 390, "height": 844})
        self.page.reload()
        self.page.wait_for_selector(".row")
        for _ in range(3):
            self.page.keyboard.press("PageDown")
            edges = self.page.eval_on_selector_all(".row", "all => all.map(one => one.getBoundingClientRect().right)")
            self.assertLess(max(edges), 390)

    def test_layouts_change_on_the_fly_and_nothing_of_it_is_kept_in_the_set(self):
        before = self.page.request.get(f"{self.server.address}/api/sets/{self.set_id}").json()["version"]
        self.press("l")
        expect(self.page.locator(".wall li.line")).to_have_count(0)
        self.press("End")
        expect(self.page.locator(".wall .row.whole")).to_have_attribute(
            "aria-label", re.compile("^Stacked: .*Under the rule: three and five twelfths")
        )
        self.press("Home", "l")
        expect(self.page.locator(".wall .row.whole")).to_have_count(0)
        self.press("Space")
        expect(self.page.locator(".wall .box")).to_have_count(1)
        self.assertEqual(
            self.page.request.get(f"{self.server.address}/api/sets/{self.set_id}").json()["version"], before
        )

    def test_a_stacked_working_appears_mark_by_mark_with_the_picture_of_its_step(self):
        with Session(engine()) as session, session.begin():
            shelf = Shelf(session, self.teacher)
            found = shelf.one_set(self.set_id)
            change = {"ways": {"layout": "stacked"}, "fading": {"hide": 0, "blanks": ["regroup 0 1"], "pause": None}}
            shelf.change_examples(found.id, found.version, {found.examples[0].id: change})
        self.page.reload()
        sheet = self.page.locator(".wall .row.whole")
        digits = sheet.locator(".cell[data-key]:not([data-key=''])")
        expect(sheet).to_have_attribute("aria-label", "seven and one fourth minus three and five sixths")
        expect(digits).to_have_count(6)
        expect(self.page.locator(".wall figure")).to_have_count(0)
        written = [
            6,
            0,
            1,
            0,
            1,
            0,
            2,
            1,
        ]  # rewritten; 7 crossed out; 6; 3 crossed out; 15, a blank, then filled; 5/12; 3
        seen = 6
        for at, more in enumerate(written):
            self.press("Space")
            seen += more
            expect(digits).to_have_count(seen)
            expect(sheet.locator(".struck")).to_have_count(0 if at < 1 else 1 if at < 3 else 2)
            if at == 1:
                expect(self.page.locator(".wall .moment")).to_have_text("Cross out 7.")
                expect(self.page.locator(".wall figure svg")).to_have_count(1)
            if at in (4, 5):
                expect(sheet.locator("[data-blank=true]").first).to_have_text("" if at == 4 else "15")
        expect(self.page.locator(".cover")).to_have_count(0)
        self.press("Backspace", "Backspace")
        expect(digits).to_have_count(seen - 3)

    def test_four_options_are_asked_before_it_is_told_which_one_is_right(self):
        self.press("c")
        options = self.page.locator(".wall .choices li")
        expect(options).to_have_count(4)
        expect(self.page.locator(".cover")).to_have_text("Which one is right? How do you know?")
        expect(
            self.page.locator(".choices [data-right=true], .choices small, .choices [data-role=wrong]")
        ).to_have_count(0)
        self.press("Space")
        expect(self.page.locator(".choices [data-right=true]")).to_have_count(1)
        expect(options.nth(1).locator("small")).to_have_text("right")
        expect(options.nth(3).locator("small")).to_have_text("turned the fractions round")
        self.press("Space")
        expect(options).to_have_count(0)
        expect(self.rows).to_have_count(1)  # where the working was

    def test_the_bar_comes_with_the_mouse_and_meets_the_accessibility_rules(self):
        expect(self.page.locator("nav.bar")).to_be_hidden()
        self.page.mouse.move(400, 300)
        expect(self.page.locator("nav.bar")).to_be_visible()
        self.assertEqual(self.unfair(), [])
        self.page.mouse.click(640, 300)
        expect(self.rows).to_have_count(2)
        self.page.mouse.click(30, 300)
        expect(self.rows).to_have_count(1)


class BuildingTests(PageTests):
    def test_a_number_is_built_on_the_wall_by_one_press_each(self):
        self.page.goto(f"{self.server.address}/number-building")
        self.page.get_by_label("Numbers").fill("3, 1/2, 4")
        self.page.get_by_label("to build").fill("10")
        self.page.get_by_role("button", name="Find the ways").click()
        self.page.get_by_role("link", name="On the wall").click()
        ways = self.page.locator(".ways")
        expect(ways).to_have_text("How would you build it?")
        self.page.keyboard.press("PageDown")
        expect(ways).to_contain_text("Way 1 of")
        self.assertEqual(self.page.locator(".ways > .line").count(), 1)
        self.page.keyboard.press("PageDown")
        expect(self.page.locator(".ways > .line")).to_have_count(2)
        self.page.keyboard.press("End")
        expect(self.page.locator(".ways > .line").last).to_have_text(re.compile(r"^=\s*10$"))
        # The last row of a class reads it: 28 px and more.
        sizes = self.page.eval_on_selector_all(
            ".wall p", "all => all.map(one => parseFloat(getComputedStyle(one).fontSize))"
        )
        self.assertGreaterEqual(min(sizes), 28)
        self.page.keyboard.press("Home")
        expect(ways).to_have_text("How would you build it?")
        self.page.mouse.move(600, 400)
        self.page.get_by_role("link", name="Number building").click()
        expect(self.page.get_by_label("to build")).to_have_value("10")
        expect(self.page.get_by_role("button", name="Show the ways")).to_be_visible()

    def test_what_cannot_be_built_or_read_is_said(self):
        self.page.goto(f"{self.server.address}/number-building/wall?numbers=1,+1/2,+1/4&wanted=9")
        expect(self.page.locator(".ways")).to_have_text("How would you build it?")
        self.page.keyboard.press(" ")
        expect(self.page.locator(".ways")).to_contain_text("It cannot be built. The nearest is")
        self.page.goto(f"{self.server.address}/number-building/wall?numbers=ropes&wanted=9")
        expect(self.page.get_by_role("alert")).to_contain_text("Number building")


class HandoutPageTests(PageTests):
    def test_the_pages_are_seen_change_with_the_options_and_open_as_a_pdf(self):
        self.page.click(".top >> text=Handout")
        shown, said = self.page.locator(".pages img"), self.page.locator(".head [role=status]")
        expect(shown).to_have_count(2, timeout=60_000)
        self.pick("The key with marks", "not printed")
        expect(shown).to_have_count(1, timeout=60_000)
        self.pick("Examples on a page, at most", "1")
        expect(shown).to_have_count(3, timeout=60_000)
        self.pick("Versions", "A and B")
        expect(said).to_have_text("6 pages", timeout=60_000)
        self.page.get_by_label("Which examples: their numbers").fill("1, 9")
        expect(self.page.get_by_role("alert")).to_contain_text("There is no example 9", timeout=60_000)
        self.page.get_by_label("Which examples: their numbers").fill("2-3")
        expect(said).to_have_text("4 pages", timeout=60_000)
        for kind in ("Find the mistake", "Pictures to shade", "Pieces to cut out", "Example and yours"):
            before = shown.first.get_attribute("src")
            self.page.get_by_role("button", name=kind).click()
            expect(shown.first).not_to_have_attribute("src", before, timeout=60_000)
        self.page.get_by_role("button", name="Problems").click()
        address = self.page.get_by_role("link", name="Open the PDF").get_attribute("href")
        answer = self.page.request.get(self.server.address + address)
        while answer.status == 503:  # the preview is at work: one paper at a time for a teacher
            self.still()
            answer = self.page.request.get(self.server.address + address)
        self.assertEqual((answer.headers["content-type"], answer.body()[:5]), ("application/pdf", b"%PDF-"))
        self.assertEqual(
            self.page.request.get(self.server.address + address.replace("per_page=1", "per_page=9")).status, 422
        )
        self.assertEqual(self.unfair(), [])
