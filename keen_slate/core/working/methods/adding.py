"""Adding whole, mixed and plain fractions, by the way of `Ways.mixed_add`.

A way is given the unsigned terms and their inks, writes its steps, and returns the sum as one number in the
common denominator. A fraction without a whole beside it is left improper, for the next pair or for `forms.finish`.
"""

from __future__ import annotations

from collections.abc import Callable

from ...expressions.spoken import parts_name
from ...expressions.terms import Unsigned, join_terms, parts
from ...expressions.tree import Expr, Frac, Mixed, Sum, Whole, make
from ...expressions.typeset import Role, Roles
from ..scribe import Scribe
from ..sketches import column_sum
from ..step_kinds import ADD, ADD_FRACTIONS, ADD_WHOLES, CARRY_WHOLE, JOIN, TO_MIXED
from .common_denominator import common_for, to_common, write_common
from .forms import split_lines
from .improper import all_improper
from .one_bar import over_one_bar

Inked = list[tuple[Frac, Role]]


def add(scribe: Scribe, terms: list[Unsigned], roles: Roles) -> Unsigned:
    """Add *terms* in the way of the class; where there are no wholes among fractions all ways are the same."""
    if all(isinstance(term, Whole) for term in terms):
        return _add_wholes_only(scribe, terms)
    if not any(isinstance(term, (Whole, Mixed)) for term in terms):
        return wholes_first(scribe, terms, roles)
    return WAYS[scribe.ways.mixed_add](scribe, terms, roles)


def _add_wholes_only(scribe: Scribe, terms: list[Unsigned]) -> Whole:
    numbers = [parts(term)[0] for term in terms]
    total = sum(numbers)
    line = f"{' + '.join(map(str, numbers))} = {total}"
    scribe.write(ADD, Whole(total), ("Add the <wholes>.",), ("There are no fractions here.",), ((line,),))
    return Whole(total)


# Wholes first ------------------------------------------------------------------------------------------------


def wholes_first(scribe: Scribe, terms: list[Unsigned], roles: Roles) -> Unsigned:
    """Add the wholes and set them aside; add the fractions, tidy, join."""
    split = [parts(term) for term in terms]
    whole = sum(w for w, _, _ in split)
    fractions: Inked = [
        (Frac(n, d), role)
        for term, (_, n, d), role in zip(terms, split, roles, strict=True)
        if not isinstance(term, Whole)
    ]
    with_whole = sum(isinstance(term, (Whole, Mixed)) for term in terms)
    _set_wholes_aside(scribe, terms, whole, fractions, with_whole)
    beside = Whole(whole) if with_whole else None
    fractions = _fractions_to_common(scribe, fractions, beside)
    total = _add_fractions(scribe, [f for f, _ in fractions], beside)
    return _tidy_and_join(scribe, total, beside)


def _beside(beside: Whole | None, fractions: list[Expr]) -> Expr:
    """The wholes that stand apart, plus *fractions*."""
    every: list[Expr] = [*([beside] if beside else []), *fractions]
    return Sum(every[0], tuple([("+", f) for f in every[1:]])) if len(every) > 1 else every[0]


def _set_wholes_aside(scribe: Scribe, terms: list[Unsigned], whole: int, fractions: Inked, with_whole: int) -> None:
    if not with_whole or (with_whole == 1 and len(terms) == 2 and len(fractions) == 1):
        return  # nothing to set aside, or a whole and a fraction that only have to be joined
    wholes = [str(parts(t)[0]) for t in terms if isinstance(t, (Whole, Mixed))]
    scribe.write(
        ADD_WHOLES,
        _beside(Whole(whole), [f for f, _ in fractions]),
        ("Add the <wholes> and set them aside.",) if with_whole > 1 else (f"Set the {whole} aside.",),
        ("<Wholes> and parts of a <whole> are counted apart.",),
        ((f"{' + '.join(wholes)} = {whole}",),) if with_whole > 1 else (),
        ("", *(role for _, role in fractions)),
    )


def _fractions_to_common(scribe: Scribe, fractions: Inked, beside: Whole | None) -> Inked:
    denominators = tuple([f.den for f, _ in fractions])
    if len(set(denominators)) < 2:
        return fractions
    d = common_for(denominators, scribe.ways.common_denominator)
    scaled = [(Frac(f.num * (d // f.den), d), role) for f, role in fractions]
    inks = tuple([role for _, role in scaled])
    roles: Roles = ("", *inks) if beside else inks
    write_common(scribe, [f for f, _ in fractions], denominators, _beside(beside, [f for f, _ in scaled]), roles)
    return scaled


def _add_fractions(scribe: Scribe, fractions: list[Frac], beside: Whole | None) -> Frac:
    if len(fractions) == 1:
        return fractions[0]
    den = fractions[0].den
    tops = [f.num for f in fractions]
    total = Frac(sum(tops), den)
    over_one_bar(scribe, fractions, lambda top: _beside(beside, [top]))
    scribe.write(
        ADD_FRACTIONS if beside else ADD,
        _beside(beside, [total]),
        (f"Count the {parts_name(den, True)} together.",),
        ("The pieces are the same size, so only the <numerators> are added; the <denominator> names the size.",),
        ((column_sum(tops),),),
    )
    return total


def _tidy_and_join(scribe: Scribe, total: Frac, beside: Whole | None) -> Unsigned:
    if beside is None:
        return total
    num, den = total.num, total.den
    scribe.raw = Mixed(beside.n, num, den) if num and beside.n else None
    more, rest = divmod(num, den)
    if more:
        scribe.write(
            TO_MIXED,
            _beside(beside, [make(more, rest, den)]),
            (f"Every {den} {parts_name(den, True)} make a <whole>.",),
            ("The fractions hold more than their own share: take the full <wholes> out.",),
            split_lines(scribe, num, den),
            facts=((more, den),),
        )
    joined = make(beside.n + more, rest, den)
    scribe.write(
        JOIN,
        joined,
        ("Join the <wholes> and the fraction.",),
        (),
        ((f"{beside.n} + {more} = {beside.n + more}",),) if more else (),
    )
    return joined


# Fractions first ---------------------------------------------------------------------------------------------


def fractions_first(scribe: Scribe, terms: list[Unsigned], roles: Roles) -> Unsigned:
    """The fraction column first; a whole that fills up is carried into the column of wholes."""
    terms = [t for _, t in to_common(scribe, [(1, term) for term in terms], roles)]
    wholes = [w for w, _, _ in map(parts, terms) if w]
    fractions = [Frac(n, d) for t, (_, n, d) in zip(terms, map(parts, terms), strict=True) if not isinstance(t, Whole)]
    den = fractions[0].den
    tops = [f.num for f in fractions]
    num = sum(tops)
    more, rest = divmod(num, den)
    if len(terms) == 2 and len(fractions) == 1 and len(wholes) == 1 and not isinstance(terms[0], Mixed) and not more:
        return _tidy_and_join(scribe, fractions[0], Whole(wholes[0]))
    over_one_bar(scribe, fractions, lambda top: _column(wholes, [top]))
    scribe.write(
        ADD_FRACTIONS,
        _column(wholes, [Frac(num, den)]),
        (f"The fraction column first: count the {parts_name(den, True)}.",),
        ("Start with the smallest pieces, as in any column addition.",),
        ((f"{' + '.join(map(str, tops))} = {num}",),) if len(tops) > 1 else (),
    )
    plain: Roles = ("",)
    if more:
        scribe.write(
            CARRY_WHOLE,
            _column([*wholes, more], _kept(scribe, rest, den)),
            (f"{den} {parts_name(den, True)} are a <whole>: carry {more}.",),
            (),
            split_lines(scribe, num, den),
            plain * len(wholes) + ("carried",),
            ((more, den),),
        )
    return _add_whole_column(scribe, [*wholes, *([more] if more else [])], num, den)


def _kept(scribe: Scribe, rest: int, den: int) -> list[Expr]:
    """What is left in the fraction column; a class may write that it is nothing."""
    return [Frac(rest, den)] if rest or scribe.ways.zero_part == "write" else []


def _column(wholes: list[int], fractions: list[Expr]) -> Expr:
    every = [*map(Whole, wholes), *fractions]
    return Sum(every[0], tuple([("+", e) for e in every[1:]])) if len(every) > 1 else every[0]


def _add_whole_column(scribe: Scribe, wholes: list[int], num: int, den: int) -> Unsigned:
    rest = num % den
    carried = num // den
    total = sum(wholes)
    scribe.raw = Mixed(total - carried, num, den) if num and total > carried else None
    if len(wholes) > 1:
        scribe.write(
            ADD_WHOLES,
            _column([total], _kept(scribe, rest, den)),
            ("Then the column of <wholes>.",),
            ("The carried <whole> is counted with them.",) if carried else ("<Wholes> are added to <wholes>.",),
            ((f"{' + '.join(map(str, wholes))} = {total}",),),
        )
    joined = Mixed(total, rest, den) if _kept(scribe, rest, den) else Whole(total)
    scribe.write(JOIN, joined, ("Write the two columns as one number.",), ("They stand side by side.",))
    return joined


# All improper --------------------------------------------------------------------------------------------------


def improper(scribe: Scribe, terms: list[Unsigned], roles: Roles) -> Unsigned:
    """Every term as one fraction, then added like plain fractions."""
    fractions = all_improper(scribe, [(1, term) for term in terms], roles)
    return wholes_first(scribe, [t for _, t in fractions], roles)


def wholes_then_improper(scribe: Scribe, terms: list[Unsigned], roles: Roles) -> Unsigned:
    """The wholes together, beside the first fraction; then every term as one fraction."""
    split = [parts(term) for term in terms]
    fractions = [
        (i, n, d) for i, (term, (_, n, d)) in enumerate(zip(terms, split, strict=True)) if not isinstance(term, Whole)
    ]
    wholes = [w for w, _, _ in split if w]
    if len(wholes) > 1:
        (_, n, d), *others = fractions
        terms = [make(sum(wholes), n, d) if n else Whole(sum(wholes)), *[Frac(m, e) for _, m, e in others]]
        roles = tuple([roles[i] for i, _, _ in fractions])
        scribe.write(
            ADD_WHOLES,
            join_terms([(1, term) for term in terms]),
            ("Add the <wholes>.",),
            ("What remains is worked as fractions.",),
            ((f"{' + '.join(map(str, wholes))} = {sum(wholes)}",),),
            roles,
        )
    if len(terms) == 1:
        return terms[0]
    return improper(scribe, terms, roles)


def fractions_wholes_tidy(scribe: Scribe, terms: list[Unsigned], roles: Roles) -> Unsigned:
    """The fractions, then the wholes, written as one number; what the fraction holds too much is cut off and carried at
    the end.
    """
    terms = [t for _, t in to_common(scribe, [(1, term) for term in terms], roles)]
    wholes = [w for w, _, _ in map(parts, terms) if w]
    fractions = [Frac(n, d) for t, (_, n, d) in zip(terms, map(parts, terms), strict=True) if not isinstance(t, Whole)]
    if len(terms) == 2 and len(fractions) == 1 and len(wholes) == 1 and not isinstance(terms[0], Mixed):
        return _tidy_and_join(scribe, fractions[0], Whole(wholes[0]))
    tops, den = [f.num for f in fractions], fractions[0].den
    num, total = sum(tops), sum(wholes)
    if len(tops) > 1:
        over_one_bar(scribe, fractions, lambda top: _column(wholes, [top]))
        scribe.write(
            ADD_FRACTIONS,
            _column(wholes, [Frac(num, den)]),
            (f"First the fractions: count the {parts_name(den, True)}.",),
            (),
            ((f"{' + '.join(map(str, tops))} = {num}",),),
        )
    if len(wholes) > 1:
        scribe.write(
            ADD_WHOLES,
            _column([total], [Frac(num, den)]),
            ("Then the <wholes>.",),
            ("<Wholes> are added to <wholes>.",),
            ((f"{' + '.join(map(str, wholes))} = {total}",),),
        )
    if not num:
        return _tidy_and_join(scribe, Frac(num, den), Whole(total))
    scribe.write(JOIN, Mixed(total, num, den), ("Write them as one number.",), ("They stand side by side.",))
    more, rest = divmod(num, den)
    if not more:
        return Mixed(total, num, den)
    scribe.raw = Mixed(total, num, den)
    scribe.write(
        TO_MIXED,
        _column([total], [*([Frac(more * den, den)]), *([Frac(rest, den)] if rest else [])]),
        (
            f"Every {den} {parts_name(den, True)} make a <whole>: cut "
            f"{'them' if more == 1 else f'{more * den} of them'} off.",
        ),
        ("The fraction holds more than its own share.",),
        ((f"{num} = {more * den} + {rest}",),) if rest else (),
        facts=((more, den),),
    )
    joined = make(total + more, rest, den)
    scribe.write(JOIN, joined, (f"Put the {more} with the <wholes>.",), (), ((f"{total} + {more} = {total + more}",),))
    return joined


WAYS: dict[str, Callable[[Scribe, list[Unsigned], Roles], Unsigned]] = {
    "wholes-first": wholes_first,
    "fractions-first": fractions_first,
    "improper": improper,
    "wholes-then-improper": wholes_then_improper,
    "fractions-wholes-tidy": fractions_wholes_tidy,
}
