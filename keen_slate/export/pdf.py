"""HTML -> PDF with embedded fonts and tags for screen readers, and pages as pictures for the preview."""

from __future__ import annotations

import io
import logging
from collections.abc import Callable, Sequence

import pypdfium2
from weasyprint import HTML
from weasyprint.urls import URLFetcher

logging.getLogger("weasyprint").setLevel(logging.ERROR)
_NO_ADDRESS = "handout:"
DOTS_PER_INCH = 84


def _fetcher() -> URLFetcher:
    """Loads a handout's fonts and pictures, and nothing from elsewhere."""
    return URLFetcher(allowed_protocols={"file", "data"}, allow_redirects=False)


def pdf(html: str) -> bytes:
    """The PDF of a handout: tagged (PDF/UA), its fonts within it."""
    made = HTML(string=html, base_url=_NO_ADDRESS, url_fetcher=_fetcher()).write_pdf(pdf_variant="pdf/ua-1")
    return bytes(made or b"")


def one_page(drawn: Callable[[float], str], sizes: Sequence[float]) -> bytes:
    """The PDF of what is *drawn* in the first of *sizes* (points) in which it takes one page; in the last, where none is small enough."""
    for size in sizes:
        made = pdf(drawn(size))
        opened = pypdfium2.PdfDocument(made)
        count = len(opened)
        opened.close()
        if count == 1:
            break
    return made


def pages(document: bytes) -> list[bytes]:
    """Each page of a PDF as a PNG picture."""
    opened = pypdfium2.PdfDocument(document)
    try:
        return [_picture(page) for page in opened]
    finally:
        opened.close()


def _picture(page: pypdfium2.PdfPage) -> bytes:
    out = io.BytesIO()
    page.render(scale=DOTS_PER_INCH / 72).to_pil().save(out, "PNG", optimize=False)
    return out.getvalue()
