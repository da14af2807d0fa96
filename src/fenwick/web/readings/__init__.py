"""Readings of a line, and the model tuned to them."""

from fenwick.web.readings.routes import bp

__all__ = ["bp"]
