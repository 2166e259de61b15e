"""What stands in braces after a story: its situation, its calculations one after the other, the numbers that are not
needed.

{compare difference: 8 1/20 - 5 3/10}
{all = 3 × 5/12 + 1 1/4; 8 - all; not 12; says Alder has _ left.}
"""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from functools import cache
from itertools import islice, product

from ..errors import CoreError, ReadError
from ..expressions.text import DecimalMark
from ..expressions.text import text as write
from ..expressions.tree import Blank, Equation, Expr, Neg, Whole, value
from ..expressions.walks import leaves, map_numbers
from ..limits import MOST_CALCULATIONS
from ..reading.measures import UNITS, Unit, ratio_of
from ..reading.reader import read, read_equation
from .answering import ANSWER, answer_sentence
from .labels import UnitsError, label_of
from .numbers import Quantity
from .question import Sentence
from .story import FIRST, SITUATIONS, Story, StoryStep, Unknown, Use

HEAD = re.compile(rf"\s*({'|'.join(SITUATIONS)})\s+([a-z]+)\s*:")
_NAMED = re.compile(r"\s*([a-z][a-z-]*(?: [a-z-]+)*)\s*=(?!=)")
_MOST_WAYS = 200  # of linking equal numbers


@dataclass(frozen=True, slots=True)
class ToldText:
    """A text as it was read: its quantities, and the sentence that asks; the *earlier* one where two do."""

    text: str
    quantities: tuple[Quantity, ...]
    question: Sentence
    earlier: Sentence | None = None


@dataclass(frozen=True, slots=True)
class CalculationPart:
    """A part of a calculation: what it *finds* ("" for the last), and where it stands in the whole source."""

    finds: str
    written: str
    start: int


def split_source(source: str) -> tuple[str, str | None, int]:
    """The text of a story, what stands in braces after it (None without braces), and where that begins.

    >>> split_source("How many? {3 + 4}")
    ('How many?', '3 + 4', 11)
    """
    found = re.search(r"\{([^{}]*)\}\s*$", source)
    if found is None:
        return source.strip(), None, len(source)
    return source[: found.start()].strip(), found.group(1), found.start(1)


def linked(told: ToldText, braces: str, at: int, mark: DecimalMark = ".") -> Story:
    """The story whose calculation *braces* say; *at* is where they begin in the source. Raises `CoreError`."""
    head = HEAD.match(braces)
    situation, unknown = _situation(head, at) if head else ("", "answer")
    begin = head.end() if head else 0
    pieces, unneeded, says = _pieces(told, braces[begin:], at + begin, mark)
    if not pieces:
        raise ReadError("No calculation stands in the braces.", at, len(braces), "Write one, like {3 1/4 - 1 2/3}.")
    steps = _steps(told, pieces, unneeded, mark)
    _all_used(told, steps, unneeded)
    sentence = says or answer_sentence(told.question.text, _words_of(steps[-1].label))
    if not situation:
        situation, unknown = _guess_situation(steps)
    question = (told.question.start, told.question.end)
    story = Story(
        told.text, told.quantities, situation, unknown, tuple(steps), unneeded, sentence, bool(says), question
    )
    return _with_first(told, story, at, len(braces)) if told.earlier else story


def _with_first(told: ToldText, story: Story, at: int, length: int) -> Story:
    """A story of two questions, with the sentence that answers the first.

    Raises `ReadError` where nothing answers it.
    """
    assert told.earlier is not None, "looked at before"
    asked = replace(story, earlier=(told.earlier.start, told.earlier.end))
    if asked.first_step is None:
        raise ReadError(
            "The story asks two questions, and one of them is answered.", at, length,
            f"Call the calculation that answers the first one {FIRST}: {{{FIRST} = 3 + 4; 2 × {FIRST}}}.",
        )  # fmt: skip
    label = asked.steps[asked.first_step].label
    return replace(asked, first_sentence=answer_sentence(told.earlier.text, _words_of(label)))


def _situation(head: re.Match[str], at: int) -> tuple[str, Unknown]:
    code, unknown = head.groups()
    for known in SITUATIONS[code][1]:
        if known == unknown:
            return code, known
    wanted = ", ".join(SITUATIONS[code][1])
    raise ReadError(
        f"“{unknown}” is no unknown of {code}.", at + head.start(2), len(unknown), f"Write one of: {wanted}."
    )


def _guess_situation(steps: list[StoryStep]) -> tuple[str, Unknown]:
    """What a calculation alone tells of the situation: several steps, or what its operator says first."""
    if len(steps) > 1:
        return "steps", "answer"
    written = write(steps[0].expr)
    if "×" in written or "÷" in written:
        return "equal-groups", "product" if "×" in written else "size"
    return ("take-from", "result") if " - " in written else ("put-together", "total")


def _words_of(label: str | None) -> tuple[str, ...]:
    """The words that the answer's label already says."""
    if label is None:
        return ()
    same = [word for unit in UNITS if label in (unit.one, unit.many, *unit.short) for word in (unit.one, unit.many)]
    return (label.lower(), *same)


# Pieces --------------------------------------------------------------------------------------------------------------


def _pieces(
    told: ToldText, braces: str, at: int, mark: DecimalMark
) -> tuple[list[CalculationPart], tuple[int, ...], str]:
    pieces: list[CalculationPart] = []
    unneeded: list[int] = []
    says = ""
    for part in re.finditer(r"[^;]+", braces):
        written, start = part.group(), at + part.start()
        if (left_out := re.match(r"\s*not\s+", written)) is not None:
            unneeded.append(_not_needed(told, written[left_out.end() :], start + left_out.end(), unneeded, mark))
        elif (said := re.match(r"\s*says\s+", written)) is not None:
            says = _says(written[said.end() :].strip(), start + said.end())
        elif written.strip():
            name = _NAMED.match(written)
            pieces.append(
                CalculationPart(
                    name.group(1) if name else "",
                    written[name.end() :] if name else written,
                    start + (name.end() if name else 0),
                )
            )
    if len(pieces) > MOST_CALCULATIONS:
        raise ReadError(
            f"A story has at most {MOST_CALCULATIONS} calculations.",
            pieces[MOST_CALCULATIONS].start,
            1,
            "Join some of them.",
        )
    return _with_names(pieces), tuple(sorted(unneeded)), says


def _with_names(pieces: list[CalculationPart]) -> list[CalculationPart]:
    names: set[str] = set()
    for piece in pieces[:-1]:
        if not piece.finds or piece.finds in names or piece.finds == "x":
            raise ReadError(
                "A calculation before the last needs a name of its own.", piece.start, max(1, len(piece.written)),
                "Write it so: {all = 1 1/4 + 2/3; 8 - all}.",
            )  # fmt: skip
        names.add(piece.finds)
    return pieces


def _says(said: str, at: int) -> str:
    if said.count(ANSWER) == 1:
        return said
    raise ReadError(
        "The answer sentence has no place for the answer." if ANSWER not in said else "The answer sentence has two "
                                                                                      "places for the answer.",
        at, max(1, len(said)), f"Write {ANSWER} once where the answer with its label stands.",
    )  # fmt: skip


def _not_needed(told: ToldText, written: str, at: int, known: list[int], mark: DecimalMark) -> int:
    number = read(written.strip(), mark).expr
    for i, one in enumerate(told.quantities):
        if i not in known and value(one.number) == value(number):
            return i
    raise ReadError(
        f"{written.strip()} is not in the story.", at, len(written), "Name a number that stands in its text."
    )


# Steps ---------------------------------------------------------------------------------------------------------------


def _steps(
    told: ToldText, pieces: list[CalculationPart], unneeded: tuple[int, ...], mark: DecimalMark
) -> list[StoryStep]:
    """The steps, each number linked.

    Where numbers of the text are equal, the first linking whose units agree is taken.
    """
    exprs = [_expr(piece, [one.finds for one in pieces[:i]], mark) for i, piece in enumerate(pieces)]
    places = [(i, leaf) for i, (expr, _) in enumerate(exprs) for leaf in leaves(expr) if not isinstance(leaf, Blank)]
    choices = [_sources(told, leaf, unneeded) for i, leaf in places]
    for i, (_, leaf) in enumerate(
        places
    ):  # a number that stands here more often than in the text may be one that is not told
        told_so = [use for use in choices[i] if use.kind == "quantity"]
        factor = re.search(rf"[÷:] ?{re.escape(write(leaf))}(?![\d/.])", pieces[places[i][0]].written) is not None
        if told_so and factor and sum(value(other) == value(leaf) for _, other in places) > len(told_so):
            choices[i] = [*choices[i], Use("untold")]
    refusal: CoreError | None = None
    ways = sorted(islice(product(*choices), _MOST_WAYS), key=_repeats)
    for way in ways:
        try:
            return _linked_steps(told, pieces, exprs, list(way))
        except UnitsError as error:
            refusal = refusal or ReadError(
                str(error), pieces[error.step].start, len(pieces[error.step].written), error.hint
            )
    assert refusal is not None, "every number has a source"
    raise refusal


def _repeats(way: tuple[Use, ...]) -> int:
    """How often a way of linking takes a number of the text again: one that is told once is used once, if it can be."""
    taken = [use.index for use in way if use.kind == "quantity"]
    return len(taken) - len(set(taken))


def _expr(piece: CalculationPart, names: list[str], mark: DecimalMark) -> tuple[Expr, list[int]]:
    """The calculation of a piece with a blank for each earlier result, and which results these are."""
    found: list[int] = []

    def blank(match: re.Match[str]) -> str:
        found.append(names.index(match.group()))
        return "_"

    known = "|".join(sorted(map(re.escape, names), key=len, reverse=True))
    written = re.sub(rf"\b(?:{known})\b", blank, piece.written) if names else piece.written
    try:
        expr = read_equation(written, mark)
    except CoreError as error:
        raise ReadError(
            error.message, piece.start + min(error.position, len(piece.written)), error.length, error.hint
        ) from None
    if isinstance(expr, Equation):
        raise ReadError(
            "One equals sign is enough.",
            piece.start,
            len(piece.written),
            "Write a name, an equals sign and the calculation.",
        )
    blanks = sum(isinstance(leaf, Blank) for leaf in leaves(expr))
    if blanks != len(found):
        raise ReadError(
            "A blank stands in the calculation.",
            piece.start,
            len(piece.written),
            "Write numbers of the story, or the name of what was found.",
        )
    return expr, found


def _sources(told: ToldText, leaf: Expr, unneeded: tuple[int, ...]) -> list[Use]:
    """Where a number may come from: the text, a change of unit, or neither."""
    same = [
        Use("quantity", i)
        for i, one in enumerate(told.quantities)
        if i not in unneeded and abs(value(one.number)) == value(leaf)
    ]
    if isinstance(leaf, Whole) and any(one.unit and leaf.n in _factors(one.unit) for one in told.quantities):
        same.append(Use("units"))
    return same or [Use("untold")]


@cache
def _factors(unit: Unit) -> frozenset[int]:
    """How many of another unit one of *unit* is, or the reverse, where that is a whole number."""
    each = [ratio_of(a, b) for other in UNITS for a, b in ((unit, other), (other, unit))]
    return frozenset([int(one) for one in each if one is not None and one > 1 and one.denominator == 1])


def _linked_steps(
    told: ToldText, pieces: list[CalculationPart], exprs: list[tuple[Expr, list[int]]], way: list[Use]
) -> list[StoryStep]:
    steps: list[StoryStep] = []
    links = iter(way)
    for i, (expr, found) in enumerate(exprs):
        earlier = iter(found)
        uses = tuple([Use("found", next(earlier)) if isinstance(leaf, Blank) else next(links) for leaf in leaves(expr)])
        as_told = _as_told(told, expr, uses)
        steps.append(
            StoryStep(
                as_told,
                uses,
                pieces[i].finds or "the answer",
                _label(told, as_told, uses, steps, pieces[i].finds, i == len(exprs) - 1),
            )
        )
    return steps


def _label(
    told: ToldText, expr: Expr, uses: tuple[Use, ...], steps: list[StoryStep], finds: str, last: bool
) -> str | None:
    """The label of what a calculation finds, in the words of the question that it answers."""
    if finds == FIRST and told.earlier is not None:
        return label_of(replace(told, question=told.earlier), expr, uses, steps, True)
    return label_of(told, expr, uses, steps, last)


def _as_told(told: ToldText, expr: Expr, uses: tuple[Use, ...]) -> Expr:
    """The calculation with its numbers in the forms of the text."""
    waiting = iter(uses)

    def change(leaf: Expr) -> Expr:
        use = next(waiting)
        if use.kind != "quantity":
            return leaf
        number = told.quantities[use.index].number
        return number.inner if isinstance(number, Neg) else number

    return map_numbers(expr, change)


def _all_used(told: ToldText, steps: list[StoryStep], unneeded: tuple[int, ...]) -> None:
    used = {use.index for step in steps for use in step.uses if use.kind == "quantity"}
    for i, one in enumerate(told.quantities):
        if i not in used and i not in unneeded:
            number = write(one.number)
            raise ReadError(
                f"“{one.text}” is not used in the calculation.", one.start, one.end - one.start,
                f"Use it, or write that it is not needed: {{...; not {number}}}.",
            )  # fmt: skip
    results = {use.index for step in steps for use in step.uses if use.kind == "found"}
    if missing := [
        i for i in range(len(steps) - 1) if i not in results and not (told.earlier and steps[i].finds == FIRST)
    ]:
        raise ReadError(
            f"“{steps[missing[0]].finds}” is found, and nothing uses it.", len(told.text), 0,
            "Use its name in a later calculation.",
        )  # fmt: skip
