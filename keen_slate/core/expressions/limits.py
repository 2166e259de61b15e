"""How large what is typed may be, and every number met in a working (digits above and below the bar)."""

from __future__ import annotations

# Limits on what is typed, and on every number met in a working (digits above and below the bar).
MAX_TERMS = 12
MAX_WHOLE = 999_999
MAX_DENOMINATOR = 9_999
MAX_PLACES = 6
MAX_EXPONENT = 6
MAX_CHARACTERS = 200
MAX_DIGITS = 12
TOO_LARGE: int = 10**MAX_DIGITS
