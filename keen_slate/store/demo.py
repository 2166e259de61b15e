"""The demo data: the Wren Hollow trail crew, a made-up school club that builds a nature trail."""

from __future__ import annotations

import uuid

from sqlalchemy.orm import Session

from .shelf import Shelf, count_sets, teacher_named

TEACHER = "The Wren Hollow trail crew"

SETS: tuple[tuple[str, tuple[str, ...]], ...] = (
    (
        "Trail lengths: unlike fractions",
        (
            "2/7 + 3/7 mi",  # F1
            "5/8 - 3/8 ft",  # F2
            "4/5 + 3/5 mi",  # F3
            "2/3 + 1/6 ft",  # F4
            "7/8 - 1/4 ft",  # F4
            "5/6 - 3/4 ft",  # F5
            "3/4 + 2/5 mi",  # F6
            "1/2 + 2/3 - 3/4 ft",  # F7
        ),
    ),
)


def load(session: Session) -> uuid.UUID:
    """Load the demo data once; returns the id of the teacher whose it is. The caller commits."""
    teacher = teacher_named(session, TEACHER)
    if count_sets(session, teacher.id) == 0:
        shelf = Shelf(session, teacher.id)
        for title, problems in SETS:
            made = shelf.add_set(title)
            for problem in problems:
                made, _ = shelf.add_example(made.id, made.version, problem, None, {}, {})
    return teacher.id
