"""Debian's Chromium without a window: for the tests of the real page and for the screenshots."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from playwright.sync_api import APIRequestContext, Browser, sync_playwright

CHROMIUM = "/usr/bin/chromium-headless-shell"
ARGUMENTS = [
    "--no-sandbox",
    "--disable-gpu",
    "--font-render-hinting=none",  # letters as wide as on a screen
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


@contextmanager
def chromium(*more: str) -> Iterator[Browser]:
    """A browser that ends with the block, started with some *more* arguments."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=[*ARGUMENTS, *more])
        try:
            yield browser
        finally:
            browser.close()


def come_in(request: APIRequestContext, link: str) -> None:
    """Have the browser whose *request* it is come in by a *link*."""
    address, secret = link.split("/enter/")
    answer = request.post(f"{address}/api/enter", data={"link": secret})
    assert answer.status == 204, answer.text()
