"""How a class says and writes what the core does: its word for each term, its decimal mark, chosen when a sentence is
made.

A sentence of the core names its terms between angle brackets, as in "Cut one <whole> into pieces."; a `Voice` puts the
class's words there, and prints the mathematics of the sentence with the class's decimal mark. What a person wrote is
never a part of such a sentence, so it is never changed; the brackets themselves cannot be typed into a problem or a
label.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field

from .sentences import Rich, Scaled, Sketch
from .spoken import words
from .text import DecimalMark, text
from .tree import Expr
from .typeset import Glyph, Roles, glyphs

_TERM = re.compile(r"<([^<>]+)>")
# A decimal mark within a sentence or a label of a picture is a term as well.
MARK = "<.>"

TERMS: dict[str, str] = {
    term: term
    for term in (
        "regroup", "regrouped", "regrouping", "lowest terms", "least common denominator", "mixed number",
        "mixed numbers",
        "one whole", "whole", "wholes", "numerator", "numerators", "denominator", "denominators", "fourth", "fourths",
        ".",
    )
}  # fmt: skip


def in_sentence(number: Expr) -> str:
    """*number* as a part of a sentence or a label: its decimal mark is chosen when that is said."""
    return text(number).replace(".", MARK)


@dataclass(frozen=True, slots=True)
class Voice:
    """The class's word for each term (by the core's own), and its decimal mark."""

    terms: Mapping[str, str] = field(default_factory=lambda: TERMS)
    mark: DecimalMark = "."

    def said(self, sentence: str) -> str:
        """A sentence of the core in the class's words. Raises KeyError for a term that does not exist: a fault in the
        core.

        >>> Voice(TERMS | {"wholes": "ones"}).said("<Wholes> stay <wholes>.")
        'Ones stay ones.'
        """
        return _TERM.sub(self._word, sentence) if "<" in sentence else sentence

    def _word(self, found: re.Match[str]) -> str:
        term = found.group(1)
        if term in self.terms:
            return self.terms[term]
        word = self.terms[term[0].lower() + term[1:]]
        return word[0].upper() + word[1:]

    def text(self, expr: Expr) -> str:
        """*expr* in the input notation, with the class's decimal mark."""
        written = text(expr)
        return written if self.mark == "." else written.replace(".", self.mark)

    def words(self, expr: Expr) -> str:
        """*expr* as it is read aloud."""
        return self.said(words(expr))

    def glyphs(self, expr: Expr, roles: Roles = ()) -> list[Glyph]:
        """*expr* as pieces to be set in a line; *roles* colours its numbers from left to right."""
        return glyphs(expr, roles, self.mark)

    def plain(self, rich: Rich) -> str:
        """A sentence as text.

        >>> from .tree import Dec
        >>> Voice(mark=",").plain(("Now ", Dec(0, "5"), " is left."))
        'Now 0,5 is left.'
        """
        return "".join([self._plain(part) for part in rich])

    def _plain(self, part: str | Expr | Scaled | Sketch) -> str:
        if isinstance(part, str):
            return self.said(part)
        return str(part) if isinstance(part, (Scaled, Sketch)) else self.text(part)

    def spoken(self, rich: Rich) -> str:
        """A sentence with its mathematics in words."""
        return self.said(
            "".join(
                [
                    part if isinstance(part, str) else str(part) if isinstance(part, (Scaled, Sketch)) else words(part)
                    for part in rich
                ]
            )
        )

    def typeset(self, rich: Rich) -> list[Glyph]:
        """A sentence as pieces to be set in a line."""
        done: list[Glyph] = []
        for part in rich:
            if isinstance(part, str):
                done.append(Glyph("words", self.said(part)))
            elif isinstance(part, Scaled):
                done.append(part.glyph())
            elif isinstance(part, Sketch):
                done.append(Glyph("words", part.said))
            else:
                done += glyphs(part, (), self.mark)
        return done


OWN = Voice()  # the core's own words
