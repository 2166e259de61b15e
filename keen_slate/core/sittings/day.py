"""Days as teachers write them."""

from __future__ import annotations

import re
from datetime import date

from ..errors import ReadError

MONTHS = (
    "january", "february", "march", "april", "may", "june", "july", "august", "september", "october", "november",
    "december",
)  # fmt: skip
_HINT = "Write it like 12 November 2026 or 2026-11-12."
_WORDS = re.compile(r"(?:\w+ )?(?:(\d{1,2}) ([a-z]+)|([a-z]+) (\d{1,2}))(?: (\d{4}))?")


def read_day(typed: str, today: date | None = None) -> date:
    """The day that was *typed*; without a year it is the last one of that name, as of *today*. Raises `ReadError`.

    >>> read_day("12.11.2026") == read_day("2026-11-12") == read_day("Thursday, 12th November 2026")
    True
    >>> str(read_day("3 Dec", date(2026, 11, 26)))
    '2025-12-03'
    >>> str(read_day("26 Nov", date(2026, 11, 26)))
    '2026-11-26'
    """
    plain = re.sub(r"(?<=\d)(?:st|nd|rd|th)\b|[,.](?= |$)", "", " ".join(typed.lower().split()))
    numbers = re.fullmatch(r"(\d{1,4})[-./](\d{1,2})[-./](\d{1,4})", plain.replace(" ", ""))
    if numbers:
        return _of_numbers(typed, *numbers.groups())
    words = _WORDS.fullmatch(plain)
    if not words:
        raise ReadError(f"{typed!r} is no day.", 0, 0, _HINT)
    day, month = int(words[1] or words[4]), _month(typed, words[2] or words[3])
    if words[5]:
        return _made(typed, int(words[5]), month, day)
    now = today or date.today()
    this = _made(typed, now.year, month, day)
    return this if this <= now else _made(typed, now.year - 1, month, day)


def _of_numbers(typed: str, first: str, second: str, third: str) -> date:
    if len(first) == 4:
        return _made(typed, int(first), int(second), int(third))
    year = int(third) + (2000 if len(third) < 3 else 0)
    a, b = int(first), int(second)
    if "/" in typed and a <= 12 and b <= 12 and a != b:
        said = f"{typed} can be {a} {MONTHS[b - 1].title()} or {b} {MONTHS[a - 1].title()}."
        raise ReadError(said, 0, 0, _HINT)
    return _made(typed, year, a, b) if b > 12 and "/" in typed else _made(typed, year, b, a)


def _month(typed: str, name: str) -> int:
    found = [i + 1 for i, month in enumerate(MONTHS) if len(name) >= 3 and month.startswith(name)]
    if not found:
        raise ReadError(f"{typed!r} names no month.", 0, 0, _HINT)
    return found[0]


def _made(typed: str, year: int, month: int, day: int) -> date:
    try:
        return date(year, month, day)
    except ValueError:
        raise ReadError(f"{typed!r} is no day.", 0, 0, _HINT) from None
