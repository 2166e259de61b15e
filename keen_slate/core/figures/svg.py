"""Figure -> a standalone SVG file: the same marks as on the screen, with their look written into the file."""

from __future__ import annotations

from collections.abc import Iterator
from html import escape
from typing import Literal

from ..expressions.voice import OWN, Voice
from .display import TEXT_SIZE, Figure, Mark, State, marks
from .inks import INK, INKS, PAPER, TILE

PAD = 4
STATES: tuple[Literal["before", "after", "both"], ...] = ("before", "after", "both")
_HEADING = 30
_FONT = "Andika, 'DejaVu Sans', sans-serif"
_LOOKS = {
    "whole": 'fill="none" stroke="{ink}" stroke-width="2.4"',
    "thick": 'stroke="{ink}" stroke-width="2.2"',
    "thin": 'stroke="{ink}" stroke-width="0.9"',
    "cross": 'stroke="{ink}" stroke-width="2.4" stroke-linecap="round"',
    "axis": 'stroke="{ink}" stroke-width="2"',
    "jump": 'fill="none" stroke="{role}" stroke-width="2.4" stroke-linecap="round"',
    "bar": 'stroke="{role}" stroke-width="1.6"',
    "leader": 'stroke="{role}" stroke-width="1.2" stroke-dasharray="3 3"',
    "dot": 'fill="{role}" stroke="{paper}" stroke-width="1.4"',
    "block": 'fill="none" stroke="{ink}" stroke-width="2.4"',
    "plate": 'fill="{paper}" stroke="none"',
    "blank": 'fill="{paper}" stroke="{ink}" stroke-width="1.6" stroke-dasharray="6 5"',
}


# What a kind of picture is called where it stands alone.
_TITLES = {
    "bars": "Strips", "circles": "Circles", "grid": "Squares cut both ways", "number-line": "A number line",
    "part-whole": "A total and its parts", "place-value": "Counters in columns", "bar-model": "A bar model",
    "strip": "A strip to cut out", "circle": "A circle to cut out",
}  # fmt: skip


def svg(figure: Figure, state: Literal["before", "after", "both"] = "after", voice: Voice = OWN) -> str:
    """*figure* as an SVG document; of an action, one state or "both", under each other.

    *voice* says its words.
    """
    states: list[State] = (
        ["before", "after"] if state == "both" and figure.acts else [state if state != "both" else "after"]
    )
    placed = marks(figure)
    height = len(states) * figure.height + (len(states) - 1) * _HEADING * 2
    body: list[str] = []
    for i, shown in enumerate(states):
        y = i * (figure.height + 2 * _HEADING)
        if i:
            body.append(
                f'<text x="{figure.width // 2}" y="{y - _HEADING + 7}" text-anchor="middle" fill="{INK}">↓</text>'
            )
        inner = "".join(_drawn(placed, shown, voice))
        body.append(f'<g class="state" data-state="{shown}" transform="translate(0 {y})">{inner}</g>')
    used = [role for role in INKS if any(mark.look == "part" and mark.role == role for mark in placed)]
    alt = escape(voice.said(figure.alt))
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{-PAD} {-PAD} {figure.width + 2 * PAD} {height + 2 * PAD}" '
        f'width="{figure.width + 2 * PAD}" height="{height + 2 * PAD}" role="img" font-family="{_FONT}" '
        f'font-size="{TEXT_SIZE}">'
        f"<title>{escape(_TITLES.get(figure.kind, figure.kind))}</title><desc>{alt}</desc>"
        f"<defs>{''.join([_pattern(role) for role in used])}</defs>{''.join(body)}</svg>\n"
    )


def _pattern(role: str) -> str:
    ink = INKS[role]
    return (
        f'<pattern id="hatch-{role}" width="{TILE}" height="{TILE}" patternUnits="userSpaceOnUse">'
        f'<rect width="{TILE}" height="{TILE}" fill="{ink.tint}"/><path d="{ink.hatch}" fill="none" '
        f'stroke="{ink.colour}" '
        f'stroke-width="{ink.width}" stroke-linecap="round"/></pattern>'
    )


def _drawn(placed: list[Mark], state: State, voice: Voice) -> Iterator[str]:
    for mark in placed:
        if mark.when not in ("", state):
            continue
        colour = INKS[mark.role].colour if mark.role else INK
        moved = ""
        if state == "before" and (mark.dx, mark.dy, mark.turn) != ("0", "0", "0"):
            turned = f" rotate({mark.turn} {mark.x} {mark.y})" if mark.turn != "0" else ""
            moved = f' transform="translate({mark.dx} {mark.dy}){turned}"'
        if mark.text:
            anchor = f' text-anchor="{mark.anchor}"' if mark.anchor != "start" else ""
            said = escape(voice.said(mark.text))
            yield f'<text class="label" x="{mark.x}" y="{mark.y}"{anchor} fill="{colour}">{said}</text>'
        elif mark.look == "part":
            yield f'<path class="part" data-role="{mark.role}" d="{mark.d}" fill="url(#hatch-{mark.role})"{moved}/>'
        else:
            look = _LOOKS[mark.look].format(ink=INK, role=colour, paper=PAPER)
            yield f'<path class="{mark.look}" d="{mark.d}" {look}{moved}/>'
