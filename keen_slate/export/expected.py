"""The answers that are expected of a problem: the right one in every spelling that the core takes for right, and the
likely wrong ones.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction

from keen_slate.core.arithmetic.division import long_division
from keen_slate.core.diagnosing.answers import Explainer
from keen_slate.core.documents.working import answer_text
from keen_slate.core.errors import LimitError
from keen_slate.core.expressions.tree import (
    Dec,
    Equation,
    Expr,
    Frac,
    Mixed,
    Neg,
    OpenFrac,
    OpenMixed,
    Whole,
    mixed,
    ratio,
)
from keen_slate.core.expressions.voice import Voice
from keen_slate.core.expressions.walks import has_blank, leaves
from keen_slate.core.limits import MAX_PLACES
from keen_slate.core.reading.problem import CURRENCY, labelled
from keen_slate.core.reading.units import counted_in
from keen_slate.core.ways.voices import voice_of
from keen_slate.core.worked import Worked

RIGHT = "RIGHT"
MOST_TIMES = 12  # so often larger are the equal fractions that an item knows
_REPEATS = 3  # how often the digits of a recurring decimal are written before the dots
_MINUS = "[-\u2212]"
_ZEROS = "0{0,2}"  # that may stand before a number


@dataclass(frozen=True, slots=True)
class ExpectedAnswer:
    """An answer that is expected: its *texts*, a *pattern* of further spellings (""), the *identifier* of its feedback,
    and what that says.
    """

    texts: tuple[str, ...]
    pattern: str
    identifier: str
    said: str


@dataclass(frozen=True, slots=True)
class Gap:
    """What belongs into a blank: its *texts*, and a *pattern* of all its spellings."""

    texts: tuple[str, ...]
    pattern: str


def expected(worked: Worked) -> list[ExpectedAnswer]:
    """The right answer, then each likely wrong one that is written differently.

    What is said of a wrong one is how it may have come about, never that it did.
    """
    working = worked.working
    voice = voice_of(working.ways)
    label = working.problem.label
    right = tuple(right_spellings(worked))
    judged = [ExpectedAnswer(right, right_pattern(worked), RIGHT, "Right.")]
    taken = set(right)
    for found in worked.likely:
        bare = voice.text(found.wrong.answer)
        texts = [
            t
            for t in dict.fromkeys([bare, labelled(bare, label), labelled(bare, counted_in(label, found.wrong.answer))])
            if t not in taken
        ]
        if found.status == "hidden" or not texts:
            continue
        taken.update(texts)
        said = f"One way to this answer: {voice.said(found.entry.name)}. {voice.said(found.entry.question)}"
        judged.append(ExpectedAnswer(tuple(texts), "", found.entry.code, said))
    return judged


def right_spellings(worked: Worked) -> list[str]:
    """The usual spellings of the right answer, the most usual first.

    A label may be written, with or without a space, or left to the page.
    """
    working = worked.working
    voice = voice_of(working.ways)
    accepted = _accepts(worked)
    label = working.problem.label
    numbers = [spelled for one in _forms(working.answer) for spelled in _spellings(one, voice)]
    spelled = [answer_text(working, voice), *numbers]
    for number in numbers if label else []:
        spelled += [labelled(number, label), f"{number}{label}", f"{number} {label}"]
    spelled += [one.replace("-", "\u2212") for one in spelled if one.startswith("-")]
    kept = [one for one in dict.fromkeys(spelled) if accepted(one)]
    return list(dict.fromkeys([voice.text(working.answer), *kept]))


def right_pattern(worked: Worked) -> str:
    """A regular expression of every spelling of the right answer."""
    voice, accepted = voice_of(worked.working.ways), _accepts(worked)
    label = worked.working.problem.label
    forms = [one for one in _forms(worked.working.answer) if accepted(voice.text(one))]
    numbers = [_pattern(one, voice) for one in [*forms, *_equal(forms, accepted, voice)]]
    return _whole(numbers, label if label and accepted(f"{voice.text(worked.working.answer)} {label}") else None)


def gaps(worked: Worked) -> tuple[Gap, ...]:
    """What belongs into each blank of a problem whose answer is an equation; none for others, and where there are many
    answers.
    """
    working = worked.working
    problem, full = working.problem.expr, working.answer
    if not isinstance(full, Equation) or working.count != 1 or len(working.answers) > 1:
        return ()
    voice, accepted = voice_of(working.ways), _accepts(worked)
    pairs = [(blank, put) for blank, put in zip(leaves(problem), leaves(full), strict=True) if has_blank(blank)]
    put = [_in_blank(blank, number) for blank, number in pairs]
    found = []
    for i, one in enumerate(put):
        others = [voice.text(number) for number in put]

        def in_place(spelled: str, at: int = i, listed: tuple[str, ...] = tuple(others)) -> bool:
            return accepted(", ".join([*listed[:at], spelled, *listed[at + 1 :]]))

        forms = [form for form in _forms(one) if form == one or in_place(voice.text(form))]
        found.append(
            Gap(
                tuple([voice.text(form) for form in dict.fromkeys(forms)]),
                _whole([_pattern(form, voice) for form in forms], None),
            )
        )
    return tuple(found)


def _in_blank(blank: Expr, number: Expr) -> Expr:
    """What a pupil writes into *blank* where *number* stands in the whole: the number, or the part of it that is
    missing.
    """
    match blank, number:
        case OpenFrac(None, _), Frac(num, _):
            return Whole(num)
        case OpenFrac(_, None), Frac(_, den):
            return Whole(den)
        case OpenMixed(), Mixed(_, num, _):
            return Whole(num)
    return number


def _accepts(worked: Worked) -> Callable[[str], bool]:
    """Whether the core takes a text for right; a label that is left to the page does no harm."""
    explainer = Explainer(worked, voice_of(worked.working.ways).mark)

    def accepted(typed: str) -> bool:
        found = explainer.verdict(typed)
        return found.verdict == "right" or found.form_fault == "label-missing"

    return accepted


def _forms(answer: Expr) -> list[Expr]:
    """The same number in each form that a pupil may give it."""
    inner = answer.inner if isinstance(answer, Neg) else answer
    if isinstance(inner, Equation):
        return [inner]
    n, d = ratio(inner)
    forms: list[Expr] = [inner, mixed(Fraction(n, d)), Frac(n, d)]
    forms += _decimals(n, d)
    return list(dict.fromkeys([Neg(one) if isinstance(answer, Neg) else one for one in forms]))


def _decimals(n: int, d: int) -> list[Expr]:
    """n/d as a decimal, where it ends or recurs within the places that may be typed; a whole number with a zero behind
    its mark.
    """
    try:
        places, period = long_division(n % d, d)
    except LimitError:
        return []
    if not places + period:
        places = "0"
    return [Dec(n // d, places, period)] if len(places + period) <= MAX_PLACES else []


def _equal(forms: list[Expr], accepted: Callable[[str], bool], voice: Voice) -> list[Expr]:
    """The fractions among *forms* with larger numbers, where the class takes any that is equal."""
    larger = [[_times(one, k) for k in range(2, MOST_TIMES + 1)] for one in forms if not isinstance(one, Dec | Whole)]
    return [one for listed in larger if accepted(voice.text(listed[0])) for one in listed]


def _times(number: Expr, k: int) -> Expr:
    """*number* with top and bottom of its fraction *k* times as large."""
    match number:
        case Neg(inner):
            return Neg(_times(inner, k))
        case Frac(num, den):
            return Frac(k * num, k * den)
        case Mixed(whole, num, den):
            return Mixed(whole, k * num, k * den)
    return number


def _spellings(number: Expr, voice: Voice) -> list[str]:
    """A number as it is written; a decimal with further zeros, one that recurs with dots."""
    written = voice.text(number)
    inner = number.inner if isinstance(number, Neg) else number
    if not isinstance(inner, Dec):
        return [written]
    if inner.period:
        return [written, f"{written.partition('[')[0]}{inner.period * _REPEATS}..."]
    return [f"{written}{'0' * more}" for more in range(3)]


def _pattern(number: Expr, voice: Voice) -> str:
    """A number in every spelling that differs in nothing but spaces, signs and zeros that say nothing."""
    match number:
        case Neg(inner):
            return f"{_MINUS} ?{_unsigned(inner, voice)}"
        case Equation():
            return _escaped(voice.text(number))
    return f"([+] ?)?{_unsigned(number, voice)}"


def _unsigned(number: Expr, voice: Voice) -> str:
    match number:
        case Mixed(whole, num, den):
            return f"{_ZEROS}{whole} {_ZEROS}{num}/{_ZEROS}{den}"
        case Frac(num, den):
            return f"{_ZEROS}{num}/{_ZEROS}{den}"
        case Dec(whole, places, period):
            start = f"{_ZEROS}{whole or ''}[{voice.mark}]{places}"
            if period:
                return rf"{start}(\[{period}\]|{period}({period})+([.][.][.]|…))"
            return f"{start}0{{0,{max(0, MAX_PLACES - len(places))}}}"
    return f"{_ZEROS}{voice.text(number)}"


def _whole(numbers: list[str], label: str | None) -> str:
    """One of *numbers*, with its *label* or without.

    It says where it begins and ends: some readers look for a pattern anywhere in an answer. Those that take these two
    signs for letters, as XML Schema does, have the usual spellings beside it, and never take a wrong answer for right.
    """
    one = "|".join(dict.fromkeys(numbers))
    written = _escaped(label or "")
    before = f"({written} ?)?" if label and label in CURRENCY else ""
    after = f"( *{written})?" if label and not before else ""
    return f"^ *{before}({one}){after} *$"


def _escaped(text: str) -> str:
    """*text* in a regular expression; only what XML Schema and browsers read alike."""
    return re.sub(r"([.*+?(){}|$])", r"[\1]", re.sub(r"([\\\[\]^-])", r"\\\1", text))
