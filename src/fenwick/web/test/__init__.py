"""Test: readings of a line, and tuning the model to them."""

from fenwick.web.test.routes import bp

__all__ = ["bp"]
