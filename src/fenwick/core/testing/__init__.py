"""Judging readings: what a test shows, how surely, and what it cannot show. Pure functions on what was read."""
