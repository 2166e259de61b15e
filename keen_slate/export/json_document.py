"""Documents of our own as JSON files: written, and read back with every fault named by its place."""

from __future__ import annotations

import json
from typing import Any, TypeVar

from pydantic import BaseModel, ConfigDict, ValidationError

from keen_slate.core.errors import CoreError, ReadError
from keen_slate.core.limits import LARGEST_FILE
from keen_slate.core.reading.characters import refuse_unkeepable
from keen_slate.core.searching.deadline import EndedEarlyError, one_of_many
from keen_slate.core.stories.any_text import read_any
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text

Model = TypeVar("Model", bound=BaseModel)


class Part(BaseModel):
    """A part of a document: what it does not know is refused, not lost."""

    model_config = ConfigDict(extra="forbid", strict=True)


def written(document: BaseModel) -> bytes:
    """A document as a file."""
    return spelled(document.model_dump(mode="json"))


def spelled(value: Any) -> bytes:
    """A *value* of JSON as a file."""
    return (json.dumps(value, ensure_ascii=False, indent=1) + "\n").encode()


def read(file: bytes, model: type[Model], what: str, size: str) -> Model:
    """The document that a *file* holds, as its *model* has it; *what* it is called, and the *size* that one has.

    Raises `ReadError` that says where it is wrong, and why.
    """
    name = model.model_fields["format"].annotation.__args__[0]  # type: ignore[union-attr]
    given = parsed(file, what, size)
    if not isinstance(given, dict) or given.get("format") != name:
        raise refused(f"The file is not a Keen Slate {what}.", f'It would begin with "format": "{name}".')
    if given.get("version") != 1:
        raise refused("The file is of a version that is not known here.", "This Keen Slate reads version 1.")
    try:
        return model.model_validate(given)
    except ValidationError as error:
        first = error.errors(include_url=False, include_input=False)[0]
        raise refused(f"{_place(first['loc'])}: {first['msg']}.", "Nothing was stored.") from None


def parsed(file: bytes, what: str, size: str) -> Any:
    """The value that a *file* of JSON spells; *what* it is called, and the *size* that one has. Raises `ReadError`."""
    if len(file) > LARGEST_FILE:
        raise refused(f"The file is larger than {LARGEST_FILE // 2**20} MB.", size)
    try:
        given = json.loads(file.decode("utf-8-sig"))
    except UnicodeDecodeError:
        raise refused("The file is not UTF-8 text.", "Choose a file that Keen Slate has written.") from None
    except json.JSONDecodeError as error:
        raise refused(
            f"The file is not JSON: line {error.lineno}, column {error.colno}.", "It may be broken."
        ) from None
    except (RecursionError, ValueError):
        raise refused(
            "The file is nested too deeply, or has too long a number.", f"No {what} looks like this."
        ) from None
    refuse_unkeepable(given)
    return given


def ways_at(codes: dict[str, str], place: str) -> Ways:
    """The ways that stand at a *place* of a document. Raises `ReadError` that names it."""
    try:
        return Ways.of(codes)
    except CoreError as error:
        raise refused(f"{place}: {error.message}", error.hint) from None


def problem_at(problem: str, target: str | None, ways: Ways, place: str) -> str:
    """The problem that stands at a *place*, worked and spelled as it is stored. Raises `ReadError` that names it.

    Each has its own time to be worked; one that takes longer was kept where it comes from, and is kept here.
    """
    try:
        with one_of_many():
            return work_text(problem, ways, ".", target).working.problem.text
    except EndedEarlyError:
        return read_any(problem, ".").text
    except CoreError as error:
        raise refused(f"{place}.problem: {error.message}", error.hint) from None


def _place(location: tuple[Any, ...]) -> str:
    """("examples", 3, "problem") -> examples[3].problem."""
    spelled = "".join([f"[{part}]" if isinstance(part, int) else f".{part}" for part in location])
    return spelled.removeprefix(".") or "the document"


def refused(message: str, hint: str) -> ReadError:
    """A refusal of a document."""
    return ReadError(message, 0, 0, hint)
