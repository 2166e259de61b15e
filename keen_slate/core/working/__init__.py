"""How a problem is worked. In: a `Problem` and `Ways`. Out: a `Working`, each step of it proven."""
