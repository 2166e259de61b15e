"""Pictures to scale. In: a `Working` or its steps. Out: a `Figure`, shapes with exact places and the words for it."""
