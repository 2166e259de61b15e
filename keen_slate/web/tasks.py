"""Everything that heavy requests need, loaded once into the process that theirs are forked from."""

from . import papers, searches, sittings_tasks, story_searches

__all__ = ["papers", "searches", "sittings_tasks", "story_searches"]
