"""Zip packages: always the same bytes for the same content; what one says of itself; names of files."""

from __future__ import annotations

import io
import re
import zipfile
from collections.abc import Mapping

_MOMENT = (1980, 1, 1, 0, 0, 0)  # the earliest that the format knows: a package does not tell when it was made


def package(files: Mapping[str, bytes], plain: tuple[str, ...] = ()) -> bytes:
    """The *files* as a zip in their order; those named in *plain* are not compressed."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as made:
        for name, content in files.items():
            info = zipfile.ZipInfo(name, _MOMENT)
            info.compress_type = zipfile.ZIP_STORED if name in plain else zipfile.ZIP_DEFLATED
            made.writestr(info, content)
    return out.getvalue()


def sizes(file: bytes) -> list[tuple[str, int]] | None:
    """Each file in a zip, and the bytes that it says it unpacks to; None for what is no zip. Nothing is unpacked."""
    try:
        with zipfile.ZipFile(io.BytesIO(file)) as given:
            return [(one.filename, one.file_size) for one in given.infolist()]
    except Exception:  # whatever a broken file does to its reader
        return None


def file_name(title: str) -> str:
    """What a file of the set called *title* is named, without its suffix.

    >>> file_name("O'Hara's <b>planks</b>")
    'o-hara-s-b-planks-b'
    """
    return plain(title) or "set"


def plain(title: str) -> str:
    """What of a *title* may stand in the name of any file; "" where that is nothing."""
    return re.sub(r"[^A-Za-z0-9]+", "-", title).strip("-").lower()
