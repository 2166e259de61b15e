"""Benchmarks: each prints what it measured beside a yardstick of the same run."""
