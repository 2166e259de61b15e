"""A JSON file that a command of the command line is given."""

from __future__ import annotations

import json
import sys
from pathlib import Path

from keen_slate.core.errors import ReadError


def read_json(name: str, what: str, hint: str) -> object:
    """The value in the file *name* (`-`: standard input). Raises `ReadError`, which says that *what* is not JSON, with a *hint*."""
    try:
        return json.loads(sys.stdin.buffer.read() if name == "-" else Path(name).read_bytes())
    except OSError as error:
        raise ReadError(f"The file {name} cannot be read: {error.strerror}.", 0, len(name), "Check its name.") from None
    except (ValueError, RecursionError):
        raise ReadError(f"{what} not JSON.", 0, 0, hint) from None
