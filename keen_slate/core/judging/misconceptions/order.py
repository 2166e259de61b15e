"""Misconceptions about the order of operations, each the same evaluator with another rule."""

from __future__ import annotations

from dataclasses import dataclass, field
from fractions import Fraction

from ...errors import CoreError
from ...expressions.brackets import without_brackets
from ...expressions.sentences import Rich
from ...expressions.tree import Bracket, Dec, Expr, Frac, Mixed, Neg, Operator, Power, Product, Sum, mixed, value
from ...expressions.walks import children, leaves
from ...reading.problem import problem_of
from .registry import Case, Wrong, misconception
from .stories import in_told_order

_Chain = list[tuple[Operator, Fraction]]  # the first with "+" or "×"


@dataclass
class _Pupil:
    """Works an expression by *rule*; *done* are the operations in the order in which they are done."""

    rule: str
    done: list[tuple[Fraction, str, Fraction, Fraction]] = field(default_factory=list)

    def work(self, expr: Expr) -> Fraction:
        match expr:
            case Bracket(inner):
                return self.work(inner)
            case Neg(inner):
                return -self.work(inner)
            case Power(base, exponent):
                number = self.work(base)
                if self.rule == "power-as-times" and exponent > 1:
                    return self._do(number, "×", Fraction(exponent))
                result = number**exponent
                self.done.append((number, "^", Fraction(exponent), result))
                return result
            case Sum() | Product():
                return self._chain(expr)
        return value(expr)

    def _chain(self, expr: Sum | Product) -> Fraction:
        if self.rule == "left-to-right":
            return self._in_turn(self._flat(expr))
        numbers: _Chain = [("+", self.work(expr.first)), *[(o, self.work(e)) for o, e in expr.rest]]
        if self.rule == "multiply-before-divide" and isinstance(expr, Product):
            return self._in_turn(self._grouped(numbers, "÷", "×"))
        if self.rule == "add-before-subtract" and isinstance(expr, Sum):
            return self._in_turn(self._grouped(numbers, "-", "+"))
        return self._in_turn(numbers)

    def _flat(self, expr: Expr) -> _Chain:
        """The numbers and operators as they stand, products not held together; brackets and powers worked first."""
        if not isinstance(expr, (Sum, Product)):
            return [("+", self.work(expr))]
        flat = self._flat(expr.first)
        for operator, operand in expr.rest:
            (_, first), *rest = self._flat(operand)
            flat += [(operator, first), *rest]
        return flat

    def _grouped(self, numbers: _Chain, later: Operator, sooner: Operator) -> _Chain:
        """Every run of *sooner* operations done first, also after a *later* one."""
        groups: _Chain = [numbers[0]]
        for operator, number in numbers[1:]:
            if operator == sooner:
                before, sofar = groups[-1]
                groups[-1] = (before, self._do(sofar, sooner, number))
            else:
                groups.append((later, number))
        return groups

    def _in_turn(self, numbers: _Chain) -> Fraction:
        result = numbers[0][1]
        for operator, number in numbers[1:]:
            result = self._do(result, operator, number)
        return result

    def _do(self, a: Fraction, operator: str, b: Fraction) -> Fraction:
        if operator == "+":
            result = a + b
        elif operator == "-":
            result = a - b
        elif operator == "×":
            result = a * b
        else:
            result = a * Fraction(b.denominator, b.numerator)
        self.done.append((a, operator, b, result))
        return result


def _wrong(case: Case, rule: str) -> Wrong | None:
    """What a pupil with *rule* writes; None where the operations are done as they should be."""
    expr = case.working.problem.expr
    pupil, right = _Pupil(rule), _Pupil("right")
    result = pupil.work(expr)
    right.work(expr)
    if pupil.done == right.done:
        return None
    return Wrong(written(case, result), tuple([_line(*done) for done in pupil.done]))


def _comes_after(expr: Expr, sooner: Operator, later: Operator) -> bool:
    """Whether a *sooner* operation stands after a *later* one in a chain of *expr*: only there the order of the two
    matters.
    """
    if isinstance(expr, (Sum, Product)):
        operators = [operator for operator, _ in expr.rest]
        if later in operators and sooner in operators[operators.index(later) :]:
            return True
    return any(_comes_after(part, sooner, later) for part in children(expr))


def written(case: Case, number: Fraction) -> Expr:
    """*number* as the class would leave it: a decimal where all numbers are decimals and it ends."""
    numbers = leaves(case.working.problem.expr)
    decimals = any(isinstance(n, Dec) for n in numbers) and not any(isinstance(n, (Frac, Mixed)) for n in numbers)
    size = abs(number)
    plain: Expr = case.finished(size)
    scale = 10**6
    if decimals and size.denominator > 1 and (size * scale).denominator == 1:
        whole, rest = divmod((size * scale).numerator, scale)
        plain = Dec(whole, f"{rest:06}".rstrip("0"))
    return Neg(plain) if number < 0 else plain


def _line(a: Fraction, operator: str, b: Fraction, result: Fraction) -> Rich:
    second = mixed(b)
    if operator == "^":
        return (mixed(a), "^", second, " = ", mixed(result))
    return (mixed(a), f" {operator} ", Bracket(second) if isinstance(second, Neg) else second, " = ", mixed(result))


@misconception(
    "left-to-right",
    name="worked from left to right",
    reason="Reads a calculation as a sentence and does each operation as it comes.",
    question="Which operation binds more tightly?",
    kinds=("order",),
    example="4 + 6 × 2",
    often=3,
)
def left_to_right(case: Case) -> Wrong | None:
    return _wrong(case, "left-to-right")


@misconception(
    "multiply-before-divide",
    name="multiplied before dividing",
    reason="Takes the word order of a rule for its meaning: multiplication first, then division.",
    question="Does multiplying really come before dividing, or do they take turns from the left?",
    kinds=("order", "multiply-divide"),
    example="24 ÷ 4 × 3",
)
def multiply_before_divide(case: Case) -> Wrong | None:
    return _wrong(case, "multiply-before-divide") if _comes_after(case.working.problem.expr, "×", "÷") else None


@misconception(
    "add-before-subtract",
    name="added before subtracting",
    reason="Takes the word order of a rule for its meaning: addition first, then subtraction.",
    question="You have 9, give away 4 and get 3: how many have you?",
    kinds=("order", "add-subtract", "decimal"),
    example="9 - 4 + 3",
)
def add_before_subtract(case: Case) -> Wrong | None:
    return _wrong(case, "add-before-subtract") if _comes_after(case.working.problem.expr, "+", "-") else None


@misconception(
    "power-as-times",
    name="took the exponent for a factor",
    reason="Reads a small raised number as one to multiply by.",
    question="How often is the base a factor?",
    kinds=("order",),
    example="7^2 + 1",
    often=3,
)
def power_as_times(case: Case) -> Wrong | None:
    return _wrong(case, "power-as-times")


@misconception(
    "brackets-ignored",
    name="took no notice of the brackets",
    reason="Works in the right order, but as if the brackets were not there.",
    question="What do the brackets hold together?",
    kinds=("order",),
    example="5 × (2 + 3)",
)
def brackets_ignored(case: Case) -> Wrong | None:
    expr = case.working.problem.expr
    bare = without_brackets(expr)
    if bare is None or bare == expr:
        return None
    try:
        without = problem_of(bare).expr
    except CoreError:
        return None
    pupil, right = _Pupil("right"), _Pupil("right")
    result = pupil.work(without)
    right.work(expr)
    if pupil.done == right.done:
        return None
    return Wrong(written(case, result), ((without,), *[_line(*done) for done in pupil.done]))


@misconception(
    "order-as-told",
    name="took the smaller from the larger, as told",
    reason="Always begins with the larger number, whichever is to be taken from which.",
    question="Which number is there at first? Can so much be taken from it?",
    kinds=("add-subtract", "decimal", "story"),
    example="3 - 7",
    often=3,
)
def order_as_told(case: Case) -> Wrong | None:
    if case.story is not None:
        return in_told_order(case)
    match case.working.problem.expr, case.working.answer:
        case Sum(first, (("-", second),)), Neg(difference) if not isinstance(first, Neg) and not isinstance(
            second, Neg
        ):
            return Wrong(difference, ((second, " - ", first, " = ", difference),))
    return None
