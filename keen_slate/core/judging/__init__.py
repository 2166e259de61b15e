"""What can be said of a working at once. In: a `Working`. Out: its estimate, checks, likely wrong answers and slips."""
