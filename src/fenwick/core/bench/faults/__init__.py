"""Faults of a line, the hunt for one, and practice."""
