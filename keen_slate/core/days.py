"""Days, as they are said."""

from datetime import date


def day_of(day: date) -> str:
    """*day* in words.

    >>> day_of(date(2026, 11, 2))
    '2 November 2026'
    """
    return f"{day.day} {day:%B %Y}"
