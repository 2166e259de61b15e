"""Nasty texts: long, large, full of blanks and broken; and what the core takes for each, in time and memory."""

from __future__ import annotations

import resource
import time
from collections.abc import Callable, Iterator
from functools import partial
from random import Random

from keen_slate.core.building.given import read_numbers, read_wanted
from keen_slate.core.building.search import build as build_number
from keen_slate.core.diagnosing.answers import diagnose
from keen_slate.core.diagnosing.lines import check
from keen_slate.core.diagnosing.mend import nearest
from keen_slate.core.documents.view import working_view
from keen_slate.core.errors import CoreError
from keen_slate.core.searching.deadline import until
from keen_slate.core.ways.settings import SETTINGS, Ways
from keen_slate.core.worked import work_text

DEADLINE = 0.8  # seconds after which a search is to end, so that none takes a whole one
_WHOLES = (0, 1, 2, 9, 10, 99, 360, 997, 5040, 9999, 999_999)
_DENS = (1, 2, 3, 12, 60, 84, 97, 360, 840, 997, 5040, 7560, 9240, 9973, 9998, 9999)
_JUNK = "_/ .^()=[]×÷+-,;%$m\x00\ud800٣½⅞−​"

CHOICES = {name: tuple(one.codes) for name, one in SETTINGS.items()}


def _is_over(end: float) -> bool:
    return time.process_time() > end


def texts(dice: Random) -> Iterator[str]:
    """Problems at the limits, with blanks, long decimals and large bottoms; and the same with a slip of the
    keyboard.
    """
    while True:
        written = dice.choice((_sum, _sum, _product, _blanks, _order, _lone))(dice)[:200]
        if dice.random() < 0.15:
            at = dice.randrange(len(written) + 1)
            written = written[:at] + dice.choice(_JUNK) + written[at + dice.randrange(2) :]
        yield written


def _whole(dice: Random) -> int:
    return dice.choice((dice.choice(_WHOLES), dice.randrange(10), dice.randrange(10**6)))


def _fraction(dice: Random, blank: float = 0) -> str:
    d = dice.choice((dice.choice(_DENS), dice.randrange(2, 13), dice.randrange(1, 10_000)))
    top = "_" if dice.random() < blank else str(dice.choice((dice.randrange(1, d + 1), _whole(dice))))
    return f"{top}/{d}"


def _number(dice: Random) -> str:
    form = dice.randrange(6)
    if form < 2:
        return _fraction(dice)
    if form == 2:
        return f"{_whole(dice)} {_fraction(dice)}"
    if form == 3:
        return str(_whole(dice))
    places = "".join(dice.choices("0123456789", k=dice.randrange(1, 7)))
    return f"{_whole(dice)}.{places}" if form == 4 else f"{dice.randrange(99)}.{places[:2]}[{places[2:] or 3}]"


def _joined(dice: Random, most: int, operators: str) -> str:
    written = _number(dice)
    for _ in range(dice.randrange(1, most)):
        written += f" {dice.choice(operators)} {_number(dice)}"
    return written


def _sum(dice: Random) -> str:
    return _joined(dice, dice.choice((2, 3, 12)), "+-")


def _product(dice: Random) -> str:
    return _joined(dice, dice.choice((2, 2, 4)), "×÷")


def _order(dice: Random) -> str:
    inner = _joined(dice, 4, "+-×÷")
    return f"{_number(dice)} {dice.choice('+-×÷')} ({inner})" + dice.choice(("", "^2", "^6", f" - {_number(dice)}"))


def _lone(dice: Random) -> str:
    return _number(dice)


def _blanks(dice: Random) -> str:
    if dice.random() < 0.2:
        return f"{_fraction(dice)} = _/{dice.choice(_DENS)} = {_fraction(dice, 0.5)}"
    left = " + ".join(_fraction(dice, 0.8) for _ in range(dice.choice((1, 2, 3, 4, 11))))
    if dice.random() < 0.3:
        left = left.replace(" + ", " - ", 1)
    return f"{left} = {_number(dice)}"


def tasks(written: str, dice: Random) -> dict[str, Callable[[], object]]:
    """What may be asked of a text, by name."""
    ways = Ways.of({name: dice.choice(codes) for name, codes in CHOICES.items()})
    answer, code = _number(dice), dice.choice(("add-across", "smaller-from-larger", "right-aligned", "left-to-right"))
    count = dice.randrange(3, 7)

    def build() -> object:
        numbers = read_numbers("; ".join(_number(dice) for _ in range(count)))
        return build_number(numbers, read_wanted(_number(dice)))

    asked = {
        "work": lambda: working_view(work_text(written, ways, ".")),
        "diagnose": lambda: diagnose(written, answer, ways),
        "check": lambda: check(written, [_number(dice), f"= {answer} = {written}", answer], ways),
        "mend": lambda: nearest(work_text(written, ways, "."), code),
    }
    return asked | ({"build": build} if dice.random() < 0.05 else {})


def worst(count: int, seed: int, kinds: tuple[str, ...] = ()) -> dict[str, tuple[float, str, int]]:
    """For each task (or *kinds* of them): the longest processor time of *count* texts, its text, and how many were
    refused.

    Every task has a deadline, as it has when a page asks.
    """
    dice = Random(seed)
    found: dict[str, tuple[float, str, int]] = {}
    for written, _ in zip(texts(dice), range(count), strict=False):
        for name, task in tasks(written, dice).items():
            if kinds and name not in kinds:
                continue
            longest, text, refused = found.get(name, (0.0, "", 0))
            start = time.process_time()
            end = start + DEADLINE
            with until(partial(_is_over, end)):
                try:
                    task()
                except CoreError:
                    refused += 1
            took = time.process_time() - start
            found[name] = (took, written, refused) if took > longest else (longest, text, refused)
    return found


def memory() -> int:
    """The most memory that this process has had, in MB."""
    return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss // 1024


def report(count: int, seed: int) -> None:
    """Print the worst of each task."""
    before = memory()
    for name, (took, written, refused) in worst(count, seed).items():
        print(f"  {name:<9} longest {took:6.3f} s   {refused} of {count} refused   {written!r}")
    print(f"  memory: {before} MB before, {memory()} MB at most")
