"""`stacked`: numbers under each other, wholes under wholes, fractions under fractions, as on a careful board.

The terms stand in a column; each step that rewrites them adds a column after an equals sign. Regrouping crosses out the
whole and the numerator and writes the new ones above; a plain whole is crossed out once, and written anew as a whole
less and the pieces of one. Then comes a rule, and under it the result with the wholes under the wholes. Steps that do
not keep the terms apart follow as lines below. All of it is written moment by moment, as a hand would.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

from ..arithmetic.columns import Subtracted, subtract_columns
from ..expressions.sentences import Rich
from ..expressions.spoken import parts_name, words
from ..expressions.terms import Unsigned, parts, scaled, signed_terms
from ..expressions.tree import Expr, Frac, Mixed, Neg, Sum, Whole, value
from ..expressions.typeset import TERM_ROLES, Role
from ..reading.problem import CURRENCY, close_to_number
from ..reading.units import counted_in
from ..working.proof import Working
from ..working.step_kinds import (
    ADD,
    ADD_FRACTIONS,
    ADD_WHOLES,
    CARRY_WHOLE,
    COMMON_DENOMINATOR,
    JOIN,
    REGROUP,
    REORDER,
    SUBTRACT,
)
from .cells import NUMBER_HEIGHT, SQUARE, Cell, Rule, Size, characters, fraction, together, width_of
from .columns import columns_of, heights_over
from .labels import label_of_each
from .registry import Laid, layout
from .rows import step_row
from .sheet import PROBLEM, Pen, Sheet

LINE = NUMBER_HEIGHT + SQUARE  # a number and the square between it and the next


@dataclass(frozen=True, slots=True)
class Column:
    """The terms of a sum with their signs, as the step of that index writes them."""

    step: int
    terms: tuple[tuple[int, Unsigned], ...]


@dataclass(frozen=True, slots=True)
class Result:
    """A number under the rule, and the step that ends in it."""

    step: int
    number: Unsigned


@layout("stacked")
def stacked(working: Working) -> Laid | None:
    """The stacked working, decimals in columns; None where there is nothing to stack."""
    sheet = columns_of(working) or stack_of(working)
    return Laid(sheet) if sheet else None


def stack_of(working: Working) -> Sheet | None:
    """Numbers under each other; None where there is nothing to stack (a lone number, or no step)."""
    first = _terms(working.problem.expr) if working.problem.kind == "add-subtract" else None
    if first is None or len(first) < 2 or not working.steps:
        return None
    return _Stack(working, Column(PROBLEM, first)).sheet()


def _terms(expr: Expr) -> tuple[tuple[int, Unsigned], ...] | None:
    """The terms of a plain sum, each with its operator's sign; None for anything else."""
    if not isinstance(expr, Sum):
        return None
    terms = signed_terms(expr)
    plain = [(sign, term) for sign, term in terms if isinstance(term, (Whole, Frac, Mixed))]
    return tuple(plain) if len(plain) == len(terms) else None


class _Stack:
    """What is stacked, found first; then placed, from left to right and from top to bottom."""

    def __init__(self, working: Working, first: Column) -> None:
        self.working = working
        self.columns = [first]
        self.regrouped: Result | None = None
        self.used = self._rewriting_steps()
        self.carry = next((i for i, step in enumerate(working.steps) if step.kind is CARRY_WHOLE), None)
        self._scale_before_adding()
        self.results, self.lines = self._results()
        self.pen = Pen(working)
        self.label = label_of_each(working) or ""

    def _rewriting_steps(self) -> int:
        """Take up the steps that keep the terms apart; returns how many there were."""
        signs = [sign for sign, _ in self.columns[0].terms]
        for i, step in enumerate(self.working.steps):
            terms = _terms(step.after)
            if terms is None or [sign for sign, _ in terms] != signs or step.kind in (REORDER, ADD_WHOLES):
                return i
            if step.kind is REGROUP:
                self.regrouped = Result(i, terms[0][1])
                return i + 1
            self.columns.append(Column(i, terms))
        return len(self.working.steps)

    def _scale_before_adding(self) -> None:
        """Where the wholes were added first, the terms are shown in the common denominator all the same."""
        d = self.working.used_denominator
        last = self.columns[-1].terms
        dens = {term.den for _, term in last if not isinstance(term, Whole)}
        kinds = [step.kind for step in self.working.steps]
        if self._is_addition() and d and len(dens) > 1 and all(d % den == 0 for den in dens):
            step = kinds.index(COMMON_DENOMINATOR) if COMMON_DENOMINATOR in kinds else 0
            self.columns.append(Column(step, tuple([(sign, scaled(term, d)) for sign, term in last])))

    def _is_addition(self) -> bool:
        return all(sign > 0 for sign, _ in self.columns[0].terms)

    def _results(self) -> tuple[list[Result], list[int]]:
        """The numbers under the rule, and the steps that have to follow as lines because they are not one number."""
        rest = range(self.used, len(self.working.steps))
        ends = [Result(i, n) for i in rest for n in _plain(self.working.steps[i].after)]
        if self._is_addition():
            raw = self.working.raw
            added = [i for i in rest if self.working.steps[i].kind in (ADD_FRACTIONS, ADD)]
            # A carry is shown once: above the wholes, and not in an improper part under the rule.
            shown = value(raw) == self.working.value and self.carry is None
            written = [Result(added[-1] if added else self.used, raw)] if shown else []
            written += [one for one in ends if one.step not in added]
            last = len(self.working.steps) - 1
            written += [Result(last, n) for n in _plain(self.working.answer)]
            return list({one.number: one for one in reversed(written)}.values())[::-1], []
        return (ends, []) if len(ends) == len(rest) else ([], list(rest))

    # Placing ---------------------------------------------------------------------------------------------------

    def sheet(self) -> Sheet:
        above = self.regrouped is not None or self.carry is not None
        lent = self._lent()
        self.top = SQUARE * above + max([height for column in heights_over(lent) for height in column], default=0)
        x = SQUARE
        for column in self.columns:
            x = self._place_column(x, column)
        width = x
        y = self.top + LINE * len(self.columns[0].terms) + LINE * max(1, len(self.results)) - SQUARE
        for i in self.lines:
            row = step_row(self.working, i)
            self.pen.moment(i, self.working.steps[i].title)
            self.pen.row(row, y + SQUARE - NUMBER_HEIGHT)
            y += row.height + SQUARE
            width = max(width, row.width)
        return self.pen.sheet(width, y + SQUARE, self._spoken())

    def _place_column(self, x: int, column: Column) -> int:
        """Place one column of terms, and what belongs to the last one; returns the x after it."""
        last = column is self.columns[-1]
        numbers = [term for _, term in column.terms] + [one.number for one in self.results if last]
        numbers += [self.regrouped.number] if last and self.regrouped and self._cuts_a_plain_whole() else []
        if column.step != PROBLEM:
            self.pen.moment(column.step, self.working.steps[column.step].title)
        wholes = [len(str(parts(n)[0])) for n in numbers if not isinstance(n, Frac)]
        start = x + (0 if column.step == PROBLEM else 2 * SQUARE) + SQUARE * self._is_money()
        place = _Place(start, SQUARE * max(wholes, default=0), max([_part_width(n) for n in numbers]))
        unit = 0
        for i, (sign, term) in enumerate(column.terms):
            y = self.top + LINE * i
            if column.step != PROBLEM:
                self.pen.sign(characters("=", x, y, "tall", ""))
            elif i:
                self.pen.sign(characters("+" if sign > 0 else "−", 0, y, "tall", ""))
            role: Role = TERM_ROLES[i % len(TERM_ROLES)]
            unit = self._place_number(term, place, y, role, unit)
        if last:
            self._regroup(place)
            self._place_results(place)
        return place.end + self._label_width()

    def _place_number(
        self,
        number: Unsigned,
        place: _Place,
        y: int,
        role: Role,
        unit: int,
        before_whole: Callable[[], None] | None = None,
    ) -> int:
        """One number, the first of its parts being *unit* of its step's line; returns the next one.

        Its fraction comes first; what is to be done *before_whole* is done then.
        """
        w, n, d = parts(number)
        has_whole = int(not isinstance(number, Frac))
        if not isinstance(number, Whole):
            self._place_fraction(n, d, place.part_from(_part_width(number)), y, role, unit + has_whole)
        if before_whole is not None:
            before_whole()
        if has_whole:
            self.pen.write(characters(str(w), place.whole_from(str(w)), y, "tall", role), unit)
        if self._is_money():
            left = place.whole_from(str(w)) if has_whole else place.part_from(_part_width(number))
            self.pen.sign(characters(self.label, left - SQUARE, y, "tall", role))
        else:
            label = (counted_in(self.label, number) or "") if self.label else ""
            if label:
                at = place.end + (0 if close_to_number(label) else SQUARE // 2)
                self.pen.sign([together(label, at, y, "tall", role)])
        return unit + has_whole + 2 * (not isinstance(number, Whole))

    def _is_money(self) -> bool:
        return bool(self.label) and self.label in CURRENCY

    def _label_width(self) -> int:
        """How many half squares labels take behind the numbers."""
        return 0 if not self.label or self._is_money() else width_of(self.label, "tall") + 1

    def _place_fraction(self, n: int, d: int, x: int, y: int, role: Role, unit: int) -> None:
        cells, bar = fraction(str(n), str(d), x, y, role)
        self.pen.write([cell for cell in cells if not cell.below], unit)
        self.pen.write([cell for cell in cells if cell.below], unit + 1)
        self.pen.rule(bar)

    def _cuts_a_plain_whole(self) -> bool:
        """Whether the number that is regrouped has no fraction part of its own."""
        return isinstance(self.columns[-1].terms[0][1], Whole)

    def _regroup(self, place: _Place) -> None:
        """Cross out what changes in the first term, and write the new numbers above; nothing where nothing is
        regrouped.
        """
        if self.regrouped is None:
            return
        step, new = self.regrouped.step, self.regrouped.number
        old_whole, old_top, _ = parts(self.columns[-1].terms[0][1])
        w, n, d = parts(new)
        # The first term of a column is the first of its line: the whole is its number 0, the numerator 1.
        owner = "problem" if self.columns[-1].step == PROBLEM else self.pen.keys[self.columns[-1].step]
        changed = _changed_digits(old_whole, w)
        self.pen.moment(step, (f"Cross out {''.join([old for _, old, _ in changed])}.",))
        for i, _, _ in changed:
            self.pen.strike_at(place.digit(i), self.top)
        if any(new for _, _, new in changed):
            self.pen.moment(
                step, (f"Write {''.join([new for _, _, new in changed])} above it: <one whole> is cut up.",)
            )
            # A little lower than the numerator, right over its own digit, so that 6 and 15 are not read as 615.
            for i, _, digit in changed:
                self.pen.write(characters(digit, place.digit(i), self.top - SQUARE // 2, "half", "carried"), 0)
        unit = 1 if w else 0
        if self._cuts_a_plain_whole():
            self.pen.moment(step, (f"Beside it: {n} {parts_name(d, n != 1)}.",))
            self._place_fraction(n, d, place.part_from(_part_width(Frac(n, d))), self.top, "carried", unit)
            return
        self.pen.moment(step, (f"Cross out {old_top}.",))
        self.pen.strike(f"{owner} 1")
        self.pen.moment(step, (f"Write {n} above it.",))
        above_top = together(str(n), place.part_from(place.part), self.top - SQUARE, "half", "carried", place.part)
        self.pen.write([above_top], unit)

    def _carry(self, place: _Place) -> None:
        """The wholes that the fraction column carries, where the class adds the fractions first."""
        if self.carry is None:
            return
        carried = str(_carried(self.working))
        self.pen.moment(self.carry, self.working.steps[self.carry].title)
        self.pen.write(characters(carried, place.whole_from(carried), self.top - SQUARE // 2, "half", "carried"))

    def _minuend(self) -> int:
        """The wholes that are subtracted from."""
        return parts(self.regrouped.number if self.regrouped else self.columns[-1].terms[0][1])[0]

    def _lent(self) -> list[Subtracted]:
        """The columns of the wholes of a difference of two numbers, where a digit has to take ten from the left; else
        none.
        """
        terms = self.columns[-1].terms
        if self._is_addition() or len(terms) > 2 or not self.results:
            return []
        subtrahend = parts(terms[1][1])[0]
        if subtrahend > self._minuend():
            return []
        columns = subtract_columns(self._minuend(), subtrahend, self.working.ways.exchanges_at_once)
        return columns if any(column.above for column in columns) else []

    def _rewritten_digits(self) -> set[int]:
        """The digits of the first whole, from the right, over which regrouping wrote another."""
        if self.regrouped is None:
            return set()
        old, new = parts(self.columns[-1].terms[0][1])[0], parts(self.regrouped.number)[0]
        return {i for i, _, above in _changed_digits(old, new) if above}

    def _lend(self, place: _Place) -> None:
        """What the tens lend to the ones in the wholes, as in whole numbers."""
        lent = self._lent()
        if not lent:
            return
        rewritten = self._rewritten_digits()
        self.pen.moment(self.results[0].step, ("In the <wholes>, the ones take ten from the left.",))
        for i, (column, over) in enumerate(zip(lent, heights_over(lent), strict=True)):
            x = place.digit(i)
            base = below = self.top - SQUARE // 2 if i in rewritten else self.top
            for digit, height in zip(column.above, over, strict=True):
                self.pen.strike_at(x, below)
                below = base - height
                size: Size = "small" if digit > 9 else "half"
                self.pen.write([Cell(x, below, str(digit), size, "carried")])

    def _place_results(self, place: _Place) -> None:
        y = self.top + LINE * len(self.columns[0].terms)
        for i, one in enumerate(self.results):
            role: Role = "answer" if i == len(self.results) - 1 else ""
            if i:
                self.pen.moment(one.step, self.working.steps[one.step].title)
                self.pen.sign(characters("=", place.x - SQUARE, y + LINE * i, "tall", ""))
                self._place_number(one.number, place, y + LINE * i, role, 0)
            else:
                self._first_result(one, place, y, role)
        if not self.results:
            self.pen.rule(Rule(0, y - SQUARE // 2, place.end, ""))

    def _first_result(self, one: Result, place: _Place, y: int, role: Role) -> None:
        """The number right under the rule: its fraction and its whole one after the other, where the class works them
        so.
        """
        step = self.working.steps[one.step]
        rule = Rule(0, y - SQUARE // 2, place.end, "")
        mixed = isinstance(one.number, Mixed)
        if mixed and step.kind is SUBTRACT and len(step.lines) == 2:
            self.pen.moment(one.step, step.lines[0])
            self.pen.rule(rule)
            self._place_number(one.number, place, y, role, 0, partial(self._to_wholes, place, one.step, step.lines[1]))
        elif mixed and self.carry is not None:
            self._carry(place)
            self.pen.rule(rule)
            wholes = next(s for s in self.working.steps[self.carry + 1 :] if s.kind in (ADD_WHOLES, JOIN))
            self._place_number(one.number, place, y, role, 0, partial(self._to_wholes, place, one.step, wholes.title))
        else:
            self._carry(place)
            self._lend(place)
            self.pen.moment(one.step, step.title)
            self.pen.rule(rule)
            self._place_number(one.number, place, y, role, 0)

    def _to_wholes(self, place: _Place, step: int, title: Rich) -> None:
        """After the fractions come the wholes."""
        self._lend(place)
        self.pen.moment(step, title)

    # What is said of it ------------------------------------------------------------------------------------------

    def _spoken(self) -> str:
        said = [f"Stacked: {words(self.working.problem.expr)}."]
        for before, after in zip(self.columns, self.columns[1:], strict=False):
            pairs = zip(before.terms, after.terms, strict=True)
            said += [f"{words(a)} equals {words(b)}." for (_, a), (_, b) in pairs if a != b]
        if self.regrouped is not None:
            old, new = parts(self.columns[-1].terms[0][1]), parts(self.regrouped.number)
            changed = _changed_digits(old[0], new[0])
            struck, above = ["".join(digits) for digits in zip(*[pair for _, *pair in changed], strict=True)]
            where = "The" if len(struck) == len(str(old[0])) else f"Of the {old[0]} <wholes> the"
            said.append(f"{where} {struck} is crossed out, {above or 'nothing'} stands above it.")
            if self._cuts_a_plain_whole():
                said.append(f"Beside it stands {words(Frac(new[1], new[2]))}.")
            else:
                said.append(f"The <numerator> {old[1]} is crossed out, {new[1]} stands above it.")
        said += ["In the <wholes>, the ones take ten from the left."] if self._lent() else []
        said += [f"{_carried(self.working)} is carried to the <wholes>."] if self.carry is not None else []
        said += (
            [f"Under the rule: {', equals '.join(words(one.number) for one in self.results)}."] if self.results else []
        )
        said += [] if self.results else [f"The answer is {words(self.working.answer)}."]
        return " ".join(said)


@dataclass(frozen=True, slots=True)
class _Place:
    """Where the numbers of a column stand: wholes right-aligned in *whole*, fractions centred in *part* behind them."""

    x: int
    whole: int
    part: int

    @property
    def end(self) -> int:
        return self.x + self.whole + self.part

    def whole_from(self, digits: str) -> int:
        """Where *digits* begin, so that they end with the other wholes."""
        return self.x + self.whole - SQUARE * len(digits)

    def digit(self, i: int) -> int:
        """Where digit *i* of the wholes stands, from the right."""
        return self.x + self.whole - SQUARE * (i + 1)

    def part_from(self, width: int) -> int:
        """Where a fraction *width* half squares wide begins."""
        return self.x + self.whole + (self.part - width) // 2


def _changed_digits(old: int, new: int) -> list[tuple[int, str, str]]:
    """The digits in which two wholes differ, from the left: the place from the right, what stood there, what stands
    there now.

    >>> _changed_digits(62, 61), _changed_digits(100, 99), _changed_digits(7, 0)
    ([(0, '2', '1')], [(2, '1', ''), (1, '0', '9'), (0, '0', '9')], [(0, '7', '')])
    """
    before = str(old)
    after = f"{new or '':>{len(before)}}"
    places = range(len(before) - 1, -1, -1)
    return [(i, a, b.strip()) for i, a, b in zip(places, before, after, strict=True) if a != b]


def _carried(working: Working) -> int:
    """The wholes that the fraction column makes."""
    _, num, den = parts(working.raw)
    return num // den


def _part_width(number: Unsigned) -> int:
    _, n, d = parts(number)
    return 0 if isinstance(number, Whole) else max(width_of(str(n), "half"), width_of(str(d), "half"))


def _plain(expr: Expr) -> list[Unsigned]:
    """*expr* where it is one unsigned number, else nothing."""
    return [] if isinstance(expr, Neg) or not isinstance(expr, (Whole, Frac, Mixed)) else [expr]
