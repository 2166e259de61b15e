"""How a handout is to be."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

PageKind = Literal["sheet", "yours", "mistake", "estimate", "shade", "cut", "tick", "slip"]
PAGE_KINDS: tuple[PageKind, ...] = get_args(PageKind)
SHOWS_EXAMPLES = frozenset(PAGE_KINDS) - {"cut", "tick"}
Paper = Literal["a4", "letter"]
Form = Literal["full", "faded", "problems"]
Key = Literal["none", "pages", "long", "margin"]
Shading = Literal["bars", "circles", "grid", "number-line"]

MOST_PER_PAGE = 8
MOST_SPACE = 150  # millimetres


@dataclass(frozen=True, slots=True)
class Options:
    """How the pages are to be.

    *per_page* examples at most, 0 for as many as fit; *space* millimetres of squares to work in under each, as many as
    the page has left where *fill*. The *key* stands on few "pages" in two columns, "long" with what is done in each
    line and what to ask, or in the "margin" of a copy. *mistake* is the code of the wrong way that is followed, "" to
    have it chosen; *shading* is the kind of picture to shade.
    """

    kind: PageKind = "sheet"
    paper: Paper = "a4"
    per_page: int = 0
    form: Form = "faded"
    space: int = 30
    fill: bool = True
    name_line: bool = True
    pictures: bool = False
    key: Key = "pages"
    wrong_answers: bool = True
    choices: bool = False
    mistake: str = ""
    shading: Shading = "bars"
    large: bool = False
    wide: bool = False
    grey: bool = False
    class_name: str = ""
    date: str = ""
    minutes: int = 0
