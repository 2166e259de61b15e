"""Handouts: pages to print, made as one HTML document. The preview shows the very pages of the PDF."""

from __future__ import annotations

import base64
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from html import escape
from typing import Literal

from keen_slate.core.diagnosing.choices import choices
from keen_slate.core.documents.verdict import choice_views
from keen_slate.core.documents.view import label_before
from keen_slate.core.documents.working import wrong_text
from keen_slate.core.figures.inks import INKS
from keen_slate.core.teaching.fading import Fading
from keen_slate.core.teaching.points import ANSWER
from keen_slate.core.ways.voices import voice_of
from keen_slate.core.working.proof import Working

from .item import Item
from .marked_up import MATH_STYLE, math
from .told import Told
from .workings import body, line

Paper = Literal["a4", "letter"]
Form = Literal["full", "faded", "problems"]

_HEIGHTS = {"a4": 297, "letter": 279}  # millimetres
_EDGE = 14
_HEAD = 22
MOST_PER_PAGE = 8
MOST_SPACE = 150


@dataclass(frozen=True, slots=True)
class Options:
    """How the pages are to be: *per_page* examples at most, *space* millimetres of squares to work in under each."""

    paper: Paper = "a4"
    per_page: int = 4
    form: Form = "faded"
    space: int = 40
    name_line: bool = True
    pictures: bool = False
    key: bool = True
    wrong_answers: bool = True
    choices: bool = False


Fonts = Mapping[int, str]
Version = tuple[str, Sequence[Item]]  # its letter ("" where there is one version only), its examples


def handout(title: str, versions: Sequence[Version], options: Options, fonts: Fonts, nonce: str = "") -> str:
    """The whole handout as an HTML document: a part for each version, then the keys on pages of their own.

    *fonts* are the addresses of the typeface by weight; *nonce* is that of the policy under which a page is served.
    """
    parts = [_sheet(title, version, options) for version in versions]
    if options.key:
        parts += [_key(title, version, options) for version in versions]
    body = "\n".join(parts)
    return (
        f'<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>{escape(title)}</title>'
        f'<style nonce="{nonce}">{_style(options, fonts)}</style></head><body>{body}</body></html>'
    )


# Sheets for pupils --------------------------------------------------------------------------------------------------


def _sheet(title: str, version: Version, options: Options) -> str:
    """The rows of a version: so high that no more than the wanted examples fit on a page; none is split over two."""
    letter, items = version
    columns = _columns(options)
    examples = [_example(item, i + 1, options) for i, item in enumerate(items)]
    examples += ["<div></div>"] * (-len(examples) % columns)
    rows = [examples[i : i + columns] for i in range(0, len(examples), columns)]
    inner = "".join(f'<div class="row">{"".join(row)}</div>' for row in rows)
    return f'<section class="sheet">{_head(title, letter, options.name_line)}{inner}</section>'


def _columns(options: Options) -> int:
    return 2 if options.per_page in (4, 6, 8) else 1


def _head(title: str, letter: str, name_line: bool) -> str:
    named = '<p class="name">Name <span></span> Date <span class="short"></span></p>' if name_line else ""
    return f"<header><h1>{escape(title)}{_version(letter)}</h1>{named}</header>"


def _version(letter: str) -> str:
    return f' <span class="version">{escape(letter)}</span>' if letter else ""


def _example(item: Item, number: int, options: Options) -> str:
    working = item.working
    fading = {"full": Fading(), "faded": item.fading, "problems": Fading(hide=len(working.steps))}[options.form]
    points = sum(one.points for one in item.worth())
    whole = fading.hide >= len(working.steps)
    worked = "" if whole else body(item, fading, options.pictures)
    options_given = _choices(item) if options.choices and whole else ""
    space = f'<div class="space" style="height: {options.space}mm"></div>' if options.space and fading.hide else ""
    marked = f'<span class="points">{points} {"mark" if points == 1 else "marks"}</span>'
    if working.parts:
        told = Told(item, fading)
        head, label, before = "", "", told.text() + told.models() + told.first_line()
        after = options_given + space + told.sentence()
    else:
        head, before = line(working, None, "", fading), ""
        label = f' <span class="label">in {escape(working.problem.label)}</span>' if working.problem.label else ""
        answer = f"<p class='answer'>{_answer(working)}</p>" if working.problem.label and not fading.hide else ""
        after = answer + options_given + space
    return (
        f'<article class="example"><h2><span class="nr">{number}</span> <span class="problem">{head}</span>{label}{marked}</h2>'
        f"{before}{worked}{after}</article>"
    )


def _choices(item: Item) -> str:
    """Four options to tick; nothing where the problem has none."""
    found = choice_views(choices(item.worked), item.working.problem.label, item.voice)
    before = label_before(item.working)
    listed = [
        f"<li><strong>{one.label}</strong> {math([replace(glyph, role='') for glyph in one.glyphs])}"
        f"{escape(f' {one.unit}') if one.unit and not before else ''}</li>"
        for one in found
    ]
    return f'<ul class="options">{"".join(listed)}</ul>' if listed else ""


def _told(item: Item) -> str:
    """What each option tells, for the key."""
    found = choice_views(choices(item.worked), item.working.problem.label, item.voice)
    listed = [
        f"<li><strong>{one.label}</strong> {escape('right' if one.right else ', or '.join(one.names))}</li>"
        for one in found
    ]
    return f'<div class="wrong"><h3>The options</h3><ul>{"".join(listed)}</ul></div>' if listed else ""


def _answer(working: Working) -> str:
    label = working.answer_label
    before = label_before(working)
    number = math(voice_of(working.ways).glyphs(working.answer))
    shown = escape(label or "")
    return f"Answer: {shown if before else ''}{number}{'' if before else ' ' + shown}"


# The key, for the teacher -------------------------------------------------------------------------------------------


def _key(title: str, version: Version, options: Options) -> str:
    letter, items = version
    entries = [_key_entry(item, i + 1, options) for i, item in enumerate(items)]
    return f'<section class="key"><h1>{escape(title)}{_version(letter)}: key</h1>{"".join(entries)}</section>'


def _key_entry(item: Item, number: int, options: Options) -> str:
    working = item.working
    given = item.worth()
    lines = []
    for i in range(len(working.steps)):
        title = math(item.title(i))
        lines.append(
            f'<tr><td class="line">{line(working, i, "", Fading())}</td><td class="said">{title}</td><td class="points">{given[i].points}</td></tr>'
        )
    answer = next(one for one in given if one.key == ANSWER)
    wrong = (_told(item) if options.choices else "") + (_wrong(item) if options.wrong_answers else "")
    if working.parts:
        told = Told(item, Fading())
        head, before, final = "", told.text() + told.models() + told.calculation(), told.sentence()
    else:
        head, before, final = line(working, None, "", Fading()), "", _answer(working)
    return (
        f'<article class="example"><h2><span class="nr">{number}</span> <span class="problem">{head}</span></h2>{before}'
        f'<table>{"".join(lines)}<tr><td class="final">{final}</td><td class="said">{escape(item.voice.said(answer.loses))}</td>'
        f'<td class="points">{answer.points}</td></tr></table>{wrong}</article>'
    )


def _wrong(item: Item) -> str:
    shown = [
        f"<li><strong>{escape(wrong_text(one, item.working.problem.label, item.voice))}</strong> "
        f"{escape(item.voice.said(one.entry.name))}</li>"
        for one in item.worked.likely
        if one.status != "hidden"
    ]
    return f'<div class="wrong"><h3>They may write</h3><ul>{"".join(shown)}</ul></div>' if shown else ""


# The look -----------------------------------------------------------------------------------------------------------

_TILE = base64.b64encode(
    b'<svg xmlns="http://www.w3.org/2000/svg" width="5mm" height="5mm" viewBox="0 0 50 50">'
    b'<path d="M0 0H50M0 0V50" fill="none" stroke="#9fb3bd" stroke-width="1.6"/></svg>'
).decode()


def _style(options: Options, fonts: Fonts) -> str:
    height = _HEIGHTS[options.paper] - 2 * _EDGE - _HEAD
    rows = options.per_page // _columns(options)
    faces = "".join(
        f'@font-face {{ font-family: Andika; font-weight: {weight}; src: url("{address}"); }}'
        for weight, address in fonts.items()
    )
    inks = "".join(f".r-{role} {{ color: {ink.colour}; }}" for role, ink in INKS.items())
    return f"""{faces}
@page {{ size: {options.paper}; margin: {_EDGE}mm; @bottom-right {{ content: counter(page) " of " counter(pages); font: 9pt Andika; }} }}
* {{ box-sizing: border-box; }}
body {{ font: 11.5pt/1.35 Andika, sans-serif; color: #14191d; margin: 0; }}
h1, h2, h3, p, ul {{ margin: 0; padding: 0; }}
.sheet, .key {{ break-before: page; }}
.sheet:first-child {{ break-before: avoid; }}
header {{ height: {_HEAD}mm; }}
h1 {{ font-size: 15pt; }}
.version {{ border: 1.2pt solid; border-radius: 2pt; padding: 0 4pt; font-size: 12pt; }}
.name {{ padding-top: 2mm; }}
.name span {{ display: inline-block; border-bottom: 0.8pt solid; width: 62mm; margin-right: 6mm; }}
.name .short {{ width: 32mm; }}
.row {{ display: table; table-layout: fixed; width: 100%; break-inside: avoid; height: {height / rows - 1:.1f}mm; }}
.row > * {{ display: table-cell; vertical-align: top; }}
.row > * + * {{ padding-left: 8mm; }}
.example {{ break-inside: avoid; padding-bottom: 4mm; }}
h2 {{ font-size: 12pt; font-weight: 400; padding-bottom: 1.5mm; }}
.nr {{ font-weight: 700; margin-right: 2mm; font-size: 12pt; }}
.problem {{ font-size: 16pt; }}
.label {{ font-size: 10pt; }}
.points {{ font-size: 9pt; color: #3c4850; float: right; }}
.line {{ font-size: 15pt; line-height: 1.5; }}
{MATH_STYLE}
.jotting {{ color: #3c4850; font-size: 10pt; padding-left: 6mm; }}
.squares {{ display: inline-block; vertical-align: top; max-width: 100%; margin: 1mm 0 2mm; }}
.jottings {{ display: inline-block; vertical-align: top; max-width: 100%; }}
.jottings .jotting {{ padding-left: 3mm; }}
.boxes {{ display: table; border-collapse: collapse; table-layout: fixed; width: 100%; }}
.boxes .pair {{ display: table-row; }}
.boxes .box {{ display: table-cell; border: 1pt solid; padding: 1.5mm 2mm; vertical-align: top; }}
.questions .box {{ padding-bottom: 1.5mm; }}
.box h3 {{ font-size: 10pt; }}
.box h3 span {{ font-weight: 400; }}
.options {{ list-style: none; font-size: 13pt; }}
.options li {{ display: inline-block; padding-right: 8mm; }}
.fill {{ border: 0.9pt dashed #55656f; height: 11mm; margin: 1.5mm 0; }}
.pause {{ font-weight: 700; border-top: 1pt dashed; padding-top: 1mm; }}
.space {{ background: url(data:image/svg+xml;base64,{_TILE}) 0 0 / 5mm 5mm; border-right: 0.5pt solid #9fb3bd; border-bottom: 0.5pt solid #9fb3bd; }}
.sketch {{ vertical-align: top; margin: 1mm 4mm 1mm 0; }}
.picture {{ display: block; max-width: 100%; max-height: 58mm; margin: 1mm 0 2mm; }}
.answer {{ font-size: 12pt; padding: 1mm 0; }}
.story {{ font-size: 12.5pt; line-height: 1.7; white-space: pre-line; }}
.quantity {{ white-space: nowrap; }}
.told {{ width: auto; margin-bottom: 1mm; }}
.told th, .told td {{ border: 0.6pt solid; padding: 0.5mm 3mm; font-weight: 400; text-align: left; font-size: 11pt; }}
.model {{ max-height: 32mm; max-width: 92mm; }}
.draw {{ border: 0.9pt dashed #55656f; height: 24mm; margin: 1.5mm 0; padding: 1mm 2mm; font-size: 9pt; color: #55656f; }}
.sentence {{ font-size: 12pt; padding: 1mm 0; }}
.write {{ display: inline-block; border-bottom: 0.8pt solid; width: 75%; height: 6mm; }}
table {{ border-collapse: collapse; width: 100%; }}
td {{ vertical-align: middle; padding: 0.4mm 3mm 0.4mm 0; }}
td.line, td.final {{ width: 42%; }}
td.points {{ float: none; text-align: right; padding-right: 0; }}
.said {{ font-size: 9.5pt; color: #2c373e; }}
.wrong {{ padding-top: 1.5mm; }}
h3 {{ font-size: 10pt; }}
.wrong ul {{ list-style: none; font-size: 9.5pt; }}
.wrong li {{ display: inline; padding-right: 1.2em; }}
{inks}
@media screen {{
  body {{ max-width: 52rem; margin: 0 auto; padding: 2rem 1.2rem; background: #fcfbf5; }}
  .row, .row > * {{ display: block; height: auto; padding-left: 0; }}
  .picture {{ max-height: 24rem; max-width: min(100%, 30rem); }}
  .key {{ border-top: 2px solid #d9768a; margin-top: 2rem; padding-top: 1rem; }}
}}"""
