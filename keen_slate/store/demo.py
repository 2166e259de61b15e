"""The demo data: the Wren Hollow trail crew, a made-up school club that builds a nature trail, and two made-up
classes.
"""

from __future__ import annotations

import uuid

from sqlalchemy.orm import Session

from keen_slate.core.stories.any_text import read_any

from . import demo_classes
from .colleagues import Colleagues, school_named
from .models import Teacher
from .shelf import Shelf, count_sets, teacher_named

TEACHER = "The Wren Hollow trail crew"
SCHOOL = "Wren Hollow"
COLLEAGUE = "The pond crew next door"
HEAD = "The warden of Wren Hollow"
# By whom each of them comes in at the stand-in for a school's own sign-in.
SIGN_INS = {TEACHER: "trail@wren.example", COLLEAGUE: "pond@wren.example", HEAD: "warden@wren.example"}
# The class next door works in other ways; the first of its sets is shared.
NEXT_DOOR_WAYS = {"mixed_subtract": "count-back", "say_least": "lowest"}
NEXT_DOOR: tuple[tuple[str, tuple[str, ...]], ...] = (
    (
        "Pond edges: boards cut off",
        (
            "8 3/4 - 2 1/4 ft",  # M5
            "6 - 2 3/8 ft",  # M6
            "9 1/6 - 3 5/6 ft",  # M7
            "12 1/3 - 4 3/4 ft",  # M8
        ),
    ),
    ("Pond water: decimals", ("14.2 + 3.5 L", "8.4 - 2.75 L", "0.8 × 1.5 L")),
)

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
    (
        "Rope for the handrails: adding mixed numbers",
        (
            "3 1/5 + 2 2/5 m",  # M1
            "4 1/8 + 1 3/8 m",  # M1
            "2 5/8 + 3 7/8 m",  # M2
            "6 1/4 + 2 1/3 m",  # M3
            "5 1/2 + 1 3/8 m",  # M3
            "2 3/4 + 1 2/3 m",  # M4
            "7 5/6 + 4 3/8 m",  # M4
        ),
    ),
    (
        "Boardwalk planks: what is left over",
        (
            "6 5/8 - 2 1/8 ft",  # M5
            "5 3/4 - 1 1/3 ft",  # M5
            "9 - 4 2/3 ft",  # M6
            "100 - 41 3/8%",  # M6, the share of the trail that is still gravel
            "8 1/5 - 3 4/5 ft",  # M7
            "7 1/4 - 3 5/6 ft",  # M8
            "10 1/6 - 4 9/10 ft",  # M9
        ),
    ),
    (
        "Rain gauge and signs: decimals",
        (
            "12.4 + 6.5 mm",  # D1
            "3.75 + 2.68 mm",  # D2
            "7.2 + 1.56 mm",  # D3
            "9.4 - 4.16 mm",  # D4
            "8.03 - 2.67 mm",  # D5
            "$4.75 + $12.60 + $0.85",  # D6, paint for the signs
            "0.6 × 2.5 L",  # water a minute, for two and a half minutes
            "4.2 ÷ 0.6",
        ),
    ),
    (
        "Gravel and gaps: mixed operations",
        (
            "2/7 = _/21 = 12/_",
            "5/8 + _ = 1 1/4 mi",
            "_/18 + _/9 + _/3 = 23/18",
            "3/4 × 2/9",
            "2/3 ÷ 4/9",
            "0.4 × 2 1/2",
            "4 + 6 × 2 - 5",  # O1
            "3 (2 + 5) - 4^2",  # O2
            "1/2 + 3/4 × 2/3",  # O3
            "0.5 (3 - 7 + 1/4)",  # O4
        ),
    ),
    (
        "Stones and steps: stories",
        (
            "One stone step is 2 1/2 ft wide. The other is 1 3/4 ft wide. How wide are both together?",  # S1
            "A plank is 3 1/4 m long. Alder saws 1 2/3 m off. How long is what is left?",  # S1
            "On the first day the shoot was 5 3/10 cm high, on the fifth day 8 1/20 cm. "
            "How much higher was it on the fifth day than on the first?",  # S2
            "Sedge used 2 2/3 loads of stones. Then 4 1/2 loads were left. How many loads were there at first?",  # S3
            # S4
            "Yarrow has 8 m of rope. She uses 1 1/4 m for a swing and 2 2/3 m for a ladder. How much rope is left?",
            "A rope of 7 1/2 m is cut into 3 equal pieces. How long is each piece?",  # S5
            "A log is 2 1/4 m long and weighs 30 kg. Teasel saws 5/6 m off. How long is the rest?",  # S6
            "A handrail is 2 1/2 m long. Burdock cuts 75 cm off. How many centimetres are left?",  # S6
        ),
    ),
)


def load(session: Session) -> uuid.UUID:
    """Load the demo data once; returns the id of the teacher whose it is. The caller commits."""
    teacher = teacher_named(session, TEACHER)
    if count_sets(session, teacher.id) == 0:
        shelf = Shelf(session, teacher.id)
        for title, problems in SETS:
            shelf.add_set(title, [{"source": read_any(problem).text} for problem in problems])
        demo_classes.load(session, teacher.id)
    if teacher_named(session, HEAD).school_id is None:
        _next_door(session, teacher)
    return teacher.id


def _next_door(session: Session, teacher: Teacher) -> None:
    """A school for *teacher*, its head, and a colleague in it who shares a set."""
    colleague, head = teacher_named(session, COLLEAGUE), teacher_named(session, HEAD)
    teacher.school_id = colleague.school_id = head.school_id = school_named(session, SCHOOL).id
    head.head = True
    if count_sets(session, colleague.id) == 0:
        colleague.ways = NEXT_DOOR_WAYS
        shelf = Shelf(session, colleague.id)
        made = [
            shelf.add_set(title, [{"source": read_any(problem).text} for problem in problems])
            for title, problems in NEXT_DOOR
        ]
        Colleagues(session, colleague).share(made[0].id, True)
