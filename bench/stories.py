"""How ordinary stories are read, by kind, certain and wrong first; and how long it takes."""

from __future__ import annotations

import time
from collections import Counter

from keen_slate.core.ladders.stories import Made, make_stories
from keen_slate.core.ladders.story_wish import read_story_wish
from tests.ordinary import Ordinary, counted, given, of_file, read, unclear

_WAYS = ("certain, wrong", "certain, right", "asked, right first", "offered", "not offered", "refused")


def report() -> None:
    """Print counts by kind, and the times of reading and of making."""
    sets = {
        "given": given(),
        "own": of_file("ordinary.txt"),
        "closed": of_file("ordinary-closed.txt"),
        "unclear": unclear(),
    }
    for name, stories in sets.items():
        print(f"{name}: {len(stories)} stories")
        whole: Counter[str] = Counter()
        for kind, found in counted(stories):
            whole += found
            print(f"  {kind:<16}" + "".join([f"  {way}: {found[way]}" for way in _WAYS if found[way]]))
        print("  in all          " + "".join([f"  {way}: {whole[way]}" for way in _WAYS]))
    _print_times([one for stories in sets.values() for one in stories])


def _print_times(stories: list[Ordinary]) -> None:
    for one in stories:
        read(one.text)
    took = []
    for one in stories:
        began = time.process_time()
        read(one.text)
        took.append((time.process_time() - began) * 1000)
    took.sort()
    print(f"reading: median {took[len(took) // 2]:.1f} ms, at most {took[-1]:.1f} ms of processor time")
    _print_made()


def _print_made() -> None:
    began, made = time.process_time(), 0
    for seed in range(50):
        wish = read_story_wish({"rungs": {"S1": 5, "S2": 5, "S3": 4, "S4": 3, "S5": 3}, "seed": seed})
        found = make_stories(wish)
        assert isinstance(found, Made), "the usual rungs are always to be had"
        made += len(found.stories)  # each is worked, with its likely wrong answers, before it is taken
    print(f"{made} stories made and worked in {time.process_time() - began:.1f} s of processor time")
