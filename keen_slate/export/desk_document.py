"""All that is a teacher's as one zip (docs/formats.md): `desk.json`, and a document for each set, class and scenario.

A part that cannot be read is left out and named; a file that is no such zip is refused.
"""

from __future__ import annotations

import io
import zipfile
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

from keen_slate.core.errors import CoreError, ReadError
from keen_slate.core.limits import TITLE_LENGTH
from keen_slate.core.stories.scenarios import document_of, read_scenario

from . import class_document, json_document, set_document
from .class_document import ClassDocument
from .json_document import Part, ways_at
from .packages import package, plain, sizes
from .set_document import Codes, SetDocument

PLACES = ("shelf", "archive", "bin")
UNPACKED = 96 * 1024 * 1024  # bytes of all its documents together
MOST_FILES = 30_000
_DESK = "desk.json"


class DeskDocument(Part):
    """What a teacher has chosen for all sets."""

    format: Literal["keen-slate/desk"]
    version: Literal[1]
    name: str = ""
    ways: Codes = {}


@dataclass(slots=True)
class WholeDesk:
    """All that is a teacher's: her *ways*, her sets by the file that each is in (`set_files`), classes, and scenarios.

    *left* names what could not be read, and why.
    """

    name: str
    ways: dict[str, str]
    sets: dict[str, SetDocument] = field(default_factory=dict)
    classes: list[ClassDocument] = field(default_factory=list)
    scenarios: list[dict[str, Any]] = field(default_factory=list)
    left: list[str] = field(default_factory=list)


def packed(desk: WholeDesk) -> bytes:
    """A *desk* as a file; the same desk makes the same bytes."""
    head = DeskDocument(format="keen-slate/desk", version=1, name=desk.name[:TITLE_LENGTH], ways=desk.ways)
    files = {_DESK: json_document.written(head)}
    files |= {name: json_document.written(one) for name, one in desk.sets.items()}
    classes = _numbered("classes", [one.name for one in desk.classes])
    files |= {name: json_document.written(one) for name, one in zip(classes, desk.classes, strict=True)}
    scenarios = _numbered("scenarios", [str(one["code"]) for one in desk.scenarios])
    files |= {name: json_document.spelled(one) for name, one in zip(scenarios, desk.scenarios, strict=True)}
    return package(files)


def set_files(place: str, titles: Sequence[str]) -> list[str]:
    """The files of the sets that lie in a *place*, by their *titles* in their order."""
    return _numbered(f"sets/{place}", titles)


def place_of(file: str) -> str:
    """Where the set of a file lies."""
    return file.split("/")[1]


def _numbered(folder: str, called: Sequence[str]) -> list[str]:
    return [f"{folder}/{i:05}-{plain(one)[:60]}.json" for i, one in enumerate(called, 1)]


def refuse_large(file: bytes) -> None:
    """Raises `ReadError` for a *file* that is no desk, or says of itself that it is too large."""
    found = sizes(file)
    if found is None or _DESK not in [name for name, _ in found]:
        raise ReadError(
            "This is no file of a whole desk.", 0, 0,
            "Choose the zip that My account saved; a single set is brought in on the Shelf.",
        )  # fmt: skip
    if len(found) > MOST_FILES or sum(size for _, size in found) > UNPACKED:
        raise ReadError("This file is too large.", 0, 0, "Bring the sets in one by one.")


def unpacked(file: bytes) -> WholeDesk:
    """The desk that a *file* holds. Raises `ReadError` where it is none."""
    refuse_large(file)
    with zipfile.ZipFile(io.BytesIO(file)) as given:
        head = json_document.read(_content(given, _DESK), DeskDocument, "desk", "It has a few lines.")
        ways_at(head.ways, "ways")
        desk = WholeDesk(head.name, dict(head.ways))
        for name in given.namelist():
            if name == _DESK or name.endswith("/"):
                continue
            try:
                _take(desk, name, _content(given, name))
            except CoreError as error:
                desk.left.append(f"{name}: {error}")
    return desk


def _take(desk: WholeDesk, name: str, content: bytes) -> None:
    match name.split("/"):
        case ["sets", place, _] if place in PLACES:
            desk.sets[name] = set_document.read_document(content)
        case ["classes", _]:
            desk.classes.append(class_document.read_document(content))
        case ["scenarios", _]:
            desk.scenarios.append(_scenario(content))
        case _:
            raise ReadError("There is no place for this on a desk.", 0, 0, "")


def _scenario(content: bytes) -> dict[str, Any]:
    given = json_document.parsed(content, "scenario", "A scenario takes a few kB.")
    return dict(document_of(read_scenario(given)))


def _content(given: zipfile.ZipFile, name: str) -> bytes:
    try:
        return given.read(name)
    except Exception:  # whatever a broken file does to its reader
        raise ReadError("This part of the file is broken.", 0, 0, "Save it again where it came from.") from None
