"""What comes to the door."""

from __future__ import annotations

from typing import Annotated

from pydantic import StringConstraints

from .base import Strict


class EnterIn(Strict):
    """The secret part of a link to come in by."""

    link: Annotated[str, StringConstraints(min_length=1, max_length=120)]
