"""Ways: how a class does things. Every setting, its codes (the first is the default) and its name.

A new method adds its code here and its function in `methods/`; nothing else lists them.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, fields, replace

from .errors import SettingError

CODES: dict[str, tuple[str, ...]] = {
    "common_denominator": ("list-multiples",),
    "mixed_add": ("wholes-first",),
    "mixed_subtract": ("regroup",),
    "to_mixed": ("divide",),
    "simplify": ("greatest-factor",),
    "answer_form": ("simplest-mixed", "simplest-improper", "any-equal"),
    "estimate": ("half",),
    "ties": ("up", "down"),
    "layout": ("line",),
}


@dataclass(frozen=True, slots=True)
class Ways:
    """The settings that a working is made with; each field holds one of its codes in `CODES`."""

    common_denominator: str = "list-multiples"
    mixed_add: str = "wholes-first"
    mixed_subtract: str = "regroup"
    to_mixed: str = "divide"
    simplify: str = "greatest-factor"
    answer_form: str = "simplest-mixed"
    estimate: str = "half"
    ties: str = "up"
    layout: str = "line"

    @classmethod
    def of(cls, settings: Mapping[str, str]) -> Ways:
        """The default ways with *settings* (name to code) changed. Raises `SettingError`.

        >>> Ways.of({"ties": "down"}).ties
        'down'
        >>> Ways.of({"ties": "sideways"})
        Traceback (most recent call last):
        keen_slate.core.errors.SettingError: ties has no way called sideways.
        """
        for name, code in settings.items():
            if name not in CODES:
                raise SettingError(
                    f"There is no setting called {name}.", 0, len(name), f"Settings: {', '.join(CODES)}."
                )
            if code not in CODES[name]:
                raise SettingError(
                    f"{name} has no way called {code}.",
                    len(name) + 1,
                    len(code),
                    f"Ways of {name}: {', '.join(CODES[name])}.",
                )
        return replace(cls(), **settings)

    def as_dict(self) -> dict[str, str]:
        """Name to code, in the order of `CODES`."""
        return {field.name: getattr(self, field.name) for field in fields(self)}
