"""The fault finder: suspects by what was noticed and read, and the next check."""

from fenwick.web.faults.routes import bp

__all__ = ["bp"]
