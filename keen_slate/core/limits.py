"""Every limit, said once: of what is typed, of the numbers met in a working, of pictures, of sets and files.

`FIELDS` are those that a screen has to know, so that a field stops where the server would; the front end is built with
them.
"""

from __future__ import annotations

from dataclasses import dataclass

# What is typed, and every number met in a working (digits above and below the bar).
MAX_TERMS = 12
MAX_BRACKETS = 98  # within each other: as deep as a text of the longest can close again
MAX_WHOLE = 999_999
MAX_DENOMINATOR = 9_999
MAX_PLACES = 6
MAX_EXPONENT = 6
MAX_CHARACTERS = 200
STORY_CHARACTERS = 600
SOURCE_CHARACTERS = 1400  # a story with its calculation, or a problem with many spaces
MAX_LABEL = 24
MAX_DIGITS = 12
TOO_LARGE: int = 10**MAX_DIGITS

# What helps to see: of pictures, and of multiplication facts.
MOST_PARTS = 24
MOST_WHOLES = 12
TIMES_TABLE = 12

# What a teacher signs in by (RFC 5321: a path of 256 with its two brackets), and how long a password is.
ADDRESS_LENGTH = 254
LEAST_PASSWORD = 10
PASSWORD_LENGTH = 200

# What a teacher adds.
TITLE_LENGTH = 120
WORDS_LENGTH = 1000
SEARCH_LENGTH = 200
CODE_LENGTH = 60
MOST_BLANKS = 200
MOST_POINTS = 20
MOST_WORDS = 100
MOST_STANDARDS = 20
MOST_MINUTES = 600
PAPER_WORDS = 60  # of a class and of a day, at the head of a paper
MOST_QUESTIONS = 20
QUESTION_LENGTH = 140
MOST_THINGS = 60
MOST_SCENARIOS = 40
MOST_CALCULATIONS = 4  # of a story
MOST_PUPILS = 60  # of a class
MOST_COLLEAGUES = 200  # with whom alone a set is shared
MOST_CLASSES = 20
ALIAS_LENGTH = 40
ANSWER_LENGTH = 500
MOST_SITTINGS = 200  # of a class
MOST_BLANK_TOPS = 12  # of an example: blank numerators that a teacher fills herself
CHECKLIST_LENGTH: int = MOST_QUESTIONS * (QUESTION_LENGTH + 20)

# Sets, files and what is brought in.
MOST_EXAMPLES = 60
MOST_LINES = 500
LARGEST_FILE = 5 * 1024 * 1024  # bytes
LARGEST_DESK = 24 * 1024 * 1024  # bytes of all that is a teacher's
LONGEST_PASTE = 200_000  # characters


@dataclass(frozen=True, slots=True)
class Limits:
    """How large a text and its numbers may be."""

    characters: int
    whole: int
    denominator: int
    places: int


TYPED = Limits(MAX_CHARACTERS, MAX_WHOLE, MAX_DENOMINATOR, MAX_PLACES)
# What the core prints may be longer than what may be typed: numbers grow on the way.
PRINTED = Limits(100 * MAX_CHARACTERS, TOO_LARGE - 1, TOO_LARGE - 1, 48)


FIELDS = {
    "problem": MAX_CHARACTERS,
    "story": STORY_CHARACTERS,
    "source": SOURCE_CHARACTERS,
    "label": MAX_LABEL,
    "address": ADDRESS_LENGTH,
    "password": PASSWORD_LENGTH,
    "least_password": LEAST_PASSWORD,
    "title": TITLE_LENGTH,
    "words": WORDS_LENGTH,
    "search": SEARCH_LENGTH,
    "examples": MOST_EXAMPLES,
    "points": MOST_POINTS,
    "questions": MOST_QUESTIONS,
    "question": QUESTION_LENGTH,
    "minutes": MOST_MINUTES,
    "paper_words": PAPER_WORDS,
    "pupils": MOST_PUPILS,
    "alias": ALIAS_LENGTH,
    "answer": ANSWER_LENGTH,
    "file": LARGEST_FILE,
    "desk": LARGEST_DESK,
    "paste": LONGEST_PASTE,
}
