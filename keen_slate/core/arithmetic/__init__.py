"""Whole numbers and columns, as anybody calculates with them. In: whole numbers, decimals.

Out: primes, columns, long division.
"""
