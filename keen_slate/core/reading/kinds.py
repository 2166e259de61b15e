"""Which kind of problem an expression is, told from its form alone."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..expressions.tree import Bracket, Dec, Equation, Expr, Frac, Mixed, Neg, Open, OverBar, Power, Product, Sum, Whole
from ..expressions.walks import children, has_blank, leaves

Kind = Literal[
    "simplify", "convert", "equivalent", "add-subtract", "decimal", "multiply-divide", "order", "missing", "story"
]  # fmt: skip

# The form in which a lone number is asked for.
Target = Literal["improper", "mixed", "fraction", "decimal"]

KIND_NAMES: dict[Kind, str] = {
    "simplify": "a number to simplify",
    "convert": "a number to convert",
    "equivalent": "a chain of equal fractions",
    "add-subtract": "adding and subtracting fractions and <mixed numbers>",
    "decimal": "a decimal calculation",
    "multiply-divide": "multiplying and dividing fractions",
    "order": "a problem on the order of operations",
    "missing": "a problem with a missing number",
    "story": "a story",
}


@dataclass(frozen=True, slots=True)
class Complaint:
    """Why an expression that reads well is no problem, and what to do."""

    message: str
    hint: str


def kind_of(expr: Expr) -> tuple[Kind, Complaint | None]:
    """The kind of *expr*, or (with any kind) the complaint that it is none.

    >>> from ..expressions.tree import Frac, Sum
    >>> kind_of(Sum(Frac(1, 2), (("+", Frac(1, 3)),)))
    ('add-subtract', None)
    """
    if isinstance(expr, Equation):
        return _kind_of_equation(expr)
    if has_blank(expr):
        return "missing", Complaint(
            "A blank is to be found, and nothing says what it makes.",
            "Write an equals sign and the total, like 5/8 + _ = 1 1/4.",
        )
    operands = children(expr) if isinstance(expr, (Sum, Product)) else (expr,)
    if not all(_is_signed_number(operand) for operand in operands):
        return "order", None
    if isinstance(expr, Sum):
        return _kind_of_sum(operands), None
    if isinstance(expr, Product):
        return _kind_of_product(operands), None
    return "simplify", None


def _is_signed_number(expr: Expr) -> bool:
    inner = expr.inner if isinstance(expr, Neg) else expr
    return not isinstance(inner, (Neg, Sum, Product, Power, Bracket, Equation, OverBar))


def _holds(operands: tuple[Expr, ...], *forms: type) -> bool:
    return any(isinstance(leaf, forms) for operand in operands for leaf in leaves(operand))


def _kind_of_sum(terms: tuple[Expr, ...]) -> Kind:
    fractions, decimals = _holds(terms, Frac, Mixed), _holds(terms, Dec)
    if fractions and decimals:
        return "order"
    if decimals:
        return "decimal"
    if fractions:
        return "add-subtract"
    plain_pair = len(terms) == 2 and all(isinstance(term, Whole) for term in terms)
    return "add-subtract" if plain_pair else "order"


def _kind_of_product(factors: tuple[Expr, ...]) -> Kind:
    if _holds(factors, Frac, Mixed):
        return "multiply-divide"
    if _holds(factors, Dec):
        return "decimal"
    return "multiply-divide" if len(factors) == 2 else "order"


def _kind_of_equation(expr: Equation) -> tuple[Kind, Complaint | None]:
    if not has_blank(expr):
        return "missing", Complaint(
            "Nothing is missing in this equation.", "Write _ for what is to be found, or leave out the equals sign."
        )
    if all(isinstance(side, (Whole, Frac, Mixed, Open)) for side in expr.sides):
        return "equivalent", None
    if len(expr.sides) > 2:
        return "missing", Complaint(
            "A problem with a missing number has one equals sign.", "Leave out all equals signs but one."
        )
    if not all(_is_plain_sum(side) for side in expr.sides):
        return "missing", Complaint(
            "A blank is only found in a sum or a difference.", "Use + and - without brackets around the blank."
        )
    return "missing", None


def _is_plain_sum(side: Expr) -> bool:
    terms = children(side) if isinstance(side, Sum) else (side,)
    return all(_is_signed_number(term) for term in terms)
