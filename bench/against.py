"""This version beside another one, in turns: `./slate bench --against COMMIT`. Ratios say more than milliseconds."""

from __future__ import annotations

import json
import os
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from tools.application import ROOT
from tools.postgres import DESK
from tools.throw_away import database

TURNS = 3
MEASURES = Path(__file__).with_name("measures.py")
FILL = """
import os
from sqlalchemy.orm import Session
from keen_slate.store.database import migrate, open_engine
from keen_slate.store.demo import load
migrate(os.environ["DATABASE_URL"])
with Session(open_engine(os.environ["DATABASE_URL"])) as session, session.begin():
    load(session)
try:
    from keen_slate.store.database import let_in
except ImportError:
    pass  # a version in which the application owned the tables
else:
    let_in(os.environ["DATABASE_URL"], os.environ["DESK"])
"""

Table = dict[str, dict[str, float]]


def main(commit: str) -> int:
    """Print what each measure takes there and here; returns 1 where there is no such commit."""
    with tempfile.TemporaryDirectory(prefix="keen-slate-against-") as directory:
        there = Path(directory) / "there"
        added = _git("worktree", "add", "--detach", str(there), commit)
        if added.returncode:
            print(f"bench: {added.stderr.strip()}", file=sys.stderr)
            return 1
        try:
            with _filled(there) as old, _filled(ROOT) as new:
                turns = [(_measured(there, old), _measured(ROOT, new)) for _ in range(TURNS)]
        finally:
            _git("worktree", "remove", "--force", str(there))
    before, after = (_least([turn[i] for turn in turns]) for i in (0, 1))
    print(
        f"processor time in ms, the least of {TURNS} turns; in brackets how often the anchor's\n{commit:>52}        "
        "here"
    )
    for part, names in after.items():
        print(part)
        anchors = [next(iter(table[part].values())) for table in (before, after)]
        for name, took in names.items():
            was = before[part][name]
            print(
                f"  {name:36} {was:8.2f} ({was / anchors[0]:6.1f}) {took:8.2f} ({took / anchors[1]:6.1f})   "
                f"{took / was:5.2f} of before"
            )
    return 0


def _git(*arguments: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run(["git", *arguments], cwd=ROOT, capture_output=True, text=True, check=False)


@contextmanager
def _filled(tree: Path) -> Iterator[dict[str, str]]:
    """What the measures are to know: where a database is with the demo data as the version in *tree* makes them."""
    with database() as records:
        known = {"DATABASE_URL": records.url, "DESK": DESK, "DESK_URL": records.desk_url()}
        subprocess.run([sys.executable, "-c", FILL], cwd=tree, env=os.environ | known, check=True)
        yield known


def _measured(tree: Path, known: dict[str, str]) -> Table:
    environment = os.environ | known | {"MEASURED": str(tree)}
    done = subprocess.run([sys.executable, MEASURES], cwd=tree, env=environment, stdout=subprocess.PIPE, check=True)
    found: Table = json.loads(done.stdout)
    return found


def _least(turns: list[Table]) -> Table:
    return {part: {name: min(turn[part][name] for turn in turns) for name in names} for part, names in turns[0].items()}
