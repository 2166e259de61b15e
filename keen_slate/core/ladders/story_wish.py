"""What stories are wished for, and the wish read from JSON."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ..errors import CoreError
from ..grading.rungs import STORY_RUNGS
from ..stories.scenarios import Scenario, read_scenario, scenarios
from ..stories.story import SITUATIONS
from ..ways.settings import Ways
from .spec import MOST_PROBLEMS, Spec, SpecError, read_spec

ADDING = ("F1", "F2", "F3", "F4", "F5", "F6", "M1", "M2", "M3", "M4", "D1", "D2", "D3")
SUBTRACTING = ("F1", "F2", "F4", "F5", "F6", "M5", "M6", "M7", "M8", "M9", "D1", "D2", "D3", "D4", "D5")
CALCULATIONS = tuple(dict.fromkeys((*ADDING, *SUBTRACTING)))
_OWN = {"seed", "rungs", "count", "situations", "scenario", "calculations", "unknowns"}


@dataclass(frozen=True, slots=True)
class StoryWish:
    """What stories are wished for: *rungs* with counts, *situations* (none: all), a *scenario* (None: any), and the
    rungs and limits of their calculations as those of a ladder; *elsewhere* are scenarios that none is told in.
    """

    rungs: Mapping[str, int]
    spec: Spec
    calculations: tuple[str, ...] = ()
    situations: tuple[str, ...] = ()
    unknowns: tuple[str, ...] = ()
    scenario: Scenario | None = None
    seed: int = 0
    elsewhere: Sequence[Scenario] = ()

    @property
    def scenarios(self) -> list[Scenario]:
        """The scenarios that they are told in: the wished one, else every one of ours but *elsewhere*."""
        return [self.scenario] if self.scenario else [one for one in scenarios().values() if one not in self.elsewhere]

    @property
    def slots(self) -> tuple[str, ...]:
        """The rung of each story, in order."""
        return tuple([rung for rung in STORY_RUNGS for _ in range(self.rungs.get(rung, 0))])

    @property
    def ways(self) -> Ways:
        """The class's ways."""
        return self.spec.ways


def read_story_wish(given: object, ways: Ways | None = None, own: Sequence[Scenario] = ()) -> StoryWish:
    """The wish that the JSON value *given* spells; *own* scenarios are known besides. Raises `SpecError`."""
    if not isinstance(given, Mapping):
        raise SpecError("Stories are asked for with an object.", "", 'Begin with {"rungs": {"S1": 2}}.')
    spec = read_spec({key: given[key] for key in given if key not in _OWN} | {"rungs": {"F4": 1}}, ways)
    seed = read_spec({"rungs": {"F4": 1}, "seed": given.get("seed")}).seed
    calculations = _codes(given, "calculations", CALCULATIONS)
    situations, unknowns = _codes(given, "situations", SITUATIONS), _codes(given, "unknowns", _unknowns())
    return StoryWish(
        _rungs(given), spec, calculations, situations, unknowns, _scenario(given.get("scenario"), own), seed
    )


def _unknowns() -> list[str]:
    return [unknown for _, unknowns in SITUATIONS.values() for unknown in unknowns]


def _codes(given: Mapping[str, Any], key: str, known: Collection[str]) -> tuple[str, ...]:
    found = given.get(key)
    if found is None:
        return ()
    if not isinstance(found, (list, tuple)) or not all(isinstance(code, str) and code in known for code in found):
        raise SpecError(f"{key} is a list of codes.", key, f"It knows {', '.join(dict.fromkeys(known))}.")
    return tuple(dict.fromkeys(found))


def _rungs(given: Mapping[str, Any]) -> dict[str, int]:
    found = given.get("rungs")
    if found is None:
        count = given.get("count", len(STORY_RUNGS))
        if not isinstance(count, int) or isinstance(count, bool) or not 1 <= count <= MOST_PROBLEMS:
            raise SpecError(f"count is a whole number from 1 to {MOST_PROBLEMS}.", "count", 'Write "count": 8.')
        order = list(STORY_RUNGS)
        return {rung: sum(order[i * len(order) // count] == rung for i in range(count)) for rung in order}
    good = isinstance(found, Mapping) and all(
        rung in STORY_RUNGS and isinstance(n, int) and not isinstance(n, bool) and 0 <= n <= MOST_PROBLEMS
        for rung, n in found.items()
    )
    if not good or not 1 <= sum(found.values()) <= MOST_PROBLEMS:
        raise SpecError(
            "The rungs of stories are named with a count each.", "rungs", 'Write "rungs": {"S1": 2, "S3": 1}.'
        )
    return dict(found)


def _scenario(found: object, own: Sequence[Scenario]) -> Scenario | None:
    if found is None:
        return None
    if isinstance(found, Mapping):
        try:
            return read_scenario(found)
        except CoreError as error:
            raise SpecError(f"scenario: {error.message}", "scenario", error.hint) from None
    known = scenarios() | {one.code: one for one in own}
    if not isinstance(found, str) or found not in known:
        raise SpecError("This scenario is not known.", "scenario", f"It is one of {', '.join(known)}.")
    return known[found]
