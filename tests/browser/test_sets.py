"""Sets as a whole in the real page: ladders built to order, climbs, fading, undo across reloads, the Shelf's places."""

import re
import uuid
from contextlib import ExitStack
from pathlib import Path

from playwright.sync_api import expect
from sqlalchemy.orm import Session

from keen_slate.export.workbook import workbook
from keen_slate.store.colleagues import school_named
from keen_slate.store.models import Teacher
from tests import support
from tests.browser.test_bench import PageTests
from tools.browser import come_in


class SetTests(PageTests):
    problems = ("7 1/4 - 3 5/6", "2/7 + 3/7", "2/3 + 1/6")

    def rungs(self):
        return self.page.eval_on_selector_all(".step[data-id] .code", "all => all.map(one => one.textContent)")

    def test_sorting_into_a_climb_is_shown_before_it_is_done_and_undone_after_a_reload(self):
        expect(self.page.locator(".harder[data-mark=back]")).to_have_count(
            0
        )  # what is about something else is no step back
        self.page.focus(".step[data-id]:nth-child(3) .pick")
        self.page.keyboard.press("Alt+ArrowUp")
        self.page.wait_for_selector("text=Now number 2 of 3.", state="attached")
        expect(self.page.locator(".harder[data-mark=back]")).to_contain_text("steps back")
        self.page.click("text=Sort into a climb")
        proposed = self.page.locator("[role=dialog] li")
        expect(proposed).to_have_count(3)
        expect(self.page.locator("[role=dialog] li[data-moves=true]")).to_have_count(2)
        self.assertEqual(self.rungs(), ["M8", "F4", "F1"])  # nothing is done yet
        self.page.click("text=Take this order")
        expect(self.page.locator(".step[data-id] .code").first).to_have_text("F1")
        self.assertEqual(self.rungs(), ["F1", "F4", "M8"])
        expect(self.page.locator(".harder[data-mark=jump]").first).to_contain_text("skips a rung")
        self.page.reload()
        self.page.wait_for_selector(".paper .row")
        self.page.click(".top >> text=Undo")
        expect(self.page.locator(".step[data-id] .code").first).to_have_text("M8")
        self.page.reload()
        self.page.wait_for_selector(".paper .row")
        self.page.click(".top >> text=Redo")
        expect(self.page.locator(".step[data-id] .code").first).to_have_text("F1")
        expect(self.page.locator(".top >> text=Redo")).to_be_disabled()

    def test_pupils_fill_in_the_last_steps_and_blanks_put_by_hand(self):
        rows = self.page.locator(".paper .row")
        expect(rows).to_have_count(4)
        self.page.click("[aria-label='More in blank']")
        expect(rows.nth(3)).to_have_attribute("data-hidden", "true")
        self.assertEqual(rows.nth(3).inner_text(), "")
        self.page.click("text=Put blanks")
        rows.nth(1).locator("[data-key$=' 4']").first.click()  # 7 3/12 - 3 10/12: the numerator 10
        expect(rows.nth(1).locator("[data-blank=true]")).to_have_count(1)
        self.assertNotIn("0", rows.nth(1).inner_text())
        self.page.locator(".jotting .piece[aria-label^='Blank this jotting']").first.click()
        self.page.click("text=Done with blanks")
        expect(self.page.locator(".jotting[data-hidden=true]")).to_have_count(1)
        expect(self.page.locator(".step[data-id] .faded").first).to_have_text("last step blank")
        self.page.reload()
        expect(rows.nth(1).locator("[data-blank=true]")).to_have_count(1)
        self.page.click("text=Look under them")
        expect(rows.nth(3)).to_have_attribute("aria-label", "three and five twelfths")
        self.page.click("text=All in full")
        expect(rows.nth(1).locator("[data-blank=true]")).to_have_count(0)

    def test_blanks_are_put_into_a_stacked_working_and_into_boxes(self):
        for layout, key in (("stacked", "common-denominator 0 4"), ("four boxes", "common-denominator 0 line 0")):
            self.page.click(f".switch >> text={layout}")
            expect(self.page.locator(f".switch >> text={layout}")).to_have_attribute("aria-pressed", "true")
            self.page.click("text=Put blanks")
            if layout == "stacked":
                self.page.locator(f".paper .cell[data-key='{key}']").first.click()
                expect(self.page.locator(".paper [data-blank=true]")).to_have_count(1)
            else:
                self.page.locator(".box .jotting .piece").first.click()
                expect(self.page.locator(".box .jotting[data-hidden=true]")).to_have_count(1)
            self.page.click("text=Done with blanks")
        self.page.click(".switch >> text=stacked")
        self.page.click("[aria-label='More in blank']")
        expect(self.page.locator(".paper .frame")).to_have_count(1)
        expect(self.page.locator(".paper .row").first).to_have_attribute("aria-label", "a line with blanks")
        self.page.click("text=Look under them")
        expect(self.page.locator(".paper .frame")).to_have_count(0)
        expect(self.page.locator(".paper .row").first).to_have_attribute("aria-label", re.compile("^Stacked: "))

    def test_a_plan_fades_the_set_and_marks_are_given(self):
        self.page.click(".top >> text=The set")
        self.page.click("text=Fade step by step")
        shown = self.page.locator(".whole tr .p-select-label")
        expect(shown).to_have_text(["full", "problem only", "problem only"])  # the second has one step
        self.page.get_by_label("What it is for").fill("unlike <b>pieces</b>")
        self.page.get_by_label("Minutes of the lesson").fill("1")
        self.page.keyboard.press("Tab")
        self.page.get_by_label("5.NF.A.1").check()
        expect(self.page.locator(".minutes[data-too-long=true]")).to_contain_text("of 1 minutes")
        self.page.keyboard.press("Escape")
        self.page.click(".marks summary")
        self.page.get_by_label("For the answer").fill("4")
        self.page.keyboard.press("Tab")
        expect(self.page.locator(".marks summary")).to_have_text("7 marks in all")
        self.page.goto(self.server.address)
        self.page.get_by_role("searchbox").fill("pieces")
        expect(self.page.locator(".sheets li").first).to_contain_text("for unlike <b>pieces</b> · 5.NF.A.1")

    def test_one_like_this_is_put_below(self):
        self.page.click("text=One like this")
        expect(self.page.locator(".fading .found")).to_contain_text("the same steps")
        self.page.click("text=Put it below")
        self.wait_for_ladder(4)
        self.assertEqual(self.rungs()[:2], ["M8", "M8"])

    def test_a_ladder_is_built_swapped_and_put_into_the_set(self):
        self.page.click("text=Build to order")
        problems = self.page.locator(".sheet .problem .math")
        expect(problems).to_have_count(3)  # the wish begins with the rungs of the set
        self.page.click("text=Draw it from one rung to another")
        self.pick("From the rung", "mixed numbers are subtracted M5")
        self.pick("To the rung", "unlike pieces, and a whole cut up M8")
        self.page.get_by_label("Number of problems").fill("4")
        self.page.click("text=Draw that stair")
        expect(problems).to_have_count(4)
        expect(self.page.locator(".stair .step")).to_have_count(4)
        expect(self.page.locator(".harder").nth(2)).to_have_text("now a whole has to be cut up")
        before = self.page.inner_text(".count strong")
        self.page.click("summary >> text=Avoid")
        self.page.get_by_label("answers that must be simplified").check()
        expect(self.page.locator(".count strong")).not_to_have_text(before)
        expect(self.page.locator(".sheet[aria-busy=false]")).to_have_count(1)
        first = problems.all_text_contents()
        self.page.click(".problem:has-text('M6') >> text=Swap")
        expect(problems.nth(1)).not_to_have_text(first[1])
        self.assertEqual(
            [a == b for a, b in zip(first, problems.all_text_contents(), strict=True)], [True, False, True, True]
        )
        self.page.click("text=Put them on the ladder")
        self.wait_for_ladder(7)
        self.assertEqual(self.rungs()[3:], ["M5", "M6", "M7", "M8"])

    def test_what_rules_a_ladder_out_is_said_and_mended_with_a_click(self):
        self.page.click("text=Build to order")
        steps = self.page.get_by_role("slider")
        expect(steps).to_have_count(3)
        for _ in range(3):
            steps.first.press("Delete")
        self.pick("Add a step", "the denominators share no factor F6")
        self.page.click("summary >> text=Numbers")
        denominators = self.page.locator(".dens")
        for d in (3, 5, 6, 10, 12):  # 2, 4 and 8 stay: one always fits the other
            denominators.get_by_role("button", name=str(d), exact=True).click()
        expect(self.page.locator(".impossible")).to_contain_text("denominators 2, 3, 4, 8")
        self.page.click("text=Take that")
        expect(self.page.locator(".sheet .problem")).to_have_count(1)
        self.page.click("summary >> text=Wrong answers it has to show")
        self.page.click("summary >> text=Fractions, adding and subtracting")
        self.page.get_by_label("combined tops and combined bottoms").check()
        self.page.click("text=The fewest that show and separate it")
        expect(self.page.locator(".sheet")).to_contain_text("proven")

    def test_a_step_of_the_stair_is_pulled_wider_by_mouse_and_by_keys(self):
        self.page.click("text=Build to order")
        problems = self.page.locator(".sheet .problem")
        expect(problems).to_have_count(3)
        edge = self.page.locator(".stair .edge").first.bounding_box()
        self.page.mouse.move(edge["x"] + 6, edge["y"] + 20)
        self.page.mouse.down()
        self.page.mouse.move(edge["x"] + 6 + 52, edge["y"] + 20, steps=8)
        self.page.mouse.up()
        expect(problems).to_have_count(5)
        self.page.get_by_role("slider").first.press("ArrowLeft")
        expect(problems).to_have_count(4)
        self.page.locator(".problem >> text=Keep").first.click()
        kept = self.page.locator(".problem .math").first.text_content()
        self.page.get_by_role("slider").last.press("ArrowRight")
        expect(problems).to_have_count(5)
        self.assertEqual(self.page.locator(".problem .math").first.text_content(), kept)

    def test_a_set_begins_from_a_standard_from_rungs_and_from_pasted_lines(self):
        for fill, count in ((self.from_a_standard, 8), (self.from_rungs, 6), (self.from_lines, 2)):
            with self.subTest(fill.__name__):
                self.page.goto(self.server.address)
                fill()
                self.page.get_by_role("button", name=re.compile("^Begin")).click()
                self.wait_for_ladder(count)
        self.assertEqual(self.spoken(), ["one half plus one third", "seven and one fourth minus three and five sixths"])
        self.page.goto(self.server.address)
        slip = self.page.locator(".slip", has_text="Add and subtract mixed numbers with like denominators").first
        expect(slip).to_contain_text("4.NF.B.3c")
        expect(slip).to_contain_text("mixed numbers, nothing is carried → a whole has to be cut up")
        expect(slip.locator(".stair rect")).to_have_count(8)

    def from_a_standard(self):
        self.page.get_by_role("combobox", name="Standard").click()
        self.page.get_by_placeholder("a word, a code, a year").fill("4.NF.B.3c")
        self.page.get_by_role("option", name=re.compile("4.NF.B.3c")).click()

    def from_rungs(self):
        self.page.get_by_role("button", name="from a rung to a rung").click()
        self.pick("From the rung", "the pieces are the same size F1")
        self.pick("to the rung", "the denominators share no factor F6")
        self.page.get_by_label("Number of problems").fill("6")
        self.page.keyboard.press("Tab")

    def from_lines(self):
        self.page.get_by_role("button", name="from pasted lines").click()
        self.page.fill("#pasted", "1/2 + 1/3\n1/0\n7 1/4 - 3 5/6")
        expect(self.page.locator("[aria-label='What was read'] li")).to_have_count(3)

    def test_many_sets_are_listed_and_put_in_order(self):
        self.page.goto(self.server.address)
        self.page.click("text=as a list")
        expect(self.page.locator(".slip[data-compact=true]").first).to_be_visible()
        with self.page.expect_response(lambda answer: "order=title" in answer.url):
            self.pick("In which order", "by title")
        self.still()  # what has come is drawn a moment later
        titles = self.page.locator(".slip h2").all_inner_texts()
        self.assertEqual(titles, sorted(titles, key=str.lower))

    def test_the_shelf_puts_away_brings_back_and_duplicates(self):
        self.page.goto(self.server.address)
        sheet = self.page.locator(".sheets li", has_text=self.title)
        sheet.get_by_text("Bin", exact=True).click()
        expect(sheet).to_have_count(0)
        self.page.click(".p-toast >> text=Undo")
        expect(sheet).to_have_count(1)
        sheet.get_by_text("Duplicate").click()
        expect(self.page.locator(".sheets li", has_text=f"{self.title}, copy")).to_have_count(1)
        sheet.first.get_by_text("Bin", exact=True).click()
        self.page.get_by_role("button", name=re.compile("^Bin")).first.click()
        expect(self.page.locator(".sheets .slip")).to_have_count(1)
        self.page.click("text=Empty the bin for good")
        self.page.click(".p-confirmpopup >> text=Empty it")
        expect(self.page.locator(".more")).to_have_text("Nothing lies here.")

    def test_a_set_is_shared_read_taken_and_withdrawn(self):
        school = f"Wren Hollow {uuid.uuid4().hex[:6]}"
        colleague, third = support.new_teacher("Yarrow <b>"), support.new_teacher()
        with Session(support.engine()) as session, session.begin():
            for teacher in (self.teacher, colleague, third):
                session.get_one(Teacher, teacher).school_id = school_named(session, school).id
        second = self.browser.new_context()
        self.addCleanup(second.close)
        come_in(second.request, self.server.link(colleague))
        other = second.new_page()
        other.goto(f"{self.server.address}/colleagues")
        expect(other.locator(".more")).to_have_text(
            f"Nobody in {school} shares a set yet. Yours are shared under The set, on the Bench."
        )
        self.page.click(".top >> text=The set")
        self.page.get_by_label(f"Shared with {school}").click()
        expect(self.page.locator(".wide-drawer")).to_contain_text("They read it as it is now")
        alone = self.page.get_by_role("group", name="With all of them, or with these alone")
        alone.get_by_label("A teacher").click()  # the third of them, and so not the colleague
        self.page.get_by_text("With these alone").wait_for()
        self.assertEqual(self.unfair(), [])
        other.reload()
        expect(other.locator(".more")).to_contain_text("Nobody in")
        self.page.get_by_role("button", name="With all of them").click()
        expect(alone).to_be_visible()
        other.reload()
        slip = other.locator(".slip")
        expect(slip).to_contain_text("from ")
        self.assertEqual(self.unfair(other), [])
        for width in (320, 1920):
            other.set_viewport_size({"width": width, "height": 800})
            self.assertLessEqual(other.evaluate("document.documentElement.scrollWidth"), width)
        with second.expect_page() as opened:
            slip.locator(".sheet").click()
        expect(opened.value.locator(".example")).to_have_count(3)
        other.click("text=In my ways beside theirs")
        other.locator(".rung").nth(1).click()
        expect(other.locator(".said li").last).to_have_text("Both classes write it alike.")
        self.assertEqual(self.unfair(other), [])
        for width in (320, 1920):
            other.set_viewport_size({"width": width, "height": 800})
            self.assertLessEqual(other.evaluate("document.documentElement.scrollWidth"), width)
        beside = second.new_page()
        beside.goto(other.url)
        expect(beside.locator(".rung[aria-current]")).to_have_text(re.compile("^2"))
        other.go_back()
        other.click("text=Take a copy")
        other.wait_for_selector(".paper .row")
        other.click(".top >> text=The set")
        expect(other.locator(".wide-drawer textarea").first).to_have_value(re.compile("^Taken from "))
        self.page.get_by_label(f"Shared with {school}").click()
        expect(self.page.locator(".wide-drawer")).to_contain_text("Nobody but you sees it")
        # The page that a colleague has open closes by itself, in words.
        expect(opened.value.locator("body")).to_contain_text("This is not shown any more")
        expect(beside.locator("main")).to_contain_text("This set is not shared with you any more.")

    def test_the_working_is_copied_in_notation(self):
        self.context.grant_permissions(["clipboard-read", "clipboard-write"])
        self.page.click("text=Copy it elsewhere")
        self.page.get_by_label("Copy the working in LaTeX").click()
        expect(self.page.locator("details [role=status]")).to_have_text("Copied: the working in LaTeX.")
        copied = self.page.evaluate("navigator.clipboard.readText()")
        self.assertIn(r"={} & 3\frac{5}{12}", copied)

    def test_problems_are_brought_in_line_by_line_and_a_set_goes_out_and_in_as_a_file(self):
        self.page.click("text=Bring in")
        sheet = workbook([["problem"], ["5/6 - 1/4"], [0.5]])
        self.page.set_input_files(".bring input[type=file]", {"name": "x.xlsx", "mimeType": "", "buffer": sheet})
        expect(self.page.locator("#brought")).to_have_value("problem\n5/6 - 1/4\n0.5")
        self.page.set_input_files(".bring input[type=file]", {"name": "x.xlsx", "mimeType": "", "buffer": b"PK"})
        expect(self.page.locator(".bring [role=alert]")).to_contain_text("not a spreadsheet's file")
        long = {"name": "x.csv", "mimeType": "text/csv", "buffer": b"1/2 + 1/3\n" * 30_000}
        self.page.set_input_files(".bring input[type=file]", long)
        expect(self.page.locator(".bring [role=alert]")).to_contain_text("more than 200,000 characters")
        self.page.fill("#brought", "1/2 + 1/5\n1/0\n3/7 + 2/7\n<b>x</b>")
        lines = self.page.locator("[aria-label='What was read'] li")
        expect(lines).to_have_count(4)
        verdicts = [lines.nth(i).get_attribute("data-verdict") for i in range(4)]
        self.assertEqual(verdicts, ["read", "unreadable", "duplicate", "unreadable"])
        self.page.click("text=Put the good one on the ladder")
        self.wait_for_ladder(4)
        before = self.spoken()
        self.page.click(".top >> text=The set")
        turn = ExitStack()
        turn.enter_context(support.turns_held(self.server, ("teachers", self.teacher.int >> 66)))
        with self.page.context.expect_page() as opened:
            self.page.click("text=A text with equations (DOCX)")
        waits = opened.value
        expect(waits.locator("h1")).to_contain_text("Your last search is still at work")
        with waits.expect_download() as saved:  # its turn comes, and it asks again by itself
            turn.close()
        self.assertTrue(Path(saved.value.path()).read_bytes().startswith(b"PK"))
        waits.goto(f"{self.server.address}/api/sets/{uuid.uuid4()}/set.docx")
        expect(waits.locator("p")).to_have_text("Go back to the Shelf.")  # a sentence, and no JSON
        waits.close()
        with self.page.expect_download() as saved:
            self.page.click("text=The set (JSON)")
        path = saved.value.path()
        self.page.goto(self.server.address)
        file = {"name": "set.json", "mimeType": "application/json", "buffer": Path(path).read_bytes()}
        self.page.set_input_files("input[type=file]", file)
        self.wait_for_ladder(4)
        self.assertEqual(self.spoken(), before)
        self.assertNotIn(str(self.set_id), self.page.url)
        self.page.goto(self.server.address)
        self.page.set_input_files(
            "input[type=file]", {"name": "x.json", "mimeType": "application/json", "buffer": b'{"format": 1}'}
        )
        expect(self.page.locator(".begin [role=alert]")).to_contain_text("not a Keen Slate set")

    def test_the_new_screens_meet_the_accessibility_rules_and_fit_a_phone(self):
        self.page.click("[aria-label='More in blank']")
        self.page.click(".top >> text=The set")
        self.still()
        for path in (None, f"/ladder/{self.set_id}", "/"):
            if path:
                self.page.goto(self.server.address + path)
                self.page.wait_for_selector(".desk, .sheets li")
            self.assertEqual(self.unfair(), [], path)
        self.page.set_viewport_size({"width": 390, "height": 800})
        for path in (f"/ladder/{self.set_id}", "/"):
            self.page.goto(self.server.address + path)
            self.page.wait_for_selector(".desk, .sheets li")
            self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390, path)
