"""What is kept: teachers, their sets, and the examples in them. Knows the core, not the web."""
