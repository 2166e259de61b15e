"""Typed text -> a problem: the expression, its label and its kind.

Grammar, after `lexing` has put the numbers together::

    equation = sum ("=" sum)*
    sum      = product (("+" | "-") product)*
    product  = factor (("×" | "÷") factor | bracket or number against a bracket)*
    factor   = sign? power
    power    = (number | "(" sum ")") ("^" exponent)?
"""

from __future__ import annotations

import re
from typing import NoReturn

from ..errors import LimitError, ReadError
from ..expressions.text import DecimalMark
from ..expressions.text import text as write
from ..expressions.tree import (
    Blank,
    Bracket,
    Equation,
    Expr,
    Frac,
    Mixed,
    Neg,
    OpenFrac,
    OpenMixed,
    Operator,
    OverBar,
    Power,
    Product,
    Sum,
    Whole,
    value,
)
from ..expressions.walks import children, has_blank
from ..limits import MAX_BRACKETS, MAX_DIGITS, MAX_EXPONENT, MAX_TERMS, TOO_LARGE, TYPED, Limits
from .kinds import kind_of
from .lexing import Lexer, Token
from .problem import CURRENCY, Problem


def read(text: str, mark: DecimalMark = ".", limits: Limits = TYPED) -> Problem:
    """The problem that *text* spells, read with the decimal *mark*; `lexing.PRINTED` limits read a working's lines.

    Raises `ReadError` where the text cannot be read, `LimitError` where a number grows past the limits.

    >>> read("2⅓ - 3/4").text
    '2 1/3 - 3/4'
    >>> read("7 1/4 - 3 5/6 ft").label
    'ft'
    >>> read("1/0")
    Traceback (most recent call last):
    keen_slate.core.errors.ReadError: The denominator is 0: nothing can be cut into 0 parts.
    """
    return _Parser(text, Lexer(text, mark, limits).tokens()).problem()


def read_equation(text: str, mark: DecimalMark = ".", limits: Limits = TYPED) -> Expr:
    """What *text* spells, where an equation may have no blank too: an answer, not a problem. Raises as `read` does.

    >>> write(read_equation("1/4 - 1/6 = 1/12"))
    '1/4 - 1/6 = 1/12'
    """
    return _Parser(text, Lexer(text, mark, limits).tokens()).whole()


# Words after a number that ask for another form of it, and are no label.
_WISH = re.compile(r"(?:to|as|into) \S", re.IGNORECASE)


class _Parser:
    def __init__(self, text: str, tokens: list[Token]) -> None:
        self.text = text
        self.tokens = tokens
        self.i = 0
        self.numbers = 0
        self.open = 0  # brackets at this place
        self.labels: list[Token] = []
        self.labelled_numbers = 0

    # Places in the text --------------------------------------------------------------------------------

    def token(self, offset: int = 0) -> Token | None:
        i = self.i + offset
        return self.tokens[i] if 0 <= i < len(self.tokens) else None

    def at(self, kind: str, texts: str = "") -> bool:
        token = self.token()
        return token is not None and token.kind == kind and (not texts or token.text in texts)

    def fail(self, message: str, hint: str, token: Token | None) -> NoReturn:
        if token is None:
            raise ReadError(message, len(self.text), 0, hint)
        raise ReadError(message, token.start, token.end - token.start, hint)

    def span(self, first: int) -> tuple[int, int]:
        """Position and length of the tokens from index *first* to the last one read."""
        start = self.tokens[first].start
        return start, self.tokens[self.i - 1].end - start

    # Rules -----------------------------------------------------------------------------------------------

    def whole(self) -> Expr:
        expr = self.equation()
        if (left_over := self.token()) is not None:
            self.refuse_left_over(left_over)
        return expr

    def problem(self) -> Problem:
        expr = self.whole()
        label = self.one_label()
        self.check_limits(expr)
        kind, complaint = kind_of(expr)
        if complaint is not None:
            raise ReadError(complaint.message, 0, len(self.text), complaint.hint)
        if label is not None and kind == "simplify" and _WISH.match(label):
            self.fail(
                f"“{label}” is not a label.",
                "The form is chosen beside the number: “Asked for”, or --to.",
                self.labels[0],
            )
        return Problem(expr, label, kind)

    def refuse_left_over(self, token: Token) -> NoReturn:
        if token.kind == "close":
            self.fail("A closing bracket has no opening bracket.", "Take it away, or open a bracket before it.", token)
        if token.kind == "label":
            self.fail(
                f"“{token.text}” is not read here.", "A label stands once at the end, or after every number.", token
            )
        self.fail(
            "Two numbers stand side by side.",
            "Put + - × or ÷ between them, or write a mixed number with one space: 2 1/3.",
            token,
        )

    def equation(self) -> Expr:
        sides = [self.sum()]
        while self.at("equals"):
            self.i += 1
            sides.append(self.sum())
        return sides[0] if len(sides) == 1 else Equation(tuple(sides))

    def sum(self) -> Expr:
        first = self.product(leading=True)
        rest: list[tuple[Operator, Expr]] = []
        while self.at("operator", "+-"):
            operator: Operator = "+" if self.tokens[self.i].text == "+" else "-"
            self.i += 1
            rest.append((operator, self.product(leading=False)))
        return Sum(first, tuple(rest)) if rest else first

    def product(self, leading: bool) -> Expr:
        first = self.factor(leading)
        rest: list[tuple[Operator, Expr]] = []
        while True:
            begin = self.i
            if self.at("operator", "×÷"):
                operator: Operator = "×" if self.tokens[self.i].text == "×" else "÷"
                self.i += 1
                factor = self.factor(leading=False)
                if operator == "÷":
                    self.refuse_zero_divisor(factor, begin + 1)
            elif self.bracket_against():
                operator, factor = "×", self.factor(leading=False)
                if rest and rest[-1][0] == "÷":
                    self.refuse_two_readings(first, rest, factor, begin)
            else:
                return Product(first, tuple(rest)) if rest else first
            rest.append((operator, factor))

    def bracket_against(self) -> bool:
        """Whether the next token multiplies without a sign: a bracket, or a number after a bracket."""
        before = self.token(-1)
        if before is not None and before.kind == "label":
            before = self.token(-2)
        return self.at("open") or (self.at("number") and before is not None and before.kind == "close")

    def factor(self, leading: bool) -> Expr:
        sign = self.token()
        if sign is None or sign.kind != "operator" or sign.text not in "+-":
            return self.power()
        following = self.token(1)
        if following is None:
            self.fail("A number is missing after the sign.", "Type a number after it.", None)
        apart = following.start > sign.end
        if following.kind == "operator" or (not leading and apart):
            self.fail(
                "Two signs stand in a row.",
                "Keep one of them; a sign of a number stands against it, like 7 - -2.",
                following if following.kind == "operator" else sign,
            )
        self.i += 1
        inner = self.power()
        return Neg(inner) if sign.text == "-" else inner

    def power(self) -> Expr:
        begin = self.i
        base = self.primary()
        if not self.at("operator", "^"):
            return base
        self.i += 1
        exponent = self.exponent()
        self.refuse_unclear_power(base, exponent, begin)
        power = Power(base, exponent)
        self.check_power(power, begin)
        return power

    def exponent(self) -> int:
        token = self.token()
        self.i += 1
        hint = f"Write a whole number from 0 to {MAX_EXPONENT}, like 3^2."
        if token is None:
            self.fail("The exponent is missing after ^.", hint, None)
        if not isinstance(token.number, Whole) or token.number.n > MAX_EXPONENT:
            self.fail(f"The exponent is a whole number from 0 to {MAX_EXPONENT}.", hint, token)
        return token.number.n

    def refuse_unclear_power(self, base: Expr, exponent: int, begin: int) -> None:
        if self.at("operator", "^"):
            self.fail(
                "A power of a power can be read two ways.",
                f"Write ({write(base)}^{exponent})^… , or work the exponent out first.",
                self.token(),
            )
        if isinstance(base, (Frac, Mixed, OpenFrac, OpenMixed)):
            written = write(base)
            other = f"{written.split()[-1].replace('/', ' ÷ ')}^{exponent}"
            if isinstance(base, (Mixed, OpenMixed)):
                other = f"{base.whole} + {other}"
            position, length = self.span(begin)
            raise ReadError(
                f"{written}^{exponent} can be read two ways.",
                position,
                length,
                f"Write ({written})^{exponent} or {other}.",
            )

    def check_power(self, power: Power, begin: int) -> None:
        if has_blank(power):
            return
        position, length = self.span(begin)
        base = value(power.base)
        if base == 0 and power.exponent == 0:
            raise ReadError("0^0 has no agreed value.", position, length, "Use another exponent or another base.")
        result = base**power.exponent
        if max(abs(result.numerator), result.denominator) >= TOO_LARGE:
            raise LimitError(
                f"{write(power)} has more than {MAX_DIGITS} digits.", position, length, "Use a smaller power."
            )

    def primary(self) -> Expr:
        self.currency_before()
        token = self.token()
        if token is None:
            self.fail("The problem stops before its last number.", "Type a number or a bracket.", None)
        self.i += 1
        if token.kind == "open":
            inner = self.bracket(token)
            if self.at("over"):
                inner = self.over_bar(inner)
            self.label_after()
            return inner
        if token.number is None:
            self.refuse_operand(token)
        self.numbers += 1
        if self.numbers > MAX_TERMS:
            self.fail(f"A problem may have {MAX_TERMS} numbers; this is one too many.", "Split the problem.", token)
        if isinstance(token.number, Blank):
            self.labelled_numbers += 1  # a blank needs no label of its own
            if self.label_after():
                self.labelled_numbers -= 1
        else:
            self.label_after()
        return token.number

    def bracket(self, opening: Token) -> Expr:
        if self.at("close"):
            self.fail("The brackets hold nothing.", "Put a number between them, or take them away.", self.token())
        self.open += 1
        if self.open > MAX_BRACKETS:
            self.fail(f"Brackets may stand {MAX_BRACKETS} deep; this is one too many.", "Take brackets away.", opening)
        inner = self.sum()
        self.open -= 1
        if not self.at("close"):
            if self.token() is None:
                self.fail("A bracket is open and never closed.", "Type ) where the bracket ends.", opening)
            self.refuse_in_bracket()
        self.i += 1
        return Bracket(inner)

    def over_bar(self, above: Expr) -> Expr:
        """A sum of whole numbers in brackets over one denominator; what else stands over a bar is refused."""
        token = self.tokens[self.i]
        top = above.inner if isinstance(above, Bracket) else above
        if not isinstance(top, Sum) or not all(isinstance(term, Whole) for term in children(top)):
            self.fail(
                "Over a bar stands a sum of whole numbers, like (5 + 8)/20.",
                "Write ÷, or a slash with a space on both sides, to divide.",
                token,
            )
        assert isinstance(token.number, Whole), "the lexer has read a number below"
        self.i += 1
        return OverBar(top, token.number.n)

    def refuse_in_bracket(self) -> NoReturn:
        token = self.token()
        if token is not None and token.kind == "equals":
            self.fail("An equals sign stands inside a bracket.", "Close the bracket before it.", token)
        assert token is not None, "the caller has looked"
        self.refuse_left_over(token)

    def refuse_operand(self, token: Token) -> NoReturn:
        if token.kind == "operator":
            before = self.token(-2)
            if before is not None and before.kind == "operator":
                self.fail("Two operators stand in a row.", "Keep one of them.", token)
            self.fail(f"A number is missing before {token.text}.", "Type a number or a bracket before it.", token)
        if token.kind == "close":
            self.fail("A number is missing before the closing bracket.", "Type a number before it.", token)
        if token.kind == "equals":
            self.fail(
                "A number is missing before the equals sign.", "Type a number, or _ for what is to be found.", token
            )
        self.fail(f"“{token.text}” is not a number.", "A label stands once at the end, or after every number.", token)

    # Things that are read but not allowed ------------------------------------------------------------------

    def refuse_zero_divisor(self, factor: Expr, begin: int) -> None:
        if not has_blank(factor) and value(factor) == 0:
            position, length = self.span(begin)
            raise ReadError(
                "This divides by 0, which has no answer.", position, length, "Divide by a number other than 0."
            )

    def refuse_two_readings(self, first: Expr, rest: list[tuple[Operator, Expr]], factor: Expr, begin: int) -> NoReturn:
        divisor = write(rest[-1][1])
        before = write(Product(first, tuple(rest[:-1])) if len(rest) > 1 else first)
        bare = factor.inner if isinstance(factor, Bracket) else factor
        last = write(bare if isinstance(bare, (Whole, Frac, Mixed)) else factor)
        position, length = self.span(begin)
        raise ReadError(
            f"{before} ÷ {divisor}({write(bare)}) can be read two ways.",
            position,
            length,
            f"Write {before} ÷ ({divisor} × {last}) or {before} ÷ {divisor} × {last}.",
        )

    def check_limits(self, expr: Expr) -> None:
        if has_blank(expr) or isinstance(expr, Equation):
            return
        result = value(expr)
        if max(abs(result.numerator), result.denominator) >= TOO_LARGE:
            raise LimitError(
                f"The answer has more than {MAX_DIGITS} digits above or below the bar.",
                0,
                len(self.text),
                "Use smaller numbers or smaller denominators.",
            )

    # Labels --------------------------------------------------------------------------------------------------

    def currency_before(self) -> None:
        if self.at("label") and self.tokens[self.i].text in CURRENCY:
            self.labels.append(self.tokens[self.i])
            self.labelled_numbers += 1
            self.i += 1

    def label_after(self) -> bool:
        if not self.at("label"):
            return False
        before = self.token(-2)
        if before is not None and before.kind == "label" and before in self.labels:
            self.refuse_left_over(self.tokens[self.i])
        self.labels.append(self.tokens[self.i])
        self.labelled_numbers += 1
        self.i += 1
        return True

    def one_label(self) -> str | None:
        """The label of the whole problem: typed once at the end, or with every number."""
        if not self.labels:
            return None
        first = self.labels[0]
        for other in self.labels[1:]:
            if other.text != first.text:
                self.fail(
                    f"Two labels are used: {first.text} and {other.text}.",
                    "Use one label for the whole problem.",
                    other,
                )
        once_at_end = len(self.labels) == 1 and first is self.tokens[-1]
        if not once_at_end and self.labelled_numbers < self.numbers:
            self.fail(
                f"Some numbers have the label {first.text} and some have none.",
                "Put the label once at the end, or after every number.",
                first,
            )
        return first.text
