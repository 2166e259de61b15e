"""What is written where. In: a `Working`. Out: rows and sheets of cells in the squares of the paper; screens and paper only place them."""
