"""Turning every term of a sum into one fraction."""

from __future__ import annotations

from ...expressions.terms import Terms, improper, join_terms, parts
from ...expressions.tree import Mixed, Whole
from ...expressions.typeset import Roles
from ..scribe import Scribe
from ..step_kinds import TO_IMPROPER
from .forms import improper_line


def all_improper(scribe: Scribe, terms: Terms, roles: Roles) -> Terms:
    """Every whole and mixed number of *terms* as an improper fraction; a whole is written over 1."""
    done: Terms = [(sign, improper(term)) for sign, term in terms]
    changed = [term for _, term in terms if isinstance(term, (Whole, Mixed))]
    scribe.write(
        TO_IMPROPER,
        join_terms(done),
        ("Write every term as one fraction.",),
        ("Counted in pieces alone, nothing has to be carried or <regrouped>.",),
        tuple([improper_line(scribe, term) for term in changed]),
        roles,
        tuple([(parts(term)[0], parts(term)[2]) for term in changed]),
    )
    return done
