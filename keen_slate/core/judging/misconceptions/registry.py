"""The registry, what an entry is given, and how its status is judged.

An entry is given a `Case` and returns what the pupil writes, or None where its precondition is missing. The
rest is decided here, once for all: an answer that is right in form and value, past a limit, or below zero where the
right one is not, is not applicable; the right value in another form is `form` for the entries on form; the right
value otherwise is `hidden`; anything else `reveals` the misconception.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import cache, cached_property
from typing import Literal

from ...arithmetic.columns import in_last_place, places_of
from ...errors import CoreError
from ...expressions.sentences import Rich
from ...expressions.terms import Terms, Unsigned, improper, operands, parts, unsigned_terms
from ...expressions.text import text
from ...expressions.tree import Dec, Expr, Frac, Mixed, Neg, Product, Sum, Whole, make, value
from ...expressions.walks import largest_integer, leaves
from ...limits import TOO_LARGE
from ...reading.kinds import Kind
from ...stories.story import Story, story_of
from ...working.methods import work
from ...working.methods.stories import parts_of
from ...working.proof import Working
from ..estimate import Estimate

Status = Literal["reveals", "form", "hidden"]
Often = Literal[1, 2, 3]

# Kinds that end in a fraction or mixed number, whose form is judged.
ENDS_IN_FRACTION: tuple[Kind, ...] = ("add-subtract", "simplify", "convert", "multiply-divide", "order", "missing")


class Case:
    """A worked problem as an entry sees it. What a kind of problem does not have is empty."""

    def __init__(self, working: Working) -> None:
        self.working = working
        self.answer_value = working.value
        self.answer_form = working.ways.answer_form
        self.answer_ratio = working.value.as_integer_ratio()
        self.below_zero = working.value < 0

    @property
    def story(self) -> Story | None:
        """What is told, where the problem is a story."""
        return story_of(self.working.problem)

    def going_on(self, i: int, answer: Expr) -> tuple[Working, ...] | None:
        """The calculations of a story after number *i* (from 0), had it found *answer*; None where they cannot be gone
        on with.
        """
        assert self.story is not None, "only a story has parts"
        before = [part.answer for part in self.working.parts[:i]]
        try:
            return parts_of(self.story, self.working.ways, work, [*before, answer])
        except (CoreError, ZeroDivisionError):
            return None

    # Sums of fractions -----------------------------------------------------------------------------------------

    @cached_property
    def terms(self) -> Terms:
        """The terms of a sum of fractions, mixed numbers and wholes as (sign, number)."""
        numbers = leaves(self.working.problem.expr)
        if self.working.problem.kind not in ("add-subtract", "simplify") or any(isinstance(n, Dec) for n in numbers):
            return []
        return unsigned_terms(self.working.problem.expr)

    @cached_property
    def signs(self) -> list[int]:
        """The signs of the terms."""
        return [sign for sign, _ in self.terms]

    @cached_property
    def parts(self) -> list[tuple[int, int, int]]:
        """Whole, numerator and denominator of each term as written; a plain whole has the denominator 1."""
        return [parts(term) for _, term in self.terms]

    @cached_property
    def fractions(self) -> list[tuple[int, int, int]]:
        """Sign, numerator and denominator of the fraction of each term that has one."""
        return [
            (sign, n, d)
            for (sign, term), (_, n, d) in zip(self.terms, self.parts, strict=True)
            if not isinstance(term, Whole)
        ]

    @cached_property
    def wholes(self) -> int:
        """The wholes of the terms combined."""
        return sum(sign * w for sign, (w, _, _) in zip(self.signs, self.parts, strict=True))

    @cached_property
    def unlike(self) -> bool:
        """Whether the fractions have different denominators."""
        return len({d for _, _, d in self.fractions}) > 1

    @cached_property
    def all_improper(self) -> bool:
        """Whether the class turns the terms of this sum into improper fractions."""
        mixed = any(not isinstance(term, Frac) for _, term in self.terms)
        ways = self.working.ways
        way = ways.mixed_add if min(self.signs, default=1) > 0 else ways.mixed_subtract
        return mixed and way in ("improper", "wholes-then-improper")

    def fraction_sum(self) -> bool:
        """Whether this is a sum of at least two fractions or mixed numbers, with a result that is not below zero."""
        return self.working.problem.kind == "add-subtract" and len(self.fractions) > 1 and not self.below_zero

    def tidied(self) -> list[tuple[int, int, int]]:
        """The terms' parts after an improper part beside a whole has been tidied."""
        return [
            (w + n // d, n % d, d) if isinstance(t, Mixed) else (w, n, d)
            for (_, t), (w, n, d) in zip(self.terms, self.parts, strict=True)
        ]

    @property
    def common(self) -> int:
        """The common denominator that the working uses."""
        return self.working.used_denominator or 1

    # Products and decimals ---------------------------------------------------------------------------------------

    @cached_property
    def factors(self) -> list[tuple[int, Expr]]:
        """The unsigned numbers of a plain product, -1 for a divisor; none where there is a sign or no product."""
        expr = self.working.problem.expr
        if not isinstance(expr, Product) or self.working.problem.kind not in ("multiply-divide", "decimal"):
            return []
        if any(isinstance(n, Neg) for n in (expr.first, *[n for _, n in expr.rest])):
            return []
        return operands(expr)

    @cached_property
    def decimals(self) -> tuple[list[int], list[int], list[int]] | None:
        """Signs, digits (as whole numbers) and places of the terms of a sum of ending decimals without signs of their
        own.
        """
        expr = self.working.problem.expr
        if self.working.problem.kind != "decimal" or not isinstance(expr, Sum) or self.below_zero:
            return None
        numbers = [expr.first, *[n for _, n in expr.rest]]
        if not all(isinstance(n, Whole) or (isinstance(n, Dec) and not n.period) for n in numbers):
            return None
        places = [places_of(n) for n in numbers]
        digits = [in_last_place(n, p) for n, p in zip(numbers, places, strict=True)]
        return [1, *[1 if o == "+" else -1 for o, _ in expr.rest]], digits, places

    # What is left to do after the wrong step, done rightly --------------------------------------------------------

    def finished(self, number: Fraction) -> Unsigned:
        """*number* (0 or more) in the class's answer form."""
        whole, rest = divmod(number.numerator, number.denominator)
        tidy = make(whole, rest, number.denominator)
        if self.answer_form == "simplest-improper" and isinstance(tidy, Mixed):
            return improper(tidy)
        return tidy


@dataclass(frozen=True, slots=True)
class Wrong:
    """What a pupil writes: *lines* of working and the *answer* as it is left, with or without its label.

    *via* are full lines between the problem, or the last right line, and the answer.
    """

    answer: Expr
    lines: tuple[Rich, ...]
    labelled: bool = True
    via: tuple[Expr, ...] = ()


@dataclass(frozen=True, slots=True)
class Misconception:
    """A misconception: its code, its words, how often it is met (1 to 3, common practice), an example, its function."""

    code: str
    name: str
    reason: str
    question: str
    kinds: tuple[Kind, ...]
    example: str
    on_form: bool
    often: Often
    works: Callable[[Case], Wrong | None]


@dataclass(frozen=True, slots=True)
class LikelyAnswer:
    """An entry that applies to a problem: its wrong answer, status, and the codes with the same answer."""

    entry: Misconception
    wrong: Wrong
    answer_value: Fraction
    status: Status
    caught_by_estimate: bool
    same_as: tuple[str, ...]


ENTRIES: dict[str, Misconception] = {}


def misconception(
    code: str, *, name: str, reason: str, question: str, kinds: tuple[Kind, ...], example: str,
    on_form: bool = False, often: Often = 2,
) -> Callable[[Callable[[Case], Wrong | None]], Callable[[Case], Wrong | None]]:  # fmt: skip
    """Put the decorated function into the registry under *code*."""

    def add(function: Callable[[Case], Wrong | None]) -> Callable[[Case], Wrong | None]:
        if code in ENTRIES:
            raise ValueError(f"the misconception {code} is registered twice")
        ENTRIES[code] = Misconception(code, name, reason, question, kinds, example, on_form, often, function)
        return function

    return add


def likely_answers(
    working: Working, estimate: Estimate | None, only: Collection[str] | None = None
) -> list[LikelyAnswer]:
    """The misconceptions (or *only* those of some codes) that apply to *working*: those that show first, then those met
    more often.
    """
    case = Case(working)
    entries = _entries_for(working.problem.kind)
    if only is not None:
        entries = tuple([entry for entry in entries if entry.code in only])
    judged = [found for entry in entries if (found := _judge(entry, case, estimate)) is not None]
    judged += _carried(case, estimate, only)
    order = {"reveals": 0, "form": 1, "hidden": 2}
    judged.sort(key=lambda found: (order[found.status], -found.entry.often))
    return _with_twins(judged)


def _carried(case: Case, estimate: Estimate | None, only: Collection[str] | None) -> list[LikelyAnswer]:
    """What is likely in the calculations of a story, carried on to its end; of each code the first that shows."""
    made: dict[str, LikelyAnswer] = {}
    for i, part in enumerate(case.working.parts):
        last = part is case.working.ending
        for found in likely_answers(part, None, only):
            code = found.entry.code
            if "story" in found.entry.kinds or (found.status == "form" and not last):
                continue
            likely = found if last and found.status == "form" else _at_the_end(case, estimate, i, found)
            if likely is not None and (code not in made or made[code].status != "reveals"):
                made[code] = likely
    return list(made.values())


def _at_the_end(case: Case, estimate: Estimate | None, i: int, found: LikelyAnswer) -> LikelyAnswer | None:
    """What a wrong answer to the calculation number *i* of a story leads to; None where it cannot be gone on with."""
    after = case.going_on(i, found.wrong.answer)
    if after is None:
        return None
    lines = tuple([(part.problem.expr, " = ", part.answer) for part in after])
    wrong = Wrong(after[-1].answer if after else found.wrong.answer, found.wrong.lines + lines)
    return _judge(replace(found.entry, works=lambda _: wrong), case, estimate)


@cache
def _entries_for(kind: Kind) -> tuple[Misconception, ...]:
    return tuple([entry for entry in ENTRIES.values() if kind in entry.kinds])


def _judge(entry: Misconception, case: Case, estimate: Estimate | None) -> LikelyAnswer | None:
    try:
        wrong = entry.works(case)
    except ZeroDivisionError:
        return None
    if wrong is None or largest_integer(wrong.answer) >= TOO_LARGE:
        return None
    answer = value(wrong.answer)
    if answer.numerator < 0 and not case.below_zero:
        return None
    status: Status = "reveals"
    if answer.as_integer_ratio() == case.answer_ratio:
        if wrong.labelled and text(wrong.answer) == text(case.working.answer) and entry.on_form:
            return None
        status = "form" if entry.on_form and not _accepted(wrong, case) else "hidden"
    return LikelyAnswer(entry, wrong, answer, status, estimate is not None and estimate.catches(answer), ())


def _accepted(wrong: Wrong, case: Case) -> bool:
    """Whether the form of a right value may stand: where it need not be lowest terms, unless a whole hides in its
    fraction.
    """
    ways = case.working.ways
    if ways.wants_lowest_terms or not wrong.labelled:
        return False
    answer = wrong.answer
    if isinstance(answer, Frac):
        return answer.num < answer.den if ways.wants_mixed else answer.num % answer.den != 0
    return not (isinstance(answer, Mixed) and answer.num >= answer.den)


def _with_twins(likely: Sequence[LikelyAnswer]) -> list[LikelyAnswer]:
    """*likely* answers, each with the codes of those that cannot be told from it."""
    alike: dict[tuple[int, int], list[LikelyAnswer]] = {}
    for one in likely:
        alike.setdefault(one.answer_value.as_integer_ratio(), []).append(one)
    return [
        replace(one, same_as=codes) if (codes := _twins(one, alike[one.answer_value.as_integer_ratio()])) else one
        for one in likely
    ]


def _twins(one: LikelyAnswer, equal: Sequence[LikelyAnswer]) -> tuple[str, ...]:
    """The codes of other answers of an *equal* value; where the value is right, of those in the same form."""
    return tuple(
        [
            other.entry.code
            for other in equal
            if other is not one and (one.status == "reveals" or other.wrong.answer == one.wrong.answer)
        ]
    )
