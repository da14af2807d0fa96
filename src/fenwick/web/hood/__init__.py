"""A tool port's own page: what stands around the dust, and what it catches."""

from fenwick.web.hood.routes import bp

__all__ = ["bp"]
