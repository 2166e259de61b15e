"""What the pupils of a class hold, from the command line: answers in, beliefs and groups out."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import Any

from keen_slate.core.diagnosing.holding import Group, Held, believe
from keen_slate.core.errors import ReadError
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.limits import MOST_EXAMPLES
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import mark_of, voice_of

MOST_PUPILS = 100


def add_options(command: argparse.ArgumentParser) -> None:
    """What may stand after `believe`."""
    command.add_argument(
        "spec", metavar="FILE", help="JSON: problems, and what each pupil wrote (- for standard input)"
    )
    command.add_argument("--json", action="store_true", help="write the document as JSON")


def run(known: argparse.Namespace, given_ways: Mapping[str, str]) -> int:
    """Say what each pupil holds. Raises `CoreError`."""
    problems, pupils, chosen = _read(known.spec)
    ways = Ways.of({**chosen, **given_ways})
    held = believe(problems, pupils, ways, mark_of(ways))
    if known.json:
        print(json.dumps(document(held, problems), ensure_ascii=False))
        return 0
    voice = voice_of(ways)
    for alias, found in held.beliefs.items():
        said = [
            f"{one.word} {voice.said(ENTRIES[one.code].name)} ({len(one.did)} of {len(one.could)})" for one in found
        ]
        print(f"{alias}: {'; '.join(said) or 'nothing stands out'}")
    for group in held.groups:
        print(f"  {', '.join(group.codes) or 'ready to go on'}: {', '.join(group.pupils)}")
    return 0


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


def _read(name: str) -> tuple[list[str], dict[str, list[str | None]], dict[str, str]]:
    try:
        source = sys.stdin.buffer.read() if name == "-" else Path(name).read_bytes()
        given = json.loads(source)
    except OSError as error:
        raise ReadError(f"The file {name} cannot be read: {error.strerror}.", 0, len(name), "Check its name.") from None
    except (ValueError, RecursionError):
        raise ReadError(
            "The answers are not JSON.", 0, 0, 'Begin with {"problems": ["1/2 + 1/3"], "pupils": {"Sedge": ["5/6"]}}.'
        ) from None
    if not isinstance(given, dict):
        raise _refused("The answers are an object.", 'Write {"problems": [...], "pupils": {...}}.')
    extra = sorted(set(given) - {"ways", "problems", "pupils", "aliases_seen"})
    if extra:
        raise _refused(f"{extra[0]!r} is no part of the answers.", "They have ways, problems and pupils.")
    problems, pupils, ways = given.get("problems"), given.get("pupils"), given.get("ways") or {}
    if (
        not isinstance(problems, list)
        or not 1 <= len(problems) <= MOST_EXAMPLES
        or not all(isinstance(one, str) for one in problems)
    ):
        raise _refused(
            f"problems: a list of 1 to {MOST_EXAMPLES} texts is needed.", 'Write "problems": ["7 1/4 - 3 5/6"].'
        )
    if not isinstance(pupils, dict) or len(pupils) > MOST_PUPILS:
        raise _refused(
            f"pupils: an object of at most {MOST_PUPILS} aliases is needed.", 'Write "pupils": {"Sedge": ["4 7/12"]}.'
        )
    if not isinstance(ways, dict) or not all(isinstance(code, str) for code in ways.values()):
        raise _refused("ways: names with codes are needed.", 'Write "ways": {}.')
    for alias, answers in pupils.items():
        good = isinstance(answers, list) and all(one is None or isinstance(one, str) for one in answers)
        if not good or len(answers) > len(problems):
            raise _refused(
                f"pupils.{alias}: a list of at most {len(problems)} answers is needed.",
                "An empty text is a blank, null is not there.",
            )
    return problems, pupils, ways


def _refused(message: str, hint: str) -> ReadError:
    return ReadError(message, 0, 0, hint)
