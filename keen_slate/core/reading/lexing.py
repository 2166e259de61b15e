"""Typed text -> tokens: numbers in their written form, signs and operators, brackets, labels.

Numbers are put together here, because spaces matter in them: `2 1/3` is one number with one space in it,
`1/2` has none around its bar, `1 / 2` is a division.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal, NoReturn

from ..errors import ReadError
from ..expressions.text import DecimalMark
from ..expressions.tree import Blank, Dec, Frac, Mixed, Number, OpenFrac, OpenMixed, Whole
from ..limits import MAX_LABEL, TYPED, Limits

TokenKind = Literal["number", "operator", "open", "close", "equals", "label", "over"]

VULGAR: dict[str, tuple[int, int]] = {
    "¼": (1, 4), "½": (1, 2), "¾": (3, 4), "⅐": (1, 7), "⅑": (1, 9), "⅒": (1, 10), "⅓": (1, 3), "⅔": (2, 3),
    "⅕": (1, 5), "⅖": (2, 5), "⅗": (3, 5), "⅘": (4, 5), "⅙": (1, 6), "⅚": (5, 6), "⅛": (1, 8), "⅜": (3, 8),
    "⅝": (5, 8), "⅞": (7, 8), "↉": (0, 3),
}  # fmt: skip
SPACES = " \t\u00a0\u2009\u202f"
OPERATORS = {"+": "+", "-": "-", "\u2212": "-", "×": "×", "*": "×", "÷": "÷", ":": "÷", "^": "^"}
LETTER = r"[^\W\d_¹²³⁰-⁹₀-₉]"
LABEL = re.compile(rf"{LETTER}+(?:['’./]{LETTER}+|\.)*(?: {LETTER}+)*|[%°$€£]")
INTEGER = re.compile(r"[0-9]+")
UNDER_A_BRACKET = re.compile(r"/([0-9]+)(?![0-9/.,_])")
PERIOD = re.compile(r"\[([0-9]*)\]")
DOTS = re.compile(r"\.\.\.|…")
REPEATED = re.compile(r"([0-9]*?)([0-9]+?)\2+")


@dataclass(frozen=True, slots=True)
class Token:
    """A piece of the text from *start* to *end*; *number* is set for numbers, *text* is normalised."""

    kind: TokenKind
    text: str
    start: int
    end: int
    number: Number | None = None


class Lexer:
    """Reads one line of text; *mark* is the decimal mark in use."""

    def __init__(self, text: str, mark: DecimalMark = ".", limits: Limits = TYPED) -> None:
        self.text = text
        self.mark = mark
        self.limits = limits
        self.other_mark = "," if mark == "." else "."
        self.at = 0

    def tokens(self) -> list[Token]:
        """All tokens of the text. Raises `ReadError`."""
        if len(self.text) > (most := self.limits.characters):
            self.fail(
                f"The text has {len(self.text)} characters; {most} are read.",
                f"Split it into problems of at most {most} characters.",
                most,
                len(self.text) - most,
            )
        if not self.text.strip(SPACES):
            self.fail("Nothing is typed yet.", "Type a problem, like 5 1/6 - 2 3/8.", 0, 0)
        return list(self._tokens())

    def fail(self, message: str, hint: str, position: int | None = None, length: int = 1) -> NoReturn:
        """Refuse the text at *position* (the reading place, when None); nothing stands behind its end."""
        start = self.at if position is None else position
        raise ReadError(message, start, min(length, len(self.text) - start), hint)

    def _tokens(self) -> Iterator[Token]:
        while self.at < len(self.text):
            char = self.text[self.at]
            if char in SPACES:
                self.at += 1
            elif char in "0123456789_" or char in VULGAR or self._decimal_begins():
                yield self._number_token()
            elif char == "/":
                yield self._division()
            elif char in SINGLE:
                yield self._single(*SINGLE[char])
            else:
                yield self._label_or_times()

    def _single(self, kind: TokenKind, text: str) -> Token:
        self.at += 1
        return Token(kind, text, self.at - 1, self.at)

    def _peek(self, offset: int = 0) -> str:
        i = self.at + offset
        return self.text[i] if 0 <= i < len(self.text) else ""

    def _decimal_begins(self) -> bool:
        after = self._peek(1)
        return self._peek() == self.mark and after != "" and after in "0123456789["

    # Division and labels -----------------------------------------------------------------------------

    def _division(self) -> Token:
        before, after = self._peek(-1), self._peek(1)
        if before and before in SPACES and after and after in SPACES:
            return self._single("operator", "÷")
        if before == ")" and (below := UNDER_A_BRACKET.match(self.text, self.at)):
            begin, self.at = self.at, below.end()
            if int(below[1]) == 0:
                self.fail(
                    "The denominator is 0: nothing can be cut into 0 parts.",
                    "Write another number under the bar.",
                    begin + 1,
                )
            return Token("over", below[0], begin, self.at, Whole(int(below[1])))
        if before == ")" or after == "(":
            self.fail(
                "A fraction bar stands between two whole numbers, not beside a bracket.",
                "Write ÷, or a slash with a space on both sides, to divide.",
            )
        self.fail(
            "A slash needs a space on both sides to divide, or a whole number on both sides for a fraction.",
            "Write 1/2 for one half, 1 / 2 for one divided by two.",
        )

    def _label_or_times(self) -> Token:
        start = self.at
        match = LABEL.match(self.text, start)
        if self._peek() == "x" and not (match and len(match.group()) > 1 and match.group()[1] != " "):
            return self._single("operator", "×")
        if match is None:
            self._unknown_character()
        if match.end() - start > MAX_LABEL:
            self.fail(
                f"A label may have {MAX_LABEL} characters; this one has {match.end() - start}.",
                "Use a short label, like ft or %.",
                start,
                match.end() - start,
            )
        label = match.group()
        words = label.split(" ")
        if "x" in words:  # "ft x 3": the label ends before a lone x
            label = " ".join(words[: words.index("x")])
        self.at = start + len(label)
        return Token("label", label, start, self.at)

    def _unknown_character(self) -> NoReturn:
        char = self._peek()
        if char == self.mark:
            self.fail(
                f"“{char}” is the decimal mark, and no digit follows it.",
                f"Write 5 or 5{char}0.",
            )
        if char == self.other_mark:
            self.fail(
                f"“{char}” is not read inside numbers: the decimal mark here is “{self.mark}”.",
                f"Write 3{self.mark}5, and 1000 without a mark.",
            )
        if char == "&":
            self.fail("“&” is not read.", "Write a mixed number with one space: 2 1/3.")
        if char.isnumeric():
            self.fail(
                f"“{char}” is not a digit from 0 to 9.", "Type the number with the digits 0 to 9, a power with ^."
            )
        if char in "[]":
            self.fail("A square bracket only marks a recurring decimal.", "Write 0.1[6], or use round brackets.")
        if char in "\r\n":
            self.fail("The problem goes over more than one line.", "Type one problem on one line.")
        self.fail(
            f"“{char}” is not read here."
            if char.isprintable()
            else "A character that cannot be seen is not read here.",
            "Use numbers, + - × ÷ ^ = and round brackets.",
        )

    # Numbers -----------------------------------------------------------------------------------------

    def _number_token(self) -> Token:
        start = self.at
        number = self._number()
        self._refuse_after_number(start)
        return Token("number", self.text[start : self.at], start, self.at, number)

    def _number(self) -> Number:
        char = self._peek()
        if char in VULGAR:
            self.at += 1
            return Frac(*VULGAR[char])
        if char == "_":
            self.at += 1
            return self._fraction_from(None, self.at - 1) if self._bar_follows() else Blank()
        if char == self.mark:
            return self._decimal(0)
        start = self.at
        whole = self._integer(self.limits.whole, "A whole part or a numerator")
        if self._peek() == self.mark:
            return self._decimal(whole)
        if self._bar_follows():
            return self._fraction_from(whole, start)
        return self._mixed_from(whole)

    def _integer(self, limit: int, name: str) -> int:
        match = INTEGER.match(self.text, self.at)
        assert match is not None, "called at a digit only"
        if (n := int(match.group())) > limit:
            self.fail(
                f"{name} may go up to {limit:,}; this one is larger.",
                "Use a smaller number.",
                match.start(),
                match.end() - match.start(),
            )
        self.at = match.end()
        return n

    def _bar_follows(self) -> bool:
        """Whether a fraction bar stands against the number just read (a spaced slash divides)."""
        if self._peek() != "/":
            return False
        after = self._peek(1)
        if after and (after in "0123456789_"):
            return True
        self._refuse_after_bar(after)

    def _refuse_after_bar(self, after: str) -> NoReturn:
        if after == "":
            self.fail("A number is missing after the fraction bar.", "Write the denominator, like 3/4.", len(self.text))
        if after in SPACES:
            self.fail(
                "A slash has a space on one side only.",
                "Write 1/2 for one half, 1 / 2 for one divided by two.",
            )
        if after in "+-\u2212":
            self.fail(
                "A sign stands under the fraction bar.",
                "Put the sign before the fraction: -1/2.",
                self.at + 1,
            )
        if after == "(":
            self.fail(
                "A fraction bar stands between two whole numbers, not beside a bracket.",
                "Write ÷, or a slash with a space on both sides, to divide.",
            )
        self.fail(
            "A fraction bar stands between two whole numbers.", "Write a whole number under the bar.", self.at + 1
        )

    def _fraction_from(self, num: int | None, start: int) -> Frac | OpenFrac:
        self.at += 1  # the bar
        den: int | None = None
        if self._peek() == "_":
            self.at += 1
        else:
            place = self.at
            den = self._integer(self.limits.denominator, "A denominator")
            if den == 0:
                self.fail(
                    "The denominator is 0: nothing can be cut into 0 parts.",
                    "Write a denominator of 1 or more.",
                    place,
                    self.at - place,
                )
        if num is None and den is None:
            self.fail(
                "Both the numerator and the denominator are blank.",
                "Write _ alone for a missing number, or leave one of the two blank.",
                start,
                self.at - start,
            )
        self._refuse_after_fraction()
        return OpenFrac(num, den) if num is None or den is None else Frac(num, den)

    def _refuse_after_fraction(self) -> None:
        if self._peek() == "/":
            self.fail(
                "Two fraction bars in one number can be read two ways.",
                "Write 1/2 ÷ 3, or 1 ÷ 2/3.",
            )
        if self._peek() == self.mark:
            self.fail(
                "A decimal stands under the fraction bar.",
                "A fraction bar stands between two whole numbers; write ÷ to divide.",
            )

    def _mixed_from(self, whole: int) -> Number:
        """A whole number, or a mixed number when a fraction stands against it or one space away."""
        if self._peek() in VULGAR and self._peek():
            num, den = VULGAR[self._peek()]
            self.at += 1
            return Mixed(whole, num, den)
        after_space = self._peek(1)
        if not (self._peek() and self._peek() in SPACES and after_space):
            return Whole(whole)
        if after_space in VULGAR:
            self.at += 1
            return self._mixed_from(whole)
        fraction = re.compile(r"(?:[0-9]+|_)/(?=[0-9_])").match(self.text, self.at + 1)
        if fraction is None:
            return Whole(whole)
        self.at += 1
        start = self.at
        num_part = None if after_space == "_" else self._integer(self.limits.whole, "A whole part or a numerator")
        self.at += after_space == "_"
        part = self._fraction_from(num_part, start)
        if part.den is None:
            self.fail(
                "The denominator of a mixed number is blank.",
                "Leave a numerator blank (2 _/3), or write _ for the whole number.",
                start,
                self.at - start,
            )
        return OpenMixed(whole, part.den) if part.num is None else Mixed(whole, part.num, part.den)

    def _repeated(self, places: str, mark_at: int) -> tuple[str, str]:
        """The places of 0.8333..., and those among them that go on for ever: the shortest that stand at least twice at
        the end.
        """
        found = REPEATED.fullmatch(places)
        if found is None:
            self.fail(
                "The digits before the dots do not repeat.",
                "Write them twice, like 0.833..., or in square brackets: 0.8[3].",
                mark_at + 1,
                len(places),
            )
        return found[1], found[2]

    def _decimal(self, whole: int) -> Dec:
        mark_at = self.at
        self.at += 1
        places_match = INTEGER.match(self.text, self.at)
        places = places_match.group() if places_match else ""
        self.at += len(places)
        period_match = PERIOD.match(self.text, self.at)
        period = period_match.group(1) if period_match else ""
        if period_match:
            self.at = period_match.end()
        if period_match and not period:
            self.fail(
                "The square brackets hold no digit.",
                "Write the recurring digits in them, like 0.1[6].",
                period_match.start(),
                2,
            )
        if places and not period_match and (dots := DOTS.match(self.text, self.at)):
            places, period = self._repeated(places, mark_at)
            self.at = dots.end()
        if not places and not period:
            self.fail(
                "The decimal mark has no digit after it.",
                f"Write {whole} or {whole}{self.mark}0.",
                mark_at,
            )
        if len(places + period) > self.limits.places:
            self.fail(
                f"A decimal may have {self.limits.places} places; this one has {len(places + period)}.",
                f"Round it to {self.limits.places} places.",
                mark_at + 1,
                self.at - mark_at - 1,
            )
        if self._peek() == "/":
            self._refuse_decimal_over()
        return Dec(whole, places, period)

    def _refuse_decimal_over(self) -> NoReturn:
        self.fail(
            "A decimal stands over a fraction bar.",
            "A fraction bar stands between two whole numbers; write 1.5 ÷ 2 to divide.",
        )

    def _refuse_after_number(self, start: int) -> None:
        """Refuse what may not stand against a number: `2_1/3`, `2&1/3`, `1.2.3`, `1,000`."""
        char = self._peek()
        if char == "" or char in SPACES:
            return
        written = self.text[start : self.at]
        if char in "_&" or (written.endswith("_") and char in "0123456789"):
            self.fail(
                f"“{char if char in '_&' else '_'}” does not join a whole number and a fraction here.",
                "Write a mixed number with one space: 2 1/3.",
                self.at if char in "_&" else self.at - 1,
            )
        if char == "/":
            self.fail(
                "A fraction bar stands between two whole numbers.",
                "Write ÷, or a slash with a space on both sides, to divide.",
            )
        if char in "0123456789" or char in VULGAR:
            self.fail(
                "Two numbers stand side by side.",
                "Put + - × or ÷ between them, or write a mixed number with one space: 2 1/3.",
            )
        if char == self.mark:
            if self._peek(1) and self._peek(1) in "0123456789":
                self.fail("A number has two decimal marks.", "Keep one of them.")
            self._unknown_character()
        if char == self.other_mark:
            self._unknown_character()


SINGLE: dict[str, tuple[TokenKind, str]] = {
    **{char: ("operator", text) for char, text in OPERATORS.items()},
    "(": ("open", "("),
    ")": ("close", ")"),
    "=": ("equals", "="),
}
