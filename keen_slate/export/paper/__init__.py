"""Handouts: what stands on their pages, kind by kind. `kinds` holds a module for each kind of page."""
