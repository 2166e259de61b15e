"""Subtracting one number from another that is not smaller, by the way of `Ways.mixed_subtract`.

A way is given a >= b >= 0 in one denominator (a plain whole has none) and the inks of the two. It writes its
steps and returns the difference as one number in that denominator. Where a way does not fit the problem it
says so in `Scribe.notes` and regroups.
"""

from __future__ import annotations

from collections.abc import Callable

from ...expressions.sentences import Rich
from ...expressions.spoken import parts_name
from ...expressions.terms import Terms, Unsigned, join_terms, pair, parts
from ...expressions.tree import Expr, Frac, Mixed, Operator, Sum, Whole, make, value
from ...expressions.typeset import Roles
from ..scribe import Scribe
from ..step_kinds import (
    COUNT_BACK,
    REGROUP,
    REWRITE_WHOLE,
    SHIFT_BOTH,
    SUBTRACT,
    SUBTRACT_FRACTIONS,
    SUBTRACT_WHOLES,
    TO_MIXED,
)
from .common_denominator import to_common
from .forms import split_lines
from .improper import all_improper
from .one_bar import over_one_bar

# More jumps than this are no help on a number line.
MOST_JUMPS = 12


def subtract(scribe: Scribe, a: Unsigned, b: Unsigned, roles: Roles) -> Unsigned:
    """a - b in the way of the class; two plain fractions, and wholes from wholes, need no way at all."""
    if isinstance(a, Frac) and isinstance(b, Frac):
        return take_away(scribe, a, b)
    if scribe.ways.mixed_subtract == "improper" and not (isinstance(a, Whole) and isinstance(b, Whole)):
        return _improper(scribe, a, b, roles)
    a, b = _show_wholes(scribe, a, b, roles)
    if isinstance(b, Whole) or parts(b)[1] == 0:
        return take_away(scribe, a, b)
    return WAYS[scribe.ways.mixed_subtract](scribe, a, b, roles)


def _show_wholes(scribe: Scribe, a: Unsigned, b: Unsigned, roles: Roles) -> tuple[Unsigned, Unsigned]:
    """Beside a whole, an improper fraction is written as a mixed number, so that its wholes can be seen."""
    for which in (0, 1):
        old = (a, b)[which]
        _, num, den = parts(old)
        if isinstance(old, Frac) and num >= den:
            more, rest = divmod(num, den)
            new = make(more, rest, den)
            a, b = (new, b) if which == 0 else (a, new)
            scribe.write(
                TO_MIXED,
                pair(a, "-", b),
                ("Write ", old, " as ", new, "."),
                ("Then <wholes> stand with <wholes> and parts with parts.",),
                split_lines(scribe, num, den),
                roles,
                ((more, den),),
            )
    return a, b


def take_away(scribe: Scribe, a: Unsigned, b: Unsigned) -> Unsigned:
    """Subtract part from part and whole from whole; nothing needs regrouping any more."""
    (w, n, d), (v, m, e) = parts(a), parts(b)
    den = d if isinstance(b, Whole) else e
    nothing_left = not isinstance(b, Whole) and n == m
    result = _with_zero(scribe, w - v, den) if nothing_left else make(w - v, n - m, den)
    lines: list[Rich] = []
    if not isinstance(b, Whole):
        lines.append((f"{n} - {m} = {n - m} {parts_name(den, n - m != 1)}",))
    if v:
        lines.append((f"{w} - {v} = {w - v}",))
    said = [] if isinstance(b, Whole) else [f"{m} {parts_name(den, m != 1)}"]
    said += [_wholes(v)] if v or not said else []
    if isinstance(a, Frac) and isinstance(b, Frac):
        over_one_bar(scribe, [a, b], lambda top: top, "-")
    reason = SUBTRACT.reason
    if isinstance(b, Whole):
        reason = "The fraction stays as it is." if n else "<Wholes> are taken from <wholes>."
    scribe.write(SUBTRACT, result, (f"Take away {', then '.join(said)}.",), (reason,), tuple(lines))
    return result


def _with_zero(scribe: Scribe, whole: int, den: int) -> Unsigned:
    """*whole* and no part; a class may write that there is none: 5 0/8, and 0/8 alone."""
    if scribe.ways.zero_part == "skip":
        return Whole(whole)
    return Mixed(whole, 0, den) if whole else Frac(0, den)


def _wholes(n: int) -> str:
    return f"{n} {'<whole>' if n == 1 else '<wholes>'}"


# Regrouping ----------------------------------------------------------------------------------------------------


def regroup(scribe: Scribe, a: Unsigned, b: Unsigned, roles: Roles) -> Unsigned:
    """Take 1 from the whole and add the denominator to the numerator, where the fraction is too small."""
    if isinstance(a, Whole) and scribe.ways.zero_part == "skip":
        return _from_whole(scribe, a, b, roles)
    return take_away(scribe, _regrouped(scribe, a, b, roles), b)


def _regrouped(scribe: Scribe, a: Unsigned, b: Unsigned, roles: Roles) -> Unsigned:
    a = _whole_as_mixed(scribe, a, b, roles)
    whole, num, den = parts(a)
    if num >= parts(b)[1]:
        return a
    cut = make(whole - 1, num + den, den)
    pieces = parts_name(den, True)
    pieces_of: tuple[tuple[Operator, Expr], ...] = (("+", Frac(den, den)), ("+", Frac(num, den)))
    apart = Sum(Whole(whole - 1), pieces_of) if whole > 1 else Sum(Frac(den, den), pieces_of[1:])
    scribe.write(
        REGROUP,
        pair(cut, "-", b),
        (f"{num} is less than {parts(b)[1]}, so <regroup>: cut up <one whole>.",),
        (f"<One whole> is {den} {pieces}; with the {num} there already they make {num + den}.",),
        ((Mixed(whole, num, den), " = ", apart, " = ", cut),),
        ("carried", roles[1]),
    )
    return cut


def _whole_as_mixed(scribe: Scribe, a: Unsigned, b: Unsigned, roles: Roles) -> Unsigned:
    """A plain whole gets a fraction part of 0, in the other's denominator, to be regrouped."""
    if not isinstance(a, Whole):
        return a
    den = parts(b)[2]
    written = Mixed(a.n, 0, den)
    scribe.write(
        REWRITE_WHOLE,
        pair(written, "-", b),
        (f"{a.n} is {_wholes(a.n)} and no {parts_name(den, True)}.",),
        (),
        roles=roles,
    )
    return written


def _from_whole(scribe: Scribe, whole: Whole, b: Unsigned, roles: Roles) -> Unsigned:
    """Take a fraction or a mixed number from a whole: 4 - 5/9 = 3 9/9 - 5/9."""
    den = parts(b)[2]
    cut = make(whole.n - 1, den, den)
    scribe.write(
        REGROUP,
        pair(cut, "-", b),
        (f"<Regroup>: cut <one whole> into {den} {parts_name(den, True)}.",),
        ("The fraction is taken from that <whole>; the others stay.",),
        ((whole, " = ", cut),),
        ("carried", roles[1]),
    )
    return take_away(scribe, cut, b)


# All improper --------------------------------------------------------------------------------------------------


def _improper(scribe: Scribe, a: Unsigned, b: Unsigned, roles: Roles) -> Unsigned:
    """Both as one fraction, so that nothing has to be regrouped."""
    fractions = to_common(scribe, all_improper(scribe, [(1, a), (-1, b)], roles), roles)
    return take_away(scribe, fractions[0][1], fractions[1][1])


def wholes_first_then_improper(scribe: Scribe, terms: Terms, roles: Roles) -> Terms:
    """Take the wholes of the second term away, then write what remains as fractions, where a whole is left beside a
    fraction.

    Terms below zero, and those without a fraction in the second, stay as they are.
    """
    (_, a), (_, b) = terms
    w, v = parts(a)[0], parts(b)[0]
    if isinstance(b, Whole) or value(a) < value(b):
        return terms
    if w < v:  # an improper fraction on top holds the wholes
        return all_improper(scribe, terms, roles)
    if v:
        terms = _take_wholes(scribe, terms, roles)
    return all_improper(scribe, terms, roles) if w > v else terms


def _take_wholes(scribe: Scribe, terms: Terms, roles: Roles) -> Terms:
    """The wholes of the second term taken from those of the first."""
    (_, a), (_, b) = terms
    (w, n, d), (v, m, e) = parts(a), parts(b)
    terms = [(1, make(w - v, n, d) if n else Whole(w - v)), (-1, Frac(m, e))]
    scribe.write(
        SUBTRACT_WHOLES, join_terms(terms), (f"Take away {_wholes(v)}.",), (), ((f"{w} - {v} = {w - v}",),), roles
    )  # fmt: skip
    return terms


def wholes_apart(scribe: Scribe, terms: Terms, roles: Roles) -> Terms:
    """The wholes of the second term are taken away before a common denominator is looked for; others stay as
    they are.
    """
    (_, a), (_, b) = terms
    w, v = parts(a)[0], parts(b)[0]
    return _take_wholes(scribe, terms, roles) if isinstance(b, Mixed) and w >= v and value(a) > value(b) else terms


def _wholes_then_improper(scribe: Scribe, a: Unsigned, b: Unsigned, roles: Roles) -> Unsigned:
    (_, left), (_, taken) = wholes_first_then_improper(scribe, [(1, a), (-1, b)], roles)
    if isinstance(left, Frac) and isinstance(taken, Frac):
        (_, left), (_, taken) = to_common(scribe, [(1, left), (-1, taken)], roles)
    return take_away(scribe, left, taken)


# Below zero ----------------------------------------------------------------------------------------------------


def below_zero(scribe: Scribe, a: Unsigned, b: Unsigned, roles: Roles) -> Unsigned:
    """Wholes and fractions apart; a fraction part below zero is then taken from the whole."""
    (w, n, d), (v, m, den) = parts(a), parts(b)
    here = Whole(w - v)
    if v or isinstance(a, Mixed):
        apart: list[tuple[str, Expr]] = [("+", Frac(n, d))] if not isinstance(a, Whole) else []
        scribe.write(
            SUBTRACT_WHOLES,
            Sum(here, (*apart, ("-", Frac(m, den)))),  # type: ignore[arg-type]
            (f"Take away {_wholes(v)}." if v else "Look at <wholes> and parts apart.",),
            (),
            ((f"{w} - {v} = {w - v}",),) if v else (),
            ("", *(roles[:1] if apart else ()), roles[1]),
        )
    if n >= m:
        return _join_rest(scribe, here, n - m, den)
    short = m - n
    scribe.write(
        SUBTRACT_FRACTIONS,
        pair(here, "-", Frac(short, den)),
        (f"{n} take away {m} is {short} short of 0: {short} {parts_name(den, short != 1)} still to take.",),
        ("The fraction part falls below zero; what is missing comes from the <whole>.",),
        ((f"{n} - {m} = -{short}",),),
        ("", roles[1]),
    )
    return _from_whole(scribe, here, Frac(short, den), ("", roles[1]))


def _join_rest(scribe: Scribe, here: Whole, num: int, den: int) -> Unsigned:
    joined = make(here.n, num, den) if num else _with_zero(scribe, here.n, den)
    scribe.write(
        SUBTRACT_FRACTIONS,
        joined,
        (f"Then the {parts_name(den, True)}.",),
        (),
    )
    return joined


# Counting back ---------------------------------------------------------------------------------------------------


def count_back(scribe: Scribe, a: Unsigned, b: Unsigned, roles: Roles) -> Unsigned:
    """Jumps back on the number line: the wholes, then the fraction, over a whole where one lies between."""
    (w, n, _), (v, m, den) = parts(a), parts(b)
    jumps = v + (1 if n >= m or n == 0 else 2)
    if jumps > MOST_JUMPS:
        scribe.notes.append(f"Counting back would take {jumps} jumps, so this is <regrouped>.")
        return regroup(scribe, a, b, roles)
    left = Frac(m, den)
    here = a if not v else a if isinstance(a, Frac) else make(w - v, n, den) if n else Whole(w - v)
    if v:
        scribe.write(
            COUNT_BACK,
            pair(here, "-", left),
            (f"Jump back {_wholes(v)}.",),
            ("On the number line, whole jumps come first.",),
            ((a, " → ", here),),
            roles,
        )
    if isinstance(here, Whole):
        return _count_pieces(scribe, here, left)
    if n >= m:
        return take_away(scribe, here, left)
    return _over_the_whole(scribe, here, left, roles)


def _over_the_whole(scribe: Scribe, here: Unsigned, left: Frac, roles: Roles) -> Unsigned:
    """Jump back to the whole first, then on by what is left of the fraction."""
    (w, n, _), (_, m, den) = parts(here), parts(left)
    rest = Frac(m - n, den)
    scribe.write(
        COUNT_BACK,
        Sum(here, (("-", Frac(n, den)), ("-", rest))),
        (f"Split the jump of {m} {parts_name(den, m != 1)} at the <whole>.",),
        ("A jump over a <whole> is easier in two.",),
        ((left, " = ", Frac(n, den), " + ", rest),),
        (roles[0], roles[1], roles[1]),
    )
    scribe.write(
        COUNT_BACK,
        pair(Whole(w), "-", rest),
        (f"Jump back {n} {parts_name(den, n != 1)} to {w}.",),
        ("Now a <whole> is reached.",),
        ((here, " → ", Whole(w)),),
        ("", roles[1]),
    )
    return _count_pieces(scribe, Whole(w), rest)


def _count_pieces(scribe: Scribe, here: Whole, left: Frac) -> Unsigned:
    """Count back from a whole, piece by piece."""
    _, m, den = parts(left)
    last = make(here.n - 1, den - m, den)
    scribe.write(
        COUNT_BACK,
        last,
        (f"Count back {m} {parts_name(den, m != 1)} from {here.n}.",),
        (f"Each piece is one {parts_name(den, False)}; the first one is taken from a <whole>.",),
        (_counted(here, m, den),) if m <= MOST_JUMPS else (),
    )
    return last


def _counted(here: Whole, m: int, den: int) -> Rich:
    """Each number that is reached: 3 → 2 4/5 → 2 3/5."""
    reached = [make(here.n - 1, den - k, den) for k in range(1, m + 1)]
    return (here, *[part for number in reached for part in (" → ", number)])


# Same difference -------------------------------------------------------------------------------------------------


def same_difference(scribe: Scribe, a: Unsigned, b: Unsigned, roles: Roles) -> Unsigned:
    """Add the same amount to both, so that a whole is taken away."""
    (w, n, _), (v, m, den) = parts(a), parts(b)
    amount = den - m
    more, rest = divmod(n + amount, den)
    moved, whole = make(w + more, rest, den), Whole(v + 1)
    scribe.write(
        SHIFT_BOTH,
        pair(moved, "-", whole),
        (f"Add {amount} {parts_name(den, amount != 1)} to both.",),
        (),
        ((a, " + ", Frac(amount, den), " = ", moved), (b, " + ", Frac(amount, den), " = ", whole)),
        roles,
    )
    return take_away(scribe, moved, whole)


WAYS: dict[str, Callable[[Scribe, Unsigned, Unsigned, Roles], Unsigned]] = {
    "regroup": regroup,
    "below-zero": below_zero,
    "count-back": count_back,
    "same-difference": same_difference,
    "wholes-then-improper": _wholes_then_improper,
    "wholes-apart": regroup,
}
