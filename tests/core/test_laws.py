"""Laws over everything the core says and writes: what stands there as a fact is one, and every view can be built."""

import json
import re
import unittest
from dataclasses import replace
from fractions import Fraction
from math import gcd

from hypothesis import given, settings

from keen_slate.core.documents.plain import plainly
from keen_slate.core.documents.view import working_view
from keen_slate.core.errors import CoreError, LimitError
from keen_slate.core.expressions.text import text
from keen_slate.core.ways.settings import SETTINGS, Ways
from keen_slate.core.worked import work_text
from tests import strategies
from tests.core.test_golden import EVERY
from tools.golden import Case

_SIDE = r"-?(?:[\d(][\d ./+×÷()\[\]^-]*)?[\d)\]]"
_CHAIN = re.compile(f"{_SIDE}(?: = {_SIDE})+")
_REMAINDER = re.compile(r"(\d+) ÷ (\d+) = (\d+) remainder (\d+)")
_NUMBER = re.compile(r"(?:(?:(\d+) )?(\d+)/(\d+))|(\d+)(?:\.(\d*)(?:\[(\d+)\])?)?")
_LIST = re.compile(r"(multiples|factors) of (\d+): ([\d, …]+)")
_UNITS = ["zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve",
    "thirteen", "fourteen", "fifteen", "sixteen", "seventeen", "eighteen", "nineteen"]  # fmt: skip
_TENS = ["twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"]
_SCALES = {"hundred": 100, "thousand": 1000, "million": 10**6, "billion": 10**9, "trillion": 10**12}
_ORDINALS = {
    "whole": 1,
    "half": 2,
    "halves": 2,
    "first": 1,
    "second": 2,
    "third": 3,
    "fifth": 5,
    "eighth": 8,
    "ninth": 9,
    "twelfth": 12,
    "quarter": 4,
}


def sentences(document, path=()):
    """Every text of a document that people read, with the way to it."""
    if isinstance(document, dict):
        for key, inner in document.items():
            if not key.endswith("glyphs") and key not in ("cells", "marks", "features"):
                yield from sentences(inner, (*path, key))
    elif isinstance(document, list):
        for inner in document:
            yield from sentences(inner, path)
    elif isinstance(document, str):
        yield path, document


def false_facts(sentence: str) -> list[str]:
    """The equations, divisions with remainder and lists of a *sentence* that are not true."""
    wrong = []
    for quotient in _REMAINDER.finditer(sentence):
        n, d, q, r = map(int, quotient.groups())
        if n != q * d + r or r >= d:
            wrong.append(quotient.group())
    for kind, n, shown in _LIST.findall(sentence):
        numbers = [int(found) for found in re.findall(r"\d+", shown)]
        every = [k for k in range(1, int(n) + 1) if int(n) % k == 0] if kind == "factors" else None
        right = [int(n) * (i + 1) for i in range(len(numbers))]
        if (numbers != every and numbers[:-1] != right[:-1]) or (numbers[-1] % int(n) and kind == "multiples"):
            wrong.append(sentence)
    for chain in _CHAIN.findall(_REMAINDER.sub("", sentence)):
        values = {value_of(side) for side in chain.split(" = ")}
        if len(values) > 1:
            wrong.append(chain)
    return wrong


def value_of(side: str) -> Fraction:
    """The value of a side of an equation, calculated by Python alone."""
    spelled = _NUMBER.sub(lambda found: _as_python(*found.groups()), side.strip().rstrip("."))
    for sign, operator in (("×", "*"), ("÷", "/"), ("^", "**")):
        spelled = spelled.replace(sign, operator)
    return Fraction(eval(spelled, {"__builtins__": {}, "Fraction": Fraction}))


def _as_python(
    whole: str | None, top: str | None, bottom: str | None, digits: str, places: str | None, period: str | None
) -> str:
    if top:
        return f"({whole or 0} + Fraction({top}, {bottom}))"
    nines = f" + Fraction({period}, {10 ** len(period) - 1} * {10 ** len(places or '')})" if period else ""
    return f"(Fraction('{digits}.{places or 0}'){nines})"


def number_said(said: str) -> Fraction:
    """The number that *said* spells: the other way round than the core does it, and written apart from it."""
    if said.startswith("negative "):
        return -number_said(said.removeprefix("negative "))
    whole, _, part = said.partition(" and ")
    if part:
        return number_said(whole) + number_said(part)
    words = re.split(r"[ -]", said)
    return Fraction(_cardinal(words)) if _is_cardinal(words) else _fraction(said)


def _is_cardinal(words: list[str]) -> bool:
    return all(word in _UNITS or word in _TENS or word in _SCALES for word in words)


def _cardinal(words: list[str]) -> int:
    total = group = 0
    for word in words:
        if word in _SCALES:
            if word == "hundred":
                group = max(group, 1) * 100
            else:
                total, group = total + max(group, 1) * _SCALES[word], 0
        else:
            group += _UNITS.index(word) if word in _UNITS else 10 * (_TENS.index(word) + 2)
    return total + group


def _fraction(said: str) -> Fraction:
    """Numerator and parts: the last word, hyphens and all, names the parts, but for the tens before a lone ordinal."""
    *tops, name = said.split(" ")
    pieces = name.split("-")
    last = pieces[-1] if pieces[-1] in _ORDINALS else pieces[-1].removesuffix("s")
    if last in _ORDINALS:
        below = _ORDINALS[last]
    elif last.endswith("ieth"):
        below = 10 * (_TENS.index(last.removesuffix("ieth") + "y") + 2)
    else:
        below = {**_SCALES, **{unit: n for n, unit in enumerate(_UNITS)}}[last.removesuffix("th")]
    before = _cardinal(pieces[:-1]) if pieces[:-1] else 0
    scale = last.removesuffix("th") in _SCALES
    denominator = max(before, 1) * below if scale else before + below
    return Fraction(_cardinal(re.split("[ -]", " ".join(tops))), denominator)


class LawTests(unittest.TestCase):
    def views(self):
        for written in EVERY:
            case = Case.read(written)
            if "refused" not in written and "decimal_mark" not in case.ways:
                yield plainly(working_view(work_text(case.problem, Ways.of(case.settings()), target=case.to)))

    def test_every_equation_list_and_remainder_that_is_written_or_said_is_true(self):
        seen = 0
        for view in self.views():
            for path, sentence in sentences(view):
                if "_" not in sentence:
                    self.assertEqual(false_facts(sentence), [], (view["problem"]["text"], path, sentence))
                    seen += len(_CHAIN.findall(sentence)) + len(_LIST.findall(sentence))
        self.assertGreater(seen, 1000)

    @given(strategies.add_subtract_problems, strategies.all_ways)
    @settings(max_examples=150)
    def test_the_same_holds_for_any_sum_in_any_ways(self, expr, ways):
        try:
            view = plainly(working_view(work_text(text(expr), replace(ways, decimal_mark="point"))))
        except LimitError:
            return
        for path, sentence in sentences(view):
            self.assertEqual(false_facts(sentence), [], (path, sentence))

    def test_what_is_planted_is_found(self):
        self.assertEqual(false_facts("3 + 4 = 8, write 8"), ["3 + 4 = 8"])
        self.assertEqual(false_facts("17 ÷ 12 = 1 remainder 4"), ["17 ÷ 12 = 1 remainder 4"])
        self.assertTrue(false_facts("factors of 12: 1, 2, 3, 4, 6"))
        self.assertTrue(false_facts("multiples of 4: 4, 8, 13"))
        self.assertTrue(false_facts("1/2 = (1 × 3)/(2 × 3) = 4/6"))

    def test_a_result_said_aloud_is_the_result_written(self):
        said = 0
        for view in self.views():
            for step in view["steps"]:
                words = step["own_spoken"].rpartition("That makes ")[2].removesuffix(".")
                if re.fullmatch(r"-?[\d /.]+", step["after"]) and "recurring" not in words:
                    self.assertEqual(number_said(words), value_of(step["after"]), (step["after"], words))
                    said += 1
        self.assertGreater(said, 200)

    def test_every_view_holds_no_float_and_no_term_that_was_not_said(self):
        for view in self.views():
            written = json.dumps(view, ensure_ascii=False)
            if "<" not in view["problem"]["text"]:  # which may be a part of a story that somebody typed
                self.assertNotIn("<", written)
            self.assertIsNone(next(floats(view), None))

    def test_every_strategy_has_a_view_in_every_layout(self):
        built = dict.fromkeys(SETTINGS["layout"].codes, 0)

        @given(strategies.problems, strategies.all_ways)
        @settings(max_examples=400)
        def build(expr, ways):
            try:
                worked = work_text(text(expr), ways, ".")
            except CoreError:
                return
            view = plainly(working_view(worked))
            built[ways.layout] += 1
            self.assertNotIn("<", json.dumps(view))
            self.assertIsNone(next(floats(view), None))
            self.assertEqual(len(view["rows"]), len(view["steps"]) + 1)

        build()
        self.assertGreater(min(built.values()), 20)

    def test_lowest_terms_are_lowest(self):
        for view in self.views():
            if view["methods"]["answer_form"].startswith("simplest") and view["problem"]["kind"] == "add-subtract":
                for n, d in re.findall(r"(\d+)/(\d+)", view["answer"]["text"]):
                    self.assertEqual(gcd(int(n), int(d)), 1, view["answer"])


def floats(document):
    """The floating point numbers of a document."""
    if isinstance(document, dict):
        document = list(document.values())
    if isinstance(document, list):
        for inner in document:
            yield from floats(inner)
    elif isinstance(document, float):
        yield document
