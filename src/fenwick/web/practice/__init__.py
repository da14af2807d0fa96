"""Practice: a fault is hidden, readings cost minutes, and a good hunt is shown at the end."""

from fenwick.web.practice.routes import bp

__all__ = ["bp"]
