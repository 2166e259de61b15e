"""A picture of a problem, or of a step of its working, from the command line."""

from __future__ import annotations

import argparse
import sys

from keen_slate.core.errors import ReadError
from keen_slate.core.figures import choose
from keen_slate.core.figures.choose import FIGURE_KINDS
from keen_slate.core.figures.svg import STATES, svg
from keen_slate.core.ways.voices import voice_of
from keen_slate.core.worked import work_text
from keen_slate.core.working.proof import Working

from .given import add_settings, ways_of


def add_options(command: argparse.ArgumentParser) -> None:
    """What may stand after `figure`."""
    command.add_argument("problem", help="like '1/3 + 2/5'")
    command.add_argument(
        "--kind",
        choices=tuple(FIGURE_KINDS),
        metavar="KIND",
        help=f"{', '.join(FIGURE_KINDS)}; the one that serves best if left out",
    )
    command.add_argument(
        "--step", type=int, metavar="N", help="the picture of step N (from 1) in place of the problem's"
    )
    command.add_argument(
        "--state", choices=STATES, default="both", metavar="STATE", help="before, after or both (default)"
    )
    add_settings(command)


def run(known: argparse.Namespace, parser: argparse.ArgumentParser) -> int:
    """Write the picture as SVG. Raises `CoreError`."""
    ways = ways_of(known)
    working = work_text(known.problem, ways).working
    if known.step is None:
        figure = choose.of_problem(working, known.kind)
    elif 1 <= known.step <= len(working.steps):
        figure = choose.of_step(working.steps[known.step - 1], choose.Look.of(working), known.kind)
    else:
        raise ReadError(
            f"There is no step {known.step}.", 0, len(known.problem), f"The working has {len(working.steps)} steps."
        )
    if figure is None or (known.kind and figure.kind != known.kind):
        wanted = f"of {choose.FIGURE_KINDS[known.kind].name} " if known.kind else ""
        raise ReadError(
            f"No picture {wanted}can show this.",
            0,
            len(known.problem),
            _pictures_there(working),
        )
    sys.stdout.write(svg(figure, known.state, voice_of(ways)))
    return 0


def _pictures_there(working: Working) -> str:
    """Which pictures the problem and its steps have, by what asks for them."""
    look = choose.Look.of(working)
    problem = {figure.kind for kind in FIGURE_KINDS if (figure := choose.of_problem(working, kind)) is not None}
    there = [f"--kind {', '.join(sorted(problem))}"] if problem else []
    for i, step in enumerate(working.steps):
        kinds = choose.offered(choose.StepSeen.of(step, look))
        there += [f"--step {i + 1} --kind {', '.join(kinds)}"] if kinds else []
    return f"There are: {'; '.join(there)}." if there else "Neither it nor any of its steps has one."
