"""Keen Slate: graded worked examples in fraction, mixed-number and decimal arithmetic."""
