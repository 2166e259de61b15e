"""A class's own checklist: its questions in its order, each hanging on something that is seen or done in a working.

As text, a line each: what the question hangs on, a colon, the question.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from ..errors import SettingError
from ..limits import CHECKLIST_LENGTH, MOST_QUESTIONS, QUESTION_LENGTH

# What a question may hang on, as it is chosen on the screen.
HANGS_ON: dict[str, str] = {
    "always": "always, answered by the pupil",
    "rewrite": "yes, where a number is rewritten",
    "mixed": "yes, where a <mixed number> is there",
    "wholes": "yes, where <wholes> are added and set aside",
    "same-size": "yes, where the pieces are the same size",
    "unlike": "yes, where a common <denominator> is needed",
    "both-change": "yes, where more than one <denominator> changes",
    "enough": "yes, where there are enough pieces to take away",
    "regroup": "yes, where a <whole> is cut up",
    "add": "yes, where pieces are added",
    "subtract": "yes, where something is taken away",
    "to-mixed": "yes, where a <whole> is hidden in the fraction",
    "simplify": "yes, where the answer is simplified",
    "lowest": "yes, where nothing is left to simplify",
}


@dataclass(frozen=True, slots=True)
class ChecklistQuestion:
    """What a class asks, and the code of `HANGS_ON` that answers it."""

    hangs_on: str
    asks: str


@lru_cache(maxsize=256)
def read_checklist(text: str) -> tuple[ChecklistQuestion, ...]:
    """The questions of a checklist's *text*. Raises `SettingError` with the place of what cannot be read.

    >>> read_checklist("enough: Are there enough pieces?")
    (ChecklistQuestion(hangs_on='enough', asks='Are there enough pieces?'),)
    """
    questions = []
    at = 0
    if len(text) > CHECKLIST_LENGTH:
        raise SettingError("The checklist is too long.", CHECKLIST_LENGTH, len(text) - CHECKLIST_LENGTH, _HINT)
    for line in text.split("\n"):
        if line.strip():
            questions.append(_question(line, at))
        at += len(line) + 1
    if len(questions) > MOST_QUESTIONS:
        raise SettingError(f"A checklist has {MOST_QUESTIONS} questions at most.", 0, len(text), _HINT)
    return tuple(questions)


_HINT = "A line each: enough: Are there enough pieces?"


def _question(line: str, at: int) -> ChecklistQuestion:
    hangs_on, colon, asks = line.partition(":")
    code, asks = hangs_on.strip(), asks.strip()
    if not colon or not asks:
        raise SettingError("This line of the checklist has no question.", at, len(line), _HINT)
    if code not in HANGS_ON:
        raise SettingError(f"No question hangs on {code!r}.", at, len(hangs_on), f"It may be {', '.join(HANGS_ON)}.")
    if len(asks) > QUESTION_LENGTH:
        raise SettingError(
            f"A question has {QUESTION_LENGTH} characters at most.", at, len(line), "Ask in fewer words."
        )
    return ChecklistQuestion(code, asks)
