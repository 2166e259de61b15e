"""What a teacher adds. In: a `Working` and her choices. Out: what pupils fill in, points, minutes."""
