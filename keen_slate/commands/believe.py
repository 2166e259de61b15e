"""What the pupils of a class hold, from the command line: answers in, beliefs and groups out."""

from __future__ import annotations

import argparse
from collections.abc import Mapping
from datetime import date
from typing import Any

from keen_slate.core.documents.belief import held_document, over_time_document
from keen_slate.core.documents.plain import plainly
from keen_slate.core.errors import ReadError
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.limits import MOST_EXAMPLES, MOST_PUPILS, MOST_SITTINGS
from keen_slate.core.sittings.holding import Held, believe, given_by
from keen_slate.core.sittings.over_time import SittingAnswers, over_time, warm_up
from keen_slate.core.sittings.question import Question, asked_of
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import mark_of, voice_of

from .given import add_json, add_settings, read_json, settings_of
from .said import as_json

_PARTS = {"ways", "problems", "pupils", "aliases_seen", "sittings", "today"}

Class = dict[str, list[str | None]]


def add_options(command: argparse.ArgumentParser) -> None:
    """What may stand after `believe`."""
    command.add_argument(
        "spec", metavar="FILE", help="JSON: problems, and what each pupil wrote (- for standard input)"
    )
    add_json(command)
    add_settings(command)


def run(known: argparse.Namespace, parser: argparse.ArgumentParser) -> int:
    """Say what each pupil holds. Raises `CoreError`."""
    given = _read(known.spec)
    ways = Ways.of(_ways(given) | settings_of(known))
    if "sittings" in given:
        return _say_over_time(*_sittings(given, ways), ways, known.json)
    problems, pupils = _answers(given, "")
    asked = [asked_of(Question(problem, ways, mark=mark_of(ways))) for problem in problems]
    held = believe(asked, {alias: given_by(asked, wrote) for alias, wrote in pupils.items()})
    if known.json:
        print(as_json(plainly(held_document(held, asked))))
    else:
        _say(held, ways)
    return 0


def _say_over_time(sittings: list[SittingAnswers], today: date, ways: Ways, document_wanted: bool) -> int:
    found = over_time(sittings, today)
    asked = [problem for one in sittings if one.day <= today for problem in one.asked]
    again = [one.source for one in warm_up(found, asked, today)]
    if document_wanted:
        print(as_json(plainly(held_document(found.held, asked)) | plainly(over_time_document(found, again))))
        return 0
    _say(found.held, ways)
    for alias, gone in found.no_longer.items():
        for one in gone:
            print(f"{alias}: no longer {voice_of(ways).said(ENTRIES[one.code].name)}, last on {one.last}")
    for back in found.come_back:
        print(f"Today again {back.what}: {', '.join(back.pupils)}")
    for problem in again:
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


def _sittings(given: Mapping[str, Any], ways: Ways) -> tuple[list[SittingAnswers], date]:
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
        asked = tuple([asked_of(Question(problem, ways, mark=mark_of(ways))) for problem in problems])
        wrote = {alias: given_by(asked, answers) for alias, answers in pupils.items()}
        sittings.append(SittingAnswers(_day(one.get("day"), f"{place}day"), asked, wrote))
    today = _day(given["today"], "today") if "today" in given else date.today()
    return sorted(sittings, key=lambda one: one.day), today


def _day(given: object, place: str) -> date:
    try:
        return date.fromisoformat(given if isinstance(given, str) else "")
    except ValueError:
        raise _refused(f"{place}: a day is needed.", f'Write "{place.split(".")[-1]}": "2026-11-05".') from None


def _refused(message: str, hint: str) -> ReadError:
    return ReadError(message, 0, 0, hint)
