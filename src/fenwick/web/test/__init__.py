"""Test: readings of a line, tuning the model to them, and finding a fault."""

from fenwick.web.test import hunt
from fenwick.web.test.routes import bp

__all__ = ["bp", "hunt"]
