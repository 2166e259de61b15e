"""What is typed. In: a text and a decimal mark. Out: a `Problem`, or a `ReadError` with the place and a remedy."""
