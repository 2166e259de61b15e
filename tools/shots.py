"""Renew docs/screenshots from the demo data, on a throw-away database."""

from __future__ import annotations

import sys

from playwright.sync_api import Page

from keen_slate.store.demo import load
from tools.application import ROOT
from tools.browser import chromium, come_in
from tools.throw_away import application

TARGET = ROOT / "docs" / "screenshots"


def main() -> int:
    """Take every picture; returns 0."""
    TARGET.mkdir(parents=True, exist_ok=True)
    with application(load, port=55700) as running:
        _take_all(running.server.address, running.server.link(running.teacher))
    return 0


def _take_all(address: str, link: str) -> None:
    with chromium() as browser:
        page = browser.new_page(viewport={"width": 1280, "height": 800}, locale="en-GB", timezone_id="UTC")
        page.add_init_script("localStorage.setItem('keen-slate-walked', 'true')")
        come_in(page.request, link)
        page.goto(address)
        page.wait_for_selector(".sheet")
        page.wait_for_selector(".today")  # what is due is worked out when it is first asked for
        _take(page, "shelf")
        page.click(".sheet >> text=unlike fractions")
        page.wait_for_selector(".paper .row")
        page.click(".step[data-id]:nth-child(6) .pick")
        page.wait_for_selector(".row[aria-label='one twelfth']")
        page.goto(address)
        page.click(".sheet >> text=Boardwalk")
        page.wait_for_selector(".paper .row")
        page.fill("#entry", "5/6 + 3/4 ft")
        page.press("#entry", "Enter")
        page.wait_for_selector(".row[aria-label='one and seven twelfths']")
        page.locator(".paper li").nth(1).locator("button.title").click()
        page.locator(".paper li").nth(1).get_by_role("combobox", name="Picture").click()
        page.click("role=option[name='strips']")
        _take(page, "bench-pictures")
        page.click(".top >> text=Undo")  # the picture, then the problem
        page.wait_for_timeout(400)
        page.click(".top >> text=Undo")
        page.wait_for_timeout(400)
        page.click(".step[data-id]:nth-child(6) .pick")
        page.wait_for_selector(".row[aria-label='three and five twelfths']")
        page.click(".margin .entry")
        _take(page, "bench-regrouping")
        page.goto(address)
        page.click(".sheet >> text=Boardwalk")
        page.wait_for_selector(".paper .row")
        page.click(".top >> text=Reveals")
        page.wait_for_selector("table")
        page.locator(".for .p-select").click()
        page.click("role=option[name='Heron']")
        page.wait_for_selector("th.holders")
        _take(page, "reveals")
        page.goto(address)
        page.click(".sheet >> text=Stones and steps")
        page.wait_for_selector(".paper .models")
        page.locator(".step[data-id] .pick").nth(4).click()
        page.wait_for_timeout(600)
        _take(page, "bench-story")
        page.fill("#entry", "Sedge has 3 m of red rope and 2 1/2 m of green rope. How much is it?")
        page.wait_for_selector("[role=dialog] .reading")
        _take(page, "story-desk")
        page.locator(".reading").first.click()
        page.wait_for_selector("[role=dialog] .answer")
        page.click("text=Leave it")
        page.fill("#entry", "")
        page.click(".tools >> text=Stories")
        page.wait_for_selector("ol .told")
        _take(page, "stories")
        page.goto(f"{address}/likely-wrong-answers")
        page.wait_for_selector("main li")
        _take(page, "likely-wrong-answers")
        page.goto(f"{address}/number-building")
        page.click("text=needs a common denominator")
        page.get_by_label("Numbers").fill("9, 11, 4/5, 1/6")
        page.get_by_label("to build").fill("4 11/12")
        page.keyboard.press("Enter")
        page.wait_for_timeout(300)
        page.click("text=Show the ways")
        _take(page, "number-building")
        page.goto(address)
        page.click(".sheet >> text=Boardwalk")
        page.wait_for_selector(".paper .row")
        page.click(".step[data-id]:nth-child(6) .pick")
        page.wait_for_selector(".row[aria-label='three and five twelfths']")
        page.click("[aria-label='More in blank']")
        page.click("text=Put blanks")
        page.locator(".paper .row").nth(1).locator("[data-key$=' 4']").first.click()
        page.wait_for_selector("[data-blank=true]")
        page.click("text=Done with blanks")
        page.click("text=One like this")
        page.wait_for_selector(".fading .found")
        _take(page, "bench-fading")
        page.click(".top >> text=The set")
        page.get_by_label("Minutes of the lesson").fill("15")
        page.click("text=Fade step by step")
        page.wait_for_timeout(400)
        page.get_by_text("Make a link").scroll_into_view_if_needed()
        _take(page, "the-set")
        page.keyboard.press("Escape")
        page.click(".top >> text=Handout")
        page.wait_for_selector(".pages img")
        _take(page, "handout")
        page.click(".head >> text=Bench")
        page.wait_for_selector(".paper .row")
        page.click(".step[data-id]:nth-child(6) .pick")
        page.wait_for_selector(".paper [data-blank=true], .paper [data-hidden=true]")
        page.goto(page.url.replace("/bench/", "/wall/"))
        page.wait_for_selector("li.line")
        for _ in range(3):  # the blank that was put above, its filling, the next line
            page.keyboard.press("PageDown")
        page.wait_for_timeout(2000)
        _take(page, "wall")
        page.mouse.move(600, 500)
        page.click("nav.bar >> text=Bench")
        page.mouse.move(640, 790)
        page.wait_for_selector(".paper .row")
        page.click("text=Build to order")
        page.wait_for_selector(".problem .rung")
        page.wait_for_timeout(400)
        _take(page, "ladder")
        page.click(".head >> text=Bench")
        page.wait_for_selector(".paper .row")
        page.click(".top >> text=Ways")
        page.click("role=radio[name=/^count back/]")
        page.wait_for_timeout(900)
        page.locator(".setting").nth(1).evaluate("e => e.scrollIntoView({ block: 'start' })")
        _take(page, "ways")
        page.goto(f"{address}/classes")
        page.click(".sheets >> text=Heron")
        page.wait_for_selector("#over-time")
        page.wait_for_timeout(600)
        _take(page, "class")
        page.locator(".sittings a").last.click()
        page.wait_for_selector("td.hand")
        page.locator("tbody tr", has_text="Sedge").locator("td").nth(5).click()
        page.wait_for_selector(".margin svg.figure")
        page.wait_for_timeout(600)
        _take(page, "answers")
        page.click("role=tab[name='What happened']")
        page.wait_for_selector("canvas")
        page.wait_for_timeout(600)
        _take(page, "what-happened")
        page.click("role=tab[name='Next']")
        page.wait_for_selector(".make")
        _take(page, "next")


def _take(page: Page, name: str) -> None:
    page.mouse.move(640, 790)
    page.wait_for_timeout(300)
    page.screenshot(path=str(TARGET / f"{name}.png"))


if __name__ == "__main__":
    sys.exit(main())
