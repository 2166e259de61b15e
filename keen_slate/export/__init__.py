"""Sets on paper and in files. Knows the core, not the store or the web."""
