"""The set as a page to read on a screen: one HTML document, made from a template that escapes all text."""

from __future__ import annotations

import base64
from collections.abc import Mapping, Sequence

from jinja2 import Environment, FileSystemLoader, StrictUndefined

from keen_slate.core.figures.inks import INKS

from .paper.examples import example
from .paper.options import Options
from .paper.parts import Numbered
from .typesetting import TEMPLATES

_READ = Options(form="full", pictures=True)


def _as_address(drawing: str) -> str:
    """A drawing as an address that has it within."""
    return f"data:image/svg+xml;base64,{base64.b64encode(drawing.encode()).decode()}"


_TEMPLATES = Environment(
    loader=FileSystemLoader(TEMPLATES), autoescape=True, undefined=StrictUndefined, trim_blocks=True, lstrip_blocks=True
)
_TEMPLATES.filters["as_address"] = _as_address


def page(title: str, items: Sequence[Numbered], faces: Mapping[int, str], nonce: str = "") -> str:
    """The whole set with its workings and pictures.

    *faces* are the addresses of the typeface by weight; *nonce* is that of the policy under which the page is served.
    """
    examples = [example(one.number, one.item, _READ, "full") for one in items]
    return _TEMPLATES.get_template("page.html.j2").render(
        title=title, examples=examples, faces=faces, nonce=nonce, inks=INKS
    )


def said_page(said: str, hint: str, nonce: str, again: bool = False) -> str:
    """A page that says one thing and what to do; *again*: it asks again by itself."""
    return _TEMPLATES.get_template("said.html.j2").render(said=said, hint=hint, nonce=nonce, again=again)
