"""`stacked`: numbers under each other, wholes under wholes, fractions under fractions, as on a careful board.

The terms stand in a column; each step that rewrites them adds a column after an equals sign. Regrouping
crosses out the whole and the numerator and writes the new ones above. Then comes a rule, and under it the
result with the wholes under the wholes. Steps that do not keep the terms apart follow as lines below.
"""

from __future__ import annotations

from ..expressions.spoken import words
from ..expressions.terms import Unsigned, parts, scaled, signed_terms
from ..expressions.tree import Expr, Frac, Mixed, Neg, Sum, Whole, value
from ..expressions.typeset import TERM_ROLES, Role
from ..working.proof import Working
from ..working.step_kinds import ADD, ADD_FRACTIONS, ADD_WHOLES, CARRY_WHOLE, REGROUP, REORDER
from .cells import NUMBER_HEIGHT, SQUARE, Cell, Rule, characters, fraction
from .columns import columns_of
from .line import step_row
from .registry import Laid, layout
from .sheet import Sheet

LINE = NUMBER_HEIGHT + SQUARE  # a number and the square between it and the next
Column = list[tuple[int, Unsigned]]


@layout("stacked")
def stacked(working: Working) -> Laid | None:
    """The stacked working, decimals in columns; None where there is nothing to stack."""
    sheet = columns_of(working) or stack_of(working)
    return Laid(sheet) if sheet else None


def stack_of(working: Working) -> Sheet | None:
    """Numbers under each other; None where there is nothing to stack (a lone number, or no step)."""
    first = _column(working.problem.expr) if working.problem.kind == "add-subtract" else None
    if first is None or len(first) < 2 or not working.steps:
        return None
    return _Stack(working, first).sheet()


def _column(expr: Expr) -> Column | None:
    """The terms of a plain sum, each with its operator's sign; None for anything else."""
    if not isinstance(expr, Sum):
        return None
    terms = signed_terms(expr)
    plain = [(sign, term) for sign, term in terms if isinstance(term, (Whole, Frac, Mixed))]
    return plain if len(plain) == len(terms) else None


class _Stack:
    def __init__(self, working: Working, first: Column) -> None:
        self.working = working
        self.columns: list[Column] = [first]
        self.regrouped: Unsigned | None = None
        self.used = self._rewriting_steps()
        self.carried = _carried(working)
        self._scale_before_adding()

    def _rewriting_steps(self) -> int:
        """Take up the steps that keep the terms apart; returns how many there were."""
        signs = [sign for sign, _ in self.columns[0]]
        for i, step in enumerate(self.working.steps):
            column = _column(step.after)
            if column is None or [sign for sign, _ in column] != signs or step.kind in (REORDER, ADD_WHOLES):
                return i
            before = self.columns[-1][0][1]
            if step.kind is REGROUP and isinstance(before, Mixed) and before.num:
                self.regrouped = column[0][1]
            else:
                self.columns.append(column)
        return len(self.working.steps)

    def _scale_before_adding(self) -> None:
        """Where the wholes were added first, the terms are shown in the common denominator all the same."""
        d = self.working.used_denominator
        last = self.columns[-1]
        dens = {term.den for _, term in last if not isinstance(term, Whole)}
        if self._is_addition() and d and len(dens) > 1 and all(d % den == 0 for den in dens):
            self.columns.append([(sign, scaled(term, d)) for sign, term in last])

    def _is_addition(self) -> bool:
        return all(sign > 0 for sign, _ in self.columns[0])

    def _results(self) -> tuple[list[Unsigned], list[int]]:
        """The numbers under the rule, and the steps that have to follow as lines because they are not one number."""
        rest = range(self.used, len(self.working.steps))
        singles = [(i, self.working.steps[i].after) for i in rest]
        if self._is_addition():
            raw = self.working.raw
            numbers: list[Expr] = [raw] if value(raw) == self.working.value else []
            numbers += [after for i, after in singles if self.working.steps[i].kind not in (ADD_FRACTIONS, ADD)]
            kept = [n for n in numbers if isinstance(n, (Whole, Frac, Mixed))]
            return list(dict.fromkeys([*kept, *_plain(self.working.answer)])), []
        if all(_plain(after) for _, after in singles):
            return [number for _, after in singles for number in _plain(after)], []
        return [], list(rest)

    # Placing ---------------------------------------------------------------------------------------------------

    def sheet(self) -> Sheet:
        self.cells: list[Cell] = []
        self.rules: list[Rule] = []
        self.top = SQUARE if self.regrouped is not None or self.carried else 0
        results, lines = self._results()
        x = SQUARE
        for number, column in enumerate(self.columns):
            last = number == len(self.columns) - 1
            x = self._place_column(x, column, results if last else [], lead="" if number == 0 else "=")
        width = x
        y = self.top + LINE * len(self.columns[0]) + LINE * max(1, len(results)) - SQUARE
        for i in lines:
            row = step_row(self.working, i)
            self.cells += [_moved(cell, y - NUMBER_HEIGHT + SQUARE) for cell in row.cells]
            self.rules += [Rule(r.x, r.y + y - NUMBER_HEIGHT + SQUARE, r.w, r.role) for r in row.rules]
            y += row.height + SQUARE
            width = max(width, row.width)
        return Sheet(width, y + SQUARE, tuple(self.cells), tuple(self.rules), self._spoken(results))

    def _place_column(self, x: int, column: Column, results: list[Unsigned], lead: str) -> int:
        """Place one column of terms, and the results under the last one; returns the x after it."""
        numbers = [term for _, term in column] + results
        whole = SQUARE * max([len(str(parts(n)[0])) for n in numbers if not isinstance(n, Frac)], default=0)
        part = SQUARE * max([_part_width(n) for n in numbers], default=0)
        start = x + (2 * SQUARE if lead else 0)
        for i, (sign, term) in enumerate(column):
            y = self.top + LINE * i
            if lead:
                self.cells += characters("=", x, y, "tall", "")
            elif i:
                self.cells += characters("+" if sign > 0 else "−", 0, y, "tall", "")
            role: Role = TERM_ROLES[i % len(TERM_ROLES)]
            struck = self.regrouped if i == 0 and column is self.columns[-1] else None
            self._place_number(term, start, whole, part, y, role, struck)
        end = start + whole + part
        if column is self.columns[-1]:
            if self.carried:
                above = str(self.carried)
                left = start + whole - SQUARE * len(above)
                self.cells += characters(above, left, self.top - SQUARE // 2, "half", "carried")
            self._place_results(results, start, whole, part, end)
        return end

    def _place_results(self, results: list[Unsigned], start: int, whole: int, part: int, end: int) -> None:
        y = self.top + LINE * len(self.columns[0])
        self.rules.append(Rule(0, y - SQUARE // 2, end, ""))
        for i, number in enumerate(results):
            if i:
                self.cells += characters("=", start - SQUARE, y + LINE * i, "tall", "")
            role: Role = "answer" if i == len(results) - 1 else ""
            self._place_number(number, start, whole, part, y + LINE * i, role, None)

    def _place_number(
        self, number: Unsigned, x: int, whole: int, part: int, y: int, role: Role, new: Unsigned | None
    ) -> None:
        """One number, its whole right-aligned in *whole*, its fraction centred in *part*; *new* is written above."""
        w, n, d = parts(number)
        if not isinstance(number, Frac):
            digits = str(w)
            self.cells += characters(digits, x + whole - SQUARE * len(digits), y, "tall", role, struck=new is not None)
        if not isinstance(number, Whole):
            left = x + whole + (part - SQUARE * _part_width(number)) // 2
            cells, bar = fraction(str(n), str(d), left, y, role, struck_top=new is not None)
            self.cells += cells
            self.rules.append(bar)
        if new is not None:
            self._place_above(new, x, whole, part, y)

    def _place_above(self, new: Unsigned, x: int, whole: int, part: int, y: int) -> None:
        w, n, _ = parts(new)
        top = str(n)
        if w:  # a little lower than the numerator, right over its own digit, so that 6 and 15 are not read as 615
            self.cells += characters(str(w), x + whole - SQUARE * len(str(w)), y - SQUARE // 2, "half", "carried")
        left = x + whole + max(0, (part - SQUARE * len(top)) // 2)
        self.cells += characters(top, left, y - SQUARE, "half", "carried")

    def _spoken(self, results: list[Unsigned]) -> str:
        said = [f"Stacked: {words(self.working.problem.expr)}."]
        for before, after in zip(self.columns, self.columns[1:], strict=False):
            pairs = zip(before, after, strict=True)
            said += [f"{words(a)} equals {words(b)}." for (_, a), (_, b) in pairs if a != b]
        if self.regrouped is not None:
            old, new = parts(self.columns[-1][0][1]), parts(self.regrouped)
            said.append(f"The <whole> {old[0]} is crossed out, {new[0] or 'nothing'} stands above it.")
            said.append(f"The <numerator> {old[1]} is crossed out, {new[1]} stands above it.")
        said += [f"{self.carried} is carried to the <wholes>."] if self.carried else []
        said += [f"Under the rule: {', equals '.join(words(n) for n in results)}."] if results else []
        said += [] if results else [f"The answer is {words(self.working.answer)}."]
        return " ".join(said)


def _carried(working: Working) -> int:
    """The wholes that the fraction column carries, where the class adds the fractions first; else 0."""
    if not any(step.kind is CARRY_WHOLE for step in working.steps):
        return 0
    _, num, den = parts(working.raw)
    return num // den


def _part_width(number: Unsigned) -> int:
    _, n, d = parts(number)
    return 0 if isinstance(number, Whole) else max(len(str(n)), len(str(d)))


def _plain(expr: Expr) -> list[Unsigned]:
    """*expr* where it is one unsigned number, else nothing."""
    return [] if isinstance(expr, Neg) or not isinstance(expr, (Whole, Frac, Mixed)) else [expr]


def _moved(cell: Cell, by: int) -> Cell:
    return Cell(cell.x, cell.y + by, cell.text, cell.size, cell.role, cell.below, cell.struck)
