"""Number building, a warm-up. In: a handful of numbers and one to build. Out: the shortest ways to it."""
