"""Every view as it may be met: by day and by night, narrow and wide, at 200 %, in the system's own colours, printed."""

import uuid

from sqlalchemy.orm import Session

from keen_slate.store.classes import Classes
from keen_slate.store.colleagues import school_named
from keen_slate.store.models import Teacher
from tests import support
from tests.browser.test_bench import PageTests
from tests.support_core import drawn
from tools.browser import come_in

# 320 to 1920 CSS pixels; 640 x 400 is 1280 x 800 at 200 %.
SIZES = ((320, 640), (640, 400), (1024, 768), (1920, 1080))


class ViewTests(PageTests):
    class_id: uuid.UUID
    problems = ("7 1/4 - 3 5/6", "12.05 - 8.36", "2/3 + 1/6")

    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        with Session(support.engine()) as session, session.begin():
            classes = Classes(session, cls.teacher)
            made = classes.add("Heron", ["Sedge", "Alder"])
            cls.class_id = made.id
            teacher = session.get_one(Teacher, cls.teacher)
            teacher.school_id, teacher.head = school_named(session, "Marsh End").id, True

    def views(self):
        """Each view's address with what is there once it can be looked at; in a usual run the most used ones and a
        third of the others.
        """
        return {"/": ".slip", f"/bench/{self.set_id}": ".paper .row", f"/wall/{self.set_id}": "li.line"} | drawn({
            f"/handout/{self.set_id}": ".options",
            f"/ladder/{self.set_id}": ".stair .step", f"/stories/{self.set_id}": ".wish",
            f"/reveals/{self.set_id}": "table",
            "/classes": ".begin", f"/classes/{self.class_id}": ".sheet", "/likely-wrong-answers": "main li",
            "/number-building": ".sheet",
            "/account": ".log", "/school": ".way .row", "/colleagues": ".look", "/invited/guessed": "h1",
            "/scenarios": "table", "/nowhere": "main",
            "/number-building/wall?numbers=9,+11,+4/5,+1/6&wanted=4+11/12": ".number",
        })  # fmt: skip

    def look(self, view, there):
        self.page.goto(self.server.address + view)
        self.page.wait_for_selector(there)
        self.still()

    def test_every_view_meets_the_accessibility_rules_by_day_and_by_night(self):
        self.page.emulate_media(reduced_motion="reduce")
        for view, there in self.views().items():
            self.look(view, there)
            with self.subTest(view=view, scheme="light"):
                self.page.emulate_media(color_scheme="light")
                self.still()
                self.assertEqual(self.unfair(), [])
            with self.subTest(view=view, scheme="dark"):  # the same page in other colours
                self.page.emulate_media(color_scheme="dark")
                self.still()
                self.assertEqual(self.unfair(rules=("color-contrast",)), [])

    def test_what_opens_beside_and_over_the_paper_meets_them_too(self):
        self.look(f"/bench/{self.set_id}", ".paper .row")
        for opens, there in (("Ways", ".way .row"), ("The set", ".whole"), ("?", ".help .line")):
            with self.subTest(opens):
                self.page.locator(".top").get_by_text(opens, exact=True).click()
                self.page.wait_for_selector(there)
                self.still()
                self.assertEqual(self.unfair(), [])
                self.page.keyboard.press("Escape")
                self.still()

    def test_no_view_is_wider_than_its_window(self):
        for view, there in self.views().items():
            self.look(view, there)
            for width, height in SIZES:
                with self.subTest(view=view, width=width):
                    self.page.set_viewport_size({"width": width, "height": height})
                    self.still()
                    self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), width)
        self.page.set_viewport_size({"width": 1280, "height": 800})

    def test_the_bench_scrolls_within_its_columns_and_not_as_a_page(self):
        self.page.set_viewport_size({"width": 1280, "height": 480})
        self.look(f"/bench/{self.set_id}", ".paper .row")
        self.page.locator(".paper li button.title").nth(1).click()  # its words and its picture's choices open
        self.still()
        self.assertEqual(self.page.evaluate("document.documentElement.scrollHeight - innerHeight"), 0)
        self.page.set_viewport_size({"width": 1280, "height": 800})

    def test_every_view_stands_in_the_colours_of_the_system_and_printed_has_nothing_to_be_pressed(self):
        for view, there in self.views().items():
            with self.subTest(view):
                self.page.emulate_media(forced_colors="active", media="screen")
                self.look(view, there)
                edged = "e => getComputedStyle(e).borderTopStyle !== 'none' || e.matches('a, .p-tab')"
                for paper in self.page.locator(".on-paper").all()[:3]:
                    self.assertTrue(paper.evaluate(edged), view)  # paper keeps an edge where its colour is taken
                self.page.emulate_media(forced_colors="none", media="print")
                self.still()
                pressed = (
                    "all => all.filter(e => e.offsetParent && !e.matches('.keep-print'))"
                    ".map(e => e.outerHTML.slice(0, 120))"
                )
                self.assertEqual(self.page.eval_on_selector_all("button, input, select, textarea", pressed), [])

    def test_the_script_of_the_shelf_and_the_bench_stays_small(self):
        sent = (
            "performance.getEntriesByType('resource').filter(e => e.name.endsWith('.js'))"
            ".map(e => [e.name, e.encodedBodySize])"
        )
        scripts = {}
        for view, there in (("/", ".slip"), (f"/bench/{self.set_id}", ".paper .row")):
            fresh = self.browser.new_context()  # nothing is kept of it yet
            self.addCleanup(fresh.close)
            come_in(fresh.request, self.server.link(self.teacher))
            page = fresh.new_page()
            page.goto(self.server.address + view)
            page.wait_for_selector(there)
            scripts |= dict(page.evaluate(sent))
        self.assertGreater(sum(scripts.values()), 50_000)
        self.assertLess(sum(scripts.values()), 180_000)  # bytes, as sent

    def test_the_main_way_is_walked_by_keys_alone(self):
        page = self.page
        page.goto(self.server.address)
        page.wait_for_selector(".slip")
        self.tab_to("combobox", "Standard")
        page.keyboard.press("Enter")
        page.wait_for_selector(".p-select-option")
        page.keyboard.type("5.NF.A.1")
        page.keyboard.press("ArrowDown")
        page.keyboard.press("Enter")
        self.tab_to("button", "Begin")
        page.keyboard.press("Enter")
        self.wait_for_ladder(8)
        self.tab_to("link", "Wall")
        page.keyboard.press("Enter")
        page.wait_for_selector("li.line")
        page.keyboard.press("PageDown")
        page.wait_for_selector(".line[data-current=true] >> nth=0")

    def tab_to(self, role, name):
        """Go on by Tab until the thing with this *role* and *name* has the focus, and can be seen to have it."""
        for _ in range(120):
            self.page.keyboard.press("Tab")
            wanted = self.page.get_by_role(role, name=name, exact=True).first
            if wanted.count() and wanted.evaluate("e => e === document.activeElement"):
                ring = (
                    "e => parseFloat(getComputedStyle(e).outlineWidth) || "
                    "parseFloat(getComputedStyle(e.closest('.p-select') ?? e).outlineWidth)"
                )
                self.assertGreaterEqual(wanted.evaluate(ring), 2)
                return
        self.fail(f"{role} {name} cannot be reached by Tab")
