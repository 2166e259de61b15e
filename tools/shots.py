"""Renew docs/screenshots from the demo data, on a throw-away database."""

from __future__ import annotations

import sys
import tempfile
from pathlib import Path

from playwright.sync_api import Page
from sqlalchemy.orm import Session

from keen_slate.store.database import migrate, open_engine
from keen_slate.store.demo import load
from tools.browser import chromium
from tools.launch import ROOT
from tools.postgres import LocalPostgres
from tools.server import LiveServer

TARGET = ROOT / "docs" / "screenshots"


def main() -> int:
    """Take every picture; returns 0."""
    TARGET.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(prefix="keen-slate-shots-") as directory:
        Path(directory).chmod(0o755)
        database = LocalPostgres(Path(directory) / "postgres", lasting=False)
        try:
            url = database.start(55700)
            server = LiveServer(_demo_teacher(url), url)
            try:
                _take_all(server.address)
            finally:
                server.stop()
        finally:
            database.remove()
    return 0


def _demo_teacher(url: str) -> str:
    migrate(url)
    engine = open_engine(url)
    with Session(engine) as session, session.begin():
        teacher = str(load(session))
    engine.dispose()
    return teacher


def _take_all(address: str) -> None:
    with chromium() as browser:
        page = browser.new_page(viewport={"width": 1280, "height": 800}, locale="en-GB", timezone_id="UTC")
        page.goto(address)
        page.wait_for_selector(".sheet")
        _take(page, "shelf")
        page.click(".sheet >> nth=-1")
        page.wait_for_selector(".paper .row")
        page.click(".step[data-id]:nth-child(6) .pick")
        page.wait_for_selector("[aria-label='Working'] .row[aria-label='one twelfth']")
        _take(page, "bench")
        page.fill("#entry", "7 1/4 - 3 5/6")
        page.wait_for_selector(".surprises")
        _take(page, "bench-typing")
        page.press("#entry", "Enter")
        page.wait_for_selector(".row[aria-label='three and five twelfths']")
        page.click(".margin .entry")
        page.click(".paper .title >> nth=1")
        _take(page, "bench-regrouping")


def _take(page: Page, name: str) -> None:
    page.mouse.move(640, 790)
    page.wait_for_timeout(300)
    page.screenshot(path=str(TARGET / f"{name}.png"))


if __name__ == "__main__":
    sys.exit(main())
