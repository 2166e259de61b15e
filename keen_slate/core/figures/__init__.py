"""Pictures to scale: numbers in, a display list out. A renderer draws the shapes and calculates nothing."""
