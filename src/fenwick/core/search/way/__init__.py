"""Ways to a line that works: combinations of changes, the least count first."""
