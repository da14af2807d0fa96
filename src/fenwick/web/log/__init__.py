"""The log: what was done, what is due, what it cost, whether it gets worse."""

from fenwick.web.log.routes import bp

__all__ = ["bp"]
