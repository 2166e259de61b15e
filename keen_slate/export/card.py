"""The questions that a class asks, as cards to cut out: four on a page, two where there are many questions."""

from __future__ import annotations

from collections.abc import Sequence
from html import escape

Fonts = dict[int, str]
_FEW = 8  # as many questions fit on a quarter of a page

_STYLE = """
@page { size: a4; margin: 0; }
* { box-sizing: border-box; }
body { font: 12.5pt/1.3 Andika, sans-serif; color: #14191d; margin: 0; }
.page { display: table; table-layout: fixed; width: 210mm; }
.pair { display: table-row; }
.card { display: table-cell; vertical-align: top; padding: 9mm 8mm 6mm; border: 0.6pt dashed #8496a0; }
.four .card { height: 148mm; }
.two .card { height: 296mm; }
h2 { font-size: 15pt; margin: 0 0 2mm; }
.problem { margin: 0 0 3mm; border-bottom: 0.8pt solid; height: 9mm; font-size: 10pt; }
ol { margin: 0; padding: 0; list-style: none; }
li { padding: 0 0 3mm; }
.nr { font-weight: 700; }
.ticks { display: block; padding: 0.5mm 0 0 5mm; }
.tick { display: inline-block; width: 4mm; height: 4mm; border: 1pt solid; vertical-align: -0.6mm; margin-right: 1.5mm; }
.no { margin-left: 8mm; }
"""


def cards(title: str, questions: Sequence[tuple[str, bool]], fonts: Fonts) -> str:
    """A page of cards as an HTML document.

    *questions* are what is asked, and whether it is answered yes or no (else it is only ticked); *fonts* are the addresses of the
    typeface by weight.
    """
    faces = "".join(
        f'@font-face {{ font-family: Andika; font-weight: {weight}; src: url("{address}"); }}'
        for weight, address in fonts.items()
    )
    card = _card(title, questions)
    pairs = 2 if len(questions) <= _FEW else 1
    pair = f'<div class="pair">{card}{card}</div>'
    inner = f'<div class="page {"four" if pairs == 2 else "two"}">{pair * pairs}</div>'
    return (
        f'<!doctype html><html lang="en"><head><meta charset="utf-8"><title>{escape(title)}</title>'
        f"<style>{faces}{_STYLE}</style></head><body>{inner}</body></html>"
    )


def _card(title: str, questions: Sequence[tuple[str, bool]]) -> str:
    listed = "".join([_question(i + 1, asks, answered) for i, (asks, answered) in enumerate(questions)])
    return f'<div class="card"><h2>{escape(title)}</h2><p class="problem">The problem:</p><ol>{listed}</ol></div>'


def _question(number: int, asks: str, answered: bool) -> str:
    box = '<span class="tick"></span>'
    ticks = f"{box}yes {box.replace('tick', 'tick no', 1)}no" if answered else f"{box}done"
    return f'<li><span class="nr">{number}</span> {escape(asks)}<span class="ticks">{ticks}</span></li>'
