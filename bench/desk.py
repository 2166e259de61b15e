"""The desk, measured in the real page: a newcomer's first printed page, pencil while typing, the next paint with sixty
examples.
"""

from __future__ import annotations

import statistics
import time
from collections.abc import Sequence

from playwright.sync_api import Browser, Page
from sqlalchemy.orm import Session

from keen_slate.store.demo import load
from keen_slate.store.shelf import Shelf
from tools.browser import chromium, come_in
from tools.throw_away import Running, application

EXAMPLES = 60
PAUSE = 150  # milliseconds that the page waits for another key (usePreview.ts)
TYPED = (
    "5/6 + 3/4",
    "7 1/4 - 3 5/6",
    "12.05 - 8.36",
    "2/3 + 1/4 + 5/6",
    "2 1/2 × 3/4",
    "9 - 4 2/3",
    "1/2 + 1/3 + 1/4 + 1/5",
)

# From the last key to the paper that shows it: the observer sees the change, the frame after it is painted.
WATCH = """() => {
  window.took = []
  let typed = 0
  const paper = document.querySelector('.paper')
  document.addEventListener('input', () => (typed = performance.now()), true)
  new MutationObserver(() => {
    if (!typed) return
    const from = typed
    typed = 0
    requestAnimationFrame(() => setTimeout(() => window.took.push(performance.now() - from)))
  }).observe(paper, { subtree: true, childList: true, characterData: true, attributes: true })
}"""
# The time to the next paint of each interaction, as the browser itself reckons it.
INTERACTIONS = """() => {
  window.painted = new Map()
  new PerformanceObserver((list) => {
    for (const one of list.getEntries())
      if (one.interactionId) {
        const before = window.painted.get(one.interactionId) ?? 0
        window.painted.set(one.interactionId, Math.max(one.duration, before))
      }
  }).observe({ type: 'event', durationThreshold: 16, buffered: false })
}"""
SENT = """() => performance.getEntriesByType('resource')
  .filter((one) => one.name.endsWith('.js')).map((one) => [one.name, one.encodedBodySize])"""


def report() -> None:
    """Print presses and seconds to the first page, the kilobytes of script, and how soon pencil and the next paint
    come.
    """
    with application(load) as running, chromium() as browser:
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.add_init_script("localStorage.setItem('keen-slate-walked', 'true')")
        _first_page(running, page)
        address = f"{running.server.address}/bench/{_sixty(running)}"
        _script(running, browser, address)
        page.goto(address)
        page.wait_for_selector(".paper .row")
        _pencil(page)
        _next_paint(page)


def _script(running: Running, browser: Browser, address: str) -> None:
    """What a browser that keeps nothing yet is sent; one that has been here tells other sizes."""
    scripts: dict[str, int] = {}
    for view, there in ((running.server.address, ".slip"), (address, ".paper .row")):
        fresh = browser.new_context()
        come_in(fresh.request, running.server.link(running.teacher))
        page = fresh.new_page()
        page.goto(view)
        page.wait_for_selector(there)
        scripts |= dict(page.evaluate(SENT))
        fresh.close()
    print(f"desk: {sum(scripts.values()) / 1000:.0f} kB of script for Shelf and Bench, as sent")


def _first_page(running: Running, page: Page) -> None:
    """From the demo's address to the PDF of eight graded problems, by the presses that a newcomer makes."""
    began = time.perf_counter()
    presses = 0

    def press(what: str) -> None:
        nonlocal presses
        page.click(what)
        presses += 1

    come_in(page.request, running.server.link(running.teacher))
    page.goto(running.server.address)
    press("[aria-label='Standard']")
    press("role=option[name=/5.NF.A.1/]")
    press("text=Begin >> nth=-1")
    page.wait_for_selector(".step[data-id] >> nth=7")
    press(".top >> text=Handout")
    page.wait_for_selector(".pages img")
    with page.context.expect_page() as opened:
        press("text=Open the PDF")
    opened.value.close()
    print(f"desk: {presses} presses and {time.perf_counter() - began:.1f} s to the PDF of eight graded problems")


def _sixty(running: Running) -> str:
    with Session(running.engine) as session, session.begin():
        fields = [{"source": f"{i % 9 + 1} {i % 4 + 1}/{i % 7 + 5} - {i % 3}/{i % 5 + 4}"} for i in range(EXAMPLES)]
        return str(Shelf(session, running.teacher).add_set("Sixty", fields).id)


def _pencil(page: Page) -> None:
    page.evaluate(WATCH)
    for _ in range(3):
        for text in TYPED:
            page.fill("#entry", "")
            page.wait_for_timeout(250)
            page.evaluate("window.took.length = 0")
            page.locator("#entry").press_sequentially(text, delay=40)
            page.wait_for_selector(".paper[data-pencil=true]")
            page.wait_for_timeout(500)
            page.evaluate("(window.all ??= []).push(window.took.at(-1))")
    page.fill("#entry", "")
    _say("desk: pencil after the pause", [one - PAUSE for one in page.evaluate("window.all")])


def _next_paint(page: Page) -> None:
    page.evaluate(INTERACTIONS)
    rungs = page.locator(".step[data-id] .pick")
    for i in range(0, EXAMPLES, 2):
        rungs.nth(i).click()
        page.wait_for_timeout(60)
        page.locator(".paper .title").first.click()
        page.keyboard.press("ArrowDown")
        page.wait_for_timeout(60)
    page.locator("#entry").press_sequentially("7 1/4 - 3 5/6", delay=50)
    page.wait_for_timeout(600)
    _say(f"desk: next paint with {EXAMPLES} examples", page.evaluate("[...window.painted.values()]"))


def _say(what: str, taken: Sequence[float]) -> None:
    ordered = sorted(taken)
    p95 = ordered[int(0.95 * (len(ordered) - 1))]
    print(f"{what}: p50 {statistics.median(ordered):.0f} ms, p95 {p95:.0f} ms ({len(ordered)} times)")
