"""Answers in the real page: typed by keys, kept through a reload and a lost server, two tabs, pasted, overruled, moved,
made a set; axe, narrow, large.
"""

import re

from playwright.sync_api import expect
from sqlalchemy.orm import Session

from keen_slate.core.sittings.day import read_day
from keen_slate.store.classes import Classes
from keen_slate.store.shelf import Shelf
from keen_slate.store.sittings import Entered, Sittings
from keen_slate.web.given import given
from keen_slate.web.sat import snapshot
from tests import support
from tests.browser.test_bench import PageTests

PLANKS = ("7 1/4 - 3 5/6 ft", "8 1/5 - 3 4/5 ft", "9 - 4 2/3 ft", "10 1/6 - 4 9/10 ft")
RIGHT = ("3 5/12", "4 2/5", "4 1/3", "5 4/15")
TURNED = ("4 7/12", "5 3/5", "4 1/3", "6 22/30")
ALIASES = ("Alder", "Ling", "O'Hara's <b>", "Sedge", "Teasel", "Yarrow")


class AnswersTests(PageTests):
    problems = PLANKS

    def setUp(self):
        super().setUp()
        with Session(support.engine()) as session, session.begin():
            classes, store = Classes(session, self.teacher), Sittings(session, self.teacher)
            for one in classes.all():
                classes.remove(one.school_class.id)
            made = classes.add("Heron", ALIASES)
            self.class_id = made.id
            self.pupils = {one.alias: one.id for one in classes.pupils(made.id)}
            example_set = Shelf(session, self.teacher).one_set(self.set_id)
            self.sat = store.add(
                made.id, example_set, snapshot(given(example_set, {})), read_day("2026-11-12"), "quiz"
            ).id
        self.path = f"/answers/{self.sat}"

    def wrote(self, rows):
        with Session(support.engine()) as session, session.begin():
            entered = [Entered(self.pupils[alias], i, one) for alias, row in rows.items() for i, one in enumerate(row)]
            Sittings(session, self.teacher).enter(self.sat, entered)

    def stored(self):
        with Session(support.engine()) as session:
            aliases = {one: alias for alias, one in self.pupils.items()}
            rows = Sittings(session, self.teacher).answers([self.sat])
            return {(aliases[row.pupil_id], row.number): row.written for row in rows}

    def look(self, path=None, page=None):
        page = page or self.page
        page.goto(self.server.address + (path or self.path))
        page.wait_for_selector("td.hand, .card, canvas, #holds, #over-time, .sheets li")
        return page

    def cell(self, alias, number, page=None):
        return (page or self.page).locator("tbody tr", has_text=alias).locator("td").nth(number)

    def test_answers_are_typed_by_keys_and_judged_in_their_cells(self):
        page = self.look()
        keys = page.keyboard
        keys.type("3 5/12")
        keys.press("Tab")  # right
        keys.type("5 3/5")
        keys.press("Tab")
        keys.press("r")  # right, and on
        keys.press("b")  # blank, and on to the next pupil
        expect(self.cell("Alder", 0)).to_have_attribute("data-said", "right")
        expect(self.cell("Alder", 1)).to_have_attribute("data-said", "explained")
        expect(self.cell("Alder", 1)).to_contain_text("turned the fractions round")
        expect(self.cell("Alder", 3)).to_have_attribute("data-said", "blank")
        expect(self.cell("Ling", 0)).to_have_class(re.compile("hand"))
        keys.press("a")  # away, the whole row
        keys.press("R")  # all right
        expect(self.cell("Ling", 2)).to_contain_text("away")
        for i in range(4):
            expect(self.cell("O'Hara", i)).to_have_attribute("data-said", "right")
        keys.press("ArrowUp")
        keys.press("Control+End")
        expect(self.cell("Yarrow", 3)).to_have_class(re.compile("hand"))
        keys.press("Control+Home")
        keys.press("Enter")  # down
        expect(self.cell("Ling", 0)).to_have_class(re.compile("hand"))
        keys.press("Control+z")
        expect(self.cell("O'Hara", 0)).to_have_attribute("data-said", "none")
        keys.press("Delete")
        expect(self.cell("Ling", 0)).to_have_attribute("data-said", "none")
        keys.press("Escape")
        keys.press("Tab")  # out of the table
        expect(page.locator("table")).not_to_be_focused()
        expect(page.locator(".state")).to_contain_text("kept")
        self.assertEqual(
            {cell: one for cell, one in self.stored().items() if cell[0] == "Alder"},
            {("Alder", 0): "3 5/12", ("Alder", 1): "5 3/5", ("Alder", 2): "4 1/3", ("Alder", 3): ""},
        )

    def test_a_working_of_several_lines_is_checked_and_a_word_stands_above_the_program(self):
        page = self.look()
        keys = page.keyboard
        keys.type("7 3/12 - 3 10/12")
        keys.press("Shift+Enter")
        keys.type("4 7/12")
        keys.press("Tab")
        keys.press("ArrowLeft")
        margin = page.locator(".margin")
        expect(margin.locator(".lines li")).to_have_count(2)
        expect(margin.locator(".lines .first")).to_contain_text("4 7/12")
        expect(margin.locator("svg.figure")).to_be_visible()
        expect(margin).to_contain_text("Ask: “Which fraction is taken away?")
        expect(margin).to_contain_text("1 turned the fractions round")  # the class on this problem
        keys.press("o")  # to the margin
        page.keyboard.press("Enter")
        expect(self.cell("Alder", 0)).to_have_attribute("data-said", "right")
        expect(self.cell("Alder", 0).locator(".word-of")).to_be_visible()
        margin.get_by_text("Take it back").click()
        expect(self.cell("Alder", 0)).to_have_attribute("data-said", "explained")
        margin.get_by_text("by step").click()
        margin.get_by_role("checkbox").first.check()
        expect(page.locator("tbody tr").first.locator(".points")).to_have_text("1")
        self.assertEqual(self.unfair(), [])

    def test_nothing_that_was_typed_is_lost_by_a_reload_or_a_server_that_is_away(self):
        page = self.look()
        self.server.kill()  # a power cut: from now on nothing arrives
        page.keyboard.type("4 7/12")
        page.keyboard.press("Tab")
        page.keyboard.type("5 3")
        expect(page.locator(".trouble")).to_be_visible()
        self.assertEqual(self.stored(), {})
        self.server.start()
        self.come_in()
        self.look()  # a reload in the middle of a number
        expect(page.locator("textarea.draft")).to_have_value("5 3")
        page.keyboard.type("/5")
        page.keyboard.press("Enter")
        expect(self.cell("Alder", 1)).to_have_attribute("data-said", "explained")
        expect(self.cell("Alder", 0)).to_have_attribute("data-said", "explained")
        self.assertEqual(self.stored(), {("Alder", 0): "4 7/12", ("Alder", 1): "5 3/5"})
        self.assertEqual(
            page.evaluate("Object.keys(localStorage).filter(key => key.startsWith('keen-slate-answer'))"), []
        )

    def test_two_tabs_fill_one_table(self):
        one, two = self.look(), self.look(page=self.open())
        one.bring_to_front()
        one.keyboard.type("3 5/12")
        one.keyboard.press("Enter")
        expect(self.cell("Alder", 0, two)).to_have_attribute("data-said", "right")
        two.bring_to_front()
        two.locator("table").focus()
        two.keyboard.type("4 7/12")  # the same cell: the last one holds, and the other page sees it
        two.keyboard.press("Tab")
        expect(self.cell("Alder", 0, one)).to_have_attribute("data-said", "explained")
        self.assertEqual(self.stored(), {("Alder", 0): "4 7/12"})

    def test_a_block_is_pasted_and_what_falls_off_is_said(self):
        page = self.look()
        self.cell("Teasel", 2).click()
        block = "4 1/3\\t5 4/15\\t9\\n5 2/3\\t\\t1\\n7\\t7\\t7"
        page.evaluate(
            f"""() => {{ const data = new DataTransfer(); data.setData('text/plain', "{block}")
            const how = {{clipboardData: data, bubbles: true, cancelable: true}}
            document.querySelector('table').dispatchEvent(new ClipboardEvent('paste', how)) }}"""
        )
        expect(page.locator(".said")).to_contain_text("4 answers were entered; 5 fell beyond the table")
        expect(self.cell("Yarrow", 3)).to_have_attribute("data-said", "blank")
        page.click("text=From a table")
        dialog = page.locator("[role=dialog]")
        dialog.get_by_label("The table").fill("alias;2;1\nsedge;5 3/5;4 7/12\nMoss;1;2")
        dialog.get_by_text("See what is in it").click()
        expect(dialog.locator("tbody tr")).to_have_count(2)
        expect(dialog).to_contain_text("No pupil is called Moss.")
        self.assertEqual(self.unfair(), [])
        dialog.get_by_text("Enter 1 line").click()
        expect(self.cell("Sedge", 0)).to_have_attribute("data-said", "explained")
        self.assertNotIn(("Sedge", 2), self.stored())
        page.click("text=Log")
        expect(page.locator("[role=dialog] tr").first).to_contain_text("Sedge")
        self.assertEqual(self.unfair(), [])

    def test_what_happened_and_next_are_read_moved_by_keys_and_by_hand_and_made_a_set(self):
        self.wrote({"Alder": RIGHT, "Sedge": TURNED, "Teasel": TURNED, "Yarrow": RIGHT, "Ling": [None] * 4})
        page = self.look(f"{self.path}/happened")
        expect(page.locator(".main li").first).to_contain_text("2 of 5 pupils")
        expect(page.locator("canvas")).to_be_visible()
        expect(page.locator("tbody tr").first).to_contain_text("2 times")
        self.assertEqual(self.unfair(), [])
        page.get_by_role("tab", name="Next").click()
        cards = page.locator(".card")
        expect(cards).to_have_count(2)
        expect(cards.first.locator("h2")).to_have_text(re.compile("Turned the fractions round\\s*· 2 pupils"))
        expect(page.locator(".absent")).to_contain_text("Ling")
        self.assertEqual(self.unfair(), [])
        cards.first.get_by_role("button", name="Sedge").press("Enter")
        page.get_by_role("menuitem", name="To: ready to go on").click()
        expect(cards.nth(1).locator(".names")).to_contain_text("Sedge")
        cards.nth(1).get_by_role("button", name="Yarrow").drag_to(cards.first.locator(".names"))
        expect(cards.first.locator(".names")).to_contain_text("Yarrow")
        page.reload()
        expect(cards.nth(1).locator(".names")).to_contain_text("Sedge")
        cards.first.get_by_text("Make this set").click()
        page.wait_for_selector(".paper .row")
        expect(page.locator(".top .title input")).to_have_value(
            re.compile("Turned the fractions round: after O'Hara's <b>planks")
        )
        expect(page.locator(".met").first).to_contain_text("of 4 in Heron, 12 November")  # beside what they may write

    def test_classes_are_begun_and_their_pages_meet_the_rules(self):
        self.wrote({"Alder": RIGHT, "Sedge": TURNED})
        page = self.look("/classes")
        self.assertEqual(self.unfair(), [])
        page.get_by_label("Name").fill("O'Hara's <b>")
        page.get_by_label("Aliases of its pupils").fill("Moss\nFlax, Iris\nRose Thornby")
        page.click("text=Begin")
        expect(page.locator(".list li")).to_have_count(4)
        expect(page.locator(".list")).to_contain_text("This looks like a full name")
        page.locator(".set .p-select").click()
        page.get_by_role("option").first.click()
        page.get_by_label("Day", exact=True).fill("11/12/2026")
        page.click("text=Open the table")
        expect(page.locator(".refusal")).to_contain_text("11/12/2026 can be")
        page.get_by_label("Day", exact=True).fill("12 November 2026")
        page.click("text=Open the table")
        expect(page.locator("tbody tr")).to_have_count(4)
        for path, wanted in (
            (f"/classes/{self.class_id}", "#over-time"),
            (f"/classes/{self.class_id}/pupils/{self.pupils['Sedge']}", "#holds"),
        ):
            self.look(path)
            page.wait_for_selector(wanted)
            expect(page.get_by_role("heading", level=2).first).to_have_text("What comes next")
            self.assertEqual(self.unfair(), [], path)
            for width in (320, 1920):
                page.set_viewport_size({"width": width, "height": 800})
                self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), width, path)
            page.set_viewport_size({"width": 1280, "height": 800})
        expect(page.locator(".sheet").first).to_contain_text("Ask: “Which fraction is taken away?")
        self.look(f"/classes/{self.class_id}")
        page.get_by_role("button", name="Make a set for them: turned the fractions round").click()
        expect(page.locator(".top .title input")).to_have_value(
            re.compile("Turned the fractions round: after O'Hara's <b>planks")
        )

    def test_a_large_table_stays_fluent_and_narrow_screens_hold_it(self):
        page = self.look()
        for width, height in ((320, 640), (640, 400), (1920, 1000)):  # a phone, 200 % of 1280 x 800, a large screen
            page.set_viewport_size({"width": width, "height": height})
            self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), width)
            expect(self.cell("Alder", 0)).to_be_visible()
        page.set_viewport_size({"width": 1280, "height": 800})
        page.emulate_media(forced_colors="active", reduced_motion="reduce")
        self.assertNotEqual(page.evaluate("getComputedStyle(document.querySelector('td.hand')).outlineStyle"), "none")
