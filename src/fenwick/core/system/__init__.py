"""The whole line: the operating point, and what follows from it."""
