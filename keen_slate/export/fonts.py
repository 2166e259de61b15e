"""The typeface that ships with the application, as addresses by weight."""

from __future__ import annotations

import base64
from pathlib import Path

WEIGHTS = (400, 700)


def _files(assets: Path) -> dict[int, Path]:
    found = {weight: sorted(assets.glob(f"andika-latin-{weight}-normal-*.woff2")) for weight in WEIGHTS}
    return {weight: paths[0] for weight, paths in found.items() if paths}


def within(assets: Path) -> dict[int, str]:
    """For a file that has everything in it."""
    return {
        weight: f"data:font/woff2;base64,{base64.b64encode(path.read_bytes()).decode()}"
        for weight, path in _files(assets).items()
    }


def served(assets: Path) -> dict[int, str]:
    """For a page of this server."""
    return {weight: f"/assets/{path.name}" for weight, path in _files(assets).items()}
