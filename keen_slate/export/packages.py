"""Zip packages: always the same bytes for the same content."""

from __future__ import annotations

import io
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
