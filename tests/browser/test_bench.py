"""The real page in Chromium, over a real server and database: what a teacher does, by mouse and by keys alone."""

import re
import time
import unittest
import uuid
from collections import Counter
from pathlib import Path

from playwright.sync_api import Browser, BrowserContext, Page, expect
from sqlalchemy import text

from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.worked import work_text
from keen_slate.store.demo import SETS
from tests import support
from tools.browser import come_in
from tools.server import LiveServer

# Nothing moves any more, and what was asked for is drawn.
STILL = """async () => {
  const frame = () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))
  await frame()
  const ends = (one) => Number.isFinite(one.effect?.getComputedTiming().endTime)
  await Promise.allSettled(document.getAnimations().filter(ends).map((one) => one.finished))
  await frame()
}"""
AXE = Path(__file__).resolve().parents[2] / "frontend/node_modules/axe-core/axe.min.js"


class PageTests(unittest.TestCase):
    """A set of *problems* opened on the Bench of a real server."""

    browser: Browser
    context: BrowserContext
    keeper: Page
    server: LiveServer
    teacher: uuid.UUID

    problems: tuple[str, ...] = ("2/7 + 3/7", "2/3 + 1/6", "5/6 - 3/4")

    @classmethod
    def setUpClass(cls):
        cls.teacher = support.new_teacher()
        expect.set_options(timeout=60_000)  # both cores are at work, and a heavy request may have to wait for its turn
        cls.server = support.live_server()
        cls.browser = support.browser()
        # One for all tests of a class, so that scripts and typeface are read once; nothing else is left of a test
        # before.
        cls.context = cls.browser.new_context(viewport={"width": 1280, "height": 800})
        cls.addClassCleanup(cls.context.close)
        cls.keeper = cls.context.new_page()  # keeps the process of the pages, and what it has compiled
        cls.keeper.goto(f"{cls.server.address}/healthz")
        cls.context.add_init_script("localStorage.setItem('keen-slate-walked', 'true')")  # the walk has its own test

    def setUp(self):
        self.title = f"O'Hara's <b>planks</b> {uuid.uuid4().hex[:6]}"
        self.set_id = support.new_set(self.teacher, self.title, list(self.problems))
        self.addCleanup(self.leave)
        self.come_in()
        self.complaints = []
        self.page = self.open()

    def come_in(self):
        come_in(self.context.request, self.server.link(self.teacher))

    def leave(self):
        self.context.unroute_all()
        self.context.set_offline(False)
        for page in self.context.pages:
            if page != self.keeper:
                page.close()
        self.keeper.evaluate("localStorage.clear()")
        self.context.clear_cookies()

    def open(self, path=None):
        page = self.context.new_page()
        page.set_default_timeout(60_000)
        page.on("pageerror", lambda error: self.complaints.append(str(error)))
        page.on("console", lambda m: self.complaints.append(m.text) if "Content Security Policy" in m.text else None)
        page.goto(self.server.address + (path or f"/bench/{self.set_id}"))
        page.wait_for_selector(".paper .row, .sheets, .empty, .missing")
        page.evaluate("document.fonts.ready")  # nothing moves away under the mouse any more
        return page

    def tearDown(self):
        self.assertEqual(self.complaints, [])

    def still(self, page=None):
        """Wait until nothing on the page moves any more."""
        (page or self.page).evaluate(STILL)

    def unfair(self, page=None, rules=("wcag2a", "wcag2aa", "wcag21a", "wcag21aa")):
        """What an independent checker of accessibility finds in what is to be seen, by some *rules* or groups
        of them.
        """
        page = page or self.page
        page.evaluate(AXE.read_text(encoding="utf-8") + ";0")
        found = page.evaluate("rules => axe.run({runOnly: rules, resultTypes: ['violations']})", list(rules))[
            "violations"
        ]
        # A cell of a table is no control that is called by what is written in it: its name says more.
        said = [
            (one["id"], [n["html"][:200] for n in one["nodes"] if not n["html"].startswith("<td")]) for one in found
        ]
        return [(rule, nodes[:2]) for rule, nodes in said if nodes]

    def pick(self, field, option, page=None):
        """Choose an *option* of a field by its name."""
        page = page or self.page
        page.get_by_role("combobox", name=field, exact=True).click()
        page.get_by_role("option", name=option, exact=True).last.click()  # one that was open may still be going

    def spoken(self, page=None):
        return (page or self.page).eval_on_selector_all(
            ".step[data-id] .math > .sr-only", "all => all.map(one => one.textContent)"
        )

    def type_problem(self, text, page=None):
        page = page or self.page
        page.fill("#entry", text)
        page.press("#entry", "Enter")

    def open_ways(self, group=None):
        """The ways of the class, and among them those of a *group*."""
        self.page.click(".top >> text=Ways")
        if group:
            self.page.get_by_role("button", name=group, exact=True).click()

    def wait_for_ladder(self, count, page=None):
        expect((page or self.page).locator(".step[data-id]")).to_have_count(count, timeout=60_000)


class BrowserTests(PageTests):
    def test_type_see_save_and_reload(self):
        self.page.fill("#entry", "7 1/4 - 3 5/6")
        self.page.wait_for_selector(".paper[data-pencil=true] .noticed >> text=Needs regrouping.")
        began = time.monotonic()
        self.page.press("#entry", "Enter")
        self.wait_for_ladder(4)
        self.assertLess(time.monotonic() - began, 30)  # a hang, not a benchmark
        self.page.wait_for_selector(".paper[data-pencil=false] .row[aria-label='three and five twelfths']")
        self.page.wait_for_selector(".margin >> text=turned the fractions round")
        self.assertEqual(self.page.input_value("#entry"), "")
        self.page.reload()
        self.page.wait_for_selector(".paper .row[aria-label='three and five twelfths']")
        self.assertEqual(self.spoken()[-1], "seven and one fourth minus three and five sixths")

    def test_what_cannot_be_read_is_marked_in_its_place_and_kept(self):
        self.page.fill("#entry", "2_1/3 + 1/2")
        self.page.wait_for_selector(".refusal >> text=one space")
        self.assertEqual(self.page.inner_text("mark"), "_")
        self.page.press("#entry", "Enter")
        self.still()
        self.assertEqual(len(self.spoken()), 3)
        self.page.reload()
        self.page.wait_for_selector(".refusal")
        self.assertEqual(self.page.input_value("#entry"), "2_1/3 + 1/2")

    def parts(self, figure):
        """Role -> how many parts are to be seen."""
        seen = figure.locator(".part:not(.gone)").all()
        return Counter(part.get_attribute("data-role") for part in seen)

    def test_the_picture_recuts_the_strips_and_moves_the_parts(self):
        self.page.click(".step[data-id]:nth-child(2) .pick")
        figure = self.page.locator(".paper li").first.locator("svg.figure")
        # 2/3 + 1/6: sixths after, thirds before.
        expect(figure).to_have_attribute(
            "aria-label", re.compile("cut into 3 equal parts.*then .* cut into 6 equal parts")
        )
        self.assertEqual(self.parts(figure), {"first": 4})
        self.page.locator(".paper li").first.get_by_role("button", name="Show it before").click()
        expect(figure).to_have_attribute("data-state", "before")
        self.assertEqual(self.parts(figure), {"first": 2})
        adding = self.page.locator(".paper li").nth(1)
        moved = adding.locator(".part[data-role=second]")
        self.still()
        after = moved.bounding_box()
        adding.get_by_role("button", name="Show it before").click()
        self.still()
        before = moved.bounding_box()
        self.assertGreater(before["y"], after["y"] + 20)  # it came up from its own strip
        self.assertLess(before["x"], after["x"] - 20)
        self.assertAlmostEqual(before["width"], after["width"], delta=0.1)

    def test_nothing_moves_for_those_who_asked_for_less_motion(self):
        self.page.emulate_media(reduced_motion="reduce")
        self.page.click(".step[data-id]:nth-child(2) .pick")
        mark = self.page.locator("svg.figure .mark").first
        expect(mark).to_have_css("transition-duration", "0s")

    def test_another_picture_is_chosen_kept_and_saved_as_files(self):
        self.page.click(".step[data-id]:nth-child(2) .pick")
        first = self.page.locator(".paper li").first
        first.locator("button.title").click()
        self.pick("Picture", "circles")
        expect(first.locator("svg.figure")).to_have_attribute("aria-label", re.compile("a circle cut into 6"))
        self.page.reload()
        first.locator("button.title").click()
        expect(first.get_by_role("combobox", name="Picture")).to_have_text("circles")
        for name, begin in [("SVG", b"<svg"), ("PNG", bytes([137]) + b"PNG")]:
            with self.page.expect_download() as coming:
                first.get_by_text(name, exact=True).click()
            self.assertTrue(Path(coming.value.path()).read_bytes().startswith(begin))
            self.assertEqual(coming.value.suggested_filename, f"step-1-circles.{name.lower()}")
        self.pick("Picture", "no picture")
        expect(first.locator("svg.figure")).to_have_count(0)
        self.page.click(".top >> text=Undo")
        expect(first.locator("svg.figure")).to_have_count(1)

    def test_real_labels_take_no_more_room_than_the_core_gives_them(self):
        self.type_problem("11/30 + 17/40")
        expect(self.page.locator(".paper")).to_contain_text("More than 24 parts to a whole no longer help")
        self.page.evaluate("document.fonts.ready")
        wide = self.page.eval_on_selector_all(
            "svg.figure text",
            "all => all.filter(t => /^[0-9]+$/.test(t.textContent))"
            ".map(t => [t.textContent.length, t.getComputedTextLength()])",
        )
        self.assertGreater(len(wide), 4)
        for characters, width in wide:
            self.assertLessEqual(width, 12 * characters)

    def test_decimals_stand_in_columns_with_their_points_under_each_other(self):
        self.type_problem("30.4 - 7.85")
        sheet = self.page.locator(".row[aria-label^='In columns']")
        sheet.wait_for()
        points = [
            box["x"] for box in (c.bounding_box() for c in sheet.locator(".cell", has_text=re.compile(r"^\.$")).all())
        ]
        self.assertEqual((len(points), len(set(points))), (3, 1))
        self.assertEqual(sheet.locator(".struck").count(), 6)  # 3, 0, 4, 0 and the 10 and 3 written over them
        expect(self.page.locator(".paper svg.figure").last).to_have_attribute(
            "aria-label", re.compile("one is exchanged for ten")
        )

    def test_all_answers_are_listed_and_fewer_can_be_asked_for(self):
        self.type_problem("_/18 + _/9 + _/3 = 23/18")
        heading = self.page.locator("#all-heading")
        expect(heading).to_have_text("All 15 answers")
        self.page.click(".margin >> text=lowest terms")
        expect(heading).to_have_text("All 5 answers")
        self.page.reload()
        expect(heading).to_have_text("All 5 answers")
        self.page.fill("#split", "7, 2, 2")
        self.page.press("#split", "Enter")
        row = "[aria-label='seven eighteenths plus two ninths plus two thirds equals twenty-three eighteenths']"
        self.page.wait_for_selector(f".paper .row{row}")
        self.page.fill("#split", "six")
        self.page.press("#split", "Enter")
        expect(self.page.locator("body")).to_contain_text("“six” is no numerator.")

    def test_the_words_of_the_class_for_the_order_stand_beside_the_first_line(self):
        self.type_problem("1/2 + 3 × 1/4")
        self.page.wait_for_selector(".paper .row[aria-label='one and one fourth']")
        self.open_ways("Products")
        words = self.page.get_by_label("How your class remembers the order")
        words.fill("Times builds before plus joins")
        words.press("Enter")
        expect(self.page.locator(".paper")).to_contain_text("Times builds before plus joins")
        words.fill("Inside <b> first")
        words.press("Enter")
        expect(self.page.locator("body")).to_contain_text("Angle brackets are not read here.")

    def test_the_wall_asks_in_the_teachers_own_words(self):
        self.type_problem("2/7 + 3/7")
        self.page.wait_for_selector(".paper .row[aria-label='five sevenths']")
        self.open_ways("Words")
        asks = self.page.get_by_label("What your class is asked before each line, on the Wall")
        asks.fill("And what now?")
        with self.page.expect_response(re.compile("/api/sets/[^/]+$")):
            asks.press("Enter")
        self.page.get_by_role("button", name="Done", exact=True).click()
        self.page.click(".top >> text=Wall")
        expect(self.page.locator(".cover")).to_have_text("And what now?")

    def test_what_a_pupil_wrote_is_explained_line_by_line(self):
        self.type_problem("7 1/4 - 3 5/6")
        self.page.wait_for_selector(".paper .row[aria-label='three and five twelfths']")
        self.page.fill("#pupil-wrote", "4 7/12")
        self.page.click("text=See what happened")
        expect(self.page.locator(".found")).to_contain_text("turned the fractions round")
        self.page.fill("#pupil-wrote", "7 3/12 - 3 10/12\n= 4 7/12")
        self.page.press("#pupil-wrote", "Control+Enter")
        expect(self.page.locator(".found li.first")).to_contain_text("4 7/12")
        self.page.fill("#pupil-wrote", "about three <b>")
        self.page.click("text=See what happened")
        expect(self.page.locator(".found")).to_contain_text("not one written number")

    def test_a_pupils_estimate_is_judged_in_the_margin(self):
        self.type_problem("7 1/4 - 3 5/6")
        self.page.wait_for_selector(".row[aria-label='three and five twelfths']")
        for estimate, verdict in (("11 1/2", "explained"), ("3", "fits"), ("much", "unreadable")):
            self.page.fill("#pupils-estimate", estimate)
            self.page.press("#pupils-estimate", "Enter")
            self.page.wait_for_selector(f".pupils [data-verdict={verdict}]")

    def test_a_hidden_misconception_is_brought_out_by_the_nearest_problem(self):
        self.type_problem("9 - 4 2/3")
        self.page.wait_for_selector(".paper .row[aria-label='four and one third']")
        self.page.locator(".margin li[data-status=hidden] button.entry").first.click()
        self.page.click("text=Find the nearest problem that shows it")
        self.page.click("text=Take it instead")
        self.page.wait_for_selector(".paper .row[aria-label='four and two thirds']")
        self.page.click(".top >> text=Undo")
        self.page.wait_for_selector(".paper .row[aria-label='four and one third']")

    def test_what_a_set_reveals_and_the_catalogue(self):
        self.page.click(".top >> text=Reveals")
        expect(self.page.locator("thead th")).to_have_count(1 + 3)
        expect(self.page.locator("[data-status=reveals]").first).to_have_text("●shows")
        self.page.goto(self.server.address)
        self.page.click("text=Likely wrong answers")
        expect(self.page.locator("main li")).to_have_count(len(ENTRIES))

    def test_a_number_is_built(self):
        self.page.goto(self.server.address)
        self.page.click("text=Number building")
        self.page.get_by_label("Numbers").fill("3, 1/2, 4")
        self.page.get_by_label("to build").fill("10")
        self.page.keyboard.press("Enter")
        expect(self.page.locator(".numbers > .number")).to_have_count(3)
        self.page.click("text=Show the ways")
        expect(self.page.locator("ol li")).to_have_count(2)
        self.page.get_by_label("Numbers").fill("3, 4 +, 5")
        self.page.keyboard.press("Enter")
        expect(self.page.locator("[role=alert]")).to_contain_text("number")

    def test_what_is_typed_while_a_page_still_loads_is_not_given_up(self):
        held = []
        self.page.goto(self.server.address)
        self.page.route("**/api/building", lambda route: held.append(route))
        self.page.click("text=Number building")
        self.page.get_by_label("Numbers").fill("3, 1/2, 4")
        self.page.get_by_label("to build").fill("10")
        self.page.keyboard.press("Enter")
        while len(held) < 2:  # the page's own question, and what was typed
            self.page.evaluate(STILL)
        for route in held:
            with self.page.expect_response("**/api/building"):
                route.continue_()
            self.still()
        expect(self.page.locator(".numbers > .number")).to_have_count(3)

    def test_a_wrong_answer_is_shown_below_the_right_one(self):
        self.type_problem("1/2 + 1/2")
        entry = self.page.locator(".margin li", has_text="combined tops and combined bottoms").first
        entry.locator("button.entry").click()
        figure = entry.locator("svg.figure")
        expect(figure.locator(".part[data-role=answer]")).to_have_count(1)
        expect(figure.locator(".part[data-role=wrong]")).to_have_count(2)
        wide = [
            figure.locator(f".part[data-role={role}]").first.bounding_box()["width"] for role in ("answer", "wrong")
        ]
        self.assertAlmostEqual(wide[0], 4 * wide[1], delta=0.5)

    def test_digits_sit_in_the_squares_and_bars_in_the_middle_of_their_numbers(self):
        self.type_problem("7 1/4 - 3 5/6")
        self.page.wait_for_selector(".paper .row[aria-label='three and five twelfths']")
        measured = self.page.evaluate(
            """() => {
              const paper = document.querySelector('.paper .squared').getBoundingClientRect()
              const boxes = all => [...document.querySelectorAll(all)].map(e => e.getBoundingClientRect())
              return { left: paper.left, top: paper.top,
                cells: boxes('.paper .cell').map(b => [b.left, b.width]),
                bars: boxes('.paper .bar').map(b => [b.left + b.width / 2, b.top + b.height / 2, b.width]),
                tops: [...document.querySelectorAll('.paper .half:not(.below)')].map(e => {
                  const b = e.getBoundingClientRect(); return [b.left + b.width / 2, b.bottom] }) }
            }"""
        )
        for left, width in measured["cells"]:
            self.assertEqual((width % 11, width >= 22), (0, True))
            self.assertLess(abs((left - measured["left"]) / 11 - round((left - measured["left"]) / 11)), 1 / 11)
        for _, middle, _ in measured["bars"]:  # on a line of the paper, within a pixel
            self.assertLess(abs((middle - measured["top"]) / 22 - round((middle - measured["top"]) / 22)), 1 / 22)
        for middle, height, width in measured["bars"]:
            over = [x for x, bottom in measured["tops"] if abs(x - middle) <= width / 2 and abs(bottom - height) < 8]
            self.assertLess(abs(sum(over) / len(over) - middle), 1)

    def test_reorder_by_keys_and_by_drag_is_kept(self):
        before = self.spoken()
        self.page.focus(".step[data-id]:nth-child(1) .pick")
        self.page.keyboard.press("Alt+ArrowDown")
        self.page.wait_for_selector("text=Now number 2 of 3.", state="attached")
        self.assertEqual(self.spoken(), [before[1], before[0], before[2]])
        third, to = (self.page.locator(f".step[data-id]:nth-child({n}) .pick").bounding_box() for n in (3, 1))
        self.page.mouse.move(third["x"] + 60, third["y"] + 20)
        self.page.mouse.down()
        for y in (third["y"], to["y"] + 40, to["y"] + 4, to["y"] + 2):
            self.page.mouse.move(to["x"] + 60, y, steps=6)
        with self.page.expect_response(lambda answer: answer.request.method == "PATCH"):
            self.page.mouse.up()
        first = self.page.locator(".step[data-id] .math > .sr-only").first
        expect(first).to_have_text(before[2])
        self.page.reload()
        self.page.wait_for_selector(".paper .row")
        self.assertEqual(self.spoken(), [before[2], before[1], before[0]])

    def test_what_is_typed_stands_in_pencil_until_it_is_inked_or_given_up(self):
        paper = self.page.locator(".paper")
        self.page.fill("#entry", "5/6 + 3/4")
        expect(paper.locator(".row[aria-label='one and seven twelfths']")).to_have_count(1)
        expect(paper).to_have_attribute("data-pencil", "true")
        expect(self.page.locator(".margin")).to_contain_text("about 2")
        self.page.fill("#entry", "5/6 + 3/4 +")  # not to be read yet: what was read stays
        self.page.wait_for_selector(".refusal")
        expect(paper.locator(".row[aria-label='one and seven twelfths']")).to_have_count(1)
        self.page.fill("#entry", "")
        expect(paper).to_have_attribute("data-pencil", "false")
        expect(paper.locator(".row[aria-label='five sevenths']")).to_have_count(1)
        self.assertEqual(len(self.spoken()), 3)

    def test_an_empty_bench_offers_starts_that_suit_its_title(self):
        empty = support.new_set(self.teacher, "Rain gauge: decimals", [])
        self.page.goto(f"{self.server.address}/bench/{empty}")
        starts = self.page.locator(".starts .start")
        expect(starts).to_have_count(3)
        expect(starts.first).to_contain_text("Decimals")
        starts.first.click()
        self.wait_for_ladder(8)
        codes = self.page.locator(".step[data-id] .code").all_inner_texts()
        self.assertEqual((codes[0], codes[-1], codes), ("D1", "D5", sorted(codes)))

    def test_a_new_teacher_is_walked_over_the_bench_once_and_again_from_help(self):
        newcomer = support.new_teacher()
        first = support.new_set(newcomer, "First", ["1/2 + 1/3"])
        context = self.browser.new_context(viewport={"width": 1280, "height": 800})
        self.addCleanup(context.close)
        come_in(context.request, self.server.link(newcomer))
        page = context.new_page()
        page.goto(f"{self.server.address}/bench/{first}")
        walk = page.get_by_role("dialog", name="A walk over the Bench")
        expect(walk).to_contain_text("1 of 5")
        for at in range(2, 6):
            page.keyboard.press("Enter")
            expect(walk).to_contain_text(f"{at} of 5")
        page.keyboard.press("Enter")
        expect(walk).to_have_count(0)
        page.reload()
        page.wait_for_selector(".paper .row")
        expect(walk).to_have_count(0)
        page.keyboard.press("?")
        page.click("text=Walk me over the Bench")
        expect(walk).to_contain_text("1 of 5")
        page.keyboard.press("Escape")
        expect(walk).to_have_count(0)

    def test_help_is_searched_and_its_examples_go_on_the_ladder(self):
        self.page.keyboard.press("?")
        self.page.fill("[aria-label='Find in the help']", "combined tops")
        lines = self.page.locator(".help .line")
        expect(lines.first).to_contain_text("Sees separate whole numbers")
        lines.first.get_by_text("Put it on the ladder").click()
        self.wait_for_ladder(4)
        self.page.fill("[aria-label='Find in the help']", "sort into a climb")
        expect(self.page.locator(".help details[open]")).to_contain_text("Drag a rung, or press Alt with an arrow key")
        self.page.fill("[aria-label='Find in the help']", "no such word")
        expect(self.page.locator(".help [role=status]")).to_have_text("Nothing here has this word.")

    def test_every_example_of_the_help_can_be_worked(self):
        text = (Path(__file__).resolve().parents[2] / "frontend/src/bench/help.ts").read_text(encoding="utf-8")
        examples = re.findall(r"example: '([^']+)'", text)
        self.assertGreater(len(examples), 8)
        for example in examples:
            problem, _, target = example.partition(" to ")
            work_text(problem, target=target or None)

    def test_taking_off_and_undo(self):
        before = self.spoken()
        self.page.hover(".step[data-id]:nth-child(2)")
        self.page.click(".step[data-id]:nth-child(2) .off")
        self.wait_for_ladder(2)
        self.page.click(".p-toast >> text=Undo")
        self.wait_for_ladder(3)
        self.assertEqual(self.spoken(), before)

    def test_everything_by_keys_alone(self):
        page = self.page
        page.keyboard.press("/")
        page.keyboard.type("3/4 + 2/5")
        page.keyboard.press("Enter")
        self.wait_for_ladder(4)
        for _ in range(30):  # back from the entry line to the rung in hand, as Tab walks
            page.keyboard.press("Shift+Tab")
            if page.evaluate("document.activeElement.classList.contains('pick')"):
                break
        page.keyboard.press("ArrowUp")
        page.wait_for_selector(
            ".step[data-id]:nth-child(3) .rung[data-chosen=true], .step[data-id]:nth-child(2) .rung[data-chosen=true]"
        )
        page.keyboard.press("Delete")
        self.wait_for_ladder(3)
        page.keyboard.press("Control+z")
        self.wait_for_ladder(4)
        page.keyboard.press("?")
        page.wait_for_selector("[role=dialog] >> text=go to the entry line")
        page.keyboard.press("Escape")
        page.wait_for_selector("[role=dialog]", state="detached")

    def test_two_tabs_never_overwrite_each_other_silently(self):
        other = self.open()
        self.type_problem("1/2 + 1/3")
        self.wait_for_ladder(4)
        self.type_problem("1/2 + 1/5", other)
        other.wait_for_selector("[role=dialog] >> text=Changed in another tab")
        other.click("text=Put my change on top")
        self.wait_for_ladder(5, other)
        self.type_problem("1/2 + 1/7")
        self.page.wait_for_selector("[role=dialog] >> text=Changed in another tab")
        self.page.click("text=Take the other version")
        self.wait_for_ladder(5)
        self.page.reload()
        self.page.wait_for_selector(".paper .row")
        self.assertEqual(self.spoken()[3:], ["one half plus one third", "one half plus one fifth"])

    def test_a_step_says_why_in_the_teachers_own_words(self):
        self.page.click(".step[data-id]:nth-child(2) .pick")
        self.page.click(".paper .title >> nth=0")
        self.page.fill("#reason-0", "Cut the <b>first</b> plank finer.")
        self.page.press("#reason-0", "Tab")
        self.page.wait_for_selector("text=Back to Keen Slate’s words")
        self.page.reload()
        self.page.wait_for_selector(".mine >> text=Cut the <b>first</b> plank finer.")
        self.page.click(".paper .title >> nth=0")
        self.page.click("text=Back to Keen Slate’s words")
        self.page.wait_for_selector(".mine", state="detached")
        self.assertTrue(self.page.input_value("#reason-0").startswith("The pieces must be the same size"))

    def test_a_sentence_for_the_whole_set_is_said_in_every_example(self):
        self.page.click(".step[data-id]:nth-child(2) .pick")
        self.page.click(".paper .title >> nth=0")
        self.page.fill("#spoken-0", "Same pieces, please.")
        self.page.press("#spoken-0", "Tab")
        self.page.click("text=Say it so in the whole set")
        self.page.wait_for_selector("text=(in the whole set)")
        self.page.click(".step[data-id]:nth-child(3) .pick")
        self.page.wait_for_selector(".row[aria-label='one twelfth']")
        self.page.click(".paper .title >> nth=0")
        expect(self.page.locator("#spoken-0")).to_have_value("Same pieces, please.")
        self.page.click("text=Back to Keen Slate’s words")
        expect(self.page.locator("#spoken-0")).to_have_value(
            re.compile("^Same size pieces first: twelfths. That makes")
        )

    def test_another_way_is_taken_over_with_a_click_and_given_back(self):
        self.type_problem("7 1/4 - 3 5/6")
        self.page.wait_for_selector(".row[aria-label='three and five twelfths']")
        self.page.click(".way >> text=same difference")
        self.page.wait_for_selector(".row[aria-label='seven and five twelfths minus four']")
        self.page.reload()
        self.page.wait_for_selector(".row[aria-label='seven and five twelfths minus four']")
        self.page.click("text=This example has ways of its own")
        self.page.wait_for_selector(".row[aria-label='six and fifteen twelfths minus three and ten twelfths']")

    def test_a_lone_number_is_converted_to_the_form_that_is_asked_for(self):
        self.type_problem("5/6")
        self.page.wait_for_selector("text=Nothing has to be done")
        self.page.click(".forms >> text=decimal")
        self.page.wait_for_selector(".row[aria-label='zero point eight three recurring']")
        self.page.reload()
        self.page.wait_for_selector(".row[aria-label='zero point eight three recurring']")
        self.assertEqual(self.page.inner_text(".step[data-id]:last-child .target"), "to decimal")

    def test_two_ways_stand_beside_each_other_on_the_paper(self):
        self.type_problem("7 1/4 - 3 5/6")
        self.page.wait_for_selector(".row[aria-label='three and five twelfths']")
        self.page.click("[aria-label='Show all improper beside this working']")
        self.page.wait_for_selector("[aria-label='all improper'] .row[aria-label='forty-one twelfths']")
        self.assertEqual(self.page.locator(".row[aria-label='three and five twelfths']").count(), 2)
        self.page.click("text=Put the other way away")
        self.page.wait_for_selector(".row[aria-label='forty-one twelfths']", state="detached")

    def test_the_stacked_layout_lines_up_and_is_kept(self):
        self.type_problem("10 1/6 - 4 9/10")
        self.page.wait_for_selector(".row[aria-label='five and four fifteenths']")
        self.page.click(".switch >> text=stacked")
        sheet = self.page.wait_for_selector(".row[aria-label^='Stacked:']")
        self.assertIn("The numerator 5 is crossed out, 35 stands above it.", sheet.get_attribute("aria-label"))
        bars = sheet.eval_on_selector_all(".bar", "all => all.map(e => [e.getBoundingClientRect(), e.dataset.role])")
        thirtieths = [b for b, role in bars if role != "" and 29 < b["width"] < 33][-3:]
        self.assertEqual(len(thirtieths), 3)  # 5/30 crossed, 27/30, and the result 8/30
        self.assertLess(max(b["x"] for b in thirtieths) - min(b["x"] for b in thirtieths), 1)
        wholes = sheet.eval_on_selector_all(
            ".tall", "all => all.map(e => [e.textContent, e.getBoundingClientRect().x])"
        )
        ones = [x for digit, x in wholes if digit in "045"]  # 10, 4 and 5: their ones digits
        self.assertEqual(len({round(x) for x in ones[-2:]}), 1)
        self.page.reload()
        self.page.wait_for_selector(".row[aria-label^='Stacked:']")
        for layout, there in (
            ("four boxes", "text=Solve and simplify"),
            ("checklist", "text=Are the pieces the same size?"),
        ):
            self.page.click(f".switch >> text={layout}")
            self.page.wait_for_selector(f".paper >> {there}")

    def test_the_ways_of_the_set_change_the_example_in_view(self):
        self.type_problem("2 3/4 + 1 2/3")
        self.page.wait_for_selector(".row[aria-label='three plus seventeen twelfths']")
        self.open_ways()
        adding = self.page.get_by_role("radiogroup", name="Adding mixed numbers")
        expect(adding.get_by_role("radio", name="all improper").locator(".row")).to_have_count(
            3
        )  # shown, not only named
        adding.get_by_role("radio", name="all improper").click()
        self.page.wait_for_selector(".paper .row[aria-label='fifty-three twelfths']")
        expect(self.page.locator(".differs").first).to_have_text(
            "This set: all improper; all sets: wholes first. Put it back"
        )
        self.page.click(".differs >> text=Put it back")
        expect(self.page.locator(".differs")).to_have_count(0)
        adding.get_by_role("radio", name="all improper").click()
        self.page.fill("[aria-label='Find a way']", "borrow")
        expect(self.page.get_by_role("radiogroup")).to_have_count(1)
        expect(self.page.get_by_role("radio", name="borrow")).to_contain_text("so borrow: cut up one whole")
        self.page.keyboard.press("Escape")
        self.page.click(".top >> text=Undo")
        self.page.wait_for_selector(".paper .row[aria-label='three plus seventeen twelfths']")

    def test_a_class_writes_its_own_checklist(self):
        self.page.click(".switch >> text=checklist")
        self.page.wait_for_selector(".checklist")
        self.open_ways("Look")
        self.page.click(".questions >> text=Write our own")
        first = self.page.get_by_label("Question 1 in this set")
        first.fill("Is <b> the wood cut?")
        first.press("Enter")
        self.page.get_by_label("Remove question 2").click()
        self.page.keyboard.press("Escape")
        asked = self.page.locator(".checklist h3")
        expect(asked.first).to_contain_text("Is <b> the wood cut?")
        expect(asked.first.locator(".said")).to_have_text("no")
        self.page.goto(self.page.url.replace("/bench/", "/wall/"))
        self.page.wait_for_selector("main li")
        self.page.keyboard.press("PageDown")
        expect(self.page.locator(".box h2").first).to_contain_text("Is <b> the wood cut?")

    def test_a_server_that_is_gone_loses_nothing_that_was_typed(self):
        self.server.kill()
        self.type_problem("1/2 + 1/9")
        self.page.wait_for_selector("text=nothing was saved")
        self.assertEqual(self.page.input_value("#entry"), "1/2 + 1/9")
        self.server.start()
        self.wait_for_ladder(4)  # nobody has to press
        self.page.wait_for_selector("[data-state=saved]")
        expect(self.page.locator(".top .trouble")).to_have_count(0)

    def test_a_reload_while_the_server_is_away_shows_what_waits_and_goes_on_by_itself(self):
        self.page.evaluate("navigator.serviceWorker.ready")
        self.server.kill()
        self.addCleanup(self.server.start_again)
        self.type_problem("1/2 + 1/9")
        self.page.wait_for_selector("text=nothing was saved")
        self.page.reload()
        self.page.wait_for_selector("h1 >> text=does not answer right now")
        expect(self.page.locator("#unsent li")).to_have_text(["for a set: 1/2 + 1/9"])
        self.assertIn("Andika", self.page.evaluate("[...document.fonts].map(one => one.status + one.family).join()"))
        self.server.start()
        self.wait_for_ladder(4)
        self.page.wait_for_selector("[data-state=saved]")
        self.assertEqual(
            self.page.evaluate("Object.keys(localStorage).filter(one => one.includes('change')).length"), 0
        )

    def test_a_change_that_was_made_but_not_answered_is_made_once(self):
        self.type_problem("1/2 + 1/5")
        self.wait_for_ladder(4)
        lost = []

        def made_but_lost(route):
            if lost:
                route.continue_()
            else:
                lost.append(route.fetch().status)
                route.abort("connectionreset")

        self.page.route("**/examples", made_but_lost)
        self.type_problem("1/2 + 1/9")
        self.wait_for_ladder(5)
        self.page.wait_for_selector("[data-state=saved]")
        self.assertEqual((lost, self.spoken()[3:]), ([201], ["one half plus one fifth", "one half plus one ninth"]))
        self.page.reload()
        self.wait_for_ladder(5)

    def test_who_is_not_signed_in_stands_at_the_door_and_a_link_works_once(self):
        link = self.server.link(self.teacher)
        stranger = self.browser.new_context()
        self.addCleanup(stranger.close)
        page = stranger.new_page()
        page.goto(self.server.address)
        page.wait_for_selector("h1 >> text=Sign in")
        page.goto(link)  # looking at it uses nothing up
        page.wait_for_selector("h1 >> text=Come in")
        page.reload()
        page.wait_for_selector("button:focus >> text=Come in")
        page.keyboard.press("Enter")
        page.wait_for_selector(".sheets h2")
        again = self.browser.new_context()
        self.addCleanup(again.close)
        second = again.new_page()
        second.goto(f"{link}#now")  # as the program opens it by itself
        second.wait_for_selector("text=This link was used before")
        page.click("text=Sign out")
        page.wait_for_selector("text=./slate link")
        page.goto(f"{self.server.address}/bench/{self.set_id}")
        page.wait_for_selector("h1 >> text=Sign in")

    def test_a_password_of_ones_own_lets_one_in_and_other_browsers_are_signed_out(self):
        address = f"{uuid.uuid4().hex}@wren.example"
        second = self.browser.new_context()
        self.addCleanup(second.close)
        come_in(second.request, self.server.link(self.teacher))
        other = second.new_page()
        other.goto(self.server.address)
        other.wait_for_selector(".sheets h2")
        with support.engine().begin() as connection:
            connection.execute(text("delete from tries"))  # of other tests, from this same machine
        page = self.page
        page.goto(f"{self.server.address}/account")
        page.get_by_label("Address (e-mail), as the name").fill(address)
        for password, said in (("planks", "10 characters or more"), ("1234567890", "Others would try this one first")):
            page.get_by_label("New password").fill(password)
            page.click("text=Keep it")
            expect(page.get_by_role("alert")).to_contain_text(said)
        self.assertEqual(self.unfair(), [])
        page.get_by_label("New password").fill("seven planks & a <b>")
        page.keyboard.press("Enter")
        expect(page.locator(".p-toast")).to_contain_text("From now on you sign in by this address and password")
        expect(page.locator(".browsers li")).to_have_count(1)
        other.reload()
        other.wait_for_selector("h1 >> text=Sign in")
        self.assertEqual(self.unfair(other), [])
        other.fill("#address", address.upper())
        other.fill("#password", "seven planks & a <i>")
        other.keyboard.press("Enter")
        expect(other.get_by_role("alert")).to_contain_text("do not belong together")
        other.fill("#password", "seven planks & a <b>")
        other.keyboard.press("Enter")
        other.wait_for_selector(".sheets h2")
        page.reload()
        page.get_by_role("button", name=re.compile("Sign out the browser")).click()
        expect(page.locator(".browsers li")).to_have_count(1)
        other.reload()
        other.wait_for_selector("h1 >> text=Sign in")

    def test_the_ways_for_all_sets_have_their_own_undo_and_two_tabs_choose(self):
        self.type_problem("2 3/4 + 1 2/3")
        self.page.wait_for_selector(".row[aria-label='three plus seventeen twelfths']")
        self.page.click(".top >> text=Ways")
        other = self.open()
        other.click(".top >> text=Ways")
        for page in (self.page, other):
            page.get_by_role("button", name="for all sets", exact=True).click()
        improper = [page.get_by_role("radio", name="all improper").first for page in (self.page, other)]
        improper[0].click()
        self.page.wait_for_selector(".paper .row[aria-label='fifty-three twelfths']")
        other.get_by_role("radio", name="count back").click()
        other.click("text=Take the other ways, drop my change")
        expect(improper[1]).to_have_attribute("aria-checked", "true")
        self.page.click(".top >> text=Undo")  # takes the example away, and leaves the ways
        self.wait_for_ladder(3)
        expect(improper[0]).to_have_attribute("aria-checked", "true")
        self.page.click("text=Undo for all sets")
        expect(self.page.get_by_role("radio", name="wholes first").first).to_have_attribute("aria-checked", "true")

    def test_the_shelf_begins_a_set_and_shows_titles_as_text(self):
        shelf = self.open("/")
        expect(shelf.locator("h2").get_by_text(self.title, exact=True)).to_be_visible()
        shelf.get_by_role("button", name="empty", exact=True).click()
        shelf.fill("#new-title", "Rope & gravel")
        shelf.press("#new-title", "Enter")
        shelf.wait_for_selector("text=The paper is empty.")
        self.type_problem("1/2 + 1/3", shelf)
        shelf.wait_for_selector(".paper .row")
        self.assertEqual(shelf.get_by_label("Title of the set").input_value(), "Rope & gravel")

    def test_axe_finds_nothing_serious(self):
        self.type_problem("7 1/4 - 3 5/6")
        self.page.wait_for_selector(".paper .row[aria-label='three and five twelfths']")
        self.page.click(".paper .title >> nth=0")
        self.page.click(".margin .entry >> nth=0")
        shelf = self.open("/")
        self.page.fill("#entry", "12 1/4 - 3 7/8")
        self.page.wait_for_selector(".paper[data-pencil=true] .noticed")
        for page in (self.page, shelf):
            # Read into the page by the test itself: the page's own policy allows no script but its own.
            page.evaluate(AXE.read_text(encoding="utf-8") + ";0")
            found = page.evaluate(
                "axe.run().then(r => r.violations.map("
                "v => [v.impact, v.id, v.nodes.map(n => n.html.slice(0, 140)).slice(0, 3)]))"
            )
            self.assertEqual([v for v in found if v[0] in ("serious", "critical")], [])

    def test_nothing_is_cut_off_in_narrow_and_awkward_cases(self):
        long = " + ".join(["999999 9998/9999"] * 11)
        for width, height in ((1280, 800), (1024, 768), (640, 400), (390, 844)):  # 640 x 400 is 1280 x 800 at 200 %
            page = self.open()
            page.set_viewport_size({"width": width, "height": height})
            self.type_problem("12/13 + 7/8 - 1/2 + 3 1/2 - 2 + 4 2/3", page)
            page.wait_for_selector(".paper .row >> nth=4")
            self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), width)
            page.fill("#entry", long)
            page.wait_for_selector(".entry .math, .refusal")
            self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), width)
            page.fill("#entry", "")
            page.close()

    def test_the_demo_has_its_eight_examples_that_climb_from_f1(self):
        rungs = [work_text(problem).features.rung for problem in SETS[0][1]]
        self.assertEqual((len(rungs), rungs), (8, sorted(rungs)))
        self.assertEqual(sorted(set(rungs))[:6], [f"F{i}" for i in range(1, 7)])
