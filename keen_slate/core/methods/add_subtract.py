"""Adding and subtracting fractions, mixed numbers and wholes.

The plan, for terms t1 ± t2 ± ... (all t unsigned after the signs are put together):

- only + signs: the way of `Ways.mixed_add` takes all terms at once;
- a - among them: all get the common denominator, then from the left, two at a time. A pair (a, b) is
  added, or subtracted by the way of `Ways.mixed_subtract`; where a < b the larger minus the smaller is
  worked, and the sign put on it.

Numbers keep the common denominator until `finish` brings the last one into the answer form.
"""

from __future__ import annotations

from ..numbers import Expr, Frac, Mixed, Neg, Operator, Sum, Whole, make, ratio
from ..reading import Problem
from ..ways import Ways
from ..wording import Rich, Role, Roles, parts_name
from ..working import Scribe, Working, roles_for, too_large
from . import common_denominator as common
from .finish import finish

Unsigned = Whole | Frac | Mixed
Terms = list[tuple[int, Unsigned]]


def work(problem: Problem, ways: Ways) -> Working:
    """The working of an `add-subtract` problem. Raises `LimitError`."""
    scribe = Scribe(problem.expr)
    terms = _tidy_terms(scribe, _put_signs_together(scribe, problem.expr))
    denominators = tuple([d for _, t in terms if (d := _den(t))])
    if len(set(denominators)) > 1 and common.least(denominators) >= 10**12:
        raise too_large(problem.text)
    if all(sign > 0 for sign, _ in terms):
        raw = _add(scribe, [t for _, t in terms], roles_for(len(terms)))
    else:
        raw = _from_the_left(scribe, _to_common(scribe, terms))
    answer = finish(scribe, raw, ways)
    used = common.least(denominators) if denominators else None
    return Working(
        problem, ways, tuple(scribe.steps), Neg(answer) if scribe.negative else answer, scribe.raw or raw, used
    )


# Terms -----------------------------------------------------------------------------------------------------


def signed_terms(expr: Expr) -> list[tuple[int, Expr]]:
    """The terms of a sum with +1 or -1 for the operator before each; a term may carry a sign of its own."""
    if not isinstance(expr, Sum):
        return [(1, expr)]
    return [(1, expr.first), *((1 if operator == "+" else -1, term) for operator, term in expr.rest)]


def unsigned_terms(expr: Expr) -> Terms:
    """The terms of a sum as (sign, unsigned number), the operator and the term's own sign taken together."""
    return [_unsigned(sign, term) for sign, term in signed_terms(expr)]


def _unsigned(sign: int, term: Expr) -> tuple[int, Unsigned]:
    if isinstance(term, Neg):
        sign, term = -sign, term.inner
    if isinstance(term, (Whole, Frac, Mixed)):
        return sign, term
    raise TypeError(f"{term} is not a whole, a fraction or a mixed number")


def parts(number: Expr) -> tuple[int, int, int]:
    """Whole, numerator and denominator (1 for a plain whole) of an unsigned number as written."""
    match number:
        case Whole(n):
            return n, 0, 1
        case Frac(num, den) if num is not None and den is not None:
            return 0, num, den
        case Mixed(whole, num, den) if num is not None:
            return whole, num, den
    raise TypeError(f"{number} is not a whole, a fraction or a mixed number")


def _den(number: Unsigned) -> int | None:
    return None if isinstance(number, Whole) else number.den


def _op(sign: int) -> Operator:
    return "+" if sign > 0 else "-"


def join_terms(terms: Terms) -> Expr:
    """The sum that *terms* spell."""
    (sign, first), *rest = terms
    start: Expr = first if sign > 0 else Neg(first)
    return Sum(start, tuple([(_op(s), t) for s, t in rest])) if rest else start


def _put_signs_together(scribe: Scribe, expr: Expr) -> Terms:
    plain = unsigned_terms(expr)
    scribe.write(
        "join-signs",
        join_terms(plain),
        ("Put the signs together.",),
        ("Adding a negative takes away; taking away a negative adds.",),
        roles=roles_for(len(plain)),
    )
    return plain


def _tidy_terms(scribe: Scribe, terms: Terms) -> Terms:
    """Tidy every mixed number typed with an improper part: 2 5/2 becomes 4 1/2."""
    for i, (sign, term) in enumerate(terms):
        if isinstance(term, Mixed) and (term.num or 0) >= term.den:
            whole, num, den = parts(term)
            more, rest = divmod(num, den)
            terms = [*terms[:i], (sign, make(whole + more, rest, den)), *terms[i + 1 :]]
            scribe.write(
                "to-mixed",
                join_terms(terms),
                ("Tidy ", term, " first."),
                (f"{num} {parts_name(den, True)} hold {more} more whole{'s' if more > 1 else ''}.",),
                ((f"{num} ÷ {den} = {more}" + (f" remainder {rest}" if rest else ""),),),
                roles=roles_for(len(terms)),
                facts=((more, den),),
            )
    return terms


def _to_common(scribe: Scribe, terms: Terms) -> Terms:
    """All fractions in their least common denominator."""
    denominators = tuple([d for _, t in terms if (d := _den(t))])
    if len(set(denominators)) < 2:
        return terms
    d = common.least(denominators)
    scaled: Terms = [(sign, _scaled(term, d)) for sign, term in terms]
    _write_common(scribe, [t for _, t in terms], denominators, d, join_terms(scaled), roles_for(len(terms)))
    return scaled


def _scaled(number: Unsigned, d: int) -> Unsigned:
    if isinstance(number, Whole):
        return number
    whole, num, den = parts(number)
    return Mixed(whole, num * d // den, d) if isinstance(number, Mixed) else Frac(num * d // den, d)


def _write_common(
    scribe: Scribe, terms: list[Unsigned], denominators: tuple[int, ...], d: int, after: Expr, roles: Roles
) -> None:
    lines: tuple[Rich, ...] = ()
    if common.relation(denominators) != "one-fits":
        lines = common.listed_multiples(denominators, d)
    facts: list[tuple[int, int]] = []
    for term in terms:
        _, num, den = parts(term)
        if not isinstance(term, Whole) and den != d:
            lines += (common.scaling(num, den, d),)
            facts += [(den, d // den), (num, d // den)]
    scribe.write(
        "common-denominator",
        after,
        common.title(denominators, d),
        common.reason(denominators, d),
        lines,
        roles,
        tuple(facts),
    )


# Adding: wholes first --------------------------------------------------------------------------------------


def _add(scribe: Scribe, terms: list[Unsigned], roles: Roles) -> Unsigned:
    """Add *terms*: the wholes, then the fractions, then tidy and join.

    Ends in one number with the common denominator; an improper fraction without a whole beside it is left
    to the next pair or to `finish`.
    """
    split = [parts(term) for term in terms]
    whole = sum(w for w, _, _ in split)
    fractions = [
        (Frac(n, d), role) for t, (_, n, d), role in zip(terms, split, roles, strict=True) if not isinstance(t, Whole)
    ]
    with_whole = sum(isinstance(term, (Whole, Mixed)) for term in terms)
    if not fractions:
        return _add_plain_wholes(scribe, split, whole)
    _set_wholes_aside(scribe, terms, whole, fractions, with_whole)
    beside = Whole(whole) if with_whole else None
    fractions = _fractions_to_common(scribe, fractions, beside)
    total = _add_fractions(scribe, [f for f, _ in fractions], beside)
    return _tidy_and_join(scribe, total, beside)


def _add_plain_wholes(scribe: Scribe, split: list[tuple[int, int, int]], whole: int) -> Whole:
    line = " + ".join(str(w) for w, _, _ in split)
    scribe.write(
        "add", Whole(whole), ("Add the wholes.",), ("There are no fractions here.",), ((f"{line} = {whole}",),)
    )
    return Whole(whole)


def _beside(beside: Whole | None, fractions: list[Expr]) -> Expr:
    """The wholes that stand apart, plus *fractions*."""
    every: list[Expr] = [*([beside] if beside else []), *fractions]
    return Sum(every[0], tuple([("+", f) for f in every[1:]])) if len(every) > 1 else every[0]


def _set_wholes_aside(
    scribe: Scribe, terms: list[Unsigned], whole: int, fractions: list[tuple[Frac, Role]], with_whole: int
) -> None:
    if not with_whole or (with_whole == 1 and len(terms) == 2 and len(fractions) == 1):
        return  # nothing to set aside, or a whole and a fraction that only have to be joined
    wholes = [str(parts(t)[0]) for t in terms if isinstance(t, (Whole, Mixed))]
    scribe.write(
        "add-wholes",
        _beside(Whole(whole), [f for f, _ in fractions]),
        ("Add the wholes and set them aside.",) if with_whole > 1 else (f"Set the {whole} aside.",),
        ("Wholes and parts of a whole are counted apart.",),
        ((f"{' + '.join(wholes)} = {whole}",),) if with_whole > 1 else (),
        ("", *(role for _, role in fractions)),
    )


def _fractions_to_common(
    scribe: Scribe, fractions: list[tuple[Frac, Role]], beside: Whole | None
) -> list[tuple[Frac, Role]]:
    denominators = tuple([f.den for f, _ in fractions if f.den])
    if len(set(denominators)) < 2:
        return fractions
    d = common.least(denominators)
    scaled = [(Frac((f.num or 0) * (d // (f.den or 1)), d), role) for f, role in fractions]
    inks = tuple([role for _, role in scaled])
    roles: Roles = ("", *inks) if beside else inks
    _write_common(scribe, [f for f, _ in fractions], denominators, d, _beside(beside, [f for f, _ in scaled]), roles)
    return scaled


def _add_fractions(scribe: Scribe, fractions: list[Frac], beside: Whole | None) -> Frac:
    if len(fractions) == 1:
        return fractions[0]
    den = fractions[0].den or 1
    tops = [f.num or 0 for f in fractions]
    total = Frac(sum(tops), den)
    pieces = parts_name(den, True)
    scribe.write(
        "add-fractions" if beside else "add",
        _beside(beside, [total]),
        (f"Count the {pieces} together.",),
        ("The pieces are the same size, so only the numerators are added; the denominator names the size.",),
        ((f"{' + '.join(map(str, tops))} = {total.num}",),),
    )
    return total


def _tidy_and_join(scribe: Scribe, total: Frac, beside: Whole | None) -> Unsigned:
    if beside is None:
        return total
    num, den = total.num or 0, total.den or 1
    scribe.raw = Mixed(beside.n, num, den) if num and beside.n else None
    more, rest = divmod(num, den)
    tidy = make(more, rest, den)
    if more:
        scribe.write(
            "to-mixed",
            _beside(beside, [tidy]),
            (f"Every {den} {parts_name(den, True)} make a whole.",),
            ("The fractions hold more than their own share: take the full wholes out.",),
            ((f"{num} ÷ {den} = {more}" + (f" remainder {rest}" if rest else ""),),),
            facts=((more, den),),
        )
    joined = make(beside.n + more, rest, den)
    scribe.write(
        "join",
        joined,
        ("Join the wholes and the fraction.",),
        ("What was set aside comes back.",),
        ((f"{beside.n} + {more} = {beside.n + more}",),) if more else (),
    )
    return joined


# Subtracting: from the left, two at a time -------------------------------------------------------------------


def _from_the_left(scribe: Scribe, terms: Terms) -> Unsigned:
    """Work *terms* (all in one denominator) from the left; the sign of the result is left in *scribe*."""
    roles = roles_for(len(terms))
    (sign, here), *others = terms
    for i, (next_sign, term) in enumerate(others, start=1):
        rest = others[i:]
        scribe.rest = tuple([(_op(s), t) for s, t in rest])
        scribe.rest_roles = roles[i + 1 :]
        pair_roles = (roles[0], roles[i])
        here, sign = _pair(scribe, sign, here, next_sign, term, pair_roles)
    scribe.negative = sign < 0
    return here


def _pair(scribe: Scribe, sign: int, a: Unsigned, next_sign: int, b: Unsigned, roles: Roles) -> tuple[Unsigned, int]:
    """One pair ±a ±b: the unsigned result and its sign."""
    scribe.negative, scribe.raw = False, None
    if sign == next_sign:
        if sign < 0:
            _put_sign_before(scribe, Sum(a, (("+", b),)), ("Both are taken away: add them and put the sign before.",))
        return _add(scribe, [a, b], roles), sign
    if sign < 0:
        a, b, roles = b, a, (roles[1], roles[0])
        scribe.write(
            "reorder",
            Sum(a, (("-", b),)),
            ("Start with the term that is added.",),
            ("The order of terms can change, if each keeps its sign.",),
            roles=roles,
        )
    (n, d), (m, e) = ratio(a), ratio(b)
    if n * e >= m * d:
        return _subtract(scribe, a, b, roles), 1
    _put_sign_before(
        scribe,
        Sum(b, (("-", a),)),
        (b, " is larger than ", a, ": the answer falls below zero."),
    )
    return _subtract(scribe, b, a, (roles[1], roles[0])), -1


def _put_sign_before(scribe: Scribe, local: Expr, title: Rich) -> None:
    scribe.negative = True
    scribe.write(
        "put-sign",
        local,
        title,
        ("Work the larger minus the smaller, and put the sign on the result.",)
        if isinstance(local, Sum) and local.rest[0][0] == "-"
        else ("Taking away twice is taking away the sum.",),
    )


# Subtracting by regrouping -------------------------------------------------------------------------------------


def _subtract(scribe: Scribe, a: Unsigned, b: Unsigned, roles: Roles) -> Unsigned:
    """a - b for a >= b >= 0 in one denominator, regrouping where the fraction of a is too small."""
    if isinstance(a, Frac) and isinstance(b, Frac):
        return _take_away(scribe, a, b)
    a, b = _show_wholes(scribe, a, b, roles)
    if isinstance(b, Whole) or (isinstance(a, Whole) and isinstance(b, Frac) and b.num == 0):
        return _take_away(scribe, a, b)
    a = _whole_as_mixed(scribe, a, b, roles)
    whole, num, den = parts(a)
    if num < parts(b)[1]:
        a = _regroup(scribe, whole, num, den, b, roles)
    return _take_away(scribe, a, b)


def _show_wholes(scribe: Scribe, a: Unsigned, b: Unsigned, roles: Roles) -> tuple[Unsigned, Unsigned]:
    """Beside a whole, an improper fraction is written as a mixed number, so that its wholes can be seen."""
    for which in (0, 1):
        old = (a, b)[which]
        if isinstance(old, Frac) and (old.num or 0) >= (old.den or 1):
            more, rest = divmod(old.num or 0, old.den or 1)
            new = make(more, rest, old.den or 1)
            a, b = (new, b) if which == 0 else (a, new)
            scribe.write(
                "to-mixed",
                Sum(a, (("-", b),)),
                ("Write ", old, " as ", new, "."),
                ("Then wholes stand with wholes and parts with parts.",),
                ((f"{old.num} ÷ {old.den} = {more}" + (f" remainder {rest}" if rest else ""),),),
                roles=roles,
                facts=((more, old.den or 1),),
            )
    return a, b


def _whole_as_mixed(scribe: Scribe, a: Unsigned, b: Unsigned, roles: Roles) -> Unsigned:
    """A plain whole gets a fraction part of 0, in the other's denominator, to be regrouped."""
    if not isinstance(a, Whole):
        return a
    den = parts(b)[2]
    written = Mixed(a.n, 0, den)
    scribe.write(
        "rewrite-whole",
        Sum(written, (("-", b),)),
        (f"{a.n} is {a.n} wholes and no {parts_name(den, True)}.",),
        ("Written this way, it is plain that there is nothing to take the fraction from.",),
        roles=roles,
    )
    return written


def _regroup(scribe: Scribe, whole: int, num: int, den: int, b: Unsigned, roles: Roles) -> Unsigned:
    """Take 1 from the whole and add the denominator to the numerator."""
    regrouped = Mixed(whole - 1, num + den, den) if whole > 1 else Frac(num + den, den)
    pieces = parts_name(den, True)
    scribe.write(
        "regroup",
        Sum(regrouped, (("-", b),)),
        (f"{num} is less than {parts(b)[1]}, so cut up one whole.",),
        (f"One whole is {den} {pieces}; with the {num} there already they make {num + den}.",),
        (
            (
                Mixed(whole, num, den),
                " = ",
                Sum(Whole(whole - 1), (("+", Frac(den, den)), ("+", Frac(num, den)))),
                " = ",
                regrouped,
            ),
        ),
        roles=("carried", roles[1]),
    )
    return regrouped


def _take_away(scribe: Scribe, a: Unsigned, b: Unsigned) -> Unsigned:
    """Subtract part from part and whole from whole; nothing needs regrouping any more."""
    (w, n, d), (v, m, e) = parts(a), parts(b)
    den = d if isinstance(b, Whole) else e
    result = make(w - v, n - m, den)
    pieces = parts_name(den, True)
    lines: list[Rich] = []
    if not isinstance(b, Whole):
        lines.append((f"{n} - {m} = {n - m} {pieces if n - m != 1 else parts_name(den, False)}",))
    if v:
        lines.append((f"{w} - {v} = {w - v}",))
    said = [f"{m} {pieces if m != 1 else parts_name(den, False)}"] if not isinstance(b, Whole) else []
    said += [f"{v} whole{'s' if v != 1 else ''}"] if v or not said else []
    scribe.write(
        "subtract",
        result,
        (f"Take away {', then '.join(said)}.",),
        ("The pieces are the same size, so only the numerators are subtracted.",)
        if not isinstance(b, Whole)
        else ("The fraction stays as it is.",)
        if n
        else ("Wholes are taken from wholes.",),
        tuple(lines),
    )
    return result
