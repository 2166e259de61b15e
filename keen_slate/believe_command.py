"""What the pupils of a class hold, from the command line: answers in, beliefs and groups out."""

from __future__ import annotations

import argparse
import json
from collections.abc import Mapping, Sequence
from datetime import date
from typing import Any

from keen_slate.core.diagnosing.holding import Group, Held, believe
from keen_slate.core.errors import ReadError
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.ladders.over_time import OverTime, Sitting, over_time
from keen_slate.core.limits import MOST_EXAMPLES, MOST_PUPILS, MOST_SITTINGS
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import mark_of, voice_of

from .json_file import read_json

_PARTS = {"ways", "problems", "pupils", "aliases_seen", "sittings", "today"}

Class = dict[str, list[str | None]]


def add_options(command: argparse.ArgumentParser) -> None:
    """What may stand after `believe`."""
    command.add_argument(
        "spec", metavar="FILE", help="JSON: problems, and what each pupil wrote (- for standard input)"
    )
    command.add_argument("--json", action="store_true", help="write the document as JSON")


def run(known: argparse.Namespace, given_ways: Mapping[str, str]) -> int:
    """Say what each pupil holds. Raises `CoreError`."""
    given = _read(known.spec)
    ways = Ways.of({**_ways(given), **given_ways})
    if "sittings" in given:
        return _say_over_time(*_sittings(given), ways, known.json)
    problems, pupils = _answers(given, "")
    held = believe(problems, pupils, ways, mark_of(ways))
    if known.json:
        print(json.dumps(document(held, problems), ensure_ascii=False))
    else:
        _say(held, ways)
    return 0


def _say_over_time(sittings: list[Sitting], today: date, ways: Ways, as_json: bool) -> int:
    found = over_time(sittings, ways, today, mark_of(ways))
    if as_json:
        problems = [problem for one in sittings if one.day <= today for problem in one.problems]
        print(json.dumps(document(found.held, problems) | _document_over_time(found), ensure_ascii=False))
        return 0
    _say(found.held, ways)
    for alias, gone in found.no_longer.items():
        for one in gone:
            print(f"{alias}: no longer {voice_of(ways).said(ENTRIES[one.code].name)}, last on {one.last}")
    for back in found.come_back:
        print(f"Today again {back.what}: {', '.join(back.pupils)}")
    for problem in found.warm_up:
        print(f"  {problem}")
    return 0


def _say(held: Held, ways: Ways) -> None:
    voice = voice_of(ways)
    for alias, found in held.beliefs.items():
        said = [
            f"{one.word} {voice.said(ENTRIES[one.code].name)} ({len(one.did)} of {len(one.could)})" for one in found
        ]
        print(f"{alias}: {'; '.join(said) or 'nothing stands out'}")
    for group in held.groups:
        print(f"  {', '.join(group.codes) or 'ready to go on'}: {', '.join(group.pupils)}")


# The documents --------------------------------------------------------------------------------------------------------


def document(held: Held, problems: Sequence[str]) -> dict[str, Any]:
    """What is held, as plain values (docs/formats.md)."""
    return {
        "pupils": {
            alias: {
                "beliefs": [
                    {
                        "code": one.code,
                        "belief": round(float(one.belief), 4),
                        "shown": len(one.did),
                        "chances": len(one.could),
                        "evidence": [{"problem": problems[i], "shown": i in one.did} for i in one.could],
                    }
                    for one in found
                ],
                "cannot_tell": [list(pair) for pair in held.cannot_tell[alias]],
            }
            for alias, found in held.beliefs.items()
        },
        "groups": [_group(group, problems) for group in held.groups],
    }


def _group(group: Group, problems: Sequence[str]) -> dict[str, Any]:
    targets = [code for code in group.codes if not ENTRIES[code].on_form]
    ladder: dict[str, Any] = {"rungs": dict.fromkeys(group.rungs, 2), "targets": targets}
    if group.denominators:
        ladder["denominators"] = [d for d in group.denominators if 2 <= d <= 99]
    return {
        "codes": list(group.codes),
        "pupils": list(group.pupils),
        "show": None if group.show is None else problems[group.show],
        "question": ENTRIES[group.codes[0]].question if group.codes else None,
        "ladder": ladder if group.rungs else None,
    }


def _document_over_time(found: OverTime) -> dict[str, Any]:
    return {
        "no_longer": {
            alias: [
                {"code": one.code, "last": str(one.last), "on": str(one.on), "chances": one.chances} for one in gone
            ]
            for alias, gone in found.no_longer.items()
        },
        "reached": {
            alias: [{"rung": one.rung, "on": str(one.on)} for one in rungs] for alias, rungs in found.reached.items()
        },
        "come_back": [{"what": one.what, "pupils": list(one.pupils)} for one in found.come_back],
        "warm_up": list(found.warm_up),
    }


# What comes in --------------------------------------------------------------------------------------------------------


def _read(name: str) -> dict[str, Any]:
    hint = 'Begin with {"problems": ["1/2 + 1/3"], "pupils": {"Sedge": ["5/6"]}}.'
    given = read_json(name, "The answers are", hint)
    if not isinstance(given, dict):
        raise _refused("The answers are an object.", 'Write {"problems": [...], "pupils": {...}}.')
    extra = sorted(set(given) - _PARTS)
    if extra:
        raise _refused(f"{extra[0]!r} is no part of the answers.", "They have ways, problems and pupils, or sittings.")
    return given


def _ways(given: Mapping[str, Any]) -> dict[str, str]:
    ways = given.get("ways") or {}
    if not isinstance(ways, dict) or not all(isinstance(code, str) for code in ways.values()):
        raise _refused("ways: names with codes are needed.", 'Write "ways": {}.')
    return ways


def _answers(given: Mapping[str, Any], place: str) -> tuple[list[str], Class]:
    """The problems, and what each pupil wrote; *place* is where they stand, for what is said."""
    problems, pupils = given.get("problems"), given.get("pupils")
    good = isinstance(problems, list) and all(isinstance(one, str) for one in problems)
    if not isinstance(problems, list) or not good or not 1 <= len(problems) <= MOST_EXAMPLES:
        raise _refused(
            f"{place}problems: a list of 1 to {MOST_EXAMPLES} texts is needed.", 'Write "problems": ["7 1/4 - 3 5/6"].'
        )
    if not isinstance(pupils, dict) or len(pupils) > MOST_PUPILS:
        raise _refused(
            f"{place}pupils: an object of at most {MOST_PUPILS} aliases is needed.",
            'Write "pupils": {"Sedge": ["4 7/12"]}.',
        )
    for alias, answers in pupils.items():
        good = isinstance(answers, list) and all(one is None or isinstance(one, str) for one in answers)
        if not good or len(answers) > len(problems):
            raise _refused(
                f"{place}pupils.{alias}: a list of at most {len(problems)} answers is needed.",
                "An empty text is a blank, null is not there.",
            )
    return problems, pupils


def _sittings(given: Mapping[str, Any]) -> tuple[list[Sitting], date]:
    """The sittings in the order of their days, and what day it is."""
    found = given["sittings"]
    if not isinstance(found, list) or not 1 <= len(found) <= MOST_SITTINGS or {"problems", "pupils"} & set(given):
        raise _refused(
            f"sittings: a list of 1 to {MOST_SITTINGS} is needed, each with day, problems and pupils.",
            'Write "sittings": [{"day": "2026-11-05", "problems": ["1/2 + 1/3"], "pupils": {"Sedge": ["5/6"]}}].',
        )
    sittings = []
    for i, one in enumerate(found):
        place = f"sittings.{i}."
        if not isinstance(one, dict) or set(one) - {"day", "problems", "pupils"}:
            raise _refused(f"{place[:-1]}: an object with day, problems and pupils is needed.", "Look at its names.")
        problems, pupils = _answers(one, place)
        sittings.append(Sitting(_day(one.get("day"), f"{place}day"), tuple(problems), pupils))
    today = _day(given["today"], "today") if "today" in given else date.today()
    return sorted(sittings, key=lambda one: one.day), today


def _day(given: object, place: str) -> date:
    try:
        return date.fromisoformat(given if isinstance(given, str) else "")
    except ValueError:
        raise _refused(f"{place}: a day is needed.", f'Write "{place.split(".")[-1]}": "2026-11-05".') from None


def _refused(message: str, hint: str) -> ReadError:
    return ReadError(message, 0, 0, hint)
