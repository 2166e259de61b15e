"""PDF files as a program that somebody else wrote reads them: Poppler's tools."""

from __future__ import annotations

import re
import subprocess
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path


@contextmanager
def _file(document: bytes) -> Iterator[Path]:
    """The *document* as a file of its own, in a folder of its own."""
    with tempfile.TemporaryDirectory() as directory:
        path = Path(directory) / "paper.pdf"
        path.write_bytes(document)
        yield path


def _run(*command: str | Path) -> bytes:
    return subprocess.run(command, check=True, capture_output=True).stdout


def _text(document: bytes, how: str) -> str:
    with _file(document) as path:
        return _run("pdftotext", how, path, "-").decode()


def texts(document: bytes) -> list[str]:
    """The text of each page, its white space taken out: fractions are read top, then bottom."""
    pages = _text(document, "-raw").split("\f")[:-1]
    return [re.sub(r"\s", "", page) for page in pages]


def places(document: bytes) -> list[list[tuple[str, float, float, float]]]:
    """For each page its words, each with the upper end of its line, and how far right and down it ends, in points."""
    found = _text(document, "-bbox")
    word = re.compile(r'<word xMin="[\d.-]+" yMin="([\d.-]+)" xMax="([\d.-]+)" yMax="([\d.-]+)">(.*?)</word>')
    return [
        [(w[4], float(w[1]), float(w[2]), float(w[3])) for w in word.finditer(page)]
        for page in found.split("<page ")[1:]
    ]


def alternatives(document: bytes) -> list[str]:
    """The alternative texts, in their order in the file."""
    return [one.decode() for one in re.findall(rb"/Alt\(((?:[^()\\]|\\.)*)\)", document)]


@dataclass
class Grey:
    """A page in greys, a byte for each point; rows from the top."""

    width: int
    height: int
    points: bytes

    def row(self, y: int) -> bytes:
        """The points of a row."""
        return self.points[y * self.width : (y + 1) * self.width]


def greys(document: bytes, dots: int = 36) -> list[Grey]:
    """Each page in greys, so many *dots* to the inch."""
    with _file(document) as path:
        _run("pdftoppm", "-gray", "-r", str(dots), path, path)
        return [_pgm(one.read_bytes()) for one in sorted(path.parent.glob("*.pgm"))]


def _pgm(content: bytes) -> Grey:
    _, size, _, points = content.split(b"\n", 3)
    width, height = map(int, size.split())
    return Grey(width, height, points)


def info(document: bytes) -> dict[str, str]:
    """What a reader says of the whole file."""
    with _file(document) as path:
        said, fonts = _run("pdfinfo", path).decode(), _run("pdffonts", path).decode()
    facts = dict(re.findall(r"^([\w ]+?): +(.*)$", said, re.MULTILINE))
    return facts | {"fonts": " ".join(line.split()[0] + " " + line.split()[-5] for line in fonts.splitlines()[2:])}
