"""The quantities of a text: numbers in every written form, in digits and in words, with the unit or noun after them.

`2 5/8 m`, `2⅝ m`, `$4.75`, `three quarters of a metre`, `two and a half hours`, `half a dozen planks`, `3 ft 7 in`,
`12-foot boards`.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, replace
from fractions import Fraction

from ..errors import CoreError
from ..expressions.terms import parts
from ..expressions.text import DecimalMark
from ..expressions.tree import Dec, Expr, Frac, Mixed, Neg, Whole, make, mixed, value
from ..reading.measures import Unit, ratio_of, unit_named
from ..reading.problem import CURRENCY
from ..reading.reader import read
from .words import words_of

_ONES = (
    "zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen "
    "eighteen nineteen"
)
_TENS = "twenty thirty forty fifty sixty seventy eighty ninety"
CARDINALS = {word: i for i, word in enumerate(_ONES.split())} | {w: 20 + 10 * i for i, w in enumerate(_TENS.split())}
_PARTS = {
    "half": 2, "halves": 2, "third": 3, "quarter": 4, "fourth": 4, "fifth": 5, "sixth": 6, "seventh": 7, "eighth": 8,
    "ninth": 9, "tenth": 10, "eleventh": 11, "twelfth": 12, "sixteenth": 16, "twentieth": 20, "hundredth": 100,
}  # fmt: skip
PARTS = _PARTS | {f"{word}s": d for word, d in _PARTS.items() if not word.startswith("hal")}
DOZENS = {"dozen": 12, "score": 20}
VULGAR = "¼½¾⅐⅑⅒⅓⅔⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞"
# A digit after the mark belongs to a decimal; what follows a number at once ("3rd", "A4") is a name, not a quantity.
_DIGITS = re.compile(
    rf"(?P<below>(?<![\w)])[-−](?=\d))?(?P<money>[{re.escape(CURRENCY)}] ?)?(?<![\w.,:])(?P<number>\d+ "
    rf"?[{VULGAR}]|[{VULGAR}]|\d+[ -]\d+/\d+|\d+/\d+|\d+[.,]\d+(?:\[\d+\])?|\d+)"
    rf"(?![\d/{VULGAR}])(?!(?:st|nd|rd|th)\b| o['’]clock|:\d)"
)
_NOON = r"(?: ?(?P<half>[ap]\.? ?m\b\.?)| in the (?P<day>morning|afternoon|evening)| at (?P<night>night))?"
_CLOCK = re.compile(rf"(?<![\w.,:])(?P<hour>[01]?\d|2[0-4]):(?P<minute>[0-5]\d)(?![\d:]){_NOON}")
_OCLOCK = re.compile(rf"(?<![\w.,:])(?P<hour>\d{{1,2}}|[a-z]+) o['’]clock{_NOON}", re.I)
_PAST = re.compile(r"(?<![\w.,:])(?P<part>half|a quarter|quarter) (?P<way>past|to) (?P<hour>[a-z]+|\d{1,2})\b", re.I)
_LETTER = rf"[^\W\d_{VULGAR}]"
_WORD = re.compile(rf"{_LETTER}+(?:['’]{_LETTER}+)*")
_NOT_NOUNS = words_of(
    "a an the is are was were be been being am has have had do does did will would can could and or but of off in on "
    "at to for from by "
    "with into onto out up down over under away back left more less fewer longer shorter taller higher lower heavier "
    "lighter wider deeper "
    "than that this these those it its he she they them his her their him we us our you your i how what which who when "
    "where why each every "
    "all both per apart already still now then so if as not no long wide high tall deep thick heavy far old after "
    "before during until times "
    "equal same other another one altogether together remain remains apiece again too also only just later earlier "
    "farther further bigger "
    "smaller larger faster slower"
)
_INCHES_BEFORE = words_of(
    "were was is are remain remained long wide tall high thick deep of and more less longer shorter taller higher "
    "wider off from than"
)
_UNIT = re.compile(
    r"[ -]?(° ?[CF]\b|degrees? (?:Celsius|Fahrenheit)|square [^\W\d_]+|sq (?:ft|yd)|fl oz|fluid ounces?|pounds? "
    r"sterling|[^\W\d_]+²?|¢)"
)
_AFTER_PART = re.compile(r" (?:of )?(?:an?|one) ")
_AND = re.compile(r"(?: and|,)? ")
# A number after one of these is a name: "page 38", "class 5b".
_NAMED = re.compile(
    r"\b(?:page|pages|room|class|grade|year|platform|number|bus|tram|chapter|house|lane|gate|pier|door|"
    r"exercise|no\.) $",
    re.I,
)
_BETWEEN = re.compile(r" (?:more|further|other|additional|extra)(?= )")
_BELOW = re.compile(r" below (?:zero|freezing)\b")


@dataclass(frozen=True, slots=True)
class Quantity:
    """A number of the text with its *label*, from character *start* to *end*; *unit* where the label is one that is
    known.

    *text* is how it is told. Where the text has a number in front of two units ("3 ft 7 in") it is one quantity of the
    larger. A time of the *clock* is hours after midnight; *more* that the text says so between number and unit ("6 more
    kilograms").
    """

    text: str
    number: Expr
    label: str | None
    unit: Unit | None
    start: int
    end: int
    number_end: int
    clock: bool = False
    more: bool = False

    @property
    def is_count(self) -> bool:
        """Whether it says how many things there are: a whole number of no measure."""
        return isinstance(self.number, Whole) and self.unit is None

    @property
    def size(self) -> Fraction:
        """How much it is, in the first unit of its measure."""
        return value(self.number) * (self.unit.size if self.unit else 1)


def quantities_in(text: str, mark: DecimalMark = ".") -> list[Quantity]:
    """The quantities of *text* from left to right. Raises `CoreError` where a number is past the limits.

    >>> [(q.text, q.label) for q in quantities_in("Alder has two and a half metres of rope and 3 ft 7 in of wire.")]
    [('two and a half metres', 'metres'), ('3 ft 7 in', 'ft')]
    """
    clocks = list(_clocks(text))
    plain = text
    for one in clocks:  # what belongs to a time of the clock is no number of its own
        plain = plain[: one.start] + "·" * (one.end - one.start) + plain[one.end :]
    found = list(_joined([_with_unit(plain, *number) for number in _numbers(plain, mark)], plain))
    return sorted([*_degrees(found, plain), *clocks], key=lambda one: one.start)


def _clocks(text: str) -> Iterator[Quantity]:
    """The times of the clock; one without its half of the day that is before the one told first is of the afternoon."""
    first: Fraction | None = None
    found = [one for pattern in (_CLOCK, _OCLOCK, _PAST) for one in pattern.finditer(text)]
    for one in sorted(found, key=lambda one: one.start()):
        told = one.groupdict()
        hour = CARDINALS.get(told["hour"].lower()) if told["hour"].isalpha() else int(told["hour"])
        if hour is None or hour > 24:
            continue
        part = Fraction(int(told.get("minute") or 0), 60)
        if told.get("part"):
            part = Fraction(1, 2) if told["part"].lower() == "half" else Fraction(1, 4)
        when = hour - part if told.get("way") == "to" else hour + part
        late = (
            (told.get("half") or "").startswith("p") or told.get("day") in ("afternoon", "evening") or told.get("night")
        )
        early = (told.get("half") or "").startswith("a") or told.get("day") == "morning"
        if (late and when < 12) or (
            not late and not early and first is not None and when < first and when + 12 > first
        ):
            when += 12
        elif early and 12 <= when < 13:
            when -= 12
        first = when if first is None else first
        end = one.end()
        yield Quantity(
            text[one.start() : end], mixed(when), "hours", unit_named("hours"), one.start(), end, end, clock=True
        )


def _degrees(found: list[Quantity], text: str) -> list[Quantity]:
    """Quantities, with "degrees" as those of the scale that the text tells, and those below zero below it."""
    scales = {one.unit for one in found if one.unit and one.unit.measure == "temperature"}
    done: list[Quantity] = []
    for one in found:
        if done and one.start < done[-1].end:  # the zero of "below zero"
            continue
        if one.label in ("degrees", "degree") and len(scales) == 1:
            one = replace(one, unit=next(iter(scales)))
        if one.unit and one.unit.measure == "temperature" and (below := _BELOW.match(text, one.end)):
            one = replace(one, number=Neg(one.number), text=text[one.start : below.end()], end=below.end())
        done.append(one)
    return done


def _numbers(text: str, mark: DecimalMark) -> Iterator[tuple[int, int, Expr, str | None]]:
    """Start, end and value of every number in *text*, and the sign of money before it."""
    at, digits = 0, _DIGITS.search(text)
    while at < len(text):
        word = _WORD.search(text, at)
        if digits and digits.start() < at:
            digits = _DIGITS.search(text, at)
        if digits and (word is None or digits.start() < word.start()):
            number = _read(digits, text, mark)
            signed = Neg(number) if digits["below"] else number
            yield digits.start(), digits.end(), signed, (digits["money"] or "").strip() or None
            at = digits.end()
        elif word:
            spelled = _spelled(text, word.start()) if word.group().lower() in _BEGIN else None
            if spelled is not None:
                yield word.start(), spelled[0], spelled[1], None
            at = spelled[0] if spelled else word.end()
        else:
            return


# A number in words begins with one of these.
_BEGIN = frozenset(CARDINALS) | {"a", "an", "one", "half", "another"}


def _read(found: re.Match[str], text: str, mark: DecimalMark) -> Expr:
    """A number in digits. Raises `CoreError` with its place in the whole *text*."""
    written = found["number"].replace("-", " ")
    begin = found.start("number")
    thousands = re.fullmatch(r"(\d{1,3}),(\d{3})", written) if mark == "." else None
    if thousands:
        return Whole(int(thousands[1] + thousands[2]))
    try:
        return read(written, mark).expr
    except CoreError as error:
        raise type(error)(error.message, begin + error.position, error.length, error.hint) from None


def _spelled(text: str, at: int) -> tuple[int, Expr] | None:
    """A number in words that begins at *at*: where it ends, and what it is."""
    words = _Words(text, at)
    whole = words.cardinal()
    if whole is None and words.now in ("a", "one") and words.peek() == "whole":
        words.step()
        words.step()
        return words.end, Whole(1)
    if whole is None and (words.now in ("a", "an", "half") or (words.now == "another" and words.peek() in PARTS)):
        return _part_or_dozen(words, words.now != "half")
    if whole is None:
        return None
    begin = words.end
    if words.now in DOZENS:
        words.step()
        return words.end, Whole(whole * DOZENS[words.last])
    if words.now in PARTS and not (words.now == "second" or (whole == 1 and words.before in ("the", "this"))):
        words.step()
        return words.end, Frac(whole, PARTS[words.last])
    if words.now == "and":
        words.step()
        top = words.cardinal() or (1 if words.now in ("a", "an") and words.step() else None)
        if top is not None and words.now in PARTS:
            words.step()
            return words.end, Mixed(whole, top, PARTS[words.last])
    return None if whole == 1 and not _one_counts(text, begin) else (begin, Whole(whole))


def _part_or_dozen(words: _Words, article: bool) -> tuple[int, Expr] | None:
    """`half`, `a half`, `a quarter`, `a dozen`, `half a dozen`; None for any other article."""
    if words.before in ("the", "first", "second", "other", "this", "that", "each", "upper", "lower", "next", "last"):
        return None
    if article:
        words.step()
    if words.now in DOZENS:
        words.step()
        return words.end, Whole(DOZENS[words.last])
    if words.now not in PARTS or words.now == "second":
        return None
    words.step()
    part, end = words.last, words.end
    if part == "half" and words.now == "a" and words.peek() in DOZENS:
        words.step()
        words.step()
        return words.end, Whole(DOZENS[words.last] // 2)
    if (
        part == "third"
        and article
        and words.now not in ("of", "metre", "meter", "litre", "liter", "is", "are", "was", "were", "chose", "by", "in")
    ):
        return None
    return end, Frac(1, PARTS[part])


class _Words:
    """Words of a text, one after the other, as long as only spaces or hyphens stand between them."""

    def __init__(self, text: str, at: int) -> None:
        self.text, self.end, self.last = text, at, ""
        before = _WORD.findall(text[max(0, at - 30) : at].split(".")[-1])
        self.before = before[-1].lower() if before else ""

    @property
    def now(self) -> str:
        """The next word, in small letters; "" where there is none."""
        found = self._next()
        return found.group().lower() if found else ""

    def _next(self, at: int | None = None) -> re.Match[str] | None:
        at = self.end if at is None else at
        gap = re.compile(r"[ -]?").match(self.text, at)
        return _WORD.match(self.text, gap.end() if gap else at)

    def peek(self) -> str:
        """The word after the next."""
        found = self._next()
        later = self._next(found.end()) if found else None
        return later.group().lower() if later else ""

    def step(self) -> bool:
        """Go over the next word."""
        found = self._next()
        if found:
            self.last, self.end = found.group().lower(), found.end()
        return found is not None

    def cardinal(self) -> int | None:
        """A whole number in words up to 999 999, gone over; None where there is none."""
        total, here = 0, None
        while True:
            word = self.now
            if word in CARDINALS and (
                here is None or (here % 100 == 0 or (here % 10 == 0 and here % 100 >= 20 and CARDINALS[word] < 10))
            ):
                here = (here or 0) + CARDINALS[word]
            elif word == "hundred" and here and here < 100:
                here *= 100
            elif word == "thousand" and here:
                total, here = 1000 * here, 0
            elif word == "and" and here is not None and here % 100 == 0 and here and self.peek() in CARDINALS:
                pass
            else:
                return None if here is None else total + here
            self.step()


def _one_counts(text: str, end: int) -> bool:
    """Whether the word `one` that ends there is a number: a unit or a part of one follows."""
    word = _WORD.match(text, end + 1)
    return word is not None and unit_named(word.group()) is not None


# What is counted -----------------------------------------------------------------------------------------------------


def _with_unit(text: str, start: int, end: int, number: Expr, money: str | None) -> Quantity:
    if money:
        return Quantity(text[start:end], number, money, unit_named(money), start, end, end)
    at = end
    if (
        isinstance(number, Whole)
        and _NAMED.search(text[:start])
        and (_unit_at(text, end)[0] in (None, unit_named("in")))
    ):
        return Quantity(text[start:end], number, None, None, start, end, end)
    if (between := _BETWEEN.match(text, end)) is not None and (found := _unit_at(text, between.end()))[0]:
        unit, stop = found
        return Quantity(
            text[start:stop], number, _written(text[between.end() : stop]), unit, start, stop, between.end(), more=True
        )
    if isinstance(number, (Frac, Mixed)) and (article := _AFTER_PART.match(text, end)):
        at = article.end() - 1
    unit, stop = _unit_at(text, at)
    if unit is not None:
        return Quantity(text[start:stop], number, _written(text[at:stop]), unit, start, stop, end)
    label, stop = _noun_at(text, at, single=at > end)
    if isinstance(number, Frac) and (at == end or label is None):
        # A part of something ("2/3 of the rope", "three quarters full") has no noun of its own; "2/3 of a bucket" has.
        return Quantity(text[start:end], number, None, None, start, end, end)
    return Quantity(text[start:stop], number, label, None, start, stop, end)


def _written(label: str) -> str:
    return label.strip(" -")


def _unit_at(text: str, at: int) -> tuple[Unit | None, int]:
    found = _UNIT.match(text, at)
    if found is None:
        return None, at
    word = found.group(1)
    if word == "in" and not _means_inches(text, found.end()):
        return None, at
    if word.lower() == "pounds" and text[found.end() :].startswith(" sterling"):
        return None, at
    unit = unit_named(word)
    return unit, found.end() if unit else at


def _means_inches(text: str, end: int) -> bool:
    """Whether `in` after a number is the unit: at an end, or before a word that no phrase with "in" goes on with."""
    after = text[end:].lstrip()
    word = _WORD.match(after)
    return not after or not word or word.group().lower() in _INCHES_BEFORE


def _noun_at(text: str, end: int, single: bool) -> tuple[str | None, int]:
    """The noun that is counted, up to two words before it passed over ("12 short planks"); of a *single* thing the
    first word.
    """
    at, first = end, None
    for _ in range(1 if single else 3):
        found = re.compile(r"[ -]" + _WORD.pattern).match(text, at)
        if found is None or found.group()[1:].lower() in _NOT_NOUNS or found.group()[1:].lower() in CARDINALS:
            break
        word, at = found.group()[1:], found.end()
        first = first or (word, at)
        if word.endswith("s") and not word.endswith("ss"):
            return word, at
    return first or (None, end)


def _joined(found: list[Quantity], text: str) -> Iterator[Quantity]:
    """`3 ft 7 in` as one quantity of feet: 3 7/12 ft."""
    i = 0
    while i < len(found):
        one = found[i]
        joined = _compound(one, found[i + 1], text) if i + 1 < len(found) else None
        yield joined or one
        i += 2 if joined else 1


def _compound(one: Quantity, other: Quantity, text: str) -> Quantity | None:
    if (
        one.unit is None
        or other.unit is None
        or not isinstance(one.number, Whole)
        or not isinstance(other.number, Whole)
    ):
        return None
    each = ratio_of(one.unit, other.unit)
    if each is None or each.denominator != 1 or not 0 < other.number.n < each:
        return None
    return _sum(one, other, int(each), text) if _AND.fullmatch(text[one.end : other.start]) else None


def _sum(one: Quantity, other: Quantity, each: int, text: str) -> Quantity:
    whole, _, _ = parts(one.number)
    assert isinstance(other.number, Whole), "looked at before"
    places = {10: 1, 100: 2, 1000: 3}.get(each)
    number = (
        Dec(whole, str(other.number.n).zfill(places))
        if places
        else make(whole, other.number.n, each)
        if each <= 12
        else mixed(Fraction(whole * each + other.number.n, each))
    )
    return Quantity(text[one.start : other.end], number, one.label, one.unit, one.start, other.end, other.end)
